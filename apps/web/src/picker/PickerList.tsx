// The open list of a picker: what matches, marked, and at the foot how many of how many and which keys work.
import { Box, HStack, Kbd, Text, type SystemStyleObject } from '@chakra-ui/react';
import type { Given, Item, OtherValues } from '@dellum/core';
import { useVirtualizer } from '@tanstack/react-virtual';
import { Check, MessageSquarePlus } from 'lucide-react';
import { useEffect, useRef, type MouseEvent } from 'react';
import type { PickList } from './pickList.js';
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
  readonly list: PickList;
  readonly picker: Pick<Picker, 'matches' | 'total' | 'untouched' | 'reach'>;
  readonly others: OtherValues;
  readonly at: number | undefined;
  /** What is typed, to be asked for or added, in words; undefined where the rule has no room for new values. */
  readonly newValue: NewValue | undefined;
  /** Of several values: the labels that are chosen already. */
  readonly picked?: ReadonlySet<string>;
  /** `isNew`: the line of the new value was picked. */
  onPick(given: Given, isNew?: true): void;
}

const lineHeight = 31;

export function PickerList({ id, list, picker, others, at, newValue, picked, onPick }: PickerListProps) {
  const { matches, total, reach } = picker;
  const title = picked ? `${list.title} · several` : list.title;
  const box = useRef<HTMLDivElement>(null);
  const count = total + (newValue ? 1 : 0);
  // Only the lines in view are drawn, so that a list can be browsed to its last value however long it is.
  const virtual = useVirtualizer({
    count,
    getScrollElement: () => box.current,
    estimateSize: () => lineHeight,
    overscan: 6,
    initialRect: { width: 280, height: list.picking.lines * lineHeight },
  });
  const lines = virtual.getVirtualItems();
  const last = lines.at(-1)?.index ?? 0;
  useEffect(() => reach(last), [reach, last]);
  useEffect(() => {
    if (at !== undefined) virtual.scrollToIndex(at, { align: 'auto' });
  }, [at, virtual]);
  const press = (given: Given, isNew?: true) => (event: MouseEvent) => {
    event.preventDefault();
    onPick(given, isNew);
  };
  return (
    <>
      <Text px="3" py="1.5" bg="damson.subtle" color="damson.fg" fontSize="xs">
        {title}
      </Text>
      <Box
        ref={box}
        id={id}
        role="listbox"
        aria-label={title}
        aria-multiselectable={picked !== undefined || undefined}
        css={listStyles}
        maxH={`${list.picking.lines * lineHeight + 16}px`}
      >
        <div role="presentation" style={{ height: virtual.getTotalSize(), position: 'relative' }}>
          {lines.map(({ index, start }) => {
            const shared = {
              id: `${id}-${index}`,
              role: 'option',
              'aria-setsize': count,
              'aria-posinset': index + 1,
              style: { transform: `translateY(${start}px)` },
            } as const;
            if (newValue && index === total) {
              return (
                <div
                  key="new"
                  {...shared}
                  className={index === at ? 'new at' : 'new'}
                  aria-selected={index === at}
                  onMouseDown={press({ typed: newValue.text }, true)}
                >
                  <MessageSquarePlus size={13} aria-hidden />
                  <span className="label">{newValue.words}</span>
                </div>
              );
            }
            const match = matches[index];
            if (!match) return null;
            const { item, spans, otherName } = match;
            return (
              <div
                key={item.value}
                {...shared}
                className={index === at ? 'at' : undefined}
                aria-selected={picked ? picked.has(list.textOf(item)) : index === at}
                onMouseDown={press({ chosen: item.value })}
              >
                <span className="label">
                  {picked && <span className="picked">{picked.has(list.textOf(item)) && <Check size={12} aria-hidden />}</span>}
                  {item.colour && (
                    <span className="mark">
                      <ItemMark colour={item.colour} />
                    </span>
                  )}
                  <Marked text={list.shownOf(item)} spans={list.shownOf(item) === item.label ? spans : []} />
                </span>
                <span className="second">{otherName ? `also “${otherName}”` : secondColumn(item)}</span>
              </div>
            );
          })}
        </div>
      </Box>
      <HStack justify="space-between" px="3" py="1.5" borderTopWidth="1px" borderColor="lineSoft" fontSize="xs" color="inkSoft" gap="5">
        <span role="status">{footWords(picker, list.search.items.length, others)}</span>
        <HStack gap="1" flexShrink={0}>
          <Kbd size="sm">↑</Kbd>
          <Kbd size="sm">↓</Kbd> choose <Kbd size="sm">Enter</Kbd> {picked ? 'add' : 'take'}
        </HStack>
      </HStack>
    </>
  );
}

/** One sheet of styles for all lines, so that a key that narrows the list costs a few plain elements. */
const listStyles: SystemStyleObject = {
  overflow: 'auto',
  py: '0.5',
  '& [role=option]': {
    position: 'absolute',
    top: 0,
    left: 0,
    right: 0,
    display: 'flex',
    alignItems: 'center',
    justifyContent: 'space-between',
    gap: '4',
    px: '3',
    h: '31px',
    cursor: 'pointer',
  },
  '& [role=option]:hover': { bg: 'paper' },
  '& [role=option].at': { bg: 'growth.subtle' },
  '& [role=option].new': { justifyContent: 'start', gap: '2', color: 'amber.fg', borderTopWidth: '1px', borderColor: 'lineSoft' },
  '& .label, & .second': { overflow: 'hidden', textOverflow: 'ellipsis', whiteSpace: 'nowrap' },
  '& .second': { fontSize: 'xs', color: 'inkSoft' },
  '& .picked': { display: 'inline-block', w: '16px', color: 'growth.fg' },
  '& .mark': { mr: '1.5' },
};

/** The code where a name is shown for it, and the note. */
const secondColumn = ({ value, label, note }: Item): string => [value !== label && value, note].filter(Boolean).join(' · ');

/** What becomes of a text that is not in the list, where the rule has room for others. */
const notListed: { readonly [O in Exclude<OtherValues, 'refuse'>]: string } = {
  accept: 'Not in the list; taken as you type it',
  confirm: 'Not in the list; you will be asked whether it is meant',
  request: 'Not in the list; whoever keeps it is asked',
  add: 'Not in the list; it will be added',
};

function footWords({ total, untouched }: Pick<Picker, 'total' | 'untouched'>, offered: number, others: OtherValues): string {
  if (!untouched && total === 0 && others !== 'refuse') return notListed[others];
  if (offered === 0) return 'Nothing is offered yet';
  if (total === 0) return `None of the ${offered} values matches`;
  return total === offered ? `${offered} ${offered === 1 ? 'value' : 'values'}` : `${total} of ${offered} values`;
}
