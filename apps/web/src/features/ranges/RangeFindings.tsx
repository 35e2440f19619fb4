// What the range doctor finds about the ranges over a list or table, each with its cure in one step.
import { Box, Button, Stack, Text } from '@chakra-ui/react';
import { examine, houseLocale, readSourceState, type FindingKind, type RangeFinding } from '@dellum/core';
import type { BuildView, CureDto, RangeLine } from '@dellum/contract';
import { useMemo } from 'react';
import type { SourceRegister } from '../acts/useRegister.js';
import { TellApart } from './TellApart.js';
import { useCureMutation, useRangeLinesQuery } from '../../data/rangesApi.js';

/** What is seen in the cells by themselves is found at once, in the browser; the rest when the server has looked at all ranges. */
const atTheCells: ReadonlySet<FindingKind> = new Set([
  'past the end',
  'after the gap',
  'repeat',
  'outer blanks',
  'wrong kind',
  'mixed kinds',
]);
const noLines: readonly RangeLine[] = [];

export const cureOf = ({ rangeId, kind, words }: RangeFinding): CureDto => ({ rangeId, kind, words });

/** A range that feeds nothing yet may just have been made: its card offers what to do with it, and nothing here counts it as wrong. */
export function RangeFindings({ source, build }: { source: SourceRegister; build: BuildView }) {
  const [cure] = useCureMutation();
  const { state, rails } = source;
  const { data: lines = noLines } = useRangeLinesQuery();
  const atOnce = useMemo(() => {
    const sourceState = {
      locale: houseLocale,
      registers: new Map([[state.id, state]]),
      ranges: build.ranges,
      definitions: new Map(),
      kept: new Map(),
      linked: new Map(),
    };
    const whole = rails.filter(({ range }) => range.stretches.length === 1);
    const reader = readSourceState(sourceState, new Map(whole.map(({ range, taking }) => [range.id, taking])));
    return whole
      .flatMap(({ range }) => examine(range.id, sourceState, { effects: state.entries.length < 2000, reader }))
      .filter(({ kind }) => atTheCells.has(kind));
  }, [state, rails, build.ranges]);
  const whole = new Set(rails.filter(({ stretch, range }) => range.stretches[0] === stretch).map(({ range }) => range.id));
  const findings = [
    ...atOnce,
    ...lines
      .filter(({ id }) => whole.has(id))
      .flatMap((line) => line.findings.filter(({ kind }) => !atTheCells.has(kind) && kind !== 'unused')),
  ];
  if (findings.length === 0) return null;
  return (
    <Stack gap="2" mt="2">
      {findings.slice(0, 4).map((finding) => (
        <Box key={`${finding.rangeId} ${finding.words}`} bg="amber.subtle" color="amber.fg" rounded="l2" px="3" py="2" role="note">
          <Text>{finding.words}</Text>
          {finding.alike && <TellApart values={finding.alike} />}
          {finding.cure && (
            <Button
              variant="plain"
              px="0"
              h="6"
              fontWeight="bold"
              color="damson.fg"
              title={finding.cure.effect}
              onClick={() => void source.told(cure(cureOf(finding)).unwrap())}
            >
              {finding.cure.words}
            </Button>
          )}
        </Box>
      ))}
      {findings.length > 4 && <Text color="amber.fg">and {findings.length - 4} more; the Ranges page lists them all.</Text>}
    </Stack>
  );
}
