// The editor of several values: what is chosen stands as tokens, and typing is the search for the next one.
import { Box, HStack, IconButton } from '@chakra-ui/react';
import { joinedValues, readTypedList, writeTypedList, type Given, type Locale, type OtherValues } from '@dellum/core';
import { X } from 'lucide-react';
import { useEffect, useId, useState, type KeyboardEvent } from 'react';
import type { PickList } from './pickList.js';
import { Floating } from './Floating.js';
import { RefusalNote, type Refusal } from './PickerInput.js';
import { newValueOf, PickerList } from './PickerList.js';
import { comboboxParts } from './comboboxParts.js';
import { usePicker } from './usePicker.js';

interface SeveralInputProps {
  readonly label: string;
  readonly list: PickList | undefined;
  readonly others: OtherValues;
  /** The values at first, as one types them, and what is typed already. */
  readonly text: string;
  readonly typed: string;
  readonly refusal: Refusal | undefined;
  readonly locale: Locale;
  /** All values as one text, whenever they change. */
  onText(text: string): void;
  /** `given`: the values that were chosen, or as typed where one of them stands in no list. */
  onTake(given: Given, by: 'enter' | 'backEnter' | 'tab' | 'backTab', confirmed?: boolean): void;
  onEscape(): void;
  onBlur(): void;
}

export function SeveralInput(props: SeveralInputProps) {
  const { label, list, refusal, locale } = props;
  const [box, setBox] = useState<HTMLElement | null>(null);
  const [input, setInput] = useState<HTMLInputElement | null>(null);
  const [chosen, setChosen] = useState<readonly string[]>(() => readTypedList(props.text, locale).values);
  const [part, setPart] = useState(props.typed);
  const picker = usePicker(list, props.others, part, { held: '', open: true });
  const id = useId();
  useEffect(() => input?.focus(), [input]);

  const textOf = (values: readonly string[], more = '') => writeTypedList([...values, ...(more.trim() === '' ? [] : [more.trim()])]);
  const change = (values: readonly string[], next: string) => {
    setChosen(values);
    setPart(next);
    picker.retype();
    props.onText(textOf(values, next));
  };
  const toggle = (picked: Given) => {
    const text = picked.typed?.trim() ?? list!.textOf({ value: picked.chosen! });
    change(chosen.includes(text) ? chosen.filter((known) => known !== text) : [...chosen, text], '');
    input?.focus();
  };
  /** Of two values with one label each shows itself beside it. */
  const shownOf = (text: string): string => {
    const means = list?.means(text);
    return means?.found === 'item' && means.item.label !== text ? `${means.item.label} (${text})` : text;
  };
  /** The first value that the list does not have is replaced by a suggestion. */
  const mend = (value: string) => {
    const wrong = chosen.find((known) => list && list.means(known).found === 'nothing');
    if (wrong === undefined) change([...chosen, value], '');
    else
      change(
        chosen.map((known) => (known === wrong ? value : known)),
        part,
      );
  };
  /** Adds what is typed, in the spelling of the list; what it already has stays. */
  const add = (typed: string) => {
    const means = list?.means(typed);
    const value = means?.found === 'item' ? list!.textOf(means.item) : typed.trim();
    change(chosen.includes(value) ? chosen : [...chosen, value], '');
  };
  const givenBy = (texts: readonly string[]): Given => {
    const values = texts.flatMap((text) => {
      const means = list?.means(text);
      return means?.found === 'item' ? [means.item.value] : [];
    });
    return values.length === texts.length ? { chosen: joinedValues(values) } : { typed: textOf(texts) };
  };
  const take = (by: 'enter' | 'backEnter' | 'tab' | 'backTab', confirmed?: boolean) => {
    const values = readTypedList(textOf(chosen, part), locale).values;
    setChosen(values);
    setPart('');
    props.onTake(givenBy(values), by, confirmed);
  };
  const keys = (event: KeyboardEvent) => {
    if (event.nativeEvent.isComposing) return;
    event.stopPropagation();
    if (!refusal && picker.onKey(event)) return;
    switch (event.key) {
      case 'Enter':
        event.preventDefault();
        if (refusal?.mayConfirm && event.ctrlKey) return take('enter', true);
        if (picker.open && picker.choice !== undefined && !refusal) return toggle(picker.choice);
        // Enter always adds; with nothing typed it goes on.
        if (part.trim() !== '') return add(part);
        return take(event.shiftKey ? 'backEnter' : 'enter');
      case 'Tab':
        event.preventDefault();
        return take(event.shiftKey ? 'backTab' : 'tab');
      case 'Backspace':
        if (part === '' && chosen.length > 0) change(chosen.slice(0, -1), '');
        return;
      case ',':
      case ';':
        if (part.trim() === '' || list === undefined) return;
        event.preventDefault();
        return add(part);
      case 'Escape':
        event.preventDefault();
        if (picker.open && !refusal) picker.setOpen(false);
        else props.onEscape();
    }
  };
  const listShown = picker.open && !refusal && list !== undefined;
  return (
    <>
      <Box
        ref={setBox}
        position="absolute"
        top="0"
        left="0"
        minW="100%"
        minH="100%"
        maxW="360px"
        display="flex"
        flexWrap="wrap"
        gap="1"
        p="1"
        bg="card"
        outline="2px solid"
        outlineColor="damson.solid"
        outlineOffset="-2px"
        whiteSpace="normal"
        lineHeight="1.4"
        onMouseDown={(event) => event.stopPropagation()}
      >
        {chosen.map((value) => (
          <HStack key={value} gap="0.5" px="1.5" bg="damson.subtle" color="damson.fg" rounded="l1">
            {shownOf(value)}
            <IconButton
              aria-label={`Take out ${shownOf(value)}`}
              size="2xs"
              h="4"
              minW="4"
              variant="ghost"
              tabIndex={-1}
              onMouseDown={(event) => event.preventDefault()}
              onClick={() =>
                change(
                  chosen.filter((known) => known !== value),
                  part,
                )
              }
            >
              <X size={11} />
            </IconButton>
          </HStack>
        ))}
        <input
          ref={setInput}
          style={{ flex: 1, minWidth: '70px', font: 'inherit', color: 'inherit', background: 'transparent', outline: 'none' }}
          {...comboboxParts({ id, label, hasList: list !== undefined, listShown, at: picker.at, refused: refusal !== undefined })}
          value={part}
          onChange={(event) => {
            change(chosen, event.target.value);
            picker.setOpen(true);
          }}
          onKeyDown={keys}
          onBlur={props.onBlur}
        />
      </Box>
      {listShown && (
        <Floating anchor={box}>
          <PickerList
            id={id}
            list={list}
            picker={picker}
            others={props.others}
            at={picker.at}
            newValue={newValueOf(picker, props.others, part)}
            picked={new Set(chosen)}
            onPick={(given) => toggle(given)}
          />
        </Floating>
      )}
      {refusal && (
        <Floating anchor={box}>
          <RefusalNote id={`${id}-refusal`} refusal={refusal} onPick={mend} onConfirm={() => take('enter', true)} />
        </Floating>
      )}
    </>
  );
}
