// The history of a catalog: every change with who and when, taken back one by one; and a day to look back to.
import { Box, Button, Heading, HStack, IconButton, Stack, Text } from '@chakra-ui/react';
import type { CatalogView } from '@dellum/contract';
import { X } from 'lucide-react';
import { DayField } from '../../picker/DayField.js';
import { useTakeBackMutation } from '../../data/sourcesApi.js';
import { useTold } from '../acts/useRegister.js';
import { useCatalogHistoryQuery } from '../../data/catalogsApi.js';
import { ActButton } from '../../frame/ActButton.js';
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
      <HStack align="end">
        <DayField label="As it stood on" size="xs" until={today} day={day ?? ''} onDay={(chosen) => onDay(chosen || undefined)} />
        {day && <Button onClick={() => onDay(undefined)}>Back to now</Button>}
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
            <ActButton size="2xs" variant="ghost" px="0" loading={isLoading} onClick={() => void told(takeBack(change.act!).unwrap())}>
              Take it back
            </ActButton>
          )}
        </Box>
      ))}
    </Stack>
  );
}
