// Where a linked source reads: the fields that its kind needs, chosen from what can be reached.
import { Checkbox, Stack, Text, Textarea } from '@chakra-ui/react';
import { encodings, type Encoding, type LinkedSettingsDto } from '@dellum/contract';
import type { ReactNode } from 'react';
import { FormField } from '../../frame/FormField.js';
import { Select } from '../../frame/Select.js';
import { useBuildQuery } from '../../data/buildApi.js';
import { useLinkedTablesQuery, useReachableQuery } from '../../data/linkedApi.js';

interface SettingsFieldsProps {
  readonly settings: LinkedSettingsDto;
  /** Columns that the last look found. */
  readonly columns: readonly string[];
  onChange(change: Partial<LinkedSettingsDto>): void;
}

const options = (values: readonly string[]) => values.map((value) => [value, value] as const);

function Labelled({ words, children }: { words: string; children: ReactNode }) {
  return (
    <Stack gap="1">
      <Text fontWeight="medium">{words}</Text>
      {children}
    </Stack>
  );
}

export function SettingsFields(props: SettingsFieldsProps) {
  const { settings, onChange } = props;
  const { data: reach } = useReachableQuery();
  const { kind } = settings;
  switch (kind) {
    case 'text file':
    case 'csv file':
      return (
        <>
          <Labelled words="File">
            <Select
              label="File"
              value={settings.path ?? ''}
              options={options(reach?.files ?? [])}
              onChoose={(path) => onChange({ path })}
            />
          </Labelled>
          <Labelled words="How it is written">
            <Select
              label="How it is written"
              value={settings.encoding ?? 'told apart'}
              options={options(encodings)}
              onChoose={(encoding) => onChange({ encoding: encoding as Encoding })}
            />
          </Labelled>
          {kind === 'csv file' && <Columns {...props} />}
        </>
      );
    case 'folder':
      return (
        <>
          <Labelled words="Folder">
            <Select
              label="Folder"
              value={settings.path ?? ''}
              options={options(reach?.folders ?? [])}
              onChoose={(path) => onChange({ path })}
            />
          </Labelled>
          <FormField
            label="Names like"
            placeholder="*.pdf"
            value={settings.pattern ?? ''}
            onChange={(event) => onChange({ pattern: event.target.value })}
          />
          <Checkbox.Root
            size="sm"
            checked={settings.endings !== false}
            onCheckedChange={(details) => onChange({ endings: details.checked === true })}
          >
            <Checkbox.HiddenInput />
            <Checkbox.Control borderColor="slate.border" />
            <Checkbox.Label>With their ending</Checkbox.Label>
          </Checkbox.Root>
        </>
      );
    case 'database':
      return (
        <>
          <Labelled words="Database">
            <Select
              label="Database"
              value={settings.connection ?? ''}
              options={options(reach?.connections ?? [])}
              onChoose={(connection) => onChange({ connection })}
            />
          </Labelled>
          {settings.connection && <Table {...props} connection={settings.connection} />}
        </>
      );
    case 'service':
      return (
        <>
          <Labelled words="Service">
            <Select
              label="Service"
              value={settings.connection ?? ''}
              options={options(reach?.services ?? [])}
              onChoose={(connection) => onChange({ connection })}
            />
          </Labelled>
          <FormField
            label="Path of the address"
            value={settings.address ?? ''}
            onChange={(event) => onChange({ address: event.target.value })}
          />
          <FormField
            label="Path to the list"
            help="Names parted by dots; blank when the answer is the list."
            value={settings.list ?? ''}
            onChange={(event) => onChange({ list: event.target.value })}
          />
          <FormField label="Path to the value" value={settings.value ?? ''} onChange={(event) => onChange({ value: event.target.value })} />
          <FormField
            label="Path to what is shown"
            value={settings.label ?? ''}
            onChange={(event) => onChange({ label: event.target.value })}
          />
        </>
      );
    case 'computed':
      return <Computed {...props} />;
  }
}

function Table({ settings, columns, onChange, connection }: SettingsFieldsProps & { connection: string }) {
  const { data, error } = useLinkedTablesQuery(connection);
  const found = data?.tables ?? [];
  const key = ({ schema, table }: { schema?: string | undefined; table?: string | undefined }) => `${schema ?? ''}.${table ?? ''}`;
  const chosen = found.find((table) => key(table) === key(settings));
  return (
    <>
      <Labelled words="Table">
        <Select
          label="Table"
          value={settings.table ? key(settings) : ''}
          options={options(found.map(key))}
          onChoose={(name) => {
            const table = found.find((known) => key(known) === name);
            if (table) onChange({ schema: table.schema, table: table.table, value: '', label: '', companions: [] });
          }}
        />
      </Labelled>
      {error !== undefined && <Text color="brick.fg">The database cannot be looked at now.</Text>}
      {chosen && <Columns settings={settings} columns={columns.length > 0 ? columns : chosen.columns} onChange={onChange} />}
    </>
  );
}

function Columns({ settings, columns, onChange }: SettingsFieldsProps) {
  if (columns.length === 0) return <Text color="inkSoft">Look at it to choose its columns.</Text>;
  const along = settings.companions ?? [];
  return (
    <>
      <Labelled words="Value">
        <Select
          label="Column of the value"
          value={settings.value ?? ''}
          options={options(columns)}
          onChoose={(value) => onChange({ value })}
        />
      </Labelled>
      <Labelled words="Shown as">
        <Select
          label="Column that is shown"
          value={settings.label ?? ''}
          options={[['', 'the value itself'], ...options(columns)]}
          onChoose={(label) => onChange({ label })}
        />
      </Labelled>
      <Stack gap="1" role="group" aria-label="Comes along">
        <Text fontWeight="medium">Comes along</Text>
        {columns
          .filter((column) => column !== settings.value && column !== settings.label)
          .map((column) => (
            <Checkbox.Root
              key={column}
              size="sm"
              checked={along.includes(column)}
              onCheckedChange={(details) =>
                onChange({ companions: details.checked === true ? [...along, column] : along.filter((known) => known !== column) })
              }
            >
              <Checkbox.HiddenInput />
              <Checkbox.Control borderColor="slate.border" />
              <Checkbox.Label>{column}</Checkbox.Label>
            </Checkbox.Root>
          ))}
      </Stack>
    </>
  );
}

function Computed({ settings, onChange }: SettingsFieldsProps) {
  const { data: build } = useBuildQuery();
  const chosen = settings.catalogs ?? [];
  return (
    <>
      <Stack gap="1" role="group" aria-label="Over the catalogs">
        <Text fontWeight="medium">Over the catalogs</Text>
        {build?.catalogs.map(({ key, title }) => (
          <Checkbox.Root
            key={key}
            size="sm"
            checked={chosen.includes(key)}
            onCheckedChange={(details) =>
              onChange({ catalogs: details.checked === true ? [...chosen, key] : chosen.filter((known) => known !== key) })
            }
          >
            <Checkbox.HiddenInput />
            <Checkbox.Control borderColor="slate.border" />
            <Checkbox.Label>
              {title}{' '}
              <Text as="span" fontFamily="mono" fontSize="xs" color="inkSoft">
                {key.replaceAll('-', '_')}
              </Text>
            </Checkbox.Label>
          </Checkbox.Root>
        ))}
      </Stack>
      <Stack gap="1">
        <Text asChild fontWeight="medium">
          <label htmlFor="expression">Expression (CEL)</label>
        </Text>
        <Textarea
          id="expression"
          size="sm"
          rows={4}
          bg="card"
          borderColor="slate.border"
          fontFamily="mono"
          value={settings.expression ?? ''}
          onChange={(event) => onChange({ expression: event.target.value })}
        />
        <Text fontSize="xs" color="inkSoft">
          Each catalog is a list; each item has value, label, note, parent and its companions. For instance: pilots.filter(p, p.note !=
          "").map(p, p.value)
        </Text>
      </Stack>
    </>
  );
}
