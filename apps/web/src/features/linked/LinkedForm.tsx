// Setting up a linked source: its name, where it reads, how often; looked at before it is kept.
import { Box, Heading, HStack, IconButton, Stack, Table, Text } from '@chakra-ui/react';
import { linkedKinds, MakeLinkedDto, type LinkedKind, type LinkedSettings, type LinkedTrial, type LinkedView } from '@dellum/contract';
import { X } from 'lucide-react';
import { problemWords } from '../../data/problem.js';
import { ActButton } from '../../frame/ActButton.js';
import { FormField } from '../../frame/FormField.js';
import { Scrolling } from '../../frame/Scrolling.js';
import { Select } from '../../frame/Select.js';
import { useDtoForm } from '../../frame/useForm.js';
import { useChangeLinkedMutation, useMakeLinkedMutation, useTryLinkedMutation } from '../../data/linkedApi.js';
import { SettingsFields } from './SettingsFields.js';
import { number } from '../../frame/written.js';

const kindWords: { readonly [K in LinkedKind]: string } = {
  'text file': 'a text file, one value a line',
  'csv file': 'columns of a CSV file',
  folder: 'the names in a folder',
  database: 'a table of another database',
  service: 'a list over HTTP',
  computed: 'an expression over catalogs',
};

const schedules = [
  [0, 'only on demand'],
  [15, 'every quarter of an hour'],
  [60, 'every hour'],
  [1440, 'every day'],
] as const;
export const scheduleWords = (every: number): string => schedules.find(([minutes]) => minutes === every)?.[1] ?? `every ${every} minutes`;

interface LinkedFormProps {
  readonly source?: LinkedView | undefined;
  done(id?: string): void;
}

export function LinkedForm({ source, done }: LinkedFormProps) {
  const { register, fault, submit, problem, watch, setValue } = useDtoForm(MakeLinkedDto, {
    name: source?.name ?? '',
    settings: source?.settings ?? { kind: 'text file' },
    every: source?.every ?? 60,
  });
  const settings = watch('settings');
  const [look, { data: trial, error, isLoading: looking, reset }] = useTryLinkedMutation();
  const [make, { isLoading: making }] = useMakeLinkedMutation();
  const [change, { isLoading: changing }] = useChangeLinkedMutation();
  const set = (next: LinkedSettings) => setValue('settings', next);
  const save = submit(async (body) => done((await (source ? change({ id: source.id, source: body }) : make(body)).unwrap()).id));
  const refused = fault('settings') ?? problem;
  return (
    <form noValidate onSubmit={(event) => void save(event)}>
      <Stack gap="3">
        <HStack justify="space-between">
          <Heading as="h2" fontSize="md">
            {source ? source.name : 'New linked source'}
          </Heading>
          {source && (
            <IconButton aria-label="Close" size="2xs" variant="ghost" colorPalette="slate" onClick={() => done()}>
              <X size={14} />
            </IconButton>
          )}
        </HStack>
        <FormField label="Name" fault={fault('name')} {...register('name')} />
        <Stack gap="1">
          <Text fontWeight="medium">It gives</Text>
          <Select
            label="It gives"
            value={settings.kind}
            options={linkedKinds.map((kind) => [kind, kindWords[kind]])}
            onChoose={(kind) => {
              set({ kind: kind as LinkedKind });
              reset();
            }}
          />
        </Stack>
        <SettingsFields settings={settings} columns={trial?.columns ?? []} onChange={set} />
        <Stack gap="1">
          <Text fontWeight="medium">Refreshed</Text>
          <Select
            label="Refreshed"
            value={String(watch('every'))}
            options={schedules.map(([minutes, words]) => [String(minutes), words])}
            onChoose={(minutes) => setValue('every', Number(minutes))}
          />
        </Stack>
        <HStack>
          <ActButton size="sm" loading={looking} onClick={() => void look(settings)}>
            Look at it
          </ActButton>
          <ActButton variant="solid" type="submit" size="sm" loading={making || changing}>
            {source ? 'Save it' : 'Link it'}
          </ActButton>
        </HStack>
        {refused && (
          <Text role="alert" color="brick.fg">
            {refused}
          </Text>
        )}
        {error !== undefined && (
          <Text
            role="alert"
            color="brick.fg"
            whiteSpace="pre-wrap"
            fontFamily={settings.kind === 'computed' ? 'mono' : undefined}
            fontSize={settings.kind === 'computed' ? 'xs' : undefined}
          >
            {problemWords(error)}
          </Text>
        )}
        {trial && error === undefined && <Trial trial={trial} />}
      </Stack>
    </form>
  );
}

function Trial({ trial }: { trial: LinkedTrial }) {
  return (
    <Box p="3" bg="paper" borderWidth="1px" borderColor="line" rounded="l3" role="status">
      {trial.first.length > 0 ? (
        <>
          <Text fontWeight="bold">
            {number.format(trial.values)} {trial.values === 1 ? 'value' : 'values'}
          </Text>
          <Text color="inkSoft">{trial.first.map(({ value, label }) => (label ? `${label} (${value})` : value)).join(', ')}</Text>
        </>
      ) : (
        <Text color={trial.columns.length > 0 ? 'inkSoft' : 'amber.fg'}>
          {trial.columns.length > 0 ? 'Choose the column of the value, then look again.' : 'It gives no values now.'}
        </Text>
      )}
      {trial.columns.length > 0 && (
        <Scrolling label="First rows" mt="2">
          <Table.Root size="sm" aria-label="First rows">
            <Table.Header>
              <Table.Row bg="transparent">
                {trial.columns.map((column) => (
                  <Table.ColumnHeader key={column}>{column}</Table.ColumnHeader>
                ))}
              </Table.Row>
            </Table.Header>
            <Table.Body>
              {trial.rows.map((row, at) => (
                <Table.Row key={at} bg="transparent">
                  {row.map((text, column) => (
                    <Table.Cell key={column}>{text}</Table.Cell>
                  ))}
                </Table.Row>
              ))}
            </Table.Body>
          </Table.Root>
        </Scrolling>
      )}
    </Box>
  );
}

export const linkedKindWords = (kind: LinkedKind): string => kindWords[kind];
