// What the ledger is narrowed to: who, what sort of act, where, which value, which days.
import { Box, Button, HStack, Input } from '@chakra-ui/react';
import { ledgerKinds, type BuildView, type LedgerKind, type Person } from '@dellum/contract';
import { useState } from 'react';
import { DayField } from '../../picker/DayField.js';
import { Select } from '../../frame/Select.js';
import type { LedgerNarrowed } from '../../data/ledgerApi.js';
import { kindWords } from './ledgerWords.js';

interface LedgerNarrowProps {
  readonly narrowed: LedgerNarrowed;
  readonly build: BuildView;
  readonly people: readonly Person[];
  /** Narrows it further, or less. */
  onNarrow(change: LedgerNarrowed): void;
  onAll(): void;
}

export function LedgerNarrow({ narrowed, build, people, onNarrow: set, onAll }: LedgerNarrowProps) {
  const registers = build.sheets.flatMap((sheet) =>
    sheet.registers.map((register) => ({
      ...register,
      words: sheet.kind === 'entry' ? sheet.title : `${register.title} in ${sheet.title}`,
    })),
  );
  const register = registers.find(({ id }) => id === narrowed.register);
  const chosen = (value: string) => value || undefined;
  return (
    <HStack wrap="wrap" gap="2" align="end">
      <Select
        label="Who"
        width="150px"
        value={narrowed.person ?? ''}
        options={[['', 'everybody'], ...people.map(({ id, name }) => [id, name] as const)]}
        onChoose={(person) => set({ person: chosen(person) })}
      />
      <Select
        label="What"
        width="180px"
        value={narrowed.kind ?? ''}
        options={[['', 'all acts'], ...ledgerKinds.map((kind) => [kind, kindWords[kind]] as const)]}
        onChoose={(kind) => set({ kind: chosen(kind) as LedgerKind | undefined })}
      />
      <Select
        label="Where"
        width="180px"
        value={narrowed.register ?? ''}
        options={[['', 'everywhere'], ...registers.map(({ id, words }) => [id, words] as const)]}
        onChoose={(id) => set({ register: chosen(id), field: undefined })}
      />
      {register && (
        <Select
          label="Field"
          width="140px"
          value={narrowed.field ?? ''}
          options={[['', 'all fields'], ...register.fields.map(({ key, heading }) => [key, heading] as const)]}
          onChoose={(field) => set({ field: chosen(field) })}
        />
      )}
      <ValueBox key={narrowed.value} value={narrowed.value ?? ''} onValue={(value) => set({ value: chosen(value) })} />
      <Box w="150px">
        <DayField
          label="From"
          size="xs"
          until={narrowed.until ?? '9999'}
          day={narrowed.from ?? ''}
          onDay={(day) => set({ from: chosen(day) })}
        />
      </Box>
      <Box w="150px">
        <DayField label="To" size="xs" from={narrowed.from ?? ''} day={narrowed.until ?? ''} onDay={(day) => set({ until: chosen(day) })} />
      </Box>
      {Object.values(narrowed).some((value) => value !== undefined) && <Button onClick={onAll}>Show all</Button>}
    </HStack>
  );
}

/** A value that was written, or written over; looked for when one goes on. */
function ValueBox({ value, onValue }: { value: string; onValue(value: string): void }) {
  const [text, setText] = useState(value);
  const save = () => text.trim() !== value && onValue(text.trim());
  return (
    <Input
      aria-label="A value"
      placeholder="a value"
      size="xs"
      w="130px"
      bg="card"
      borderColor="slate.border"
      value={text}
      onChange={(event) => setText(event.target.value)}
      onBlur={save}
      onKeyDown={(event) => event.key === 'Enter' && save()}
    />
  );
}
