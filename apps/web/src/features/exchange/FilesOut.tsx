// Files that went out, each fetched again or deleted here.
import { Box, Button, HStack, Link, Stack, Text } from '@chakra-ui/react';
import type { DownloadView } from '@dellum/contract';
import { fileAddress, useRemoveDownloadMutation } from '../../data/downloadsApi.js';
import { useTry } from '../../frame/useNotice.js';
import { entries, moment } from '../../frame/written.js';

export function FilesOut({ files }: { files: readonly DownloadView[] }) {
  const [remove] = useRemoveDownloadMutation();
  const attempt = useTry();
  return (
    <Stack as="ul" gap="2" listStyleType="none">
      {files.map((file) => (
        <HStack as="li" key={file.id} justify="space-between" align="start">
          <Box minW="0">
            {file.state === 'done' ? (
              <Link href={fileAddress(file.id)} download={file.name} overflowWrap="anywhere">
                {file.name}
              </Link>
            ) : (
              <Text overflowWrap="anywhere">{file.name}, being written</Text>
            )}
            <Text color="inkSoft" fontSize="xs">
              {entries(file.total)}, {moment.format(new Date(file.at))}, by {file.by}
            </Text>
          </Box>
          <Button
            size="2xs"
            aria-label={`Delete ${file.name} of ${moment.format(new Date(file.at))}`}
            onClick={() => void attempt(remove(file.id).unwrap())}
          >
            Delete
          </Button>
        </HStack>
      ))}
    </Stack>
  );
}
