// A filter in rows: a field, a comparison, and what it is compared with; all of them, or one of them.
import { Button, HStack, IconButton, Input, NativeSelect, Stack } from '@chakra-ui/react';
import { comparesWith, comparisons, type Comparison, type Condition, type Filter } from '@dellum/core';
import { X } from 'lucide-react';

interface FilterEditorProps {
  readonly filter: Filter | null;
  readonly fields: readonly { readonly key: string; readonly heading: string }[];
  readonly label: string;
  onChange(filter: Filter | null): void;
}

export function FilterEditor({ filter, fields, label, onChange }: FilterEditorProps) {
  const { all, conditions } = filter ?? { all: true, conditions: [] };
  const set = (next: readonly Condition[]) => onChange(next.length === 0 ? null : { all, conditions: next });
  const change = (at: number, part: Partial<Condition>) => set(conditions.map((condition, place) => (place === at ? { ...condition, ...part } : condition)));
  return (
    <Stack gap="1.5" role="group" aria-label={label}>
      {conditions.map((condition, at) => (
        <HStack key={at} gap="1">
          <NativeSelect.Root size="xs" flex="1">
            <NativeSelect.Field aria-label={`Field of condition ${at + 1}`} value={condition.field} onChange={(event) => change(at, { field: event.target.value })}>
              {fields.map(({ key, heading }) => (
                <option key={key} value={key}>
                  {heading}
                </option>
              ))}
            </NativeSelect.Field>
            <NativeSelect.Indicator />
          </NativeSelect.Root>
          <NativeSelect.Root size="xs" w="92px">
            <NativeSelect.Field aria-label={`Comparison of condition ${at + 1}`} value={condition.is} onChange={(event) => change(at, { is: event.target.value as Comparison })}>
              {comparisons.map((is) => (
                <option key={is}>{is}</option>
              ))}
            </NativeSelect.Field>
            <NativeSelect.Indicator />
          </NativeSelect.Root>
          {comparesWith(condition.is) && <Input size="xs" flex="1" borderColor="slate.border" aria-label={`Value of condition ${at + 1}`} value={condition.value} onChange={(event) => change(at, { value: event.target.value })} />}
          <IconButton aria-label={`Take out condition ${at + 1}`} size="2xs" variant="ghost" onClick={() => set(conditions.filter((_, place) => place !== at))}>
            <X size={12} />
          </IconButton>
        </HStack>
      ))}
      <HStack>
        <Button size="2xs" variant="ghost" disabled={fields.length === 0} onClick={() => set([...conditions, { field: fields[0]!.key, is: 'is', value: '' }])}>
          {conditions.length === 0 ? 'Only those where …' : 'One condition more'}
        </Button>
        {conditions.length > 1 && (
          <NativeSelect.Root size="xs" w="130px">
            <NativeSelect.Field aria-label="How many must hold" value={all ? 'all' : 'one'} onChange={(event) => onChange({ all: event.target.value === 'all', conditions })}>
              <option value="all">all must hold</option>
              <option value="one">one is enough</option>
            </NativeSelect.Field>
            <NativeSelect.Indicator />
          </NativeSelect.Root>
        )}
      </HStack>
    </Stack>
  );
}
