// A proposal for a house out of files: worked through from the tables to what will be outside, then applied as one act.
import { Box, Heading, HStack, Progress, Stack, Text } from '@chakra-ui/react';
import type { AdoptionView, AppliedAdoption } from '@dellum/contract';
import type { HouseProposal } from '@dellum/core';
import { useState, type ReactNode } from 'react';
import { useNavigate, useParams } from 'react-router';
import {
  useAdoptionQuery,
  useApplyAdoptionMutation,
  useRemoveAdoptionMutation,
  useTakeBackAdoptionMutation,
} from '../../data/adoptionsApi.js';
import { errorWords } from '../../data/problem.js';
import { useMeQuery } from '../../data/sessionApi.js';
import { ActButton } from '../../frame/ActButton.js';
import { Confirm } from '../../frame/Confirm.js';
import { EmptyState, Page, Waiting } from '../../frame/Page.js';
import { useNotice, useTry } from '../../frame/useNotice.js';
import { Way } from '../../frame/Way.js';
import { entries, moment, number } from '../../frame/written.js';
import { AdoptDrop } from './AdoptDrop.js';
import { proposalTitle } from './Adoptions.js';
import { cells, outcomeWords, outsideIn, rows, unreadIn } from './adoptionWords.js';
import { ListCard, type Spelled } from './ListCard.js';
import { SpellingSlip } from './SpellingSlip.js';
import { TableCard, type Tried } from './TableCard.js';
import { TrySlip } from './TrySlip.js';
import { useMend } from './useMend.js';

/** So often one looks whether it is read or applied; milliseconds. */
const askEvery = 700;

export function AdoptionPage() {
  const id = useParams()['id']!;
  const [working, setWorking] = useState(true);
  const [spelled, setSpelled] = useState<Spelled>();
  const [tried, setTried] = useState<Tried>();
  const { data: me } = useMeQuery();
  const { currentData: adoption, error } = useAdoptionQuery(id, {
    refetchOnMountOrArgChange: true,
    pollingInterval: working ? askEvery : 0,
  });
  const mend = useMend(id);
  const isWorking = adoption?.state === 'reading' || adoption?.state === 'applying';
  if (adoption && working !== isWorking) setWorking(isWorking);
  if (!adoption)
    return error ? (
      <EmptyState title="This proposal is not here any more">
        It was discarded, or a month has gone by. <Way to="/in-and-out">Bring the files again</Way>
      </EmptyState>
    ) : (
      <Waiting error={errorWords(error)} />
    );
  const { proposal } = adoption;
  const list = proposal?.lists.find((one) => one.id === spelled?.list);
  const table = proposal?.tables.find(({ id: own }) => own === tried?.table);
  const close = () => {
    setSpelled(undefined);
    setTried(undefined);
  };
  const lookAt = (one: Spelled) => {
    close();
    setSpelled(one);
  };
  const tryAt = (one: Tried) => {
    close();
    setTried(one);
  };
  return (
    <Page
      title={proposalTitle(adoption.files)}
      about={aboutWords(adoption)}
      actions={<Actions adoption={adoption} />}
      slip={
        spelled && list ? (
          <SpellingSlip
            key={`${list.id} ${spelled.text}`}
            list={list}
            text={spelled.text}
            become={(to) => mend.spellings({ list: list.id, from: [spelled.text], to })}
            close={close}
          />
        ) : (
          tried &&
          table &&
          proposal &&
          me && <TrySlip key={`${table.id} ${tried.at}`} table={table} at={tried.at} proposal={proposal} me={me} close={close} />
        )
      }
    >
      <Stack p="5" gap="7" maxW="940px">
        {adoption.why !== null && (
          <Box role="alert">
            <Text fontWeight="bold">{adoption.state === 'unreadable' ? 'Nothing of it was taken.' : 'It was not applied.'}</Text>
            <Text>{adoption.why}</Text>
          </Box>
        )}
        <Said said={adoption.said} />
        {adoption.state === 'reading' && <UnderWay words="The files are being read …" progress={adoption.progress} />}
        {adoption.state === 'applying' && <UnderWay words="The proposal is being applied …" progress={adoption.progress} />}
        {adoption.applied && <Applied applied={adoption.applied} />}
        {adoption.state === 'ready' && proposal && (
          <Proposed adoption={adoption} proposal={proposal} mend={mend} look={lookAt} tryAt={tryAt} />
        )}
        {(adoption.state === 'ready' || adoption.state === 'unreadable') && <AdoptDrop proposal={adoption.id} />}
      </Stack>
    </Page>
  );
}

/** How far it is, in rows; few rows are done before anybody looks. */
function UnderWay({ words, progress }: { words: string; progress: AdoptionView['progress'] }) {
  const { done, total } = progress ?? { done: 0, total: null };
  return (
    <Stack gap="2">
      <Text role="status">{words}</Text>
      {done > 0 && (
        <>
          <Progress.Root
            value={total === null ? null : done}
            max={Math.max(1, total ?? 1)}
            size="xs"
            colorPalette="growth"
            aria-label="Done"
          >
            <Progress.Track>
              <Progress.Range />
            </Progress.Track>
          </Progress.Root>
          <Text color="inkSoft">{total === null ? `${rows(done)} so far` : `${number.format(done)} of ${rows(total)}`}</Text>
        </>
      )}
    </Stack>
  );
}

function aboutWords({ at, by, state }: AdoptionView): string {
  const came = `Brought ${moment.format(new Date(at))} by ${by}.`;
  if (state === 'applied') return `${came} All of it is stored.`;
  return state === 'applying' ? came : `${came} Nothing of it is stored yet; what you change here is kept.`;
}

function Said({ said }: { said: readonly string[] }) {
  if (said.length === 0) return null;
  return (
    <Box role="region" aria-label="What is to be known" p="3" borderWidth="1px" borderColor="line" bg="paper" rounded="l3">
      <Stack as="ul" gap="1" listStyleType="none">
        {said.map((line) => (
          <li key={line}>{line}</li>
        ))}
      </Stack>
    </Box>
  );
}

function Actions({ adoption }: { adoption: AdoptionView }) {
  const [apply, { isLoading }] = useApplyAdoptionMutation();
  const [takeBack, { isLoading: isUndoing }] = useTakeBackAdoptionMutation();
  const [remove] = useRemoveAdoptionMutation();
  const attempt = useTry();
  const notice = useNotice();
  const navigate = useNavigate();
  const { id, state, applied, proposal } = adoption;
  const discard = async () => {
    if ((await attempt(remove(id).unwrap())) !== undefined) await navigate('/in-and-out', { replace: true });
  };
  const undo = async () => {
    if (await attempt(takeBack(id).unwrap())) notice('done', 'What came out of the files is gone again. The proposal stands as it was.');
  };
  if (state === 'applying') return null;
  // Of a million rows it takes its time.
  if (isUndoing) return <Text role="status">The proposal is being undone …</Text>;
  if (state === 'applied' && applied) {
    const since = applied.since === 0 ? '' : ` At least ${entries(applied.since)} of them were added or changed since; that is lost.`;
    return (
      <Confirm
        ask="Undo the proposal"
        about={`Its sheets, lists and catalogs go, with all that stands in them: ${entries(applied.entries)} and ${rows(applied.rows)} of lists.${since}`}
        act="Undo the proposal"
        onConfirm={() => void undo()}
      />
    );
  }
  return (
    <HStack>
      <Confirm
        ask="Discard the proposal"
        about="The files and all that was changed here are forgotten. Nothing in the house changes."
        act="Discard the proposal"
        onConfirm={() => void discard()}
      />
      {state === 'ready' && proposal && (
        <ActButton
          variant="solid"
          loading={isLoading}
          disabled={!proposal.tables.some(({ wanted }) => wanted)}
          onClick={() => void attempt(apply(id).unwrap())}
        >
          Apply the proposal
        </ActButton>
      )}
    </HStack>
  );
}

interface ProposedProps {
  readonly adoption: AdoptionView;
  readonly proposal: HouseProposal;
  readonly mend: ReturnType<typeof useMend>;
  look(spelled: Spelled): void;
  tryAt(tried: Tried): void;
}

function Proposed({ adoption, proposal, mend, look, tryAt }: ProposedProps) {
  const { tables, lists } = proposal;
  if (tables.length === 0) return <Text>There is no table in what was brought. Bring other files.</Text>;
  const [outside, unread] = [outsideIn(proposal), unreadIn(proposal)];
  return (
    <>
      <Part title="Tables" about="Each becomes a sheet, or a list. What is not ticked stays out.">
        {tables.map((table) => (
          <TableCard
            key={table.id}
            table={table}
            proposal={proposal}
            file={adoption.files[table.file]?.name ?? ''}
            mend={mend}
            tryAt={tryAt}
          />
        ))}
      </Part>
      <Part
        title="Lists"
        about={
          lists.length === 0
            ? 'No column wants to be a list. Tick one above, in the column “Chosen from”.'
            : 'What is chosen from, from now on. Other spellings become the value, and stay its other names where the list is made here.'
        }
      >
        {lists.map((list) => (
          <ListCard key={list.id} list={list} proposal={proposal} mend={mend} look={look} />
        ))}
      </Part>
      <Part title="What will be stored" about={`${outcomeWords(proposal)}.`}>
        <Text>
          {outside === 0
            ? 'Every value fits its list.'
            : `${number.format(outside)} ${outside === 1 ? 'value' : 'values'} will be outside: kept, marked, and found on the page Upkeep.`}
          {unread > 0 && ` ${cells(unread)} will be kept as a text, since what the column holds is something else.`}
        </Text>
      </Part>
    </>
  );
}

function Part({ title, about, children }: { readonly title: string; readonly about: string; readonly children: ReactNode }) {
  return (
    <Stack as="section" aria-label={title} gap="3">
      <Box>
        <Heading as="h2" fontSize="md">
          {title}
        </Heading>
        <Text color="inkSoft">{about}</Text>
      </Box>
      {children}
    </Stack>
  );
}

function Applied({ applied }: { applied: AppliedAdoption }) {
  return (
    <Stack as="section" aria-label="What came of it" gap="3">
      <Text>
        {entries(applied.entries)} and {rows(applied.rows)} of lists stored {moment.format(new Date(applied.at))} by {applied.by}.
      </Text>
      <Stack as="ul" gap="1" listStyleType="none">
        {applied.sheets.map(({ id, title, kind }) => (
          <li key={id}>
            {kind === 'entry' ? 'Sheet ' : 'Lists: '}
            <Way to={`/${kind === 'entry' ? 'sheets' : 'sources'}/${id}`}>{title}</Way>
          </li>
        ))}
        {applied.catalogs.map(({ id, title }) => (
          <li key={id}>
            Catalog <Way to={`/catalogs/${id}`}>{title}</Way>
          </li>
        ))}
      </Stack>
    </Stack>
  );
}
