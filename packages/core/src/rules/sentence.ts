// The rule in one plain sentence, in parts of which each can be changed.
import { filterClause } from '../catalogs/index.js';
import { format } from '../values/index.js';
import { kindOf } from './kinds.js';
import type { OtherValues, Rule, RuleNames, SentencePart } from './models.js';

const othersWords: { readonly [O in OtherValues]: string } = {
  refuse: 'refused',
  confirm: 'stored when it is confirmed, and marked',
  request: 'stored marked, and asked for',
  add: 'added to the catalog',
  accept: 'accepted',
};

/** A text in quotes at the end of a sentence, which needs no full stop of its own after one inside. */
const quoted = (text: string): string => `“${text}”`;
const stopAfter = (text: string): string => (/[.!?]$/u.test(text) ? '' : '.');

function beginningWords({ begins }: Rule, names: RuleNames): string {
  switch (begins.with) {
    case 'empty':
      return 'empty';
    case 'value':
      return `with ${quoted(format(names.kind ?? 'text', begins.value, names.locale))}`;
    case 'today':
      return 'with today';
    case 'above':
      return 'with the value above';
  }
}

/** What a rule takes, in a few words: "a text that has exactly 6 characters". */
export const ruleTakes = (rule: Rule, names: RuleNames): string =>
  kindOf(rule.kind)
    .takes(rule, names)
    .map(({ text }) => text)
    .join('');

/** "Takes one value from Berths under the entry's Quay; may be blank; any other value is refused, saying “Pick a berth.”" */
export function ruleSentence(rule: Rule, names: RuleNames): readonly SentencePart[] {
  const parts: SentencePart[] = [];
  if (rule.where)
    parts.push({ text: 'Only where ' }, { text: filterClause(rule.where, names.field), edits: 'where' }, { text: ', takes ' });
  else parts.push({ text: 'Takes ' });
  parts.push(
    ...kindOf(rule.kind).takes(rule, names),
    { text: '; ' },
    { text: rule.mayBeBlank ? 'may be blank' : 'must not be blank', edits: 'mayBeBlank' },
  );
  if (rule.noRepeats) parts.push({ text: '; ' }, { text: 'no value twice', edits: 'noRepeats' });
  if (rule.readOnly) parts.push({ text: '; ' }, { text: 'only administrators change it', edits: 'readOnly' });
  parts.push({ text: '; any other value is ' }, { text: othersWords[rule.others], edits: 'others' });
  if (rule.others === 'accept' || rule.others === 'add') parts.push({ text: '.' });
  else
    parts.push(
      { text: ', saying ' },
      { text: rule.refusalText ? quoted(rule.refusalText) : 'Dellum’s own words', edits: 'refusalText' },
      { text: stopAfter(rule.refusalText) },
    );
  parts.push(
    { text: ' A new entry begins ' },
    { text: beginningWords(rule, names), edits: 'begins' },
    { text: '; on arrival it shows ' },
    { text: rule.hint ? quoted(rule.hintTitle ? `${rule.hintTitle}: ${rule.hint}` : rule.hint) : 'no hint', edits: 'hint' },
    { text: stopAfter(rule.hint) },
  );
  return parts.filter(({ text }) => text !== '');
}
