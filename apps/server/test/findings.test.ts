// What is wrong with sources, found for the Ranges page and for Upkeep, also where lists are long.
import { setTimeout as after } from 'node:timers/promises';
import { loadHouse } from '@dellum/demo';
import { OncePerVersion } from '@dellum/server';
import type { BuildView, RangeLine, Upkeep } from '@dellum/contract';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { AnnouncerService } from '../src/changes/announcer.service.js';
import { ChangesStore } from '../src/changes/changes.store.js';
import { KeptFindingsService } from '../src/compiled/keptFindings.service.js';
import { KeptFindingsStore } from '../src/compiled/keptFindings.store.js';
import { Database } from '../src/database/database.js';
import { smallHouse, startServer, until, Visitor, type Running } from './house.js';

let running: Running;
beforeAll(async () => void (running = await startServer()));
afterAll(() => running.close());

/** A house with some lists of so many parts each; the last of the first list looks like another of it. */
async function houseOfLists(lists: number, rows: number): Promise<Visitor> {
  const parts = (list: number) => Array.from({ length: rows }, (_, at) => `Part ${list} no ${at}`);
  const blueprint = smallHouse([]);
  await loadHouse(running.database.kysely, {
    ...blueprint,
    sourceSheets: [
      ...blueprint.sourceSheets,
      {
        title: 'Parts',
        note: '',
        lists: Array.from({ length: lists }, (_, list) => ({
          heading: `Parts ${list}`,
          texts: list === 0 ? [...parts(0).slice(1), 'Gudgeon pin', 'Gudgeon  pim'] : parts(list),
          ranges: [{ name: `Parts${list}`, from: 0, ends: 'last' as const }],
        })),
      },
    ],
  });
  return new Visitor(running.base, { house: blueprint.key, role: 'administrator' });
}

describe('What is wrong with long lists', () => {
  it('is found in a thread of its own as it is found in short ones, and two values that are two things are told apart', async () => {
    for (const rows of [20, 4000]) {
      const administrator = await houseOfLists(1, rows);
      const lookOf = async () => (await administrator.get<RangeLine[]>('/ranges')).find(({ taken }) => taken === rows + 1)!;
      const build = await administrator.get<BuildView>('/build');
      expect((await lookOf()).findings.map(({ kind, words }) => [kind, words])).toEqual([
        ['outer blanks', '1 cell has blanks that nobody sees, at an end or doubled. They are read without them.'],
        ['unused', 'Nothing uses the name Parts0: it feeds no catalog.'],
        ['look-alike', '“Gudgeon pim” looks like “Gudgeon pin”.'],
      ]);
      await administrator.call('POST', '/upkeep/told-apart', { one: 'Gudgeon pin', other: 'Gudgeon pim' });
      expect((await lookOf()).findings.map(({ kind }) => kind)).toEqual(['outer blanks', 'unused']);
      expect((await administrator.get<BuildView>('/build')).version).toBeGreaterThan(build.version);
    }
  });

  it('is looked for while everybody else is answered', async () => {
    const administrator = await houseOfLists(5, 12_000);
    await administrator.get('/build');
    const begun = performance.now();
    let found = false;
    const finding = Promise.all([administrator.get<RangeLine[]>('/ranges'), administrator.get<Upkeep>('/upkeep')]).then(([lines]) => {
      found = true;
      return lines;
    });
    let longest = 0;
    while (!found) {
      const asked = performance.now();
      await administrator.get('/session');
      longest = Math.max(longest, performance.now() - asked);
    }
    expect((await finding).filter(({ taken }) => taken >= 12_000)).toHaveLength(5);
    expect(longest).toBeLessThan((performance.now() - begun) / 3);
  });
});

describe('What is found once a version', () => {
  it('is found by the first who asks, and by the next when that failed', async () => {
    const once = new OncePerVersion<number>();
    let calls = 0;
    const find = () => Promise.resolve(++calls);
    expect(await Promise.all([once.of({ houseId: 'a', version: 1 }, find), once.of({ houseId: 'a', version: 1 }, find)])).toEqual([1, 1]);
    expect(await once.of({ houseId: 'b', version: 1 }, find)).toBe(2);
    await expect(once.of({ houseId: 'a', version: 2 }, () => Promise.reject(new Error('away')))).rejects.toThrow('away');
    expect(await once.of({ houseId: 'a', version: 2 }, find)).toBe(3);
  });
});

describe('What takes long to find', () => {
  let database: Database;
  beforeAll(() => void (database = new Database(running.database.url, 2)));
  afterAll(() => database.kysely.destroy());
  const server = () => new KeptFindingsService(database, new KeptFindingsStore(), new ChangesStore(new AnnouncerService(database)));
  /** Longer than anybody is kept waiting. */
  const long = async (found: string) => {
    await after(1_000);
    return found;
  };
  const never = () => Promise.reject(new Error('It is kept.'));

  it('is said as it was found last while it is found anew, to other servers too, and told when it is there', async () => {
    const blueprint = smallHouse([]);
    await loadHouse(running.database.kysely, blueprint);
    const { id: houseId } = await running.database.kysely
      .selectFrom('houses')
      .select('id')
      .where('key', '=', blueprint.key)
      .executeTakeFirstOrThrow();
    const told = async () => {
      const rows = await running.database.kysely.selectFrom('changes').select('body').where('house_id', '=', houseId).execute();
      return rows.filter(({ body }) => body.kind === 'upkeep').length;
    };
    const one = server();
    // Nothing is known yet: whoever asks waits.
    expect(await one.soon({ houseId, version: 1 }, 'pins', () => long('bent'))).toEqual({ found: 'bent', isCurrent: true });
    expect(await told()).toBe(1);
    // A server that has just started has it without looking.
    expect(await server().soon({ houseId, version: 1 }, 'pins', never)).toEqual({ found: 'bent', isCurrent: true });
    expect(await one.soon({ houseId, version: 2 }, 'pins', () => long('straight'))).toEqual({ found: 'bent', isCurrent: false });
    await until(async () => (await told()) === 2);
    expect(await one.soon({ houseId, version: 2 }, 'pins', never)).toEqual({ found: 'straight', isCurrent: true });
    // A slower server that looked at an older version takes nothing back.
    await server().current({ houseId, version: 1 }, 'pins', () => long('bent'));
    expect(await server().current({ houseId, version: 2 }, 'pins', never)).toBe('straight');
  });

  it('is not kept when it is found at once, and found by the next who asks when it failed', async () => {
    const houseId = (await running.database.kysely.selectFrom('houses').select('id').limit(1).executeTakeFirstOrThrow()).id;
    const one = server();
    await expect(one.soon({ houseId, version: 1 }, 'nuts', () => Promise.reject(new Error('away')))).rejects.toThrow('away');
    expect(await one.soon({ houseId, version: 1 }, 'nuts', () => Promise.resolve('loose'))).toEqual({ found: 'loose', isCurrent: true });
    expect(await server().soon({ houseId, version: 1 }, 'nuts', () => Promise.resolve('tight'))).toEqual({
      found: 'tight',
      isCurrent: true,
    });
  });
});
