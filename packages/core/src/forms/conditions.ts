// Conditions of a form that can never hold: nothing that a field takes would meet them.
import { comparesWith, compareTexts, filterClause, type Catalog, type Condition, type Filter } from '../catalogs/index.js';
import { grouped } from '../group.js';
import type { FieldId } from '../registers/index.js';
import { hasList, numbersOf, valuesOf, type CascadeField } from '../rules/index.js';
import { isNumeric, isOfKind, kindLabel, valuesIn } from '../values/index.js';

export interface ConditionContext {
  readonly fields: readonly CascadeField[];
  readonly catalogs: ReadonlyMap<string, Catalog>;
  /** Whether a field can hold anything while the form is filled. */
  canHold(field: FieldId): boolean;
}

/** All values that a field can hold, where its rule closes it; undefined where it does not. */
function closedValues({ kind, rule }: CascadeField, catalogs: ReadonlyMap<string, Catalog>): readonly string[] | undefined {
  if (rule === null && kind === 'yes/no') return ['yes', 'no'];
  if (!rule || rule.others !== 'refuse' || rule.where) return undefined;
  if (hasList(rule)) return valuesOf(rule, catalogs);
  return kind === 'yes/no' ? ['yes', 'no'] : undefined;
}

/** The bounds that a number rule sets, as conditions. */
function boundsOf({ key, rule }: CascadeField): Condition[] {
  if (rule?.others !== 'refuse' || rule.where) return [];
  const { least, most } = numbersOf(rule);
  const bound = (is: 'at least' | 'at most', value: string | undefined) => (value === undefined ? [] : [{ field: key, is, value }]);
  return [...bound('at least', least), ...bound('at most', most)];
}

const meets = (value: string, { is, value: wanted }: Condition): boolean =>
  is === 'contains' ? valuesIn(value).some((one) => compareTexts(is, one, wanted)) : compareTexts(is, value, wanted);

/** Whether one value can meet all of some conditions on it; several values meet each by one of them. */
function canMeet(field: CascadeField, conditions: readonly Condition[], context: ConditionContext): boolean {
  const wantsSomething = conditions.some((condition) => !meets('', condition));
  if (conditions.some(({ is }) => is === 'is blank')) return !wantsSomething;
  if (!wantsSomething) return true;
  if (!context.canHold(field.key)) return false;
  const closed = closedValues(field, context.catalogs);
  if (closed && field.kind === 'several values')
    return conditions.every(
      (condition) => !comparesWith(condition.is) || condition.is === 'is not' || closed.some((value) => meets(value, condition)),
    );
  if (closed) return closed.some((value) => conditions.every((condition) => meets(value, condition)));
  if (
    field.kind !== 'text' &&
    field.kind !== 'several values' &&
    conditions.some(({ is, value }) => is === 'is' && !isOfKind(field.kind, value))
  )
    return false;
  const exact = conditions.find(({ is }) => is === 'is');
  const all = [...conditions, ...boundsOf(field)];
  if (exact) return all.every((condition) => meets(exact.value, condition));
  const least = all.filter(({ is }) => is === 'at least');
  const most = all.filter(({ is }) => is === 'at most');
  return least.every(({ value }) => most.every((bound) => compareTexts('at most', value, bound.value)));
}

/** Why conditions that must all be met never can be, in words; undefined where they can. */
export function neverHolds(filters: readonly Filter[], context: ConditionContext): string | undefined {
  const headingOf = (key: string) => context.fields.find((field) => field.key === key)?.heading ?? key;
  const words = (conditions: readonly Condition[]) => filterClause({ all: true, conditions }, headingOf);
  const can = (conditions: readonly Condition[]) => {
    const field = context.fields.find(({ key }) => key === conditions[0]!.field);
    return field !== undefined && canMeet(field, conditions, context);
  };
  const together = filters.filter(({ all, conditions }) => all || conditions.length === 1).flatMap(({ conditions }) => conditions);
  const impossible = [...grouped(together, ({ field }) => field).values()].find((conditions) => !can(conditions));
  if (impossible) {
    const single = impossible.find((condition) => !can([condition]));
    return `${words(single ? [single] : impossible)}, which can never be${single && unread(single, context)}`;
  }
  const either = filters.find(({ all, conditions }) => !all && conditions.length > 1 && conditions.every((condition) => !can([condition])));
  return either && `${filterClause(either, headingOf)}, which can never be`;
}

/** Says of a value that is none of its field's kind how it has to be written. */
function unread({ field: key, is, value }: Condition, { fields }: ConditionContext): string {
  const field = fields.find((known) => known.key === key);
  if (is !== 'is' || !field || field.kind === 'text' || field.kind === 'several values' || isOfKind(field.kind, value)) return '';
  return `: it is not ${kindLabel(field.kind)}${field.kind === 'date' ? ', as in 2026-01-31' : isNumeric(field.kind) ? ', as in 12.5' : ''}`;
}
