// How far an act over many rows has come.
import { HStack, Progress, Text } from '@chakra-ui/react';
import type { RootState } from '../../data/store.js';
import { number } from '../../frame/written.js';

const doing = {
  clear: 'Clearing',
  fill: 'Filling down',
  replace: 'Replacing',
  paste: 'Pasting',
  delete: 'Deleting',
  back: 'Undoing',
  gather: 'Gathering',
  bring: 'Storing what came back',
} as const;

export function UnderWay({ act }: { act: RootState['acts'][string] }) {
  return (
    <HStack gap="2" role="status">
      <Text color="growth.fg" fontWeight="bold">
        {doing[act.does]}: {number.format(act.done)} of {number.format(act.total)} rows
      </Text>
      <Progress.Root value={act.done} max={act.total} w="120px" size="xs" colorPalette="growth" aria-label={doing[act.does]}>
        <Progress.Track>
          <Progress.Range />
        </Progress.Track>
      </Progress.Root>
    </HStack>
  );
}
