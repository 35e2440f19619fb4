// What the active cell has to say, standing over it: its hint, with a title and the lines as they were written, or why its text is not
// taken.
import { Box, Text } from '@chakra-ui/react';
import { Floating } from '../picker/Floating.js';
import type { Hint } from './models.js';

export function CellHint({ hint: { title, text, refused }, anchor }: { hint: Hint; anchor: HTMLElement | null }) {
  return (
    <Floating anchor={anchor} passive>
      <Box
        role="note"
        px="3"
        py="1.5"
        bg={refused ? 'brick.subtle' : 'growth.subtle'}
        color={refused ? 'brick.fg' : 'growth.fg'}
        fontSize="xs"
        maxW="340px"
      >
        {title && <Text fontWeight="bold">{title}</Text>}
        <Text whiteSpace="pre-line">{text}</Text>
      </Box>
    </Floating>
  );
}
