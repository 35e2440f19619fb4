// The slip by which one brings a file into a sheet: one that went out to be filled in, or a table of new entries.
import { Box, Stack, Text } from '@chakra-ui/react';
import type { RegisterView } from '@dellum/contract';
import { useReturnedFilesQuery } from '../../data/returnedApi.js';
import { SlipHead } from '../../frame/SlipHead.js';
import { FilesIn } from './FilesIn.js';
import { ReturnedDrop } from './ReturnedDrop.js';

export function BringSlip({ register, close }: { register: RegisterView; close(): void }) {
  const { data: files = [] } = useReturnedFilesQuery(undefined, { refetchOnMountOrArgChange: true });
  const own = files.filter(({ registerId }) => registerId === register.id);
  return (
    <Stack gap="4">
      <SlipHead
        title={`Bring a file into ${register.title}`}
        about="You look at what it would change before anything is stored."
        close={close}
      />
      <ReturnedDrop registerId={register.id} />
      <Text color="inkSoft" fontSize="sm">
        A workbook that was downloaded to be filled in changes the entries it went out with. The rows of any other file become new entries.
      </Text>
      {own.length > 0 && (
        <Box role="region" aria-label="Files that came">
          <Text fontWeight="bold" mb="1">
            Files that came
          </Text>
          <FilesIn files={own} />
        </Box>
      )}
    </Stack>
  );
}
