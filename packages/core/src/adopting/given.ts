// The tables that were found, as they were changed by hand: which come in, as what, and which of them can be lists.
import { tableRoles } from '../upkeep/index.js';
import type { Taken } from './checks.js';
import type { AdoptedKind, FoundColumn } from './columns.js';
import type { AdoptedTable, TablePlace } from './found.js';
import { KnownTexts } from './meanings.js';
import type { Mends, TableUse } from './mends.js';

/** Of the filled cells of a column, so many hold a value of the list that it joins. */
export const sameShare = 0.8;
/** A column that chooses from a table holds each of its values so many times on the average. */
const leastRepeated = 2;

export const tableId = ({ file, sheet, table }: TablePlace): string => `${file}.${sheet}.${table}`;
export const columnId = (table: string, at: number): string => `${table}/${at}`;

/** A table as it was changed by hand. */
export interface Given {
  readonly id: string;
  readonly found: AdoptedTable;
  readonly wanted: boolean;
  readonly title: string;
  readonly use: TableUse;
  readonly columns: readonly GivenColumn[];
}
export interface GivenColumn {
  readonly table: string;
  readonly found: FoundColumn;
  readonly wanted: boolean;
  readonly heading: string;
  readonly kind: AdoptedKind;
  /** What was said of it by hand. */
  readonly list: boolean | undefined;
}

/** The tables that were found, as they were changed by hand. */
export function givenTables(tables: readonly AdoptedTable[], mends: Mends): Given[] {
  const pointed = new Set(
    tables.flatMap(({ columns }) =>
      columns.flatMap(({ check }) => pointedBy(check?.taken ?? null).map(({ table, at }) => columnId(table, at))),
    ),
  );
  const all = tables.map((found): Given => {
    const id = tableId(found);
    const mend = mends.tables.find(({ table }) => table === id);
    return {
      id,
      found,
      wanted: mend?.wanted ?? (found.rows > 0 && !found.hidden && !isLists(found, pointed)),
      title: mend?.title ?? found.title,
      use: 'entries',
      columns: found.columns.map((column): GivenColumn => {
        const own = mends.columns.find(({ table, at }) => table === id && at === column.at);
        return {
          table: id,
          found: column,
          wanted: own?.wanted ?? column.filled > 0,
          heading: own?.heading ?? column.heading,
          kind: own?.kind ?? column.kind,
          list: own?.list,
        };
      }),
    };
  });
  const said = (id: string) => mends.tables.find(({ table }) => table === id)?.use;
  const isHome = (table: Given) => {
    const home = table.wanted ? homeOf(table) : undefined;
    return (
      home !== undefined &&
      (table.columns.length === 1 || all.some((other) => other.found.rows > table.found.rows && refersTo(other, home)))
    );
  };
  return all.map((table) => {
    const wants = said(table.id) ?? (isHome(table) ? 'list' : 'entries');
    // What tells no rows apart can be no list, whatever is said.
    return { ...table, use: wants === 'list' && homeOf(table) ? 'list' : 'entries' };
  });
}

function pointedBy(taken: Taken | null): readonly { readonly table: string; readonly at: number }[] {
  if (taken?.takes === 'column') return [taken];
  return taken?.takes === 'dependent' ? taken.from : [];
}

/** Lists side by side, for the drop-downs of other tables: they become lists of their own. */
const isLists = (table: AdoptedTable, pointed: ReadonlySet<string>): boolean =>
  table.columns.length > 1 && table.columns.every(({ at, filled }) => filled === 0 || pointed.has(columnId(tableId(table), at)));

/** What a table holds as a list. */
export interface Home {
  readonly levels: readonly GivenColumn[];
  /** Its values with their parents. */
  readonly paths: readonly (readonly string[])[];
  /** What is shown for its values: a name for a code. */
  readonly labels: ReadonlyMap<string, string>;
}

/** A table as a list; undefined where no columns tell its rows apart. */
export function homeOf({ found, columns }: Given): Home | undefined {
  const listed = found.listed?.map(({ texts }) => texts) ?? null;
  if (listed === null || listed.length < 2) return undefined;
  const fields = columns.flatMap((column, place) =>
    column.wanted ? [{ key: String(place), heading: column.heading, kind: column.kind }] : [],
  );
  const rows = listed.map((texts) => ({
    cells: Object.fromEntries(texts.flatMap((text, place) => (text === '' ? [] : [[String(place), text]]))),
  }));
  const roles = tableRoles(fields, rows);
  const places = fields.flatMap(({ key, kind }) => (roles.get(key) === 'level' && kind === 'text' ? [Number(key)] : []));
  const told = listed.filter((texts) => places.every((place) => texts[place] !== ''));
  const paths = told.map((texts) => places.map((place) => texts[place]!));
  if (places.length === 0 || new Set(paths.map((path) => path.join('\u001F'))).size < listed.length) return undefined;
  const label = fields.find(({ key }) => roles.get(key) === 'label');
  const labels = new Map(label ? told.map((texts) => [texts[Number(label.key)]!, texts[places.at(-1)!]!] as const) : []);
  return { levels: places.map((place) => columns[place]!), paths, labels };
}

/** By level, what is known to mean a value of it. */
export const knownAt = ({ paths, labels }: Pick<Home, 'paths' | 'labels'>, level: number): ReadonlyMap<string, string> => {
  const values = paths.map((path) => [path[level]!, path[level]!] as const);
  return new Map(level === (paths[0]?.length ?? 0) - 1 ? [...labels, ...values] : values);
};

const knownOf = new WeakMap<Home['paths'], KnownTexts[]>();
/** The same, to be looked up; made once for each level of a list. */
export function knownTexts(home: Pick<Home, 'paths' | 'labels'>, level: number): KnownTexts {
  const levels = knownOf.get(home.paths) ?? [];
  knownOf.set(home.paths, levels);
  return (levels[level] ??= new KnownTexts(knownAt(home, level).keys()));
}

export const isText = ({ wanted, kind, found, list }: GivenColumn): boolean =>
  wanted && kind === 'text' && found.values !== null && list !== false;

const refersTo = (table: Given, home: Home): boolean =>
  table.wanted && table.columns.some((column) => isText(column) && levelFor(column, home) !== undefined);

/** The level of a list whose values stand in most cells of a column; undefined for none. */
export function levelFor({ found }: GivenColumn, home: Pick<Home, 'paths' | 'labels'>): number | undefined {
  // What stands once in each row is a number of its own, and chosen from nothing.
  if (found.distinct * leastRepeated > found.filled) return undefined;
  const depth = home.paths[0]?.length ?? 0;
  const shares = Array.from({ length: depth }, (_, level) => knownTexts(home, level).share(found.values ?? []));
  const best = shares.reduce((most, share, level) => (share > (shares[most] ?? 0) ? level : most), 0);
  return (shares[best] ?? 0) >= sameShare ? best : undefined;
}
