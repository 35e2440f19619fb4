// A linked source: each kind is one file and one object that reads it.
import type { LinkedRow } from '@dellum/core';
import type { LinkedKind, LinkedSettingsOf, LinkedTrial } from '@dellum/contract';
import type { Granted } from '../reachable.js';

/** Why a source cannot be read, in words for the person who set it up. */
export class SourceFault extends Error {}

/** So many values a source may give. */
export const mostValues = 200_000;

/** The items of catalogs, by the key of the catalog, for computed sources. */
export type CatalogValues = Readonly<Record<string, readonly Readonly<Record<string, string>>[]>>;

export interface ReadingContext {
  readonly reachable: Granted;
  /** What the source said of its state when it was last read. */
  readonly mark: string | null;
  catalogs(keys: readonly string[]): Promise<CatalogValues>;
}

/** `unchanged`: the source says that it is what it was. */
export type Reading = { readonly rows: readonly LinkedRow[]; readonly mark?: string } | 'unchanged';

export interface LinkedAdapter<Kind extends LinkedKind> {
  readonly kind: Kind;
  /** Throws a `SourceFault` when the source cannot be read. */
  read(settings: LinkedSettingsOf<Kind>, context: ReadingContext): Promise<Reading>;
  /** Columns and first rows, where there is something to choose from. */
  look?(settings: LinkedSettingsOf<Kind>, context: ReadingContext): Promise<Pick<LinkedTrial, 'columns' | 'rows'>>;
}

export function needed(value: string | undefined, words: string): string {
  if (value === undefined || value.trim() === '') throw new SourceFault(words);
  return value;
}

/** Rows with a value, without repeats; the first of equal values stays. */
export function distinctRows(rows: readonly LinkedRow[]): LinkedRow[] {
  const byValue = new Map<string, LinkedRow>();
  for (const row of rows) if (row.value.trim() !== '' && !byValue.has(row.value)) byValue.set(row.value, row);
  if (byValue.size > mostValues)
    throw new SourceFault(
      `The source gives ${byValue.size.toLocaleString('en-GB')} values; at most ${mostValues.toLocaleString('en-GB')} can be taken. Narrow it.`,
    );
  return [...byValue.values()];
}
