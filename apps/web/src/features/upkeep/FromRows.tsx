// A new sheet of a pasted table: its fields are proposed, mended by hand, and made with its rows.
import { Box, Button, Heading, HStack, Input, Stack, Text, Textarea } from '@chakra-ui/react';
import { fieldKinds, type FieldKind } from '@dellum/core';
import type { BuildView, MakeFromRowsDto, ProposedFieldView } from '@dellum/contract';
import { useState } from 'react';
import { errorWords, faultWords } from '../../data/problem.js';
import { ActButton } from '../../frame/ActButton.js';
import { FormField } from '../../frame/FormField.js';
import { Select } from '../../frame/Select.js';
import { useArrive } from '../../frame/useNotice.js';
import { fromBoth, fromClipboard } from '../../grid/index.js';
import { useMakeFromRowsMutation, useProposeFieldsMutation } from '../../data/upkeepApi.js';
import { number } from '../../frame/written.js';

type Wanted = MakeFromRowsDto['fields'][number];

export function FromRows({
  build,
  rows,
  setRows,
}: {
  build: BuildView;
  rows: string[][] | undefined;
  setRows: (rows: string[][] | undefined) => void;
}) {
  const [typed, setTyped] = useState('');
  const [propose, { data: proposed, error }] = useProposeFieldsMutation();
  const look = (table: string[][]) => {
    if (table.length === 0) return;
    setRows(table);
    void propose(table);
  };
  return (
    <Stack gap="2" mt={rows ? '0' : '6'} role="region" aria-label="From a table">
      <Heading as="h2" fontSize="md">
        {rows ? 'New sheet from a table' : 'Or from a table'}
      </Heading>
      {rows ? (
        proposed ? (
          <Proposal rows={rows} proposed={proposed} build={build} leave={() => setRows(undefined)} />
        ) : (
          <>
            <Text color={error ? 'brick.fg' : 'inkSoft'} role={error ? 'alert' : 'status'}>
              {errorWords(error) ?? 'Looking at the table …'}
            </Text>
            <Button size="sm" alignSelf="start" onClick={() => setRows(undefined)}>
              Cancel
            </Button>
          </>
        )
      ) : (
        <>
          <Textarea
            size="xs"
            rows={4}
            bg="card"
            borderColor="slate.border"
            aria-label="Headings and rows"
            placeholder="Paste headings with some rows under them"
            value={typed}
            onChange={(event) => setTyped(event.target.value)}
            onPaste={(event) => {
              event.preventDefault();
              look(fromBoth(event.clipboardData.getData('text/plain'), event.clipboardData.getData('text/html')));
            }}
          />
          {typed.trim() !== '' && (
            <Button size="sm" alignSelf="start" onClick={() => look(fromClipboard(typed))}>
              Look at the table
            </Button>
          )}
        </>
      )}
    </Stack>
  );
}

const wantedOf = ({ heading, kind, catalogId }: ProposedFieldView): Wanted => ({ heading, kind, ...(catalogId !== null && { catalogId }) });

function Proposal({
  rows,
  proposed,
  build,
  leave,
}: {
  rows: string[][];
  proposed: readonly ProposedFieldView[];
  build: BuildView;
  leave: () => void;
}) {
  const [mended, setMended] = useState<ReadonlyMap<number, Wanted>>(new Map());
  const [title, setTitle] = useState('');
  const [fault, setFault] = useState<string>();
  const [make, { isLoading }] = useMakeFromRowsMutation();
  const arrive = useArrive();
  const fields = proposed.map((field, at) => mended.get(at) ?? wantedOf(field));
  const body = rows.slice(1);
  const save = async () => {
    setFault(undefined);
    try {
      const { id } = await make({ title, note: '', fields, rows: body }).unwrap();
      arrive(`/sheets/${id}`, `${title.trim()} is made, with ${number.format(body.length)} ${body.length === 1 ? 'row' : 'rows'}.`);
    } catch (thrown) {
      setFault(faultWords(thrown, 'title'));
    }
  };
  return (
    <>
      <Text color="inkSoft">
        {number.format(fields.length)} {fields.length === 1 ? 'field' : 'fields'}, {number.format(body.length)}{' '}
        {body.length === 1 ? 'row' : 'rows'}. What each field takes is proposed by what stands in it.
      </Text>
      {proposed.map((field, at) => (
        <FieldProposal
          key={at}
          at={at}
          field={field}
          wanted={fields[at]!}
          build={build}
          change={(wanted) => setMended(new Map([...mended, [at, wanted]]))}
        />
      ))}
      <FormField label="Title of the sheet" value={title} fault={fault} onChange={(event) => setTitle(event.target.value)} />
      <HStack>
        <ActButton variant="solid" size="sm" loading={isLoading} onClick={() => void save()}>
          Create the sheet
        </ActButton>
        <Button size="sm" onClick={leave}>
          Cancel
        </Button>
      </HStack>
    </>
  );
}

interface FieldProposalProps {
  readonly at: number;
  readonly field: ProposedFieldView;
  readonly wanted: Wanted;
  readonly build: BuildView;
  change(wanted: Wanted): void;
}

function FieldProposal({ at, field, wanted, build, change }: FieldProposalProps) {
  const catalogs = [['', 'any text'] as const, ...build.catalogs.map(({ id, title }) => [id, `takes values from ${title}`] as const)];
  const words = [
    `${number.format(field.filled)} filled, ${number.format(field.distinct)} different`,
    field.kind === wanted.kind &&
      field.unread > 0 &&
      `${number.format(field.unread)} ${field.unread === 1 ? 'does' : 'do'} not fit and ${field.unread === 1 ? 'stays' : 'stay'} as written`,
    field.wantsToBeList && wanted.catalogId === undefined && wanted.kind === 'text' && 'wants to be a list: make it one on the sheet',
  ].filter(Boolean);
  return (
    <Box p="2.5" borderWidth="1px" borderColor="line" rounded="l2" role="group" aria-label={`Field ${at + 1}`}>
      <HStack gap="1.5">
        <Input
          size="xs"
          flex="1"
          borderColor="slate.border"
          aria-label={`Heading of field ${at + 1}`}
          value={wanted.heading}
          onChange={(event) => change({ ...wanted, heading: event.target.value })}
        />
        <Select
          label={`Kind of field ${at + 1}`}
          width="120px"
          value={wanted.kind}
          options={fieldKinds.map((kind) => [kind, kind])}
          onChoose={(kind) => change({ heading: wanted.heading, kind: kind as FieldKind })}
        />
      </HStack>
      {wanted.kind === 'text' && build.catalogs.length > 0 && (
        <Box mt="1.5">
          <Select
            label={`List of field ${at + 1}`}
            value={wanted.catalogId ?? ''}
            options={catalogs}
            onChoose={(id) => change({ heading: wanted.heading, kind: 'text', ...(id !== '' && { catalogId: id }) })}
          />
        </Box>
      )}
      <Text mt="1" fontSize="xs" color="inkSoft">
        {words.join('; ')}.
      </Text>
    </Box>
  );
}
