// A secret that is shown once, with a button that copies it.
import { Box, Button, Code, HStack, Text } from '@chakra-ui/react';
import { Copy } from 'lucide-react';
import { useNotice } from './useNotice.js';

interface ShownOnceProps {
  readonly text: string;
  /** What it is, in the middle of a sentence: "link". */
  readonly what: string;
}

export function ShownOnce({ text, what }: ShownOnceProps) {
  const notice = useNotice();
  const copy = async () => {
    await navigator.clipboard.writeText(text);
    notice('done', `The ${what} is copied.`);
  };
  return (
    <Box bg="growth.subtle" color="growth.fg" rounded="l2" p="2.5" role="status">
      <Text mb="1">Copy the {what} now; it is shown once.</Text>
      <HStack align="start">
        <Code flex="1" bg="card" color="ink" overflowWrap="anywhere" whiteSpace="normal">
          {text}
        </Code>
        <Button size="2xs" onClick={() => void copy()}>
          <Copy size={12} aria-hidden /> Copy
        </Button>
      </HStack>
    </Box>
  );
}
