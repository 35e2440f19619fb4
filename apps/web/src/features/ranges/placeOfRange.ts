// Where a range lies, in words and as an address.
import type { SourceRange } from '@dellum/core';
import type { BuildView } from '@dellum/contract';

/** The sheet a range lies on, and its lists and fields in words. */
export function placeOfRange(range: SourceRange, build: BuildView): { to: string; words: string } {
  const registers = build.sheets.flatMap((sheet) => sheet.registers.map((register) => ({ sheet, register })));
  const first = registers.find(({ register }) => register.id === range.stretches[0]?.registerId);
  if (!first) return { to: '/sources', words: '' };
  const fields = range.stretches[0]!.fields.map((key) => first.register.fields.find((field) => field.key === key)?.heading ?? key);
  const within =
    range.shape === 'headings'
      ? `${range.stretches.length} lists`
      : first.register.fields.length === 1
        ? first.register.title
        : `${first.register.title}: ${fields.join(' › ')}`;
  return { to: `/sources/${first.sheet.id}?range=${range.id}`, words: `${first.sheet.title}, ${within}` };
}
