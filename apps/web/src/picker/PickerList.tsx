// The open list of a picker: what matches, marked, and at the foot how many of how many and which keys work.
import { Box, HStack, Kbd, Text } from '@chakra-ui/react';
import type { Item, Match } from '@dellum/core';
import { Check, MessageSquarePlus } from 'lucide-react';
import { useEffect, useRef } from 'react';
import { ItemMark } from '../theme/index.js';
import { Marked } from './Marked.js';

interface PickerListProps {
  readonly id: string;
  readonly title: string;
  /** How many lines are open at once. */
  readonly lines: number;
  readonly matches: readonly Match[];
  readonly total: number;
  readonly offered: number;
  readonly at: number | undefined;
  /** What is typed, to be asked for or added, in words; undefined where the rule has no room for new values. */
  readonly newValue: { readonly text: string; readonly words: string } | undefined;
  /** Of several values: the labels that are chosen already. */
  readonly picked?: ReadonlySet<string>;
  onPick(value: string): void;
}

export function PickerList({ id, title, lines, matches, total, offered, at, newValue, picked, onPick }: PickerListProps) {
  const list = useRef<HTMLDivElement>(null);
  useEffect(() => {
    if (at !== undefined) list.current?.children[at]?.scrollIntoView({ block: 'nearest' });
  }, [at]);
  return (
    <>
      <Text px="3" py="1.5" bg="damson.subtle" color="damson.fg" fontSize="xs">
        {title}
      </Text>
      <Box ref={list} id={id} role="listbox" aria-label={title} aria-multiselectable={picked !== undefined || undefined} maxH={`${lines * 31 + 16}px`} overflow="auto" py="0.5">
        {matches.map(({ item, spans, otherName }, index) => (
          <HStack
            key={item.value}
            id={`${id}-${index}`}
            role="option"
            aria-selected={picked ? picked.has(item.label) : index === at}
            justify="space-between"
            gap="4"
            px="3"
            h="31px"
            cursor="pointer"
            bg={index === at ? 'growth.subtle' : undefined}
            _hover={{ bg: index === at ? 'growth.subtle' : 'paper' }}
            onMouseDown={(event) => {
              event.preventDefault();
              onPick(item.value);
            }}
          >
            <Text truncate>
              {picked && <Box as="span" display="inline-block" w="16px" color="growth.fg">{picked.has(item.label) && <Check size={12} aria-hidden />}</Box>}
              {item.colour && (
                <Box as="span" mr="1.5">
                  <ItemMark colour={item.colour} />
                </Box>
              )}
              <Marked text={item.label} spans={spans} />
            </Text>
            <Text fontSize="xs" color="inkSoft" truncate>
              {otherName ? `also “${otherName}”` : secondColumn(item)}
            </Text>
          </HStack>
        ))}
        {newValue && (
          <HStack
            id={`${id}-${matches.length}`}
            role="option"
            aria-selected={at === matches.length}
            gap="2"
            px="3"
            h="31px"
            cursor="pointer"
            color="amber.fg"
            borderTopWidth={matches.length > 0 ? '1px' : '0'}
            borderColor="lineSoft"
            bg={at === matches.length ? 'growth.subtle' : undefined}
            onMouseDown={(event) => {
              event.preventDefault();
              onPick(newValue.text);
            }}
          >
            <MessageSquarePlus size={13} aria-hidden />
            <Text truncate>{newValue.words}</Text>
          </HStack>
        )}
      </Box>
      <HStack justify="space-between" px="3" py="1.5" borderTopWidth="1px" borderColor="lineSoft" fontSize="xs" color="inkSoft" gap="5">
        <span role="status">{footWords(matches.length, total, offered)}</span>
        <HStack gap="1" flexShrink={0}>
          <Kbd size="sm">↑</Kbd>
          <Kbd size="sm">↓</Kbd> choose <Kbd size="sm">Enter</Kbd> take
        </HStack>
      </HStack>
    </>
  );
}

/** The code where a name is shown for it, and the note. */
const secondColumn = ({ value, label, note }: Item): string => [value !== label && value, note].filter(Boolean).join(' · ');

function footWords(shown: number, total: number, offered: number): string {
  if (offered === 0) return 'Nothing is offered yet';
  if (total === 0) return `None of ${offered} holds this`;
  if (shown < total) return `First ${shown} of ${total}; type more`;
  return total === offered ? `${offered} offered` : `${total} of ${offered}`;
}
