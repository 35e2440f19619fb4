// A named range: the sentence that says what it takes, how it ends, what it feeds.
import { Box, Button, Heading, HStack, IconButton, Input, Stack, Text } from '@chakra-ui/react';
import { endingClause, type Rail } from '@dellum/core';
import type { BuildView } from '@dellum/contract';
import { Pencil } from 'lucide-react';
import { useState } from 'react';
import { Link } from 'react-router';
import type { List } from '../sources/useList.js';
import { useChangeRangeMutation, useDeleteRangeMutation } from '../sources/sourcesApi.js';
import { EndChoice } from './EndChoice.js';

interface RangeCardProps {
  readonly rail: Rail;
  readonly list: List;
  readonly build: BuildView;
  /** The entry at which a fixed end may be put: the last one selected. */
  readonly selectedLast: string | undefined;
}

const why = { blank: 'blank', repeat: 'a repeat', 'past the end': 'past the end', 'after the gap': 'after the gap' } as const;

function leftOutWords({ taking }: Rail): string {
  if (taking.leftOut.length === 0) return 'none left out';
  const counts = new Map<string, number>();
  for (const left of taking.leftOut) counts.set(why[left.why], (counts.get(why[left.why]) ?? 0) + 1);
  return `left out: ${[...counts].map(([words, count]) => `${count} ${words}`).join(', ')}`;
}

function startWords({ range, taking }: Rail): string {
  return range.start.at === 'top' ? 'the top' : `row ${taking.first + 1}`;
}

export function RangeCard({ rail, list, build, selectedLast }: RangeCardProps) {
  const { range, taking } = rail;
  const [name, setName] = useState<string>();
  const [change] = useChangeRangeMutation();
  const [remove] = useDeleteRangeMutation();
  const catalogs = build.catalogs.filter(({ rangeIds }) => rangeIds.includes(range.id));
  const endsElsewhere = range.end.ends === 'fixed' && selectedLast !== undefined && selectedLast !== range.end.entry;
  const rename = async () => {
    if (await list.told(change({ id: range.id, change: { name: name ?? '' } }).unwrap())) setName(undefined);
  };
  return (
    <Stack gap="2.5" role="region" aria-label={`Range ${range.name}`}>
      <Box>
        {name === undefined ? (
          <HStack>
            <Heading as="h2" fontSize="lg">
              {range.name}
            </Heading>
            <IconButton aria-label={`Rename ${range.name}`} size="2xs" variant="ghost" onClick={() => setName(range.name)}>
              <Pencil size={13} />
            </IconButton>
          </HStack>
        ) : (
          <form
            onSubmit={(event) => {
              event.preventDefault();
              void rename();
            }}
          >
            <Input size="sm" aria-label="Name of the range" autoFocus value={name} onChange={(event) => setName(event.target.value)} onKeyDown={(event) => event.key === 'Escape' && setName(undefined)} />
          </form>
        )}
        <Text color="inkSoft">
          named range, {taking.values.length} {taking.values.length === 1 ? 'value' : 'values'} taken, {leftOutWords(rail)}
        </Text>
      </Box>
      {taking.first === taking.beyond && <Text color="amber.fg">The range is empty. {taking.grows ? 'Type a value where it starts.' : 'Select the row at which it ends, and end it there.'}</Text>}
      <Text fontSize="md" lineHeight="1.8">
        Values of <b>{list.register.title}</b> from <b>{startWords(rail)}</b>, <b>{endingClause(range.end.ends)}</b>; blanks skipped, repeats taken once.
      </Text>
      <EndChoice label={`How ${range.name} ends`} ends={range.end.ends} onChoose={(ends) => void list.told(change({ id: range.id, change: { ends } }).unwrap())} />
      {endsElsewhere && (
        <Button size="xs" variant="outline" alignSelf="start" onClick={() => void list.told(change({ id: range.id, change: { endEntry: selectedLast } }).unwrap())}>
          End it at the selected row
        </Button>
      )}
      <HStack justify="space-between" borderTopWidth="1px" borderColor="line" pt="2.5" align="start">
        <Text>
          {catalogs.length === 0
            ? 'Feeds no catalog yet.'
            : <>Feeds {catalogs.map((catalog, at) => <span key={catalog.id}>{at > 0 && ', '}<Box asChild color="damson.fg" fontWeight="bold"><Link to={`/catalogs/${catalog.id}`}>{catalog.title}</Link></Box></span>)}</>}
        </Text>
        <Button size="2xs" variant="ghost" colorPalette="brick" onClick={() => void list.told(remove(range.id).unwrap())}>
          Delete the range
        </Button>
      </HStack>
    </Stack>
  );
}
