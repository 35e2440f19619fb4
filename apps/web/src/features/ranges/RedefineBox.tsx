// What a change of a range would bring in, take out and respell, before it is made.
import { Box, Button, HStack, Text } from '@chakra-ui/react';
import type { RangeLook } from '@dellum/contract';
import { number } from '../../frame/written.js';

interface RedefineBoxProps {
  readonly name: string;
  readonly look: RangeLook;
  onChange(): void;
  onLeave(): void;
}

const quoted = (values: readonly string[], count: number) =>
  `${values
    .slice(0, 4)
    .map((value) => `“${value}”`)
    .join(', ')}${count > 4 ? ` and ${number.format(count - 4)} more` : ''}`;

function Line({ count, words, values }: { count: number; words: string; values: string }) {
  if (count === 0) return null;
  return (
    <Text>
      <b>{number.format(count)}</b> {words}: {values}
    </Text>
  );
}

export function RedefineBox({ name, look, onChange, onLeave }: RedefineBoxProps) {
  const { comesIn, goesOut, respelled, counts, takes, entries } = look;
  return (
    <Box role="region" aria-label={`Change of ${name}`} p="3" borderWidth="1px" borderColor="amber.border" bg="amber.subtle" rounded="l3">
      <Text fontWeight="bold">Not changed yet</Text>
      <Text>
        {name} would take {number.format(takes)} {takes === 1 ? 'value' : 'values'}.
      </Text>
      <Line count={counts.comesIn} words={counts.comesIn === 1 ? 'comes in' : 'come in'} values={quoted(comesIn, counts.comesIn)} />
      <Line count={counts.goesOut} words={counts.goesOut === 1 ? 'goes out' : 'go out'} values={quoted(goesOut, counts.goesOut)} />
      <Line
        count={counts.respelled}
        words={counts.respelled === 1 ? 'is the same under another spelling' : 'are the same under other spellings'}
        values={quoted(
          respelled.map(({ from, to }) => `${from} → ${to}`),
          counts.respelled,
        )}
      />
      <Text color="inkSoft">
        {entries === 0
          ? 'No entry holds what goes.'
          : `${number.format(entries)} ${entries === 1 ? 'entry holds' : 'entries hold'} what goes; you are asked what becomes of them.`}
      </Text>
      <HStack mt="2">
        <Button variant="solid" onClick={onChange}>
          Change the range
        </Button>
        <Button onClick={onLeave}>Cancel</Button>
      </HStack>
    </Box>
  );
}
