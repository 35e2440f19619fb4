// The frame around every page: a slim rail with words, a head with the seek line, live state and the person.
import { Badge, Box, Button, Flex, HStack, Stack, Text } from '@chakra-ui/react';
import { mayDesign, mayEnter, mayKeep, type Me } from '@dellum/contract';
import { useEffect, useRef, useState } from 'react';
import { NavLink, Outlet } from 'react-router';
import { isKeptFor } from '../data/keptInTab.js';
import { useWaitingRows } from '../features/acts/keptTexts.js';
import { useLostDrafts } from '../features/entries/useLostDrafts.js';
import { useWaitingDrafts } from '../features/entries/useWaitingDrafts.js';
import { useRequestCountQuery } from '../data/requestsApi.js';
import { useSlipsQuery } from '../data/sourcesApi.js';
import { useBuildQuery } from '../data/buildApi.js';
import { upkeepCount, useUpkeepQuery } from '../data/upkeepApi.js';
import { cellToComeBackTo } from '../grid/index.js';
import { SeekLine } from '../features/seek/SeekLine.js';
import { useLive } from '../live/useLive.js';
import { useAppSelector } from '../data/store.js';
import { AwayBand } from './AwayBand.js';
import { ErrandBand } from '../frame/ErrandBand.js';
import { fetchLater, later, laterDialog } from '../frame/later.js';
import { Mark } from '../theme/Mark.js';
import { Notices } from '../frame/Notices.js';
import { initials } from '../frame/initials.js';
import type { PersonMenuProps } from './person.js';
import { writeAs } from '../frame/written.js';

const PersonMenu = later(
  async () => (await import('./PersonMenu.js')).PersonMenu,
  ({ button }) => button,
);
const KeysHelp = laterDialog(async () => (await import('../frame/KeysHelp.js')).KeysHelp);

interface Way {
  readonly to: string;
  readonly words: string;
  readonly count?: number;
  readonly about?: string;
  /** What the count means. */
  readonly title?: string;
}

function RailGroup({ name, ways }: { name: string; ways: readonly Way[] }) {
  return (
    <Box as="section" aria-label={name}>
      <Text display={{ base: 'none', md: 'block' }} fontSize="2xs" fontWeight="bold" color="inkSoft" px="2" mb="1">
        {name}
      </Text>
      <Stack gap="0.5" direction={{ base: 'row', md: 'column' }}>
        {ways.map(({ to, words, count, about, title }) => (
          <Box
            key={to}
            asChild
            px="2"
            py="1.5"
            rounded="l2"
            color="ink"
            borderLeftWidth="3px"
            borderColor="transparent"
            _hover={{ bg: 'paper' }}
            css={{
              '&.active': { background: 'var(--chakra-colors-card)', fontWeight: 700, borderColor: 'var(--chakra-colors-damson-solid)' },
            }}
          >
            <NavLink to={to}>
              <HStack justify="space-between">
                <span>{words}</span>
                {count !== undefined && count > 0 && (
                  <Badge
                    colorPalette="amber"
                    variant="subtle"
                    title={title ?? (about ? 'Changes that wait for an answer' : 'What wants mending')}
                  >
                    {count} {about}
                  </Badge>
                )}
              </HStack>
            </NavLink>
          </Box>
        ))}
      </Stack>
    </Box>
  );
}

function Rail({ me }: { me: Me }) {
  const designs = mayDesign(me.role);
  const keeps = mayKeep(me.role);
  const { data: slips } = useSlipsQuery(undefined, { skip: !designs });
  const { data: requests } = useRequestCountQuery(undefined, { skip: !keeps });
  const { data: upkeep } = useUpkeepQuery(undefined, { skip: !designs });
  const { data: build } = useBuildQuery();
  const asked: Way = { to: '/requests', words: 'Requests', count: requests?.waiting ?? 0, title: 'Entries that wait for a value' };
  const looks = !designs && build?.sheets.some(({ kind }) => kind === 'source');
  return (
    <Stack
      as="nav"
      aria-label="Main"
      w={{ base: '100%', md: '168px' }}
      direction={{ base: 'row', md: 'column' }}
      align={{ base: 'center', md: 'stretch' }}
      overflowX="auto"
      flexShrink={0}
      bg="deep"
      borderRightWidth="1px"
      borderColor="line"
      px="2"
      py={{ base: '2', md: '4' }}
      gap={{ base: '2', md: '5' }}
    >
      <HStack px="2" color="damson.fg" gap="2">
        <Mark />
        <Text fontWeight="bold" fontSize="lg">
          Dellum
        </Text>
      </HStack>
      <RailGroup
        name="Enter"
        ways={[
          { to: '/sheets', words: 'Sheets' },
          { to: '/forms', words: 'Forms' },
          { to: '/records', words: 'Records' },
          ...(looks ? [{ to: '/sources', words: 'Lists' }] : []),
          ...(mayEnter(me.role) && !keeps ? [{ to: '/requests', words: 'Requests' }] : []),
        ]}
      />
      {!designs && <RailGroup name="Look" ways={[{ to: '/figures', words: 'Figures' }]} />}
      {keeps && !designs && <RailGroup name="Maintain" ways={[{ to: '/catalogs', words: 'Catalogs' }, asked]} />}
      {designs && (
        <>
          <RailGroup
            name="Maintain"
            ways={[
              { to: '/catalogs', words: 'Catalogs' },
              asked,
              { to: '/sources', words: 'Sources', count: slips?.length ?? 0, about: 'waiting' },
              { to: '/ranges', words: 'Ranges' },
              { to: '/linked', words: 'Linked' },
              { to: '/bindings', words: 'Bindings' },
              { to: '/map', words: 'Map' },
              { to: '/upkeep', words: 'Upkeep', count: upkeep ? upkeepCount(upkeep) : 0 },
            ]}
          />
          <RailGroup
            name="Look"
            ways={[
              { to: '/figures', words: 'Figures' },
              { to: '/ledger', words: 'Ledger' },
            ]}
          />
          <RailGroup
            name="House"
            ways={[
              { to: '/house', words: 'House' },
              { to: '/people', words: 'People' },
              { to: '/in-and-out', words: 'In and out' },
            ]}
          />
        </>
      )}
    </Stack>
  );
}

function LiveDot() {
  const { stream, away } = useAppSelector((state) => state.live);
  const state = away ? 'away' : stream;
  const words = { live: 'live', connecting: 'connecting', away: 'not live' }[state];
  return (
    <HStack
      gap="1.5"
      color={state === 'live' ? 'growth.fg' : 'amber.fg'}
      title={state === 'live' ? 'Changes of others show at once' : 'Changes of others do not show yet'}
    >
      <Box w="2" h="2" rounded={state === 'live' ? 'full' : '0'} bg="currentColor" aria-hidden />
      <span>{words}</span>
    </HStack>
  );
}

/** The keys that work on every page: `?` outside a text lists all keys, F6 goes back into the grid. */
function usePageKeys(help: () => void): void {
  const now = useRef(help);
  useEffect(() => {
    now.current = help;
  });
  useEffect(() => {
    const keys = (event: KeyboardEvent) => {
      const at = event.target as HTMLElement;
      if (event.defaultPrevented || at.matches('input, textarea, select, [contenteditable=true]')) return;
      if (event.key === '?' && !event.ctrlKey && !event.metaKey) {
        event.preventDefault();
        now.current();
      }
    };
    const back = (event: KeyboardEvent) => {
      const cell = event.key === 'F6' && !event.defaultPrevented ? cellToComeBackTo() : undefined;
      if (!cell) return;
      event.preventDefault();
      cell.focus();
    };
    window.addEventListener('keydown', keys);
    window.addEventListener('keydown', back);
    return () => {
      window.removeEventListener('keydown', keys);
      window.removeEventListener('keydown', back);
    };
  }, []);
}

/** Opens the person's menu, which is fetched later. */
function Person({ me, help }: PersonMenuProps) {
  const [asked, setAsked] = useState(false);
  const button = (
    <Button variant="subtle" aria-label={`${me.name}, ${me.role}`} aria-haspopup="menu" onClick={() => setAsked(true)}>
      {initials(me.name)}
    </Button>
  );
  return asked ? <PersonMenu me={me} help={help} button={button} /> : button;
}

export function Frame({ me }: { me: Me }) {
  const [keys, setKeys] = useState(false);
  usePageKeys(() => setKeys(true));
  writeAs(me.house.locale);
  useEffect(() => {
    if (!isKeptFor(me.id)) window.location.reload();
  }, [me.id]);
  // What can wait does not compete with what the page waits for.
  const asks = useAppSelector((state) => Object.values(state.api.queries).some((query) => query?.status === 'pending'));
  useEffect(() => (asks ? undefined : fetchLater()), [asks]);
  useLive(me);
  useWaitingDrafts();
  useWaitingRows();
  useLostDrafts();
  return (
    <Flex direction={{ base: 'column', md: 'row' }} h="100%">
      <Rail me={me} />
      <Flex direction="column" flex="1" minW="0" minH="0">
        <HStack as="header" justify="space-between" gap="4" px="5" h="44px" flexShrink={0} borderBottomWidth="1px" borderColor="line">
          <SeekLine me={me} />
          <HStack gap="4" flexShrink={0}>
            <LiveDot />
            <Person me={me} help={() => setKeys(true)} />
          </HStack>
        </HStack>
        <AwayBand />
        <ErrandBand />
        <Box as="main" flex="1" minH="0">
          <Outlet />
        </Box>
      </Flex>
      <Notices />
      <KeysHelp open={keys} close={() => setKeys(false)} />
    </Flex>
  );
}
