// Chosen records as they come on paper: each with all its fields, labels shown for codes.
import { Box, Button, Heading, HStack, SimpleGrid, Stack, Text } from '@chakra-ui/react';
import type { EntryView, Me, RegisterView } from '@dellum/contract';
import { Printer } from 'lucide-react';
import { PaperHead } from '../../frame/PaperHead.js';
import { recordTitle } from './recordWords.js';
import type { RecordCells } from '../sheets/useRegisterPlace.js';

interface PaperRecordsProps {
  readonly register: RegisterView;
  readonly entries: readonly EntryView[];
  readonly cells: RecordCells;
  readonly me: Me;
  back(): void;
}

export function PaperRecords({ register, entries, cells, me, back }: PaperRecordsProps) {
  return (
    <Stack p="5" gap="5" role="region" aria-label="On paper">
      <HStack className="not-printed" gap="2">
        <Button variant="solid" size="sm" onClick={() => window.print()}>
          <Printer size={14} aria-hidden /> Print {entries.length === 1 ? 'it' : `these ${entries.length}`}
        </Button>
        <Button size="sm" onClick={back}>
          Back to the list
        </Button>
      </HStack>
      <PaperHead me={me} what={`${register.title}, ${entries.length === 1 ? '1 record' : `${entries.length} records`}`} />
      {entries.map((entry) => (
        <Box
          key={entry.id}
          as="section"
          aria-label={recordTitle(register, entry, cells.shown)}
          borderWidth="1px"
          borderColor="line"
          rounded="l3"
          p="4"
          breakInside="avoid"
        >
          <Heading as="h2" fontSize="md" mb="2">
            {recordTitle(register, entry, cells.shown)}
          </Heading>
          <SimpleGrid as="dl" columns={2} columnGap="6" rowGap="1.5">
            {register.fields.map((field) => (
              <HStack key={field.key} align="start" gap="2">
                <Text as="dt" w="120px" flexShrink={0} color="inkSoft">
                  {field.heading}
                </Text>
                <Text as="dd" whiteSpace="pre-wrap" overflowWrap="anywhere">
                  {cells.shown(entry, field) || '–'}
                </Text>
              </HStack>
            ))}
          </SimpleGrid>
        </Box>
      ))}
    </Stack>
  );
}
