// What a file that came back would change, part by part: what is asked first, then what would be refused, then the rest.
import { Box, Button, Heading, HStack, Input, RadioGroup, Stack, Table, Text } from '@chakra-ui/react';
import { catalogIdOf } from '@dellum/core';
import {
  mayDesign,
  type DecideRowDto,
  type RegisterView,
  type ReturnedCell,
  type ReturnedFileView,
  type ReturnedRow,
  type ReturnedShown,
  type Taking,
} from '@dellum/contract';
import { useEffect, useRef, useState, type ReactNode } from 'react';
import { useDecideAllMutation, useDecideRowMutation, useRememberNameMutation, useReturnedRowsQuery } from '../../data/returnedApi.js';
import { useMeQuery } from '../../data/sessionApi.js';
import { Check } from '../../frame/Check.js';
import { useNotice, useTry } from '../../frame/useNotice.js';
import { entries, number } from '../../frame/written.js';
import { useTold } from '../acts/useRegister.js';

interface PartProps {
  readonly file: ReturnedFileView;
  readonly register: RegisterView;
}

const cellsOf = (count: number): string => `${number.format(count)} ${count === 1 ? 'cell' : 'cells'}`;
const rowsOf = (count: number): string => `${number.format(count)} ${count === 1 ? 'row' : 'rows'}`;
const are = (count: number): string => (count === 1 ? 'is' : 'are');

export function ReturnedChanges({ file, register }: PartProps) {
  const { cells, rows, asked, added, missing, deleted, refused } = file.counts;
  const refusedCells = refused.reduce((sum, one) => sum + one.cells, 0);
  return (
    <Stack gap="7">
      {asked > 0 && <Asked file={file} register={register} />}
      {refusedCells > 0 && <Refused file={file} register={register} cells={refusedCells} />}
      {missing > 0 && <Missing file={file} register={register} />}
      {cells > 0 && (
        <Part title={`${cellsOf(cells)} changed in ${rowsOf(rows)}`} about="Changed in the file alone.">
          <Rows file={file} show="changed">
            {(row) => <ChangedRow key={row.ord} row={row} register={register} />}
          </Rows>
        </Part>
      )}
      {added > 0 && (
        <Part
          title={`${rowsOf(added)} ${are(added)} new`}
          about={`${added === 1 ? 'It becomes an entry' : 'They become entries'} at the end of the sheet.`}
        >
          <Rows file={file} show="new">
            {(row) => (
              <Table.Row key={row.ord}>
                <RowNumber row={row} about="" />
                <Table.Cell>
                  {row.cells.map(({ field, text }) => `${headingOf(register, field)}: ${text}`).join(' · ')}
                  <Follows row={row} register={register} />
                </Table.Cell>
              </Table.Row>
            )}
          </Rows>
        </Part>
      )}
      {deleted > 0 && (
        <Part
          title={`${rowsOf(deleted)} ${are(deleted)} of entries that were deleted here`}
          about="They were changed in the file. Nothing of them is stored; enter them anew where they are still needed."
        >
          <Rows file={file} show="deleted">
            {(row) => (
              <Table.Row key={row.ord}>
                <RowNumber row={row} about="" />
                <Table.Cell>{row.about}</Table.Cell>
              </Table.Row>
            )}
          </Rows>
        </Part>
      )}
    </Stack>
  );
}

const headingOf = (register: RegisterView, key: string): string => register.fields.find((field) => field.key === key)?.heading ?? key;
const isOfList = (register: RegisterView, key: string): boolean => {
  const field = register.fields.find((known) => known.key === key);
  return field !== undefined && field.kind !== 'several values' && catalogIdOf(field.rule) !== undefined;
};
const shownText = (text: string): ReactNode =>
  text === '' ? (
    <Text as="span" color="inkSoft">
      blank
    </Text>
  ) : (
    text
  );

function Part({ title, about, acts, children }: { title: string; about: string; acts?: ReactNode; children: ReactNode }) {
  return (
    <Box as="section" aria-label={title}>
      <HStack justify="space-between" align="start" wrap="wrap" mb="2">
        <Box>
          <Heading as="h2" fontSize="md">
            {title}
          </Heading>
          <Text color="inkSoft" fontSize="sm">
            {about}
          </Text>
        </Box>
        {acts && <HStack gap="2">{acts}</HStack>}
      </HStack>
      {children}
    </Box>
  );
}

interface RowsProps {
  readonly file: ReturnedFileView;
  readonly show: ReturnedShown;
  /** `all`: the rows that are shown. */
  children(row: ReturnedRow, all: readonly ReturnedRow[]): ReactNode;
}

function Rows({ file, show, children }: RowsProps) {
  const { data } = useReturnedRowsQuery({ id: file.id, show });
  if (!data) return null;
  const more = data.total - data.rows.length;
  return (
    <>
      <Table.ScrollArea>
        <Table.Root size="sm">
          <Table.Body>{data.rows.map((row) => children(row, data.rows))}</Table.Body>
        </Table.Root>
      </Table.ScrollArea>
      {more > 0 && (
        <Text color="inkSoft" mt="1">
          and {rowsOf(more)} more
        </Text>
      )}
    </>
  );
}

function RowNumber({ row, heading, about = row.about }: { row: ReturnedRow; heading?: string; about?: string }) {
  return (
    <Table.Cell whiteSpace="nowrap" verticalAlign="top" w="190px" maxW="190px" overflow="hidden" textOverflow="ellipsis">
      {heading !== undefined && <Text fontWeight="bold">{heading}</Text>}
      <Text as="span" color="inkSoft" fontSize="xs" title={about}>
        {row.row === null ? about : `Row ${number.format(row.row)}${about === '' ? '' : `: ${about}`}`}
      </Text>
    </Table.Cell>
  );
}

function ChangedRow({ row, register }: { row: ReturnedRow; register: RegisterView }) {
  return (
    <Table.Row>
      <RowNumber row={row} />
      <Table.Cell>
        <Stack gap="0.5">
          {row.cells
            .filter(({ asked, refused, takes }) => !asked && !(refused && takes === 'came'))
            .map(({ field, text, shown, takes }) => (
              <Text key={field} overflowWrap="anywhere">
                <Text as="span" fontWeight="bold">
                  {headingOf(register, field)}
                </Text>{' '}
                {takes === 'came' ? (
                  <>
                    {shownText(shown)} → {shownText(text)}
                  </>
                ) : (
                  <>stays {shownText(shown)}</>
                )}
              </Text>
            ))}
          <Follows row={row} register={register} />
        </Stack>
      </Table.Cell>
    </Table.Row>
  );
}

/** What is cleared or filled with what came. */
function Follows({ row, register }: { row: ReturnedRow; register: RegisterView }) {
  return row.follows.map(({ field, shown, becomes }) => (
    <Text key={field} color="inkSoft" overflowWrap="anywhere">
      {headingOf(register, field)} {becomes === '' ? <>is cleared: {shown} does not fit any more</> : <>becomes {becomes}</>}
    </Text>
  ));
}

function useDecide(file: ReturnedFileView) {
  const [decide] = useDecideRowMutation();
  const attempt = useTry();
  return (row: ReturnedRow, decision: DecideRowDto) => attempt(decide({ id: file.id, ord: row.ord, decision }).unwrap());
}

/** Cells that were changed there and here: one says which is to stand. */
function Asked({ file, register }: PartProps) {
  const { asked, askedCame } = file.counts;
  const [decideAll] = useDecideAllMutation();
  const attempt = useTry();
  const decide = useDecide(file);
  const all = (takes: Taking) => () => void attempt(decideAll({ id: file.id, decision: { what: 'asked', takes } }).unwrap());
  const unknown = !file.known;
  return (
    <Part
      title={
        unknown
          ? `${cellsOf(asked)} ${asked === 1 ? 'differs' : 'differ'}`
          : `${cellsOf(asked)} ${asked === 1 ? 'was' : 'were'} changed in both places`
      }
      about={
        askedCame === 0
          ? 'Which is to stand? They stay as they are here unless you choose otherwise.'
          : `Which is to stand? What came is taken of ${number.format(askedCame)}.`
      }
      acts={
        <>
          <Button onClick={all('came')}>Take all that came</Button>
          <Button onClick={all('here')}>Leave all as here</Button>
        </>
      }
    >
      <Rows file={file} show="asked">
        {(row) =>
          row.cells
            .filter((cell) => cell.asked)
            .map((cell) => (
              <AskedCell
                key={`${row.ord} ${cell.field}`}
                row={row}
                cell={cell}
                heading={headingOf(register, cell.field)}
                was={unknown ? undefined : cell.was}
                take={(takes) => void decide(row, { field: cell.field, takes })}
              />
            ))
        }
      </Rows>
    </Part>
  );
}

interface AskedCellProps {
  readonly row: ReturnedRow;
  readonly cell: ReturnedCell;
  readonly heading: string;
  /** What it held when it went out, where that is known. */
  readonly was: string | undefined;
  take(takes: Taking): void;
}

function AskedCell({ row, cell, heading, was, take }: AskedCellProps) {
  const ways = [
    ['here', 'Here', cell.shown],
    ['came', 'In the file', cell.text],
  ] as const;
  return (
    <Table.Row>
      <RowNumber row={row} heading={heading} />
      <Table.Cell>
        <RadioGroup.Root
          size="sm"
          aria-label={`${heading}, row ${row.row ?? ''}`}
          value={cell.takes}
          onValueChange={({ value }) => take(value as Taking)}
        >
          <HStack gap="6" wrap="wrap" align="start">
            {ways.map(([takes, words, text]) => (
              <RadioGroup.Item key={takes} value={takes} alignItems="start" minW="160px">
                <RadioGroup.ItemHiddenInput />
                <RadioGroup.ItemIndicator borderColor="slate.border" mt="1" />
                <RadioGroup.ItemText overflowWrap="anywhere">
                  {shownText(text)}
                  <Text as="span" display="block" color="inkSoft" fontSize="xs">
                    {words}
                  </Text>
                </RadioGroup.ItemText>
              </RadioGroup.Item>
            ))}
            {was !== undefined && (
              <Box>
                {shownText(was)}
                <Text color="inkSoft" fontSize="xs">
                  When it went out
                </Text>
              </Box>
            )}
          </HStack>
        </RadioGroup.Root>
        {cell.takes === 'came' && cell.refused && (
          <Text color="brick.fg" fontSize="xs" mt="1">
            {cell.refused.message}
          </Text>
        )}
      </Table.Cell>
    </Table.Row>
  );
}

/** What is mended goes away from under the cursor: it goes to what follows. */
function useFocusStays() {
  const place = useRef<HTMLDivElement>(null);
  useEffect(() => {
    const held = place.current;
    if (!held) return;
    const inputs = () => [...held.querySelectorAll('input')];
    let last = -1;
    const note = ({ target }: FocusEvent) => {
      const row = (target as Element).closest('tr');
      last = inputs().findIndex((input) => row?.contains(input));
    };
    const seen = new MutationObserver(() => {
      if (last >= 0 && document.activeElement === document.body) inputs()[Math.min(last, inputs().length - 1)]?.focus();
    });
    held.addEventListener('focusin', note);
    seen.observe(held, { childList: true, subtree: true });
    return () => {
      held.removeEventListener('focusin', note);
      seen.disconnect();
    };
  }, []);
  return place;
}

/** Cells that would be refused: mended here, or left as they are. */
function Refused({ file, register, cells }: PartProps & { cells: number }) {
  const place = useFocusStays();
  return (
    <Part
      title={`${cellsOf(cells)} would be refused`}
      about="Mend them here. What is not mended is kept in its cell on the sheet, refused, and can be mended there."
    >
      <Box ref={place}>
        <Rows file={file} show="refused">
          {(row, all) =>
            row.cells
              .filter((cell) => cell.refused && cell.takes === 'came')
              .map((cell) => (
                <RefusedCell
                  key={`${row.ord} ${cell.field}`}
                  file={file}
                  row={row}
                  cell={cell}
                  heading={headingOf(register, cell.field)}
                  isOfList={isOfList(register, cell.field)}
                  alike={all.filter(({ cells: others }) => others.some((other) => isRefusedAlike(other, cell))).length}
                />
              ))
          }
        </Rows>
      </Box>
    </Part>
  );
}

const isRefusedAlike = (other: ReturnedCell, { field, text }: ReturnedCell): boolean =>
  other.field === field && other.text === text && other.takes === 'came' && other.refused !== undefined;

interface RefusedCellProps {
  readonly file: ReturnedFileView;
  readonly row: ReturnedRow;
  readonly cell: ReturnedCell;
  readonly heading: string;
  /** Its values are those of a catalog. */
  readonly isOfList: boolean;
  /** So many of the cells that are shown hold the same. */
  readonly alike: number;
}

/** What came is kept as another name of what it was mended to, by whoever may change the list: by itself where files come by themselves. */
function useRemember(file: ReturnedFileView, isOfList: boolean) {
  const { data: me } = useMeQuery();
  const [keeps, setKeeps] = useState(file.intake !== null);
  const [rememberName] = useRememberNameMutation();
  const told = useTold();
  const notice = useNotice();
  const isAsked = isOfList && me !== undefined && mayDesign(me.role);
  const afterwards = async (decided: ReturnedRow, { field, text: name }: ReturnedCell) => {
    const now = decided.cells.find((cell) => cell.field === field);
    if (!isAsked || !keeps || !now || now.refused || now.text === name || now.text === '') return;
    const request = rememberName({ id: file.id, ord: decided.ord, field, name }).unwrap();
    if ((await told(request)) && !(await request).slip) notice('done', `“${name}” is another name of ${now.text} from now on.`);
  };
  return { isAsked, keeps, setKeeps, afterwards };
}

function RefusedCell({ file, row, cell, heading, isOfList, alike }: RefusedCellProps) {
  const [text, setText] = useState(cell.text);
  const [all, setAll] = useState(false);
  const { field, refused } = cell;
  const remember = useRemember(file, isOfList);
  const decideOne = useDecide(file);
  const decide = async (of: ReturnedRow, decision: DecideRowDto) => {
    const decided = await decideOne(of, { ...decision, ...(all && alike > 1 && { alike: true }) });
    if (decision.text !== undefined && decided) await remember.afterwards(decided, cell);
  };
  const where = `${heading}, row ${number.format(row.row ?? 0)}`;
  return (
    <Table.Row>
      <RowNumber row={row} heading={heading} />
      <Table.Cell>
        <form
          onSubmit={(event) => {
            event.preventDefault();
            void decide(row, { field, text });
          }}
        >
          <HStack gap="1.5" wrap="wrap">
            <Input
              size="xs"
              w="240px"
              bg="card"
              borderColor="slate.border"
              aria-label={`${where}, “${cell.text}”`}
              value={text}
              onChange={(event) => setText(event.target.value)}
            />
            <Button type="submit" disabled={text === cell.text} aria-label={`Try “${text}” for ${where}`}>
              Try
            </Button>
            {refused?.suggestions.slice(0, 5).map((suggestion) => (
              <Button key={suggestion} size="2xs" colorPalette="growth" onClick={() => void decide(row, { field, text: suggestion })}>
                {suggestion}
              </Button>
            ))}
            {refused?.mayConfirm && <Button onClick={() => void decide(row, { field, confirmed: true })}>It is meant so</Button>}
            {row.what === 'changed' && (
              <Button aria-label={`Leave ${where} as it is here`} onClick={() => void decide(row, { field, takes: 'here' })}>
                Leave as here
              </Button>
            )}
          </HStack>
        </form>
        <Text color="brick.fg" fontSize="xs" mt="1">
          {refused?.message}
        </Text>
        {(alike > 1 || remember.isAsked) && (
          <Stack gap="1.5" mt="1.5" align="start">
            {alike > 1 && (
              <Check label={`All ${number.format(alike)} cells with “${cell.text}” in ${heading}`} checked={all} set={setAll} />
            )}
            {remember.isAsked && (
              <Check
                label={`Know “${cell.text}” as another name of it in the next file`}
                checked={remember.keeps}
                set={remember.setKeeps}
              />
            )}
          </Stack>
        )}
      </Table.Cell>
    </Table.Row>
  );
}

/** Entries whose row did not come back: they stay unless one says otherwise. */
function Missing({ file }: PartProps) {
  const { missing, deletes } = file.counts;
  const [decideAll] = useDecideAllMutation();
  const attempt = useTry();
  const decide = useDecide(file);
  const all = (takes: Taking) => () => void attempt(decideAll({ id: file.id, decision: { what: 'missing', takes } }).unwrap());
  return (
    <Part
      title={`${rowsOf(missing)} did not come back`}
      about={`The entries stay, but for those that you choose to delete here: ${deletes === 0 ? 'none' : entries(deletes)} so far.`}
      acts={
        <>
          <Button onClick={all('came')}>Choose all</Button>
          <Button onClick={all('here')}>Choose none</Button>
        </>
      }
    >
      <Rows file={file} show="missing">
        {(row) => (
          <Table.Row key={row.ord}>
            <Table.Cell>
              <Check
                label={`Delete ${row.about === '' ? 'the blank entry' : row.about}`}
                checked={row.deletes}
                set={(chosen) => void decide(row, { deletes: chosen })}
              />
            </Table.Cell>
          </Table.Row>
        )}
      </Rows>
    </Part>
  );
}
