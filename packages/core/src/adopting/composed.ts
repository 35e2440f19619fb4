// The values of a list, what becomes them, and what does not.
import type { Spelling } from '../upkeep/index.js';
import { knownAt, type GivenColumn } from './given.js';
import type { Making } from './lists.js';
import { Meanings } from './meanings.js';

/** A value of a list, with the texts that become it. */
export interface AdoptedValue {
  readonly value: string;
  readonly path: readonly string[];
  /** What is shown for it, where that is something else. */
  readonly label?: string;
  readonly entries: number;
  readonly spellings: readonly Spelling[];
}
/** Rows in which another parent stands over a value than in most. */
export interface Contradiction {
  readonly table: string;
  readonly row: number;
  readonly rows: number;
  readonly path: readonly string[];
  /** The path under which the value will be offered. */
  readonly instead: readonly string[];
}

/** What is known to mean a value of a list that is there already; undefined for one that is made of what columns hold. */
function knownIn(list: Making, level: number): ReadonlyMap<string, string> | undefined {
  if (list.paths.length > 0) return knownAt(list, level);
  return list.offered && new Map(list.offered.map((value) => [value, value] as const));
}

export interface Composed {
  /** By level. */
  readonly values: readonly (readonly AdoptedValue[])[];
  readonly outside: readonly Spelling[];
  readonly contradictions: readonly Contradiction[];
  /** How many entries of a column will be outside. */
  outsideOf(column: GivenColumn, level: number): number;
}

/** The values of a list, what becomes them, and what does not. */
export function composed(list: Making, said: ReadonlyMap<string, string | null>): Composed {
  const deepest = list.levels.length - 1;
  const textsAt = (level: number): Spelling[] =>
    list.columns.filter((one) => one.level === level).flatMap(({ column }) => column.found.values ?? []);
  const meanings = list.levels.map((_, level) => new Meanings(knownIn(list, level), textsAt(level), said, list.paths.length === 0));
  const paths =
    list.paths.length > 0 ? list.paths : deepest === 0 ? [...meanings[0]!.values].map((value) => [value]) : pathsIn(list, meanings);
  const outside = meanings.flatMap((own) => own.outside());
  const offered = new Set(paths.map((path) => path.join('\u001F')));
  const first = new Map([...paths].reverse().map((path) => [path.at(-1)!, path]));
  const contradictions = list.chains.flatMap(({ table, paths: found }) =>
    found.flatMap(({ path, rows, row }): Contradiction[] => {
      const meant = path.map((text, level) => meanings[level]!.of(text) ?? '');
      const instead = first.get(meant.at(-1)!);
      if (meant.includes('') || !instead || offered.has(meant.join('\u001F'))) return [];
      return [{ table, row, rows, path: meant, instead }];
    }),
  );
  const labels = new Map([...list.labels].map(([label, value]) => [value, label]));
  const valuesAt = (level: number): AdoptedValue[] => {
    const spelled = meanings[level]!.spellings();
    const own = new Map(paths.map((path) => [path.slice(0, level + 1).join('\u001F'), path.slice(0, level + 1)]));
    const values = [...own.values()].map((path): AdoptedValue => {
      const value = path.at(-1)!;
      const texts = spelled.get(value) ?? [];
      const entries = texts.reduce((sum, one) => sum + one.entries, 0);
      const label = level === deepest && list.catalog === null ? labels.get(value) : undefined;
      const spellings = texts.filter((one) => one.value !== value);
      return { value, path: path.slice(0, -1), entries, spellings, ...(label !== undefined && { label }) };
    });
    return list.paths.length > 0 || list.offered ? values : values.sort((one, other) => other.entries - one.entries);
  };
  return {
    values: list.levels.map((_, level) => valuesAt(level)),
    outside,
    contradictions,
    outsideOf: ({ found, table }, level) =>
      (found.values ?? []).reduce((sum, { value, entries }) => sum + (meanings[level]!.of(value) === undefined ? entries : 0), 0) +
      (level === deepest ? contradictions.reduce((sum, one) => sum + (one.table === table ? one.rows : 0), 0) : 0),
  };
}

/** Each value of the deepest level under the parents that stand over it in most rows. */
function pathsIn({ chains }: Making, meanings: readonly Meanings[]): string[][] {
  const over = new Map<string, Map<string, { path: string[]; rows: number }>>();
  for (const { path, rows } of chains.flatMap(({ paths }) => paths)) {
    const meant = path.map((text, level) => meanings[level]!.of(text) ?? '');
    if (meant.includes('')) continue;
    const known = over.get(meant.at(-1)!) ?? new Map<string, { path: string[]; rows: number }>();
    over.set(meant.at(-1)!, known);
    const key = meant.join('\u001F');
    known.set(key, { path: meant, rows: (known.get(key)?.rows ?? 0) + rows });
  }
  return [...over.values()].map((known) => [...known.values()].reduce((most, one) => (one.rows > most.rows ? one : most)).path);
}
