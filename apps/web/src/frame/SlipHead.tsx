// The head of a slip: its title, a line that says what it is about, and the button that closes it.
import { Box, Heading, HStack, IconButton, Text } from '@chakra-ui/react';
import { X } from 'lucide-react';
import type { ReactNode } from 'react';

interface SlipHeadProps {
  readonly title: ReactNode;
  readonly about?: ReactNode;
  close(): void;
}

export function SlipHead({ title, about, close }: SlipHeadProps) {
  return (
    <HStack justify="space-between" align="start">
      <Box>
        <Heading as="h2" fontSize="lg" overflowWrap="anywhere">
          {title}
        </Heading>
        {about !== undefined && <Text color="inkSoft">{about}</Text>}
      </Box>
      <IconButton aria-label="Close" size="2xs" variant="ghost" colorPalette="slate" onClick={close}>
        <X size={14} />
      </IconButton>
    </HStack>
  );
}
