// A rule of each kind as it is at first, before anything of it is changed.
import type { FieldId } from '../registers/index.js';
import type { CatalogRule, Picking, Rule, RuleBase } from './models.js';

export const plainPicking: Picking = { list: true, search: 'anywhere', lines: 8, most: null };

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
export function newRule(kind: Rule['kind'], before: RuleBase = ruleBase): Rule {
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
  switch (kind) {
    case 'catalog':
      return {
        ...base,
        kind,
        catalogId: '',
        level: null,
        parents: [],
        blankParent: 'nothing',
        misfit: 'clear',
        fillsSingle: false,
        day: null,
        fitting: [],
        brings: [],
        picking: plainPicking,
      };
    case 'typed':
      return { ...base, kind, values: [], picking: plainPicking };
    case 'date':
      return { ...base, kind, from: null, until: null };
    case 'number':
      return { ...base, kind, least: null, most: null, decimals: null };
    case 'length':
      return { ...base, kind, least: null, most: null };
    case 'pattern':
      return { ...base, kind, pattern: '', examples: [] };
    case 'expression':
      return { ...base, kind, expression: '', message: '' };
    case 'plain':
      return { ...base, kind };
  }
}

/** The rules of fields, outermost first, that take the levels of one catalog: each under what those before it hold. */
export const chainRules = (catalogId: string, fields: readonly FieldId[]): CatalogRule[] =>
  fields.map((_, level) => ({ ...(newRule('catalog') as CatalogRule), catalogId, level, parents: fields.slice(0, level) }));
