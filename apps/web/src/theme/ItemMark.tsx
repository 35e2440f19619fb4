// The mark of an item's colour: each colour has a shape of its own, so that none is told by colour alone.
import { Box } from '@chakra-ui/react';
import type { ItemColour } from '@dellum/core';

const shapes: { readonly [C in ItemColour]: string } = {
  olive: 'M8 2a6 6 0 1 1 0 12A6 6 0 0 1 8 2z',
  teal: 'M3 3h10v10H3z',
  slate: 'M8 2l6 11H2z',
  damson: 'M8 1l7 7-7 7-7-7z',
  amber: 'M8 1l2.1 4.5 4.9 .6-3.6 3.4 1 4.9L8 12l-4.4 2.4 1-4.9L1 6.1l4.9-.6z',
  brick: 'M6 2h4v4h4v4h-4v4H6v-4H2V6h4z',
  moss: 'M2 3h12L8 14z',
  sky: 'M5 2h6l4 6-4 6H5L1 8z',
};

export function ItemMark({ colour, size = 11 }: { colour: ItemColour; size?: number }) {
  return (
    <Box as="span" color={`item.${colour}`} display="inline-flex" flexShrink={0} verticalAlign="-1px" aria-hidden>
      <svg width={size} height={size} viewBox="0 0 16 16" fill="currentColor">
        <path d={shapes[colour]} />
      </svg>
    </Box>
  );
}
