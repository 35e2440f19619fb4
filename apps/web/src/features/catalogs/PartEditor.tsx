// One part of a catalog: where its values come from, how it is joined, what comes along.
import { Box, Button, Checkbox, HStack, IconButton, Stack, Text, Textarea } from '@chakra-ui/react';
import {
  joins,
  readTypedList,
  writeTypedList,
  type CatalogPart,
  type Join,
  type KeyedPart,
  type Locale,
  type QueryPart,
  type RangePart,
} from '@dellum/core';
import type { BuildView, FieldView, RegisterView } from '@dellum/contract';
import { ArrowDown, ArrowUp, X } from 'lucide-react';
import { useState, type ReactNode } from 'react';
import { Select } from '../../frame/Select.js';
import { useCatalogItemsQuery } from '../../data/catalogsApi.js';
import { FilterEditor } from '../filters/FilterEditor.js';

const joinWords: { readonly [J in Join]: string } = { or: 'and also', and: 'only what is also in', without: 'without' };

interface PartEditorProps {
  readonly part: CatalogPart;
  readonly at: number;
  readonly count: number;
  readonly build: BuildView;
  readonly catalogId: string;
  readonly locale: Locale;
  onChange(part: CatalogPart): void;
  onMove(by: -1 | 1): void;
  onRemove(): void;
}

export function PartEditor(props: PartEditorProps) {
  const { part, at, count, onMove, onRemove, onChange } = props;
  return (
    <Box borderWidth="1px" borderColor="line" rounded="l2" p="2.5" role="group" aria-label={`Part ${at + 1}`}>
      <HStack justify="space-between" mb="1.5">
        {at === 0 ? (
          <Text color="inkSoft">first</Text>
        ) : (
          <Select
            label={`How part ${at + 1} is joined`}
            value={part.join}
            options={joins.map((join) => [join, joinWords[join]])}
            onChoose={(join) => onChange({ ...part, join: join as Join })}
            width="150px"
          />
        )}
        <HStack gap="0">
          <IconButton aria-label={`Move part ${at + 1} up`} size="2xs" variant="ghost" disabled={at === 0} onClick={() => onMove(-1)}>
            <ArrowUp size={12} />
          </IconButton>
          <IconButton
            aria-label={`Move part ${at + 1} down`}
            size="2xs"
            variant="ghost"
            disabled={at === count - 1}
            onClick={() => onMove(1)}
          >
            <ArrowDown size={12} />
          </IconButton>
          <IconButton aria-label={`Take out part ${at + 1}`} size="2xs" variant="ghost" onClick={onRemove}>
            <X size={12} />
          </IconButton>
        </HStack>
      </HStack>
      <PartBody {...props} />
    </Box>
  );
}

function PartBody({ part, at, build, catalogId, locale, onChange }: PartEditorProps): ReactNode {
  const registers = build.sheets.flatMap((sheet) =>
    sheet.registers.map((register) => ({
      ...register,
      place: register.title === sheet.title ? sheet.title : `${register.title}, ${sheet.title}`,
    })),
  );
  const others = build.catalogs.filter(({ id }) => id !== catalogId);
  switch (part.kind) {
    case 'typed':
      return (
        <TypedValues
          values={part.values}
          locale={locale}
          label={`Values of part ${at + 1}`}
          onChange={(values) => onChange({ ...part, values })}
        />
      );
    case 'range': {
      const range = build.ranges.find(({ id }) => id === part.rangeId);
      const register = range?.shape === 'headings' ? undefined : registers.find(({ id }) => id === range?.stretches[0]?.registerId);
      return (
        <Stack gap="1.5">
          <Select
            label={`Range of part ${at + 1}`}
            value={part.rangeId}
            options={build.ranges.map(({ id, name }) => [id, `the range ${name}`])}
            onChoose={(rangeId) => onChange({ ...part, rangeId, label: null, companions: [] })}
          />
          {register && register.fields.length > 1 && (
            <Along part={part} fields={register.fields} taken={range?.stretches[0]?.fields ?? []} onChange={onChange} />
          )}
        </Stack>
      );
    }
    case 'query': {
      const register = registers.find(({ id }) => id === part.registerId);
      return (
        <Stack gap="1.5">
          <Select
            label={`Sheet of part ${at + 1}`}
            value={part.registerId}
            options={registers.map(({ id, place }) => [id, place])}
            onChoose={(registerId) =>
              onChange({
                ...part,
                registerId,
                value: registers.find(({ id }) => id === registerId)?.fields[0]?.key ?? '',
                label: null,
                companions: [],
                filter: null,
              })
            }
          />
          {register && (
            <>
              <Select
                label={`Value of part ${at + 1}`}
                value={part.value}
                options={register.fields.map(({ key, heading }) => [key, `value: ${heading}`])}
                onChoose={(value) => onChange({ ...part, value })}
              />
              <Along part={part} fields={register.fields} taken={[part.value]} onChange={onChange} />
              <FilterEditor
                label={`Filter of part ${at + 1}`}
                filter={part.filter}
                fields={register.fields}
                onChange={(filter) => onChange({ ...part, filter })}
              />
            </>
          )}
        </Stack>
      );
    }
    case 'linked':
      return (
        <Select
          label={`Linked source of part ${at + 1}`}
          value={part.sourceId}
          options={build.linked.map(({ id, name }) => [id, name])}
          onChoose={(sourceId) => onChange({ ...part, sourceId })}
        />
      );
    case 'catalog':
      return (
        <Select
          label={`Catalog of part ${at + 1}`}
          value={part.catalogId}
          options={others.map(({ id, title }) => [id, `the catalog ${title}`])}
          onChoose={(id) => onChange({ ...part, catalogId: id })}
        />
      );
    case 'named':
      return (
        <Select
          label={`Parents of part ${at + 1}`}
          value={part.catalogId}
          options={others.map(({ id, title }) => [id, `ranges named like the values of ${title}`])}
          onChoose={(id) => onChange({ ...part, catalogId: id })}
        />
      );
    case 'keyed':
      return <Keyed part={part} at={at} parents={others} registers={registers} onChange={onChange} />;
  }
}

interface KeyedProps {
  readonly part: KeyedPart;
  readonly at: number;
  readonly parents: BuildView['catalogs'];
  readonly registers: readonly (RegisterView & { readonly place: string })[];
  onChange(part: KeyedPart): void;
}

/** Entries under the values of a catalog: which entries, which field names the parent, and by what. */
function Keyed({ part, at, parents, registers, onChange }: KeyedProps) {
  const companions = useCatalogItemsQuery(part.catalogId).data?.companions ?? [];
  const register = registers.find(({ id }) => id === part.registerId);
  const fields = register?.fields.map(({ key, heading }) => [key, heading] as const) ?? [];
  return (
    <Stack gap="1.5">
      <Select
        label={`Sheet of part ${at + 1}`}
        value={part.registerId}
        options={registers.map(({ id, place }) => [id, place])}
        onChoose={(registerId) =>
          onChange({ ...part, ...firstFields(registers.find(({ id }) => id === registerId)), registerId, label: null, companions: [] })
        }
      />
      <Select
        label={`Value of part ${at + 1}`}
        value={part.value}
        options={fields.map(([key, heading]) => [key, `value: ${heading}`])}
        onChoose={(value) => onChange({ ...part, value })}
      />
      <Select
        label={`Parents of part ${at + 1}`}
        value={part.catalogId}
        options={parents.map(({ id, title }) => [id, `under the values of ${title}`])}
        onChoose={(catalogId) => onChange({ ...part, catalogId, by: null })}
      />
      <Select
        label={`Field that names the parent of part ${at + 1}`}
        value={part.key}
        options={fields.map(([key, heading]) => [key, `named in ${heading}`])}
        onChoose={(key) => onChange({ ...part, key })}
      />
      {companions.length > 0 && (
        <Select
          label={`How the parents of part ${at + 1} are named`}
          value={part.by ?? ''}
          options={[['', 'by their value'], ...companions.map(({ key, heading }) => [key, `by their ${heading}`] as const)]}
          onChoose={(by) => onChange({ ...part, by: by === '' ? null : by })}
        />
      )}
      {register && <Along part={part} fields={register.fields} taken={[part.value, part.key]} onChange={onChange} />}
    </Stack>
  );
}

/** The first field gives the value, the second one names the parent, until one chooses otherwise. */
const firstFields = (register: RegisterView | undefined): Pick<KeyedPart, 'key' | 'value'> => ({
  value: register?.fields[0]?.key ?? '',
  key: register?.fields[1]?.key ?? '',
});

/** The label and the companions that come along from the row. */
function Along<P extends RangePart | QueryPart | KeyedPart>({
  part,
  fields,
  taken,
  onChange,
}: {
  part: P;
  fields: readonly FieldView[];
  taken: readonly string[];
  onChange: (part: P) => void;
}) {
  const others = fields.filter(({ key }) => !taken.includes(key));
  const toggle = (key: string, on: boolean) =>
    onChange({ ...part, companions: on ? [...part.companions, key] : part.companions.filter((known) => known !== key) });
  return (
    <>
      <Select
        label="Shown instead of the value"
        value={part.label ?? ''}
        options={[['', 'shown as it is'], ...others.map(({ key, heading }) => [key, `shown as ${heading}`] as const)]}
        onChoose={(label) => onChange({ ...part, label: label === '' ? null : label })}
      />
      {others.length > 0 && (
        <HStack wrap="wrap" gap="2" role="group" aria-label="Comes along">
          <Text fontSize="xs" color="inkSoft">
            comes along:
          </Text>
          {others.map(({ key, heading }) => (
            <Checkbox.Root
              key={key}
              size="sm"
              checked={part.companions.includes(key)}
              onCheckedChange={(details) => toggle(key, details.checked === true)}
            >
              <Checkbox.HiddenInput />
              <Checkbox.Control borderColor="slate.border" />
              <Checkbox.Label fontSize="xs">{heading}</Checkbox.Label>
            </Checkbox.Root>
          ))}
        </HStack>
      )}
    </>
  );
}

function TypedValues({
  values,
  locale,
  label,
  onChange,
}: {
  values: readonly string[];
  locale: Locale;
  label: string;
  onChange: (values: readonly string[]) => void;
}) {
  const [text, setText] = useState(writeTypedList(values));
  const list = readTypedList(text, locale);
  const dropped = [
    list.blanks > 0 && `${list.blanks} blank`,
    list.repeats > 0 && `${list.repeats} ${list.repeats === 1 ? 'repeat' : 'repeats'}`,
  ]
    .filter(Boolean)
    .join(' and ');
  return (
    <Stack gap="1">
      <Textarea
        size="xs"
        rows={5}
        bg="card"
        borderColor="slate.border"
        aria-label={label}
        placeholder="Parted by commas, semicolons or lines"
        value={text}
        onChange={(event) => {
          setText(event.target.value);
          onChange(readTypedList(event.target.value, locale).values);
        }}
      />
      <Text fontSize="xs" color="inkSoft" role="status">
        {list.values.length} {list.values.length === 1 ? 'value' : 'values'}
        {dropped && `; ${dropped} left out`}
      </Text>
    </Stack>
  );
}

/** A new part of each kind that can be added now, with what it is called. */
export function newParts(build: BuildView, catalogId: string): readonly { readonly words: string; readonly part: CatalogPart }[] {
  const [range] = build.ranges;
  const register = build.sheets.flatMap((sheet) => sheet.registers).find(({ fields }) => fields.length > 0);
  const table = build.sheets.flatMap((sheet) => sheet.registers).find(({ fields }) => fields.length > 1);
  const [linked] = build.linked;
  const other = build.catalogs.find(({ id }) => id !== catalogId);
  return [
    ...(range ? [{ words: 'a range', part: { kind: 'range', join: 'or', rangeId: range.id, label: null, companions: [] } as const }] : []),
    ...(register
      ? [
          {
            words: 'entries of a sheet',
            part: {
              kind: 'query',
              join: 'or',
              registerId: register.id,
              value: register.fields[0]!.key,
              label: null,
              companions: [],
              filter: null,
            } as const,
          },
        ]
      : []),
    { words: 'typed values', part: { kind: 'typed', join: 'or', values: [] } },
    ...(linked ? [{ words: 'a linked source', part: { kind: 'linked', join: 'or', sourceId: linked.id } as const }] : []),
    ...(other ? [{ words: 'another catalog', part: { kind: 'catalog', join: 'or', catalogId: other.id } as const }] : []),
    ...(other && table
      ? [
          {
            words: 'entries under a catalog',
            part: {
              kind: 'keyed',
              join: 'or',
              catalogId: other.id,
              by: null,
              registerId: table.id,
              ...firstFields(table),
              label: null,
              companions: [],
            } as const,
          },
        ]
      : []),
    ...(other && range ? [{ words: 'ranges named by a catalog', part: { kind: 'named', join: 'or', catalogId: other.id } as const }] : []),
  ];
}

export function AddPart({ build, catalogId, onAdd }: { build: BuildView; catalogId: string; onAdd: (part: CatalogPart) => void }) {
  return (
    <HStack wrap="wrap" gap="1" role="group" aria-label="Add a part">
      <Text fontSize="xs" color="inkSoft">
        Add
      </Text>
      {newParts(build, catalogId).map(({ words, part }) => (
        <Button key={part.kind} size="2xs" onClick={() => onAdd(part)}>
          {words}
        </Button>
      ))}
    </HStack>
  );
}
