// The slip of a list or table: the ranges over it, what one can do with the selected rows, and naming a new range.
import { Box, Button, Heading, HStack, Input, Stack, Text } from '@chakra-ui/react';
import { series } from '@dellum/core';
import type { BuildView } from '@dellum/contract';
import { useState } from 'react';
import { isSingle, type Block } from '../../grid/index.js';
import { NameRange } from '../ranges/NameRange.js';
import { RangeCard } from '../ranges/RangeCard.js';
import { JoinRange, joinable } from './JoinRange.js';
import { MakeCatalog } from './MakeCatalog.js';
import { isInList, type SourceRegister } from '../acts/useRegister.js';

interface RegisterSlipProps {
  readonly source: SourceRegister;
  readonly build: BuildView;
  readonly block: Block | undefined;
  readonly chosenRange: string | undefined;
}

export function RegisterSlip({ source, build, block, chosenRange }: RegisterSlipProps) {
  const [naming, setNaming] = useState(false);
  const rows = block ? source.rowsOf(block) : [];
  const rails = [...source.rails].sort((a, b) => Number(b.range.id === chosenRange) - Number(a.range.id === chosenRange));
  const shownNaming = naming || rails.length === 0;
  return (
    <Stack gap="5">
      {rails.map((rail) => (
        <RangeCard key={rail.range.id} rail={rail} source={source} build={build} block={block} selectedLast={rows.at(-1)?.id} />
      ))}
      {rails.length === 0 && (
        <Box>
          <Heading as="h2" fontSize="lg">
            {source.register.title}
          </Heading>
          <Text color="inkSoft">a {source.isList ? 'list' : 'table'} without a range; nothing takes its values yet</Text>
        </Box>
      )}
      {rails.length === 0 && joinable(source, build).map((range) => <JoinRange key={range.id} source={source} range={range} />)}
      {rails.length === 0 && <MakeCatalog key={source.register.id} source={source} build={build} />}
      {block && rows.length > 0 && <RowActs source={source} block={block} />}
      {shownNaming ? (
        <NameRange source={source} build={build} block={toName(source, block)} done={() => setNaming(false)} />
      ) : (
        <Button alignSelf="start" onClick={() => setNaming(true)}>
          Name another range here
        </Button>
      )}
    </Stack>
  );
}

/** The cells that are named: those that are selected; with one cell or none, the whole list, or the field of a table. */
function toName({ entries, register }: SourceRegister, block: Block | undefined): Block {
  if (block && !isSingle(block) && block.top < entries.length) return block;
  const [left, right] = block ? [block.left, block.right] : [0, register.fields.length - 1];
  return { top: 0, bottom: entries.length - 1, left, right };
}

function RowActs({ source, block }: { source: SourceRegister; block: Block }) {
  const rows = source.rowsOf(block);
  const ids = rows.map(({ id }) => id);
  const [above, next, below] = [source.rows[block.top - 1], source.rows[block.bottom + 1], source.rows[block.bottom + 2]];
  const where = rows.length === 1 ? `Row ${block.top + 1}` : `Rows ${block.top + 1} to ${block.top + rows.length}`;
  return (
    <Box role="group" aria-label={`${where} of ${source.register.title}`} borderTopWidth="1px" borderColor="line" pt="3">
      <Text fontWeight="bold" mb="2">
        {where} of {source.register.title}
      </Text>
      <HStack wrap="wrap" gap="1.5">
        <Button onClick={() => void source.act({ act: 'insert', rows: rows.map(() => []), before: ids[0]! })}>Insert above</Button>
        <Button disabled={!isInList(above)} onClick={() => void source.move(ids, above!.id)}>
          Move up
        </Button>
        <Button disabled={!isInList(next)} onClick={() => void source.move(ids, isInList(below) ? below.id : undefined)}>
          Move down
        </Button>
        <Button colorPalette="brick" onClick={() => void source.act({ act: 'delete', entries: ids })}>
          Delete
        </Button>
      </HStack>
      <CarryOn source={source} block={block} />
    </Box>
  );
}

const mostRows = 5000;

/** Carries the selected cells on as a series below them. */
function CarryOn({ source, block }: { source: SourceRegister; block: Block }) {
  const [count, setCount] = useState('5');
  const fields = source.fieldsOf(block);
  const rows = source.rowsOf(block);
  const more = Math.min(mostRows, Math.max(0, Math.floor(Number(count)) || 0));
  const next = fields.map(({ key }) =>
    series(
      rows.map(({ cells }) => cells[key] ?? ''),
      more,
    ),
  );
  if (rows.every(({ cells }) => fields.every(({ key }) => !(key in cells)))) return null;
  const fill = () => {
    const texts = Array.from({ length: more }, (_, row) => fields.map((_field, column) => next[column]![row]!));
    const before = source.rows[block.bottom + 1];
    void source.act({ act: 'insert', fields: fields.map(({ key }) => key), rows: texts, ...(isInList(before) && { before: before.id }) });
  };
  return (
    <Box mt="3">
      <HStack gap="1.5">
        <Button disabled={more === 0} onClick={fill}>
          Carry on for
        </Button>
        <Input
          size="xs"
          w="56px"
          borderColor="slate.border"
          inputMode="numeric"
          aria-label="Rows to carry on"
          value={count}
          onChange={(event) => setCount(event.target.value)}
        />
        <Text>rows</Text>
      </HStack>
      {more > 0 && (
        <Text mt="1" fontSize="xs" color="inkSoft">
          {next.map((column) => column.slice(0, 3).join(', ')).join(' · ')} …
        </Text>
      )}
    </Box>
  );
}
