// A block pasted beside the lists of a source sheet: it becomes a table, or a list of each of its columns.
import { Box, Button, Heading, HStack, Input, Stack, Text } from '@chakra-ui/react';
import { freeAmong, kindLabel, type FieldKind } from '@dellum/core';
import type { ActDto, SheetView } from '@dellum/contract';
import { useEffect, useState } from 'react';
import { ActButton } from '../../frame/ActButton.js';
import { Check } from '../../frame/Check.js';
import { useTry } from '../../frame/useNotice.js';
import { useAppDispatch } from '../../data/store.js';
import { buildApi, buildNow } from '../../data/buildApi.js';
import { useProposeFieldsMutation } from '../../data/upkeepApi.js';
import { partsOf } from './sourceCells.js';
import { sourcesApi } from '../../data/sourcesApi.js';
import { number } from '../../frame/written.js';

/** So many rows are looked at to tell what a column holds. */
const rowsLookedAt = 500;

interface PastedTableProps {
  readonly sheet: SheetView;
  readonly block: readonly (readonly string[])[];
  /** The heading that was typed before the block was pasted. */
  readonly heading: string;
  /** `made`: the list or table in which one goes on. */
  done(made?: string): void;
}

export function PastedTable({ sheet, block, heading, done }: PastedTableProps) {
  const columns = Math.max(...block.map((row) => row.length));
  const [headed, setHeaded] = useState(columns > 1);
  const [title, setTitle] = useState(heading);
  const [working, setWorking] = useState('');
  const [propose, { data: proposed }] = useProposeFieldsMutation();
  const dispatch = useAppDispatch();
  const attempt = useTry();
  useEffect(() => {
    const numbered = Array.from({ length: columns }, (_, at) => `Field ${at + 1}`);
    const head = headed ? (block[0] ?? []) : numbered;
    void propose([
      Array.from(numbered, (word, at) => head[at]?.trim() || word),
      ...block.slice(headed ? 1 : 0, rowsLookedAt).map((row) => Array.from(numbered, (_, at) => row[at] ?? '')),
    ]);
  }, [propose, block, headed, columns]);
  const rows = block.slice(headed ? 1 : 0).filter((row) => row.some((text) => text.trim() !== ''));
  const taken = sheet.registers.map((register) => register.title);
  const fields =
    proposed?.map(({ heading: own, kind }) => ({ heading: own, kind: kind === 'several values' ? ('text' as const) : kind })) ?? [];

  /** Stores the rows part by part in a register that was just made. */
  const fill = async (registerId: string, keys: readonly string[], texts: readonly (readonly string[])[]): Promise<boolean> => {
    const act: ActDto = {
      act: 'insert',
      entries: texts.map(() => crypto.randomUUID()),
      fields: [...keys],
      rows: texts.map((row) => [...row]),
    };
    let joins: number | undefined;
    for (const part of partsOf([act], keys.length)) {
      const outcome = await attempt(dispatch(sourcesApi.endpoints.act.initiate({ registerId, acts: part.acts, joins })).unwrap());
      if (!outcome) return false;
      joins = outcome.act ?? joins;
    }
    return true;
  };
  const keysOf = (registerId: string): readonly string[] =>
    dispatch(buildNow())
      ?.sheets.flatMap(({ registers }) => registers)
      .find(({ id }) => id === registerId)
      ?.fields.map(({ key }) => key) ?? [];
  const asTable = async () => {
    setWorking('table');
    const name = freeAmong(title.trim() || sheet.title, taken);
    const made = await attempt(dispatch(buildApi.endpoints.makeTable.initiate({ sheetId: sheet.id, heading: name, fields })).unwrap());
    if (
      made &&
      (await fill(
        made.id,
        keysOf(made.id),
        rows.map((row) => fields.map((_, at) => row[at] ?? '')),
      ))
    )
      return done(made.id);
    setWorking('');
  };
  const asLists = async () => {
    setWorking('lists');
    const names: string[] = [...taken];
    let first: string | undefined;
    for (const [at, field] of fields.entries()) {
      const wanted = columns === 1 && title.trim() !== '' ? title.trim() : field.heading;
      const name = freeAmong(wanted, names);
      names.push(name);
      const made = await attempt(
        dispatch(buildApi.endpoints.makeList.initiate({ sheetId: sheet.id, heading: name, kind: field.kind })).unwrap(),
      );
      if (
        !made ||
        !(await fill(
          made.id,
          ['value'],
          rows.flatMap((row) => ((row[at] ?? '').trim() === '' ? [] : [[row[at]!]])),
        ))
      )
        return setWorking('');
      first ??= made.id;
    }
    done(first);
  };
  return (
    <Box as="section" aria-label="Pasted table" w="280px" borderWidth="1px" borderColor="damson.border" bg="card" rounded="l3" p="3">
      <Stack gap="2.5">
        <Heading as="h2" fontSize="sm">
          {number.format(rows.length)} {rows.length === 1 ? 'row' : 'rows'} of {columns} {columns === 1 ? 'column' : 'columns'} pasted
        </Heading>
        <Check label="The first row is headings" checked={headed} set={setHeaded} />
        <Text color="inkSoft">
          {fields.map(({ heading: own, kind }: { heading: string; kind: FieldKind }) => `${own} (${kindLabel(kind)})`).join(', ') ||
            'Looking at the columns …'}
        </Text>
        <Input
          size="xs"
          borderColor="slate.border"
          aria-label="Heading of it"
          placeholder={columns > 1 ? 'Heading of the table' : 'Heading of the list'}
          value={title}
          onChange={(event) => setTitle(event.target.value)}
        />
        <HStack wrap="wrap" gap="1.5">
          {columns > 1 && (
            <ActButton
              variant="solid"
              loading={working === 'table'}
              disabled={fields.length === 0 || working !== ''}
              onClick={() => void asTable()}
            >
              Make a table of it
            </ActButton>
          )}
          <ActButton
            variant={columns > 1 ? 'outline' : 'solid'}
            loading={working === 'lists'}
            disabled={fields.length === 0 || working !== ''}
            onClick={() => void asLists()}
          >
            {columns > 1 ? `Make ${columns} lists of it` : 'Make a list of it'}
          </ActButton>
          <Button variant="ghost" disabled={working !== ''} onClick={() => done()}>
            Cancel
          </Button>
        </HStack>
      </Stack>
    </Box>
  );
}
