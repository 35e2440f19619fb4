// A way to another page, in a sentence.
import { Box } from '@chakra-ui/react';
import { Link } from 'react-router';

export function Way({ to, children }: { to: string; children: string }) {
  return (
    <Box asChild color="damson.fg" textDecoration="underline" textUnderlineOffset="3px">
      <Link to={to}>{children}</Link>
    </Box>
  );
}
