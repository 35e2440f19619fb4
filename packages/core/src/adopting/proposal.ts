// What becomes of what was found in files, as it is proposed and as it was changed by hand: tables, lists, levels, and what will be outside.
// Computed anew from what was found and from what was changed; nothing of it is stored in the house.
import { matchKey } from '../text/index.js';
import { tableRoles, wantsToBeList, type Spelling } from '../upkeep/index.js';
import type { AdoptedKind, FoundColumn } from './columns.js';
import type { AdoptedTable, PathCount, TablePlace } from './found.js';
import { KnownTexts, Meanings } from './meanings.js';

/** What a table becomes: a sheet in which data are entered, or a list from which values are chosen. */
export const tableUses = ['entries', 'list'] as const;
export type TableUse = (typeof tableUses)[number];

/** What was changed by hand. Tables and lists go by their ids, columns by their places. */
export interface Mends {
  readonly tables: readonly { readonly table: string; readonly wanted?: boolean; readonly title?: string; readonly use?: TableUse }[];
  readonly columns: readonly {
    readonly table: string;
    readonly at: number;
    readonly wanted?: boolean;
    readonly heading?: string;
    readonly kind?: AdoptedKind;
    /** Whether it becomes, or joins, a list. */
    readonly list?: boolean;
  }[];
  /** `into`: it becomes one with another list. */
  readonly lists: readonly { readonly list: string; readonly wanted?: boolean; readonly title?: string; readonly into?: string }[];
  /** What a text of a list becomes; null for a text that stays as it is and is outside. */
  readonly spellings: readonly { readonly list: string; readonly from: string; readonly to: string | null }[];
}
export const noMends: Mends = { tables: [], columns: [], lists: [], spellings: [] };

export interface ProposedColumn extends Omit<FoundColumn, 'values' | 'unread'> {
  readonly wanted: boolean;
  /** Cells that are kept as a text, since its kind does not read them; null where that is told only when it is stored. */
  readonly unread: number | null;
  /** The list that it is bound to, and at which of its levels. */
  readonly list: { readonly id: string; readonly level: number } | null;
  /** True where it could become a list. */
  readonly mayBeList: boolean;
  /** Entries that will be outside of the list. */
  readonly outside: number;
}
export interface ProposedTable extends TablePlace {
  readonly id: string;
  readonly title: string;
  readonly titles: readonly string[];
  readonly heading: number | null;
  readonly rows: number;
  readonly totals: number;
  readonly wanted: boolean;
  readonly use: TableUse;
  /** True where it is short enough to be a list. */
  readonly mayBeList: boolean;
  readonly columns: readonly ProposedColumn[];
  readonly sample: readonly (readonly string[])[];
}
/** A value of a list, with the texts that become it. */
export interface AdoptedValue {
  readonly value: string;
  readonly path: readonly string[];
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
export interface ProposedList {
  readonly id: string;
  readonly title: string;
  readonly wanted: boolean;
  /** The table that is the list; null for one that is made of columns. */
  readonly home: string | null;
  /** The outermost first. */
  readonly levels: readonly { readonly heading: string; readonly values: readonly AdoptedValue[] }[];
  /** Texts of its columns that are none of its values. */
  readonly outside: readonly Spelling[];
  readonly contradictions: readonly Contradiction[];
  readonly columns: readonly { readonly table: string; readonly at: number; readonly level: number }[];
  /** The lists that were made one with it by hand. */
  readonly joined: readonly { readonly id: string; readonly title: string }[];
}
export interface HouseProposal {
  readonly tables: readonly ProposedTable[];
  readonly lists: readonly ProposedList[];
}

/** Of the filled cells of a column, so many hold a value of the list that it joins. */
const sameShare = 0.8;
/** Of the cells of a list, so many hold a value of a column that joins it, unless both are called the same. */
const usedShare = 0.3;
/** A column that chooses from a table holds each of its values so many times on the average. */
const leastRepeated = 2;

export const tableId = ({ file, sheet, table }: TablePlace): string => `${file}.${sheet}.${table}`;
const columnId = (table: string, at: number): string => `${table}/${at}`;

/** A table as it was changed by hand. */
interface Given {
  readonly id: string;
  readonly found: AdoptedTable;
  readonly wanted: boolean;
  readonly title: string;
  readonly use: TableUse;
  readonly columns: readonly GivenColumn[];
}
interface GivenColumn {
  readonly table: string;
  readonly found: FoundColumn;
  readonly wanted: boolean;
  readonly heading: string;
  readonly kind: AdoptedKind;
  /** What was said of it by hand. */
  readonly list: boolean | undefined;
}

/** A list that is being put together. */
interface Making {
  readonly id: string;
  readonly title: string;
  readonly home: Given | undefined;
  readonly levels: readonly string[];
  /** Of a table that is the list, its values with their parents. */
  readonly paths: readonly (readonly string[])[];
  readonly labels: ReadonlyMap<string, string>;
  /** The values of a drop-down that is there already. */
  readonly offered: readonly string[] | undefined;
  /** The columns from which it is made, or that join it. */
  readonly columns: { readonly column: GivenColumn; readonly level: number }[];
  /** Of the columns that are its levels together. */
  readonly chains: { readonly table: string; readonly paths: readonly PathCount[] }[];
  /** Those that were made one with it by hand. */
  readonly joined: readonly { readonly id: string; readonly title: string }[];
}

function givenTables(tables: readonly AdoptedTable[], mends: Mends): Given[] {
  const pointed = new Set(
    tables.flatMap(({ columns }) =>
      columns.flatMap(({ check }) => (check?.taken?.takes === 'column' ? [columnId(check.taken.table, check.taken.at)] : [])),
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

/** Lists side by side, for the drop-downs of other tables: they become lists of their own. */
const isLists = (table: AdoptedTable, pointed: ReadonlySet<string>): boolean =>
  table.columns.length > 1 && table.columns.every(({ at, filled }) => filled === 0 || pointed.has(columnId(tableId(table), at)));

/** What a table holds as a list. */
interface Home {
  readonly levels: readonly GivenColumn[];
  /** Its values with their parents. */
  readonly paths: readonly (readonly string[])[];
  /** What is shown for its values: a name for a code. */
  readonly labels: ReadonlyMap<string, string>;
}

/** A table as a list; undefined where no columns tell its rows apart. */
function homeOf({ found, columns }: Given): Home | undefined {
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
const knownAt = ({ paths, labels }: Pick<Home, 'paths' | 'labels'>, level: number): ReadonlyMap<string, string> => {
  const values = paths.map((path) => [path[level]!, path[level]!] as const);
  return new Map(level === (paths[0]?.length ?? 0) - 1 ? [...labels, ...values] : values);
};

const isText = ({ wanted, kind, found, list }: GivenColumn): boolean =>
  wanted && kind === 'text' && found.values !== null && list !== false;

const refersTo = (table: Given, home: Home): boolean =>
  table.wanted && table.columns.some((column) => isText(column) && levelFor(column, home) !== undefined);

/** The level of a list whose values stand in most cells of a column; undefined for none. */
function levelFor({ found }: GivenColumn, home: Pick<Home, 'paths' | 'labels'>): number | undefined {
  // What stands once in each row is a number of its own, and chosen from nothing.
  if (found.distinct * leastRepeated > found.filled) return undefined;
  const depth = home.paths[0]?.length ?? 0;
  const shares = Array.from({ length: depth }, (_, level) => new KnownTexts(knownAt(home, level).keys()).share(found.values ?? []));
  const best = shares.reduce((most, share, level) => (share > (shares[most] ?? 0) ? level : most), 0);
  return (shares[best] ?? 0) >= sameShare ? best : undefined;
}

/** Puts the lists together: tables that are lists, then chains of columns, then single columns; each joins one that is there if it can. */
function listsOf(tables: readonly Given[]): Making[] {
  const lists: Making[] = tables.flatMap((table): Making[] => {
    const home = table.wanted && table.use === 'list' ? homeOf(table) : undefined;
    if (!home) return [];
    const levels = home.levels.map(({ heading }) => heading);
    return [
      {
        id: table.id,
        title: table.title,
        home: table,
        levels,
        paths: home.paths,
        labels: home.labels,
        offered: undefined,
        columns: [],
        chains: [],
        joined: [],
      },
    ];
  });
  const entered = tables.filter(({ wanted, use }) => wanted && use === 'entries');
  const taken = new Set<GivenColumn>();
  const join = (list: Making, column: GivenColumn, level: number) => {
    list.columns.push({ column, level });
    taken.add(column);
  };
  for (const column of entered.flatMap(({ columns }) => columns.filter(isText))) {
    const list = dropDownOf(column, tables, lists);
    if (list) join(list, column, list.home ? levelIn(list, column) : 0);
  }
  for (const column of entered.flatMap(({ columns }) => columns.filter((one) => isText(one) && !taken.has(one)))) {
    for (const list of lists) {
      const level = levelFor(column, list);
      if (level === undefined) continue;
      join(list, column, level);
      break;
    }
  }
  for (const table of entered) {
    for (const chain of table.found.chains) {
      const columns = chain.columns.map((place) => table.columns[place]!);
      if (columns.some((column) => !isText(column) || taken.has(column))) continue;
      const same = lists.find(
        (list) => !list.home && list.levels.length === columns.length && isSame(columns.at(-1)!, list, columns.length - 1),
      );
      const list =
        same ??
        newList(
          columns.at(-1)!,
          columns.map(({ heading }) => heading),
        );
      if (!same) lists.push(list);
      list.chains.push({ table: table.id, paths: chain.paths });
      columns.forEach((column, level) => join(list, column, level));
    }
    for (const list of lists.filter(({ home, levels }) => home !== undefined && levels.length > 1)) {
      const chain = table.found.chains.find(({ columns }) =>
        isOf(
          list,
          columns.map((place) => table.columns[place]!),
        ),
      );
      if (chain) list.chains.push({ table: table.id, paths: chain.paths });
    }
  }
  for (const column of entered.flatMap(({ columns }) => columns.filter((one) => isText(one) && !taken.has(one)))) {
    const joined = lists.flatMap((list) =>
      list.levels.flatMap((_, level) => (!list.home && isSame(column, list, level) ? [{ list, level }] : [])),
    )[0];
    if (joined && (column.list === true || wantsList(column))) join(joined.list, column, joined.level);
    else if (column.list === true || wantsList(column)) {
      const list = newList(column, [column.heading]);
      lists.push(list);
      join(list, column, 0);
    }
  }
  return lists;
}

/** The list that the drop-down of a column offers: a table that is a list, one that other columns offer, too, or a new one. */
function dropDownOf(column: GivenColumn, tables: readonly Given[], lists: Making[]): Making | undefined {
  const taken = column.found.check?.taken;
  if (taken?.takes !== 'typed' && taken?.takes !== 'column') return undefined;
  const source = taken.takes === 'column' ? tables.find(({ id }) => id === taken.table) : undefined;
  const home = source && lists.find((list) => list.home === source);
  if (home && taken.takes === 'column' && homeOf(source)?.levels.some(({ found }) => found.at === taken.at)) return home;
  const keys = new Set(taken.values.map(matchKey));
  const same = lists.find(({ offered }) => offered && offered.length === keys.size && offered.every((value) => keys.has(matchKey(value))));
  if (same) return same;
  const heading = source?.columns.find(({ found }) => taken.takes === 'column' && found.at === taken.at)?.heading;
  const title = heading || column.heading;
  const list: Making = { ...newList(column, [title]), title, offered: taken.values };
  lists.push(list);
  return list;
}

/** At which level of a table that is a list its drop-down points. */
function levelIn({ home }: Making, { found }: GivenColumn): number {
  const taken = found.check?.taken;
  const at = taken?.takes === 'column' ? taken.at : undefined;
  return Math.max(0, homeOf(home!)?.levels.findIndex((level) => level.found.at === at) ?? 0);
}

/** Whether columns are the levels of a list, one by one. */
const isOf = (list: Making, columns: readonly GivenColumn[]): boolean =>
  columns.length === list.levels.length &&
  columns.every((column, level) => list.columns.some((own) => own.column === column && own.level === level));

const newList = ({ table, found, heading }: GivenColumn, levels: readonly string[]): Making => ({
  id: columnId(table, found.at),
  title: heading,
  home: undefined,
  levels,
  paths: [],
  labels: new Map(),
  offered: undefined,
  columns: [],
  chains: [],
  joined: [],
});

function wantsList({ found }: GivenColumn): boolean {
  const values = found.values ?? [];
  // Numbers and days that are taken for texts by hand are no list for that.
  if (found.kind !== 'text') return false;
  return wantsToBeList(new Meanings(undefined, values).values.size, found.filled);
}

/** Whether a column holds the values of a list that is made of columns. */
function isSame(column: GivenColumn, list: Making, level: number): boolean {
  const own = list.columns.filter((one) => one.level === level).map((one) => one.column);
  const known = list.offered?.map((value) => ({ value, entries: 1 })) ?? own.flatMap(({ found }) => found.values ?? []);
  const values = column.found.values ?? [];
  const isCalled = own.some(({ heading }) => matchKey(heading) === matchKey(column.heading));
  if (new KnownTexts(known.map(({ value }) => value)).share(values) < sameShare) return false;
  return isCalled || new KnownTexts(values.map(({ value }) => value)).share(known) >= usedShare;
}

/** Lists that were made one by hand. */
function joined(lists: readonly Making[], mends: Mends): Making[] {
  const into = new Map(
    mends.lists.flatMap(({ list, into: other }) => (other !== undefined && other !== list ? [[list, other] as const] : [])),
  );
  const targetOf = (list: Making): Making => {
    const seen = new Set([list.id]);
    let at = list;
    for (let next = into.get(at.id); next !== undefined && !seen.has(next); next = into.get(at.id)) {
      seen.add(next);
      const other = lists.find(({ id }) => id === next);
      if (!other) break;
      at = other;
    }
    return at;
  };
  return lists
    .filter((list) => targetOf(list) === list)
    .map((list) => {
      const others = lists.filter((other) => other !== list && targetOf(other) === list);
      const deepest = list.levels.length - 1;
      return {
        ...list,
        joined: others.map(({ id, title }) => ({ id, title })),
        columns: [...list.columns, ...others.flatMap(({ columns }) => columns.map(({ column }) => ({ column, level: deepest })))],
      };
    });
}

/** What is proposed for a house. */
export function proposedHouse(found: readonly AdoptedTable[], mends: Mends): HouseProposal {
  const tables = givenTables(found, mends);
  const made = joined(listsOf(tables), mends).map((list) => {
    const said = mends.lists.filter(({ list: id }) => id === list.id);
    const spellings = mends.spellings.filter(({ list: id }) => id === list.id);
    return {
      wanted: said.find(({ wanted }) => wanted !== undefined)?.wanted ?? true,
      title: said.find(({ title }) => title !== undefined)?.title ?? list.title,
      list,
      ...composed(list, new Map(spellings.map(({ from, to }) => [from, to]))),
    };
  });
  const boundTo = (column: GivenColumn) =>
    made.flatMap((one) =>
      one.wanted ? one.list.columns.flatMap((own) => (own.column === column ? [{ one, level: own.level }] : [])) : [],
    )[0];
  return {
    tables: tables.map((table): ProposedTable => {
      const { file, sheet, table: number, titles, heading, rows, totals, sample } = table.found;
      return {
        ...{ id: table.id, file, sheet, table: number, title: table.title, titles, heading, rows, totals: totals.length },
        ...{ wanted: table.wanted, use: table.use, mayBeList: homeOf(table) !== undefined, sample },
        columns: table.columns.map((column): ProposedColumn => {
          const { values, unread, ...rest } = column.found;
          const bound = boundTo(column);
          return {
            ...rest,
            heading: column.heading,
            kind: column.kind,
            wanted: column.wanted,
            unread: unread[column.kind] ?? null,
            list: bound ? { id: bound.one.list.id, level: bound.level } : null,
            mayBeList: column.kind === 'text' && values !== null,
            outside: bound ? bound.one.outsideOf(column, bound.level) : 0,
          };
        }),
      };
    }),
    lists: made.map(({ list, title, wanted, values, outside, contradictions }) => ({
      ...{ id: list.id, title, wanted, home: list.home?.id ?? null, outside, contradictions, joined: list.joined },
      levels: list.levels.map((heading, level) => ({ heading, values: values[level]! })),
      columns: list.columns.map(({ column, level }) => ({ table: column.table, at: column.found.at, level })),
    })),
  };
}

/** What is known to mean a value of a list that is there already; undefined for one that is made of what columns hold. */
function knownIn(list: Making, level: number): ReadonlyMap<string, string> | undefined {
  if (list.home) return knownAt(list, level);
  return list.offered && new Map(list.offered.map((value) => [value, value] as const));
}

interface Composed {
  /** By level. */
  readonly values: readonly (readonly AdoptedValue[])[];
  readonly outside: readonly Spelling[];
  readonly contradictions: readonly Contradiction[];
  /** How many entries of a column will be outside. */
  outsideOf(column: GivenColumn, level: number): number;
}

/** The values of a list, what becomes them, and what does not. */
function composed(list: Making, said: ReadonlyMap<string, string | null>): Composed {
  const deepest = list.levels.length - 1;
  const textsAt = (level: number): Spelling[] =>
    list.columns.filter((one) => one.level === level).flatMap(({ column }) => column.found.values ?? []);
  const meanings = list.levels.map((_, level) => new Meanings(knownIn(list, level), textsAt(level), said, !list.home));
  const paths = list.home ? list.paths : deepest === 0 ? [...meanings[0]!.values].map((value) => [value]) : pathsIn(list, meanings);
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
  const valuesAt = (level: number): AdoptedValue[] => {
    const spelled = meanings[level]!.spellings();
    const own = new Map(paths.map((path) => [path.slice(0, level + 1).join('\u001F'), path.slice(0, level + 1)]));
    const values = [...own.values()].map((path): AdoptedValue => {
      const value = path.at(-1)!;
      const texts = spelled.get(value) ?? [];
      const entries = texts.reduce((sum, one) => sum + one.entries, 0);
      return { value, path: path.slice(0, -1), entries, spellings: texts.filter((one) => one.value !== value) };
    });
    return list.home || list.offered ? values : values.sort((one, other) => other.entries - one.entries);
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
