// One intake: what has come through it, the newest first, with what was stored and what waits. A file can be brought here, too.
import { Box, Button, HStack, Stack, Text } from '@chakra-ui/react';
import type { BuildView, IntakeFileView, IntakeView, ReturnedState } from '@dellum/contract';
import { useState } from 'react';
import {
  bringToIntake,
  useIntakeFilesQuery,
  useRemoveIntakeMutation,
  useTakeIntakeBackMutation,
  useTurnIntakeMutation,
} from '../../data/intakesApi.js';
import { errorWords } from '../../data/problem.js';
import { useAppDispatch } from '../../data/store.js';
import { Confirm } from '../../frame/Confirm.js';
import { FileDrop } from '../../frame/FileDrop.js';
import { Waiting } from '../../frame/Page.js';
import { SlipHead } from '../../frame/SlipHead.js';
import { useNotice, useTry } from '../../frame/useNotice.js';
import { Way } from '../../frame/Way.js';
import { moment, number } from '../../frame/written.js';
import { IntakeForm } from './IntakeForm.js';
import { fills } from './Intakes.js';

/** So often the files are read anew while one looks at them; milliseconds. */
const lookEvery = 2000;

interface IntakeSlipProps {
  readonly build: BuildView;
  readonly intake: IntakeView;
  close(): void;
}

export function IntakeSlip({ build, intake, close }: IntakeSlipProps) {
  const [changes, setChanges] = useState(false);
  const { id, name, off, failure } = intake;
  const { data: files, error } = useIntakeFilesQuery(id, { refetchOnMountOrArgChange: true, pollingInterval: lookEvery });
  const dispatch = useAppDispatch();
  const [turn] = useTurnIntakeMutation();
  const [remove] = useRemoveIntakeMutation();
  const attempt = useTry();
  const notice = useNotice();
  if (changes) return <IntakeForm build={build} intake={intake} close={() => setChanges(false)} done={() => setChanges(false)} />;
  const removed = async () => {
    if ((await attempt(remove(id).unwrap())) === undefined) return;
    close();
    notice('done', `${name} is removed. What it has stored stays.`);
  };
  return (
    <Stack gap="3" role="region" aria-label={`Files of ${name}`}>
      <SlipHead title={name} about={fills(intake, build)} close={close} />
      {off !== null && <Text color="brick.fg">Switched off {moment.format(new Date(off))}: it takes nothing by itself.</Text>}
      {failure !== null && (
        <Text color="brick.fg" role="alert">
          {failure}
        </Text>
      )}
      <FileDrop
        label="File"
        what="a file"
        about="A table of texts (CSV), a workbook (.xlsx, .ods) or JSON Lines"
        instead="Bring it in parts."
        bring={async ([file]) => {
          await dispatch(bringToIntake(id, file!));
          return undefined;
        }}
      />
      <HStack gap="2" wrap="wrap">
        <Button onClick={() => setChanges(true)}>Change it</Button>
        <Button onClick={() => void attempt(turn({ id, on: off !== null }).unwrap())}>{off === null ? 'Switch off' : 'Switch on'}</Button>
        <Confirm
          ask={`Remove the intake ${name}`}
          short="Remove"
          about="Files come in by it no more. What was stored stays, and so do the files that wait: they are listed among those that came."
          act="Remove the intake"
          onConfirm={() => void removed()}
        />
      </HStack>
      {!files ? (
        <Waiting error={errorWords(error)} />
      ) : files.length === 0 ? (
        <Text>Nothing has come yet.</Text>
      ) : (
        <Stack as="ul" listStyle="none" gap="0" aria-label="Files">
          {files.map((file) => (
            <FileOf key={file.id} intake={intake} file={file} />
          ))}
        </Stack>
      )}
      <Text color="inkSoft" fontSize="xs" overflowWrap="anywhere">
        A program sends files, with a token that enters data in the sheet, to {window.location.origin}/api/v1/programs/intakes/{id}/files
      </Text>
    </Stack>
  );
}

function FileOf({ intake, file }: { intake: IntakeView; file: IntakeFileView }) {
  const [takeBack] = useTakeIntakeBackMutation();
  const attempt = useTry();
  const notice = useNotice();
  const { id, name, at, state, rows, why, takenBack } = file;
  const takenBackNow = async () => {
    const done = await attempt(takeBack({ id: intake.id, file: id }).unwrap());
    if (done !== undefined) notice('done', `What ${name} brought is undone.`);
  };
  return (
    <Box as="li" borderTopWidth="1px" borderColor="lineSoft" py="2" overflowWrap="anywhere">
      <HStack justify="space-between" align="start" gap="3">
        <Way to={`/came-back/${id}`}>{name}</Way>
        <Text color={tone(file)} flexShrink={0}>
          {outcome(file)}
        </Text>
      </HStack>
      <HStack justify="space-between" align="start" gap="3">
        <Text fontSize="xs" color="inkSoft">
          {moment.format(new Date(at))}, {from(file)}
        </Text>
        {state === 'applied' && rows > 0 && !takenBack && (
          <Confirm
            ask={`Undo what ${name} brought`}
            short="Undo"
            about={`The ${rowsOf(rows)} that it has stored are taken out of the sheet again, but for what somebody has changed since.`}
            act="Undo it"
            onConfirm={() => void takenBackNow()}
          />
        )}
      </HStack>
      {why !== null && <Text fontSize="xs">{why}</Text>}
    </Box>
  );
}

const rowsOf = (count: number): string => `${number.format(count)} ${count === 1 ? 'row' : 'rows'}`;

const waitingWords: { readonly [State in Exclude<ReturnedState, 'applied' | 'ready'>]: string } = {
  coming: 'on its way',
  reading: 'being read',
  unreadable: 'could not be read',
  unclear: 'waits: which column is which?',
};
function outcome({ state, rows, takenBack }: IntakeFileView): string {
  if (takenBack) return 'undone';
  if (state === 'ready') return `${rowsOf(rows)} ${rows === 1 ? 'waits' : 'wait'}`;
  if (state === 'applied') return rows === 0 ? 'nothing new' : `${rowsOf(rows)} stored`;
  return waitingWords[state];
}
function tone({ state, takenBack, rows }: IntakeFileView): string {
  if (state === 'unreadable') return 'brick.fg';
  if (state === 'applied') return takenBack || rows === 0 ? 'inkSoft' : 'growth.fg';
  return 'amber.fg';
}
function from({ way, by }: IntakeFileView): string {
  switch (way) {
    case 'folder':
      return 'out of the folder';
    case 'program':
      return `sent by ${by}`;
    case 'person':
      return `brought by ${by}`;
  }
}
