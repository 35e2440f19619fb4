// The open list of a picker: what matches, marked, and at the foot how many of how many and which keys work.
import { Box, HStack, Kbd, Text, type SystemStyleObject } from '@chakra-ui/react';
import type { Item, Match, OtherValues } from '@dellum/core';
import { Check, MessageSquarePlus } from 'lucide-react';
import { useEffect, useRef } from 'react';
import { ItemMark } from '../theme/index.js';
import { Marked } from './Marked.js';
import type { Picker } from './usePicker.js';

interface NewValue {
  readonly text: string;
  readonly words: string;
}

/** The line with which a list ends where what is typed can be asked for, or added. */
export const newValueOf = ({ offersNew }: Picker, others: OtherValues, text: string): NewValue | undefined =>
  offersNew ? { text, words: others === 'add' ? `Add “${text.trim()}” to the catalog` : `Ask for “${text.trim()}”` } : undefined;

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
  readonly newValue: NewValue | undefined;
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
      <Box ref={list} id={id} css={listStyles} role="listbox" aria-label={title} aria-multiselectable={picked !== undefined || undefined} maxH={`${lines * 31 + 16}px`}>
        {matches.map(({ item, spans, otherName }, index) => (
          <div
            key={item.value}
            id={`${id}-${index}`}
            role="option"
            className={index === at ? 'at' : undefined}
            aria-selected={picked ? picked.has(item.label) : index === at}
            onMouseDown={(event) => {
              event.preventDefault();
              onPick(item.value);
            }}
          >
            <span className="label">
              {picked && <span className="picked">{picked.has(item.label) && <Check size={12} aria-hidden />}</span>}
              {item.colour && (
                <span className="mark">
                  <ItemMark colour={item.colour} />
                </span>
              )}
              <Marked text={item.label} spans={spans} />
            </span>
            <span className="second">{otherName ? `also “${otherName}”` : secondColumn(item)}</span>
          </div>
        ))}
        {newValue && (
          <div
            id={`${id}-${matches.length}`}
            role="option"
            className={['new', at === matches.length && 'at'].filter(Boolean).join(' ')}
            aria-selected={at === matches.length}
            onMouseDown={(event) => {
              event.preventDefault();
              onPick(newValue.text);
            }}
          >
            <MessageSquarePlus size={13} aria-hidden />
            <span className="label">{newValue.words}</span>
          </div>
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

/** One sheet of styles for all lines, so that a key that narrows the list costs a few plain elements. */
const listStyles: SystemStyleObject = {
  overflow: 'auto',
  py: '0.5',
  '& [role=option]': { display: 'flex', alignItems: 'center', justifyContent: 'space-between', gap: '4', px: '3', h: '31px', cursor: 'pointer' },
  '& [role=option]:hover': { bg: 'paper' },
  '& [role=option].at': { bg: 'growth.subtle' },
  '& [role=option].new': { justifyContent: 'start', gap: '2', color: 'amber.fg', borderTopWidth: '1px', borderColor: 'lineSoft' },
  '& [role=option].new:first-of-type': { borderTopWidth: '0' },
  '& .label, & .second': { overflow: 'hidden', textOverflow: 'ellipsis', whiteSpace: 'nowrap' },
  '& .second': { fontSize: 'xs', color: 'inkSoft' },
  '& .picked': { display: 'inline-block', w: '16px', color: 'growth.fg' },
  '& .mark': { mr: '1.5' },
};

/** The code where a name is shown for it, and the note. */
const secondColumn = ({ value, label, note }: Item): string => [value !== label && value, note].filter(Boolean).join(' · ');

function footWords(shown: number, total: number, offered: number): string {
  if (offered === 0) return 'Nothing is offered yet';
  if (total === 0) return `None of ${offered} holds this`;
  if (shown < total) return `First ${shown} of ${total}; type more`;
  return total === offered ? `${offered} offered` : `${total} of ${offered}`;
}
