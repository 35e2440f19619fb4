// One figure: its chart and its table, live; changed at the side, kept under a name, and taken along.
import { Box, Button, HStack, Input, Menu, Portal, Progress, Stack, Text } from '@chakra-ui/react';
import { figureSentence, type FigureDefinition } from '@dellum/core';
import { type BuildView, type FigureView, type Me, type RegisterView } from '@dellum/contract';
import { Download } from 'lucide-react';
import { useRef, useState } from 'react';
import { Link, useNavigate, useParams, useSearchParams } from 'react-router';
import { errorWords, problemWords } from '../../data/problem.js';
import { Confirm } from '../../frame/Confirm.js';
import { fetchedPart } from '../../data/fetchedPart.js';
import { EmptyState, Page, Waiting } from '../../frame/Page.js';
import { Way } from '../../frame/Way.js';
import { useArrive, useTry } from '../../frame/useNotice.js';
import { useAppDispatch, useAppSelector } from '../../data/store.js';
import { useMeQuery } from '../../data/sessionApi.js';
import { entryRegisters } from '../sheets/useRegisterPlace.js';
import { useBuildQuery } from '../../data/buildApi.js';
import { saveCsv, savePng, saveSvg } from './exports.js';
import {
  figureKey,
  figuresApi,
  useCountedQuery,
  useDeleteFigureMutation,
  useFigureEntriesMutation,
  useFiguresQuery,
  useKeepFigureMutation,
} from '../../data/figuresApi.js';
import { FigureSlip } from './FigureSlip.js';
import { FigureTableView, type Cell } from './FigureTableView.js';
import { newFigure, reachedBy } from './paths.js';
import { chartOf } from './series.js';
import { useFigureWords } from './useFigureWords.js';
import { WayFirst } from '../../frame/ErrandBand.js';
import { number } from '../../frame/written.js';

/** Drawing comes when the first figure is looked at. */
const { Part: FigureChart } = fetchedPart(
  async () => (await import('./FigureChart.js')).FigureChart,
  () => <Box h="360px" />,
);

/** A definition as the address holds it; undefined where it cannot be read. */
function definitionIn(text: string | null): FigureDefinition | undefined {
  try {
    const read = JSON.parse(text ?? 'null') as FigureDefinition | null;
    return read && typeof read.registerId === 'string' && Array.isArray(read.by) && Array.isArray(read.only) ? read : undefined;
  } catch {
    return undefined;
  }
}

export function FigurePage() {
  const { figureId = 'new' } = useParams();
  const [params, setParams] = useSearchParams();
  const { data: build, error } = useBuildQuery();
  const { data: me } = useMeQuery();
  const { data: figures, error: failed } = useFiguresQuery();
  if (!build || !me || !figures) return <Waiting error={errorWords(error ?? failed)} />;
  const kept = figures.find(({ id }) => id === figureId);
  const registers = entryRegisters(build);
  const first = registers.find(({ fields }) => fields.length > 0);
  if (figureId !== 'new' && !kept) {
    return (
      <EmptyState title="This figure is not there">
        It was deleted, or looks at what is not open to you. <Link to="/figures">See the saved figures.</Link>
      </EmptyState>
    );
  }
  const definition = definitionIn(params.get('d')) ?? kept?.definition ?? (first && newFigure(first));
  const register = registers.find(({ id }) => id === definition?.registerId);
  if (!definition || !register)
    return (
      <EmptyState title="There is nothing to count yet">
        A figure counts the entries of a sheet.{' '}
        <WayFirst to="/sheets" errand={{ what: 'count the entries of a sheet', to: '/figures/new' }}>
          Make a sheet and its fields
        </WayFirst>
      </EmptyState>
    );
  const keepInAddress = (next: FigureDefinition) =>
    setParams(kept && figureKey(kept.definition) === figureKey(next) ? {} : { d: JSON.stringify(next) }, { replace: true });
  return (
    <OneFigure
      key={`${figureId} ${kept ? figureKey(kept.definition) : ''}`}
      kept={kept}
      begun={definition}
      build={build}
      me={me}
      keepInAddress={keepInAddress}
    />
  );
}

interface OneFigureProps {
  readonly kept: FigureView | undefined;
  /** The figure as the address holds it at first. */
  readonly begun: FigureDefinition;
  readonly build: BuildView;
  readonly me: Me;
  keepInAddress(definition: FigureDefinition): void;
}

function OneFigure({ kept, begun, build, me, keepInAddress }: OneFigureProps) {
  // The address follows a moment later; what is changed next is changed in what one sees.
  const [definition, setDefinition] = useState(begun);
  const register = entryRegisters(build).find(({ id }) => id === definition.registerId);
  const change = (next: FigureDefinition) => {
    setDefinition(next);
    keepInAddress(next);
  };
  if (!register)
    return (
      <EmptyState title="This sheet is not there any more">
        <Way to="/figures">Choose another figure</Way>
      </EmptyState>
    );
  return <Counted kept={kept} definition={definition} register={register} build={build} me={me} change={change} />;
}

interface CountedProps extends Omit<OneFigureProps, 'begun' | 'keepInAddress'> {
  readonly definition: FigureDefinition;
  readonly register: RegisterView;
  change(definition: FigureDefinition): void;
}

function Counted({ kept, definition, register, build, me, change }: CountedProps) {
  const words = useFigureWords(build, register, definition, me);
  const [stopped, setStopped] = useState<string>();
  const key = figureKey(definition);
  const { data, error, isFetching, refetch } = useCountedQuery(definition, { skip: stopped === key });
  const [entriesOf] = useFigureEntriesMutation();
  const attempt = useTry();
  const navigate = useNavigate();
  const chart = useRef<HTMLDivElement>(null);
  const sentence = figureSentence(definition, register.title, (path) => reachedBy(words.paths, path)?.name ?? path.field);
  const open = async ({ values, time }: Cell) => {
    const found = await attempt(entriesOf({ definition, values, ...(time !== undefined && { time }) }).unwrap());
    if (found) await navigate(`/records/${register.id}?only=${encodeURIComponent(JSON.stringify(found.only))}`);
  };
  const table = data && words.table(data.groups);
  const title = kept?.title ?? 'New figure';
  return (
    <Page
      title={title}
      about={`${sentence}. ${data ? `${number.format(data.entries)} entries looked through.` : ''}`}
      actions={
        <FigureActs
          kept={kept}
          definition={definition}
          me={me}
          csv={table && (() => saveCsv(title, table, words))}
          png={definition.chart === 'none' ? undefined : () => void attempt(savePng(title, chart.current!, { title, measures: sentence }))}
          svg={definition.chart === 'none' ? undefined : () => saveSvg(title, chart.current!, { title, measures: sentence })}
        />
      }
      slip={<FigureSlip build={build} register={register} definition={definition} paths={words.paths} me={me} change={change} />}
    >
      <Stack gap="4" p="4">
        <Counting
          definition={definition}
          running={isFetching}
          stopped={stopped === key}
          stop={() => setStopped(key)}
          again={() => (stopped === key ? setStopped(undefined) : void refetch())}
        />
        {error && stopped !== key && (
          <Text role="alert" color="brick.fg">
            {problemWords(error)}
          </Text>
        )}
        {table && data.groups.length === 0 && <Text color="inkSoft">No entry is counted. Take a condition away.</Text>}
        {table && data.groups.length > 0 && (
          <>
            {definition.chart !== 'none' && (
              <FigureChart
                ref={chart}
                definition={definition}
                {...chartOf(definition, table, words)}
                label={`Chart: ${sentence}`}
                open={(cell) => void open(cell)}
              />
            )}
            <FigureTableView definition={definition} table={table} words={words} label={sentence} open={(cell) => void open(cell)} />
          </>
        )}
      </Stack>
    </Page>
  );
}

/** How far the counting is, and how to stop it. */
function Counting({
  definition,
  running,
  stopped,
  stop,
  again,
}: {
  definition: FigureDefinition;
  running: boolean;
  stopped: boolean;
  stop: () => void;
  again: () => void;
}) {
  const key = figureKey(definition);
  const dispatch = useAppDispatch();
  const progress = useAppSelector((state) => state.figureProgress[key]);
  const halt = () => {
    stop();
    dispatch(figuresApi.util.getRunningQueryThunk('counted', definition))?.abort();
  };
  if (stopped) {
    return (
      <HStack gap="3" role="status">
        <Text color="amber.fg">The counting was stopped.</Text>
        <Button size="2xs" onClick={again}>
          Count
        </Button>
      </HStack>
    );
  }
  if (!running) {
    return (
      <HStack gap="3" color="inkSoft" fontSize="xs">
        <Button size="2xs" onClick={again}>
          Recount
        </Button>
      </HStack>
    );
  }
  const share = progress && progress.total > 0 ? Math.round((100 * progress.done) / progress.total) : null;
  return (
    <HStack gap="3">
      <Progress.Root value={share} size="xs" w="200px" colorPalette="growth" aria-label="Counting">
        <Progress.Track>
          <Progress.Range />
        </Progress.Track>
      </Progress.Root>
      <Text color="inkSoft" role="status">
        {progress ? `${number.format(progress.done)} of ${number.format(progress.total)} entries counted` : 'Counting …'}
      </Text>
      <Button size="2xs" onClick={halt}>
        Stop
      </Button>
    </HStack>
  );
}

interface FigureActsProps {
  readonly kept: FigureView | undefined;
  readonly definition: FigureDefinition;
  readonly me: Me;
  readonly csv: (() => void) | undefined;
  readonly png: (() => void) | undefined;
  readonly svg: (() => void) | undefined;
}

function FigureActs({ kept, definition, me, csv, png, svg }: FigureActsProps) {
  const [title, setTitle] = useState<string>();
  const [keep] = useKeepFigureMutation();
  const [drop] = useDeleteFigureMutation();
  const attempt = useTry();
  const arrive = useArrive();
  const navigate = useNavigate();
  const changed = kept === undefined || figureKey(kept.definition) !== figureKey(definition);
  const mayKeep = me.role !== 'reader';
  const store = async (id: string | undefined, name: string) => {
    const made = await attempt(keep({ ...(id !== undefined && { id }), figure: { title: name, definition } }).unwrap());
    if (!made) return;
    setTitle(undefined);
    arrive(`/figures/${made.id}`, `${name} is saved.`, { replace: true });
  };
  const remove = async () => {
    if (kept && (await attempt(drop(kept.id).unwrap())) !== undefined) await navigate('/figures');
  };
  return (
    <>
      <Menu.Root positioning={{ placement: 'bottom-end' }}>
        <Menu.Trigger asChild>
          <Button disabled={!csv}>
            <Download size={13} aria-hidden /> Download
          </Button>
        </Menu.Trigger>
        <Portal>
          <Menu.Positioner>
            <Menu.Content>
              <Menu.Item value="csv" onClick={csv}>
                The table, as CSV
              </Menu.Item>
              {png && (
                <Menu.Item value="png" onClick={png}>
                  The chart, as PNG
                </Menu.Item>
              )}
              {svg && (
                <Menu.Item value="svg" onClick={svg}>
                  The chart, as SVG
                </Menu.Item>
              )}
            </Menu.Content>
          </Menu.Positioner>
        </Portal>
      </Menu.Root>
      {mayKeep && kept?.mine && changed && (
        <Button variant="solid" onClick={() => void store(kept.id, kept.title)}>
          Save the change
        </Button>
      )}
      {mayKeep && title === undefined && (
        <Button variant={kept ? 'outline' : 'solid'} onClick={() => setTitle('')}>
          {kept ? 'Save as a copy' : 'Save the figure'}
        </Button>
      )}
      {title !== undefined && (
        <form
          onSubmit={(event) => {
            event.preventDefault();
            void store(undefined, title);
          }}
        >
          <HStack gap="1.5">
            <Input
              size="xs"
              w="180px"
              bg="card"
              borderColor="slate.border"
              aria-label="Name of the figure"
              placeholder="Name of the figure"
              autoFocus
              value={title}
              onChange={(event) => setTitle(event.target.value)}
              onKeyDown={(event) => event.key === 'Escape' && setTitle(undefined)}
            />
            <Button variant="solid" type="submit" disabled={title.trim() === ''}>
              Save
            </Button>
          </HStack>
        </form>
      )}
      {kept?.mine && (
        <Confirm
          ask="Delete"
          about={`${kept.title} is gone for everybody. The entries are not touched.`}
          act="Delete the figure"
          onConfirm={() => void remove()}
        />
      )}
    </>
  );
}
