// The judge over 100,000 cells, as a pasted block brings them: nine in ten exact, the rest in another spelling or outside.
import { blockJudge, compileCatalog, houseLocale, newRule, type Item, type JudgedField, type Cells } from '@dellum/core';
import { median, print, times } from './measure.js';

const cells = 100_000;
const size = 5000;
const nothing: Cells = {};

/** 90 % exact, 5 % another spelling, 5 % outside; the same texts at every run. */
const typed = (value: string, at: number): string =>
  at % 20 === 0 ? `${value} gone` : at % 20 === 1 ? `  ${value.toUpperCase()} ` : value;

export async function judgeBlock(): Promise<void> {
  const values = Array.from({ length: size }, (_, at) => `Value no. ${at}`);
  const items = values.map((value): Item => ({ value, path: [], label: value, otherNames: [], state: 'offered', from: [] }));
  const catalogs = new Map([['c', compileCatalog('c', 'Values', items)]]);
  const field: JudgedField = { heading: 'Value', kind: 'text', rule: { ...newRule('catalog'), catalogId: 'c' } };
  const texts = Array.from({ length: cells }, (_, at) => typed(values[(at * 7) % size]!, at));
  const context = { locale: houseLocale, catalogs, today: '2026-11-25' };
  const known = new Map(values.map((value) => [value, value]));
  const bare = median(await times(7, async () => texts.reduce((found, text) => found + (known.has(text) ? 1 : 0), 0)));
  const ours = median(
    await times(7, async () => {
      const judgeCell = blockJudge(field, context);
      const taken = texts.reduce((sum, text) => sum + (judgeCell({ typed: text }, nothing, '').verdict === 'taken' ? 1 : 0), 0);
      if (taken !== cells * 0.95) throw new Error(`${taken} were taken`);
    }),
  );
  print({ name: 'judge.block', value: ours, unit: 'ms', against: 'one Map lookup a cell', ratio: bare / ours });
}

export async function judgeCascade(): Promise<void> {
  const tuples = Array.from({ length: size }, (_, at) => [`Group ${at % 20}`, `Sub ${at % 400}`, `Item ${at}`] as const);
  const items = new Map<string, Item>();
  for (const [group, sub, item] of tuples) {
    for (const [value, path] of [
      [group, []],
      [sub, [group]],
      [item, [group, sub]],
    ] as const) {
      items.set([...path, value].join('/'), { value, path, label: value, otherNames: [], state: 'offered', from: [] });
    }
  }
  const ordered = [...items.values()].sort((a, b) => a.path.length - b.path.length);
  const catalogs = new Map([['c', compileCatalog('c', 'Tree', ordered)]]);
  const keys = ['group', 'sub', 'item'];
  const fields = keys.map((heading, level): JudgedField => ({
    heading,
    kind: 'text',
    rule: { ...newRule('catalog'), catalogId: 'c', level, parents: keys.slice(0, level) },
  }));
  const rows = Array.from({ length: Math.floor(cells / 3) }, (_, at) => {
    const [group, sub, item] = tuples[(at * 7) % size]!;
    return { texts: [group, sub, typed(item, at)] as const, entry: { group, sub } };
  });
  const context = { locale: houseLocale, catalogs, today: '2026-11-25' };
  const maps = keys.map(
    (_, level) =>
      new Map(ordered.filter(({ path }) => path.length === level).map(({ path, value }) => [[...path, value].join('\u001F'), value])),
  );
  const bare = median(
    await times(7, async () =>
      rows.reduce(
        (found, { texts: [group, sub, item] }) =>
          found +
          Number(maps[0]!.has(group)) +
          Number(maps[1]!.has(`${group}\u001F${sub}`)) +
          Number(maps[2]!.has(`${group}\u001F${sub}\u001F${item}`)),
        0,
      ),
    ),
  );
  const ours = median(
    await times(7, async () => {
      let taken = 0;
      const judges = fields.map((field) => blockJudge(field, context));
      for (const { texts, entry } of rows)
        for (let level = 0; level < 3; level++) if (judges[level]!({ typed: texts[level]! }, entry, '').verdict === 'taken') taken++;
      if (taken < rows.length * 2.9) throw new Error(`${taken} were taken`);
    }),
  );
  print({ name: 'judge.cascade', value: ours, unit: 'ms', against: 'three Map lookups a row', ratio: bare / ours });
}
