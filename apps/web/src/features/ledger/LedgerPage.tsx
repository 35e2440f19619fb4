// The ledger: who changed what when, from what to what, narrowed by what one looks for; each line leads to what it is about.
import { Box, Button, Table, Text } from '@chakra-ui/react';
import { format, valuesIn, type Locale } from '@dellum/core';
import type { BuildView, FieldView, LedgerLine } from '@dellum/contract';
import { Download, RefreshCw } from 'lucide-react';
import { useState } from 'react';
import { Link, useSearchParams } from 'react-router';
import { errorWords } from '../../data/problem.js';
import { useBuildQuery } from '../../data/buildApi.js';
import { ledgerSearch, useLedgerQuery, type LedgerNarrowed } from '../../data/ledgerApi.js';
import { usePeopleQuery } from '../../data/peopleApi.js';
import { useMeQuery } from '../../data/sessionApi.js';
import { ColumnHeadings } from '../../frame/ColumnHeadings.js';
import { EmptyState, Page, Waiting } from '../../frame/Page.js';
import { exactMoment } from '../../frame/written.js';
import { LedgerNarrow } from './LedgerNarrow.js';
import { lineWords } from './ledgerWords.js';

const headings = [['When'], ['Who'], ['What'], ['Where']] as const;

export function LedgerPage() {
  const [search, setSearch] = useSearchParams();
  const { data: build, error } = useBuildQuery();
  const { data: people, error: failed } = usePeopleQuery();
  const { data: me } = useMeQuery();
  /** Asked for again from the newest line on. */
  const [asked, setAsked] = useState(0);
  const narrowed: LedgerNarrowed = Object.fromEntries(search);
  const narrow = (change: LedgerNarrowed) => {
    // What was changed a moment ago is in the address before it is on the page.
    const now = Object.fromEntries(new URLSearchParams(window.location.search));
    setSearch(new URLSearchParams(ledgerSearch({ ...now, ...change })), { replace: true });
  };
  if (!build || !people || !me) return <Waiting error={errorWords(error ?? failed)} />;
  return (
    <Page
      title="Ledger"
      about="Everything that was changed here, by whom and when. Nobody can change what stands in it."
      actions={
        <>
          <Button onClick={() => setAsked(asked + 1)}>
            <RefreshCw size={13} aria-hidden /> Refresh
          </Button>
          <Button asChild>
            <a href={`/api/v1/ledger/file?${ledgerSearch(narrowed)}`} download="ledger.csv">
              <Download size={13} aria-hidden /> Download as CSV
            </a>
          </Button>
        </>
      }
      strip={
        <LedgerNarrow narrowed={narrowed} build={build} people={people} onNarrow={narrow} onAll={() => setSearch({}, { replace: true })} />
      }
    >
      <Lines key={`${search.toString()} ${asked}`} narrowed={narrowed} build={build} locale={me.house.locale} />
    </Page>
  );
}

function Lines({ narrowed, build, locale }: { narrowed: LedgerNarrowed; build: BuildView; locale: Locale }) {
  /** The lines after which the parts on the page begin; the first part begins with the newest one. */
  const [befores, setBefores] = useState<readonly (number | undefined)[]>([undefined]);
  return (
    <Box p="5" overflowX="auto">
      <Table.Root size="sm">
        <ColumnHeadings headings={headings} />
        {befores.map((before, at) => (
          <Part
            key={before ?? 'newest'}
            narrowed={narrowed}
            before={before}
            build={build}
            locale={locale}
            goOn={at === befores.length - 1 ? (last) => setBefores([...befores, last]) : undefined}
          />
        ))}
      </Table.Root>
    </Box>
  );
}

interface PartProps {
  readonly narrowed: LedgerNarrowed;
  readonly before: number | undefined;
  readonly build: BuildView;
  readonly locale: Locale;
  /** Shows the part after this one; undefined where it is shown already. */
  readonly goOn: ((last: number) => void) | undefined;
}

function Part({ narrowed, before, build, locale, goOn }: PartProps) {
  const { data, error } = useLedgerQuery({ ...narrowed, ...(before !== undefined && { before }) }, { refetchOnMountOrArgChange: true });
  if (!data)
    return (
      <Table.Body>
        <Table.Row bg="transparent">
          <Table.Cell colSpan={headings.length}>
            <Waiting error={errorWords(error)} />
          </Table.Cell>
        </Table.Row>
      </Table.Body>
    );
  return (
    <Table.Body>
      {data.lines.map((line) => (
        <Line key={`${line.id} ${line.field ?? ''}`} line={line} build={build} locale={locale} />
      ))}
      {data.lines.length === 0 && (
        <Table.Row bg="transparent">
          <Table.Cell colSpan={headings.length}>
            <EmptyState title="Nothing of this kind was done">Narrow the ledger otherwise, or show all.</EmptyState>
          </Table.Cell>
        </Table.Row>
      )}
      {data.more && goOn && (
        <Table.Row bg="transparent">
          <Table.Cell colSpan={headings.length}>
            <Button onClick={() => goOn(data.lines.at(-1)!.id)}>Show older ones</Button>
          </Table.Cell>
        </Table.Row>
      )}
    </Table.Body>
  );
}

/** The place of a line: its sheet or list, its field there. */
function placeOf({ registerId, field }: LedgerLine, build: BuildView) {
  const sheet = build.sheets.find(({ registers }) => registers.some(({ id }) => id === registerId));
  const register = sheet?.registers.find(({ id }) => id === registerId);
  return { sheet, register, field: register?.fields.find(({ key }) => key === field) };
}

const quoted = (text: string) => `“${text}”`;

function shown(value: string | null, field: FieldView | undefined, locale: Locale): string {
  if (value === null || value === '') return 'blank';
  const typed = (one: string) => (field && field.kind !== 'several values' ? format(field.kind, one, locale) : one);
  return quoted(field?.kind === 'several values' ? valuesIn(value).join(', ') : typed(value));
}

function Line({ line, build, locale }: { line: LedgerLine; build: BuildView; locale: Locale }) {
  const { sheet, register, field } = placeOf(line, build);
  const words = lineWords(line, {
    field: field?.heading ?? line.field ?? '',
    from: shown(line.from, field, locale),
    to: shown(line.to, field, locale),
    about: line.about === null ? '' : quoted(line.about),
  });
  return (
    <Table.Row bg="transparent" verticalAlign="top">
      <Table.Cell color="inkSoft" whiteSpace="nowrap">
        {exactMoment.format(new Date(line.at))}
      </Table.Cell>
      <Table.Cell whiteSpace="nowrap">{line.by ?? <Text color="inkSoft">nobody by name</Text>}</Table.Cell>
      <Table.Cell overflowWrap="anywhere" minW="260px">
        {words}
      </Table.Cell>
      <Table.Cell whiteSpace="nowrap">{sheet && register && <WayTo line={line} sheet={sheet} title={register.title} />}</Table.Cell>
    </Table.Row>
  );
}

/** The way to the entry, or to the sheet where the entry is none that can be looked at by itself. */
function WayTo({ line, sheet, title }: { line: LedgerLine; sheet: BuildView['sheets'][number]; title: string }) {
  const isEntry = sheet.kind === 'entry';
  const isThere = isEntry && line.entryId !== null && line.act !== 'entry.deleted';
  const to = isThere ? `/records/${line.registerId ?? ''}/${line.entryId}` : `/${isEntry ? 'sheets' : 'sources'}/${sheet.id}`;
  return (
    <Box asChild color="damson.fg" textDecoration="underline" textUnderlineOffset="3px">
      <Link to={to}>{isThere ? `the entry in ${sheet.title}` : isEntry ? sheet.title : `${title} in ${sheet.title}`}</Link>
    </Box>
  );
}
