// A text with the found words marked.
import { Box } from '@chakra-ui/react';
import type { Span } from '@dellum/core';
import type { ReactNode } from 'react';

export function Marked({ text, spans }: { text: string; spans: readonly Span[] }) {
  const parts: ReactNode[] = [];
  let at = 0;
  for (const { start, end } of spans) {
    if (start < at) continue;
    parts.push(text.slice(at, start));
    parts.push(
      <Box as="mark" key={start} bg="transparent" color="damson.fg" fontWeight="bold" textDecoration="underline 2px" textUnderlineOffset="3px">
        {text.slice(start, end)}
      </Box>,
    );
    at = end;
  }
  return (
    <span dir="auto">
      {parts}
      {text.slice(at)}
    </span>
  );
}
