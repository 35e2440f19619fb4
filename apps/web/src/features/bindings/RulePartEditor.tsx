// The small editors behind the parts of a rule sentence, one a part.
import { Button, Input, Stack, Text, Textarea } from '@chakra-ui/react';
import {
  catalogIdOf,
  format,
  newRule,
  parse,
  readChoices,
  ruleAs,
  rulesFor,
  ruleTitle,
  valuesIn,
  writeTypedList,
  type Begins,
  type OtherValues,
  type Rule,
  type RulePart,
} from '@dellum/core';
import { useId, useState, type ReactNode } from 'react';
import { useCatalogs } from '../../data/useCatalogs.js';
import { pickList } from '../../picker/pickList.js';
import { FilterEditor } from '../filters/FilterEditor.js';
import { Choices, type Choice } from './Choices.js';
import { BroughtEditor, DayEditor, FittingEditor, ParentsEditor, PickingEditor } from './CatalogParts.js';
import { BoundsEditor } from './BoundsEditor.js';
import { ExpressionEditor } from './ExpressionEditor.js';
import { PatternEditor } from './PatternEditor.js';
import type { RulePartProps, RulePlace } from './rulePlace.js';
import { catalogRuleFor, likelyCatalog } from './levels.js';

export const partTitles: { readonly [Part in RulePart]: string } = {
  kind: 'What it takes',
  level: 'Which level',
  catalog: 'Values come from',
  parents: 'Under a parent',
  values: 'The values',
  bounds: 'Bounds',
  pattern: 'How it is written',
  expression: 'The expression that must be true',
  mayBeBlank: 'When it is left blank',
  noRepeats: 'No value twice',
  readOnly: 'Who may change it',
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
  {
    others: 'confirm',
    words: 'stored when it is confirmed',
    about: 'The clerk is asked; the value is stored marked, and counts as outside.',
  },
  {
    others: 'request',
    words: 'stored marked, and asked for',
    about: 'The clerk goes on; whoever keeps the catalog gets the request and answers it.',
  },
  {
    others: 'add',
    words: 'added to the catalog',
    about: 'The value is written into the source of the catalog and taken. For lists that everybody may add to.',
  },
  { others: 'accept', words: 'accepted', about: 'The rule helps, but anything goes; nothing is ever outside.' },
];

export function RulePartEditor({ edits, rule, place, choose }: RulePartProps & { readonly edits: RulePart }): ReactNode {
  const set = (change: Partial<Rule>) => choose({ ...rule, ...change } as Rule);
  const props = { place, choose };
  const [ofCatalog, typed] = [ruleAs('catalog', rule), ruleAs('typed', rule)];
  const [pattern, expression] = [ruleAs('pattern', rule), ruleAs('expression', rule)];
  switch (edits) {
    case 'kind':
      return (
        <Choices
          options={rulesFor(place.field.kind).map((kind): Choice => ({
            key: kind,
            words: ruleTitle(kind),
            chosen: kind === rule.kind,
            choose: () => choose(kind === rule.kind ? rule : ruleOfKind(kind, rule, place)),
          }))}
        />
      );
    case 'catalog':
      return (
        ofCatalog && (
          <Choices
            options={place.build.catalogs.map(({ id, title, note }): Choice => ({
              key: id,
              words: title,
              about: note,
              chosen: id === ofCatalog.catalogId,
              choose: () => choose(id === ofCatalog.catalogId ? rule : catalogRuleFor(id, place, rule)),
            }))}
          />
        )
      );
    case 'level':
    case 'parents':
      return ofCatalog && <ParentsEditor rule={ofCatalog} {...props} />;
    case 'day':
      return ofCatalog && <DayEditor rule={ofCatalog} {...props} />;
    case 'fitting':
      return ofCatalog && <FittingEditor rule={ofCatalog} {...props} />;
    case 'brings':
      return ofCatalog && <BroughtEditor rule={ofCatalog} {...props} />;
    case 'picking':
      return (ofCatalog ?? typed) && <PickingEditor rule={(ofCatalog ?? typed)!} {...props} />;
    case 'values':
      return typed && <TypedEditor values={typed.values} place={place} save={(values) => set({ values })} />;
    case 'bounds':
      return <BoundsEditor rule={rule} {...props} />;
    case 'pattern':
      return pattern && <PatternEditor rule={pattern} {...props} />;
    case 'expression':
      return expression && <ExpressionEditor rule={expression} {...props} />;
    case 'mayBeBlank':
      return (
        <Choices
          options={[
            {
              key: 'may',
              words: 'it may be blank',
              about: 'A clerk can leave it empty.',
              chosen: rule.mayBeBlank,
              choose: () => set({ mayBeBlank: true }),
            },
            {
              key: 'must',
              words: 'it must not be blank',
              about: 'Emptying the cell is refused; blank cells that stand are marked.',
              chosen: !rule.mayBeBlank,
              choose: () => set({ mayBeBlank: false }),
            },
          ]}
        />
      );
    case 'noRepeats':
      return (
        <Choices
          options={[
            {
              key: 'no',
              words: 'no value twice',
              about: 'A value that another entry holds is refused.',
              chosen: rule.noRepeats,
              choose: () => set({ noRepeats: true }),
            },
            { key: 'any', words: 'as often as one likes', chosen: !rule.noRepeats, choose: () => set({ noRepeats: false }) },
          ]}
        />
      );
    case 'readOnly':
      return (
        <Choices
          options={[
            { key: 'all', words: 'everybody who enters data', chosen: !rule.readOnly, choose: () => set({ readOnly: false }) },
            {
              key: 'administrators',
              words: 'administrators only',
              about: 'Others see it, and what it begins with or other fields bring along stands in it.',
              chosen: rule.readOnly === true,
              choose: () => set({ readOnly: true }),
            },
          ]}
        />
      );
    case 'others':
      return (
        <Choices
          options={othersWords
            .filter(({ others }) => ofCatalog || (others !== 'request' && others !== 'add'))
            .map(({ others, words, about }): Choice => ({
              key: others,
              words,
              about,
              chosen: rule.others === others,
              choose: () => set({ others }),
            }))}
        />
      );
    case 'begins':
      return <BeginsEditor rule={rule} {...props} />;
    case 'where':
      return <WhereEditor rule={rule} {...props} />;
    case 'hint':
      return <HintPart hint={rule.hint} title={rule.hintTitle ?? ''} save={(hint, hintTitle) => set({ hint, hintTitle })} />;
    case 'refusalText':
      return (
        <TextPart
          label={partTitles.refusalText}
          text={rule.refusalText}
          blankWords="In Dellum’s own words"
          about="{value} stands for what was typed, {field} for the heading."
          save={(refusalText) => set({ refusalText })}
        />
      );
  }
}

/** A rule of another kind that says the same besides; a catalog is proposed where the heading names it. */
export function ruleOfKind(kind: Rule['kind'], before: Rule | null, place: RulePlace): Rule {
  const rule: Rule = newRule(kind, before ?? undefined);
  const likely = catalogIdOf(rule) === undefined ? undefined : likelyCatalog(place.build, place.field.heading);
  return likely === undefined ? rule : catalogRuleFor(likely, place, before);
}

function BeginsEditor({ rule, place, choose }: RulePartProps) {
  const { field, me } = place;
  const { locale, today } = me.house;
  const shown = (value: string) => (field.kind === 'several values' ? writeTypedList(valuesIn(value)) : format(field.kind, value, locale));
  const [text, setText] = useState(shown(rule.begins.value));
  const [fault, setFault] = useState('');
  const catalogs = useCatalogs([catalogIdOf(rule) ?? []].flat());
  const list = pickList(rule, field.kind, { locale, today, catalogs });
  const id = useId();
  const begin = (begins: Begins) => choose({ ...rule, begins });
  const option = (kind: Begins['with'], words: string, about: string): Choice => ({
    key: kind,
    words,
    about,
    chosen: rule.begins.with === kind,
    choose: () => begin({ with: kind, value: '' }),
  });
  const save = () => {
    const typed = text.trim();
    if (typed === '') return begin({ with: 'empty', value: '' });
    const meant = list?.means(typed);
    if (meant?.found === 'item') return begin({ with: 'value', value: meant.item.value });
    const parsed = parse(field.kind, typed, locale, today);
    if (parsed.ok) begin({ with: 'value', value: parsed.value });
    else setFault(parsed.reason);
  };
  return (
    <Stack gap="2">
      <Choices
        options={[
          option('empty', 'empty', 'The clerk fills it in.'),
          ...(field.kind === 'date' ? [option('today', 'with today', 'The day on which the entry is made.')] : []),
          option('above', 'with the value above', 'What the entry above it holds.'),
        ]}
      />
      <form
        onSubmit={(event) => {
          event.preventDefault();
          save();
        }}
      >
        <Stack direction="row" gap="1.5">
          <Input
            size="xs"
            aria-label="Value to begin with"
            placeholder="a value"
            list={id}
            value={text}
            onChange={(event) => setText(event.target.value)}
          />
          <datalist id={id}>
            {list?.search.items.slice(0, mostProposed).map((item) => (
              <option key={item.value} value={list.shownOf(item)} />
            ))}
          </datalist>
          <Button type="submit">Begin with it</Button>
        </Stack>
        {fault !== '' && (
          <Text role="alert" color="brick.fg">
            {fault}
          </Text>
        )}
      </form>
    </Stack>
  );
}

/** So many values of the list are proposed to begin with. */
const mostProposed = 200;

function WhereEditor({ rule, place, choose }: RulePartProps) {
  const [where, setWhere] = useState(rule.where);
  const others = place.register.fields.filter(({ key }) => key !== place.field.key);
  return (
    <Stack gap="2">
      <Text color="inkSoft">Other entries take whatever the kind of the field takes.</Text>
      <FilterEditor label="Entries for which the rule holds" filter={where} fields={others} onChange={setWhere} />
      <Button variant="solid" alignSelf="start" onClick={() => choose({ ...rule, where })}>
        {where ? 'Only for these' : 'For all entries'}
      </Button>
    </Stack>
  );
}

function TypedEditor({
  values,
  place: { field, me },
  save,
}: {
  values: readonly string[];
  place: RulePlace;
  save: (values: readonly string[]) => void;
}) {
  const { locale, today } = me.house;
  const [typed, setTyped] = useState(() => writeTypedList(values.map((value) => format(field.kind, value, locale))));
  const [fault, setFault] = useState('');
  const take = () => {
    const read = readChoices(typed, field.kind, locale, today);
    if (read.ok) save(read.values);
    else setFault(read.reason);
  };
  return (
    <Stack gap="2">
      <Textarea
        size="sm"
        rows={6}
        aria-label="The values"
        autoFocus
        placeholder="low, middle, high"
        value={typed}
        onChange={(event) => {
          setTyped(event.target.value);
          setFault('');
        }}
        onKeyDown={(event) => event.key === 'Enter' && (event.ctrlKey || event.metaKey) && take()}
      />
      <Text fontSize="xs" color="inkSoft">
        Parted by commas, semicolons or lines; quotes keep them together.
      </Text>
      {fault !== '' && (
        <Text role="alert" color="brick.fg">
          {fault}
        </Text>
      )}
      <Button variant="solid" alignSelf="start" onClick={take}>
        Take these values
      </Button>
    </Stack>
  );
}

function HintPart({ hint, title, save }: { hint: string; title: string; save: (hint: string, title: string) => void }) {
  const [typed, setTyped] = useState(hint);
  const [over, setOver] = useState(title);
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault();
        save(typed.trim(), typed.trim() === '' ? '' : over.trim());
      }}
    >
      <Stack gap="2">
        <Input
          size="sm"
          aria-label="Title over the hint"
          placeholder="Title, if it wants one"
          value={over}
          maxLength={60}
          onChange={(event) => setOver(event.target.value)}
        />
        <Textarea
          size="sm"
          rows={3}
          aria-label={partTitles.hint}
          autoFocus
          value={typed}
          maxLength={400}
          onChange={(event) => setTyped(event.target.value)}
        />
        <Stack direction="row">
          <Button variant="solid" type="submit">
            Show this hint
          </Button>
          {hint !== '' && <Button onClick={() => save('', '')}>Without a hint</Button>}
        </Stack>
      </Stack>
    </form>
  );
}

function TextPart({
  label,
  text,
  blankWords,
  about,
  save,
}: {
  label: string;
  text: string;
  blankWords: string;
  about?: string;
  save: (text: string) => void;
}) {
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
          <Button variant="solid" type="submit">
            Use these words
          </Button>
          {text !== '' && <Button onClick={() => save('')}>{blankWords}</Button>}
        </Stack>
      </Stack>
    </form>
  );
}
