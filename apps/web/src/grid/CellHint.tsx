// The hint of the active cell, standing over it: a title where it has one, and its lines as they were written.
import { Box, Text } from '@chakra-ui/react';
import { Floating } from '../picker/Floating.js';
import type { Hint } from './models.js';

export function CellHint({ hint: { title, text }, anchor }: { hint: Hint; anchor: HTMLElement | null }) {
  return (
    <Floating anchor={anchor} passive>
      <Box role="note" px="3" py="1.5" bg="growth.subtle" color="growth.fg" fontSize="xs" maxW="340px">
        {title && <Text fontWeight="bold">{title}</Text>}
        <Text whiteSpace="pre-line">{text}</Text>
      </Box>
    </Floating>
  );
}
