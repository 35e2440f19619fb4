// A value from a catalog: found by value, label, other name or another way of writing one of them.
import { isBlank } from '../text/index.js';
import { itemWithValue, lookUp, nearest, validityOn, type Catalog, type Item, type Lookup } from '../catalogs/index.js';
import { format, parse } from '../values/index.js';
import type { CatalogRule, JudgeContext, JudgedField, RuleKind, SentencePart, Verdict, VerdictCode } from './models.js';

function refused(rule: CatalogRule, code: VerdictCode, ownWords: string, suggestions: readonly string[] = []): Verdict {
  const meant = suggestions.length > 0 ? ` Did you mean ${orList(suggestions)}?` : '';
  return { verdict: 'refused', code, message: (rule.refusalText || ownWords) + meant, suggestions };
}

/** A text in quotes at the end of a sentence, which needs no full stop of its own after one inside. */
const endQuoted = (text: string): string => (/[.!?]$/u.test(text) ? '' : '.');

const orList = (words: readonly string[]): string =>
  words.length < 2 ? words.join('') : `${words.slice(0, -1).join(', ')} or ${words.at(-1)!}`;

function taken(item: Item, typed: string): Verdict {
  if (item.value === typed) return { verdict: 'taken', value: item.value };
  return { verdict: 'taken', value: item.value, corrected: `“${typed}” was taken as ${item.label}.` };
}

function otherValue(rule: CatalogRule, typed: string, catalog: Catalog, field: JudgedField, context: JudgeContext): Verdict {
  if (rule.others === 'accept') {
    const parsed = parse(field.kind, typed, context.locale);
    if (!parsed.ok) return refused(rule, 'wrong kind', parsed.reason);
    return { verdict: 'taken', value: parsed.value };
  }
  const suggestions = context.suggest ? nearest(catalog, typed) : [];
  return refused(rule, 'outside', `“${typed}” is not in ${catalog.title}.`, suggestions);
}

function ambiguous(rule: CatalogRule, typed: string, found: Extract<Lookup, { found: 'ambiguous' }>): Verdict {
  const values = found.items.slice(0, 3).map((item) => item.value);
  return refused(rule, 'ambiguous', `“${typed}” can mean ${orList(values)}. Type one of them in full.`);
}

export const catalogRule: RuleKind<CatalogRule> = {
  kind: 'catalog',

  judge(rule, text, field, context) {
    if (isBlank(text)) return rule.mayBeBlank ? { verdict: 'taken', value: '' } : refused(rule, 'blank', `${field.heading} must not be blank. Pick a value.`);
    const catalog = context.catalogs.get(rule.catalogId)!;
    const found = lookUp(catalog, text);
    if (found.found === 'ambiguous') return ambiguous(rule, text, found);
    if (found.found === 'nothing') return otherValue(rule, text, catalog, field, context);
    const { item } = found;
    if (rule.others === 'accept' || item.value === context.held) return taken(item, text);
    const validity = validityOn(item, context.today);
    if (item.state === 'offered' && validity === 'valid') return taken(item, text);
    if (item.state === 'offered' && validity === 'not yet valid') return refused(rule, validity, `${item.label} is offered from ${format('date', item.validFrom!, context.locale)} on.`);
    if (item.state === 'offered') return refused(rule, 'no longer valid', `${item.label} was offered until ${format('date', item.validUntil!, context.locale)}.`);
    return refused(rule, 'retired', `${item.label} is retired in ${catalog.title} and cannot be chosen for new entries.`);
  },

  stands(rule, value, field, context) {
    if (rule.others === 'accept') return { right: true };
    const catalog = context.catalogs.get(rule.catalogId)!;
    if (itemWithValue(catalog, value)) return { right: true };
    return { right: false, code: 'outside', message: `“${value}” is not in ${catalog.title}, so this ${field.heading} is outside.` };
  },

  sentence(rule, titles) {
    const parts: SentencePart[] = [
      { text: 'Takes one value from ' },
      { text: titles.get(rule.catalogId) ?? 'a catalog', edits: 'catalogId' },
      { text: '; ' },
      { text: rule.mayBeBlank ? 'may be blank' : 'must not be blank', edits: 'mayBeBlank' },
      { text: '; any other value is ' },
      { text: rule.others === 'refuse' ? 'refused' : 'accepted', edits: 'others' },
    ];
    if (rule.others === 'refuse') {
      parts.push({ text: ', saying ' }, { text: rule.refusalText ? `“${rule.refusalText}”` : 'Dellum’s own words', edits: 'refusalText' }, { text: endQuoted(rule.refusalText) });
    } else parts.push({ text: '.' });
    parts.push({ text: ' On arrival it shows ' }, { text: rule.hint ? `“${rule.hint}”` : 'no hint', edits: 'hint' }, { text: endQuoted(rule.hint) });
    return parts;
  },
};
