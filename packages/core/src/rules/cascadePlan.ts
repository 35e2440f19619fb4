// What a changed cell does to other cells of its entry: deeper choices that no longer fit are cleared or kept, parents and
// companions are filled. Computed before it is done, so that it can be said.
import { catalogAmong, hasTuple, choices } from '../cascades/index.js';
import { itemWithValue, type Catalog } from '../catalogs/index.js';
import type { Cells, FieldId } from '../registers/index.js';
import { withTexts } from '../registers/index.js';
import { closedHere, offerOf } from './catalogRule.js';
import { ruleHere } from './judge.js';
import type { CatalogRule, JudgeContext, JudgedField } from './models.js';

export type CascadeField = JudgedField & { readonly key: FieldId };

export interface CascadePlan {
  /** The cells of the entry after the change and all that follows from it. */
  readonly cells: Cells;
  /** Fields whose value was taken out, with what they held. */
  readonly cleared: readonly { readonly field: FieldId; readonly value: string }[];
  /** Fields whose value stays although it does not fit any more. */
  readonly kept: readonly FieldId[];
  readonly filled: readonly { readonly field: FieldId; readonly value: string }[];
}

const parentsIn = ({ parents }: CatalogRule, cells: Cells): string[] => parents.map((key) => cells[key] ?? '');

/** The one value that can be chosen here; undefined when there are more, or none. */
function onlyChoice(rule: CatalogRule, context: JudgeContext): string | undefined {
  const catalog = context.catalogs.get(rule.catalogId);
  const parents = parentsIn(rule, context.entry ?? {});
  if (!catalog || parents.includes('')) return undefined;
  const open = choices(catalog, parents).filter((item) => !closedHere(rule, item, context));
  return open.length === 1 ? open[0]!.value : undefined;
}

/** Whether anything can follow from a change in these fields: one of them depends on others or brings something along. */
function follows(fields: readonly CascadeField[]): boolean {
  const known = following.get(fields);
  if (known !== undefined) return known;
  const found = fields.some(({ rule }) => rule?.kind === 'catalog' && (rule.parents.length > 0 || rule.brings.length > 0));
  following.set(fields, found);
  return found;
}
const following = new WeakMap<readonly CascadeField[], boolean>();
const nothing: readonly never[] = [];

/** What follows from a change of some cells. `before` is the entry with the changed cells in it already; `changed` their fields. */
export function planCascade(
  fields: readonly CascadeField[],
  before: Cells,
  changed: readonly FieldId[],
  context: Omit<JudgeContext, 'entry' | 'held'>,
): CascadePlan {
  if (!follows(fields)) return { cells: before, cleared: nothing, kept: nothing, filled: nothing };
  let cells = before;
  const cleared: { field: FieldId; value: string }[] = [];
  const kept: FieldId[] = [];
  const filled: { field: FieldId; value: string }[] = [];
  const set = (field: FieldId, value: string) => {
    cells = withTexts(cells, [[field, value]]);
  };
  const moved = new Set(changed);
  const bring = (rule: CatalogRule, value: string) => {
    const offer = offerOf(rule, { ...context, entry: cells });
    const item = 'offers' in offer ? itemWithValue(offer.offers, value) : undefined;
    for (const { companion, field } of rule.brings) {
      const along = item?.companions?.[companion] ?? '';
      if (value !== '' && (cells[field] ?? '') === along) continue;
      set(field, along);
      filled.push({ field, value: along });
      moved.add(field);
    }
  };
  const catalogRuleOf = (field: CascadeField): CatalogRule | undefined => {
    const rule = ruleHere(field, { entry: cells });
    return rule?.kind === 'catalog' && context.catalogs.has(rule.catalogId) ? rule : undefined;
  };
  for (const field of fields.filter(({ key }) => changed.includes(key))) {
    const rule = catalogRuleOf(field);
    if (rule && rule.brings.length > 0) bring(rule, cells[field.key] ?? '');
  }
  // Shallow fields come before the deeper ones that depend on them.
  const below = fields.flatMap((field) => {
    const rule = changed.includes(field.key) ? undefined : catalogRuleOf(field);
    return rule && rule.parents.length > 0 ? [{ field, rule }] : [];
  });
  below.sort((a, b) => a.rule.parents.length - b.rule.parents.length);
  for (const { field, rule } of below) {
    if (!rule.parents.some((parent) => moved.has(parent))) continue;
    const value = cells[field.key] ?? '';
    const parents = parentsIn(rule, cells);
    const fits = fitsUnder(rule, context.catalogs.get(rule.catalogId)!, parents, value);
    if (value !== '' && !fits && rule.misfit === 'keep') kept.push(field.key);
    else if (value !== '' && !fits) {
      set(field.key, '');
      cleared.push({ field: field.key, value });
      moved.add(field.key);
    }
    const only = rule.fillsSingle && (cells[field.key] ?? '') === '' ? onlyChoice(rule, { ...context, entry: cells }) : undefined;
    if (only !== undefined) {
      set(field.key, only);
      filled.push({ field: field.key, value: only });
      moved.add(field.key);
    }
    if (moved.has(field.key) && rule.brings.length > 0) bring(rule, cells[field.key] ?? '');
  }
  return { cells, cleared, kept, filled };
}

/** Whether a value goes with the parents. Where all is offered while some are blank, it has to agree with those that are filled. */
function fitsUnder(rule: CatalogRule, catalog: Catalog, parents: readonly string[], value: string): boolean {
  if (!parents.includes('')) return hasTuple(catalog, [...parents, value]);
  return (
    rule.blankParent === 'all' &&
    parents.some((parent) => parent !== '') &&
    itemWithValue(catalogAmong(catalog, parents), value) !== undefined
  );
}
