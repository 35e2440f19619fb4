// A small select with a label that is heard rather than seen.
import { NativeSelect } from '@chakra-ui/react';

interface SelectProps {
  readonly label: string;
  readonly value: string;
  readonly options: readonly (readonly [value: string, words: string])[];
  readonly width?: string;
  onChoose(value: string): void;
}

export function Select({ label, value, options, width = '100%', onChoose }: SelectProps) {
  return (
    <NativeSelect.Root size="xs" w={width} flexShrink={width === '100%' ? 1 : 0}>
      <NativeSelect.Field aria-label={label} value={value} onChange={(event) => onChoose(event.target.value)}>
        {!options.some(([known]) => known === value) && <option value={value}>choose …</option>}
        {options.map(([key, words]) => (
          <option key={key} value={key}>
            {words}
          </option>
        ))}
      </NativeSelect.Field>
      <NativeSelect.Indicator />
    </NativeSelect.Root>
  );
}
