// A figure as a table: values down, time or the second field across; each number leads to its entries.
import { Box, IconButton, Table } from '@chakra-ui/react';
import type { FigureDefinition, FigureLine, FigureTable, Tally } from '@dellum/core';
import { ChevronDown, ChevronRight } from 'lucide-react';
import { Fragment, useState } from 'react';
import { ItemMark } from '../../theme/index.js';
import type { FigureWords } from './useFigureWords.js';

/** What stands in one cell of the table. */
export interface Cell {
  readonly values: readonly string[];
  readonly time?: string;
}

interface FigureTableViewProps {
  readonly definition: FigureDefinition;
  readonly table: FigureTable;
  readonly words: FigureWords;
  readonly label: string;
  open(cell: Cell): void;
}

export function FigureTableView({ definition, table, words, label, open }: FigureTableViewProps) {
  const [opened, setOpened] = useState<ReadonlySet<string>>(new Set());
  const toggle = (value: string) =>
    setOpened(new Set(opened.has(value) ? [...opened].filter((known) => known !== value) : [...opened, value]));
  const { columns, across, lines, foot } = table;
  const columnWords = (column: string, at: number) => (across === 'time' ? words.timeWords(column) : words.lookOf(1, column, at).label);
  const cellAt = (values: readonly string[], column: string): Cell =>
    across === 'time' ? { values, time: column } : { values: [...values, column] };
  const number = (tally: Tally | undefined, cell: Cell, about: string) => (
    <NumberCell text={words.numberWords(tally)} about={about} open={() => open(cell)} />
  );
  const row = (line: FigureLine, before: readonly string[], depth: number, at: number) => {
    const look = words.lookOf(depth, line.value, at);
    const values = [...before, line.value];
    const key = values.join('\u001F');
    const isOpen = opened.has(key);
    return (
      <Fragment key={key}>
        <Table.Row bg={depth > 0 ? 'paper' : undefined}>
          <Table.Cell
            asChild
            fontWeight={depth === 0 ? 'bold' : undefined}
            whiteSpace="nowrap"
            position="sticky"
            left="0"
            bg={depth > 0 ? 'paper' : 'card'}
          >
            <th scope="row" style={{ textAlign: 'start', paddingInlineStart: depth > 0 ? '34px' : undefined }}>
              {line.within.length > 0 && (
                <IconButton
                  aria-label={isOpen ? `Close ${look.label}` : `Open ${look.label}`}
                  aria-expanded={isOpen}
                  size="2xs"
                  variant="ghost"
                  mr="1"
                  onClick={() => toggle(key)}
                >
                  {isOpen ? <ChevronDown size={13} /> : <ChevronRight size={13} />}
                </IconButton>
              )}
              {across !== 'second' && !look.blank && !look.outside && <ItemMark colour={look.colour} />} <Named look={look} />
            </th>
          </Table.Cell>
          {columns
            .map((column, place) => number(line.cells.get(column), cellAt(values, column), `${look.label}, ${columnWords(column, place)}`))
            .map((cell, place) => (
              <Fragment key={columns[place]}>{cell}</Fragment>
            ))}
          {number(line.all, { values }, look.label)}
        </Table.Row>
        {isOpen && line.within.map((inner, place) => row(inner, values, depth + 1, place))}
      </Fragment>
    );
  };
  const heading = words.by.map((reached) => reached?.name ?? 'a field that has gone');
  return (
    <Box overflowX="auto" tabIndex={0} role="region" aria-label={`Table: ${label}`}>
      <Table.Root size="sm" aria-label={label} w="auto" minW="50%">
        <Table.Header>
          <Table.Row>
            <Table.ColumnHeader>
              {across === 'time' ? heading.join(' › ') || 'All entries' : (heading[0] ?? 'All entries')}
            </Table.ColumnHeader>
            {columns.map((column, at) => (
              <Table.ColumnHeader key={column} textAlign="end" whiteSpace="nowrap">
                {across === 'second' ? <Marked look={words.lookOf(1, column, at)} /> : columnWords(column, at)}
              </Table.ColumnHeader>
            ))}
            <Table.ColumnHeader textAlign="end">{definition.measure === 'count' ? 'Entries' : 'All'}</Table.ColumnHeader>
          </Table.Row>
        </Table.Header>
        <Table.Body>{lines.map((line, at) => row(line, [], 0, at))}</Table.Body>
        <Table.Footer>
          <Table.Row fontWeight="bold">
            <Table.Cell asChild position="sticky" left="0" bg="card">
              <th scope="row" style={{ textAlign: 'start' }}>
                All
              </th>
            </Table.Cell>
            {columns.map((column, at) => (
              <Fragment key={column}>{number(foot.cells.get(column), cellAt([], column), columnWords(column, at))}</Fragment>
            ))}
            {number(foot.all, { values: [] }, 'all')}
          </Table.Row>
        </Table.Footer>
      </Table.Root>
    </Box>
  );
}

/** A value with the shape and colour that it has in the chart. */
const Marked = ({ look }: { look: ReturnType<FigureWords['lookOf']> }) => (
  <>
    {!look.blank && !look.outside && <ItemMark colour={look.colour} />} <Named look={look} />
  </>
);

/** The name of a value; one that is outside carries the open ring. */
export function Named({ look }: { look: ReturnType<FigureWords['lookOf']> }) {
  if (look.blank)
    return (
      <Box as="span" color="inkSoft" fontStyle="italic">
        blank
      </Box>
    );
  if (look.outside)
    return (
      <Box as="span" color="amber.fg" title="outside" textDecoration="underline dotted" textUnderlineOffset="3px">
        ○ {look.label}
        <span className="sr-only">, outside</span>
      </Box>
    );
  return <>{look.label}</>;
}

function NumberCell({ text, about, open }: { text: string; about: string; open: () => void }) {
  return (
    <Table.Cell textAlign="end" fontVariantNumeric="tabular-nums" whiteSpace="nowrap">
      {text !== '' && (
        <Box asChild cursor="pointer" _hover={{ textDecoration: 'underline' }}>
          <button type="button" aria-label={`${text}: entries of ${about}`} onClick={open}>
            {text}
          </button>
        </Box>
      )}
    </Table.Cell>
  );
}
