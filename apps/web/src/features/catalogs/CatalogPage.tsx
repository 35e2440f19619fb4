// A catalog: its values in order or as a tree, where each comes from, how many entries hold it; slips to change it.
import { Button, Flex, HStack, Input, Text } from '@chakra-ui/react';
import { format, itemKey, itemsAtLevel, levelsOf, type Item } from '@dellum/core';
import { keeps, mayDesign, type BuildView, type CatalogView, type Me } from '@dellum/contract';
import { useDeferredValue, useMemo, useState, type ReactNode } from 'react';
import { useParams } from 'react-router';
import { errorWords } from '../../data/problem.js';
import { LineageStrip } from '../../frame/LineageStrip.js';
import { EmptyState, Page, Waiting } from '../../frame/Page.js';
import { Way } from '../../frame/Way.js';
import { usePanel } from '../../frame/usePanel.js';
import { useMeQuery } from '../../data/sessionApi.js';
import { useBuildQuery } from '../../data/buildApi.js';
import { ImpactSlip } from '../acts/ImpactSlip.js';
import { CatalogFileSlip } from '../exchange/CatalogFileSlip.js';
import { useSlipsQuery } from '../../data/sourcesApi.js';
import { UseForFields } from '../bindings/UseForFields.js';
import { AddItem } from './AddItem.js';
import { CatalogSlip, KeptSlip } from './CatalogSlip.js';
import { useCatalogAsOfQuery, useCatalogItemsQuery, useCatalogLineageQuery, useCatalogUseQuery } from '../../data/catalogsApi.js';
import { ComposeSlip } from './ComposeSlip.js';
import { HistorySlip } from './HistorySlip.js';
import { itemRows } from './itemRows.js';
import { ItemSlip } from './ItemSlip.js';
import { ItemTable } from './ItemTable.js';
import { unpacked } from '../../data/unpacked.js';
import { number } from '../../frame/written.js';

const noUse = {};

/** "12 values", "12 values in 3 groups", "8 values, 1 of them retired" */
function countWords(items: readonly Item[]): string {
  const deepest = itemsAtLevel(items);
  const values = deepest.length;
  const retired = deepest.filter(({ state }) => state === 'retired').length;
  const groups = items.filter(({ path }) => path.length === 0).length;
  const words = `${number.format(values)} ${values === 1 ? 'value' : 'values'}`;
  const grouped = levelsOf(items) > 1 ? ` in ${number.format(groups)} ${groups === 1 ? 'group' : 'groups'}` : '';
  return `${words}${grouped}${retired === 0 ? '' : `, ${number.format(retired)} of them retired`}`;
}

export function CatalogPage() {
  const { catalogId = '' } = useParams();
  const { data: build, error } = useBuildQuery();
  const { data: me } = useMeQuery();
  if (!build || !me) return <Waiting error={errorWords(error)} />;
  const catalog = build.catalogs.find(({ id }) => id === catalogId);
  if (!catalog || !keeps(me, catalog))
    return (
      <EmptyState title="This catalog is not there">
        It may have been deleted, or it is not in your care. <Way to="/catalogs">Choose another one</Way>
      </EmptyState>
    );
  return <CatalogDetail key={catalog.id} catalog={catalog} build={build} me={me} />;
}

const hasPanel = (params: URLSearchParams) => ['slip', 'item'].some((name) => params.has(name));

function CatalogDetail({ catalog, build, me }: { catalog: CatalogView; build: BuildView; me: Me }) {
  const [address, show] = usePanel(hasPanel);
  const [query, setQuery] = useState(address.get('value') ?? '');
  const [open, setOpen] = useState<ReadonlySet<string>>(new Set());
  const day = address.get('day') ?? undefined;
  const { data: loaded, error } = useCatalogItemsQuery(catalog.id);
  const now = loaded && unpacked(loaded);
  const { data: then } = useCatalogAsOfQuery({ id: catalog.id, day: day ?? '' }, { skip: !day });
  const { data: use } = useCatalogUseQuery(catalog.id);
  const { data: lineage } = useCatalogLineageQuery(catalog.id);
  const { data: slips } = useSlipsQuery();
  const items = day ? then : now;
  const wanted = useDeferredValue(query);
  const { rows, found } = useMemo(() => (items ? itemRows(items, wanted, open) : { rows: [], found: 0 }), [items, wanted, open]);
  if (!items || !now) return <Waiting error={errorWords(error)} />;

  const close = () => show({ slip: undefined, item: undefined, day: undefined });
  const waiting = slips?.find(
    ({ questions, proposal }) =>
      questions.some(({ catalogId }) => catalogId === catalog.id) ||
      proposal.steps.some((step) => 'catalogId' in step && step.catalogId === catalog.id),
  );
  const chosen = address.get('item') ?? undefined;
  const item = chosen === undefined ? undefined : now.items.find((known) => itemKey(known) === chosen);
  const slipOf = (): ReactNode => {
    if (waiting) return <ImpactSlip key={waiting.id} slip={waiting} build={build} />;
    if (item)
      return (
        <ItemSlip
          item={item}
          catalog={catalog}
          items={now}
          held={use?.entries[item.value] ?? 0}
          levels={levelsOf(now.items)}
          me={me}
          close={close}
        />
      );
    if (address.get('slip') === 'compose' && mayDesign(me.role))
      return <ComposeSlip key={catalog.version} catalog={catalog} items={now} build={build} me={me} close={close} />;
    if (address.get('slip') === 'use' && mayDesign(me.role)) return <UseForFields catalog={catalog} build={build} me={me} close={close} />;
    if (address.get('slip') === 'history')
      return (
        <HistorySlip
          catalog={catalog}
          day={day}
          today={me.house.today}
          takesBack={mayDesign(me.role)}
          onDay={(next) => show({ day: next })}
          close={close}
        />
      );
    if (address.get('slip') === 'download') return <CatalogFileSlip catalog={catalog} close={close} />;
    if (!mayDesign(me.role)) return <KeptSlip catalog={catalog} />;
    return <CatalogSlip catalog={catalog} items={now} build={build} compose={() => show({ slip: 'compose' })} />;
  };
  const toggle = (key: string) => setOpen(new Set(open.has(key) ? [...open].filter((known) => known !== key) : [...open, key]));
  return (
    <Page
      title={catalog.title}
      about={day ? `As it stood on ${format('date', day, me.house.locale)}.` : catalog.note || 'A catalog of allowed values.'}
      strip={lineage && <LineageStrip lineage={lineage} />}
      actions={
        <>
          {mayDesign(me.role) && (
            <>
              <Button onClick={() => show({ slip: 'use', item: undefined })}>Use it for fields</Button>
              <Button onClick={() => show({ slip: 'compose', item: undefined })}>How it is composed</Button>
            </>
          )}
          <Button onClick={() => show({ slip: 'history', item: undefined })}>History</Button>
          <Button onClick={() => show({ slip: 'download', item: undefined })}>Download</Button>
        </>
      }
      slip={slipOf()}
    >
      <Flex direction="column" h="100%" px="5" pt="4">
        <HStack mb="2" justify="space-between" wrap="wrap" gap="2">
          <HStack gap="2" wrap="wrap">
            <Input
              size="xs"
              w="200px"
              borderColor="slate.border"
              placeholder="Find a value"
              aria-label="Find a value"
              value={query}
              onChange={(event) => setQuery(event.target.value)}
            />
            {!day && <AddItem catalog={catalog} path={[]} first={!mayDesign(me.role)} />}
          </HStack>
          <Text color="inkSoft">{query.trim() === '' ? countWords(items.items) : `${number.format(found)} found`}</Text>
        </HStack>
        {items.items.length === 0 ? (
          <EmptyState title={catalog.faulty ? 'How this catalog is composed cannot be read' : 'Nothing is offered yet'}>
            {catalog.faulty
              ? 'It offers nothing until it is composed anew; an administrator does that, or deletes it. All else in the house goes on.'
              : catalog.definition.parts.length === 0
                ? 'Type its values above, one after the other; or say how it is composed: of ranges, entries of a sheet, linked sources or other catalogs.'
                : 'What feeds this catalog holds no values. Type one into the list and it is offered at once.'}
          </EmptyState>
        ) : (
          <ItemTable
            title={catalog.title}
            rows={rows}
            companions={items.companions}
            use={use?.entries ?? noUse}
            bound={(lineage?.fields.length ?? 0) > 0}
            build={build}
            me={me}
            day={day}
            open={open}
            chosen={chosen}
            onOpen={toggle}
            onChoose={(one) => show({ item: itemKey(one), slip: undefined })}
          />
        )}
      </Flex>
    </Page>
  );
}
