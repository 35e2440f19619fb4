// The slip of my arrangement: which entries I see, in which order, and how the fields stand. Nobody else's sheet changes.
import { Button, HStack, IconButton, Stack, Text } from '@chakra-ui/react';
import {
  catalogIdOf,
  directions,
  fieldsInOrder,
  type FieldSort,
  isNumeric,
  movedField,
  showing,
  showingOnly,
  sortedBy,
} from '@dellum/core';
import type { FieldCount, FieldView, Me, RegisterView } from '@dellum/contract';
import { ArrowDown, ArrowUp, X } from 'lucide-react';
import { useState } from 'react';
import { Check } from '../../frame/Check.js';
import { Select } from '../../frame/Select.js';
import { SlipHead } from '../../frame/SlipHead.js';
import { OnlyEditor } from './OnlyEditor.js';
import type { Arranging } from './useArrangement.js';

interface ArrangeSlipProps {
  readonly register: RegisterView;
  readonly arranging: Arranging;
  readonly counts: readonly FieldCount[];
  readonly me: Me;
  /** The field whose values are chosen from at first. */
  readonly fieldKey: string | undefined;
  value(field: FieldView, value: string): string;
  close(): void;
}

export function ArrangeSlip(props: ArrangeSlipProps) {
  return (
    <Stack gap="5">
      <SlipHead title="My arrangement" about="How you see this sheet. It moves and changes nothing for anybody else." close={props.close} />
      <ShowOnly {...props} />
      <Order {...props} />
      <Fields {...props} />
    </Stack>
  );
}

const options = (fields: readonly FieldView[]) => fields.map(({ key, heading }) => [key, heading] as const);

/** Which entries are shown, field by field. */
export function ShowOnly({
  register,
  arranging,
  counts,
  me,
  fieldKey,
  value,
}: Omit<ArrangeSlipProps, 'arranging' | 'close'> & { readonly arranging: Pick<Arranging, 'arrangement' | 'set'> }) {
  const { arrangement, set } = arranging;
  const [chosen, setChosen] = useState(fieldKey ?? arrangement.only[0]?.field ?? register.fields[0]?.key);
  const field = register.fields.find(({ key }) => key === chosen);
  const others = arrangement.only.filter((only) => only.field !== chosen);
  return (
    <Stack gap="2" as="section" aria-label="Show only">
      <Text fontWeight="bold">Show only entries by</Text>
      <Select label="Field to show by" value={chosen ?? ''} options={options(register.fields)} onChoose={setChosen} />
      {field && (
        <OnlyEditor
          key={field.key}
          registerId={register.id}
          field={field}
          only={arrangement.only.find((only) => only.field === field.key)}
          me={me}
          outside={counts.find(({ fieldId }) => fieldId === field.id)?.outside ?? 0}
          value={(held) => value(field, held)}
          set={(only) => set(showingOnly(arrangement, field.key, only))}
        />
      )}
      {others.length > 0 && (
        <Text color="inkSoft">
          Also by{' '}
          {others.map(({ field: key }) => (
            <Button key={key} size="2xs" mr="1" onClick={() => setChosen(key)}>
              {register.fields.find((known) => known.key === key)?.heading ?? key}
            </Button>
          ))}
        </Text>
      )}
    </Stack>
  );
}

const directionWords = (field: FieldView | undefined): { readonly [D in (typeof directions)[number]]: string } =>
  field?.kind === 'date'
    ? { up: 'earliest first', down: 'latest first' }
    : field && isNumeric(field.kind)
      ? { up: 'least first', down: 'most first' }
      : { up: 'first to last', down: 'last to first' };

function Order({ register, arranging }: ArrangeSlipProps) {
  const { arrangement, set } = arranging;
  const { sort } = arrangement;
  const change = (at: number, next: FieldSort | undefined) =>
    set({ ...arrangement, sort: sort.flatMap((known, place) => (place === at ? (next ?? []) : known)) });
  const free = register.fields.filter(({ key }) => !sort.some(({ field }) => field === key));
  return (
    <Stack gap="2" as="section" aria-label="Order">
      <Text fontWeight="bold">In the order of</Text>
      {sort.map((one, at) => (
        <HStack key={one.field} gap="1">
          <Select
            label={`Order ${at + 1}`}
            value={one.field}
            options={options(register.fields.filter(({ key }) => key === one.field || free.some((known) => known.key === key)))}
            onChoose={(field) => change(at, { ...one, field })}
          />
          <Select
            label={`Direction ${at + 1}`}
            width="130px"
            value={one.direction}
            options={directions.map(
              (direction) => [direction, directionWords(register.fields.find(({ key }) => key === one.field))[direction]] as const,
            )}
            onChoose={(direction) => change(at, { ...one, direction: direction === 'down' ? 'down' : 'up' })}
          />
          <IconButton aria-label={`Take out order ${at + 1}`} size="2xs" variant="ghost" onClick={() => change(at, undefined)}>
            <X size={12} />
          </IconButton>
        </HStack>
      ))}
      {sort.length < 3 && free.length > 0 && (
        <Select
          label="Order by one more field"
          value=""
          options={[['', sort.length === 0 ? 'as it is kept' : 'then as it is kept'], ...options(free)]}
          onChoose={(field) =>
            field !== '' &&
            set(
              sort.length === 0
                ? sortedBy(arrangement, { field, direction: 'up' })
                : { ...arrangement, sort: [...sort, { field, direction: 'up' }] },
            )
          }
        />
      )}
    </Stack>
  );
}

function Fields({ register, arranging }: ArrangeSlipProps) {
  const { arrangement, set } = arranging;
  const all = fieldsInOrder(register.fields, arrangement);
  const shown = all.filter(({ hidden }) => !hidden).length;
  const coloured = register.fields.filter(({ rule }) => catalogIdOf(rule) !== undefined);
  return (
    <Stack gap="2" as="section" aria-label="Fields">
      <Text fontWeight="bold">Fields</Text>
      <Stack gap="0.5">
        {all.map(({ field, hidden }, at) => (
          <HStack key={field.key} justify="space-between" gap="1">
            <Check
              label={field.heading}
              checked={!hidden}
              set={(on) => (on || shown > 1) && set(showing(arrangement, register.fields, field.key, { hidden: !on }))}
            />
            <HStack gap="0">
              <IconButton
                aria-label={`Move ${field.heading} earlier`}
                size="2xs"
                variant="ghost"
                disabled={at === 0}
                onClick={() => set(movedField(arrangement, register.fields, field.key, all[at - 1]!.field.key))}
              >
                <ArrowUp size={12} />
              </IconButton>
              <IconButton
                aria-label={`Move ${field.heading} later`}
                size="2xs"
                variant="ghost"
                disabled={at === all.length - 1}
                onClick={() => set(movedField(arrangement, register.fields, field.key, all[at + 2]?.field.key ?? null))}
              >
                <ArrowDown size={12} />
              </IconButton>
            </HStack>
          </HStack>
        ))}
      </Stack>
      <Select
        label="Fields kept in view"
        value={String(arrangement.inView)}
        options={[0, 1, 2, 3, 4].map(
          (count) =>
            [
              String(count),
              count === 0 ? 'all fields scroll sideways' : `the first ${count === 1 ? 'field stays' : `${count} fields stay`} in view`,
            ] as const,
        )}
        onChoose={(count) => set({ ...arrangement, inView: Number(count) })}
      />
      {coloured.length > 0 && (
        <Select
          label="Colour of whole entries"
          value={arrangement.colouredBy ?? ''}
          options={[
            ['', 'colours only beside their values'],
            ...coloured.map(({ key, heading }) => [key, `whole entries coloured by ${heading}`] as const),
          ]}
          onChoose={(key) => set({ ...arrangement, colouredBy: key === '' ? null : key })}
        />
      )}
    </Stack>
  );
}
