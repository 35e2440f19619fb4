// One record: its fields, each edited where it stands; what it names and what names it; and the history of each field.
import { Box, Button, Heading, SimpleGrid, Stack, Text } from '@chakra-ui/react';
import { type BuildView, type Me, type RecordView, type RegisterView } from '@dellum/contract';
import { Printer } from 'lucide-react';
import { useEffect, useState } from 'react';
import { Link, useParams, useSearchParams } from 'react-router';
import { errorWords, isProblem } from '../../data/problem.js';
import { Confirm } from '../../frame/Confirm.js';
import { PaperHead } from '../../frame/PaperHead.js';
import { EmptyState, Page, Waiting } from '../../frame/Page.js';
import { useArrive, useTry } from '../../frame/useNotice.js';
import { Way } from '../../frame/Way.js';
import { useAppDispatch } from '../../data/store.js';
import { did } from '../entries/doneSlice.js';
import { useDeleteEntriesMutation, useInsertEntriesMutation, useRecordQuery, useWriteBlockMutation } from '../../data/entriesApi.js';
import { underWay } from '../entries/inFlight.js';
import { useAgain } from '../entries/useAgain.js';
import { useMeQuery } from '../../data/sessionApi.js';
import { useBuildQuery } from '../../data/buildApi.js';
import { TakeBackButtons } from '../sheets/TakeBackButtons.js';
import { useHere } from '../sheets/useHere.js';
import { closedNote } from '../entries/closedEntry.js';
import { formWords } from '../entries/formWords.js';
import { fieldGroups } from './fieldGroups.js';
import { LinkedHere } from './LinkedHere.js';
import { RecordField } from './RecordField.js';
import { RecordHistory } from './RecordHistory.js';
import { recordTitle } from './recordWords.js';
import { entryRegisters, useRecordCells, type RecordCells } from '../sheets/useRegisterPlace.js';

export function RecordPage() {
  const { registerId = '', entryId = '' } = useParams();
  const { data: build, error } = useBuildQuery();
  const { data: me } = useMeQuery();
  const register = build && entryRegisters(build).find(({ id }) => id === registerId);
  // Its own record only: that of the address before would have the buttons of another one.
  const { currentData: record, error: failed } = useRecordQuery({ registerId, entryId }, { refetchOnMountOrArgChange: true });
  if (!build || !me) return <Waiting error={errorWords(error)} />;
  if (isProblem(failed) && failed.code === 'not-found') {
    return (
      <EmptyState title="This record is not there any more">
        Somebody has deleted it, or the address is wrong. <Link to={`/records/${registerId}`}>Look among the others.</Link>
      </EmptyState>
    );
  }
  if (!register)
    return (
      <EmptyState title="This sheet is not there any more">
        <Way to="/records">Choose another one</Way>
      </EmptyState>
    );
  if (!record) return <Waiting error={errorWords(failed)} />;
  return <OneRecord key={entryId} register={register} record={record} build={build} me={me} />;
}

interface OneRecordProps {
  readonly register: RegisterView;
  readonly record: RecordView;
  readonly build: BuildView;
  readonly me: Me;
}

function OneRecord({ register, record, build, me }: OneRecordProps) {
  const { entry } = record;
  const cells = useRecordCells(register, me);
  const again = useAgain(register.id);
  const here = useHere(register.id);
  const [params] = useSearchParams();
  const [at, setAt] = useState<string>();
  const [historyOf, setHistoryOf] = useState<string>();
  const [said, setSaid] = useState('');
  const { enters } = register;
  const { iAmAt } = here;
  useEffect(() => iAmAt(entry.id, at));
  const title = recordTitle(register, entry, cells.shown);
  const groups = fieldGroups(register.fields);
  const ordered = groups.flatMap(({ fields }) => fields);
  const fieldAt = (step: number) => ordered[ordered.findIndex(({ key }) => key === at) + step]?.key;
  return (
    <Page
      title={title}
      about={
        <>
          A record of{' '}
          <Link
            to={`/records/${register.id}?${params.get('from') ?? ''}`}
            style={{ textDecoration: 'underline', textUnderlineOffset: '3px' }}
          >
            {register.title}
          </Link>
          {formWords(build, entry) && `, ${formWords(build, entry)}`}
          {here.names.length > 0 && `; ${here.names.join(', ')} ${here.names.length === 1 ? 'is' : 'are'} here, too`}.{' '}
          {closedNote(register, entry, me)}
        </>
      }
      actions={
        <>
          {enters && <TakeBackButtons again={again} />}
          <Button onClick={() => window.print()}>
            <Printer size={13} aria-hidden /> Print
          </Button>
          {enters && (
            <RecordActs
              register={register}
              record={record}
              cells={cells}
              title={title}
              back={`/records/${register.id}?${params.get('from') ?? ''}`}
            />
          )}
        </>
      }
      slip={<RecordHistory register={register} entry={entry} cells={cells} field={historyOf} showAll={() => setHistoryOf(undefined)} />}
    >
      <Box p="5" maxW="980px">
        <PaperHead me={me} what={register.title} />
        <Stack gap="5" role="group" aria-label="Fields">
          {groups.map((group) => (
            <Box key={group.heading} as="section" aria-label={group.heading || undefined}>
              {group.heading !== '' && (
                <Heading as="h2" fontSize="sm" pb="1" mb="2.5" borderBottomWidth="1px" borderColor="line">
                  {group.heading}
                </Heading>
              )}
              <SimpleGrid columns={{ base: 1, xl: 2 }} columnGap="7" rowGap="3.5">
                {group.fields.map((field) => (
                  <RecordField
                    key={field.key}
                    field={field}
                    entry={entry}
                    cells={cells}
                    me={me}
                    who={here.at(entry.id, field.key)}
                    link={record.out.find((link) => link.field === field.key)}
                    mayEdit={enters}
                    editing={at === field.key}
                    begin={() => {
                      setAt(field.key);
                      setHistoryOf(field.key);
                    }}
                    leave={(move) => setAt(move === 'stay' ? undefined : fieldAt(move === 'left' ? -1 : 1))}
                    say={setSaid}
                  />
                ))}
              </SimpleGrid>
            </Box>
          ))}
        </Stack>
        <Text mt="3" color="growth.fg" role="status" minH="1.5em">
          {said}
        </Text>
        {record.here.map((links) => (
          <LinkedHere key={links.fieldId} links={links} build={build} me={me} />
        ))}
      </Box>
    </Page>
  );
}

interface RecordActsProps {
  readonly register: RegisterView;
  readonly record: RecordView;
  readonly cells: RecordCells;
  readonly title: string;
  readonly back: string;
}

/** Making another one of it, and deleting it. */
function RecordActs({ register, record: { entry, here }, cells, title, back }: RecordActsProps) {
  const [insert] = useInsertEntriesMutation();
  const [write] = useWriteBlockMutation();
  const [remove] = useDeleteEntriesMutation();
  const attempt = useTry();
  const arrive = useArrive();
  const dispatch = useAppDispatch();
  const duplicate = async () => {
    const made = await attempt(insert({ registerId: register.id, count: 1 }).unwrap());
    if (!made) return;
    const [id] = made.entries;
    const texts = register.fields.flatMap((field) =>
      entry.cells[field.key] === undefined ? [] : [{ entry: id!, field: field.key, text: cells.typedOf(entry, field) }],
    );
    const outcome = texts.length > 0 ? await attempt(write({ registerId: register.id, cells: texts }).unwrap()) : undefined;
    dispatch(did({ registerId: register.id, act: { act: 'made', entries: made.entries, before: undefined } }));
    const refused = outcome?.outcomes.filter(({ verdict }) => verdict.verdict === 'refused') ?? [];
    const left = refused.map(({ field }) => register.fields.find(({ key }) => key === field)?.heading ?? field);
    arrive(
      `/records/${register.id}/${id!}`,
      `This is another record like ${title}.${left.length > 0 ? ` ${left.join(', ')} ${left.length === 1 ? 'is' : 'are'} left blank: ${refused[0]!.verdict.verdict === 'refused' ? refused[0]!.verdict.message : ''}` : ''}`,
    );
  };
  const drop = async () => {
    if (!(await attempt(remove({ registerId: register.id, entries: [entry.id] }).unwrap()))) return;
    dispatch(did({ registerId: register.id, act: { act: 'deleted', entries: [entry.id], before: undefined } }));
    arrive(back, `${title} is deleted. Undo brings it back.`);
  };
  const naming = here.reduce((sum, { total }) => sum + total, 0);
  return (
    <>
      <Button onClick={() => void underWay(duplicate())}>Another like it</Button>
      <Confirm
        ask="Delete the record"
        about={`${title} is gone for everybody. ${naming > 0 ? `${naming} ${naming === 1 ? 'entry names' : 'entries name'} it and will be asked about. ` : ''}You can undo it.`}
        act="Delete the record"
        onConfirm={() => void underWay(drop())}
      />
    </>
  );
}
