// The bounds of a date, a number or a length.
import { Button, HStack, Input, Stack, Text } from '@chakra-ui/react';
import {
  format,
  parse,
  ruleAs,
  type DateRule,
  type DayBound,
  type LengthRule,
  type NumberBound,
  type NumberRule,
  type Rule,
} from '@dellum/core';
import { useState, type ReactNode } from 'react';
import { Select } from '../../frame/Select.js';
import type { RulePartProps, RulePlace } from './rulePlace.js';

export function BoundsEditor({ rule, ...props }: RulePartProps): ReactNode {
  const [day, number, length] = [ruleAs('date', rule), ruleAs('number', rule), ruleAs('length', rule)];
  if (day) return <DateBounds rule={day} {...props} />;
  if (number) return <NumberBounds rule={number} {...props} />;
  return length ? <LengthBounds rule={length} {...props} /> : null;
}

/** A form that says what is wrong instead of closing. */
function BoundsForm({ children, save }: { children: ReactNode; save: () => string | undefined }) {
  const [fault, setFault] = useState<string>();
  return (
    <form
      noValidate
      onSubmit={(event) => {
        event.preventDefault();
        setFault(save());
      }}
    >
      <Stack gap="2">
        {children}
        {fault && (
          <Text role="alert" color="brick.fg">
            {fault}
          </Text>
        )}
        <Button variant="solid" type="submit" alignSelf="start">
          Set the bounds
        </Button>
      </Stack>
    </form>
  );
}

const otherFields = ({ register, field }: RulePlace, kinds: readonly string[]): (readonly [string, string])[] =>
  register.fields
    .filter(({ key, kind }) => key !== field.key && kinds.includes(kind))
    .map(({ key, heading }) => [`field ${key}`, heading] as const);

interface DayDraft {
  readonly of: string;
  readonly day: string;
  readonly plus: string;
}

const dayDraft = (bound: DayBound | null, { me }: RulePlace): DayDraft => ({
  of: !bound ? 'open' : bound.of === 'field' ? `field ${bound.field}` : bound.of,
  day: bound?.of === 'day' ? format('date', bound.day, me.house.locale) : '',
  plus: bound && bound.of !== 'day' ? String(bound.plus) : '0',
});

/** The bound that a draft means, or in words what is wrong with it. */
function dayBound({ of, day, plus }: DayDraft, { me }: RulePlace): DayBound | null | string {
  if (of === 'open') return null;
  if (of === 'day') {
    const parsed = parse('date', day, me.house.locale, me.house.today);
    return parsed.ok ? { of, day: parsed.value } : parsed.reason;
  }
  const days = Number(plus.replace('−', '-') || '0');
  if (!Number.isInteger(days)) return `“${plus}” is not a number of days.`;
  return of === 'today' ? { of, plus: days } : { of: 'field', field: of.slice('field '.length), plus: days };
}

/** The bound beside a day itself: `After` for a first day, `Before` for a last one. */
const besides = { From: { words: 'After', plus: '1' }, Until: { words: 'Before', plus: '-1' } } as const;

function DayInput({
  label,
  draft,
  place,
  set,
}: {
  label: 'From' | 'Until';
  draft: DayDraft;
  place: RulePlace;
  set: (draft: DayDraft) => void;
}) {
  const beside = besides[label];
  const days = [['today', 'today'] as const, ...otherFields(place, ['date'])];
  const isBeside = draft.of !== 'open' && draft.of !== 'day' && draft.plus === beside.plus;
  return (
    <Stack gap="1">
      <Select
        label={label}
        value={isBeside ? `beside ${draft.of}` : draft.of}
        options={[
          ['open', `${label}: open`],
          ['day', `${label} a day`],
          ...days.map(([key, heading]) => [key, `${label} ${heading}`] as const),
          ...days.map(([key, heading]) => [`beside ${key}`, `${beside.words} ${heading}`] as const),
        ]}
        onChoose={(of) =>
          set(
            of.startsWith('beside ')
              ? { ...draft, of: of.slice('beside '.length), plus: beside.plus }
              : { ...draft, of, plus: isBeside ? '0' : draft.plus },
          )
        }
      />
      {draft.of === 'day' && (
        <Input
          size="xs"
          aria-label={`${label} which day`}
          placeholder={format('date', place.me.house.today, place.me.house.locale)}
          value={draft.day}
          onChange={(event) => set({ ...draft, day: event.target.value })}
        />
      )}
      {draft.of !== 'day' && draft.of !== 'open' && !isBeside && (
        <HStack gap="1.5">
          <Input
            size="xs"
            w="64px"
            inputMode="numeric"
            aria-label={`${label}: days after it`}
            value={draft.plus}
            onChange={(event) => set({ ...draft, plus: event.target.value })}
          />
          <Text fontSize="xs" color="inkSoft">
            days after it (before: −1)
          </Text>
        </HStack>
      )}
    </Stack>
  );
}

function DateBounds({ rule, place, choose }: RulePartProps<DateRule>) {
  const [from, setFrom] = useState(() => dayDraft(rule.from, place));
  const [until, setUntil] = useState(() => dayDraft(rule.until, place));
  const save = () => {
    const [first, last] = [dayBound(from, place), dayBound(until, place)];
    if (typeof first === 'string') return first;
    if (typeof last === 'string') return last;
    choose({ ...rule, from: first, until: last });
    return undefined;
  };
  return (
    <BoundsForm save={save}>
      <DayInput label="From" draft={from} place={place} set={setFrom} />
      <DayInput label="Until" draft={until} place={place} set={setUntil} />
    </BoundsForm>
  );
}

interface NumberDraft {
  readonly of: string;
  readonly number: string;
}

const numberDraft = (bound: NumberBound | null, { field, me }: RulePlace): NumberDraft => ({
  of: bound?.of === 'field' ? `field ${bound.field}` : 'number',
  number: bound?.of === 'number' ? format(field.kind, bound.number, me.house.locale) : '',
});

function numberBound({ of, number }: NumberDraft, { field, me }: RulePlace): NumberBound | null | string {
  if (of !== 'number') return { of: 'field', field: of.slice('field '.length) };
  if (number.trim() === '') return null;
  const parsed = parse(field.kind, number, me.house.locale);
  return parsed.ok ? { of: 'number', number: parsed.value } : parsed.reason;
}

function NumberInput({
  label,
  draft,
  place,
  set,
}: {
  label: string;
  draft: NumberDraft;
  place: RulePlace;
  set: (draft: NumberDraft) => void;
}) {
  const others = otherFields(place, ['number', 'amount', 'percent']);
  return (
    <HStack gap="1.5">
      {others.length > 0 && (
        <Select
          label={`${label}: what`}
          width="130px"
          value={draft.of}
          options={[['number', `${label}`], ...others.map(([key, heading]) => [key, `${label} ${heading}`] as const)]}
          onChoose={(of) => set({ ...draft, of })}
        />
      )}
      {draft.of === 'number' && (
        <Input
          size="xs"
          flex="1"
          inputMode="decimal"
          aria-label={label}
          placeholder={`${label} (open)`}
          value={draft.number}
          onChange={(event) => set({ ...draft, number: event.target.value })}
        />
      )}
    </HStack>
  );
}

function NumberBounds({ rule, place, choose }: RulePartProps<NumberRule>) {
  const [least, setLeast] = useState(() => numberDraft(rule.least, place));
  const [most, setMost] = useState(() => numberDraft(rule.most, place));
  const [decimals, setDecimals] = useState(rule.decimals === null ? 'any' : String(rule.decimals));
  const save = () => {
    const [low, high] = [numberBound(least, place), numberBound(most, place)];
    if (typeof low === 'string') return low;
    if (typeof high === 'string') return high;
    choose({ ...rule, least: low, most: high, decimals: decimals === 'any' ? null : Number(decimals) });
    return undefined;
  };
  return (
    <BoundsForm save={save}>
      <NumberInput label="At least" draft={least} place={place} set={setLeast} />
      <NumberInput label="At most" draft={most} place={place} set={setMost} />
      <Select
        label="Decimals"
        value={decimals}
        options={[
          ['any', 'any number of decimals'],
          ['0', 'whole numbers only'],
          ...[1, 2, 3, 4].map((count) => [String(count), `at most ${count} ${count === 1 ? 'decimal' : 'decimals'}`] as const),
        ]}
        onChoose={setDecimals}
      />
    </BoundsForm>
  );
}

function LengthBounds({ rule, choose }: RulePartProps<LengthRule>) {
  const [least, setLeast] = useState(rule.least === null ? '' : String(rule.least));
  const [most, setMost] = useState(rule.most === null ? '' : String(rule.most));
  const read = (text: string): number | null | undefined =>
    text.trim() === '' ? null : /^\d{1,5}$/u.test(text.trim()) ? Number(text) : undefined;
  const save = () => {
    const [low, high] = [read(least), read(most)];
    if (low === undefined || high === undefined) return 'Type whole numbers of characters, or leave an end open.';
    choose({ ...rule, least: low, most: high } satisfies Rule);
    return undefined;
  };
  return (
    <BoundsForm save={save}>
      <HStack gap="1.5">
        <Input
          size="xs"
          inputMode="numeric"
          aria-label="Characters at least"
          placeholder="at least"
          value={least}
          onChange={(event) => setLeast(event.target.value)}
        />
        <Input
          size="xs"
          inputMode="numeric"
          aria-label="Characters at most"
          placeholder="at most"
          value={most}
          onChange={(event) => setMost(event.target.value)}
        />
      </HStack>
      <Text fontSize="xs" color="inkSoft">
        The same number twice means exactly so many.
      </Text>
    </BoundsForm>
  );
}
