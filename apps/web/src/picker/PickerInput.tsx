// A text input that is a picker: typing is the search. Used in the cell, in the trial entry and later in forms.
import { Button, HStack, Kbd, Stack, Text } from '@chakra-ui/react';
import type { Given, OtherValues } from '@dellum/core';
import { CornerDownLeft } from 'lucide-react';
import { useEffect, useId, useRef, useState, type CSSProperties, type KeyboardEvent, type ReactNode } from 'react';
import type { PickList } from './pickList.js';
import { Floating } from './Floating.js';
import { newValueOf, PickerList } from './PickerList.js';
import { comboboxParts } from './comboboxParts.js';
import { usePicker } from './usePicker.js';

/** A calendar beside the text. */
export interface Days {
  /** The text after ↑, ↓, Page Up or Page Down. */
  step(text: string, key: string): string | undefined;
  calendar(text: string, pick: (text: string) => void): ReactNode;
}

/** What was said of a text that was not taken. */
export interface Refusal {
  readonly message: string;
  readonly suggestions: readonly string[];
  /** The value is stored, marked, once one says that it is meant. */
  readonly mayConfirm?: boolean;
  /** The suggestions are a decision between two edits of one cell: what is there, and what was typed. */
  readonly conflict?: boolean;
  /** A key that leads on keeps it where it is, once one has seen why. */
  readonly mayLeave?: boolean;
}

/** How a text was taken: by a key that leads on, or picked by the pointer. */
export type TakenBy = 'enter' | 'backEnter' | 'tab' | 'backTab' | 'pick' | 'up' | 'down' | 'right';

/** Where an arrow leads that is pressed at the end of a text; undefined inside it. */
export function arrowOut(event: KeyboardEvent<HTMLInputElement | HTMLTextAreaElement>): 'up' | 'down' | 'right' | undefined {
  const { selectionStart, selectionEnd, value } = event.currentTarget;
  if (event.shiftKey || event.altKey || event.ctrlKey || event.metaKey || selectionStart !== value.length || selectionEnd !== value.length)
    return undefined;
  return ({ ArrowUp: 'up', ArrowDown: 'down', ArrowRight: 'right' } as const)[event.key as 'ArrowUp'];
}

/** What every editor of a text takes. */
export interface TextEditing {
  readonly label: string;
  readonly text: string;
  readonly refusal: Refusal | undefined;
  readonly selectAll: boolean;
  readonly style: CSSProperties;
  onText(text: string): void;
  /** True when the text was typed over the cell: an arrow at its end leaves the cell. */
  readonly typedOver?: boolean;
  /** `given`: what was typed, or the value that was chosen. */
  onTake(given: Given, by: TakenBy, confirmed?: boolean): void;
  onEscape(): void;
  onBlur(): void;
}

interface PickerInputProps extends TextEditing {
  /** What is picked from; undefined where one types without a list. */
  readonly list: PickList | undefined;
  readonly others: OtherValues;
  /** For dates: the calendar under the text, and the day that a key leads to. */
  readonly days?: Days | undefined;
  readonly held: string;
  /** The list or the calendar is open from the beginning; a list that is still coming, as soon as it is there. */
  readonly openAtOnce: boolean;
}

export function PickerInput(props: PickerInputProps) {
  const { label, list, others, text, held, refusal } = props;
  const [input, setInput] = useState<HTMLInputElement | null>(null);
  const [suggested, setSuggested] = useState(0);
  const [calendarOpen, setCalendarOpen] = useState(props.openAtOnce);
  // What was refused is no search: beside it stands the whole list.
  const picker = usePicker(list, others, refusal ? held : text, { held, open: props.openAtOnce || refusal !== undefined });
  const id = useId();
  const selectAll = useRef(props.selectAll);
  useEffect(() => {
    input?.focus();
    if (selectAll.current) input?.select();
    else input?.setSelectionRange(input.value.length, input.value.length);
  }, [input]);

  // What was refused is typed over, or mended.
  const isRefused = refusal !== undefined;
  useEffect(() => {
    if (isRefused) input?.select();
  }, [isRefused, input]);

  const suggestions = refusal?.suggestions ?? [];
  /** The keys of the calendar; true when it was one. */
  const dayKey = (event: KeyboardEvent): boolean => {
    const next = event.altKey ? undefined : props.days?.step(text, event.key);
    if (event.altKey && (event.key === 'ArrowDown' || event.key === 'ArrowUp')) setCalendarOpen(event.key === 'ArrowDown');
    else if (next !== undefined) {
      setCalendarOpen(true);
      props.onText(next);
    } else return false;
    event.preventDefault();
    return true;
  };
  /** Beside a refusal the arrows go through the suggestions, and on into the list; true when it was one of them. */
  const refusedKey = (event: KeyboardEvent): boolean => {
    const by = { ArrowDown: 1, ArrowUp: -1, PageDown: 8, PageUp: -8 }[event.key];
    const options = suggestions.length + (list ? picker.total : 0);
    if (by === undefined || event.altKey || options === 0) return false;
    event.preventDefault();
    setSuggested(Math.abs(by) === 1 ? (suggested + by + options) % options : Math.max(0, Math.min(options - 1, suggested + by)));
    return true;
  };
  const typed: Given = { typed: text };
  /** What Enter would take. */
  const chosen = (): Given => {
    if (!refusal) return (picker.open ? picker.choice : undefined) ?? typed;
    const suggestion = suggestions[suggested];
    if (suggestion !== undefined) return { typed: suggestion };
    return (suggested > 0 || suggestions.length > 0 ? picker.chosenAt(suggested - suggestions.length) : undefined) ?? typed;
  };
  const keys = (event: KeyboardEvent<HTMLInputElement>) => {
    if (event.nativeEvent.isComposing) return;
    event.stopPropagation();
    if (refusal ? refusedKey(event) : picker.onKey(event)) return;
    if (props.days && !refusal && dayKey(event)) return;
    const out = props.typedOver && !refusal ? arrowOut(event) : undefined;
    if (out) {
      event.preventDefault();
      return props.onTake(chosen(), out);
    }
    switch (event.key) {
      case 'Enter':
        event.preventDefault();
        if (event.repeat) return;
        if (refusal?.mayConfirm && event.ctrlKey) return props.onTake(typed, 'enter', true);
        return props.onTake(chosen(), event.shiftKey ? 'backEnter' : 'enter', isNewChosen || undefined);
      case 'Tab':
        event.preventDefault();
        return props.onTake(refusal ? typed : chosen(), event.shiftKey ? 'backTab' : 'tab');
      case 'Escape':
        event.preventDefault();
        if (props.days && calendarOpen && !refusal) setCalendarOpen(false);
        else if (picker.open && !refusal) picker.setOpen(false);
        else props.onEscape();
    }
  };
  const isNewChosen = list !== undefined && !refusal && picker.open && picker.offersNew && picker.at === picker.total && picker.total > 0;
  // A list that says no more than the refusal would say it twice.
  const listShown = list !== undefined && picker.open && !refusal?.conflict && refusal?.message !== list.title;
  const at = refusal
    ? suggested >= suggestions.length && (suggested > 0 || suggestions.length > 0)
      ? suggested - suggestions.length
      : undefined
    : picker.at;
  return (
    <>
      <input
        ref={setInput}
        className="dl-input"
        style={props.style}
        {...comboboxParts({ id, label, hasList: list !== undefined, listShown, at, refused: refusal !== undefined })}
        dir="auto"
        value={text}
        onChange={(event) => {
          props.onText(event.target.value);
          picker.retype();
          picker.setOpen(true);
          setSuggested(0);
        }}
        onKeyDown={keys}
        onMouseDown={(event) => event.stopPropagation()}
        onBlur={props.onBlur}
      />
      {listShown && (
        <Floating anchor={input}>
          {refusal && (
            <RefusalNote
              id={`${id}-refusal`}
              refusal={refusal}
              suggested={suggested}
              onPick={(suggestion) => props.onTake({ typed: suggestion }, 'pick')}
              onConfirm={() => props.onTake(typed, 'pick', true)}
            />
          )}
          <PickerList
            id={id}
            list={list}
            picker={picker}
            others={others}
            at={at}
            newValue={newValueOf(picker, others, text)}
            onPick={(given, isNew) => props.onTake(given, 'pick', isNew)}
          />
        </Floating>
      )}
      {props.days && calendarOpen && !refusal && (
        <Floating anchor={input}>{props.days.calendar(text, (day) => props.onTake({ typed: day }, 'pick'))}</Floating>
      )}
      {refusal && !listShown && (
        <Floating anchor={input}>
          <RefusalNote
            id={`${id}-refusal`}
            refusal={refusal}
            suggested={suggested}
            onPick={(suggestion) => props.onTake({ typed: suggestion }, 'pick')}
            onConfirm={() => props.onTake(typed, 'pick', true)}
          />
        </Floating>
      )}
    </>
  );
}

interface RefusalNoteProps {
  readonly id?: string;
  readonly refusal: Refusal;
  readonly suggested?: number;
  onPick(value: string): void;
  onConfirm?(): void;
}

/** What was refused and why, with the suggestions one key away. */
export function RefusalNote({ id, refusal, suggested, onPick, onConfirm }: RefusalNoteProps) {
  return (
    <Stack
      id={id}
      role="alert"
      gap="2"
      px="3"
      py="2.5"
      bg="brick.subtle"
      color="brick.fg"
      borderLeftWidth="4px"
      borderColor="brick.solid"
      maxW="420px"
    >
      <Text whiteSpace="normal">{refusal.message}</Text>
      {refusal.suggestions.length > 0 && (
        <HStack wrap="wrap" gap="1.5">
          {refusal.suggestions.map((value, at) => (
            <Button
              key={value}
              variant={at === suggested ? 'solid' : 'outline'}
              colorPalette="damson"
              tabIndex={suggested === undefined ? 0 : -1}
              onClick={() => onPick(value)}
            >
              {refusal.conflict ? conflictWords(value, at) : value}
              {at === suggested && <CornerDownLeft size={12} aria-hidden />}
            </Button>
          ))}
        </HStack>
      )}
      {refusal.mayLeave && (
        <Text fontSize="xs">
          <Kbd size="sm">Tab</Kbd> once more goes on and keeps it here, refused; <Kbd size="sm">Esc</Kbd> gives back what was.
        </Text>
      )}
      {refusal.mayConfirm && onConfirm && (
        <Button colorPalette="amber" alignSelf="start" tabIndex={suggested === undefined ? 0 : -1} onClick={onConfirm}>
          It is meant: keep it as typed <Kbd size="sm">Ctrl Enter</Kbd>
        </Button>
      )}
    </Stack>
  );
}

const conflictWords = (value: string, at: number): string => `${at === 0 ? 'Keep' : 'Take'} ${value === '' ? 'it blank' : `“${value}”`}`;
