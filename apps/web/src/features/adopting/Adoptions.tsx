// Proposals out of files, each with where it stands, and the place where more are begun.
import { Box, Stack, Text } from '@chakra-ui/react';
import type { AdoptionState, AdoptionSummary } from '@dellum/contract';
import { useAdoptionsQuery } from '../../data/adoptionsApi.js';
import { Way } from '../../frame/Way.js';
import { moment } from '../../frame/written.js';
import { AdoptDrop } from './AdoptDrop.js';

const standing: { readonly [State in AdoptionState]: string } = {
  reading: 'being read',
  unreadable: 'could not be read',
  ready: 'waits to be looked at',
  applying: 'being applied',
  applied: 'applied',
};

/** What a proposal is called: by its files. */
export function proposalTitle(files: AdoptionSummary['files']): string {
  const [first, ...others] = files.map(({ name }) => name);
  if (first === undefined) return 'A proposal';
  return others.length === 0 ? first : `${first} and ${others.length === 1 ? 'one more' : `${others.length} more`}`;
}

export function Adoptions() {
  const { data: all = [] } = useAdoptionsQuery(undefined, { refetchOnMountOrArgChange: true });
  return (
    <Stack gap="2">
      <AdoptDrop />
      {all.length > 0 && (
        <Stack as="ul" gap="2" listStyleType="none" aria-label="Proposals">
          {all.map(({ id, files, at, by, state }) => (
            <Box as="li" key={id} minW="0" overflowWrap="anywhere">
              <Way to={`/proposal/${id}`}>{proposalTitle(files)}</Way>
              <Text color="inkSoft" fontSize="xs">
                {standing[state]}, {moment.format(new Date(at))}, by {by}
              </Text>
            </Box>
          ))}
        </Stack>
      )}
    </Stack>
  );
}
