// A table that was found: what it becomes, what its columns are, and what of them will be outside.
import { Box, Button, HStack, Stack, Table, Text } from '@chakra-ui/react';
import {
  adoptedKinds,
  kindLabel,
  type AdoptedKind,
  type HouseProposal,
  type ProposedColumn,
  type ProposedTable,
  type TableUse,
  type FoundCheck,
} from '@dellum/core';
import { Check } from '../../frame/Check.js';
import { Scrolling } from '../../frame/Scrolling.js';
import { Select } from '../../frame/Select.js';
import { number } from '../../frame/written.js';
import { KeptText } from './KeptText.js';
import type { useMend } from './useMend.js';
import { cells, checkWords, rows } from './adoptionWords.js';

interface TableCardProps {
  readonly table: ProposedTable;
  readonly proposal: HouseProposal;
  readonly file: string;
  readonly mend: ReturnType<typeof useMend>;
  tryAt(tried: Tried): void;
}
/** The column of a table that is tried as the field that it becomes. */
export interface Tried {
  readonly table: string;
  readonly at: number;
}

const uses: readonly (readonly [TableUse, string])[] = [
  ['entries', 'a sheet in which data are entered'],
  ['list', 'a list from which values are chosen'],
];

export function TableCard({ table, proposal, file, mend, tryAt }: TableCardProps) {
  const { id, title, wanted, use, heading } = table;
  const where = heading === null ? 'without headings' : `headings in row ${number.format(heading)}`;
  const left =
    table.totals === 0 ? '' : table.totals === 1 ? ', one row of sums left out' : `, ${number.format(table.totals)} rows of sums left out`;
  return (
    <Box as="section" aria-label={title} borderWidth="1px" borderColor="line" rounded="l3" bg="card" p="3">
      <HStack wrap="wrap" gap="3">
        <Check label={`Take in ${title}`} hidden checked={wanted} set={(on) => mend.table({ table: id, wanted: on })} />
        <KeptText label={`Title of ${title}`} value={title} width="240px" bold keep={(text) => mend.table({ table: id, title: text })} />
        {table.mayBeList && (
          <Select
            label={`What ${title} becomes`}
            width="250px"
            value={use}
            options={uses}
            onChoose={(next) => mend.table({ table: id, use: next as TableUse })}
          />
        )}
        <Text color="inkSoft" fontSize="xs">
          {rows(table.rows)} of {file}, {where}
          {left}
        </Text>
      </HStack>
      {wanted && (
        <>
          <Scrolling label={`Columns of ${title}`} mt="3">
            <Table.Root size="sm" aria-label={`Columns of ${title}`}>
              <Table.Header>
                <Table.Row bg="paper">
                  <Table.ColumnHeader w="0">
                    <Text srOnly>Comes in</Text>
                  </Table.ColumnHeader>
                  <Table.ColumnHeader>Column</Table.ColumnHeader>
                  <Table.ColumnHeader>Holds</Table.ColumnHeader>
                  <Table.ColumnHeader>For example</Table.ColumnHeader>
                  {use === 'entries' && <Table.ColumnHeader>Chosen from</Table.ColumnHeader>}
                </Table.Row>
              </Table.Header>
              <Table.Body>
                {table.columns.map((column, place) => (
                  <ColumnRow
                    key={column.at}
                    table={table}
                    column={column}
                    sample={sampleOf(table, place)}
                    proposal={proposal}
                    mend={mend}
                    tryAt={tryAt}
                  />
                ))}
              </Table.Body>
            </Table.Root>
          </Scrolling>
          <HStack mt="2" gap="2">
            <Text color="inkSoft" fontSize="xs">
              Other headings: row
            </Text>
            <KeptText
              label={`Row of the headings of ${title}`}
              value={heading === null ? '' : String(heading)}
              width="64px"
              keep={(text) => mend.heading(id, text)}
            />
            {heading !== null && (
              <Button size="2xs" aria-label={`${title} has no headings`} onClick={() => mend.table({ table: id, heading: null })}>
                It has no headings
              </Button>
            )}
          </HStack>
        </>
      )}
    </Box>
  );
}

/** Some of what stands in a column. */
const sampleOf = ({ sample }: ProposedTable, place: number): string =>
  [...new Set(sample.flatMap((row) => (row[place] ? [row[place]] : [])))].slice(0, 3).join(', ');

interface ColumnRowProps extends Pick<TableCardProps, 'table' | 'proposal' | 'mend' | 'tryAt'> {
  readonly column: ProposedColumn;
  readonly sample: string;
}

function ColumnRow({ table, column, sample, proposal, mend, tryAt }: ColumnRowProps) {
  const { at, heading, kind, wanted } = column;
  const name = heading || `column ${at + 1}`;
  const of = { table: table.id, at };
  return (
    <Table.Row bg="transparent">
      <Table.Cell>
        <Check label={`Take in ${name}`} hidden checked={wanted} set={(on) => mend.column({ ...of, wanted: on })} />
      </Table.Cell>
      <Table.Cell minW="140px">
        <KeptText label={`Heading of ${name}`} value={heading} keep={(text) => mend.column({ ...of, heading: text })} />
      </Table.Cell>
      <Table.Cell minW="150px">
        <Select
          label={`What ${name} holds`}
          value={kind}
          options={adoptedKinds.map((one) => [one, kindLabel(one)])}
          onChoose={(next) => mend.column({ ...of, kind: next as AdoptedKind })}
        />
        <Oddities column={column} />
      </Table.Cell>
      <Table.Cell maxW="220px" overflowWrap="anywhere" color="inkSoft">
        {sample}
      </Table.Cell>
      {table.use === 'entries' && (
        <Table.Cell minW="210px">
          <HStack justify="space-between" align="start">
            <Box>
              {wanted && column.mayBeList && (
                <ListOf
                  column={column}
                  proposal={proposal}
                  name={name}
                  set={(list) => {
                    // A list that is not wanted is wanted again by whoever chooses from it.
                    const left =
                      list &&
                      proposal.lists.find((one) => !one.wanted && one.columns.some((own) => own.table === table.id && own.at === at));
                    if (left) mend.list({ list: left.id, wanted: true });
                    else mend.column({ ...of, list });
                  }}
                />
              )}
              {wanted && column.check && <CheckOf check={column.check} column={column} table={table} />}
            </Box>
            {wanted && (column.list !== null || (column.check?.taken ?? null) !== null) && (
              <Button size="2xs" flexShrink={0} aria-label={`Try ${name} of ${table.title}`} onClick={() => tryAt(of)}>
                Try it
              </Button>
            )}
          </HStack>
        </Table.Cell>
      )}
    </Table.Row>
  );
}

/** What of a column is not as its kind would have it. */
function Oddities({ column: { unread, odd, unsure, writing, kind } }: { column: ProposedColumn }) {
  return (
    <Stack gap="0" fontSize="xs">
      {unread === null && <Text color="amber.fg">Cells that it does not read are kept as text.</Text>}
      {unread !== null && unread > 0 && (
        <Text color="amber.fg">
          {cells(unread)} kept as text{odd.length > 0 && `: ${odd.map((text) => `“${text}”`).join(', ')}`}
        </Text>
      )}
      {unsure && (
        <Text color="amber.fg">
          {kind === 'date'
            ? `Read with the ${writing.dateOrder === 'mdy' ? 'month' : 'day'} first; the cells do not tell.`
            : `Read with “${writing.decimalMark}” as the decimal mark; the cells do not tell.`}
        </Text>
      )}
    </Stack>
  );
}

/** What stands in the file already to choose from. */
function CheckOf({ check, column, table }: { check: FoundCheck; column: ProposedColumn; table: ProposedTable }) {
  const headingAt = (place: string) => table.columns.find(({ at }) => String(at) === place)?.heading ?? 'another column';
  const { says, wrong } = checkWords(check, column, headingAt);
  return (
    <Stack gap="0" fontSize="xs">
      <Text color="inkSoft">{says}</Text>
      {wrong.map((words) => (
        <Text key={words} color="amber.fg">
          {words}
        </Text>
      ))}
    </Stack>
  );
}

interface ListOfProps {
  readonly column: ProposedColumn;
  readonly proposal: HouseProposal;
  readonly name: string;
  set(list: boolean): void;
}

function ListOf({ column, proposal, name, set }: ListOfProps) {
  const list = proposal.lists.find(({ id }) => id === column.list?.id);
  const words = list
    ? list.levels.length > 1
      ? `${list.title}, level ${list.levels[column.list!.level]!.heading}`
      : list.title
    : 'any text';
  return (
    <Stack gap="0">
      <Check label={words} checked={list !== undefined} set={set} />
      {column.outside > 0 && (
        <Text fontSize="xs" color="amber.fg">
          {number.format(column.outside)} {column.outside === 1 ? 'entry' : 'entries'} of {name} outside
        </Text>
      )}
    </Stack>
  );
}
