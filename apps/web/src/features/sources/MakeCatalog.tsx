// A catalog of a list or a table that nothing takes values from yet, in one act: range, catalog, and on to its fields.
import { Button, Heading, HStack, Stack, Text } from '@chakra-ui/react';
import { tableRoles, type TableRole } from '@dellum/core';
import type { BuildView } from '@dellum/contract';
import { useState } from 'react';
import { Check } from '../../frame/Check.js';
import { FormField } from '../../frame/FormField.js';
import { Select } from '../../frame/Select.js';
import { useMakeCatalog } from '../catalogs/useMakeCatalog.js';
import type { SourceRegister } from './useRegister.js';

const roleWords: readonly (readonly [TableRole, string])[] = [['level', 'is a level'], ['along', 'comes along'], ['out', 'is left out']];

export function MakeCatalog({ source, build }: { source: SourceRegister; build: BuildView }) {
  const { register, entries, isList } = source;
  const [title, setTitle] = useState(register.title);
  const [changed, setChanged] = useState<ReadonlyMap<string, TableRole>>(new Map());
  const [together, setTogether] = useState(false);
  const [working, setWorking] = useState(false);
  const sheet = build.sheets.find(({ id }) => id === register.sheetId);
  const lists = sheet?.registers.filter(({ fields }) => fields.length === 1) ?? [];
  const make = useMakeCatalog(build);
  const roles = new Map([...tableRoles(register.fields, entries), ...changed]);
  const having = (role: TableRole) => register.fields.filter(({ key }) => roles.get(key) === role).map(({ key }) => key);
  const levels = having('level');
  const save = async () => {
    setWorking(true);
    if (together) {
      if (!(await make.ofCells({ title, shape: 'headings', place: { registerIds: lists.map(({ id }) => id), fields: [], entries: [] }, companions: [] }))) setWorking(false);
      return;
    }
    const place = { registerIds: [register.id], fields: levels, entries: entries.map(({ id }) => id) };
    if (!(await make.ofCells({ title, shape: levels.length > 1 ? 'levels' : 'list', place, companions: isList ? [] : having('along') }))) setWorking(false);
  };
  return (
    <form
      noValidate
      aria-label="Make a catalog of it"
      onSubmit={(event) => {
        event.preventDefault();
        void save();
      }}
    >
      <Stack gap="2.5">
        <Heading as="h2" fontSize="md">
          Let fields take these values
        </Heading>
        <FormField label="Title of the catalog" value={title} onChange={(event) => setTitle(event.target.value)} />
        {isList && lists.length > 1 && (
          <Check
            label={`All ${lists.length} lists of this page together: first the heading, then what stands under it`}
            checked={together}
            set={(next) => {
              setTogether(next);
              setTitle(next ? (sheet?.title ?? title) : register.title);
            }}
          />
        )}
        {!isList &&
          register.fields.map(({ key, heading }) => (
            <HStack key={key} justify="space-between">
              <Text truncate>{heading}</Text>
              <Select label={`What ${heading} is in the catalog`} width="130px" value={roles.get(key) ?? 'out'} options={roleWords} onChoose={(role) => setChanged(new Map([...changed, [key, role as TableRole]]))} />
            </HStack>
          ))}
        <Button type="submit" size="sm" alignSelf="start" loading={working} disabled={(entries.length === 0 && !together) || levels.length === 0 || title.trim() === ''}>
          Make a catalog of it
        </Button>
        <Text fontSize="xs" color="inkSoft">
          {entries.length === 0 ? 'Type or paste some values first.' : 'What is added below later belongs to it, too.'}
        </Text>
      </Stack>
    </form>
  );
}
