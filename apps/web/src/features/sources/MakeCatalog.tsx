// A catalog of a list or a table that nothing takes values from yet, in one act: range, catalog, and on to its fields.
import { Heading, HStack, Stack, Text } from '@chakra-ui/react';
import { namingField, tableRoles, type TableRole } from '@dellum/core';
import type { BuildView } from '@dellum/contract';
import { useMemo, useState } from 'react';
import { ActButton } from '../../frame/ActButton.js';
import { Check } from '../../frame/Check.js';
import { FormField } from '../../frame/FormField.js';
import { Select } from '../../frame/Select.js';
import { useItems } from '../../data/useItems.js';
import { useMakeCatalog } from '../ranges/useMakeCatalog.js';
import type { SourceRegister } from '../acts/useRegister.js';

const roleWords: readonly (readonly [TableRole, string])[] = [
  ['level', 'is a level'],
  ['label', 'is shown for it'],
  ['along', 'comes along'],
  ['out', 'is left out'],
];
const alone = '';

export function MakeCatalog({ source, build }: { source: SourceRegister; build: BuildView }) {
  const { register, entries, isList } = source;
  const [title, setTitle] = useState(register.title);
  const [changed, setChanged] = useState<ReadonlyMap<string, TableRole>>(new Map());
  const [together, setTogether] = useState(false);
  const [working, setWorking] = useState(false);
  const [chosen, setUnder] = useState<string>();
  const sheet = build.sheets.find(({ id }) => id === register.sheetId);
  const lists = sheet?.registers.filter(({ fields }) => fields.length === 1) ?? [];
  const make = useMakeCatalog(build);
  const items = useItems(isList ? [] : build.catalogs.map(({ id }) => id));
  const naming = useMemo(
    () =>
      items.flatMap(({ id, items: own }) => {
        const field = namingField(
          register.fields,
          entries,
          own.items,
          own.companions.map(({ key }) => key),
        );
        return field ? [{ id, ...field }] : [];
      }),
    [items, register.fields, entries],
  );
  const proposed = [...naming].sort((a, b) => b.share - a.share)[0];
  const under = naming.find(({ id }) => id === (chosen ?? proposed?.id));
  const own = under ? register.fields.filter(({ key }) => key !== under.key) : register.fields;
  const roles = new Map([...tableRoles(own, entries), ...changed, ...(under ? [[under.key, 'out'] as const] : [])]);
  const having = (role: TableRole) => register.fields.filter(({ key }) => roles.get(key) === role).map(({ key }) => key);
  const levels = having('level');
  const save = async () => {
    setWorking(true);
    if (together) {
      if (
        !(await make.ofCells({
          title,
          shape: 'headings',
          place: { registerIds: lists.map(({ id }) => id), fields: [], entries: [] },
          companions: [],
        }))
      )
        setWorking(false);
      return;
    }
    const label = having('label')[0] ?? null;
    if (under) {
      const along = [...levels.slice(0, -1), ...having('along')];
      if (
        !(await make.ofRows({
          title,
          catalogId: under.id,
          registerId: register.id,
          key: under.key,
          by: under.by,
          value: levels.at(-1)!,
          label,
          companions: along,
        }))
      )
        setWorking(false);
      return;
    }
    const place = { registerIds: [register.id], fields: levels, entries: entries.map(({ id }) => id) };
    if (
      !(await make.ofCells({
        title,
        shape: levels.length > 1 ? 'levels' : 'list',
        place,
        companions: isList ? [] : having('along'),
        label,
      }))
    )
      setWorking(false);
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
            label={`${lists.length === 2 ? 'Both' : `All ${lists.length}`} lists of this page together: first the heading, then what stands under it`}
            checked={together}
            set={(next) => {
              setTogether(next);
              setTitle(next ? (sheet?.title ?? title) : register.title);
            }}
          />
        )}
        {naming.length > 0 && (
          <HStack justify="space-between">
            <Text>Its rows belong under</Text>
            <Select
              label="Its rows belong under"
              width="150px"
              value={under?.id ?? alone}
              options={[
                ...naming.map(
                  ({ id, key }) =>
                    [
                      id,
                      `${build.catalogs.find((known) => known.id === id)!.title}, by ${register.fields.find((field) => field.key === key)!.heading}`,
                    ] as const,
                ),
                [alone, 'nothing else'],
              ]}
              onChoose={setUnder}
            />
          </HStack>
        )}
        {!isList &&
          own.map(({ key, heading }) => (
            <HStack key={key} justify="space-between">
              <Text truncate>{heading}</Text>
              <Select
                label={`What ${heading} is in the catalog`}
                width="130px"
                value={roles.get(key) ?? 'out'}
                options={roleWords}
                onChoose={(role) => setChanged(new Map([...changed, [key, role as TableRole]]))}
              />
            </HStack>
          ))}
        <ActButton
          variant="solid"
          type="submit"
          size="sm"
          alignSelf="start"
          loading={working}
          disabled={(entries.length === 0 && !together) || levels.length === 0 || title.trim() === ''}
        >
          Make a catalog of it
        </ActButton>
        <Text fontSize="xs" color="inkSoft">
          {entries.length === 0 ? 'Type or paste some values first.' : 'What is added below later belongs to it, too.'}
        </Text>
      </Stack>
    </form>
  );
}
