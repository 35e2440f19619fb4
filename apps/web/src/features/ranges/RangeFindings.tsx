// What a range misses, said under its list, each with a cure in one step.
import { Box, Button, Stack, Text } from '@chakra-ui/react';
import type { Rail } from '@dellum/core';
import type { List } from '../sources/useList.js';
import { useChangeRangeMutation } from '../sources/sourcesApi.js';

interface Finding {
  readonly key: string;
  readonly words: string;
  readonly cure: string;
  heal(): Promise<boolean>;
}

export function RangeFindings({ list }: { list: List }) {
  const [change] = useChangeRangeMutation();
  const findings = list.rails.flatMap((rail) => [...pastTheEnd(rail, (endEntry) => list.told(change({ id: rail.range.id, change: { endEntry } }).unwrap())), ...afterTheGap(rail, list), ...repeats(rail, list)]);
  if (findings.length === 0) return null;
  return (
    <Stack gap="2" mt="2">
      {findings.map(({ key, words, cure, heal }) => (
        <Box key={key} bg="amber.subtle" color="amber.fg" rounded="l2" px="3" py="2">
          <Text>{words}</Text>
          <Button size="xs" variant="plain" px="0" h="6" fontWeight="bold" color="damson.fg" onClick={() => void heal()}>
            {cure}
          </Button>
        </Box>
      ))}
    </Stack>
  );
}

const values = (count: number) => (count === 1 ? '1 value stands' : `${count} values stand`);

function pastTheEnd({ range, taking }: Rail, takeIn: (endEntry: string) => Promise<boolean>): Finding[] {
  const past = taking.leftOut.filter(({ why }) => why === 'past the end');
  if (past.length === 0) return [];
  return [{ key: `${range.id} past`, words: `${values(past.length)} past the end of ${range.name} and ${past.length === 1 ? 'is' : 'are'} not offered.`, cure: past.length === 1 ? 'Take it in' : 'Take them in', heal: () => takeIn(past.at(-1)!.entry) }];
}

function afterTheGap({ range, taking }: Rail, list: List): Finding[] {
  const after = taking.leftOut.filter(({ why }) => why === 'after the gap');
  if (after.length === 0) return [];
  const blanks = list.entries.slice(taking.beyond, after[0]!.ordinal).map(({ id }) => id);
  return [{ key: `${range.id} gap`, words: `${values(after.length)} after the gap in ${range.name} and ${after.length === 1 ? 'is' : 'are'} not offered.`, cure: 'Close the gap', heal: () => list.act({ act: 'delete', entries: blanks }) }];
}

function repeats({ range, taking }: Rail, list: List): Finding[] {
  const [first] = taking.leftOut.filter(({ why }) => why === 'repeat');
  if (!first) return [];
  const times = taking.values.find(({ value }) => value === first.text)?.rows.length ?? 2;
  return [{ key: `${range.id} repeat`, words: `“${first.text}” stands ${times === 2 ? 'twice' : `${times} times`}; it is offered once.`, cure: times === 2 ? 'Remove the second' : 'Remove one repeat', heal: () => list.act({ act: 'delete', entries: [first.entry] }) }];
}
