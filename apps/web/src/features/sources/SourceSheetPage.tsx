// A source sheet: lists side by side, each independent of its neighbours, with the ranges over them.
import { Box, Button, Flex, Heading, HStack, Input, Stack, Text } from '@chakra-ui/react';
import type { BuildView, RegisterView, SheetView, Slip } from '@dellum/contract';
import { useState } from 'react';
import { useParams, useSearchParams } from 'react-router';
import { LineageStrip } from '../../frame/LineageStrip.js';
import { EmptyState, Page, Waiting } from '../../frame/Page.js';
import { useTry } from '../../frame/useNotice.js';
import type { Block } from '../../grid/index.js';
import { useRangeLineageQuery } from '../catalogs/catalogsApi.js';
import { useBuildQuery, useMakeListMutation } from '../sheets/buildApi.js';
import { SheetMenu } from '../sheets/SheetMenu.js';
import { ImpactSlip } from './ImpactSlip.js';
import { ListColumn } from './ListColumn.js';
import { ListSlip } from './ListSlip.js';
import { useSlipsQuery } from './sourcesApi.js';
import { useList } from './useList.js';
import { errorWords } from '../../api/problem.js';

const noSlips: readonly Slip[] = [];

export function SourceSheetPage() {
  const { sheetId } = useParams();
  const { data: build, error } = useBuildQuery();
  if (!build) return <Waiting error={errorWords(error)} />;
  const sheet = build.sheets.find(({ id, kind }) => id === sheetId && kind === 'source');
  if (!sheet) return <EmptyState title="This source sheet is not there">It may have been deleted. Choose another one under Sources.</EmptyState>;
  return <SourceSheet key={sheet.id} sheet={sheet} build={build} />;
}

interface Chosen {
  readonly registerId: string;
  readonly block: Block;
}

function SourceSheet({ sheet, build }: { sheet: SheetView; build: BuildView }) {
  const [search, setSearch] = useSearchParams();
  const { data: slips = noSlips } = useSlipsQuery();
  const named = build.ranges.find(({ id }) => id === search.get('range'));
  const [selected, setSelected] = useState<Chosen>();
  const registerId = selected?.registerId ?? named?.registerId ?? sheet.registers[0]?.id;
  const register = sheet.registers.find(({ id }) => id === registerId);
  const ranges = build.ranges.filter((range) => range.registerId === registerId);
  const range = ranges.find(({ id }) => id === named?.id) ?? ranges[0];
  const { data: lineage } = useRangeLineageQuery(range?.id ?? '', { skip: !range });
  const waiting = slips.find(({ proposal }) => sheet.registers.some(({ id }) => id === proposal.registerId));
  const row = Number(search.get('row') ?? 0);
  const block = selected?.block ?? (row > 0 ? { top: row - 1, bottom: row - 1, left: 0, right: 0 } : undefined);

  const choose = (id: string, next: Block) => {
    setSelected({ registerId: id, block: next });
    if (search.size > 0) setSearch({}, { replace: true });
  };
  return (
    <Page
      title={sheet.title}
      about={sheet.note || 'A source sheet: lists side by side, each on its own.'}
      strip={range && lineage && <LineageStrip lineage={lineage} />}
      actions={<SheetMenu sheet={sheet} />}
      slip={waiting ? <ImpactSlip key={waiting.id} slip={waiting} build={build} /> : register && <Slipped key={register.id} register={register} build={build} slips={slips} block={block} chosenRange={range?.id} />}
    >
      <Flex p="5" gap="4" align="start" minW="max-content">
        {sheet.registers.map((list) => (
          <Listed key={list.id} register={list} build={build} slips={slips} chosen={list.id === registerId} chosenRange={list.id === registerId ? range?.id : undefined} onSelect={(next) => choose(list.id, next)} />
        ))}
        <NewList sheet={sheet} />
      </Flex>
    </Page>
  );
}

interface ListedProps {
  readonly register: RegisterView;
  readonly build: BuildView;
  readonly slips: readonly Slip[];
  readonly chosen: boolean;
  readonly chosenRange: string | undefined;
  onSelect(block: Block): void;
}

function Listed({ register, build, slips, chosen, chosenRange, onSelect }: ListedProps) {
  const list = useList(register, build, slips);
  return list ? <ListColumn list={list} chosen={chosen} chosenRange={chosenRange} onSelect={onSelect} /> : <Waiting />;
}

function Slipped({ register, build, slips, block, chosenRange }: { register: RegisterView; build: BuildView; slips: readonly Slip[]; block: Block | undefined; chosenRange: string | undefined }) {
  const list = useList(register, build, slips);
  return list ? <ListSlip list={list} build={build} block={block} chosenRange={chosenRange} /> : <Waiting />;
}

function NewList({ sheet }: { sheet: SheetView }) {
  const [heading, setHeading] = useState('');
  const [make] = useMakeListMutation();
  const attempt = useTry();
  const save = async () => {
    if (await attempt(make({ sheetId: sheet.id, heading }).unwrap())) setHeading('');
  };
  return (
    <Box as="section" aria-label="New list" w="170px" borderWidth="1px" borderStyle="dashed" borderColor="line" rounded="l3" p="3">
      <form
        onSubmit={(event) => {
          event.preventDefault();
          void save();
        }}
      >
        <Stack gap="2">
          <Heading as="h2" fontSize="sm">
            New list
          </Heading>
          {sheet.registers.length === 0 && <Text color="inkSoft">Begin with a heading, then type or paste the values under it.</Text>}
          <HStack>
            <Input size="xs" borderColor="slate.border" placeholder="Heading" aria-label="Heading of the new list" value={heading} onChange={(event) => setHeading(event.target.value)} />
            <Button type="submit" size="xs" variant="outline" disabled={heading.trim() === ''}>
              Add
            </Button>
          </HStack>
        </Stack>
      </form>
    </Box>
  );
}
