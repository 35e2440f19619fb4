// Requests of clerks for values that a catalog does not have yet: like ones together, each answered once.
import { Box, Heading, HStack, Input, Stack, Text } from '@chakra-ui/react';
import { mayKeep, type BuildView, type RequestGroup } from '@dellum/contract';
import { catalogUnder, lookUp, type Catalog } from '@dellum/core';
import { useState } from 'react';
import { Link } from 'react-router';
import { errorWords } from '../../data/problem.js';
import { ActButton } from '../../frame/ActButton.js';
import { EmptyState, Page, Waiting } from '../../frame/Page.js';
import { useNotice, useTry } from '../../frame/useNotice.js';
import { useCatalogs } from '../../data/useCatalogs.js';
import { useMeQuery } from '../../data/sessionApi.js';
import { useBuildQuery } from '../../data/buildApi.js';
import { OwnRequests } from './OwnRequests.js';
import { useAnswerRequestMutation, useRequestsQuery } from '../../data/requestsApi.js';
import { moment, number } from '../../frame/written.js';

const entriesWords = (count: number) => `${number.format(count)} ${count === 1 ? 'entry waits' : 'entries wait'}`;
const keyOf = ({ catalogId, path, spellings }: RequestGroup) => [catalogId, ...path, spellings[0]?.value].join('\u001F');

export function RequestsPage() {
  const { data: build, error } = useBuildQuery();
  const { data: me } = useMeQuery();
  if (!build || !me) return <Waiting error={errorWords(error)} />;
  return mayKeep(me.role) ? <RequestsToAnswer build={build} /> : <OwnRequests build={build} />;
}

function RequestsToAnswer({ build }: { build: BuildView }) {
  const { data: groups, error } = useRequestsQuery();
  const catalogs = useCatalogs([...new Set(groups?.map(({ catalogId }) => catalogId))]);
  if (!groups) return <Waiting error={errorWords(error)} />;
  const waiting = groups.reduce((sum, { spellings }) => sum + spellings.reduce((own, { entries }) => own + entries, 0), 0);
  return (
    <Page
      title="Requests"
      about={
        groups.length === 0
          ? 'Values that clerks ask for, for the catalogs in your care.'
          : `${number.format(groups.length)} ${groups.length === 1 ? 'request' : 'requests'}; ${entriesWords(waiting)} for an answer.`
      }
    >
      {groups.length === 0 ? (
        <EmptyState title="Nobody waits for an answer">
          Where a rule lets clerks ask for new values, their requests arrive here at once.
        </EmptyState>
      ) : (
        <Stack p="5" gap="3" maxW="860px">
          {groups.map((group) => (
            <OneRequest key={keyOf(group)} group={group} build={build} catalog={catalogs.get(group.catalogId)} />
          ))}
        </Stack>
      )}
    </Page>
  );
}

/** Where the entries of a request are, as ways to them. */
function Places({ group, build }: { group: RequestGroup; build: BuildView }) {
  const places = build.sheets.flatMap((sheet) =>
    sheet.registers.flatMap(({ fields }) =>
      fields
        .filter(({ id }) => group.fields.includes(id))
        .map((field) => ({
          words: `${field.heading} in ${sheet.title}`,
          to: `/sheets/${sheet.id}?holds=${field.key}&value=${encodeURIComponent(group.spellings[0]!.value)}`,
        })),
    ),
  );
  return (
    <Text color="inkSoft">
      asked for by {group.by.join(', ')} since {moment.format(new Date(group.since))}, for{' '}
      {places.map(({ words, to }, at) => (
        <span key={to}>
          {at > 0 && ', '}
          <Box asChild color="damson.fg" textDecoration="underline" textUnderlineOffset="3px">
            <Link to={to}>{words}</Link>
          </Box>
        </span>
      ))}
    </Text>
  );
}

function OneRequest({ group, build, catalog }: { group: RequestGroup; build: BuildView; catalog: Catalog | undefined }) {
  const [first, ...others] = group.spellings;
  const [spelled, setSpelled] = useState(first!.value);
  const [meant, setMeant] = useState(group.proposed ?? '');
  const [word, setWord] = useState('');
  const [answer, { isLoading }] = useAnswerRequestMutation();
  const attempt = useTry();
  const notice = useNotice();
  const title = build.catalogs.find(({ id }) => id === group.catalogId)?.title ?? 'a catalog';
  const entries = group.spellings.reduce((sum, spelling) => sum + spelling.entries, 0);
  const values = group.spellings.map(({ value }) => value);
  const found = catalog && meant.trim() !== '' ? lookUp(catalogUnder(catalog, group.path), meant) : undefined;
  const target = found?.found === 'item' ? found.item : undefined;
  const name = `“${first!.value}” for ${title}`;
  const send = async (how: 'accepted' | 'mapped' | 'declined', more: { to?: string; word?: string }, words: string) => {
    if (await attempt(answer({ catalogId: group.catalogId, path: [...group.path], values, answer: how, ...more }).unwrap()))
      notice('done', words);
  };
  return (
    <Box as="section" aria-label={name} p="4" borderWidth="1px" borderColor="line" rounded="l3" bg="card">
      <HStack justify="space-between" align="baseline" wrap="wrap">
        <Heading as="h2" fontSize="md" overflowWrap="anywhere">
          “{first!.value}”{' '}
          <Text as="span" fontWeight="normal" color="inkSoft">
            for {[title, ...group.path].join(' › ')}
          </Text>
        </Heading>
        <Text fontWeight="bold" color="amber.fg">
          {entriesWords(entries)}
        </Text>
      </HStack>
      {others.length > 0 && (
        <Text>also written {others.map(({ value, entries: held }) => `“${value}” (${number.format(held)})`).join(', ')}</Text>
      )}
      <Places group={group} build={build} />
      <Stack gap="2" mt="3">
        <Answer
          label={`Spelled right: ${name}`}
          words="Take it in as"
          value={spelled}
          set={setSpelled}
          act="Accept"
          loading={isLoading}
          disabled={spelled.trim() === ''}
          send={() =>
            void send(
              'accepted',
              { to: spelled.trim() },
              `“${spelled.trim()}” is offered now, and ${entries === 1 ? 'the entry is' : `${number.format(entries)} entries are`} right.`,
            )
          }
        />
        <Answer
          label={`Meant: ${name}`}
          words="It means"
          value={meant}
          set={setMeant}
          act="Map"
          loading={isLoading}
          disabled={!target}
          note={
            meant.trim() === '' || !catalog ? '' : target ? (target.value === meant ? '' : `that is ${target.label}`) : `not in ${title}`
          }
          send={() =>
            void send('mapped', { to: target!.value }, `Entries follow to ${target!.label}; “${first!.value}” is understood from now on.`)
          }
        />
        <Answer
          label={`A word: ${name}`}
          words="Say no, because"
          value={word}
          set={setWord}
          act="Decline"
          note={word.trim() === '' ? 'a word helps whoever asked' : ''}
          loading={isLoading}
          disabled={false}
          send={() =>
            void send(
              'declined',
              { word: word.trim() },
              word.trim() === ''
                ? 'The request is declined; whoever made it sees it at the entry.'
                : 'The request is declined; whoever made it sees your word at the entry.',
            )
          }
        />
      </Stack>
    </Box>
  );
}

interface AnswerProps {
  readonly label: string;
  readonly words: string;
  readonly value: string;
  readonly act: string;
  readonly note?: string;
  readonly loading: boolean;
  readonly disabled: boolean;
  set(value: string): void;
  send(): void;
}

function Answer({ label, words, value, act, note, loading, disabled, set, send }: AnswerProps) {
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault();
        if (!disabled) send();
      }}
    >
      <HStack gap="2">
        <Text w="120px" color="inkSoft" flexShrink={0}>
          {words}
        </Text>
        <Input
          size="xs"
          maxW="280px"
          borderColor="slate.border"
          aria-label={label}
          value={value}
          onChange={(event) => set(event.target.value)}
        />
        <ActButton type="submit" w="80px" loading={loading} disabled={disabled}>
          {act}
        </ActButton>
        {note && <Text color="inkSoft">{note}</Text>}
      </HStack>
    </form>
  );
}
