// Where a linked source reads: the fields that its kind needs, chosen from what can be reached.
import { Checkbox, Stack, Text, Textarea } from '@chakra-ui/react';
import { encodings, type Encoding, type LinkedKind, type LinkedSettings, type LinkedSettingsOf } from '@dellum/contract';
import type { ReactNode } from 'react';
import { Check } from '../../frame/Check.js';
import { FormField } from '../../frame/FormField.js';
import { Select } from '../../frame/Select.js';
import { useBuildQuery } from '../../data/buildApi.js';
import { useLinkedTablesQuery, useReachableQuery } from '../../data/linkedApi.js';

interface FieldsOf<Kind extends LinkedKind> {
  readonly settings: LinkedSettingsOf<Kind>;
  /** Columns that the last look found. */
  readonly columns: readonly string[];
  onChange(settings: LinkedSettings): void;
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

export function SettingsFields({ settings, columns, onChange }: FieldsOf<LinkedKind>) {
  switch (settings.kind) {
    case 'text file':
      return <File settings={settings} columns={columns} onChange={onChange} />;
    case 'csv file':
      return (
        <>
          <File settings={settings} columns={columns} onChange={onChange} />
          <Columns settings={settings} columns={columns} onChange={onChange} />
        </>
      );
    case 'folder':
      return <Folder settings={settings} columns={columns} onChange={onChange} />;
    case 'database':
      return <Database settings={settings} columns={columns} onChange={onChange} />;
    case 'service':
      return <Service settings={settings} columns={columns} onChange={onChange} />;
    case 'computed':
      return <Computed settings={settings} columns={columns} onChange={onChange} />;
  }
}

function File({ settings, onChange }: FieldsOf<'text file' | 'csv file'>) {
  const { data: reach } = useReachableQuery();
  return (
    <>
      <Labelled words="File">
        <Select
          label="File"
          value={settings.path ?? ''}
          options={options(reach?.files ?? [])}
          onChoose={(path) => onChange({ ...settings, path })}
        />
      </Labelled>
      <Labelled words="How it is written">
        <Select
          label="How it is written"
          value={settings.encoding ?? 'told apart'}
          options={options(encodings)}
          onChoose={(encoding) => onChange({ ...settings, encoding: encoding as Encoding })}
        />
      </Labelled>
    </>
  );
}

function Folder({ settings, onChange }: FieldsOf<'folder'>) {
  const { data: reach } = useReachableQuery();
  return (
    <>
      <Labelled words="Folder">
        <Select
          label="Folder"
          value={settings.path ?? ''}
          options={options(reach?.folders ?? [])}
          onChoose={(path) => onChange({ ...settings, path })}
        />
      </Labelled>
      <FormField
        label="Names like"
        placeholder="*.pdf"
        value={settings.pattern ?? ''}
        onChange={(event) => onChange({ ...settings, pattern: event.target.value })}
      />
      <Check label="With their ending" checked={settings.endings !== false} set={(endings) => onChange({ ...settings, endings })} />
    </>
  );
}

function Database({ settings, columns, onChange }: FieldsOf<'database'>) {
  const { data: reach } = useReachableQuery();
  return (
    <>
      <Labelled words="Database">
        <Select
          label="Database"
          value={settings.connection ?? ''}
          options={options(reach?.connections ?? [])}
          onChoose={(connection) => onChange({ ...settings, connection })}
        />
      </Labelled>
      {settings.connection && <Table settings={settings} columns={columns} onChange={onChange} connection={settings.connection} />}
    </>
  );
}

function Service({ settings, onChange }: FieldsOf<'service'>) {
  const { data: reach } = useReachableQuery();
  const texts = [
    ['address', 'Path of the address', undefined],
    ['list', 'Path to the list', 'Names parted by dots; blank when the answer is the list.'],
    ['value', 'Path to the value', undefined],
    ['label', 'Path to what is shown', undefined],
  ] as const;
  return (
    <>
      <Labelled words="Service">
        <Select
          label="Service"
          value={settings.connection ?? ''}
          options={options(reach?.services ?? [])}
          onChoose={(connection) => onChange({ ...settings, connection })}
        />
      </Labelled>
      {texts.map(([member, label, help]) => (
        <FormField
          key={member}
          label={label}
          help={help}
          value={settings[member] ?? ''}
          onChange={(event) => onChange({ ...settings, [member]: event.target.value })}
        />
      ))}
    </>
  );
}

function Table({ settings, columns, onChange, connection }: FieldsOf<'database'> & { connection: string }) {
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
            if (table) onChange({ ...settings, schema: table.schema, table: table.table, value: '', label: '', companions: [] });
          }}
        />
      </Labelled>
      {error !== undefined && <Text color="brick.fg">The database cannot be looked at now.</Text>}
      {chosen && <Columns settings={settings} columns={columns.length > 0 ? columns : chosen.columns} onChange={onChange} />}
    </>
  );
}

function Columns({ settings, columns, onChange }: FieldsOf<'csv file' | 'database'>) {
  if (columns.length === 0) return <Text color="inkSoft">Look at it to choose its columns.</Text>;
  const along = settings.companions ?? [];
  return (
    <>
      <Labelled words="Value">
        <Select
          label="Column of the value"
          value={settings.value ?? ''}
          options={options(columns)}
          onChoose={(value) => onChange({ ...settings, value })}
        />
      </Labelled>
      <Labelled words="Shown as">
        <Select
          label="Column that is shown"
          value={settings.label ?? ''}
          options={[['', 'the value itself'], ...options(columns)]}
          onChoose={(label) => onChange({ ...settings, label })}
        />
      </Labelled>
      <Stack gap="1" role="group" aria-label="Comes along">
        <Text fontWeight="medium">Comes along</Text>
        {columns
          .filter((column) => column !== settings.value && column !== settings.label)
          .map((column) => (
            <Check
              key={column}
              label={column}
              checked={along.includes(column)}
              set={(on) => onChange({ ...settings, companions: on ? [...along, column] : along.filter((known) => known !== column) })}
            />
          ))}
      </Stack>
    </>
  );
}

function Computed({ settings, onChange }: FieldsOf<'computed'>) {
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
              onChange({ ...settings, catalogs: details.checked === true ? [...chosen, key] : chosen.filter((known) => known !== key) })
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
          onChange={(event) => onChange({ ...settings, expression: event.target.value })}
        />
        <Text fontSize="xs" color="inkSoft">
          Each catalog is a list; each item has value, label, note, parent and its companions. For instance: pilots.filter(p, p.note !=
          "").map(p, p.value)
        </Text>
      </Stack>
    </>
  );
}
