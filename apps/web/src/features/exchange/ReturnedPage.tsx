// A file that came back: while it is read, what it would change, and what came of it.
import { Box, Button, Stack, Text } from '@chakra-ui/react';
import type { BuildView, RegisterView, ReturnedFileView } from '@dellum/contract';
import { useState, type ReactNode } from 'react';
import { useNavigate, useParams } from 'react-router';
import { useBuildQuery } from '../../data/buildApi.js';
import { followActOf, useEntryActQuery } from '../../data/entryActsApi.js';
import { errorWords } from '../../data/problem.js';
import {
  useApplyReturnedMutation,
  useCompareAgainMutation,
  useRemoveReturnedMutation,
  useReturnedFileQuery,
} from '../../data/returnedApi.js';
import { useAppDispatch } from '../../data/store.js';
import { ActButton } from '../../frame/ActButton.js';
import { EmptyState, Page, Waiting } from '../../frame/Page.js';
import { useTry } from '../../frame/useNotice.js';
import { Way } from '../../frame/Way.js';
import { moment, number } from '../../frame/written.js';
import { outcomeWords, useActDone } from '../entries/actOutcome.js';
import { ReturnedChanges } from './ReturnedChanges.js';
import { ReturnedColumns } from './ReturnedColumns.js';

/** So often one looks how far a file is read; milliseconds. */
const askEvery = 500;

export function ReturnedPage() {
  const id = Number(useParams()['fileId']);
  const [reading, setReading] = useState(true);
  const { currentData: file, error } = useReturnedFileQuery(id, {
    refetchOnMountOrArgChange: true,
    pollingInterval: reading ? askEvery : 0,
  });
  const { data: build } = useBuildQuery();
  if (file && reading !== (file.state === 'reading')) setReading(file.state === 'reading');
  if (!file || !build)
    return error ? (
      <EmptyState title="This file is not here any more">
        <Way to="/sheets">See the sheets</Way>
      </EmptyState>
    ) : (
      <Waiting error={errorWords(error)} />
    );
  const register = build.sheets.flatMap(({ registers }) => registers).find((known) => known.id === file.registerId);
  return (
    <Page
      title={file.name}
      about={
        <>
          Came {moment.format(new Date(file.at))}, {cameFrom(file)}
          {register && (
            <>
              , for <Way to={`/sheets/${register.sheetId}`}>{register.title}</Way>
            </>
          )}
          {file.intake && (
            <>
              , taken by <Way to={`/in-and-out?intake=${file.intake.id}`}>{file.intake.name}</Way>
            </>
          )}
          .
        </>
      }
      actions={<Actions file={file} register={register} />}
    >
      <Stack p="5" gap="6" maxW="940px">
        <Standing file={file} build={build} register={register} />
      </Stack>
    </Page>
  );
}

function cameFrom({ way, program, by }: ReturnedFileView): string {
  if (way === 'folder') return 'out of the folder';
  return way === 'program' ? `sent by ${program ?? 'a program'}` : `brought by ${by}`;
}

function Standing({ file, build, register }: { file: ReturnedFileView; build: BuildView; register: RegisterView | undefined }): ReactNode {
  switch (file.state) {
    case 'coming':
    case 'reading':
      return <Text role="status">Being read: {number.format(file.done)} rows so far.</Text>;
    case 'unreadable':
      return (
        <Box role="alert">
          <Text fontWeight="bold">Nothing of it was taken.</Text>
          <Text>{file.why}</Text>
        </Box>
      );
    case 'unclear':
      return (
        <>
          <Said file={file} />
          <ReturnedColumns key={file.id} file={file} build={build} />
        </>
      );
    case 'ready':
      return register ? <Ready file={file} build={build} register={register} /> : null;
    case 'applied':
      return register ? <Applied file={file} register={register} /> : null;
  }
}

/** What came of it, for whoever did not wait for it, or comes back later. */
function Applied({ file, register }: { file: ReturnedFileView; register: RegisterView }) {
  const { currentData: act } = useEntryActQuery(
    { registerId: register.id, id: file.actId ?? 0 },
    { skip: file.actId === null, refetchOnMountOrArgChange: true },
  );
  const actDone = useActDone();
  const navigate = useNavigate();
  const refused = act?.state === 'done' ? act.outcome.refused : 0;
  if (file.actId === null) return <Text>Nothing in it was new: what stands in the file stands here, too.</Text>;
  return (
    <>
      <Text>
        What it brought is stored. <Way to={`/sheets/${register.sheetId}`}>{`See ${register.title}`}</Way>
      </Text>
      {act && refused > 0 && (
        <Box>
          <Text mb="2">{outcomeWords(act.outcome)}</Text>
          <Button
            onClick={() => {
              actDone(act);
              void navigate(`/sheets/${register.sheetId}`);
            }}
          >
            Mend what was refused on the sheet
          </Button>
        </Box>
      )}
    </>
  );
}

function Said({ file }: { file: ReturnedFileView }) {
  if (file.said.length === 0) return null;
  return (
    <Box role="region" aria-label="What is to be known" p="3" borderWidth="1px" borderColor="line" bg="paper" rounded="l3">
      <Stack as="ul" gap="1" listStyleType="none">
        {file.said.map((line) => (
          <li key={line}>{line}</li>
        ))}
      </Stack>
    </Box>
  );
}

function Ready({ file, build, register }: { file: ReturnedFileView; build: BuildView; register: RegisterView }) {
  const [columns, setColumns] = useState(false);
  return (
    <>
      <Said file={file} />
      {file.intake && <Text>What fitted is stored already. The rows here wait for you.</Text>}
      {isSame(file) ? (
        <Text>What stands in the file stands here, too. There is nothing to store.</Text>
      ) : (
        <ReturnedChanges file={file} register={register} />
      )}
      {columns ? (
        <ReturnedColumns file={file} build={build} />
      ) : (
        <Button size="2xs" alignSelf="start" onClick={() => setColumns(true)}>
          Say which columns are which fields
        </Button>
      )}
    </>
  );
}

const isSame = ({ counts }: ReturnedFileView): boolean =>
  counts.cells + counts.asked + counts.added + counts.missing + counts.deleted + counts.refused.length === 0;
/** Whether there is anything to store as it is decided now. */
const brings = ({ counts }: ReturnedFileView): boolean =>
  counts.cells + counts.askedCame + counts.added + counts.deletes + counts.refused.length > 0;

function Actions({ file, register }: { file: ReturnedFileView; register: RegisterView | undefined }) {
  const [apply, { isLoading }] = useApplyReturnedMutation();
  const [compareAgain] = useCompareAgainMutation();
  const [remove] = useRemoveReturnedMutation();
  const [storing, setStoring] = useState(false);
  const dispatch = useAppDispatch();
  const navigate = useNavigate();
  const attempt = useTry();
  const actDone = useActDone();

  const store = async () => {
    if (!register) return;
    setStoring(true);
    const applied = await attempt(apply(file.id).unwrap());
    const actId = applied?.actId ?? undefined;
    const act = actId === undefined ? undefined : await attempt(dispatch(followActOf(register.id, actId)));
    setStoring(false);
    if (!act) return;
    actDone(act);
    await navigate(`/sheets/${register.sheetId}`);
  };
  const forget = async () => {
    if ((await attempt(remove(file.id).unwrap())) === undefined) return;
    await navigate(file.intake ? `/in-and-out?intake=${file.intake.id}` : register ? `/sheets/${register.sheetId}` : '/sheets');
  };
  return (
    <>
      <Button onClick={() => void forget()}>{file.state === 'reading' ? 'Stop' : 'Forget the file'}</Button>
      {file.state === 'ready' && <Button onClick={() => void attempt(compareAgain(file.id).unwrap())}>Compare again</Button>}
      {file.state === 'ready' && brings(file) && (
        <ActButton variant="solid" loading={isLoading || storing} onClick={() => void store()}>
          Store the changes
        </ActButton>
      )}
    </>
  );
}
