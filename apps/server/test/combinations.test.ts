// How many entries hold each combination of a field with those its rule reads is what a look at every entry finds, whatever was done to
// them, and whoever did it while the counting began.
import { readsOf, type FigureDefinition } from '@dellum/core';
import type { BuildView, EntryPage, FieldCount, FigureLineView, Outcome } from '@dellum/contract';
import { CombinationsStore, PlacesStore, posGap, type Combined } from '@dellum/server';
import fc from 'fast-check';
import { sql } from 'kysely';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { chain, makeEntrySheet, quayAndBerth, type Made } from './entrySheet.js';
import { entriesOf, startServer, type Running } from './house.js';

let running: Running;
let combinations: CombinationsStore;
beforeAll(async () => {
  running = await startServer();
  combinations = new CombinationsStore(running.database);
});
afterAll(() => running.close());

/** A sheet whose berth stands under its quay and fits the ship; `wanted`: what its rule reads. */
async function openPort(
  fields: readonly (readonly [string, string])[] = quayAndBerth,
): Promise<Made & { readonly wanted: Combined; readonly fieldId: string }> {
  const made = await makeEntrySheet(running, fields);
  const { quay, berth } = chain(made.berths, { fitting: [{ companion: 'length', is: 'at least', field: 'ship' }] });
  await made.rule('quay', quay);
  await made.rule('berth', berth);
  const build = await made.house.administrator.get<BuildView>('/build');
  const register = build.sheets.flatMap(({ registers }) => registers).find(({ id }) => id === made.register.id)!;
  const field = register.fields.find(({ key }) => key === 'berth')!;
  const houseId = (
    await sql<{ house: string }>`select house_id as house from registers where id = ${register.id}`.execute(running.database.kysely)
  ).rows[0]!.house;
  return { ...made, fieldId: field.id, wanted: { houseId, registerId: register.id, keys: ['berth', ...readsOf(field.rule)] } };
}

/** By a look at every entry, as `text text … number`. */
async function looked({ houseId, registerId, keys }: Combined): Promise<string[]> {
  const { rows } = await sql<{ cells: Record<string, string> }>`
    select cells from entries where house_id = ${houseId} and register_id = ${registerId}`.execute(running.database.kysely);
  const sums = new Map<string, number>();
  for (const { cells } of rows) {
    const texts = JSON.stringify(keys.map((key) => cells[key] ?? null));
    sums.set(texts, (sums.get(texts) ?? 0) + 1);
  }
  return [...sums].map(([texts, entries]) => `${texts} ${entries}`).sort();
}

async function kept(wanted: Combined): Promise<string[] | string> {
  const held = await combinations.of(running.database.kysely, wanted);
  if (typeof held === 'string') return held;
  return held.map(({ cells, entries }) => `${JSON.stringify(wanted.keys.map((key) => cells[key] ?? null))} ${entries}`).sort();
}

/** So many entries, stored by one statement and counted. */
async function stored({ houseId, registerId }: Combined, count: number, cells: string): Promise<void> {
  const db = running.database;
  const [{ last }] = (
    await sql<{
      last: string;
    }>`select coalesce(max(pos), 0)::text as last from entries where house_id = ${houseId} and register_id = ${registerId}`.execute(
      db.kysely,
    )
  ).rows as [{ last: string }];
  await sql`insert into entries (house_id, register_id, id, pos, cells)
    select ${houseId}, ${registerId}, gen_random_uuid(), ${last}::bigint + n * ${posGap.toString()}::bigint, ${sql.raw(cells)}
    from generate_series(1::bigint, ${count}) as n`.execute(db.kysely);
  const positions = Array.from({ length: count }, (_, at) => BigInt(last) + posGap * BigInt(at + 1));
  await db.transaction((trx) => new PlacesStore().countIn(trx, { houseId, registerId }, positions, 1));
}

const texts = { quay: ['North', 'South', ''], berth: ['N1', 'N2', 'S1', ''], ship: ['50', '90', ''], depth: ['3', '4'] } as const;
const done = fc.oneof(
  fc.record({ what: fc.constant('add' as const), count: fc.integer({ min: 1, max: 3 }) }),
  fc.record({ what: fc.constant('delete' as const), row: fc.nat(20) }),
  fc.record({
    what: fc.constant('write' as const),
    row: fc.nat(20),
    field: fc.constantFrom('quay', 'berth', 'ship', 'depth'),
    at: fc.nat(3),
  }),
  fc.record({
    what: fc.constant('block' as const),
    row: fc.nat(20),
    quay: fc.constantFrom(...texts.quay),
    ship: fc.constantFrom(...texts.ship),
  }),
  fc.record({ what: fc.constant('correct' as const), to: fc.constantFrom('N1', 'N1b', 'N1c') }),
  fc.record({ what: fc.constant('kind' as const), kind: fc.constantFrom('amount', 'number') }),
  fc.record({ what: fc.constant('fold' as const) }),
);
type Done = typeof done extends fc.Arbitrary<infer D> ? D : never;

async function doIt({ house, register, edit }: Made, one: Done): Promise<void> {
  const { administrator, clerk } = house;
  const path = `/registers/${register.id}/entries`;
  const entries = await entriesOf(clerk, register);
  const entry = 'row' in one ? entries[one.row % Math.max(1, entries.length)] : undefined;
  switch (one.what) {
    case 'add':
      return void (await clerk.call('POST', path, { count: one.count }));
    case 'delete':
      return entry && void (await clerk.call('POST', `${path}/delete`, { entries: [entry.id] }));
    case 'write':
      return entry && void (await edit(entry.id, one.field, texts[one.field as keyof typeof texts][one.at % 3] ?? ''));
    case 'block':
      return void (await clerk.call('POST', `${path}/block`, {
        cells: entries.slice(0, one.row).flatMap(({ id }) => [
          { entry: id, field: 'quay', text: one.quay },
          { entry: id, field: 'ship', text: one.ship },
        ]),
      }));
    case 'correct': {
      const build = await administrator.get<BuildView>('/build');
      const list = build.sheets.flatMap(({ registers }) => registers).find(({ title }) => title === 'Berths')!;
      const [first] = (await administrator.get<EntryPage>(`/registers/${list.id}/entries`)).entries;
      const act = { act: 'write', cells: [{ entry: first!.id, field: 'berth', text: one.to }] };
      const { body } = await administrator.call<Outcome>('POST', `/registers/${list.id}/acts`, { acts: [act] });
      if (!body.slip) return;
      const answers = body.slip.questions.map(({ catalogId, value, path: under }) => ({
        catalogId,
        value,
        ...(under && { path: under }),
        answer: 'corrected',
      }));
      return void (await administrator.call('POST', `/slips/${body.slip.id}/answers`, { answers }));
    }
    case 'kind': {
      const ship = register.fields.find(({ key }) => key === 'ship')!;
      return void (await administrator.call('PUT', `/fields/${ship.id}/kind`, { kind: one.kind }));
    }
    case 'fold':
      return combinations.fold();
  }
}

describe('kept combinations', () => {
  it('are what a look at every entry finds, after any acts', { timeout: 120_000 }, async () => {
    const port = await openPort();
    for (const quay of ['North', 'South', 'North']) await port.entry({ quay, ship: '50' });
    expect(await kept(port.wanted)).toBe('unknown');
    await combinations.keep(port.wanted);
    await fc.assert(
      fc.asyncProperty(done, async (one) => {
        await doIt(port, one);
        const [now, then] = [await kept(port.wanted), await looked(port.wanted)];
        // Corrections that are under way reach the entries between two looks; the next look finds both the same.
        if (JSON.stringify(now) !== JSON.stringify(then)) await expect.poll(() => kept(port.wanted)).toEqual(await looked(port.wanted));
      }),
      { numRuns: 80, endOnFailure: true },
    );
  });

  it('miss nothing of what is done while the counting begins', async () => {
    const port = await openPort();
    await stored(port.wanted, 3_000, `jsonb_build_object('quay', 'North', 'berth', 'N' || n % 7)`);
    const ids = (await entriesOf(port.house.clerk, port.register)).map(({ id }) => id);
    let isOver = false;
    const write = async (turn: number) => {
      for (let at = turn; !isOver; at = (at + 4) % ids.length)
        await port.house.clerk.call('PATCH', `/registers/${port.register.id}/entries/${ids[at]!}`, {
          field: 'ship',
          text: String(at % 5),
          version: 1_000_000,
        });
    };
    const writers = [0, 1, 2, 3].map(write);
    const others = { ...port.wanted, keys: ['berth', 'ship'] };
    for (const wanted of [port.wanted, others, port.wanted]) {
      await combinations.keep(wanted);
      await combinations.fold();
    }
    isOver = true;
    await Promise.all(writers);
    expect(await kept(port.wanted)).toEqual(await looked(port.wanted));
    expect(await kept(others)).toEqual(await looked(others));
  });

  it('go on being counted where a server was killed, and are begun anew where that could not be done in a day', async () => {
    const port = await openPort();
    await port.entry({ quay: 'North', berth: 'N1' });
    const left = (day: string) =>
      sql`insert into kept_combinations (house_id, register_id, keys, state, asked_on)
        values (${port.wanted.houseId}, ${port.wanted.registerId}, ${[...port.wanted.keys].sort()}::text[], 'counting', current_date - ${day}::int)`.execute(
        running.database.kysely,
      );
    await left('2');
    expect(await kept(port.wanted)).toBe('counting');
    await combinations.forgetOld(running.database.kysely);
    expect(await kept(port.wanted)).toBe('unknown');
    await left('0');
    // What the server does at its start.
    const own = (await combinations.unfinished(running.database.kysely)).filter(({ registerId }) => registerId === port.wanted.registerId);
    for (const one of own) await combinations.keep(one);
    expect(await kept(port.wanted)).toEqual(await looked(port.wanted));
  });

  it('begin when somebody asks what is outside in a large register, and end where there are too many', { timeout: 60_000 }, async () => {
    const port = await openPort();
    await stored(port.wanted, 6_000, `jsonb_build_object('quay', 'North', 'berth', 'S1')`);
    const counts = async () =>
      (await port.house.administrator.get<FieldCount[]>(`/registers/${port.register.id}/counts`)).find(
        ({ fieldId }) => fieldId === port.fieldId,
      )!.outside;
    expect(await counts()).toBe(6_000);
    await expect.poll(() => kept(port.wanted), { timeout: 20_000 }).toHaveLength(1);
    expect(await counts()).toBe(6_000);
    await stored(port.wanted, 60_000, `jsonb_build_object('quay', 'South', 'berth', 'S1', 'ship', n::text)`);
    expect((await kept(port.wanted)).length).toBe(60_001);
    // Too many from the first: they are looked for among the entries, as they were before.
    const others = { ...port.wanted, keys: ['ship', 'berth'] };
    await combinations.keep(others);
    expect(await kept(others)).toBe('many');
    // An edit, so that the server knows that the house has changed.
    await port.house.clerk.call('POST', `/registers/${port.register.id}/entries`, { count: 1 });
    expect(await counts()).toBe(6_000 + 60_000 - 60);
  });

  it('count every figure as a look at every entry does', { timeout: 60_000 }, async () => {
    const port = await openPort([...quayAndBerth, ['Day', 'date'], ['Tags', 'several values']]);
    const { administrator } = port.house;
    await stored(
      port.wanted,
      6_000,
      `jsonb_strip_nulls(jsonb_build_object('quay', (array['North', 'South', null])[1 + n % 3], 'berth', 'N' || n % 4, 'ship', case when n % 5 > 0 then (n % 7 + 0.5)::text end,
        'depth', case when n % 11 = 0 then 'deep' else (n % 3)::text end, 'day', (date '2026-01-01' + (n % 90)::int)::text,
        'tags', case when n % 4 = 0 then 'a' || chr(31) || 'b' when n % 4 = 1 then 'b' end))`,
    );
    const own = (field: string) => ({ field, through: null });
    const definitions: (readonly [reads: readonly string[], definition: Partial<FigureDefinition>])[] = [
      [['quay'], { by: [own('quay')] }],
      [['tags', 'berth', 'day'], { by: [own('tags'), own('berth')], time: { path: own('day'), step: 'week' } }],
      [['berth', 'ship', 'day'], { by: [own('berth')], measure: 'sum', of: own('ship'), time: { path: own('day'), step: 'month' } }],
      [['depth', 'tags'], { by: [], measure: 'mean', of: own('depth'), only: [{ only: 'values', field: 'tags', values: ['a', ''] }] }],
      [['quay', 'ship', 'berth'], { by: [own('quay')], measure: 'least', of: own('ship'), only: [{ only: 'outside', field: 'berth' }] }],
      [['berth'], { by: [], only: [{ only: 'values', field: 'berth', values: ['nowhere'] }] }],
      [
        ['berth', 'ship', 'day'],
        {
          by: [own('berth')],
          measure: 'most',
          of: own('ship'),
          only: [{ only: 'within', field: 'day', from: '2026-02-01', until: '2026-02-20' }],
        },
      ],
    ];
    for (const [keys, partial] of definitions) {
      const definition = { registerId: port.register.id, time: null, measure: 'count', of: null, only: [], chart: 'bars', ...partial };
      const groups = async () => {
        const answer = await fetch(`${running.base}/api/v1/figures/counted`, {
          method: 'POST',
          headers: { 'content-type': 'application/json', cookie: await administrator.signedIn() },
          body: JSON.stringify(definition),
        });
        const last = JSON.parse((await answer.text()).trim().split('\n').at(-1)!) as FigureLineView;
        if (!('groups' in last)) throw new Error(JSON.stringify(last));
        return last.groups.map((group) => JSON.stringify(group)).sort();
      };
      const looked = await groups();
      // A figure that is kept is counted from kept combinations from the second time on.
      expect((await administrator.call('POST', '/figures', { title: JSON.stringify(partial).slice(0, 60), definition })).status).toBe(201);
      expect(await groups()).toEqual(looked);
      await expect.poll(() => kept({ ...port.wanted, keys }), { timeout: 20_000 }).toBeInstanceOf(Array);
      expect(await groups()).toEqual(looked);
    }
  });
});
