// A list that is proposed: its values, the spellings that become them, and the rows that contradict its levels.
import { Box, Button, HStack, Stack, Text } from '@chakra-ui/react';
import type { AdoptedValue, HouseProposal, ProposedList } from '@dellum/core';
import { useState } from 'react';
import { Check } from '../../frame/Check.js';
import { Select } from '../../frame/Select.js';
import { entries, number } from '../../frame/written.js';
import { levelWords, rows, whereWords } from './adoptionWords.js';
import { KeptText } from './KeptText.js';
import type { useMend } from './useMend.js';

/** A spelling that is being looked at. */
export interface Spelled {
  readonly list: string;
  readonly text: string;
}

interface ListCardProps {
  readonly list: ProposedList;
  readonly proposal: HouseProposal;
  readonly mend: ReturnType<typeof useMend>;
  look(spelled: Spelled): void;
}

/** So many values are shown before one asks for all. */
const firstShown = 8;

export function ListCard({ list, proposal, mend, look }: ListCardProps) {
  const [all, setAll] = useState(false);
  const { id, title, wanted, levels, contradictions, outside } = list;
  const values = levels.at(-1)!.values;
  const isOfHouse = list.catalog !== null;
  // What the house has is known there; what the files hold of it is what one looks at.
  const shown = levels.flatMap(({ values: own }, level) =>
    level < levels.length - 1
      ? own.filter(({ spellings }) => spellings.length > 0)
      : own.filter(({ entries: count }) => !isOfHouse || count > 0),
  );
  const spelled = shown.filter(({ spellings }) => spellings.length > 0);
  // What was gathered is what one wants to look at; the rest stands behind it.
  const first = [...spelled, ...shown.filter(({ spellings }) => spellings.length === 0)];
  const others = proposal.lists.filter((other) => other.id !== id && other.wanted);
  return (
    <Box as="section" aria-label={`List ${title}`} borderWidth="1px" borderColor="line" rounded="l3" bg="card" p="3">
      <HStack wrap="wrap" gap="3">
        <Check
          label={isOfHouse ? `Choose from ${title} of the house` : `Make the list ${title}`}
          hidden
          checked={wanted}
          set={(on) => mend.list({ list: id, wanted: on })}
        />
        {isOfHouse ? (
          <Text fontWeight="bold">{title}</Text>
        ) : (
          <KeptText
            label={`Title of the list ${title}`}
            value={title}
            width="220px"
            bold
            keep={(text) => mend.list({ list: id, title: text })}
          />
        )}
        {levels.length === 1 && !isOfHouse && list.home === null && others.length > 0 && wanted && (
          <Select
            label={`${title} and another list are one`}
            width="220px"
            value=""
            options={[['', 'a list of its own'], ...others.map((other) => [other.id, `one with ${other.title}`] as const)]}
            onChoose={(other) => {
              if (other !== '') mend.list({ list: id, into: other });
            }}
          />
        )}
        {list.joined.map((other) => (
          <Button key={other.id} size="2xs" onClick={() => mend.list({ list: other.id, into: null })}>
            Part {other.title} again
          </Button>
        ))}
        <Text color="inkSoft" fontSize="xs">
          {isOfHouse && !wanted ? 'a list of the house, which is left out' : `${levelWords(list)}${whereWords(list, proposal)}`}
        </Text>
      </HStack>
      {wanted && (
        <Stack gap="2" mt="3">
          <Stack as="ul" gap="1" listStyleType="none" aria-label={`Values of ${title}`}>
            {(all ? first : first.slice(0, firstShown)).map((value) => (
              <Value key={[...value.path, value.value].join('\u001F')} value={value} look={(text) => look({ list: id, text })} />
            ))}
          </Stack>
          {first.length > firstShown && (
            <Button size="2xs" alignSelf="start" onClick={() => setAll(!all)}>
              {all ? 'Show fewer' : `Show all ${number.format(isOfHouse ? first.length : values.length)} values of ${title}`}
            </Button>
          )}
          {outside.length > 0 && (
            <Box>
              <Text color="amber.fg">
                None of its values, so outside: {number.format(outside.length)} {outside.length === 1 ? 'text' : 'texts'}
              </Text>
              <HStack wrap="wrap" gap="1.5" mt="1">
                {outside.slice(0, all ? outside.length : firstShown).map(({ value, entries: count }) => (
                  <Spelling key={value} text={value} count={count} look={() => look({ list: id, text: value })} />
                ))}
              </HStack>
            </Box>
          )}
          {contradictions.length > 0 && (
            <Box>
              <Text color="amber.fg">Rows that contradict the levels; they come in as they are, and are outside:</Text>
              <Stack as="ul" gap="0" listStyleType="none" fontSize="xs">
                {contradictions.slice(0, all ? contradictions.length : firstShown).map(({ table: of, row, rows: count, path, instead }) => (
                  <li key={`${of} ${row}`}>
                    Row {number.format(row)}
                    {count > 1 && ` and ${rows(count - 1)} more`}: {path.at(-1)} under {path.slice(0, -1).join(' › ')}, in most under{' '}
                    {instead.slice(0, -1).join(' › ')}
                  </li>
                ))}
              </Stack>
            </Box>
          )}
        </Stack>
      )}
    </Box>
  );
}

function Value({ value: { value, path, entries: count, spellings }, look }: { value: AdoptedValue; look(text: string): void }) {
  return (
    <HStack as="li" wrap="wrap" gap="1.5" align="baseline">
      <Text>
        {path.length > 0 && (
          <Text as="span" color="inkSoft">
            {path.join(' › ')} ›{' '}
          </Text>
        )}
        <Text as="span" fontWeight="bold">
          {value}
        </Text>
        <Text as="span" color="inkSoft">
          {' '}
          {entries(count)}
          {spellings.length > 0 && ', also written'}
        </Text>
      </Text>
      {spellings.map((one) => (
        <Spelling key={one.value} text={one.value} count={one.entries} look={() => look(one.value)} />
      ))}
    </HStack>
  );
}

function Spelling({ text, count, look }: { readonly text: string; readonly count: number; look(): void }) {
  return (
    <Button size="2xs" variant="outline" fontWeight="normal" h="auto" minH="6" whiteSpace="normal" overflowWrap="anywhere" onClick={look}>
      {text} ({number.format(count)})
    </Button>
  );
}
