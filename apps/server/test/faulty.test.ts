// What nobody should have stored: a definition that cannot be read makes its catalog faulty, and never the house.
import { canBeRead, type CatalogDefinition } from '@dellum/core';
import type { BuildView, CatalogItems, EditOutcome } from '@dellum/contract';
import fc from 'fast-check';
import { sql } from 'kysely';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { ruleDto } from './entrySheet.js';
import { entriesOf, openHouse, startServer, type Running } from './house.js';

let running: Running;
beforeAll(async () => {
  running = await startServer();
});
afterAll(() => running.close());

const whole: CatalogDefinition = {
  parts: [
    { kind: 'typed', join: 'or', values: ['a'] },
    {
      kind: 'query',
      join: 'and',
      registerId: 'r',
      value: 'v',
      label: null,
      companions: ['c'],
      filter: { all: true, conditions: [{ field: 'f', is: 'is', value: 'x' }] },
    },
    { kind: 'keyed', join: 'without', catalogId: 'c', by: null, registerId: 'r', key: 'k', value: 'v', label: 'l', companions: [] },
  ],
  filter: null,
  distinct: 'value',
  order: { by: 'kept' },
};

describe('a definition', () => {
  it('is read when each member is what it must be, and not when one of them is not', () => {
    expect(canBeRead(whole)).toBe(true);
    const places: (readonly (string | number)[])[] = [
      ['parts'], ['parts', 0], ['parts', 0, 'kind'], ['parts', 0, 'join'], ['parts', 0, 'values'], ['parts', 1, 'registerId'], ['parts', 1, 'companions'],
      ['parts', 1, 'filter', 'conditions'], ['parts', 1, 'filter', 'conditions', 0, 'is'], ['parts', 2, 'key'], ['filter'], ['distinct'], ['order'], ['order', 'by'],
    ]; // prettier-ignore
    const put = (value: unknown, [first, ...rest]: readonly (string | number)[], instead: unknown): unknown => {
      if (first === undefined) return instead;
      const copy = (Array.isArray(value) ? [...(value as unknown[])] : { ...(value as object) }) as Record<string | number, unknown>;
      copy[first] = put(copy[first], rest, instead);
      return copy;
    };
    for (const place of [['parts', 0, 'kind'], ['parts', 0, 'join'], ['distinct'], ['order', 'by']])
      expect(canBeRead(put(whole, place, 'constructor'))).toBe(false);
    fc.assert(
      fc.property(fc.constantFrom(...places), fc.constantFrom<unknown>(undefined, 7, [[]], [null], { kind: 'typed' }), (place, instead) => {
        expect(canBeRead(put(whole, place, instead))).toBe(false);
      }),
    );
  });
  it.each(['{"parts": [[]]}', '[]', '"x"', '{}', '{"parts": null, "filter": null, "distinct": "value", "order": {"by": "kept"}}'])(
    'kept as %s makes its catalog faulty: the house goes on, Upkeep says so, and it is composed anew or deleted',
    async (kept) => {
      const house = await openHouse(running, [{ visit: 'V1', pilot: 'Tam Ossel' }]);
      const { administrator, clerk } = house;
      await running.database.transaction(async (trx) => {
        await sql`update catalogs set definition = ${kept}::jsonb, version = version + 1 where house_id = ${house.id}`.execute(trx);
        await sql`update houses set build = build + 1 where id = ${house.id}`.execute(trx);
      });
      const build = await administrator.get<BuildView>('/build');
      expect(build.catalogs[0]).toMatchObject({ faulty: true, definition: { parts: [] } });
      expect((await administrator.get<CatalogItems>(`/catalogs/${house.catalog.id}/items`)).items).toEqual([]);
      expect(await administrator.get('/upkeep')).toMatchObject({ faulty: [{ catalogId: house.catalog.id, title: 'Pilots' }] });
      const [entry] = await entriesOf(clerk, house.visits);
      const edit = (field: string, text: string, version: number) =>
        clerk.call<EditOutcome>('PATCH', `/registers/${house.visits.id}/entries/${entry!.id}`, { field, text, version });
      expect((await edit('visit', 'V2', 1)).status).toBe(200);
      expect((await edit('pilot', 'Rook Tansy', 2)).status).toBe(422);
      const anew = await administrator.call('PUT', `/catalogs/${house.catalog.id}/definition`, {
        ...whole,
        parts: [{ kind: 'typed', join: 'or', values: ['Rook Tansy', 'Tam Ossel'] }],
      });
      expect(anew.status).toBe(200);
      expect((await edit('pilot', 'Rook Tansy', 2)).status).toBe(200);
      expect((await administrator.call('PUT', `/fields/${house.pilotField.id}/rule`, ruleDto({ kind: 'plain' }))).status).toBe(204);
      expect((await administrator.call('DELETE', `/catalogs/${house.catalog.id}`)).status).toBe(204);
    },
  );
});
