// The lists of a proposal: of tables that are lists, of the drop-downs that files have, of columns that want to be levels, and of single
// ones.
import { matchKey } from '../text/index.js';
import { wantsToBeList } from '../upkeep/index.js';
import type { PathCount } from './found.js';
import { columnId, homeOf, isText, knownTexts, levelFor, sameShare, type Given, type GivenColumn } from './given.js';
import { houseListId, type HouseList } from './houseLists.js';
import { KnownTexts, Meanings } from './meanings.js';
import type { Mends } from './mends.js';

/** Stands in no text. */
const parting = '\u001F';
/** Of the cells of a list, so many hold a value of a column that joins it, unless both are called the same. */
const usedShare = 0.3;

/** A list that is being put together. */
export interface Making {
  readonly id: string;
  readonly title: string;
  readonly home: Given | undefined;
  /** The catalog of the house that it is. */
  readonly catalog: string | null;
  readonly levels: readonly string[];
  /**
   * Of a list that is there already, a table or drop-downs that depend on one another, its values with their parents; empty for one that is
   * made.
   */
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

/**
 * Puts the lists together: those of the house, tables that are lists, then chains of columns, then single columns; each joins one that is
 * there if it can. A list of the house that nothing joins is left out.
 */
export function listsOf(tables: readonly Given[], house: readonly HouseList[]): Making[] {
  const ofHouse = house.filter(({ paths }) => paths.length > 0).map(ofHouseList);
  const ofTables = tables.flatMap((table): Making[] => {
    const home = table.wanted && table.use === 'list' ? homeOf(table) : undefined;
    if (!home) return [];
    const levels = home.levels.map(({ heading }) => heading);
    return [
      {
        id: table.id,
        title: table.title,
        home: table,
        catalog: null,
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
  const lists = [...ofHouse, ...ofTables];
  const entered = tables.filter(({ wanted, use }) => wanted && use === 'entries');
  const taken = new Set<GivenColumn>();
  const join = (list: Making, column: GivenColumn, level: number) => {
    list.columns.push({ column, level });
    taken.add(column);
  };
  for (const table of entered)
    for (const columns of dependentIn(table)) {
      if (columns.some((column) => taken.has(column))) continue;
      const paths = dependentPaths(columns, table);
      if (!paths || paths.length === 0) continue;
      const same = lists.find((list) => list.paths.length === paths.length && keysOf(list.paths).join() === keysOf(paths).join());
      const made = {
        ...newList(
          columns.at(-1)!,
          columns.map(({ heading }) => heading),
        ),
        paths,
      };
      if (!same) lists.push(made);
      columns.forEach((column, level) => join(same ?? made, column, level));
    }
  for (const column of entered.flatMap(({ columns }) => columns.filter((one) => isText(one) && !taken.has(one)))) {
    const list = dropDownOf(column, tables, lists);
    if (list) join(list, column, list.home ? levelIn(list, column) : list.levels.length - 1);
  }
  for (const { columns } of entered) {
    const free = columns.filter((one) => isText(one) && !taken.has(one));
    for (const { list, column, level } of bestFits(free, lists)) join(list, column, level);
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
    for (const list of lists.filter(({ paths, levels }) => paths.length > 0 && levels.length > 1)) {
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
  return lists.filter(({ catalog, columns }) => catalog === null || columns.length > 0);
}

function ofHouseList({ catalogId, title, paths, names }: HouseList): Making {
  const made = { id: houseListId(catalogId), title, home: undefined, catalog: catalogId, levels: (paths[0] ?? [title]).map(() => title) };
  return { ...made, paths, labels: new Map(names), offered: undefined, columns: [], chains: [], joined: [] };
}
/** One that was said to be left out: it is shown, so that it can be wanted again. */
export const leftHouseList = (list: HouseList): Making => ofHouseList({ ...list, paths: [], names: [] });

interface Fit {
  readonly list: Making;
  readonly column: GivenColumn;
  readonly level: number;
}

/**
 * Which columns of a table choose from lists that are there already. A list at more of whose levels columns stand goes before one that fits
 * a single one of them, so that levels stay together; then one at whose deepest level a column stands, then the one that comes first.
 */
function bestFits(columns: readonly GivenColumn[], lists: readonly Making[]): Fit[] {
  const fits = lists
    .map((list) =>
      columns.flatMap((column): Fit[] => {
        const level = levelFor(column, list);
        return level === undefined ? [] : [{ list, column, level }];
      }),
    )
    .filter((own) => own.length > 0);
  const rank = (own: readonly Fit[]): number => {
    const levels = new Set(own.map(({ level }) => level));
    return levels.size * 2 + (levels.has((own[0]?.list.levels.length ?? 0) - 1) ? 1 : 0);
  };
  const chosen: Fit[] = [];
  for (let left = fits; left.length > 0;) {
    const best = left.reduce((most, own) => (rank(own) > rank(most) ? own : most));
    chosen.push(...best);
    const done = new Set(best.map(({ column }) => column));
    left = left.map((own) => own.filter(({ column }) => !done.has(column))).filter((own) => own.length > 0);
  }
  return chosen;
}

/** Columns of a table whose drop-downs depend on one another, the outermost first. */
function dependentIn({ columns }: Given): GivenColumn[][] {
  const parentOf = (column: GivenColumn): GivenColumn | undefined => {
    const held = column.found.check?.taken;
    return held?.takes === 'dependent' && isText(column) ? columns.find((one) => one.found.at === held.parent && isText(one)) : undefined;
  };
  const parents = new Set(columns.flatMap((column) => parentOf(column) ?? []));
  return columns
    .filter((column) => parentOf(column) && !parents.has(column))
    .map((innermost) => {
      const chain = [innermost];
      for (let above = parentOf(innermost); above && !chain.includes(above); above = parentOf(above)) chain.unshift(above);
      return chain;
    });
}

/** More values under their parents are no list. */
const mostPaths = 20_000;

/**
 * The values that such drop-downs offer, with their parents; where a file names no list for a parent, what stands beside it. Undefined for
 * more than a list takes.
 */
function dependentPaths(columns: readonly GivenColumn[], { found }: Given): string[][] | undefined {
  const [, ...others] = columns;
  const beside = found.chains.find((chain) => chain.columns.join() === columns.map((column) => found.columns.indexOf(column.found)).join());
  let paths = parentsOf(others[0]!).map((value) => [value]);
  for (const [level, { found: column }] of others.entries()) {
    const taken = column.check?.taken;
    const under = new Map(taken?.takes === 'dependent' ? taken.under.map(({ parent, values }) => [parent, values] as const) : []);
    const standing = new Map<string, Set<string>>();
    for (const { path } of beside?.paths ?? []) {
      const key = path.slice(0, level + 1).join(parting);
      if (path[level + 1] !== '') standing.set(key, (standing.get(key) ?? new Set()).add(path[level + 1]!));
    }
    const deeper: string[][] = [];
    for (const path of paths) {
      for (const value of under.get(path.at(-1)!) ?? standing.get(path.join(parting)) ?? []) deeper.push([...path, value]);
      if (deeper.length > mostPaths) return undefined;
    }
    paths = deeper;
  }
  return paths;
}

function parentsOf({ found }: GivenColumn): string[] {
  const taken = found.check?.taken;
  return taken?.takes === 'dependent' ? [...taken.under.map(({ parent }) => parent), ...taken.missing] : [];
}

const keysOf = (paths: readonly (readonly string[])[]): string[] => paths.map((path) => path.join(parting)).sort();

/** The list that the drop-down of a column offers: a table that is a list, one that other columns offer, too, or a new one. */
function dropDownOf(column: GivenColumn, tables: readonly Given[], lists: Making[]): Making | undefined {
  const taken = column.found.check?.taken;
  if (taken?.takes !== 'typed' && taken?.takes !== 'column') return undefined;
  const source = taken.takes === 'column' ? tables.find(({ id }) => id === taken.table) : undefined;
  const home = source && lists.find((list) => list.home === source);
  if (home && taken.takes === 'column' && homeOf(source)?.levels.some(({ found }) => found.at === taken.at)) return home;
  const offered = taken.values.map((value) => ({ value, entries: 1 }));
  const ofHouse = lists.find((list) => list.catalog !== null && knownTexts(list, list.levels.length - 1).share(offered) >= sameShare);
  if (ofHouse) return ofHouse;
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
  catalog: null,
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
export function joined(lists: readonly Making[], mends: Mends): Making[] {
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
