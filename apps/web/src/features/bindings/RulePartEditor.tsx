// The small editors behind the parts of a rule sentence, one a part.
import { Button, Input, Stack, Text, Textarea } from '@chakra-ui/react';
import { newRule, readTypedList, ruleTitle, rulesFor, writeTypedList, type Begins, type OtherValues, type Rule, type RulePart } from '@dellum/core';
import { useState, type ReactNode } from 'react';
import { FilterEditor } from '../catalogs/FilterEditor.js';
import { Choices, type Choice } from './Choices.js';
import { BroughtEditor, DayEditor, FittingEditor, ParentsEditor, PickingEditor } from './CatalogParts.js';
import { BoundsEditor } from './BoundsEditor.js';
import { ExpressionEditor } from './ExpressionEditor.js';
import { PatternEditor } from './PatternEditor.js';
import type { RulePartProps, RulePlace } from './rulePlace.js';
import { suggestedCatalog } from './suggestedCatalog.js';

export const partTitles: { readonly [Part in RulePart]: string } = {
  kind: 'What it takes',
  catalog: 'Values come from',
  parents: 'Under a parent',
  values: 'The values',
  bounds: 'Bounds',
  pattern: 'How it is written',
  expression: 'The expression that must be true',
  mayBeBlank: 'When it is left blank',
  noRepeats: 'No value twice',
  others: 'Any other value is',
  hint: 'Hint shown on arrival',
  refusalText: 'Said when a value is refused',
  begins: 'A new entry begins',
  where: 'Only for some entries',
  day: 'The day that counts',
  fitting: 'Only what fits',
  brings: 'Bring along',
  picking: 'How it is picked',
};

const othersWords: readonly { readonly others: OtherValues; readonly words: string; readonly about: string }[] = [
  { others: 'refuse', words: 'refused', about: 'Only what the rule takes is stored.' },
  { others: 'confirm', words: 'stored when it is confirmed', about: 'The clerk is asked; the value is stored marked, and counts as outside.' },
  { others: 'request', words: 'stored marked, and asked for', about: 'The clerk goes on; whoever keeps the catalog gets the wish and answers it.' },
  { others: 'add', words: 'added to the catalog', about: 'The value is written into the source of the catalog and taken. For lists that everybody may add to.' },
  { others: 'accept', words: 'accepted', about: 'The rule helps, but anything goes; nothing is ever outside.' },
];

export function RulePartEditor({ edits, rule, place, choose }: RulePartProps & { readonly edits: RulePart }): ReactNode {
  const set = (change: Partial<Rule>) => choose({ ...rule, ...change } as Rule);
  const props = { place, choose };
  switch (edits) {
    case 'kind':
      return <Choices options={rulesFor(place.field.kind).map((kind): Choice => ({ key: kind, words: ruleTitle(kind), chosen: kind === rule.kind, choose: () => choose(kind === rule.kind ? rule : ruleOfKind(kind, rule, place)) }))} />;
    case 'catalog':
      return rule.kind === 'catalog' && <Choices options={place.build.catalogs.map(({ id, title, note }): Choice => ({ key: id, words: title, about: note, chosen: id === rule.catalogId, choose: () => set({ catalogId: id, level: null, parents: [], fitting: [], brings: [] }) }))} />;
    case 'parents':
      return rule.kind === 'catalog' && <ParentsEditor rule={rule} {...props} />;
    case 'day':
      return rule.kind === 'catalog' && <DayEditor rule={rule} {...props} />;
    case 'fitting':
      return rule.kind === 'catalog' && <FittingEditor rule={rule} {...props} />;
    case 'brings':
      return rule.kind === 'catalog' && <BroughtEditor rule={rule} {...props} />;
    case 'picking':
      return (rule.kind === 'catalog' || rule.kind === 'typed') && <PickingEditor rule={rule} {...props} />;
    case 'values':
      return rule.kind === 'typed' && <TypedEditor text={writeTypedList(rule.values)} save={(text) => set({ values: readTypedList(text, place.me.house.locale).values })} />;
    case 'bounds':
      return <BoundsEditor rule={rule} {...props} />;
    case 'pattern':
      return rule.kind === 'pattern' && <PatternEditor rule={rule} {...props} />;
    case 'expression':
      return rule.kind === 'expression' && <ExpressionEditor rule={rule} {...props} />;
    case 'mayBeBlank':
      return (
        <Choices
          options={[
            { key: 'may', words: 'it may be blank', about: 'A clerk can leave it empty.', chosen: rule.mayBeBlank, choose: () => set({ mayBeBlank: true }) },
            { key: 'must', words: 'it must not be blank', about: 'Emptying the cell is refused.', chosen: !rule.mayBeBlank, choose: () => set({ mayBeBlank: false }) },
          ]}
        />
      );
    case 'noRepeats':
      return (
        <Choices
          options={[
            { key: 'no', words: 'no value twice', about: 'A value that another entry holds is refused.', chosen: rule.noRepeats, choose: () => set({ noRepeats: true }) },
            { key: 'any', words: 'as often as one likes', chosen: !rule.noRepeats, choose: () => set({ noRepeats: false }) },
          ]}
        />
      );
    case 'others':
      return <Choices options={othersWords.filter(({ others }) => rule.kind === 'catalog' || (others !== 'request' && others !== 'add')).map(({ others, words, about }): Choice => ({ key: others, words, about, chosen: rule.others === others, choose: () => set({ others }) }))} />;
    case 'begins':
      return <BeginsEditor rule={rule} {...props} />;
    case 'where':
      return <WhereEditor rule={rule} {...props} />;
    case 'hint':
      return <TextPart label={partTitles.hint} text={rule.hint} blankWords="Without a hint" save={(hint) => set({ hint })} />;
    case 'refusalText':
      return <TextPart label={partTitles.refusalText} text={rule.refusalText} blankWords="In Dellum’s own words" about="{value} stands for what was typed, {field} for the heading." save={(refusalText) => set({ refusalText })} />;
  }
}

/** A rule of another kind that says the same besides; a catalog is suggested by the heading. */
export function ruleOfKind(kind: Rule['kind'], before: Rule | null, { build, field }: RulePlace): Rule {
  const rule = before ? newRule(kind, before) : newRule(kind);
  return rule.kind === 'catalog' ? { ...rule, catalogId: suggestedCatalog(build.catalogs, field.heading)?.id ?? '' } : rule;
}

function BeginsEditor({ rule, place, choose }: RulePartProps) {
  const [value, setValue] = useState(rule.begins.value);
  const begin = (begins: Begins) => choose({ ...rule, begins });
  const option = (kind: Begins['with'], words: string, about: string): Choice => ({ key: kind, words, about, chosen: rule.begins.with === kind, choose: () => begin({ with: kind, value: '' }) });
  return (
    <Stack gap="2">
      <Choices options={[option('empty', 'empty', 'The clerk fills it in.'), ...(place.field.kind === 'date' ? [option('today', 'with today', 'The day on which the entry is made.')] : []), option('above', 'with the value above', 'What the entry above it holds.')]} />
      <form
        onSubmit={(event) => {
          event.preventDefault();
          begin({ with: value.trim() === '' ? 'empty' : 'value', value: value.trim() });
        }}
      >
        <Stack direction="row" gap="1.5">
          <Input size="xs" aria-label="Value to begin with" placeholder="a value" value={value} onChange={(event) => setValue(event.target.value)} />
          <Button type="submit" size="xs" variant="outline">
            Begin with it
          </Button>
        </Stack>
      </form>
    </Stack>
  );
}

function WhereEditor({ rule, place, choose }: RulePartProps) {
  const [where, setWhere] = useState(rule.where);
  const others = place.register.fields.filter(({ key }) => key !== place.field.key);
  return (
    <Stack gap="2">
      <Text color="inkSoft">Other entries take whatever the kind of the field takes.</Text>
      <FilterEditor label="Entries for which the rule holds" filter={where} fields={others} onChange={setWhere} />
      <Button size="xs" alignSelf="start" onClick={() => choose({ ...rule, where })}>
        {where ? 'Only for these' : 'For all entries'}
      </Button>
    </Stack>
  );
}

function TypedEditor({ text, save }: { text: string; save: (text: string) => void }) {
  const [typed, setTyped] = useState(text);
  return (
    <Stack gap="2">
      <Textarea size="sm" rows={6} aria-label="The values" autoFocus placeholder="low, middle, high" value={typed} onChange={(event) => setTyped(event.target.value)} />
      <Text fontSize="xs" color="inkSoft">
        Parted by commas, semicolons or lines; quotes keep them together.
      </Text>
      <Button size="xs" alignSelf="start" onClick={() => save(typed)}>
        Take these values
      </Button>
    </Stack>
  );
}

function TextPart({ label, text, blankWords, about, save }: { label: string; text: string; blankWords: string; about?: string; save: (text: string) => void }) {
  const [typed, setTyped] = useState(text);
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault();
        save(typed.trim());
      }}
    >
      <Stack gap="2">
        <Input size="sm" aria-label={label} value={typed} maxLength={200} onChange={(event) => setTyped(event.target.value)} />
        {about && (
          <Text fontSize="xs" color="inkSoft">
            {about}
          </Text>
        )}
        <Stack direction="row">
          <Button type="submit" size="xs">
            Use these words
          </Button>
          {text !== '' && (
            <Button size="xs" variant="outline" onClick={() => save('')}>
              {blankWords}
            </Button>
          )}
        </Stack>
      </Stack>
    </form>
  );
}
