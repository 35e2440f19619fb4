// The seek line: goes to any page, sheet, list, range, catalog, field or value. Ctrl and the full stop reach it.
import { Box, HStack, Input, Text } from '@chakra-ui/react';
import { clean } from '@dellum/core';
import { mayDesign, mayKeep, type Me } from '@dellum/contract';
import { useEffect, useId, useMemo, useRef, useState, type KeyboardEvent } from 'react';
import { useNavigate } from 'react-router';
import { useItems } from '../../data/useItems.js';
import { useHeldInQuery } from '../../data/entriesApi.js';
import { heldPlaces } from '../entries/heldPlaces.js';
import { useFiguresQuery } from '../../data/figuresApi.js';
import { usePeopleQuery } from '../../data/peopleApi.js';
import { useRequestsQuery } from '../../data/requestsApi.js';
import { useBuildQuery } from '../../data/buildApi.js';
import { find, seekables, type SeekHit } from './findings.js';
import { number } from '../../frame/written.js';

const none: readonly never[] = [];

export function SeekLine({ me }: { me: Me }) {
  const { data: build } = useBuildQuery();
  const [query, setQuery] = useState('');
  const [at, setAt] = useState(0);
  const [open, setOpen] = useState(false);
  const input = useRef<HTMLInputElement>(null);
  const navigate = useNavigate();
  const listId = useId();
  const loaded = useItems(open && build ? build.catalogs.map(({ id }) => id) : []);
  const items = useMemo(() => loaded.map((one) => one.items), [loaded]);
  const { data: figures = none } = useFiguresQuery(undefined, { skip: !open });
  const { data: people = none } = usePeopleQuery(undefined, { skip: !open || !mayDesign(me.role) });
  const { data: requests = none } = useRequestsQuery(undefined, { skip: !open || !mayKeep(me.role) });
  const all = useMemo(
    () => (build ? seekables(build, { items, figures, people, requests }, me.role) : []),
    [build, items, figures, people, requests, me.role],
  );
  const value = clean(query);
  const { currentData: held } = useHeldInQuery(value, { skip: !open || value.length < 2 });
  const findings = useMemo(
    () => [
      ...find(all, query),
      ...(held && build
        ? heldPlaces(held, build, value).map(({ to, words, entries }): SeekHit => ({
            what: entries === 1 ? '1 entry' : `${number.format(entries)} entries`,
            words: `“${value}”`,
            where: words,
            to,
          }))
        : []),
    ],
    [all, query, held, build, value],
  );

  useEffect(() => {
    const reach = (event: globalThis.KeyboardEvent) => {
      if (event.ctrlKey && event.key === '.') {
        event.preventDefault();
        input.current?.focus();
      }
    };
    window.addEventListener('keydown', reach);
    return () => window.removeEventListener('keydown', reach);
  }, []);

  const go = (finding: SeekHit | undefined) => {
    if (!finding) return;
    setQuery('');
    setOpen(false);
    input.current?.blur();
    void navigate(finding.to);
  };
  const keys = (event: KeyboardEvent) => {
    const move = { ArrowDown: 1, ArrowUp: -1 }[event.key];
    if (move) {
      event.preventDefault();
      setAt((at + move + findings.length) % Math.max(1, findings.length));
    } else if (event.key === 'Enter') go(findings[at]);
    else if (event.key === 'Escape') {
      setQuery('');
      setOpen(false);
    }
  };
  const shown = open && query.trim() !== '';
  return (
    <Box position="relative" flex="1" maxW="380px" role="search">
      <Input
        ref={input}
        size="xs"
        rounded="full"
        bg="card"
        borderColor="line"
        px="4"
        placeholder={
          me.role === 'administrator' ? 'Search catalogs, fields, values, people … (Ctrl .)' : 'Search sheets, fields and figures (Ctrl .)'
        }
        aria-label="Search"
        role="combobox"
        aria-expanded={shown}
        aria-controls={listId}
        aria-activedescendant={shown && findings.length > 0 ? `${listId}-${at}` : undefined}
        value={query}
        onChange={(event) => {
          setQuery(event.target.value);
          setAt(0);
          setOpen(true);
        }}
        onFocus={() => setOpen(true)}
        onBlur={() => setOpen(false)}
        onKeyDown={keys}
      />
      {shown && (
        <Box
          id={listId}
          role="listbox"
          aria-label="Findings"
          position="absolute"
          top="calc(100% + 4px)"
          left="0"
          right="0"
          zIndex="dropdown"
          bg="card"
          borderWidth="1px"
          borderColor="line"
          rounded="l3"
          shadow="lifted"
          py="1"
          maxH="60vh"
          overflow="auto"
        >
          {findings.length === 0 && (
            <Text px="4" py="2" color="inkSoft" role="option" aria-selected={false}>
              Nothing here holds “{query.trim()}”.
            </Text>
          )}
          {findings.map((finding, index) => (
            <HStack
              key={`${finding.to} ${finding.words}`}
              id={`${listId}-${index}`}
              role="option"
              aria-selected={index === at}
              px="4"
              py="1.5"
              gap="3"
              cursor="pointer"
              bg={index === at ? 'growth.subtle' : undefined}
              onMouseDown={(event) => {
                event.preventDefault();
                go(finding);
              }}
              onMouseEnter={() => setAt(index)}
            >
              <Text flex="1" truncate>
                <b>{finding.words}</b>{' '}
                {finding.where && (
                  <Text as="span" color="inkSoft">
                    in {finding.where}
                  </Text>
                )}
              </Text>
              <Text fontSize="xs" color="inkSoft">
                {finding.what}
              </Text>
            </HStack>
          ))}
        </Box>
      )}
    </Box>
  );
}
