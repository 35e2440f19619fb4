// All named ranges of the house: where each lies, how it ends, what it takes and leaves out and why, what it feeds.
import { Box, Button, Stack, Table, Text } from '@chakra-ui/react';
import { endingInShort, endingOf, readsDirectly, shapeInShort, type SourceRange } from '@dellum/core';
import type { BuildView, RangeLine } from '@dellum/contract';
import { useState } from 'react';
import { Link } from 'react-router';
import { errorWords } from '../../data/problem.js';
import { ColumnHeadings } from '../../frame/ColumnHeadings.js';
import { EmptyState, Page, Waiting } from '../../frame/Page.js';
import { Way } from '../../frame/Way.js';
import { useBuildQuery } from '../../data/buildApi.js';
import { useTold } from '../acts/useRegister.js';
import { leftOutWords } from './RangeCard.js';
import { cureOf } from './RangeFindings.js';
import { placeOfRange } from './placeOfRange.js';
import { TellApart } from './TellApart.js';
import { useCureMutation, useRangeLinesQuery } from '../../data/rangesApi.js';
import { number } from '../../frame/written.js';

/** So many findings of a range are shown at first. */
const fewFindings = 3;

const headings = [['Range'], ['Where it lies'], ['How it ends'], ['Taken', 'end'], ['Left out'], ['Feeds'], ['Findings']] as const;

export function RangesPage() {
  const { data: build, error } = useBuildQuery();
  const { data: lines, error: failed } = useRangeLinesQuery();
  if (!build || !lines) return <Waiting error={errorWords(error ?? failed)} />;
  return (
    <Page title="Ranges" about="Named stretches of the source sheets. A growing one takes in by itself what is added.">
      {build.ranges.length === 0 ? (
        <EmptyState title="No ranges yet">
          Select cells <Way to="/sources">on a source sheet</Way> and give them a name; then catalogs can take their values from there.
        </EmptyState>
      ) : (
        <Box p="5" overflowX="auto">
          <Table.Root size="sm">
            <ColumnHeadings headings={headings} />
            <Table.Body>
              {build.ranges.map((range) => (
                <RangeRow key={range.id} range={range} build={build} line={lines.find(({ id }) => id === range.id)} />
              ))}
            </Table.Body>
          </Table.Root>
        </Box>
      )}
    </Page>
  );
}

function RangeRow({ range, build, line }: { range: SourceRange; build: BuildView; line: RangeLine | undefined }) {
  const [cure] = useCureMutation();
  const told = useTold();
  const [all, setAll] = useState(false);
  const catalogs = build.catalogs.filter(({ definition }) => readsDirectly(definition, 'ranges', range.id));
  const place = placeOfRange(range, build);
  const ends = endingOf(range);
  return (
    <Table.Row bg="transparent" verticalAlign="top">
      <Table.Cell fontWeight="bold" color="growth.fg">
        <Link to={place.to}>{range.name}</Link>
        {range.shape !== 'list' && (
          <Text fontWeight="normal" fontSize="xs" color="inkSoft">
            {shapeInShort(range.shape)}
          </Text>
        )}
      </Table.Cell>
      <Table.Cell color="inkSoft">{place.words}</Table.Cell>
      <Table.Cell color={ends === 'fixed' ? 'inkSoft' : 'growth.fg'}>{endingInShort(ends)}</Table.Cell>
      <Table.Cell textAlign="end">{line && number.format(line.taken)}</Table.Cell>
      <Table.Cell color="inkSoft">
        {line && line.leftOut.length > 0 ? leftOutWords(line.leftOut).replace('left out: ', '') : 'nothing'}
      </Table.Cell>
      <Table.Cell>
        {catalogs.length === 0 && <Text color="inkSoft">no catalog yet</Text>}
        {catalogs.map((catalog) => (
          <Box key={catalog.id} asChild color="damson.fg" fontWeight="bold" display="block" minH="6">
            <Link to={`/catalogs/${catalog.id}`}>{catalog.title}</Link>
          </Box>
        ))}
      </Table.Cell>
      <Table.Cell minW="240px">
        <Stack gap="1.5">
          {line?.findings.slice(0, all ? undefined : fewFindings).map((finding) => (
            <Box key={finding.words} color="amber.fg">
              {finding.words} {finding.alike && <TellApart values={finding.alike} />}
              {finding.cure && (
                <Button
                  size="2xs"
                  variant="plain"
                  px="1"
                  fontWeight="bold"
                  color="damson.fg"
                  title={finding.cure.effect}
                  onClick={() => void told(cure(cureOf(finding)).unwrap())}
                >
                  {finding.cure.words}
                </Button>
              )}
              {finding.cure?.effect && (
                <Text fontSize="xs" color="inkSoft">
                  {finding.cure.effect}
                </Text>
              )}
            </Box>
          ))}
          {line && !all && line.findings.length > fewFindings && (
            <Button size="2xs" variant="plain" px="0" alignSelf="start" color="damson.fg" onClick={() => setAll(true)}>
              Show {line.findings.length - fewFindings} more
            </Button>
          )}
          {line?.findings.length === 0 && <Text color="inkSoft">nothing</Text>}
        </Stack>
      </Table.Cell>
    </Table.Row>
  );
}
