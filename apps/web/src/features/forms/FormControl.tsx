// The control that asks one field. Which one it is follows from the rule; what is taken is judged by the rule alone.
import { Box, Checkbox, Input, NativeSelect, RadioGroup, Stack, Textarea } from '@chakra-ui/react';
import { joinedValues, parentsOf, typedValue, valuesIn, wordsOf, type Control, type Item } from '@dellum/core';
import type { FieldView } from '@dellum/contract';
import { useRef, useState } from 'react';
import type { Move } from '../../grid/index.js';
import { boxStyle } from '../../picker/boxStyle.js';
import type { Refusal } from '../../picker/PickerInput.js';
import { pickList, type PickList } from '../../picker/pickList.js';
import { CellEditor } from '../entries/CellEditor.js';
import { daysOf } from '../entries/daysOf.js';
import { shownValue } from '../entries/shownValue.js';
import type { Filling } from './useFilling.js';

export interface FormControlProps {
  readonly id: string;
  readonly field: FieldView;
  readonly control: Control;
  readonly filling: Filling;
  readonly refusal: Refusal | undefined;
  /** The ids of what describes the field: its help, and what is wrong. */
  readonly describedBy: string | undefined;
  /** Whether this field has the focus among those that are searched while one types. */
  readonly editing: boolean;
  /** Whether its list or calendar is open from the start. */
  readonly opened: boolean;
  begin(opened: boolean): void;
  leave(move: Move): void;
}

/** Whether a field is asked by several buttons or boxes: its heading names them together, and is the label of none. */
export const asksInParts = (control: Control): boolean =>
  control === 'radio buttons' || control === 'yes or no' || control === 'check boxes';

export function FormControl(props: FormControlProps) {
  switch (props.control) {
    case 'radio buttons':
    case 'yes or no':
      return <Radios {...props} />;
    case 'check boxes':
      return <Boxes {...props} />;
    case 'drop-down':
    case 'open list':
      return <Options {...props} />;
    case 'line':
      return <Line {...props} />;
    case 'several lines':
      return <Lines {...props} />;
    case 'picker':
    case 'tokens':
    case 'calendar':
      return <Searched {...props} />;
  }
}

/** The list of a field as it stands beside the other answers; undefined while it is coming. */
function listOf({ field, filling }: FormControlProps): PickList | undefined {
  const { locale, today, catalogs } = filling.context;
  return filling.isReady(field)
    ? pickList(field.rule, field.kind, { locale, catalogs, entry: filling.cells, fields: filling.fields, ...(today && { today }) })
    : undefined;
}

/** The answer as it is stored, or what was given where it is not taken. */
const heldIn = ({ cells, given }: Filling, { key }: FieldView): string => cells[key] ?? given[key]?.chosen ?? given[key]?.typed ?? '';

/** What is offered, and the answer as well where it is not among it any more. */
function offeredIn(props: FormControlProps): readonly Pick<Item, 'value' | 'label'>[] {
  const { field, filling, control } = props;
  const { locale } = filling.context;
  if (control === 'yes or no') return ['yes', 'no'].map((value) => ({ value, label: value }));
  const items = listOf(props)?.search.items ?? [];
  const answers = field.kind === 'several values' ? valuesIn(filling.cells[field.key] ?? '') : [heldIn(filling, field)].filter(Boolean);
  return [
    ...items,
    ...answers
      .filter((value) => !items.some((item) => item.value === value))
      .map((value) => ({ value, label: wordsOf(field.kind, { chosen: value }, locale) })),
  ];
}

/** Why a list is empty. */
function emptyWords({ field, filling }: FormControlProps): string {
  if (!filling.isReady(field)) return 'The list is coming …';
  const blank = parentsOf(field.rule).find((key) => filling.cells[key] === undefined);
  const parent = filling.fields.find(({ key }) => key === blank);
  return parent ? `Choose ${parent.heading} first` : 'Nothing is offered';
}

function Radios(props: FormControlProps) {
  const { id, field, filling, refusal, describedBy } = props;
  const items = offeredIn(props);
  const held = heldIn(filling, field);
  const canEmpty = held !== '' && (field.rule?.mayBeBlank ?? true);
  const empty = () => void filling.commit(field, { chosen: '' });
  if (items.length === 0)
    return (
      <Box id={id} tabIndex={-1} color="inkSoft" py="1">
        {emptyWords(props)}
      </Box>
    );
  return (
    <RadioGroup.Root
      size="sm"
      ids={{ itemHiddenInput: (value) => (value === items[0]?.value ? id : `${id} ${value}`) }}
      value={held}
      onValueChange={({ value }) => filling.commit(field, { chosen: value ?? '' })}
      aria-label={field.heading}
      aria-invalid={refusal !== undefined || undefined}
      aria-describedby={describedBy}
      {...(canEmpty && { 'aria-keyshortcuts': 'Delete' })}
      onKeyDown={(event) => {
        if (!canEmpty || (event.key !== 'Delete' && event.key !== 'Backspace')) return;
        event.preventDefault();
        empty();
      }}
    >
      <Stack direction="row" wrap="wrap" gapX="5" gapY="1.5" py="1">
        {items.map(({ value, label }) => (
          <RadioGroup.Item key={value} value={value}>
            <RadioGroup.ItemHiddenInput />
            <RadioGroup.ItemIndicator borderColor="slate.border" />
            <RadioGroup.ItemText>{label}</RadioGroup.ItemText>
          </RadioGroup.Item>
        ))}
        {/* Whoever goes on by Tab goes on to the next field: keys empty it by Delete. */}
        {canEmpty && (
          <Box asChild color="damson.fg" textDecoration="underline" textUnderlineOffset="3px" fontSize="xs" cursor="pointer">
            <button type="button" tabIndex={-1} title="Delete" onClick={empty}>
              leave {field.heading} blank
            </button>
          </Box>
        )}
      </Stack>
    </RadioGroup.Root>
  );
}

function Boxes(props: FormControlProps) {
  const { id, field, filling, describedBy } = props;
  const items = offeredIn(props);
  const chosen = valuesIn(filling.cells[field.key] ?? '');
  const set = (value: string, on: boolean) =>
    filling.commit(field, { chosen: joinedValues(on ? [...chosen, value] : chosen.filter((known) => known !== value)) });
  if (items.length === 0)
    return (
      <Box id={id} tabIndex={-1} color="inkSoft" py="1">
        {emptyWords(props)}
      </Box>
    );
  return (
    <Stack role="group" aria-label={field.heading} aria-describedby={describedBy} direction="row" wrap="wrap" gapX="5" gapY="1.5" py="1">
      {items.map(({ value, label }, at) => (
        <Checkbox.Root
          key={value}
          size="sm"
          ids={{ hiddenInput: at === 0 ? id : `${id} ${value}` }}
          checked={chosen.includes(value)}
          onCheckedChange={({ checked }) => set(value, checked === true)}
        >
          <Checkbox.HiddenInput />
          <Checkbox.Control borderColor="slate.border" />
          <Checkbox.Label>{label}</Checkbox.Label>
        </Checkbox.Root>
      ))}
    </Stack>
  );
}

function Options(props: FormControlProps) {
  const { id, field, control, filling, refusal, describedBy } = props;
  const items = offeredIn(props);
  const held = heldIn(filling, field);
  const shared = {
    id,
    'aria-label': field.heading,
    'aria-describedby': describedBy,
    'aria-invalid': refusal !== undefined || undefined,
    value: held,
    onChange: (event: { target: { value: string } }) => filling.commit(field, { chosen: event.target.value }),
  };
  const blank = filling.isReady(field)
    ? items.length === 0
      ? emptyWords(props)
      : field.rule?.mayBeBlank === false
        ? 'choose …'
        : 'blank'
    : 'The list is coming …';
  const options = [{ value: '', label: blank }, ...items].map(({ value, label }) => (
    <option key={value} value={value}>
      {label}
    </option>
  ));
  if (control === 'open list') {
    return (
      <select {...shared} size={Math.min(8, items.length + 1)} style={{ ...boxStyle, height: 'auto', padding: '4px' }}>
        {options}
      </select>
    );
  }
  return (
    <NativeSelect.Root size="sm">
      <NativeSelect.Field bg="card" borderColor="slate.border" {...shared}>
        {options}
      </NativeSelect.Field>
      <NativeSelect.Indicator />
    </NativeSelect.Root>
  );
}

/** A text that is judged when one leaves it. */
function useOwnText({ field, filling }: FormControlProps) {
  const shown = textIn(filling, field, shownValue);
  const [typed, setTyped] = useState<string>();
  return {
    value: typed ?? shown,
    type: (text: string) => {
      setTyped(text);
      filling.type(field, text);
    },
    leave: () => {
      if (typed === undefined) return;
      setTyped(undefined);
      if (typed !== shown) filling.commit(field, { typed });
    },
  };
}

function Line(props: FormControlProps) {
  const { id, field, refusal, describedBy, leave } = props;
  const text = useOwnText(props);
  return (
    <Input
      id={id}
      size="sm"
      bg="card"
      borderColor="slate.border"
      aria-label={field.heading}
      aria-describedby={describedBy}
      aria-invalid={refusal !== undefined || undefined}
      autoComplete="off"
      dir="auto"
      value={text.value}
      onChange={(event) => text.type(event.target.value)}
      onBlur={text.leave}
      onKeyDown={(event) => {
        if (event.key !== 'Enter' || event.nativeEvent.isComposing) return;
        event.preventDefault();
        text.leave();
        leave('down');
      }}
    />
  );
}

function Lines(props: FormControlProps) {
  const { id, field, refusal, describedBy } = props;
  const text = useOwnText(props);
  return (
    <Textarea
      id={id}
      size="sm"
      rows={4}
      bg="card"
      borderColor="slate.border"
      aria-label={field.heading}
      aria-describedby={describedBy}
      aria-invalid={refusal !== undefined || undefined}
      dir="auto"
      value={text.value}
      onChange={(event) => text.type(event.target.value)}
      onBlur={text.leave}
    />
  );
}

/** What a field shows: what was typed, or what came along; a value of a list by its label, or to be edited as it is typed. */
function textIn(filling: Filling, field: FieldView, of: typeof typedValue): string {
  const value = filling.cells[field.key];
  const text = filling.textIn(field);
  if (value === undefined) return text;
  if (text !== '' && !filling.isReady(field)) return text;
  return of(field, value, filling.context.catalogs, filling.context.locale, filling.context.today);
}

/** Editors in which typing searches: they are opened where one is, and are a plain input until then. */
function Searched(props: FormControlProps) {
  const { id, field, filling, editing, opened, refusal, describedBy, begin, leave } = props;
  // A pointer opens what keys open by Alt and the arrow.
  const pointed = useRef(false);
  const [shown, held] = [textIn(filling, field, shownValue), textIn(filling, field, typedValue)];
  const { today } = filling.context;
  if (!editing)
    return (
      <input
        id={id}
        aria-label={field.heading}
        aria-describedby={describedBy}
        aria-invalid={refusal !== undefined || undefined}
        readOnly
        style={{ ...boxStyle, height: '36px' }}
        value={shown}
        onPointerDown={() => {
          pointed.current = true;
        }}
        onFocus={() => {
          begin(pointed.current);
          pointed.current = false;
        }}
        placeholder={field.kind === 'date' ? 'a date' : 'type to search'}
      />
    );
  return (
    <Box position="relative" h="36px">
      <CellEditor
        label={field.heading}
        editing={{ place: { row: 0, column: 0 }, columnKey: field.key, text: held, replaces: false, openList: opened, leave }}
        field={field}
        list={listOf(props)}
        days={
          today === undefined
            ? undefined
            : daysOf(field, {
                locale: filling.context.locale,
                catalogs: filling.context.catalogs,
                fields: filling.fields,
                entry: filling.cells,
                today,
              })
        }
        held={held}
        refusal={refusal}
        locale={filling.context.locale}
        typing={(text) => filling.type(field, text)}
        commit={(given, meant) => filling.commit(field, given, meant)}
        abandon={() => undefined}
      />
    </Box>
  );
}
