// Ten files as offices leave them, made by a generator that shares nothing with the demo: title lines, headings of two rows, sums, two
// tables on a sheet, orders of days and decimal marks, codes with leading zeros, slips of the finger. What is found in them is measured.
import {
  adoptedTable,
  findTables,
  houseLocale,
  isRowOf,
  laidParts,
  noMends,
  proposedHouse,
  rowReader,
  tableId,
  type AdoptedKind,
  type AdoptedTable,
  type CameBack,
  type HouseProposal,
  type SheetRow,
} from '@dellum/core';
import { describe, expect, it } from 'vitest';

/** Mulberry32 (public domain): the same files in every run. */
function chance(seed: number): () => number {
  let state = seed >>> 0;
  return () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let mixed = Math.imul(state ^ (state >>> 15), 1 | state);
    mixed = (mixed + Math.imul(mixed ^ (mixed >>> 7), 61 | mixed)) ^ mixed;
    return ((mixed ^ (mixed >>> 14)) >>> 0) / 2 ** 32;
  };
}
type Random = () => number;
const below = (random: Random, most: number): number => Math.floor(random() * most);
const pick = <T>(random: Random, of: readonly T[]): T => of[below(random, of.length)]!;

const starts = [
  'Bra',
  'Cor',
  'Dun',
  'Fel',
  'Gri',
  'Hol',
  'Kes',
  'Lor',
  'Mun',
  'Nev',
  'Ost',
  'Pel',
  'Quin',
  'Ros',
  'Sten',
  'Tav',
  'Ulm',
  'Wex',
];
const ends = ['bridge', 'croft', 'dale', 'field', 'gate', 'haven', 'mere', 'ridge', 'stow', 'thorpe', 'water', 'wick'];
function names(random: Random, count: number): string[] {
  const found = new Set<string>();
  while (found.size < count) found.add(pick(random, starts) + pick(random, ends));
  return [...found];
}

function slip(word: string, random: Random): string {
  const at = 1 + below(random, word.length - 1);
  switch (below(random, 4)) {
    case 0:
      return word.slice(0, at) + word.slice(at + 1);
    case 1:
      return word.slice(0, at) + word[at]! + word.slice(at);
    case 2:
      return word.toUpperCase();
    default:
      return ` ${word}  `;
  }
}

interface Column {
  readonly heading: string;
  readonly kind: AdoptedKind;
  readonly isList: boolean;
  readonly write: (row: number) => string | number;
}
interface Truth {
  readonly columns: readonly Column[];
  readonly rows: number;
  /** Headings of columns that are levels, the outermost first. */
  readonly levels: readonly string[];
  /** By heading, what was meant by what was written otherwise. */
  readonly meant: ReadonlyMap<string, ReadonlyMap<string, string>>;
  readonly lines: readonly (readonly (string | number)[])[];
}

function tableOf(seed: number): Truth {
  const random = chance(seed);
  const rows = 200 + below(random, 400);
  const groups = names(random, 3 + below(random, 3));
  // No two of them are one slip apart, and none is in two groups.
  const items = names(chance(seed * 31), groups.length * 3).map((item, at) => [groups[at % groups.length]!, `${item} stock`] as const);
  const chosen = Array.from({ length: rows }, () => pick(random, items));
  const people = names(random, 4 + below(random, 8));
  const states = ['open', 'under way', 'settled'];
  const meant = new Map<string, Map<string, string>>();
  const slipped = (heading: string, word: string): string => {
    if (random() >= 0.05) return word;
    const written = slip(word, random);
    if (written.trim() !== word) meant.set(heading, (meant.get(heading) ?? new Map<string, string>()).set(written.trim(), word));
    return written;
  };
  const order = ['dmy', 'mdy', 'ymd'][seed % 3]!;
  const comma = seed % 2 === 1;
  const day = (row: number): string => {
    const at = new Date(Date.UTC(2025, 0, 1 + ((row * 7) % 365)));
    const [d, m, y] = [at.getUTCDate(), at.getUTCMonth() + 1, at.getUTCFullYear()];
    if (order === 'ymd') return at.toISOString().slice(0, 10);
    return order === 'dmy' ? `${d}.${m}.${y}` : `${m}/${d}/${y}`;
  };
  const columns: Column[] = [
    { heading: 'Number', kind: 'text', isList: false, write: (row) => `00${4000 + row}` },
    { heading: 'Day', kind: 'date', isList: false, write: day },
    { heading: 'Group', kind: 'text', isList: true, write: (row) => slipped('Group', chosen[row]![0]) },
    { heading: 'Item', kind: 'text', isList: true, write: (row) => slipped('Item', chosen[row]![1]) },
    { heading: 'Person', kind: 'text', isList: true, write: () => slipped('Person', pick(random, people)) },
    { heading: 'Pieces', kind: 'number', isList: false, write: () => 1 + below(random, 90) },
    { heading: 'Price', kind: 'number', isList: false, write: () => `${below(random, 800)}${comma ? ',' : '.'}${10 + below(random, 89)}` },
    { heading: 'Share', kind: 'percent', isList: false, write: () => `${below(random, 100)} %` },
    { heading: 'State', kind: 'text', isList: true, write: () => pick(random, states) },
    { heading: 'Remark', kind: 'text', isList: false, write: (row) => (row % 3 === 0 ? `seen by ${pick(random, people)}, ${row}` : '') },
  ];
  const lines = Array.from({ length: rows }, (_, row) => columns.map(({ write }) => write(row)));
  return { columns, rows, levels: ['Group', 'Item'], meant, lines };
}

interface File {
  readonly sheet: readonly SheetRow[];
  readonly tables: readonly Truth[];
}
/** One or two tables on a sheet, with what stands around them. */
function fileOf(number: number): File {
  const tables = number % 4 === 3 ? [tableOf(number + 1), tableOf(number + 101)] : [tableOf(number + 1)];
  const lines: (string | number)[][] = [];
  for (const [at, truth] of tables.entries()) {
    if (at > 0) lines.push([], []);
    if (number % 3 !== 0) lines.push([`Book ${number + 1}, part ${at + 1}`], []);
    // Headings of two rows: the upper one groups.
    if (number % 5 === 2) lines.push(['', '', 'What', '', '', 'How much']);
    lines.push(truth.columns.map(({ heading }) => heading));
    lines.push(...truth.lines.map((line) => [...line]));
    if (number % 2 === 0) lines.push(['Total', '', '', '', '', 12345]);
  }
  const sheet = lines.flatMap((line, at): SheetRow[] => {
    const cells = line.flatMap((cell, column): [number, CameBack][] =>
      cell === '' ? [] : [[column, typeof cell === 'number' ? { is: 'number', number: cell } : { is: 'text', text: cell }]],
    );
    return cells.length === 0 ? [] : [{ number: at + 1, cells: new Map(cells) }];
  });
  return { sheet, tables };
}

const files = Array.from({ length: 10 }, (_, number) => fileOf(number));
const found: readonly (readonly AdoptedTable[])[] = files.map(({ sheet }, file) =>
  findTables(sheet, houseLocale).map((table, at) => adoptedTable({ file, sheet: 0, table: at }, `Book ${file}`, table)),
);
/** Each file by itself: what is one list in several files is another test. */
const proposals: readonly HouseProposal[] = found.map((tables) => proposedHouse(tables, noMends));
const truths = files.flatMap(({ tables }, file) => tables.map((truth, at) => ({ truth, file, at })));
const endsWith = (heading: string, name: string): boolean => heading === name || heading.endsWith(` ${name}`);

describe('Ten files of offices', () => {
  it('each table is found, with all its rows and headings, and without what stands around it', () => {
    expect(found.map((tables) => tables.map(({ rows }) => rows))).toEqual(files.map(({ tables }) => tables.map(({ rows }) => rows)));
    for (const { truth, file, at } of truths)
      expect(found[file]![at]!.columns.map(({ heading }, place) => endsWith(heading, truth.columns[place]!.heading))).toEqual(
        truth.columns.map(() => true),
      );
  });

  it('each column is of the kind that it is', () => {
    for (const { truth, file, at } of truths)
      expect([file, ...found[file]![at]!.columns.map(({ kind }) => kind)]).toEqual([file, ...truth.columns.map(({ kind }) => kind)]);
  });

  it('95 of 100 lists are found, and 95 of 100 that are found are lists; levels are found as levels', () => {
    const said = truths.flatMap(({ truth, file, at }) =>
      proposals[file]!.tables[at]!.columns.map(({ list }, place) => ({ is: truth.columns[place]!.isList, found: list !== null })),
    );
    const both = said.filter((one) => one.is && one.found).length;
    expect(both / said.filter(({ is }) => is).length).toBeGreaterThanOrEqual(0.95);
    expect(both / said.filter((one) => one.found).length).toBeGreaterThanOrEqual(0.95);
    for (const { truth, file, at } of truths) {
      const { columns } = proposals[file]!.tables[at]!;
      const levels = truth.columns.flatMap(({ heading }, place) => (truth.levels.includes(heading) ? [columns[place]!.list] : []));
      expect(levels.map((list) => list?.level)).toEqual([0, 1]);
      expect(levels[0]!.id).toBe(levels[1]!.id);
    }
  });

  it('97 of 100 spellings are gathered under what was meant, and 97 of 100 that are gathered are right', () => {
    let [gathered, right, planted] = [0, 0, 0];
    for (const { truth, file, at } of truths) {
      for (const [place, { heading, isList }] of truth.columns.entries()) {
        const { list } = proposals[file]!.tables[at]!.columns[place]!;
        const meant = truth.meant.get(heading) ?? new Map<string, string>();
        planted += meant.size;
        const values = isList ? (proposals[file]!.lists.find(({ id }) => id === list?.id)?.levels[list!.level]!.values ?? []) : [];
        const own = new Map(values.flatMap(({ value, spellings }) => spellings.map((one) => [one.value, value] as const)));
        // Of two tables on a sheet that share a list, each is asked for its own spellings.
        const ofTable = [...own].filter(([written]) => meant.has(written) || files[file]!.tables.length === 1);
        gathered += ofTable.length;
        right += ofTable.filter(([written, value]) => meant.get(written) === value).length;
      }
    }
    expect(planted).toBeGreaterThan(300);
    expect(right / gathered).toBeGreaterThanOrEqual(0.97);
    expect(right / planted).toBeGreaterThanOrEqual(0.97);
  });

  it('no cell is lost, and each holds what was meant by it', () => {
    let made = 0;
    for (const [file, { sheet, tables }] of files.entries()) {
      const house = laidParts(proposals[file]!, found[file]!, () => `id ${made++}`);
      for (const [at, truth] of tables.entries()) {
        const table = found[file]![at]!;
        const laid = house.tables.find((one) => one.table === tableId(table))!;
        const rows = sheet.filter(({ number }) => isRowOf(table)(number));
        const entries = rows.map(rowReader(laid, houseLocale));
        expect(entries.map((cells) => Object.keys(cells).length)).toEqual(
          truth.lines.map((line) => line.filter((cell) => cell !== '').length),
        );
        const person = laid.columns[4]!.key;
        const wrong = entries.filter((cells, row) => {
          const written = String(truth.lines[row]![4]).trim();
          return cells[person] !== (truth.meant.get('Person')?.get(written) ?? written);
        });
        expect(wrong.length).toBeLessThanOrEqual(truth.rows * 0.01);
      }
    }
  });
});
