// A list beside lists that are read together, heading and what stands under it: it is offered to join them.
import { Box, Text } from '@chakra-ui/react';
import type { SourceRange } from '@dellum/core';
import { rangeMark, type BuildView } from '@dellum/contract';
import { ActButton } from '../../frame/ActButton.js';
import { useChangeRangeMutation } from '../../data/rangesApi.js';
import type { SourceRegister } from '../acts/useRegister.js';

/** The ranges over headings of the sheet in which the list does not take part. */
export function joinable({ register, isList }: SourceRegister, build: BuildView): readonly SourceRange[] {
  const here = new Set(build.sheets.find(({ id }) => id === register.sheetId)?.registers.map(({ id }) => id));
  if (!isList) return [];
  return build.ranges.filter(
    ({ shape, stretches }) =>
      shape === 'headings' &&
      stretches.some(({ registerId }) => here.has(registerId)) &&
      !stretches.some(({ registerId }) => registerId === register.id),
  );
}

export function JoinRange({ source, range }: { source: SourceRegister; range: SourceRange }) {
  const [change, { isLoading }] = useChangeRangeMutation();
  const registerIds = [...range.stretches.map(({ registerId }) => registerId), source.register.id];
  const join = () =>
    void source.told(
      change({ id: range.id, change: { seen: rangeMark(range), place: { registerIds, fields: [], entries: [] } } }).unwrap(),
    );
  return (
    <Box p="3" borderWidth="1px" borderColor="growth.border" bg="growth.subtle" rounded="l3" role="group" aria-label={`Join ${range.name}`}>
      <Text>
        {range.name} reads {range.stretches.length === 1 ? 'the list' : `${range.stretches.length} lists`} beside it: the heading, then what
        stands under it.
      </Text>
      <ActButton variant="solid" mt="2" loading={isLoading} onClick={join}>
        Add {source.register.title} to {range.name}
      </ActButton>
    </Box>
  );
}
