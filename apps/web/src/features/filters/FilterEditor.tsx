// A filter in rows: a field, a comparison, and what it is compared with; all of them, or one of them.
import { Button, HStack, IconButton, Input, NativeSelect, Stack } from '@chakra-ui/react';
import { comparesWith, comparisonsFor, parse, type Comparison, type Condition, type FieldKind, type Filter } from '@dellum/core';
import { X } from 'lucide-react';
import { useState } from 'react';
import { houseWriting, written } from '../../frame/written.js';

interface FilterField {
  readonly key: string;
  readonly heading: string;
  readonly kind: FieldKind;
}

interface FilterEditorProps {
  readonly filter: Filter | null;
  readonly fields: readonly FilterField[];
  readonly label: string;
  onChange(filter: Filter | null): void;
}

export function FilterEditor({ filter, fields, label, onChange }: FilterEditorProps) {
  const { all, conditions } = filter ?? { all: true, conditions: [] };
  /** The condition that was just added: one goes on in it. */
  const [added, setAdded] = useState<number>();
  const set = (next: readonly Condition[]) => onChange(next.length === 0 ? null : { all, conditions: next });
  const change = (at: number, part: Partial<Condition>) =>
    set(conditions.map((condition, place) => (place === at ? { ...condition, ...part } : condition)));
  return (
    <Stack gap="1.5" role="group" aria-label={label}>
      {conditions.map((condition, at) => {
        const kind = fields.find(({ key }) => key === condition.field)?.kind ?? 'text';
        return (
          <Stack key={at} gap="1">
            <HStack gap="1">
              <NativeSelect.Root size="xs" flex="1">
                <NativeSelect.Field
                  aria-label={`Field of condition ${at + 1}`}
                  autoFocus={at === added}
                  value={condition.field}
                  onChange={(event) => change(at, asked(event.target.value, condition.is, fields))}
                >
                  {fields.map(({ key, heading }) => (
                    <option key={key} value={key}>
                      {heading}
                    </option>
                  ))}
                </NativeSelect.Field>
                <NativeSelect.Indicator />
              </NativeSelect.Root>
              <IconButton
                aria-label={`Take out condition ${at + 1}`}
                size="2xs"
                variant="ghost"
                onClick={() => set(conditions.filter((_, place) => place !== at))}
              >
                <X size={12} />
              </IconButton>
            </HStack>
            <HStack gap="1" pr="7">
              <NativeSelect.Root size="xs" flex="1">
                <NativeSelect.Field
                  aria-label={`Comparison of condition ${at + 1}`}
                  value={condition.is}
                  onChange={(event) => change(at, { is: event.target.value as Comparison })}
                >
                  {[...new Set([...comparisonsFor(kind), condition.is])].map((is) => (
                    <option key={is}>{is}</option>
                  ))}
                </NativeSelect.Field>
                <NativeSelect.Indicator />
              </NativeSelect.Root>
              {comparesWith(condition.is) && (
                <ConditionValue
                  key={condition.field}
                  label={`Value of condition ${at + 1}`}
                  kind={kind}
                  value={condition.value}
                  onChange={(value) => change(at, { value })}
                />
              )}
            </HStack>
          </Stack>
        );
      })}
      <HStack>
        <Button
          size="2xs"
          variant="ghost"
          disabled={fields.length === 0}
          onClick={() => {
            setAdded(conditions.length);
            set([...conditions, asked(fields[0]!.key, 'is', fields)]);
          }}
        >
          {conditions.length === 0 ? 'Only those where …' : 'One condition more'}
        </Button>
        {conditions.length > 1 && (
          <NativeSelect.Root size="xs" w="130px">
            <NativeSelect.Field
              aria-label="How many must hold"
              value={all ? 'all' : 'one'}
              onChange={(event) => onChange({ all: event.target.value === 'all', conditions })}
            >
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

/** What a condition becomes when it asks for another field: the comparison stays where the kind has it. */
function asked(key: string, is: Comparison, fields: readonly FilterField[]): Pick<Condition, 'field' | 'is' | 'value'> {
  const kind = fields.find((field) => field.key === key)?.kind ?? 'text';
  return { field: key, is: comparisonsFor(kind).includes(is) ? is : 'is', value: kind === 'yes/no' ? 'yes' : '' };
}

interface ConditionValueProps {
  readonly label: string;
  readonly kind: FieldKind;
  /** As it is stored. */
  readonly value: string;
  onChange(value: string): void;
}

/** What is compared with, written as the house writes the kind. */
function ConditionValue({ label, kind, value, onChange }: ConditionValueProps) {
  const [typed, setTyped] = useState(() => written(kind, value));
  const read = (text: string): string => {
    const parsed = text.trim() === '' ? undefined : parse(kind, text, houseWriting());
    return parsed?.ok ? parsed.value : text;
  };
  if (kind === 'yes/no') {
    return (
      <NativeSelect.Root size="xs" flex="1">
        <NativeSelect.Field aria-label={label} value={value} onChange={(event) => onChange(event.target.value)}>
          <option>yes</option>
          <option>no</option>
        </NativeSelect.Field>
        <NativeSelect.Indicator />
      </NativeSelect.Root>
    );
  }
  return (
    <Input
      size="xs"
      flex="1"
      borderColor="slate.border"
      aria-label={label}
      value={typed}
      onChange={(event) => {
        setTyped(event.target.value);
        onChange(read(event.target.value));
      }}
    />
  );
}
