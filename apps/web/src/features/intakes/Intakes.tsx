// Intakes, as they are listed: each with the sheet that it fills, and whether something waits.
import { Box, Button, Heading, HStack, Stack, Text } from '@chakra-ui/react';
import type { BuildView, IntakeView } from '@dellum/contract';
import { useIntakesQuery } from '../../data/intakesApi.js';
import { moment, number } from '../../frame/written.js';

interface IntakesProps {
  readonly build: BuildView;
  /** Opens the form of a new one. */
  add(): void;
  /** Opens what has come through one. */
  look(id: string): void;
}

export function Intakes({ build, add, look }: IntakesProps) {
  // Files come without anybody here doing anything.
  const { data: intakes = [] } = useIntakesQuery(undefined, { refetchOnMountOrArgChange: true });
  return (
    <Stack as="section" aria-label="Files that come by themselves" gap="2">
      <Heading as="h2" fontSize="md">
        Files that come by themselves
      </Heading>
      <Text color="inkSoft">
        An intake takes every file of one kind into a sheet, out of a folder, from a program or from you. Rows that fit are stored at once;
        what is new waits for you.
      </Text>
      {intakes.map((intake) => (
        <Intake key={intake.id} intake={intake} build={build} look={look} />
      ))}
      {intakes.length === 0 && <Text>There is no intake yet.</Text>}
      <Button alignSelf="start" onClick={add}>
        New intake
      </Button>
    </Stack>
  );
}

function Intake({ intake, build, look }: { intake: IntakeView } & Pick<IntakesProps, 'build' | 'look'>) {
  const { id, name, failure } = intake;
  return (
    <HStack justify="space-between" align="start" borderTopWidth="1px" borderColor="line" pt="2">
      <Box minW="0" overflowWrap="anywhere">
        <Text>
          <b>{name}</b> {standing(intake)}
        </Text>
        <Text fontSize="xs" color="inkSoft">
          {fills(intake, build)}
        </Text>
        {failure !== null && (
          <Text fontSize="xs" color="brick.fg">
            {failure}
          </Text>
        )}
      </Box>
      <Button flexShrink={0} aria-label={`Files of ${name}`} onClick={() => look(id)}>
        Files
      </Button>
    </HStack>
  );
}

const standing = ({ off, waits, last }: IntakeView): string => {
  if (off !== null) return `is switched off since ${moment.format(new Date(off))}`;
  if (waits > 0) return `${number.format(waits)} ${waits === 1 ? 'file waits' : 'files wait'} for you`;
  return last === null ? 'nothing has come yet' : `a file came last ${moment.format(new Date(last))}`;
};

/** "Into Gate log, out of the folder in. In the name of Ines Corrow." */
export function fills({ registerId, folder, pattern, by }: IntakeView, build: BuildView): string {
  const sheet = build.sheets.find(({ registers }) => registers.some(({ id }) => id === registerId));
  const names = pattern === '' ? '' : `, names like ${pattern}`;
  const from = folder === null ? '' : `, out of the folder ${folder === '' ? 'of linked files' : folder}${names}`;
  return `Into ${sheet?.title ?? 'a sheet that is gone'}${from}. Stored in the name of ${by}.`;
}
