// The slip of a list: the ranges over it, what one can do with the selected rows, and naming a new range.
import { Box, Button, Heading, HStack, Stack, Text } from '@chakra-ui/react';
import type { BuildView } from '@dellum/contract';
import { useState } from 'react';
import type { Block } from '../../grid/index.js';
import { NameRange } from '../ranges/NameRange.js';
import { RangeCard } from '../ranges/RangeCard.js';
import type { List } from './useList.js';

interface ListSlipProps {
  readonly list: List;
  readonly build: BuildView;
  readonly block: Block | undefined;
  readonly chosenRange: string | undefined;
}

export function ListSlip({ list, build, block, chosenRange }: ListSlipProps) {
  const [naming, setNaming] = useState(false);
  const rows = block ? list.rowsOf(block) : [];
  const rails = [...list.rails].sort((a, b) => Number(b.range.id === chosenRange) - Number(a.range.id === chosenRange));
  const shownNaming = naming || rails.length === 0;
  return (
    <Stack gap="5">
      {rails.map((rail) => (
        <RangeCard key={rail.range.id} rail={rail} list={list} build={build} selectedLast={rows.at(-1)?.id} />
      ))}
      {rails.length === 0 && (
        <Box>
          <Heading as="h2" fontSize="lg">
            {list.register.title}
          </Heading>
          <Text color="inkSoft">a list without a range; nothing takes its values yet</Text>
        </Box>
      )}
      {block && rows.length > 0 && <RowActs list={list} block={block} />}
      {shownNaming ? (
        <NameRange list={list} block={block ?? { top: 0, bottom: list.entries.length - 1, left: 0, right: 0 }} done={() => setNaming(false)} />
      ) : (
        <Button size="xs" variant="outline" alignSelf="start" onClick={() => setNaming(true)}>
          Name another range here
        </Button>
      )}
    </Stack>
  );
}

function RowActs({ list, block }: { list: List; block: Block }) {
  const rows = list.rowsOf(block);
  const ids = rows.map(({ id }) => id);
  const above = list.entries[block.top - 1];
  const below = list.entries[block.bottom + 2];
  const where = rows.length === 1 ? `Row ${block.top + 1}` : `Rows ${block.top + 1} to ${block.top + rows.length}`;
  return (
    <Box role="group" aria-label={`${where} of ${list.register.title}`} borderTopWidth="1px" borderColor="line" pt="3">
      <Text fontWeight="bold" mb="2">
        {where} of {list.register.title}
      </Text>
      <HStack wrap="wrap" gap="1.5">
        <Button size="xs" variant="outline" onClick={() => void list.act({ act: 'insert', field: list.fieldKey, texts: [''], before: ids[0]! })}>
          Insert above
        </Button>
        <Button size="xs" variant="outline" disabled={!above} onClick={() => void list.act({ act: 'move', entries: ids, before: above!.id })}>
          Move up
        </Button>
        <Button size="xs" variant="outline" disabled={block.top + rows.length >= list.entries.length} onClick={() => void list.act({ act: 'move', entries: ids, ...(below && { before: below.id }) })}>
          Move down
        </Button>
        <Button size="xs" variant="outline" colorPalette="brick" onClick={() => void list.act({ act: 'delete', entries: ids })}>
          Delete
        </Button>
      </HStack>
      <Text mt="2" fontSize="xs" color="inkSoft">
        Alt, Shift and an arrow move rows, too.
      </Text>
    </Box>
  );
}
