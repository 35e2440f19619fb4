// What is wrong with sources, found for the Ranges page and for Upkeep, also where lists are long.
import { loadHouse } from '@dellum/demo';
import { OncePerVersion } from '@dellum/server';
import type { BuildView, RangeLine, Upkeep } from '@dellum/contract';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { smallHouse, startServer, Visitor, type Running } from './house.js';

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
