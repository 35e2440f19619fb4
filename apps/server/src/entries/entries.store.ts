// Queries for entries: one row an entry, its cells in a JSONB object keyed by field.
import { Injectable } from '@nestjs/common';
import type { Cells, Held } from '@dellum/core';
import type { EntryView } from '@dellum/contract';
import { sql } from 'kysely';
import { amongIds } from '../database/among.js';
import type { Reader, Trx } from '../database/database.js';
import { holdsOneOf, type HoldsOneOf } from './holds.js';
import { PlacesStore } from './places.store.js';

export interface Place {
  readonly houseId: string;
  readonly registerId: string;
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

  /**
   * Entries from an ordinal on as the JSON of packed entries, what they hold in some fields. The database writes it: a list of 100,000 is
   * never made into objects here.
   */
  async packed(db: Reader, place: Place, keys: readonly string[], from: number, count: number): Promise<string> {
    const chunk = await this.places.chunkAt(db, place, from);
    if (!chunk) return '';
    const texts = keys.map((key) => sql`|| ',' || coalesce((cells -> ${key})::text, 'null')`);
    const { rows } = await sql<{ entries: string | null }>`
      select string_agg(entry, ',' order by pos) as entries from (
        select pos, '["' || id || '",' || version ${sql.join(texts, sql` `)} || ']' as entry from entries
        where house_id = ${place.houseId} and register_id = ${place.registerId} and pos >= ${chunk.fromPos}
        order by pos offset ${from - chunk.before} limit ${count}
      ) as packed`.execute(db);
    return rows[0]!.entries ?? '';
  }

  /**
   * The distinct combinations of some fields, each with how many entries hold it; only of entries that hold something in one of `filled`,
   * or all of them. Costs a look at every entry.
   */
  async combinations(db: Reader, { houseId, registerId }: Place, keys: readonly string[], filled?: readonly string[]): Promise<Held[]> {
    const texts = sql.join(keys.map((key) => sql`cells ->> ${key}`));
    const { rows } = await sql<{ texts: (string | null)[]; entries: number }>`
      select array[${texts}] as texts, count(*) as entries from entries
      where house_id = ${houseId} and register_id = ${registerId} and ${filled === undefined ? sql`true` : sql`cells ?| ${[...filled]}::text[]`} group by 1`.execute(
      db,
    );
    return rows.map((row) => ({
      cells: Object.fromEntries(keys.flatMap((key, at) => (row.texts[at] === null ? [] : [[key, row.texts[at]!]]))),
      entries: row.entries,
    }));
  }

  async all(db: Reader, place: Place): Promise<EntryView[]> {
    return this.inOrder(db, place).execute();
  }

  /** All entries of some registers, each register in its order. */
  async allOf(
    db: Reader,
    houseId: string,
    registerIds: readonly string[],
  ): Promise<(Pick<EntryView, 'id' | 'cells'> & { registerId: string })[]> {
    if (registerIds.length === 0) return [];
    return db
      .selectFrom('entries')
      .select(['register_id as registerId', 'id', 'cells'])
      .where('house_id', '=', houseId)
      .where('register_id', 'in', registerIds)
      .orderBy('register_id')
      .orderBy('pos')
      .execute();
  }

  /** All entries of a register in their order, so many at a time: whoever reads them holds no more. */
  async *inPages(db: Reader, { houseId, registerId }: Place, count: number): AsyncIterable<readonly Pick<EntryView, 'id' | 'cells'>[]> {
    let after: string | undefined;
    do {
      const rows = await db
        .selectFrom('entries')
        .select(['id', 'cells', 'pos'])
        .where('house_id', '=', houseId)
        .where('register_id', '=', registerId)
        .$if(after !== undefined, (query) => query.where('pos', '>', after!))
        .orderBy('pos')
        .limit(count)
        .execute();
      if (rows.length > 0) yield rows;
      after = rows.length < count ? undefined : rows.at(-1)!.pos;
    } while (after !== undefined);
  }

  private inOrder(db: Reader, { houseId, registerId }: Place) {
    return db
      .selectFrom('entries')
      .select(['id', 'version', 'cells'])
      .where('house_id', '=', houseId)
      .where('register_id', '=', registerId)
      .orderBy('pos');
  }

  async pageOfHolding(
    db: Reader,
    place: Place,
    holds: HoldsOneOf,
    from: number,
    count: number,
  ): Promise<{ total: number; entries: EntryView[] }> {
    const condition = holdsOneOf(holds);
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
      .$if(before !== undefined, (query) =>
        query.where('pos', '<', (eb) =>
          eb
            .selectFrom('entries as below')
            .select('below.pos')
            .where('below.house_id', '=', houseId)
            .where('below.register_id', '=', registerId)
            .where('below.id', '=', before!),
        ),
      )
      .orderBy('pos', 'desc')
      .limit(1)
      .executeTakeFirst();
  }

  /** Some entries, by id. */
  async some(db: Reader, { houseId, registerId }: Place, ids: readonly string[]): Promise<Map<string, EntryView>> {
    if (ids.length === 0) return new Map();
    const rows = await db
      .selectFrom('entries')
      .select(['id', 'version', 'cells'])
      .where('house_id', '=', houseId)
      .where('register_id', '=', registerId)
      .where('id', '=', amongIds(ids))
      .execute();
    return new Map(rows.map((row) => [row.id, row]));
  }

  /** Locks entries for writing, in the order of their ids. */
  async lock(trx: Trx, { houseId, registerId }: Place, ids: readonly string[]): Promise<EntryView[]> {
    return trx
      .selectFrom('entries')
      .select(['id', 'version', 'cells'])
      .where('house_id', '=', houseId)
      .where('register_id', '=', registerId)
      .where('id', '=', amongIds(ids))
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

  /** Writes cells; returns the version that each entry has now. */
  async write(trx: Trx, place: Place, entries: readonly { id: string; cells: Cells }[]): Promise<ReadonlyMap<string, number>> {
    if (entries.length === 0) return new Map();
    const { rows } = await this.writing(place, entries).execute(trx);
    return new Map(rows.map(({ id, version }) => [id, version]));
  }

  /** What writes cells, as a statement or a part of one. */
  writing = ({ houseId, registerId }: Place, entries: readonly { id: string; cells: Cells }[]) => sql<{ id: string; version: number }>`
    update entries set cells = written.cells, version = version + 1
    from jsonb_to_recordset(${JSON.stringify(entries)}::jsonb) as written(id uuid, cells jsonb)
    where entries.house_id = ${houseId} and entries.register_id = ${registerId} and entries.id = written.id
    returning entries.id, version`;

  /** Puts new entries above `before` (undefined: at the end); `again`: they were there before. The order of the register must be locked. */
  async insert(
    trx: Trx,
    place: Place,
    before: string | undefined,
    entries: readonly { id: string; cells: Cells }[],
    again = false,
  ): Promise<void> {
    if (entries.length === 0) return;
    const positions = await this.places.room(trx, place, before, entries.length);
    const rows = entries.map(({ id, cells }, at) => ({ id, cells, pos: positions[at]!.toString() }));
    await this.put(trx, place, rows, again);
    await this.places.countIn(trx, place, positions, 1);
  }

  /** Entries that were there before go on with their versions: the ledger knows them by those. */
  private async put(trx: Trx, place: Place, rows: readonly { id: string; pos: string; cells: Cells }[], again: boolean): Promise<void> {
    const version = again
      ? sql`coalesce((select max(entry_version) from ledger where ledger.house_id = ${place.houseId} and ledger.entry_id = row.id), 0) + 1`
      : sql`1`;
    await sql`
      insert into entries (house_id, register_id, id, pos, cells, version)
      select ${place.houseId}, ${place.registerId}, id, pos::bigint, cells, ${version}
      from jsonb_to_recordset(${JSON.stringify(rows)}::jsonb) as row(id uuid, pos text, cells jsonb)`.execute(trx);
  }

  /** Deletes entries; returns what they held. */
  async remove(trx: Trx, place: Place, ids: readonly string[]): Promise<(EntryView & { readonly pos: string })[]> {
    if (ids.length === 0) return [];
    const gone = await trx
      .deleteFrom('entries')
      .where('house_id', '=', place.houseId)
      .where('register_id', '=', place.registerId)
      .where('id', '=', amongIds(ids))
      .returning(['id', 'version', 'cells', 'pos'])
      .execute();
    await this.places.countIn(
      trx,
      place,
      gone.map(({ pos }) => pos),
      -1,
    );
    return gone.map(({ pos, ...entry }) => ({ ...entry, pos: String(pos) }));
  }

  /** Brings back entries at the positions at which they stood. The order of the register must be locked. */
  async putBack(trx: Trx, place: Place, entries: readonly { id: string; pos: string; cells: Cells }[]): Promise<void> {
    if (entries.length === 0) return;
    await this.put(trx, place, entries, true);
    await this.places.countIn(
      trx,
      place,
      entries.map(({ pos }) => pos),
      1,
    );
  }

  /**
   * The ids from one entry to another, both included, as the register keeps them; an end left out is open. None where an end is not there.
   * `most`: no more than the first so many.
   */
  async between(db: Reader, place: Place, first: string | undefined, last: string | undefined, most?: number): Promise<string[]> {
    const { houseId, registerId } = place;
    const { rows } = await sql<{ id: string }>`
      select id from entries where house_id = ${houseId} and register_id = ${registerId} and ${betweenPos(place, first, last)}
      order by pos limit ${most ?? null}::bigint`.execute(db);
    return rows.map(({ id }) => id);
  }

  /** The ids of all entries in their order, as an expression: there may be a million, which need not leave the database. */
  allIds = ({ houseId, registerId }: Place) =>
    sql<string[]>`array(select id from entries where house_id = ${houseId} and register_id = ${registerId} order by pos)`;

  /** Writes other values for some values of a field, in every entry that holds them. */
  async respell(trx: Trx, { houseId, registerId }: Place, key: string, values: readonly { from: string; to: string }[]): Promise<void> {
    if (values.length === 0) return;
    await sql`
      update entries set cells = jsonb_set(cells, array[${key}::text], to_jsonb(respelled.value)), version = version + 1
      from unnest(${values.map(({ from }) => from)}::text[], ${values.map(({ to }) => to)}::text[]) as respelled(held, value)
      where house_id = ${houseId} and register_id = ${registerId} and cells ->> ${key} = respelled.held`.execute(trx);
  }

  /** Takes a deleted field out of every entry. */
  async dropField(trx: Trx, { houseId, registerId }: Place, key: string): Promise<void> {
    await sql`
      update entries set cells = cells - ${key}::text, version = version + 1
      where house_id = ${houseId} and register_id = ${registerId} and cells ? ${key}`.execute(trx);
  }
}

/** True for entries that stand between two, both included, whichever of them comes first; an end left out is open. */
export function betweenPos({ houseId, registerId }: Place, first: string | undefined, last: string | undefined) {
  const pos = (id: string) => sql`(select pos from entries where house_id = ${houseId} and register_id = ${registerId} and id = ${id})`;
  if (first !== undefined && last !== undefined) return sql<boolean>`pos between symmetric ${pos(first)} and ${pos(last)}`;
  if (first !== undefined) return sql<boolean>`pos >= ${pos(first)}`;
  return last === undefined ? sql<boolean>`true` : sql<boolean>`pos <= ${pos(last)}`;
}
