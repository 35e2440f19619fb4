// A typed list: values parted by commas, semicolons or lines; quotes protect.
import { clean } from '../text/index.js';
import type { Locale } from './models.js';

export interface TypedList {
  readonly values: readonly string[];
  /** How many blanks and repeats were dropped. */
  readonly blanks: number;
  readonly repeats: number;
}

/**
 * Which mark parts the values: lines where there are several, else semicolons, else commas. Where the comma is the
 * decimal mark, a text that has semicolons is parted by these alone: `2,5; 3,5` is two values.
 */
function parting(text: string, locale: Locale): RegExp {
  const bare = text.replace(/"(?:[^"]|"")*"/gu, '');
  const mark = locale.listMark ?? (locale.decimalMark === ',' ? ';' : ',');
  if (/[;]/u.test(bare)) return mark === ';' ? /[;\n]/u : /[;\n,]/u;
  if (mark === ';' && /\n/u.test(bare)) return /\n/u;
  return /[,\n]/u;
}

/** The values in the order in which they were typed; blanks and repeats are dropped and counted. */
export function readTypedList(typed: string, locale: Locale): TypedList {
  const text = typed.replace(/\r\n?/gu, '\n');
  const marks = parting(text, locale);
  const parts: string[] = [];
  let part = '';
  let quoted = false;
  for (let at = 0; at < text.length; at++) {
    const unit = text[at]!;
    if (unit === '"' && quoted && text[at + 1] === '"') {
      part += '"';
      at++;
    } else if (unit === '"' && (quoted || part.trim() === '')) quoted = !quoted;
    else if (!quoted && marks.test(unit)) {
      parts.push(part);
      part = '';
    } else part += unit;
  }
  parts.push(part);
  const cleaned = parts.map(clean);
  const filled = cleaned.filter((value) => value !== '');
  const values = [...new Set(filled)];
  // What follows the last mark is no blank that anybody typed.
  const blanks = cleaned.length - filled.length - (cleaned.at(-1) === '' ? 1 : 0);
  return { values, blanks, repeats: filled.length - values.length };
}

/** The list as one would type it, a value a line or parted by another mark; read again it gives the same values. */
export const writeTypedList = (values: readonly string[], mark = '\n'): string =>
  values.map((value) => (/[",;\n]/u.test(value) ? `"${value.replaceAll('"', '""')}"` : value)).join(mark);
