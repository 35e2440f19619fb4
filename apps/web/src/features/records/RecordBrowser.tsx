// The records of one register: looked for by words, narrowed by the values of fields with their counts, in an order.
import { Box, Button, HStack, Input, Stack, Table, Text } from '@chakra-ui/react';
import { arrangementWords, hasList, isNumeric, type ArrangementNames } from '@dellum/core';
import { type BuildView, type EntryPage, type EntryView, type FieldView, type Me, type RegisterView } from '@dellum/contract';
import { Download, X } from 'lucide-react';
import { useEffect, useRef, useState } from 'react';
import { Link, useNavigate, useParams } from 'react-router';
import { errorWords } from '../../data/problem.js';
import { ActButton } from '../../frame/ActButton.js';
import { Check } from '../../frame/Check.js';
import { EmptyState, Page, Waiting } from '../../frame/Page.js';
import { Way } from '../../frame/Way.js';
import { Select } from '../../frame/Select.js';
import { useTry } from '../../frame/useNotice.js';
import { useAppDispatch } from '../../data/store.js';
import { useHeldValuesQuery } from '../../data/arrangementsApi.js';
import { did } from '../entries/doneSlice.js';
import { useInsertEntriesMutation, useRecordsQuery } from '../../data/entriesApi.js';
import { useAgain } from '../entries/useAgain.js';
import { useMeQuery } from '../../data/sessionApi.js';
import { usePanel } from '../../frame/usePanel.js';
import { DownloadSlip, type Some } from '../exchange/DownloadSlip.js';
import { mayDownload } from '../sheets/limitWords.js';
import { useBuildQuery } from '../../data/buildApi.js';
import { TakeBackButtons } from '../sheets/TakeBackButtons.js';
import { PaperRecords } from './PaperRecords.js';
import { recordTitle } from './recordWords.js';
import { mostShown, useLooking, type Looking } from './useLooking.js';
import { entryRegisters, useRecordCells, type RecordCells } from '../sheets/useRegisterPlace.js';
import { number } from '../../frame/written.js';

const hasPanel = (params: URLSearchParams) => params.has('download');
const mostColumns = 6;
const typingPause = 250;

export function RecordBrowserPage() {
  const { registerId = '' } = useParams();
  const { data: build, error } = useBuildQuery();
  const { data: me } = useMeQuery();
  if (!build || !me) return <Waiting error={errorWords(error)} />;
  const register = entryRegisters(build).find(({ id }) => id === registerId);
  if (!register)
    return (
      <EmptyState title="This sheet is not there any more">
        <Way to="/records">Choose another one</Way>
      </EmptyState>
    );
  return <RecordBrowser key={register.id} register={register} build={build} me={me} />;
}

function RecordBrowser({ register, build, me }: { register: RegisterView; build: BuildView; me: Me }) {
  const looking = useLooking(register);
  const { data: page, error, isFetching } = useRecordsQuery(looking.arg);
  const cells = useRecordCells(register, me);
  const again = useAgain(register.id);
  const [insert] = useInsertEntriesMutation();
  const attempt = useTry();
  const dispatch = useAppDispatch();
  const navigate = useNavigate();
  const { enters } = register;
  const [chosen, setChosen] = useState<ReadonlySet<string>>(new Set());
  const [printing, setPrinting] = useState(false);
  const [address, show] = usePanel(hasPanel);
  const make = async () => {
    const made = await attempt(insert({ registerId: register.id, count: 1 }).unwrap());
    if (!made) return;
    dispatch(did({ registerId: register.id, act: { act: 'made', entries: made.entries, before: undefined } }));
    await navigate(`/records/${register.id}/${made.entries[0]!}`);
  };
  const sheet = build.sheets.find(({ id }) => id === register.sheetId);
  const downloading = sheet !== undefined && mayDownload(sheet, me) && hasPanel(address);
  const onPaper = page?.entries.filter(({ id }) => chosen.has(id)) ?? [];
  return (
    <Page
      title={register.title}
      about={`${sheet?.note ?? ''} ${page ? `${number.format(page.total)} ${page.total === 1 ? 'record' : 'records'}${looking.arg.only.length > 0 || looking.search !== '' ? ' found' : ''}.` : ''}`}
      actions={
        <>
          {enters && <TakeBackButtons again={again} />}
          {sheet && mayDownload(sheet, me) && !downloading && (
            <Button onClick={() => show({ download: '' })}>
              <Download size={13} aria-hidden /> Download
            </Button>
          )}
          {onPaper.length > 0 && !printing && <Button onClick={() => setPrinting(true)}>Print {onPaper.length} chosen</Button>}
          <Button asChild>
            <Link to={`/sheets/${register.sheetId}`}>As a sheet</Link>
          </Button>
          {enters && (
            <Button variant="solid" onClick={() => void make()}>
              New record
            </Button>
          )}
        </>
      }
      slip={
        downloading ? (
          <DownloadSlip register={register} some={foundIn(register, looking)} close={() => show({ download: undefined })} />
        ) : (
          <Narrowing register={register} looking={looking} cells={cells} />
        )
      }
    >
      {printing && onPaper.length > 0 ? (
        <PaperRecords register={register} entries={onPaper} cells={cells} me={me} back={() => setPrinting(false)} />
      ) : (
        <Stack p="5" gap="4">
          <HStack gap="3" wrap="wrap">
            <SearchInput looking={looking} />
            <Select
              label="Order"
              width="220px"
              value={looking.sort}
              options={orders(register.fields)}
              onChoose={(sort) => looking.change({ sort })}
            />
          </HStack>
          {looking.more.length > 0 && (
            <HStack gap="2" wrap="wrap" role="group" aria-label="Further conditions">
              {looking.more.map((one, at) => (
                <Button
                  variant="solid"
                  key={at}
                  size="2xs"
                  h="6"
                  rounded="full"
                  onClick={() => looking.change({ more: looking.more.filter((other) => other !== one) })}
                >
                  <Text truncate maxW="420px">
                    {arrangementWords({ sort: [], only: [one] }, namesOf(register, cells, me))}
                  </Text>
                  <X size={12} aria-label="Take this condition away" />
                </Button>
              ))}
            </HStack>
          )}
          {error ? (
            <Text color="brick.fg" role="alert">
              {errorWords(error)}
            </Text>
          ) : page ? (
            <FoundRecords
              register={register}
              looking={looking}
              cells={cells}
              page={page}
              more={isFetching}
              chosen={chosen}
              choose={setChosen}
            />
          ) : (
            <Text color="inkSoft">Looking …</Text>
          )}
        </Stack>
      )}
    </Page>
  );
}

/** What of the records was found, for a file; undefined where nothing is looked for. */
function foundIn(register: RegisterView, { arg: { search, only, sort } }: Looking): Some | undefined {
  if (search.trim() === '' && only.length + sort.length === 0) return undefined;
  return {
    words: 'What I have found',
    about: 'the records found here, in this order',
    wanted: { arranged: false, found: { search, only, sort } },
    fields: register.fields,
  };
}

/** How conditions call fields and values. */
const namesOf = (register: RegisterView, cells: RecordCells, me: Me): ArrangementNames => {
  const fieldOf = (key: string) => register.fields.find((field) => field.key === key);
  return {
    locale: me.house.locale,
    field: (key) => fieldOf(key)?.heading ?? key,
    value: (key, value) => (fieldOf(key) ? cells.shownValue(fieldOf(key)!, value) : value),
  };
};

interface FoundRecordsProps extends Omit<RecordTableProps, 'entries'> {
  readonly page: EntryPage;
  /** More of them are on their way. */
  readonly more: boolean;
}

function FoundRecords({ page, more, ...table }: FoundRecordsProps) {
  const { looking, register } = table;
  if (page.total === 0 && looking.search === '' && looking.values.size === 0)
    return (
      <Text color="inkSoft">
        There are no records yet. <Way to={`/sheets/${register.sheetId}`}>Type the first one</Way>
      </Text>
    );
  if (page.total === 0) return <Text color="inkSoft">No record has all of this. Take something away, or look for less.</Text>;
  return (
    <>
      <RecordTable {...table} entries={page.entries} />
      {page.entries.length < page.total && (
        <HStack>
          <Text color="inkSoft">
            {number.format(page.entries.length)} of {number.format(page.total)} shown.
          </Text>
          {page.entries.length < mostShown ? (
            <ActButton loading={more} onClick={() => looking.change({ shown: Math.min(mostShown, looking.shown * 2) })}>
              Show more
            </ActButton>
          ) : (
            <Text color="inkSoft">Look for something narrower.</Text>
          )}
        </HStack>
      )}
    </>
  );
}

const orders = (fields: readonly FieldView[]): (readonly [string, string])[] => [
  ['', 'in the order of the sheet'],
  ...fields
    .filter(({ kind }) => kind !== 'several values')
    .flatMap(({ key, heading, kind }) => [
      [`${key} up`, `by ${heading}`] as const,
      [`${key} down`, `by ${heading}, the ${isNumeric(kind) ? 'greatest' : 'last'} first`] as const,
    ]),
];

/** Typing is the search; it is asked for when one pauses. */
function SearchInput({ looking }: { looking: Looking }) {
  const [text, setText] = useState(looking.search);
  const change = useRef(looking.change);
  useEffect(() => {
    change.current = looking.change;
  });
  useEffect(() => {
    if (text === looking.search) return;
    const timer = window.setTimeout(() => change.current({ search: text }), typingPause);
    return () => window.clearTimeout(timer);
  }, [text, looking.search]);
  return (
    <Input
      size="sm"
      maxW="360px"
      bg="card"
      borderColor="slate.border"
      type="search"
      aria-label="Look for records"
      placeholder="Words in any field"
      value={text}
      onChange={(event) => setText(event.target.value)}
    />
  );
}

interface RecordTableProps {
  readonly register: RegisterView;
  readonly looking: Looking;
  readonly cells: RecordCells;
  readonly entries: readonly EntryView[];
  readonly chosen: ReadonlySet<string>;
  choose(chosen: ReadonlySet<string>): void;
}

function RecordTable({ register, looking, cells, entries, chosen, choose }: RecordTableProps) {
  const fields = register.fields.slice(0, mostColumns);
  const toggle = (id: string) => choose(chosen.has(id) ? new Set([...chosen].filter((known) => known !== id)) : new Set([...chosen, id]));
  return (
    <Table.Root size="sm" aria-label={`Records of ${register.title}`}>
      <Table.Header>
        <Table.Row bg="transparent">
          <Table.ColumnHeader w="36px">
            <span className="sr-only">Chosen</span>
          </Table.ColumnHeader>
          {fields.map((field) => (
            <Table.ColumnHeader key={field.key} textAlign={isNumeric(field.kind) ? 'end' : 'start'}>
              {field.heading}
            </Table.ColumnHeader>
          ))}
        </Table.Row>
      </Table.Header>
      <Table.Body>
        {entries.map((entry) => (
          <Table.Row key={entry.id} bg="transparent" _hover={{ bg: 'paper' }}>
            <Table.Cell>
              <Check
                label={`Choose ${recordTitle(register, entry, cells.shown)}`}
                hidden
                checked={chosen.has(entry.id)}
                set={() => toggle(entry.id)}
              />
            </Table.Cell>
            {fields.map((field, at) => {
              const look = cells.look(entry, field);
              const text = look.text === '' && at === 0 ? 'blank' : look.text;
              return (
                <Table.Cell key={field.key} textAlign={isNumeric(field.kind) ? 'end' : 'start'} maxW="220px" truncate title={look.said}>
                  {at === 0 ? (
                    <Box asChild color="damson.fg" fontWeight="bold" textDecoration="underline" textUnderlineOffset="3px">
                      <Link to={`/records/${register.id}/${entry.id}?from=${encodeURIComponent(looking.query)}`}>{text}</Link>
                    </Box>
                  ) : look.tone === 'outside' ? (
                    <Text as="span" color="amber.fg" textDecoration="underline dotted">
                      ○ {text}
                    </Text>
                  ) : (
                    text
                  )}
                </Table.Cell>
              );
            })}
          </Table.Row>
        ))}
      </Table.Body>
    </Table.Root>
  );
}

/** The fields in which few values stand for many entries: those that are bound to a list, and yes or no. */
const narrows = ({ rule, kind }: FieldView): boolean => hasList(rule) || kind === 'yes/no';

function Narrowing({ register, looking, cells }: { register: RegisterView; looking: Looking; cells: RecordCells }) {
  const fields = register.fields.filter(narrows);
  return (
    <Stack gap="3" role="region" aria-label="Only records with">
      <Text fontWeight="bold">Only records with</Text>
      {fields.length === 0 && <Text color="inkSoft">No field of this sheet takes its values from a list.</Text>}
      {fields.map((field) => (
        <ValueChoice key={field.key} register={register} field={field} looking={looking} cells={cells} />
      ))}
      {looking.values.size > 0 && (
        <Text fontSize="xs" color="inkSoft">
          The numbers count all records of the sheet.
        </Text>
      )}
    </Stack>
  );
}

function ValueChoice({
  register,
  field,
  looking,
  cells,
}: {
  register: RegisterView;
  field: FieldView;
  looking: Looking;
  cells: RecordCells;
}) {
  const { data: held } = useHeldValuesQuery({ registerId: register.id, field: field.key, search: '' });
  const chosen = looking.values.get(field.key);
  const any = '\u0000any';
  const options: (readonly [string, string])[] = [
    [any, 'any'],
    ...(held?.values.map(({ value, entries }) => [value, `${cells.shownValue(field, value)} (${number.format(entries)})`] as const) ?? []),
    ...(held && held.blank > 0 ? [['', `blank (${number.format(held.blank)})`] as const] : []),
  ];
  return (
    <Box>
      <Text fontSize="xs" color="inkSoft" mb="0.5" aria-hidden>
        {field.heading}
      </Text>
      <Select
        label={field.heading}
        value={chosen ?? any}
        options={options}
        onChoose={(value) => looking.change({ value: [field.key, value === any ? undefined : value] })}
      />
    </Box>
  );
}
