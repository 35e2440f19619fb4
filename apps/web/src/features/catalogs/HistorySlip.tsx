// The history of a catalog: every change with who and when, taken back one by one; and a day to look back to.
import { Box, Button, Heading, HStack, IconButton, Input, Stack, Text } from '@chakra-ui/react';
import type { CatalogView } from '@dellum/contract';
import { X } from 'lucide-react';
import { useTakeBackMutation } from '../sources/sourcesApi.js';
import { useTold } from '../sources/useRegister.js';
import { useCatalogHistoryQuery } from './catalogsApi.js';
import { moment } from '../../frame/written.js';

interface HistorySlipProps {
  readonly catalog: CatalogView;
  readonly day: string | undefined;
  readonly today: string;
  /** Changes are taken back by administrators. */
  readonly takesBack: boolean;
  onDay(day: string | undefined): void;
  close(): void;
}

export function HistorySlip({ catalog, day, today, takesBack, onDay, close }: HistorySlipProps) {
  const { data: changes } = useCatalogHistoryQuery(catalog.id);
  const [takeBack, { isLoading }] = useTakeBackMutation();
  const told = useTold();
  return (
    <Stack gap="3" role="region" aria-label="History">
      <HStack justify="space-between">
        <Heading as="h2" fontSize="lg">
          History
        </Heading>
        <IconButton aria-label="Close" size="2xs" variant="ghost" colorPalette="slate" onClick={close}>
          <X size={14} />
        </IconButton>
      </HStack>
      <HStack>
        <Text asChild>
          <label htmlFor="as-of">As it stood on</label>
        </Text>
        <Input id="as-of" type="date" size="xs" w="140px" borderColor="slate.border" max={today} value={day ?? ''} onChange={(event) => onDay(event.target.value || undefined)} />
        {day && (
          <Button size="xs" variant="outline" onClick={() => onDay(undefined)}>
            Back to now
          </Button>
        )}
      </HStack>
      {changes?.length === 0 && <Text color="inkSoft">Nothing has changed since it was made.</Text>}
      {changes?.map((change) => (
        <Box key={change.id} borderTopWidth="1px" borderColor="line" pt="2">
          <Text color="inkSoft" fontSize="xs">
            {moment.format(new Date(change.at))}, {change.by}
          </Text>
          {change.words.map((words) => (
            <Text key={words} overflowWrap="anywhere">
              {words}
            </Text>
          ))}
          {takesBack && change.act !== null && (
            <Button size="2xs" variant="ghost" px="0" loading={isLoading} onClick={() => void told(takeBack(change.act!).unwrap())}>
              Take it back
            </Button>
          )}
        </Box>
      ))}
    </Stack>
  );
}
