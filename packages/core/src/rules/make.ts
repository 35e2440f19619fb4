// A rule of each kind as it is at first, before anything of it is changed.
import type { FieldId } from '../registers/index.js';
import { kindOf } from './kinds.js';
import type { CatalogRule, Rule, RuleBase, RuleOf } from './models.js';

export const ruleBase: RuleBase = {
  mayBeBlank: true,
  others: 'refuse',
  hint: '',
  refusalText: '',
  begins: { with: 'empty', value: '' },
  noRepeats: false,
  where: null,
};

/** A rule of a kind with nothing set yet; what both kinds say stays as it is in `before`. */
export function newRule<Kind extends Rule['kind']>(kind: Kind, before: RuleBase = ruleBase): RuleOf<Kind> {
  const { mayBeBlank, others, hint, hintTitle, refusalText, begins, noRepeats, readOnly, where } = before;
  const base: RuleBase = {
    mayBeBlank,
    others,
    hint,
    ...(hintTitle && { hintTitle }),
    refusalText,
    begins,
    noRepeats,
    ...(readOnly && { readOnly }),
    where,
  };
  return { ...base, ...kindOf(kind).asNew, kind } as RuleOf<Kind>;
}

/** The rules of fields, outermost first, that take the levels of one catalog: each under what those before it hold. */
export const chainRules = (catalogId: string, fields: readonly FieldId[]): CatalogRule[] =>
  fields.map((_, level) => ({ ...newRule('catalog'), catalogId, level, parents: fields.slice(0, level) }));
