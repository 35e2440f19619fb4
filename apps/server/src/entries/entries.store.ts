// Queries for entries: one row an entry, its cells in a JSONB object keyed by field.
import { Injectable } from '@nestjs/common';
import type { Cells } from '@dellum/core';
import type { EntryView } from '@dellum/contract';
import { sql } from 'kysely';
import type { Reader, Trx } from '../database/database.js';
import { PlacesStore } from './places.store.js';

interface Place {
  readonly houseId: string;
  readonly registerId: string;
}
/** Only entries that hold one of these combinations in some fields together; null for a blank. */
export type HoldsOneOf = readonly { readonly keys: readonly string[]; readonly holdings: readonly (readonly (string | null)[])[] }[];

/** One field compares with a list of values; several together with a list of combinations. */
function holdsIn({ keys, holdings }: HoldsOneOf[number]) {
  const [key, ...more] = keys;
  if (more.length === 0) {
    const values = holdings.flatMap(([value]) => value ?? []);
    const blank = values.length < holdings.length;
    return blank ? sql`(not cells ? ${key!} or cells ->> ${key!} = any(${values}::text[]))` : sql`cells ->> ${key!} = any(${values}::text[])`;
  }
  const own = sql`jsonb_build_array(${sql.join(keys.map((one) => sql`cells ->> ${one}`))})`;
  return sql`${own} in (select jsonb_array_elements(${JSON.stringify(holdings)}::jsonb))`;
}

@Injectable()
export class EntriesStore {
  constructor(private readonly places: PlacesStore) {}

  /** Entries from an ordinal on, found through the chunk counts: the cost does not grow with the ordinal. */
  async page(db: Reader, place: Place, from: number, count: number): Promise<EntryView[]> {
    const chunk = await this.places.chunkAt(db, place, from);
    if (!chunk) return [];
    return db
      .selectFrom('entries')
      .select(['id', 'version', 'cells'])
      .where('house_id', '=', place.houseId)
      .where('register_id', '=', place.registerId)
      .where('pos', '>=', chunk.fromPos)
      .orderBy('pos')
      .offset(from - chunk.before)
      .limit(count)
      .execute();
  }

  async all(db: Reader, place: Place): Promise<EntryView[]> {
    return this.inOrder(db, place).execute();
  }

  /** All entries of some registers, each register in its order. */
  async allOf(db: Reader, houseId: string, registerIds: readonly string[]): Promise<(Pick<EntryView, 'id' | 'cells'> & { registerId: string })[]> {
    if (registerIds.length === 0) return [];
    return db.selectFrom('entries').select(['register_id as registerId', 'id', 'cells']).where('house_id', '=', houseId).where('register_id', 'in', registerIds).orderBy('register_id').orderBy('pos').execute();
  }

  private inOrder(db: Reader, { houseId, registerId }: Place) {
    return db.selectFrom('entries').select(['id', 'version', 'cells']).where('house_id', '=', houseId).where('register_id', '=', registerId).orderBy('pos');
  }

  async pageOfHolding(db: Reader, place: Place, holds: HoldsOneOf, from: number, count: number): Promise<{ total: number; entries: EntryView[] }> {
    const some = holds.filter(({ holdings }) => holdings.length > 0);
    if (some.length === 0) return { total: 0, entries: [] };
    const condition = sql<boolean>`(${sql.join(some.map(holdsIn), sql` or `)})`;
    const { total } = await db
      .selectFrom('entries')
      .select((eb) => eb.fn.countAll<number>().as('total'))
      .where('house_id', '=', place.houseId)
      .where('register_id', '=', place.registerId)
      .where(condition)
      .executeTakeFirstOrThrow();
    return { total, entries: await this.inOrder(db, place).where(condition).offset(from).limit(count).execute() };
  }

  /** The entry right above another one, or the last of the register. */
  async above(db: Reader, { houseId, registerId }: Place, before: string | undefined): Promise<{ cells: Cells } | undefined> {
    return db
      .selectFrom('entries')
      .select('cells')
      .where('house_id', '=', houseId)
      .where('register_id', '=', registerId)
      .$if(before !== undefined, (query) => query.where('pos', '<', (eb) => eb.selectFrom('entries as below').select('below.pos').where('below.house_id', '=', houseId).where('below.register_id', '=', registerId).where('below.id', '=', before!)))
      .orderBy('pos', 'desc')
      .limit(1)
      .executeTakeFirst();
  }

  /** Locks entries for writing, in the order of their ids. */
  async lock(trx: Trx, { houseId, registerId }: Place, ids: readonly string[]): Promise<EntryView[]> {
    return trx
      .selectFrom('entries')
      .select(['id', 'version', 'cells'])
      .where('house_id', '=', houseId)
      .where('register_id', '=', registerId)
      .where('id', 'in', [...ids])
      .orderBy('id')
      .forUpdate()
      .execute();
  }

  /** One entry and the version of the build beside it: what an edit is judged by, in one round trip. */
  async withBuild(db: Reader, { houseId, registerId }: Place, id: string): Promise<{ entry: EntryView; build: number } | undefined> {
    const row = await db
      .selectFrom('entries')
      .innerJoin('houses', 'houses.id', 'entries.house_id')
      .select(['entries.id', 'entries.version', 'entries.cells', 'houses.build'])
      .where('entries.house_id', '=', houseId)
      .where('entries.register_id', '=', registerId)
      .where('entries.id', '=', id)
      .executeTakeFirst();
    return row && { entry: { id: row.id, version: row.version, cells: row.cells }, build: row.build };
  }

  async write(trx: Trx, { houseId, registerId }: Place, entries: readonly { id: string; cells: Cells }[]): Promise<void> {
    if (entries.length === 0) return;
    await sql`
      update entries set cells = written.cells, version = version + 1
      from jsonb_to_recordset(${JSON.stringify(entries)}::jsonb) as written(id uuid, cells jsonb)
      where entries.house_id = ${houseId} and entries.register_id = ${registerId} and entries.id = written.id`.execute(trx);
  }

  /** Puts new entries above `before` (undefined: at the end). The order of the register must be locked. */
  async insert(trx: Trx, place: Place, before: string | undefined, entries: readonly { id: string; cells: Cells }[]): Promise<void> {
    if (entries.length === 0) return;
    const positions = await this.places.room(trx, place, before, entries.length);
    const rows = entries.map(({ id, cells }, at) => ({ id, cells, pos: positions[at]!.toString() }));
    await sql`
      insert into entries (house_id, register_id, id, pos, cells)
      select ${place.houseId}, ${place.registerId}, id, pos::bigint, cells
      from jsonb_to_recordset(${JSON.stringify(rows)}::jsonb) as row(id uuid, pos text, cells jsonb)`.execute(trx);
    await this.places.countIn(trx, place, positions, 1);
  }

  /** Deletes entries; returns what they held. */
  async remove(trx: Trx, place: Place, ids: readonly string[]): Promise<{ id: string; cells: Cells }[]> {
    const gone = await trx
      .deleteFrom('entries')
      .where('house_id', '=', place.houseId)
      .where('register_id', '=', place.registerId)
      .where('id', 'in', [...ids])
      .returning(['id', 'cells', 'pos'])
      .execute();
    await this.places.countIn(trx, place, gone.map(({ pos }) => pos), -1);
    return gone;
  }

  /** Takes a deleted field out of every entry. */
  async dropField(trx: Trx, { houseId, registerId }: Place, key: string): Promise<void> {
    await sql`
      update entries set cells = cells - ${key}::text, version = version + 1
      where house_id = ${houseId} and register_id = ${registerId} and cells ? ${key}`.execute(trx);
  }
}
