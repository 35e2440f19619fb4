// All catalogs of the house, and the form for a new one.
import { Checkbox, Heading, Stack, Table, Text, Box } from '@chakra-ui/react';
import { endingInShort, endingOf, ofRanges, type CatalogPart } from '@dellum/core';
import { keeps, MakeCatalogDto, mayDesign, type BuildView, type CatalogView } from '@dellum/contract';
import { useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { ActButton } from '../../frame/ActButton.js';
import { FormField } from '../../frame/FormField.js';
import { ColumnHeadings } from '../../frame/ColumnHeadings.js';
import { EmptyState, Page, Waiting } from '../../frame/Page.js';
import { Way } from '../../frame/Way.js';
import { useMeQuery } from '../../data/sessionApi.js';
import { useBuildQuery } from '../../data/buildApi.js';
import { useCatalogLineageQuery, useMakeCatalogMutation } from '../../data/catalogsApi.js';
import { errorWords } from '../../data/problem.js';
import { useDtoForm } from '../../frame/useForm.js';
import { definitionDto } from './definitionDto.js';
import { partNames } from './partNames.js';
import { number } from '../../frame/written.js';

function NewCatalog({ build }: { build: BuildView }) {
  const [rangeIds, setRangeIds] = useState<readonly string[]>([]);
  const { register, fault, submit, problem, setValue, formState } = useDtoForm(MakeCatalogDto, {
    title: '',
    note: '',
    definition: definitionDto(ofRanges([])),
  });
  const [make] = useMakeCatalogMutation();
  const navigate = useNavigate();
  const save = submit(async (catalog) => {
    const { id } = await make(catalog).unwrap();
    await navigate(rangeIds.length === 0 ? `/catalogs/${id}?slip=compose` : `/catalogs/${id}`);
  });
  const feedBy = (ids: readonly string[]) => {
    setRangeIds(ids);
    setValue('definition', definitionDto(ofRanges(ids)));
  };
  const sheetOf = (range: BuildView['ranges'][number]) =>
    build.sheets.find((sheet) => sheet.registers.some(({ id }) => id === range.stretches[0]?.registerId))?.title;
  return (
    <form noValidate onSubmit={(event) => void save(event)}>
      <Heading as="h2" fontSize="md" mb="3">
        New catalog
      </Heading>
      <Stack gap="3">
        <FormField label="Title" fault={fault('title') ?? problem} {...register('title')} />
        <FormField label="What its values are, in one line" fault={fault('note')} {...register('note')} />
        {build.ranges.length > 0 && (
          <Stack role="group" aria-label="Fed by" gap="1.5">
            <Text fontWeight="medium">Fed by ranges, in this order</Text>
            {build.ranges.map((range) => (
              <Checkbox.Root
                key={range.id}
                size="sm"
                checked={rangeIds.includes(range.id)}
                onCheckedChange={({ checked }) =>
                  feedBy(checked === true ? [...rangeIds, range.id] : rangeIds.filter((id) => id !== range.id))
                }
              >
                <Checkbox.HiddenInput />
                <Checkbox.Control borderColor="slate.border" />
                <Checkbox.Label>
                  {range.name},{' '}
                  <Text as="span" color="inkSoft">
                    {sheetOf(range)}
                  </Text>
                </Checkbox.Label>
              </Checkbox.Root>
            ))}
          </Stack>
        )}
        <Text color="inkSoft" fontSize="xs">
          Typed values, entries of a sheet, linked sources and other catalogs are added on its own page.
        </Text>
        <ActButton variant="solid" type="submit" size="sm" alignSelf="start" loading={formState.isSubmitting}>
          Make the catalog
        </ActButton>
      </Stack>
    </form>
  );
}

/** What a part reads, in a few words; known from the build, so that the row does not grow when its numbers come. */
function feedWords(part: CatalogPart, build: BuildView): string {
  const names = partNames(build);
  switch (part.kind) {
    case 'typed':
      return `${part.values.length} typed`;
    case 'range': {
      const range = build.ranges.find(({ id }) => id === part.rangeId);
      return range ? `${range.name}, ${endingInShort(endingOf(range))}` : names.range(part.rangeId);
    }
    case 'query':
      return names.register(part.registerId);
    case 'linked':
      return names.linked(part.sourceId);
    case 'catalog':
      return names.catalog(part.catalogId);
    case 'keyed':
      return `${names.register(part.registerId)} under ${names.catalog(part.catalogId)}`;
    case 'named':
      return `ranges named by ${names.catalog(part.catalogId)}`;
  }
}

function CatalogRow({ catalog, build }: { catalog: CatalogView; build: BuildView }) {
  const { data: lineage } = useCatalogLineageQuery(catalog.id);
  const sum = (of: 'held' | 'outside') => lineage?.fields.reduce((total, field) => total + field[of], 0);
  const [held, outside] = [sum('held'), sum('outside')];
  return (
    <Table.Row bg="transparent">
      <Table.Cell fontWeight="bold" color="damson.fg">
        <Link to={`/catalogs/${catalog.id}`}>{catalog.title}</Link>
      </Table.Cell>
      <Table.Cell color="inkSoft">{catalog.note}</Table.Cell>
      <Table.Cell>{catalog.definition.parts.map((part) => feedWords(part, build)).join('; ')}</Table.Cell>
      <Table.Cell textAlign="end">{lineage && number.format(lineage.catalogs[0]?.offered ?? 0)}</Table.Cell>
      <Table.Cell textAlign="end">{lineage?.fields.length}</Table.Cell>
      <Table.Cell textAlign="end" minW="72px">
        {held !== undefined && number.format(held)}
      </Table.Cell>
      <Table.Cell textAlign="end" color={outside ? 'amber.fg' : 'inkSoft'}>
        {outside !== undefined && (outside > 0 ? number.format(outside) : 'none')}
      </Table.Cell>
    </Table.Row>
  );
}

const headings = [
  ['Catalog'],
  ['What its values are'],
  ['Fed by'],
  ['Offered', 'end'],
  ['Fields', 'end'],
  ['Entries', 'end'],
  ['Outside', 'end'],
] as const;

export function CatalogsPage() {
  const { data: build, error } = useBuildQuery();
  const { data: me } = useMeQuery();
  if (!build || !me) return <Waiting error={errorWords(error)} />;
  const designs = mayDesign(me.role);
  const catalogs = build.catalogs.filter((catalog) => keeps(me, catalog));
  return (
    <Page
      title="Catalogs"
      about={
        designs
          ? 'The central sets of allowed values. Change a value at its source and every field offers it at once.'
          : 'The catalogs in your care. Change a value here and every field offers it at once.'
      }
      slip={designs && <NewCatalog build={build} />}
    >
      {catalogs.length === 0 ? (
        designs ? (
          <EmptyState title="No catalogs yet">
            Keep a list <Way to="/sources">on a source sheet</Way>, and make a catalog of it there; or make an empty one at the right and
            type its values.
          </EmptyState>
        ) : (
          <EmptyState title="No catalog is in your care yet">An administrator entrusts one to you on its page.</EmptyState>
        )
      ) : (
        <Box p="5" overflowX="auto">
          <Table.Root size="sm">
            <ColumnHeadings headings={headings} />
            <Table.Body>
              {catalogs.map((catalog) => (
                <CatalogRow key={catalog.id} catalog={catalog} build={build} />
              ))}
            </Table.Body>
          </Table.Root>
        </Box>
      )}
    </Page>
  );
}
