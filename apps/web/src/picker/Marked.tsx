// A text with the found words marked; the theme says how.
import type { Span } from '@dellum/core';
import type { ReactNode } from 'react';

export function Marked({ text, spans }: { text: string; spans: readonly Span[] }) {
  const parts: ReactNode[] = [];
  let at = 0;
  for (const { start, end } of spans) {
    if (start < at) continue;
    parts.push(text.slice(at, start));
    parts.push(<mark key={start}>{text.slice(start, end)}</mark>);
    at = end;
  }
  return (
    <span dir="auto">
      {parts}
      {text.slice(at)}
    </span>
  );
}
