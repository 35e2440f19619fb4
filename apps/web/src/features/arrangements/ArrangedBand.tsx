// Says that the entries are shown otherwise than they are kept, and leads back.
import { Button, HStack, Text } from '@chakra-ui/react';
import { arrangementWords, showingOnly, type ArrangementNames } from '@dellum/core';
import { RefreshCw, X } from 'lucide-react';
import type { Arranging } from './useArrangement.js';

export function ArrangedBand({ arranging, names, open }: { arranging: Arranging; names: ArrangementNames; open: () => void }) {
  const { arrangement, set, anew } = arranging;
  if (arranging.version === undefined) return null;
  return (
    <HStack gap="2" wrap="wrap" role="group" aria-label="My arrangement">
      <Button variant="solid" size="2xs" h="6" rounded="full" onClick={open}>
        <Text truncate maxW="520px">
          Arranged by you: {arrangementWords(arrangement, names)}
        </Text>
      </Button>
      <Button size="2xs" h="6" rounded="full" onClick={anew} title="What was changed since takes its place">
        <RefreshCw size={11} aria-hidden /> Refresh
      </Button>
      <Button
        size="2xs"
        h="6"
        rounded="full"
        onClick={() => set({ ...arrangement.only.reduce((rest, { field }) => showingOnly(rest, field, undefined), arrangement), sort: [] })}
      >
        <X size={12} aria-hidden /> As kept
      </Button>
    </HStack>
  );
}
