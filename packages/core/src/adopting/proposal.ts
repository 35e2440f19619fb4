// What becomes of what was found in files, as it is proposed and as it was changed by hand: tables, lists, levels, and what will be
// outside. Computed anew from what was found and from what was changed; nothing of it is stored in the house.
import type { Spelling } from '../upkeep/index.js';
import type { FoundColumn } from './columns.js';
import { composed, type AdoptedValue, type Contradiction } from './composed.js';
import type { AdoptedTable, TablePlace } from './found.js';
import { givenTables, homeOf, type GivenColumn } from './given.js';
import { houseListId, type HouseList } from './houseLists.js';
import { joined, leftHouseList, listsOf, type Making } from './lists.js';
import type { Mends, TableUse } from './mends.js';

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
export interface ProposedList {
  readonly id: string;
  readonly title: string;
  readonly wanted: boolean;
  /** The table that is the list; null for one that is made of columns. */
  readonly home: string | null;
  /** The catalog of the house that it is; null for one that is to be made. */
  readonly catalog: string | null;
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

/** The levels of a catalog are called as the columns that choose from them. */
const headingOf = ({ catalog, columns }: Making, heading: string, level: number): string =>
  (catalog === null ? undefined : columns.find((own) => own.level === level)?.column.heading) ?? heading;

/** What is proposed for a house. `house`: the lists that it has. */
export function proposedHouse(found: readonly AdoptedTable[], mends: Mends, house: readonly HouseList[] = []): HouseProposal {
  const tables = givenTables(found, mends);
  const saidOf = (id: string) => mends.lists.filter(({ list }) => list === id);
  const isLeft = ({ catalogId }: HouseList) => saidOf(houseListId(catalogId)).some(({ wanted }) => wanted === false);
  const lists = listsOf(
    tables,
    house.filter((list) => !isLeft(list)),
  );
  const made = joined([...lists, ...house.filter(isLeft).map(leftHouseList)], mends).map((list) => {
    const said = saidOf(list.id);
    const spellings = mends.spellings.filter(({ list: id }) => id === list.id);
    return {
      wanted: said.find(({ wanted }) => wanted !== undefined)?.wanted ?? true,
      title: (list.catalog === null ? said.find(({ title }) => title !== undefined)?.title : undefined) ?? list.title,
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
      ...{ id: list.id, title, wanted, home: list.home?.id ?? null, catalog: list.catalog, outside, contradictions, joined: list.joined },
      levels: list.levels.map((heading, level) => ({ heading: headingOf(list, heading, level), values: values[level]! })),
      columns: list.columns.map(({ column, level }) => ({ table: column.table, at: column.found.at, level })),
    })),
  };
}
