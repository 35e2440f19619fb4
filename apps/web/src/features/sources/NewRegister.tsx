// A new list or table beside the others of a source sheet.
import { Box, Button, Heading, Input, NativeSelect, Stack, Text } from '@chakra-ui/react';
import { fieldKinds, kindLabel, type FieldKind } from '@dellum/core';
import type { SheetView } from '@dellum/contract';
import { useEffect, useState } from 'react';
import { fromBoth } from '../../grid/index.js';
import { useTry } from '../../frame/useNotice.js';
import { nextLine, type TypedAhead } from './typedAhead.js';
import { PastedTable } from './PastedTable.js';
import { useMakeListMutation, useMakeTableMutation } from '../../data/buildApi.js';

interface Column {
  readonly heading: string;
  readonly kind: FieldKind;
}
const firstColumns: readonly Column[] = [
  { heading: '', kind: 'text' },
  { heading: '', kind: 'text' },
];

interface NewRegisterProps {
  readonly sheet: SheetView;
  readonly ahead: TypedAhead;
  onAhead(change: (before: TypedAhead) => TypedAhead): void;
  made(id: string): void;
}

export function NewRegister({ sheet, ahead, onAhead, made: went }: NewRegisterProps) {
  const [heading, setHeading] = useState('');
  const [kind, setKind] = useState<FieldKind>('text');
  const [pasted, setPasted] = useState<readonly (readonly string[])[]>();
  const [columns, setColumns] = useState<readonly Column[]>();
  const [makeList] = useMakeListMutation();
  const [makeTable] = useMakeTableMutation();
  const attempt = useTry();
  const save = async () => {
    // A list of this heading is on its way: what is typed now is meant for it.
    if (ahead.making) return onAhead(nextLine);
    if (!columns) onAhead((before) => ({ ...before, making: true }));
    const fields = columns?.filter((column) => column.heading.trim() !== '').map((column) => ({ ...column }));
    const made = await attempt(
      fields ? makeTable({ sheetId: sheet.id, heading, fields }).unwrap() : makeList({ sheetId: sheet.id, heading, kind }).unwrap(),
    );
    if (!made) return onAhead((before) => ({ ...before, making: false }));
    setHeading('');
    setKind('text');
    setColumns(undefined);
    went(made.id);
  };
  const change = (at: number, column: Partial<Column>) =>
    setColumns(columns?.map((known, place) => (place === at ? { ...known, ...column } : known)));
  const recognised = (data: DataTransfer): boolean => {
    const block = fromBoth(data.getData('text/plain'), data.getData('text/html'));
    const isTable = block.length > 1 || (block[0]?.length ?? 0) > 1;
    if (isTable) setPasted(block);
    return isTable;
  };
  // A table pasted anywhere on the sheet that is no text and no cell is meant to stand on it.
  useEffect(() => {
    const hear = (event: ClipboardEvent) => {
      const at = event.target as HTMLElement;
      if (event.defaultPrevented || !event.clipboardData || at.closest('input, textarea, [role=grid]')) return;
      if (recognised(event.clipboardData)) event.preventDefault();
    };
    window.addEventListener('paste', hear);
    return () => window.removeEventListener('paste', hear);
  }, []);
  if (pasted) {
    return (
      <PastedTable
        sheet={sheet}
        block={pasted}
        heading={heading}
        done={(id) => {
          setPasted(undefined);
          if (id === undefined) return;
          setHeading('');
          went(id);
        }}
      />
    );
  }
  const blank =
    (!ahead.making && heading.trim() === '') || (columns !== undefined && columns.every((column) => column.heading.trim() === ''));
  return (
    <Box
      as="section"
      aria-label={columns ? 'New table' : 'New list'}
      w={columns ? '230px' : '180px'}
      borderWidth="1px"
      borderStyle="dashed"
      borderColor="line"
      rounded="l3"
      p="3"
    >
      <form
        onSubmit={(event) => {
          event.preventDefault();
          void save();
        }}
      >
        <Stack gap="2">
          <Heading as="h2" fontSize="sm">
            {columns ? 'New table' : 'New list'}
          </Heading>
          {sheet.registers.length === 0 && !columns && (
            <Text color="inkSoft">Begin with a heading, then type or paste the values under it.</Text>
          )}
          <Input
            size="xs"
            borderColor="slate.border"
            placeholder="Heading"
            aria-label={columns ? 'Heading of the new table' : 'Heading of the new list'}
            value={ahead.making ? ahead.text : heading}
            onChange={({ target: { value } }) => (ahead.making ? onAhead((before) => ({ ...before, text: value })) : setHeading(value))}
            onPaste={(event) => recognised(event.clipboardData) && event.preventDefault()}
          />
          {!columns && (
            <NativeSelect.Root size="xs">
              <NativeSelect.Field
                aria-label="What the list holds"
                value={kind}
                onChange={(event) => setKind(event.target.value as FieldKind)}
              >
                {fieldKinds
                  .filter((one) => one !== 'several values')
                  .map((one) => (
                    <option key={one} value={one}>
                      {kindLabel(one)}
                    </option>
                  ))}
              </NativeSelect.Field>
              <NativeSelect.Indicator />
            </NativeSelect.Root>
          )}
          {columns?.map((column, at) => (
            <Stack key={at} direction="row" gap="1">
              <Input
                size="xs"
                borderColor="slate.border"
                placeholder={`Field ${at + 1}`}
                aria-label={`Heading of field ${at + 1}`}
                value={column.heading}
                onChange={(event) => change(at, { heading: event.target.value })}
              />
              <NativeSelect.Root size="xs" w="92px">
                <NativeSelect.Field
                  aria-label={`Kind of field ${at + 1}`}
                  value={column.kind}
                  onChange={(event) => change(at, { kind: event.target.value as FieldKind })}
                >
                  {fieldKinds.map((kind) => (
                    <option key={kind} value={kind}>
                      {kindLabel(kind)}
                    </option>
                  ))}
                </NativeSelect.Field>
                <NativeSelect.Indicator />
              </NativeSelect.Root>
            </Stack>
          ))}
          {columns && (
            <Button size="2xs" variant="ghost" alignSelf="start" onClick={() => setColumns([...columns, { heading: '', kind: 'text' }])}>
              One field more
            </Button>
          )}
          <Stack direction="row" gap="1.5" wrap="wrap">
            <Button type="submit" disabled={blank}>
              Add
            </Button>
            <Button variant="ghost" onClick={() => setColumns(columns ? undefined : firstColumns)}>
              {columns ? 'A list instead' : 'A table instead'}
            </Button>
          </Stack>
        </Stack>
      </form>
    </Box>
  );
}
