// The slip of a figure: what is counted, by what, over which time, and how it is drawn.
import { HStack, Stack, Text } from '@chakra-ui/react';
import { asKept, charts, isNumeric, measures, timeSteps, type FigureDefinition, type FigurePath } from '@dellum/core';
import type { BuildView, Me, RegisterView } from '@dellum/contract';
import type { ReactNode } from 'react';
import { Select } from '../../frame/Select.js';
import { ShowOnly } from '../arrangements/ArrangeSlip.js';
import { useFieldCountsQuery } from '../../data/entriesApi.js';
import { entryRegisters, useRecordCells } from '../sheets/useRegisterPlace.js';
import { newFigure, pathKey, type Reachable } from './paths.js';

interface FigureSlipProps {
  readonly build: BuildView;
  readonly register: RegisterView;
  readonly definition: FigureDefinition;
  readonly paths: readonly Reachable[];
  readonly me: Me;
  change(definition: FigureDefinition): void;
}

const measureWords = { count: 'how many entries', sum: 'the sum of', mean: 'the mean of', least: 'the least', most: 'the most' } as const;
const chartWords = { bars: 'bars side by side', stacked: 'bars on one another', line: 'lines', none: 'no chart, the table alone' } as const;

export function FigureSlip({ build, register, definition, paths, me, change }: FigureSlipProps) {
  const set = (part: Partial<FigureDefinition>) => change({ ...definition, ...part });
  const values = paths.filter(({ field }) => field.kind !== 'date');
  const days = paths.filter(({ field }) => field.kind === 'date');
  const numbers = paths.filter(({ field }) => isNumeric(field.kind));
  const options = (of: readonly Reachable[], none: string) => [
    ['', none] as const,
    ...of.map(({ path, name }) => [pathKey(path), name] as const),
  ];
  const pathOf = (of: readonly Reachable[], key: string): FigurePath | null => of.find(({ path }) => pathKey(path) === key)?.path ?? null;
  const groupBy = (at: number, key: string) => {
    const path = pathOf(values, key);
    const rest = definition.by.filter((_, place) => place !== at);
    set({ by: path ? [...definition.by.slice(0, at), path, ...definition.by.slice(at + 1)] : rest });
  };
  const measure = (chosen: string) => {
    const next = measures.find((known) => known === chosen) ?? 'count';
    set({ measure: next, of: next === 'count' ? null : (definition.of ?? numbers[0]?.path ?? null) });
  };
  const timed = definition.time;
  return (
    <Stack gap="5">
      <Part title="Counted">
        <Select
          label="Sheet"
          value={register.id}
          options={entryRegisters(build).map(({ id, title }) => [id, title] as const)}
          onChoose={(id) => {
            const next = entryRegisters(build).find((known) => known.id === id);
            if (next) change(newFigure(next));
          }}
        />
        <HStack gap="1.5">
          <Select
            label="Measure"
            value={definition.measure}
            options={measures
              .filter((known) => known === 'count' || numbers.length > 0)
              .map((known) => [known, measureWords[known]] as const)}
            onChoose={measure}
          />
          {definition.measure !== 'count' && (
            <Select
              label="Measured field"
              value={definition.of ? pathKey(definition.of) : ''}
              options={numbers.map(({ path, name }) => [pathKey(path), name] as const)}
              onChoose={(key) => set({ of: pathOf(numbers, key) })}
            />
          )}
        </HStack>
      </Part>
      <Part title="By">
        <Select
          label="By"
          value={definition.by[0] ? pathKey(definition.by[0]) : ''}
          options={options(values, 'all together')}
          onChoose={(key) => groupBy(0, key)}
        />
        {definition.by.length > 0 && (
          <Select
            label="And by"
            value={definition.by[1] ? pathKey(definition.by[1]) : ''}
            options={options(
              values.filter(({ path }) => pathKey(path) !== pathKey(definition.by[0]!)),
              'nothing else',
            )}
            onChoose={(key) => groupBy(1, key)}
          />
        )}
      </Part>
      <Part title="Over time">
        <HStack gap="1.5">
          <Select
            label="Date"
            value={timed ? pathKey(timed.path) : ''}
            options={options(days, 'not over time')}
            onChoose={(key) => {
              const path = pathOf(days, key);
              set({ time: path && { path, step: timed?.step ?? 'month' } });
            }}
          />
          {timed && (
            <Select
              label="Step"
              width="104px"
              value={timed.step}
              options={timeSteps.map((step) => [step, `by ${step}`] as const)}
              onChoose={(step) => set({ time: { ...timed, step: timeSteps.find((known) => known === step) ?? 'month' } })}
            />
          )}
        </HStack>
      </Part>
      <Part title="Drawn as">
        <Select
          label="Chart"
          value={definition.chart}
          options={charts.map((chart) => [chart, chartWords[chart]] as const)}
          onChoose={(chart) => set({ chart: charts.find((known) => known === chart) ?? 'bars' })}
        />
      </Part>
      <Wanted key={register.id} register={register} definition={definition} me={me} set={set} />
    </Stack>
  );
}

function Part({ title, children }: { title: string; children: ReactNode }) {
  return (
    <Stack gap="1.5" as="section" aria-label={title}>
      <Text fontWeight="bold">{title}</Text>
      {children}
    </Stack>
  );
}

/** Which entries are counted. */
function Wanted({
  register,
  definition,
  me,
  set,
}: {
  register: RegisterView;
  definition: FigureDefinition;
  me: Me;
  set: (part: Partial<FigureDefinition>) => void;
}) {
  const { data: counts } = useFieldCountsQuery(register.id);
  const cells = useRecordCells(register, me);
  const arrangement = { ...asKept, only: definition.only };
  return (
    <ShowOnly
      register={register}
      arranging={{ arrangement, set: (next) => set({ only: next.only }) }}
      counts={counts ?? []}
      me={me}
      fieldKey={undefined}
      value={(field, value) => cells.shownValue(field, value)}
    />
  );
}
