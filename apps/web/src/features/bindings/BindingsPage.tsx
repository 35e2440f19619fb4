// Bindings: every field of the house with what it takes, filtered; many are bound, given a copied rule, or cleared at once.
import { Box, Button, HStack, Input, Table, Text } from '@chakra-ui/react';
import { catalogIdOf, kindLabel, matchKey, ruleTakes } from '@dellum/core';
import type { BuildView, FieldCount, FieldView, Me, RegisterView, SheetView } from '@dellum/contract';
import { useState } from 'react';
import { Link, useSearchParams } from 'react-router';
import { errorWords } from '../../data/problem.js';
import { Check } from '../../frame/Check.js';
import { EmptyState, Page, Waiting } from '../../frame/Page.js';
import { Way } from '../../frame/Way.js';
import { Select } from '../../frame/Select.js';
import { SlipHead } from '../../frame/SlipHead.js';
import { useMeQuery } from '../../data/sessionApi.js';
import { useBuildQuery } from '../../data/buildApi.js';
import { useBindingsQuery } from '../../data/bindingsApi.js';
import { ManyRules } from './ManyRules.js';
import { RuleHistory } from './RuleHistory.js';
import { ruleNames } from './rulePlace.js';
import { number } from '../../frame/written.js';

const all = '';

/** A field with where it stands, what it takes in words, and its counts. */
export interface Line {
  readonly field: FieldView;
  readonly register: RegisterView;
  readonly sheet: SheetView;
  readonly takes: string;
  readonly count: FieldCount | undefined;
}

function linesOf(build: BuildView, me: Me, counts: readonly FieldCount[]): Line[] {
  const byField = new Map(counts.map((count) => [count.fieldId, count]));
  return build.sheets
    .filter(({ kind }) => kind === 'entry')
    .flatMap((sheet) =>
      sheet.registers.flatMap((register) =>
        register.fields.map((field): Line => ({
          field,
          register,
          sheet,
          takes: field.rule
            ? ruleTakes(field.rule, ruleNames({ field, register, build, me }))
            : field.kind === 'text'
              ? 'any text'
              : kindLabel(field.kind),
          count: byField.get(field.id),
        })),
      ),
    );
}

interface Wanted {
  readonly words: string;
  readonly catalog: string;
  readonly sheet: string;
  readonly rule: string;
}

const wantedBy = (address: URLSearchParams): Wanted => ({
  words: address.get('words') ?? '',
  catalog: address.get('catalog') ?? all,
  sheet: address.get('sheet') ?? all,
  rule: address.get('rule') ?? all,
});

const rules: readonly (readonly [string, string])[] = [
  [all, 'with any rule'],
  ['none', 'without a rule'],
  ['catalog', 'bound to a catalog'],
  ['other', 'with a rule of another kind'],
  ['outside', 'with entries outside'],
];

function fits({ field, sheet, takes, count }: Line, wanted: Wanted): boolean {
  if (wanted.words !== '' && !matchKey(`${field.heading} ${sheet.title} ${takes}`).includes(matchKey(wanted.words))) return false;
  if (wanted.catalog !== all && catalogIdOf(field.rule) !== wanted.catalog) return false;
  if (wanted.sheet !== all && sheet.id !== wanted.sheet) return false;
  if (wanted.rule === 'outside') return (count?.outside ?? 0) > 0;
  const has = field.rule === null ? 'none' : catalogIdOf(field.rule) !== undefined ? 'catalog' : 'other';
  return wanted.rule === all || has === wanted.rule;
}

export function BindingsPage() {
  const { data: build, error } = useBuildQuery();
  const { data: me } = useMeQuery();
  const { data: counts, error: failed } = useBindingsQuery();
  const [address, setAddress] = useSearchParams();
  const [chosen, setChosen] = useState<ReadonlySet<string>>(new Set());
  // The address follows the choice; it lags behind quick changes and so is not read again.
  const [history, setHistory] = useState(false);
  const [wanted, setWanted] = useState(() => wantedBy(address));
  if (!build || !me || !counts) return <Waiting error={errorWords(error ?? failed)} />;
  const want = (change: Partial<Wanted>) => {
    const next = { ...wanted, ...change };
    setWanted(next);
    setAddress(
      Object.entries(next).filter(([, value]) => value !== all),
      { replace: true },
    );
  };
  const every = linesOf(build, me, counts);
  const lines = every.filter((line) => fits(line, wanted));
  const picked = every.filter(({ field }) => chosen.has(field.id));
  const pick = (ids: readonly string[], checked: boolean) =>
    setChosen(new Set(checked ? [...chosen, ...ids] : [...chosen].filter((id) => !ids.includes(id))));
  const allChosen = lines.length > 0 && lines.every(({ field }) => chosen.has(field.id));
  return (
    <Page
      title="Bindings"
      about={`What each field of the entry sheets takes. ${lines.length === every.length ? `${number.format(every.length)} fields.` : `${number.format(lines.length)} of ${number.format(every.length)} fields shown.`}`}
      strip={
        <HStack gap="2" wrap="wrap" role="group" aria-label="Which fields">
          <Input
            size="xs"
            w="180px"
            borderColor="slate.border"
            aria-label="Find a field"
            placeholder="Find a field"
            value={wanted.words}
            onChange={(event) => want({ words: event.target.value })}
          />
          <Select
            label="Sheet"
            width="150px"
            value={wanted.sheet}
            options={[
              [all, 'on any sheet'],
              ...build.sheets.filter(({ kind }) => kind === 'entry').map(({ id, title }) => [id, title] as const),
            ]}
            onChoose={(sheet) => want({ sheet })}
          />
          <Select
            label="Catalog"
            width="160px"
            value={wanted.catalog}
            options={[[all, 'from any catalog'], ...build.catalogs.map(({ id, title }) => [id, title] as const)]}
            onChoose={(catalog) => want({ catalog })}
          />
          <Select label="Rule" width="190px" value={wanted.rule} options={rules} onChoose={(rule) => want({ rule })} />
        </HStack>
      }
      actions={
        <Button aria-expanded={history} onClick={() => setHistory(!history)}>
          History
        </Button>
      }
      slip={
        picked.length > 0 ? (
          <ManyRules key={[...chosen].join()} lines={picked} every={every} build={build} done={() => setChosen(new Set())} />
        ) : history ? (
          <>
            <SlipHead title="History" about="rules and bindings of all fields" close={() => setHistory(false)} />
            <RuleHistory build={build} me={me} />
          </>
        ) : undefined
      }
    >
      {lines.length === 0 ? (
        <EmptyState title="No field is like this">
          Change what is looked for above, or make fields <Way to="/sheets">on a sheet</Way>.
        </EmptyState>
      ) : (
        <Box p="5" overflowX="auto">
          <Table.Root size="sm" aria-label="Fields">
            <Table.Header>
              <Table.Row bg="transparent">
                <Table.ColumnHeader w="36px">
                  <Check
                    hidden
                    label="Choose all that are shown"
                    checked={allChosen}
                    set={(checked) =>
                      pick(
                        lines.map(({ field }) => field.id),
                        checked,
                      )
                    }
                  />
                </Table.ColumnHeader>
                {['Field', 'Sheet', 'What it takes', 'Entries', 'Outside'].map((words) => (
                  <Table.ColumnHeader
                    key={words}
                    color="inkSoft"
                    textAlign={words === 'Entries' || words === 'Outside' ? 'end' : undefined}
                  >
                    {words}
                  </Table.ColumnHeader>
                ))}
              </Table.Row>
            </Table.Header>
            <Table.Body>
              {lines.map((line) => (
                <FieldRow
                  key={line.field.id}
                  line={line}
                  checked={chosen.has(line.field.id)}
                  set={(checked) => pick([line.field.id], checked)}
                />
              ))}
            </Table.Body>
          </Table.Root>
        </Box>
      )}
    </Page>
  );
}

function FieldRow({ line, checked, set }: { line: Line; checked: boolean; set: (checked: boolean) => void }) {
  const { field, sheet, takes, count } = line;
  const at = `/sheets/${sheet.id}?field=${field.key}`;
  return (
    <Table.Row bg={checked ? 'damson.subtle' : 'transparent'}>
      <Table.Cell>
        <Check hidden label={`Choose ${field.heading} of ${sheet.title}`} checked={checked} set={set} />
      </Table.Cell>
      <Table.Cell fontWeight="bold" color="damson.fg">
        <Link to={at}>{field.heading}</Link>
      </Table.Cell>
      <Table.Cell color="inkSoft">{sheet.title}</Table.Cell>
      <Table.Cell color={field.rule ? undefined : 'inkSoft'}>{takes}</Table.Cell>
      <Table.Cell textAlign="end">{number.format(count?.held ?? 0)}</Table.Cell>
      <Table.Cell textAlign="end">
        {(count?.outside ?? 0) > 0 ? (
          <Box asChild color="amber.fg" fontWeight="bold">
            <Link to={`${at}&outside=${field.key}`}>{number.format(count!.outside)}</Link>
          </Box>
        ) : (
          <Text color="inkSoft">none</Text>
        )}
      </Table.Cell>
    </Table.Row>
  );
}
