// How a catalog is composed: its parts in order, a filter, what counts as a repeat, the order; tried at once as one changes it.
import { Box, Button, HStack, Stack, Text } from '@chakra-ui/react';
import { catalogSentence, type CatalogDefinition, type CatalogOrder, type CatalogPart, type Distinct } from '@dellum/core';
import { definitionMark, type BuildView, type CatalogItems, type CatalogView, type Me } from '@dellum/contract';
import { errorWords } from '../../data/problem.js';
import { ActButton } from '../../frame/ActButton.js';
import { SlipHead } from '../../frame/SlipHead.js';
import { ChangedMeanwhile } from '../../frame/ChangedMeanwhile.js';
import { useHalfMade } from '../../frame/useHalfMade.js';
import { useNotice } from '../../frame/useNotice.js';
import { useTold } from '../acts/useRegister.js';
import { useDefineCatalogMutation, useDefinitionTrialQuery } from '../../data/catalogsApi.js';
import { definitionDto } from './definitionDto.js';
import { FilterEditor } from '../filters/FilterEditor.js';
import { itemFieldName, partNames } from './partNames.js';
import { Select } from '../../frame/Select.js';
import { AddPart, PartEditor } from './PartEditor.js';
import { number } from '../../frame/written.js';

interface ComposeSlipProps {
  readonly catalog: CatalogView;
  readonly items: CatalogItems;
  readonly build: BuildView;
  readonly me: Me;
  close(): void;
}

const distinctWords: { readonly [D in Distinct]: string } = { value: 'repeats stand once', spelling: 'spellings of one value stand once' };

export function ComposeSlip({ catalog, items, build, me, close }: ComposeSlipProps) {
  const half = useHalfMade(`catalog ${catalog.id}`, definitionMark(catalog.definition));
  const definition = half.value ?? catalog.definition;
  const [define, { isLoading }] = useDefineCatalogMutation();
  const { data: trial, error } = useDefinitionTrialQuery({ id: catalog.id, definition: definitionDto(definition) });
  const told = useTold();
  const notice = useNotice();
  const companions = trial?.companions ?? items.companions;
  const changed = JSON.stringify(definition) !== JSON.stringify(catalog.definition);
  const set = (change: Partial<CatalogDefinition>) => half.set({ ...definition, ...change });
  const setPart = (at: number, part: CatalogPart) => set({ parts: definition.parts.map((known, place) => (place === at ? part : known)) });
  const movePart = (at: number, by: -1 | 1) => {
    const parts = [...definition.parts];
    [parts[at], parts[at + by]] = [parts[at + by]!, parts[at]!];
    set({ parts });
  };
  const save = async () => {
    const request = define({ id: catalog.id, definition: { ...definitionDto(definition), seen: half.seen } }).unwrap();
    if (!(await told(request))) return;
    half.drop();
    if (!(await request).slip) notice('done', `${catalog.title} is composed so from now on.`);
    close();
  };
  return (
    <Stack gap="3" role="region" aria-label="How it is composed">
      <SlipHead title="How it is composed" close={close} />
      {half.isOutdated && (
        <ChangedMeanwhile
          words={`Somebody else has composed ${catalog.title} anew since you began.`}
          startFromTheirs={half.drop}
          keepMine={half.keepMine}
        />
      )}
      <Text lineHeight="1.7">{catalogSentence(definition, partNames(build), itemFieldName(companions))}</Text>
      {definition.parts.map((part, at) => (
        <PartEditor
          key={`${at} ${part.kind}`}
          part={part}
          at={at}
          count={definition.parts.length}
          build={build}
          catalogId={catalog.id}
          locale={me.house.locale}
          onChange={(next) => setPart(at, next)}
          onMove={(by) => movePart(at, by)}
          onRemove={() => set({ parts: definition.parts.filter((_, place) => place !== at) })}
        />
      ))}
      <AddPart build={build} catalogId={catalog.id} onAdd={(part) => set({ parts: [...definition.parts, part] })} />
      <FilterEditor
        label="Filter of the catalog"
        filter={definition.filter}
        fields={[
          { key: 'value', heading: 'the value', kind: 'text' },
          { key: 'label', heading: 'what is shown', kind: 'text' },
          { key: 'note', heading: 'the note', kind: 'text' },
          ...companions,
        ]}
        onChange={(filter) => set({ filter })}
      />
      <HStack gap="1.5">
        <Select
          label="Order"
          value={orderKey(definition.order)}
          options={orderOptions(companions)}
          onChoose={(key) => set({ order: orderOf(key) })}
        />
        <Select
          label="What counts as a repeat"
          value={definition.distinct}
          options={Object.entries(distinctWords)}
          onChoose={(distinct) => set({ distinct: distinct as Distinct })}
        />
      </HStack>
      <Box p="3" bg="paper" borderWidth="1px" borderColor={trial?.offered === 0 ? 'amber.border' : 'line'} rounded="l3" role="status">
        {error ? (
          <Text color="brick.fg">{errorWords(error)}</Text>
        ) : trial ? (
          <>
            <Text fontWeight="bold">
              {trial.offered === 0
                ? 'Nothing would be offered.'
                : `${number.format(trial.offered)} ${changed ? 'would be' : 'are'} offered${trial.levels > 1 ? `, in ${trial.levels} levels` : ''}`}
            </Text>
            <Text color="inkSoft">
              {trial.first.join(', ')}
              {trial.offered > trial.first.length && ' …'}
            </Text>
          </>
        ) : (
          <Text color="inkSoft">Trying …</Text>
        )}
      </Box>
      <HStack>
        <ActButton
          variant="solid"
          size="sm"
          disabled={!changed || half.isOutdated || error !== undefined}
          loading={isLoading}
          onClick={() => void save()}
        >
          Save how it is composed
        </ActButton>
        <Button
          size="sm"
          onClick={() => {
            half.drop();
            close();
          }}
        >
          Cancel
        </Button>
      </HStack>
    </Stack>
  );
}

const orderKey = (order: CatalogOrder): string => (order.by === 'companion' ? `${order.direction} ${order.field}` : order.by);

function orderOf(key: string): CatalogOrder {
  const [direction, ...field] = key.split(' ');
  if (direction === 'up' || direction === 'down') return { by: 'companion', direction, field: field.join(' ') };
  return key === 'used' ? { by: 'used', first: [] } : { by: key as 'kept' | 'alphabetical' | 'reversed' };
}

const orderOptions = (companions: CatalogItems['companions']): (readonly [string, string])[] => [
  ['kept', 'in the order of their sources'],
  ['alphabetical', 'in alphabetical order'],
  ['reversed', 'in reversed alphabetical order'],
  ['used', 'the most used first'],
  ...companions.flatMap(({ key, heading }) => [
    [`up ${key}`, `by ${heading}`] as const,
    [`down ${key}`, `by ${heading}, greatest first`] as const,
  ]),
];
