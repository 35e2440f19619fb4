// The live stream between two servers, and its numbers.
import type { CatalogItems, Me, Outcome } from '@dellum/contract';
import { sql } from 'kysely';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { listen, type Ear } from './ear.js';
import { entriesOf, inserting, openHouse, startServer, until, Visitor, type House, type Running } from './house.js';

let one: Running;
let two: Running;
beforeAll(async () => {
  [one, two] = await Promise.all([startServer(), startServer()]);
});
afterAll(() => Promise.all([one.close(), two.close()]));

const add = (house: House, text: string) =>
  house.administrator.call<Outcome>('POST', `/registers/${house.pilots.id}/acts`, { acts: [inserting(text)] });
const kinds = (ear: Ear) => ear.heard.map(({ change }) => change.kind);

describe('who is where', () => {
  it('is told to the others of the house, on any server, and to nobody else', async () => {
    const [house, stranger] = [await openHouse(one, [{ visit: 'V1' }]), await openHouse(one, [])];
    const [entry] = await entriesOf(house.clerk, house.visits);
    const ears = {
      reader: await listen(two.base, house.reader),
      clerk: await listen(two.base, house.clerk),
      stranger: await listen(two.base, stranger.clerk),
    };
    const place = { registerId: house.visits.id, entry: entry!.id, field: 'pilot' };
    expect((await house.clerk.call('POST', '/live/place', place)).status).toBe(204);
    await until(async () => ears.reader.places.length > 0);
    expect(ears.reader.places).toMatchObject([{ ...place, name: 'The clerk' }]);
    expect([ears.clerk.places, ears.stranger.places]).toEqual([[], []]);
    for (const wrong of [
      { ...place, registerId: house.pilots.id },
      { ...place, field: 'nowhere' },
      { ...place, registerId: stranger.visits.id },
    ])
      expect((await house.clerk.call('POST', '/live/place', wrong)).status).toBe(404);
    expect((await house.clerk.call('POST', '/live/place', { ...place, entry: 'x' })).status).toBe(422);
    // Where somebody is on a sheet that others may not look at, those are not told.
    const administrator = await listen(one.base, house.administrator);
    const hidden = async (shown: boolean) => {
      await house.administrator.call('PATCH', `/sheets/${house.pilots.sheetId}`, { shown });
      await house.administrator.call('POST', '/live/place', { registerId: house.pilots.id });
      // The next place that all may hear of comes after it.
      await house.administrator.call('POST', '/live/place', { registerId: house.visits.id });
    };
    await hidden(false);
    await until(async () => ears.reader.places.length > 1);
    expect(ears.reader.places.slice(1).map(({ registerId }) => registerId)).toEqual([house.visits.id]);
    await hidden(true);
    await until(async () => ears.reader.places.length > 3);
    expect(ears.reader.places.slice(2).map(({ registerId }) => registerId)).toEqual([house.pilots.id, house.visits.id]);
    administrator.stop();
    Object.values(ears).forEach((ear) => ear.stop());
  });
});

describe('the stream', () => {
  it('brings what a server has stored that died before it could announce it', async () => {
    const house = await openHouse(one, []);
    const ear = await listen(two.base, house.clerk);
    await sql`
      with taken as (update house_counters set seq = seq + 1 where house_id = ${house.id} returning seq)
      insert into changes (house_id, seq, audience, body) select ${house.id}, seq, 'everyone', '{"kind": "figures"}' from taken`.execute(
      one.database.kysely,
    );
    await until(async () => kinds(ear).includes('figures'), 20);
    ear.stop();
  });

  it('says the day of the house, which is not that of the server everywhere', async () => {
    const house = await openHouse(one, []);
    // Noon and midnight never fall together: of these two zones, one is in another day than the other.
    for (const timeZone of ['Pacific/Kiritimati', 'Pacific/Niue']) {
      expect((await house.administrator.call('PATCH', '/house', { timeZone })).status).toBe(204);
      const ear = await listen(one.base, house.clerk);
      await until(async () => ear.days.length > 0);
      const { today } = (await house.clerk.get<Me>('/session')).house;
      expect(ear.days[0]).toBe(today);
      expect(today).toBe(new Intl.DateTimeFormat('sv', { timeZone }).format(new Date()));
      ear.stop();
    }
  });
  it('tells a browser on another server, and only what its role may hear', async () => {
    const house = await openHouse(one, [{ visit: 'V1' }]);
    const clerk = await listen(two.base, house.clerk);
    const administrator = await listen(two.base, house.administrator);
    await add(house, 'Wenna Hallet');
    await until(async () => kinds(administrator).includes('catalog') && kinds(clerk).includes('catalog'));
    expect(kinds(administrator)).toEqual(['build', 'register', 'catalog']);
    expect(kinds(clerk)).toEqual(['build', 'catalog']);
    const items = await new Visitor(two.base).call('GET', `/catalogs/${house.catalog.id}/items`);
    expect(items.status).toBe(401);
    const other = new Visitor(two.base);
    other.cookie = await house.clerk.signedIn();
    expect((await other.get<CatalogItems>(`/catalogs/${house.catalog.id}/items`)).items.map(({ value }) => value)).toContain(
      'Wenna Hallet',
    );
    clerk.stop();
    administrator.stop();
  });

  it('catches up after a loss, and says when too much was missed', async () => {
    const house = await openHouse(one, [{ visit: 'V1' }]);
    await add(house, 'A');
    const first = await listen(one.base, house.administrator, 0);
    await until(async () => kinds(first).includes('catalog'));
    first.stop();
    await add(house, 'B');
    const known = first.heard.at(-1)!.seq;
    const again = await listen(two.base, house.administrator, known);
    await until(async () => kinds(again).includes('catalog'));
    expect(again.heard.map(({ seq }) => seq)).toEqual([known + 1, known + 2, known + 3]);
    again.stop();
    await one.database.kysely
      .deleteFrom('changes')
      .where('house_id', '=', house.id)
      .where('seq', '<=', known + 1)
      .execute();
    const late = await listen(two.base, house.administrator, known - 1);
    expect(late.begun).toEqual([`anew ${known + 3}`]);
    late.stop();
  });

  it('misses nothing, wherever it was begun while others write', async () => {
    const house = await openHouse(one, [{ visit: 'V1' }]);
    const ears: Ear[] = [];
    const writing = async () => {
      for (let at = 0; at < 25; at++) await add(house, `Pilot ${at}`);
    };
    const listening = async (base: string) => {
      // Each knows another part of what was told: some less than those who hear already.
      for (let at = 0; at < 9; at++) ears.push(await listen(base, house.administrator, ears.at(-1 - (at % 3))?.heard.at(-1)?.seq ?? 0));
    };
    await Promise.all([writing(), listening(two.base), listening(two.base)]);
    const { newest } = (
      await sql<{ newest: number }>`select seq as newest from house_counters where house_id = ${house.id}`.execute(one.database.kysely)
    ).rows[0]!;
    for (const ear of ears) {
      const begun = Number(ear.begun[0]!.split(' ')[1]);
      await until(async () => begun === newest || ear.heard.at(-1)?.seq === newest);
      expect(ear.heard.map(({ seq }) => seq)).toEqual(Array.from({ length: newest - begun }, (_, at) => begun + 1 + at));
      ear.stop();
    }
  });

  it('never shows a number before a smaller one has committed', async () => {
    const house = await openHouse(one, [{ visit: 'V1' }]);
    const ear = await listen(two.base, house.clerk);
    const [entry] = await entriesOf(house.clerk, house.visits);
    // A transaction takes its number and stays open; a second one must wait for it and cannot overtake.
    let release!: () => void;
    const held = new Promise<void>((resolve) => (release = resolve));
    let has!: () => void;
    const hasNumber = new Promise<void>((resolve) => (has = resolve));
    const taken = one.database.transaction(async (trx) => {
      await sql`with taken as (update house_counters set seq = seq + 1 where house_id = ${house.id} returning seq) insert into changes (house_id, seq, audience, body) select ${house.id}, seq, 'everyone', '{"kind":"build","version":1}' from taken`.execute(
        trx,
      );
      has();
      await held;
    });
    await hasNumber;
    const second = house.clerk.call('PATCH', `/registers/${house.visits.id}/entries/${entry!.id}`, {
      field: 'visit',
      text: 'V2',
      version: 1,
    });
    const overtook = await Promise.race([second.then(() => true), new Promise<boolean>((resolve) => setTimeout(resolve, 300, false))]);
    expect([overtook, ear.heard.length]).toEqual([false, 0]);
    release();
    await Promise.all([taken, second]);
    await until(async () => ear.heard.length === 2);
    expect(kinds(ear)).toEqual(['build', 'cells']);
    expect(ear.heard[1]!.seq).toBe(ear.heard[0]!.seq + 1);
    ear.stop();
  });

  it('ends for whoever is signed out', async () => {
    const house = await openHouse(one, []);
    const stopped = fetch(`${two.base}/api/v1/live`, { headers: { cookie: await house.clerk.signedIn() } }).then((response) =>
      response.text(),
    );
    const people = await house.administrator.get<{ id: string; role: string }[]>('/people');
    await until(async () => {
      await house.administrator.call('DELETE', `/people/${people.find(({ role }) => role === 'clerk')!.id}/sessions`);
      return Promise.race([stopped.then(() => true), new Promise<boolean>((resolve) => setTimeout(resolve, 50, false))]);
    });
  });
});
