// A catalog: its values in order, where each comes from, and how many entries hold it.
import { Badge, Box, Button, Heading, HStack, Input, Stack, Table, Text } from '@chakra-ui/react';
import { search, searchIndex, compileCatalog, type Item } from '@dellum/core';
import { ChangeCatalogDto, type BuildView, type CatalogView } from '@dellum/contract';
import { useDeferredValue, useMemo, useState } from 'react';
import { Link, useNavigate, useParams, useSearchParams } from 'react-router';
import { FormField } from '../../frame/FormField.js';
import { LineageStrip } from '../../frame/LineageStrip.js';
import { EmptyState, Page, Waiting } from '../../frame/Page.js';
import { useDtoForm } from '../../frame/useForm.js';
import { useNotice, useTry } from '../../frame/useNotice.js';
import { Marked } from '../../picker/Marked.js';
import { useBuildQuery } from '../sheets/buildApi.js';
import { ImpactSlip } from '../sources/ImpactSlip.js';
import { useSlipsQuery } from '../sources/sourcesApi.js';
import { useCatalogItemsQuery, useCatalogLineageQuery, useCatalogUseQuery, useChangeCatalogMutation, useDeleteCatalogMutation } from './catalogsApi.js';
import { errorWords } from '../../api/problem.js';

const number = new Intl.NumberFormat('en-GB');
const mostShown = 500;

export function CatalogPage() {
  const { catalogId = '' } = useParams();
  const { data: build, error } = useBuildQuery();
  if (!build) return <Waiting error={errorWords(error)} />;
  const catalog = build.catalogs.find(({ id }) => id === catalogId);
  if (!catalog) return <EmptyState title="This catalog is not there">It may have been deleted. Choose another one under Catalogs.</EmptyState>;
  return <CatalogDetail key={catalog.id} catalog={catalog} build={build} />;
}

function CatalogDetail({ catalog, build }: { catalog: CatalogView; build: BuildView }) {
  const [address] = useSearchParams();
  const [query, setQuery] = useState(address.get('value') ?? '');
  const { data: items, error } = useCatalogItemsQuery(catalog.id);
  const { data: use } = useCatalogUseQuery(catalog.id);
  const { data: lineage } = useCatalogLineageQuery(catalog.id);
  const { data: slips } = useSlipsQuery();
  const wanted = useDeferredValue(query);
  const shown = useMemo(() => {
    if (!items) return [];
    const all = searchIndex(compileCatalog(items.id, items.title, items.items.map((item) => ({ ...item, state: 'offered' as const }))));
    const states = new Map(items.items.map((item) => [item.value, item]));
    return search(all, wanted, mostShown).matches.map(({ item, spans }) => ({ item: states.get(item.value)!, spans }));
  }, [items, wanted]);
  if (!items) return <Waiting error={errorWords(error)} />;
  const slip = slips?.find(({ questions }) => questions.some((question) => question.catalogId === catalog.id));
  const most = Math.max(1, ...Object.values(use?.entries ?? {}));
  return (
    <Page
      title={catalog.title}
      about={catalog.note || 'A catalog of allowed values.'}
      strip={lineage && <LineageStrip lineage={lineage} />}
      slip={slip ? <ImpactSlip key={slip.id} slip={slip} build={build} /> : <CatalogSlip catalog={catalog} build={build} />}
    >
      <Box p="5">
        <HStack mb="3" justify="space-between">
          <Input size="xs" maxW="260px" borderColor="slate.border" placeholder="Find a value" aria-label="Find a value" value={query} onChange={(event) => setQuery(event.target.value)} />
          <Text color="inkSoft">
            {number.format(shown.length)} of {number.format(items.items.length)} shown
          </Text>
        </HStack>
        {items.items.length === 0 ? (
          <EmptyState title="Nothing is offered yet">The ranges that feed this catalog hold no values. Type one into the list and it is offered at once.</EmptyState>
        ) : (
          <Table.Root size="sm" aria-label={`Values of ${catalog.title}`}>
            <Table.Header>
              <Table.Row bg="transparent">
                {['Value', 'Other names', 'From', 'In entries', 'State'].map((heading) => (
                  <Table.ColumnHeader key={heading} color="inkSoft">
                    {heading}
                  </Table.ColumnHeader>
                ))}
              </Table.Row>
            </Table.Header>
            <Table.Body>
              {shown.map(({ item, spans }) => (
                <Table.Row key={item.value} bg="transparent">
                  <Table.Cell fontWeight="bold">
                    <Marked text={item.label} spans={spans} />
                  </Table.Cell>
                  <Table.Cell color={item.otherNames.length > 0 ? 'ink' : 'inkSoft'}>{item.otherNames.join(', ') || 'none'}</Table.Cell>
                  <Table.Cell color="inkSoft">
                    <Origin item={item} build={build} />
                  </Table.Cell>
                  <Table.Cell>
                    <Bar count={use?.entries[item.value] ?? 0} most={most} />
                  </Table.Cell>
                  <Table.Cell>
                    <Badge colorPalette={item.state === 'offered' ? 'growth' : 'slate'} variant="subtle">
                      {item.state}
                    </Badge>
                  </Table.Cell>
                </Table.Row>
              ))}
            </Table.Body>
          </Table.Root>
        )}
      </Box>
    </Page>
  );
}

/** The rows an item comes from, as a way back to them. */
function Origin({ item, build }: { item: Item; build: BuildView }) {
  const first = item.from[0];
  if (!first) return <>kept by hand</>;
  const range = build.ranges.find(({ id }) => id === first.rangeId);
  const sheet = build.sheets.find((known) => known.registers.some(({ id }) => id === range?.registerId));
  const rows = item.from.flatMap(({ rows: own }) => own.map(({ ordinal }) => ordinal + 1));
  return (
    <Box asChild textDecoration="underline" textUnderlineOffset="3px">
      <Link to={`/sources/${sheet?.id ?? ''}?range=${first.rangeId}&row=${rows[0]!}`}>
        {rows.length === 1 ? 'row' : 'rows'} {rows.slice(0, 3).join(', ')}
        {rows.length > 3 && ` and ${rows.length - 3} more`} of {range?.name}
      </Link>
    </Box>
  );
}

function Bar({ count, most }: { count: number; most: number }) {
  return (
    <HStack gap="2">
      <Box w="90px" h="8px" aria-hidden>
        <Box h="100%" w={`${(count / most) * 100}%`} minW={count > 0 ? '3px' : '0'} bg="damson.solid" opacity="0.75" rounded="2px" />
      </Box>
      <span>{number.format(count)}</span>
    </HStack>
  );
}

function CatalogSlip({ catalog, build }: { catalog: CatalogView; build: BuildView }) {
  const { register, fault, submit, problem, formState } = useDtoForm(ChangeCatalogDto, { title: catalog.title, note: catalog.note });
  const [change] = useChangeCatalogMutation();
  const [remove] = useDeleteCatalogMutation();
  const attempt = useTry();
  const notice = useNotice();
  const navigate = useNavigate();
  const save = submit(async (values) => {
    await change({ id: catalog.id, change: values }).unwrap();
    notice('done', 'The catalog is renamed wherever it stands.');
  });
  const drop = async () => {
    if (!(await attempt(remove(catalog.id).unwrap().then(() => true)))) return;
    notice('done', `The catalog ${catalog.title} is deleted.`);
    await navigate('/catalogs');
  };
  const ranges = catalog.rangeIds.map((id) => build.ranges.find((range) => range.id === id)).filter((range) => range !== undefined);
  return (
    <Stack gap="4">
      <Box>
        <Heading as="h2" fontSize="lg">
          {catalog.title}
        </Heading>
        <Text color="inkSoft">
          key <Text as="span" fontFamily="mono">{catalog.key}</Text>
        </Text>
      </Box>
      <Text fontSize="md" lineHeight="1.8">
        Offers the values of <b>{ranges.map(({ name }) => name).join(', then ')}</b>, in the order of the source; repeats stand once. A value typed there is offered here at once.
      </Text>
      <form noValidate onSubmit={(event) => void save(event)}>
        <Stack gap="3">
          <FormField label="Title" fault={fault('title') ?? problem} {...register('title')} />
          <FormField label="What its values are" fault={fault('note')} {...register('note')} />
          <HStack>
            <Button type="submit" size="xs" variant="outline" disabled={!formState.isDirty}>
              Rename
            </Button>
            <Button size="xs" variant="outline" colorPalette="brick" onClick={() => void drop()}>
              Delete the catalog
            </Button>
          </HStack>
        </Stack>
      </form>
    </Stack>
  );
}
