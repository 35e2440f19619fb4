// Arrangements: everybody's own order and choice of entries, computed by the database as people sort and compare.
import fc from 'fast-check';
import { asKept, type Arrangement } from '@dellum/core';
import type { ArrangementView, BlockSum, EntryPage, Found, HeldValues, Problem } from '@dellum/contract';
import { CountsStore } from '@dellum/server';
import { sql } from 'kysely';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { chain, makeEntrySheet, type Made } from './entrySheet.js';
import { startServer, type Running, type Visitor } from './house.js';

let running: Running;
beforeAll(async () => {
  running = await startServer();
});
afterAll(() => running.close());

const fields = [
  ['Name', 'text'],
  ['Tons', 'number'],
  ['Day', 'date'],
  ['Quay', 'text'],
  ['Share', 'percent'],
] as const;

/** A sheet with these rows, in the order of the fields. */
async function sheetOf(rows: readonly (readonly string[])[]): Promise<Made> {
  const made = await makeEntrySheet(running, fields);
  const { clerk } = made.house;
  const { body } = await clerk.call<{ entries: string[] }>('POST', `/registers/${made.register.id}/entries`, { count: rows.length });
  const cells = rows.flatMap((row, at) =>
    row.flatMap((text, column) => (text === '' ? [] : [{ entry: body.entries[at]!, field: made.register.fields[column]!.key, text }])),
  );
  if (cells.length > 0) await clerk.call('POST', `/registers/${made.register.id}/entries/block`, { cells });
  return made;
}

async function arranged(made: Made, arrangement: Partial<Arrangement>, visitor: Visitor = made.house.clerk): Promise<EntryPage> {
  const { body } = await visitor.call<ArrangementView>('PUT', `/registers/${made.register.id}/arrangement`, { ...asKept, ...arrangement });
  return visitor.get<EntryPage>(`/registers/${made.register.id}/entries?from=0&count=1000&arranged=${body.version}`);
}
const names = ({ entries }: EntryPage) => entries.map(({ cells }) => cells['name'] ?? '');

describe('an arrangement', () => {
  it('shows each entry once, also where its value stands under several parents of the catalog', async () => {
    const made = await sheetOf([['N2'], ['S1'], ['N1'], ['N2'], ['other']]);
    await made.rule('name', { kind: 'catalog', catalogId: made.berths, level: null, others: 'accept' } as Parameters<Made['rule']>[1]);
    expect(names(await arranged(made, { sort: [{ field: 'name', direction: 'up' }] }))).toEqual(['N1', 'N2', 'N2', 'S1', 'other']);
  });
  it('sorts as people do, the same as a naive sort, blanks last and equals as kept', async () => {
    const collator = new Intl.Collator('und', { numeric: true });
    const row = fc.tuple(
      fc.constantFrom('Berth 2', 'Berth 10', 'berth 2', 'Ähre', 'zeta', ''),
      fc.constantFrom('9', '10', '-2.5', ''),
      fc.constantFrom('2026-01-02', '2025-12-31', ''),
    );
    const bySize = (a: string, b: string) => Number(a) - Number(b);
    const byText = (a: string, b: string) => collator.compare(a, b);
    const compares = { name: byText, tons: bySize, day: byText } as const;
    const column = { name: 0, tons: 1, day: 2 } as const;
    const samples = fc.sample(fc.array(row, { minLength: 5, maxLength: 30 }), { numRuns: 4, seed: 7 });
    // A text that is too long to be counted as it is: the entries themselves are sorted then.
    const long = ['On the way '.repeat(60).trim(), '', ''] as const;
    for (const rows of [...samples, ...samples.map((some) => [long, ...some])]) {
      const made = await sheetOf(rows.map((cells) => [...cells]));
      for (const field of ['name', 'tons', 'day'] as const) {
        for (const direction of ['up', 'down'] as const) {
          const sign = direction === 'up' ? 1 : -1;
          const expected = rows
            .map((cells) => cells[column[field]]!)
            .sort((a, b) => (a === '' || b === '' ? Number(a === '') - Number(b === '') : sign * compares[field](a, b)));
          const page = await arranged(made, { sort: [{ field, direction }] });
          expect(page.entries.map(({ cells }) => cells[field] ?? '')).toEqual(expected);
        }
      }
    }
  });

  it('goes by the new spelling while entries still follow a correction', async () => {
    const made = await sheetOf([['beta'], ['alpha'], ['gamma'], ['alpha'], ['']]);
    const { kysely: db } = running.database;
    const [houseId, field] = [made.house.id, made.register.fields.find(({ key }) => key === 'name')!.id];
    // As a correction begins: counted as it will be, and no entry is written yet.
    const counted = [
      { fieldId: field, value: 'alpha', entries: -2 },
      { fieldId: field, value: 'zeta', entries: 2 },
    ];
    await running.database.transaction((trx) => new CountsStore(running.database).write(trx, houseId, counted));
    await sql`insert into carries (house_id, id, field_id, from_value, to_value, done, total)
      values (${houseId}, gen_random_uuid(), ${field}, 'alpha', 'zeta', 0, 2)`.execute(db);
    await sql`update houses set build = build + 1 where id = ${houseId}`.execute(db);
    for (const [direction, order] of [
      ['up', ['beta', 'gamma', 'zeta', 'zeta', '']],
      ['down', ['zeta', 'zeta', 'gamma', 'beta', '']],
    ] as const)
      expect(names(await arranged(made, { sort: [{ field: 'name', direction }] }))).toEqual(order);
  });

  it('follows the order of a catalog, and of a second field among equals', async () => {
    const made = await sheetOf([
      ['a', '2', '', 'South'],
      ['b', '1', '', 'North'],
      ['c', '1', '', 'South'],
      ['d', '5', '', 'North'],
      ['e', '', '', ''],
    ]);
    await made.rule('quay', chain(made.berths).quay);
    expect(
      names(
        await arranged(made, {
          sort: [
            { field: 'quay', direction: 'up' },
            { field: 'tons', direction: 'up' },
          ],
        }),
      ),
    ).toEqual(['b', 'd', 'c', 'a', 'e']);
    expect(names(await arranged(made, { sort: [{ field: 'quay', direction: 'down' }] }))).toEqual(['a', 'c', 'b', 'd', 'e']);
  });

  it('shows only some: values and blanks, a span, a text, what is outside; all of them hold', async () => {
    const made = await sheetOf([
      ['Alpha', '5', '2026-01-05', 'North', '7.5 %'],
      ['beta', '50', '2026-02-05', 'Nowhere', '20 %'],
      ['Gamma', '-3', '2026-03-05', '', ''],
      ['', '7', '', 'South', '3 %'],
    ]);
    await made.rule('quay', chain(made.berths).quay);
    expect(names(await arranged(made, { only: [{ only: 'values', field: 'quay', values: ['North', ''] }] }))).toEqual(['Alpha', 'Gamma']);
    expect(names(await arranged(made, { only: [{ only: 'within', field: 'tons', from: '-3', until: '7' }] }))).toEqual([
      'Alpha',
      'Gamma',
      '',
    ]);
    expect(names(await arranged(made, { only: [{ only: 'within', field: 'share', from: '0.075', until: null }] }))).toEqual([
      'Alpha',
      'beta',
    ]);
    expect(names(await arranged(made, { only: [{ only: 'within', field: 'day', from: '2026-01-06', until: '2026-02-28' }] }))).toEqual([
      'beta',
    ]);
    expect(names(await arranged(made, { only: [{ only: 'text', field: 'name', text: 'A%' }] }))).toEqual([]);
    expect(
      names(
        await arranged(made, {
          only: [
            { only: 'text', field: 'name', text: 'MA' },
            { only: 'within', field: 'tons', from: null, until: '0' },
          ],
        }),
      ),
    ).toEqual(['Gamma']);
    expect(names(await arranged(made, { only: [{ only: 'outside', field: 'quay' }] }))).toEqual(['beta']);
    const values = await made.house.clerk.get<HeldValues>(`/registers/${made.register.id}/values?field=quay`);
    expect(values).toEqual({ values: ['North', 'Nowhere', 'South'].map((value) => ({ value, entries: 1 })), blank: 1, more: false });
  });

  it('is one’s own, stands still while cells change, and follows what comes and goes', async () => {
    const made = await sheetOf([
      ['b', '1'],
      ['a', '2'],
      ['c', '3'],
    ]);
    const { clerk, administrator } = made.house;
    const page = await arranged(made, { sort: [{ field: 'name', direction: 'up' }] });
    expect(names(page)).toEqual(['a', 'b', 'c']);
    expect((await administrator.get<ArrangementView>(`/registers/${made.register.id}/arrangement`)).version).toBe(0);
    const again = () => clerk.get<EntryPage>(`/registers/${made.register.id}/entries?from=0&count=1000&arranged=1`);
    await made.edit(page.entries[0]!.id, 'name', 'z');
    expect(names(await again())).toEqual(['z', 'b', 'c']);
    await clerk.call('POST', `/registers/${made.register.id}/arrangement/anew`, {});
    expect(names(await again())).toEqual(['b', 'c', 'z']);
    await clerk.call('POST', `/registers/${made.register.id}/entries/delete`, { entries: [page.entries[1]!.id] });
    await made.entry({ name: 'd' });
    expect(names(await again())).toEqual(['c', 'd', 'z']);
    // How fields stand is kept without arranging anything anew.
    const { body } = await clerk.call<ArrangementView>('PUT', `/registers/${made.register.id}/arrangement`, {
      ...asKept,
      sort: [{ field: 'name', direction: 'up' }],
      fields: [{ field: 'tons', hidden: true, width: 200 }],
      inView: 2,
    });
    expect(body).toMatchObject({ version: 2, arrangement: { inView: 2, fields: [{ field: 'tons', hidden: true, width: 200 }] } });
  });

  it('pages through thousands in one order', async () => {
    const made = await sheetOf([]);
    const { clerk } = made.house;
    for (let at = 0; at < 3; at++) await clerk.call('POST', `/registers/${made.register.id}/entries`, { count: 1000 });
    const { body } = await clerk.call<ArrangementView>('PUT', `/registers/${made.register.id}/arrangement`, {
      ...asKept,
      sort: [{ field: 'name', direction: 'down' }],
    });
    const pages = await Promise.all(
      [0, 950, 2400].map((from) =>
        clerk.get<EntryPage>(`/registers/${made.register.id}/entries?from=${from}&count=600&arranged=${body.version}`),
      ),
    );
    expect(pages.map(({ total, entries }) => [total, entries.length])).toEqual([
      [3000, 600],
      [3000, 600],
      [3000, 600],
    ]);
    const kept = await clerk.get<EntryPage>(`/registers/${made.register.id}/entries?from=950&count=600`);
    expect(pages[1]!.entries.map(({ id }) => id)).toEqual(kept.entries.map(({ id }) => id));
  });

  it.each([
    ['a field that is not there', { sort: [{ field: 'nowhere', direction: 'up' }] }, 'not-found'],
    ['bounds the wrong way round', { only: [{ only: 'within', field: 'tons', from: '10', until: '9' }] }, 'not-valid'],
    ['a bound that is none', { only: [{ only: 'within', field: 'tons', from: "1' or 1=1", until: null }] }, 'not-valid'],
    ['four orders', { sort: ['name', 'tons', 'day', 'quay'].map((field) => ({ field, direction: 'up' })) }, 'not-valid'],
  ])('refuses %s', async (_what, arrangement, code) => {
    const made = await sheetOf([]);
    const { body } = await made.house.clerk.call<Problem>('PUT', `/registers/${made.register.id}/arrangement`, {
      ...asKept,
      ...arrangement,
    });
    expect(body.code).toBe(code);
  });
});

describe('finding and summing', () => {
  it('counts where a text stands and goes on from entry to entry, in the order that one sees', async () => {
    const made = await sheetOf([['North 1', '', '', 'x north'], ['b'], ['a NORTH', '', '', '']]);
    const { reader } = made.house;
    const find = (after: string | undefined, isArranged: boolean) =>
      reader.call<Found>('POST', `/registers/${made.register.id}/found`, {
        search: { find: 'north', whole: false, exact: false },
        fields: ['name', 'quay'],
        arranged: isArranged,
        ...(after && { after }),
      });
    const first = (await find(undefined, false)).body;
    expect([first.cells, first.fields.map(({ field, cells }) => [field, cells]), first.next?.row]).toEqual([
      3,
      [
        ['name', 2],
        ['quay', 1],
      ],
      0,
    ]);
    const second = (await find(first.next!.entry, false)).body.next!;
    expect([second.row, second.field]).toEqual([2, 'name']);
    expect((await find(second.entry, false)).body.next).toEqual(first.next);
    await arranged(made, { sort: [{ field: 'name', direction: 'up' }] }, reader);
    expect((await find(undefined, true)).body.next).toMatchObject({ row: 0, entry: second.entry });
  });
  it('sums a block exactly, also one that is arranged', async () => {
    const made = await sheetOf([
      ['a', '0.1'],
      ['b', '0.2'],
      ['c', ''],
      ['d', '1e3'],
    ]);
    const { clerk } = made.house;
    const ids = (await clerk.get<EntryPage>(`/registers/${made.register.id}/entries`)).entries.map(({ id }) => id);
    const sum = async (first: string | undefined, last: string | undefined, isArranged = false) =>
      (
        await clerk.call<BlockSum>('POST', `/registers/${made.register.id}/summed`, {
          fields: ['name', 'tons'],
          first,
          last,
          arranged: isArranged,
        })
      ).body;
    expect(await sum(ids[0], ids[2])).toEqual({
      entries: 3,
      cells: 6,
      filled: 5,
      numbers: { count: 2, sum: '0.3', mean: '0.15', least: '0.1', most: '0.2' },
    });
    expect((await sum(undefined, undefined)).entries).toBe(4);
    await arranged(made, { sort: [{ field: 'name', direction: 'down' }] });
    expect((await sum(undefined, ids[2], true)).entries).toBe(2);
  });
});
