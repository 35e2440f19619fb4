// The slip of a catalog as a whole: how it is composed in one sentence, where it is used, its title.
import { Box, Button, Heading, HStack, Stack, Text } from '@chakra-ui/react';
import { catalogIdOf, catalogSentence, rangesOf } from '@dellum/core';
import { ChangeCatalogDto, type BuildView, type CatalogItems, type CatalogView } from '@dellum/contract';
import { Link } from 'react-router';
import { Check } from '../../frame/Check.js';
import { FormField } from '../../frame/FormField.js';
import { useDtoForm } from '../../frame/useForm.js';
import { Way } from '../../frame/Way.js';
import { useArrive, useNotice, useTry } from '../../frame/useNotice.js';
import { usePeopleQuery } from '../../data/peopleApi.js';
import { leftOutWords } from '../ranges/RangeCard.js';
import { cureOf } from '../ranges/RangeFindings.js';
import { useCureMutation, useRangeLinesQuery } from '../../data/rangesApi.js';
import { placeOfRange } from '../ranges/placeOfRange.js';
import { useTold } from '../acts/useRegister.js';
import { useChangeCatalogMutation, useDeleteCatalogMutation, useEntrustCatalogMutation } from '../../data/catalogsApi.js';
import { itemFieldName, partNames } from './partNames.js';

interface CatalogSlipProps {
  readonly catalog: CatalogView;
  readonly items: CatalogItems;
  readonly build: BuildView;
  compose(): void;
}

export function CatalogSlip({ catalog, items, build, compose }: CatalogSlipProps) {
  const { register, fault, submit, problem, formState } = useDtoForm(ChangeCatalogDto, { title: catalog.title, note: catalog.note });
  const [change] = useChangeCatalogMutation();
  const [remove] = useDeleteCatalogMutation();
  const attempt = useTry();
  const notice = useNotice();
  const arrive = useArrive();
  const save = submit(async (values) => {
    await change({ id: catalog.id, change: values }).unwrap();
    notice('done', 'The catalog is renamed wherever it stands.');
  });
  const drop = async () => {
    if (
      !(await attempt(
        remove(catalog.id)
          .unwrap()
          .then(() => true),
      ))
    )
      return;
    arrive('/catalogs', `The catalog ${catalog.title} is deleted.`);
  };
  return (
    <Stack gap="4">
      <Box>
        <Heading as="h2" fontSize="lg">
          {catalog.title}
        </Heading>
        <Text color="inkSoft">
          key{' '}
          <Text as="span" fontFamily="mono">
            {catalog.key}
          </Text>
        </Text>
      </Box>
      <Text fontSize="md" lineHeight="1.8">
        {catalogSentence(catalog.definition, partNames(build), itemFieldName(items.companions))}
      </Text>
      <Button alignSelf="start" onClick={compose}>
        Change how it is composed
      </Button>
      <LeftOut catalog={catalog} build={build} />
      <KeptBy catalog={catalog} />
      <WhereUsed catalog={catalog} build={build} />
      <form noValidate onSubmit={(event) => void save(event)}>
        <Stack gap="3" borderTopWidth="1px" borderColor="line" pt="3">
          <FormField label="Title" fault={fault('title') ?? problem} {...register('title')} />
          <FormField label="What its values are" fault={fault('note')} {...register('note')} />
          <HStack>
            <Button type="submit" disabled={!formState.isDirty}>
              Rename
            </Button>
            <Button colorPalette="brick" onClick={() => void drop()}>
              Delete the catalog
            </Button>
          </HStack>
        </Stack>
      </form>
    </Stack>
  );
}

/** What stands in the ranges of the catalog and is not offered, why, and what takes it in. */
function LeftOut({ catalog, build }: { catalog: CatalogView; build: BuildView }) {
  const { data: lines } = useRangeLinesQuery();
  const [cure] = useCureMutation();
  const told = useTold();
  const ids = rangesOf(catalog.definition);
  const own = lines?.filter(({ id, leftOut, findings }) => ids.includes(id) && (leftOut.length > 0 || findings.length > 0)) ?? [];
  if (own.length === 0) return null;
  return (
    <Stack gap="2" role="group" aria-label="Left out">
      <Text fontWeight="bold">Left out</Text>
      {own.map((line) => {
        const range = build.ranges.find(({ id }) => id === line.id)!;
        return (
          <Stack key={line.id} gap="1.5">
            <Text>
              <Way to={placeOfRange(range, build).to}>{range.name}</Way>
              {line.leftOut.length > 0 && `, ${leftOutWords(line.leftOut)}`}
            </Text>
            {line.findings.map((finding) => (
              <Box key={finding.words} bg="amber.subtle" color="amber.fg" rounded="l2" px="3" py="2" role="note">
                <Text>{finding.words}</Text>
                {finding.cure && (
                  <Button
                    variant="plain"
                    px="0"
                    h="6"
                    fontWeight="bold"
                    color="damson.fg"
                    title={finding.cure.effect}
                    onClick={() => void told(cure(cureOf(finding)).unwrap())}
                  >
                    {finding.cure.words}
                  </Button>
                )}
              </Box>
            ))}
          </Stack>
        );
      })}
    </Stack>
  );
}

/** Who keeps the values, beside the administrators; chosen among the stewards of the house. */
function KeptBy({ catalog }: { catalog: CatalogView }) {
  const { data: people } = usePeopleQuery();
  const [entrust] = useEntrustCatalogMutation();
  const attempt = useTry();
  const stewards = people?.filter(({ role }) => role === 'steward') ?? [];
  const kept = catalog.stewards.map(({ id }) => id);
  const set = (id: string, on: boolean) =>
    void attempt(entrust({ id: catalog.id, people: on ? [...kept, id] : kept.filter((known) => known !== id) }).unwrap());
  return (
    <Stack gap="1" role="group" aria-label="Kept by">
      <Text fontWeight="bold">Kept by</Text>
      {stewards.length === 0 && (
        <Text color="inkSoft">
          Administrators only. Give somebody the role of a steward under <Way to="/people">People</Way>, then entrust the catalog here.
        </Text>
      )}
      {stewards.map(({ id, name }) => (
        <Check key={id} label={name} checked={kept.includes(id)} set={(on) => set(id, on)} />
      ))}
    </Stack>
  );
}

/** What a steward sees of the catalog as a whole. */
export function KeptSlip({ catalog }: { catalog: CatalogView }) {
  return (
    <Stack gap="3">
      <Heading as="h2" fontSize="lg">
        {catalog.title}
      </Heading>
      <Text>You keep its values. Add one above the table, or choose one to correct, retire or remove it.</Text>
      <Text color="inkSoft">Where it is bound and how it is composed is the administrator’s to change.</Text>
    </Stack>
  );
}

/** The fields and catalogs that depend on this one, as ways to them. */
function WhereUsed({ catalog, build }: { catalog: CatalogView; build: BuildView }) {
  const fields = build.sheets.flatMap((sheet) =>
    sheet.registers.flatMap((register) =>
      register.fields
        .filter(({ rule }) => catalogIdOf(rule) === catalog.id)
        .map((field) => ({ words: `${field.heading}, ${sheet.title}`, to: `/sheets/${sheet.id}?field=${field.key}` })),
    ),
  );
  const catalogs = build.catalogs
    .filter(({ definition }) => definition.parts.some((part) => 'catalogId' in part && part.catalogId === catalog.id))
    .map(({ id, title }) => ({ words: `the catalog ${title}`, to: `/catalogs/${id}` }));
  const users = [...fields, ...catalogs];
  return (
    <Box role="group" aria-label="Where used">
      <HStack justify="space-between">
        <Text fontWeight="bold">Where used</Text>
        <Box asChild color="damson.fg" fontWeight="bold" fontSize="xs">
          <Link to={`/map?catalog=${catalog.id}`}>See the map</Link>
        </Box>
      </HStack>
      {users.length === 0 && (
        <Text color="inkSoft">
          No field uses it yet. <Way to={`/catalogs/${catalog.id}?slip=use`}>Use it for fields</Way>
        </Text>
      )}
      <Stack as="ul" gap="0.5" listStyleType="none">
        {users.map(({ words, to }) => (
          <li key={to}>
            <Box asChild color="damson.fg" textDecoration="underline" textUnderlineOffset="3px">
              <Link to={to}>{words}</Link>
            </Box>
          </li>
        ))}
      </Stack>
    </Box>
  );
}
