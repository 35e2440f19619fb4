// The mark of a file that is to come back: of which house and sheet it is, and of which moment; signed, so that one sees whether it was
// changed. And which columns of a sheet that came back are which fields.
import { matchKey } from '../text/index.js';
import type { FieldId } from '../registers/index.js';

export interface FileMark {
  /** The name of the house in addresses. */
  readonly house: string;
  readonly register: string;
  /** ISO 8601 */
  readonly at: string;
  /** The id under which it is known what went out. */
  readonly file: string;
  readonly signature: string;
}

const begins = 'Dellum, to be brought back.';

/** What is signed. */
export const signedPart = ({ house, register, at, file }: Omit<FileMark, 'signature'>): string =>
  `${begins} house ${house}, sheet ${register}, at ${at}, file ${file}`;

export const markedText = (mark: FileMark): string => `${signedPart(mark)}, signed ${mark.signature}`;

const written = /^Dellum, to be brought back\. house (\S+), sheet (\S+), at (\S+), file (\S+), signed (\S+)$/u;

/** The mark in a text: undefined in any other text, `damaged` where it begins as one and does not go on so. */
export function readMark(text: string): FileMark | 'damaged' | undefined {
  const [, house, register, at, file, signature] = written.exec(text.trim()) ?? [];
  if (house !== undefined && register !== undefined && at !== undefined && file !== undefined && signature !== undefined)
    return { house, register, at, file, signature };
  return text.trim().startsWith('Dellum, to be brought') ? 'damaged' : undefined;
}

export interface KnownColumn {
  readonly key: FieldId;
  /** What it is called, and was. */
  readonly headings: readonly string[];
}

/**
 * Which column of a sheet that came back is which field, by its heading; each field once. `remembered`: what was said of sheets of the same
 * headings before, by heading; null for a column that is no field.
 */
export function columnsOfSheet(
  headings: ReadonlyMap<number, string>,
  known: readonly KnownColumn[],
  remembered: ReadonlyMap<string, FieldId | null> = new Map(),
): ReadonlyMap<number, FieldId | null> {
  const free = new Set(known.map(({ key }) => key));
  const take = (key: FieldId | null | undefined): FieldId | null => (key !== null && key !== undefined && free.delete(key) ? key : null);
  const named = (heading: string) =>
    known.find(({ key, headings: all }) => free.has(key) && all.some((one) => matchKey(one) === matchKey(heading)))?.key;
  return new Map(
    [...headings].map(([at, heading]) => [at, take(remembered.has(heading) ? remembered.get(heading) : named(heading))] as const),
  );
}
