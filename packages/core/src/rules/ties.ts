// What a rule ties a field to: its list, the catalog it comes from, the fields that hold its parents, and those it fills.
import type { Catalog } from '../catalogs/index.js';
import type { FieldId } from '../registers/index.js';
import type { Locale } from '../values/index.js';
import { kindOf } from './kinds.js';
import type { Brings, Checkable, JudgedField, Picking, Rule, RulePart } from './models.js';

type Ruled = Pick<JudgedField, 'rule'>;
type Catalogs = ReadonlyMap<string, Catalog>;

/** The catalog that a rule takes its values from, if it does. */
export const catalogIdOf = (rule: Rule | null | undefined): string | undefined => (rule ? kindOf(rule.kind).catalogId?.(rule) : undefined);

/** Whether the catalog that the field needs is among those that are there; true for one that needs none. */
export function hasCatalog({ rule }: Ruled, catalogs: Pick<Catalogs, 'has'>): boolean {
  const id = catalogIdOf(rule);
  return id === undefined || catalogs.has(id);
}

/**
 * The list of a field, of its level whatever the parents, shown by the kind of the field; undefined without a list, or while its catalog is
 * not there.
 */
export const listOf = ({ rule, kind }: Pick<JudgedField, 'rule' | 'kind'>, catalogs: Catalogs, locale: Locale): Catalog | undefined =>
  rule ? kindOf(rule.kind).list?.(rule, kind, { catalogs, locale }) : undefined;

/** The values of the list of a rule, in its order; undefined without a list, or while its catalog is not there. */
export const valuesOf = (rule: Rule | null, catalogs: Catalogs): readonly string[] | undefined =>
  rule ? kindOf(rule.kind).values?.(rule, catalogs) : undefined;

/** How its list is picked from; undefined for rules without one. */
export const pickingOf = (rule: Rule | null): Picking | undefined => (rule ? kindOf(rule.kind).picking?.(rule) : undefined);

/** Whether a field takes its values from a list, of a catalog or its own. */
export const hasList = (rule: Rule | null): boolean => pickingOf(rule) !== undefined;
/** Whether values are picked from a list that opens. */
export const picksFrom = (rule: Rule | null): boolean => pickingOf(rule)?.list === true;

/** The fields that hold the parents, outermost first. */
export const parentsOf = (rule: Rule | null): readonly FieldId[] => (rule && kindOf(rule.kind).parents?.(rule)) ?? [];

/** What a chosen value brings into other fields. */
export const bringsOf = (rule: Rule | null): readonly Brings[] => (rule && kindOf(rule.kind).brings?.(rule)) ?? [];

/** The numbers between which its values are; an end left out is open, or depends on another field. */
export const numbersOf = (rule: Rule | null): { readonly least?: string; readonly most?: string } =>
  (rule && kindOf(rule.kind).bounds?.(rule)) ?? {};

/** The fields that a choice fills: with what comes along, and the parents where they may be blank. */
export const filledBy = (rule: Rule | null): readonly FieldId[] => [
  ...bringsOf(rule).map(({ field }) => field),
  ...(rule && kindOf(rule.kind).fillsUp?.(rule) ? parentsOf(rule) : []),
];

/** Whether a single choice is filled in by itself. */
export const fillsItself = (rule: Rule | null): boolean => (rule && kindOf(rule.kind).fillsItself?.(rule)) ?? false;

/** What other programs can check of a rule; of none where it holds for some entries only. */
export function checkableOf(rule: Rule | null): Checkable {
  if (!rule) return { check: null, lost: [] };
  const { check, lost } = kindOf(rule.kind).checkable(rule);
  return {
    check: rule.where ? null : check,
    lost: [
      ...(rule.where ? ['is not checked there, since its rule holds only in some entries'] : lost),
      ...(rule.noRepeats ? ['can be repeated there'] : []),
      ...(rule.readOnly ? ['can be changed there'] : []),
    ],
  };
}

/** What the sentence of a rule can say besides what it says. */
export const partsOfRule = (rule: Rule): readonly RulePart[] => [...(kindOf(rule.kind).parts ?? []), 'where', 'noRepeats', 'readOnly'];
