// A house archive before it is brought in: what is in it, and how that comes in whose name is taken.
import { Box, Button, Heading, HStack, Stack, Text } from '@chakra-ui/react';
import { grouped, type Collision, type NamedParts, type WayIn } from '@dellum/core';
import type { ArchiveKind, ArchiveLook } from '@dellum/contract';
import { useState } from 'react';
import { useNavigate, useParams } from 'react-router';
import { useArchiveLookQuery, useBringArchiveMutation, useForgetArchiveMutation } from '../../data/archivesApi.js';
import { errorWords } from '../../data/problem.js';
import { ActButton } from '../../frame/ActButton.js';
import { EmptyState, Page, Waiting } from '../../frame/Page.js';
import { Select } from '../../frame/Select.js';
import { useNotice, useTry } from '../../frame/useNotice.js';
import { Way } from '../../frame/Way.js';
import { moment } from '../../frame/written.js';
import { countsWords, onlyWayWords, partWords, wayWords } from './archiveWords.js';

export function ArchivePage() {
  const { currentData: look, error } = useArchiveLookQuery(useParams()['look']!);
  if (look) return <Looked key={look.look} look={look} />;
  return error ? (
    <EmptyState title="This archive is not here any more">
      It was brought in, or an hour has gone by. <Way to="/in-and-out">Bring it again</Way>
    </EmptyState>
  ) : (
    <Waiting error={errorWords(error)} />
  );
}

const kindWords: { readonly [Kind in ArchiveKind]: { readonly is: string; readonly act: string } } = {
  archive: { is: 'A house archive', act: 'Bring in the archive' },
  concepts: { is: 'A list of concepts', act: 'Bring in the concepts' },
  schema: { is: 'A sheet with its rules, out of a schema', act: 'Bring in the sheet' },
};

/** Concepts whose catalog was left for one that is here would be a list that nobody uses. */
const atFirst = ({ of, collisions }: ArchiveLook): ReadonlyMap<string, WayIn> =>
  new Map(of !== 'archive' ? collisions.flatMap(({ id, ways }) => (ways.includes('beside') ? [[id, 'beside'] as const] : [])) : []);

function Looked({ look }: { look: ArchiveLook }) {
  const [chosen, setChosen] = useState(() => atFirst(look));
  const [bring] = useBringArchiveMutation();
  const [forget] = useForgetArchiveMutation();
  const attempt = useTry();
  const notice = useNotice();
  const navigate = useNavigate();
  const choose = (ids: readonly string[], way: WayIn) => setChosen(new Map([...chosen, ...ids.map((id) => [id, way] as const)]));
  const bringIn = async () => {
    const done = await attempt(bring({ look: look.look, ways: [...chosen].map(([id, way]) => ({ id, way })) }).unwrap());
    if (!done) return;
    notice('done', `${look.name} is in: ${countsWords(done.counts)}.`);
    // Where what came in is seen.
    await navigate(done.counts.sheets > 0 ? '/sheets' : '/catalogs', { replace: true });
  };
  const leave = async () => {
    await attempt(forget(look.look).unwrap());
    await navigate('/in-and-out', { replace: true });
  };
  return (
    <Page
      title={look.name}
      about={`${kindWords[look.of].is}${look.at === null ? '' : ` of ${moment.format(new Date(look.at))}`}. Nothing of it is stored yet.`}
      actions={
        <HStack>
          <Button size="sm" onClick={() => void leave()}>
            Cancel
          </Button>
          <ActButton size="sm" variant="solid" onClick={() => void bringIn()}>
            {kindWords[look.of].act}
          </ActButton>
        </HStack>
      }
    >
      <Stack p="5" gap="6" maxW="760px">
        <Stack as="section" aria-label="What it brings" gap="1">
          <Text>It brings {countsWords(look.counts)}.</Text>
          {look.said.map((words) => (
            <Text key={words} color="inkSoft">
              {words}
            </Text>
          ))}
          <Text color="inkSoft">What came in is deleted piece by piece, as everything else: it cannot be taken back at once.</Text>
        </Stack>
        {look.collisions.length > 0 && (
          <Stack as="section" aria-label="Names that are taken" gap="5">
            <Box>
              <Heading as="h2" fontSize="md">
                Names that are taken
              </Heading>
              <Text color="inkSoft">Something is called the same here. Say how each of these comes in; what names it follows.</Text>
            </Box>
            {[...grouped(look.collisions, ({ what }) => what)].map(([what, collisions]) => (
              <Taken key={what} what={what} collisions={collisions} chosen={chosen} choose={choose} />
            ))}
          </Stack>
        )}
      </Stack>
    </Page>
  );
}

interface TakenProps {
  readonly what: NamedParts;
  readonly collisions: readonly Collision[];
  readonly chosen: ReadonlyMap<string, WayIn>;
  choose(ids: readonly string[], way: WayIn): void;
}

/** Those of one kind; where there are several, all of them at once. */
function Taken({ what, collisions, chosen, choose }: TakenProps) {
  const { ways } = collisions[0]!;
  const wayOf = ({ id, ways: own }: Collision) => chosen.get(id) ?? own[0]!;
  const all = new Set(collisions.map(wayOf));
  return (
    <Box as="section" aria-label={partWords[what]}>
      <HStack justify="space-between" mb="1" minH="8">
        <Text fontWeight="bold">{partWords[what]}</Text>
        {ways.length > 1 && collisions.length > 1 && (
          <Select
            label={`All ${partWords[what].toLowerCase()}`}
            width="260px"
            value={all.size === 1 ? [...all][0]! : ''}
            options={ways.map((way) => [way, `all: ${wayWords[way]('Name 2').replace('“Name 2”', 'another name')}`])}
            onChoose={(way) =>
              choose(
                collisions.map(({ id }) => id),
                way as WayIn,
              )
            }
          />
        )}
      </HStack>
      <Stack as="ul" gap="1" listStyleType="none">
        {collisions.map((collision) => (
          <HStack as="li" key={collision.id} justify="space-between" gap="3" minH="8">
            <Text minW="0" overflowWrap="anywhere">
              {collision.name}
            </Text>
            {ways.length > 1 ? (
              <Select
                label={collision.name}
                width="260px"
                value={wayOf(collision)}
                options={ways.map((way) => [way, wayWords[way](collision.instead)])}
                onChoose={(way) => choose([collision.id], way as WayIn)}
              />
            ) : (
              <Text color="inkSoft" textAlign="end">
                {onlyWayWords[ways[0]!](collision.instead)}
              </Text>
            )}
          </HStack>
        ))}
      </Stack>
    </Box>
  );
}
