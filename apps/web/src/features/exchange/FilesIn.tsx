// Files that came back, each with where it stands.
import { Box, HStack, Stack, Text } from '@chakra-ui/react';
import type { ReturnedFileView, ReturnedState } from '@dellum/contract';
import { Way } from '../../frame/Way.js';
import { moment } from '../../frame/written.js';

const standing: { readonly [State in ReturnedState]: string } = {
  coming: 'on its way',
  reading: 'being read',
  unreadable: 'could not be read',
  unclear: 'waits to be told what its columns are',
  ready: 'waits to be looked at',
  applied: 'stored',
};

export function FilesIn({ files }: { files: readonly ReturnedFileView[] }) {
  return (
    <Stack as="ul" gap="2" listStyleType="none">
      {files.map((file) => (
        <HStack as="li" key={file.id} align="start">
          <Box minW="0" overflowWrap="anywhere">
            <Way to={`/came-back/${file.id}`}>{file.name}</Way>
            <Text color="inkSoft" fontSize="xs">
              {standing[file.state]}, {moment.format(new Date(file.at))}, by {file.by}
            </Text>
          </Box>
        </HStack>
      ))}
    </Stack>
  );
}
