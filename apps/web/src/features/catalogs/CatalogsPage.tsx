// All catalogs of the house, and the form for a new one.
import { Button, Checkbox, Heading, Stack, Table, Text, Box } from '@chakra-ui/react';
import { MakeCatalogDto, type BuildView, type CatalogView } from '@dellum/contract';
import { Controller } from 'react-hook-form';
import { Link, useNavigate } from 'react-router';
import { FormField } from '../../frame/FormField.js';
import { EmptyState, Page, Waiting } from '../../frame/Page.js';
import { useDtoForm } from '../../frame/useForm.js';
import { useBuildQuery } from '../sheets/buildApi.js';
import { useCatalogLineageQuery, useMakeCatalogMutation } from './catalogsApi.js';
import { errorWords } from '../../api/problem.js';

function NewCatalog({ build }: { build: BuildView }) {
  const { register, control, fault, submit, problem, formState } = useDtoForm(MakeCatalogDto, { title: '', note: '', rangeIds: [] });
  const [make] = useMakeCatalogMutation();
  const navigate = useNavigate();
  const save = submit(async (values) => {
    const { id } = await make(values).unwrap();
    await navigate(`/catalogs/${id}`);
  });
  const sheetOf = (registerId: string) => build.sheets.find((sheet) => sheet.registers.some(({ id }) => id === registerId))?.title;
  return (
    <form noValidate onSubmit={(event) => void save(event)}>
      <Heading as="h2" fontSize="md" mb="3">
        New catalog
      </Heading>
      {build.ranges.length === 0 ? (
        <Text color="inkSoft">A catalog is fed by named ranges, and there is none yet. Name one on a source sheet first.</Text>
      ) : (
        <Stack gap="3">
          <FormField label="Title" fault={fault('title') ?? problem} {...register('title')} />
          <FormField label="What its values are, in one line" fault={fault('note')} {...register('note')} />
          <Controller
            control={control}
            name="rangeIds"
            render={({ field: { value, onChange } }) => (
              <Stack role="group" aria-label="Fed by" gap="1.5">
                <Text fontWeight="medium">Fed by, in this order</Text>
                {build.ranges.map((range) => (
                  <Checkbox.Root key={range.id} size="sm" checked={value.includes(range.id)} onCheckedChange={({ checked }) => onChange(checked ? [...value, range.id] : value.filter((id: string) => id !== range.id))}>
                    <Checkbox.HiddenInput />
                    <Checkbox.Control borderColor="slate.border" />
                    <Checkbox.Label>
                      {range.name}, <Text as="span" color="inkSoft">{sheetOf(range.registerId)}</Text>
                    </Checkbox.Label>
                  </Checkbox.Root>
                ))}
                {fault('rangeIds') && <Text color="brick.fg" role="alert" fontSize="xs">{fault('rangeIds')}</Text>}
              </Stack>
            )}
          />
          <Button type="submit" size="sm" alignSelf="start" loading={formState.isSubmitting}>
            Make the catalog
          </Button>
        </Stack>
      )}
    </form>
  );
}

function CatalogRow({ catalog }: { catalog: CatalogView }) {
  const { data: lineage } = useCatalogLineageQuery(catalog.id);
  const counted = lineage?.catalogs[0];
  const held = lineage?.fields.reduce((sum, field) => sum + field.held, 0) ?? 0;
  const outside = lineage?.fields.reduce((sum, field) => sum + field.outside, 0) ?? 0;
  return (
    <Table.Row bg="transparent">
      <Table.Cell fontWeight="bold" color="damson.fg">
        <Link to={`/catalogs/${catalog.id}`}>{catalog.title}</Link>
      </Table.Cell>
      <Table.Cell color="inkSoft">{catalog.note}</Table.Cell>
      <Table.Cell>{lineage?.ranges.map((range) => `${range.name}, ${range.ends}`).join('; ')}</Table.Cell>
      <Table.Cell textAlign="end">{counted?.offered}</Table.Cell>
      <Table.Cell textAlign="end">{lineage?.fields.length}</Table.Cell>
      <Table.Cell textAlign="end">{held.toLocaleString('en-GB')}</Table.Cell>
      <Table.Cell textAlign="end" color={outside > 0 ? 'amber.fg' : 'inkSoft'}>
        {outside > 0 ? outside.toLocaleString('en-GB') : 'none'}
      </Table.Cell>
    </Table.Row>
  );
}

const headings = [['Catalog'], ['What its values are'], ['Fed by'], ['Offered', 'end'], ['Fields', 'end'], ['Entries', 'end'], ['Outside', 'end']] as const;

export function CatalogsPage() {
  const { data: build, error } = useBuildQuery();
  if (!build) return <Waiting error={errorWords(error)} />;
  return (
    <Page title="Catalogs" about="The central sets of allowed values. Change a value at its source and every field offers it at once." slip={<NewCatalog build={build} />}>
      {build.catalogs.length === 0 ? (
        <EmptyState title="No catalogs yet">Keep a list on a source sheet, name a range over it, then make a catalog of it here.</EmptyState>
      ) : (
        <Box p="5" overflowX="auto">
          <Table.Root size="sm">
            <Table.Header>
              <Table.Row bg="transparent">
                {headings.map(([words, align]) => (
                  <Table.ColumnHeader key={words} color="inkSoft" textAlign={align}>
                    {words}
                  </Table.ColumnHeader>
                ))}
              </Table.Row>
            </Table.Header>
            <Table.Body>
              {build.catalogs.map((catalog) => (
                <CatalogRow key={catalog.id} catalog={catalog} />
              ))}
            </Table.Body>
          </Table.Root>
        </Box>
      )}
    </Page>
  );
}
