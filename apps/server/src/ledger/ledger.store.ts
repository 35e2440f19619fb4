// The append-only record of who changed what when. Written in the transaction of the change itself.
import { Injectable } from '@nestjs/common';
import { sql } from 'kysely';
import type { LedgerDetail } from '../database/tables.js';
import { amongIds } from '../database/among.js';
import type { Reader, Trx } from '../database/database.js';
import type { Caller } from '../access/access.js';

export interface LedgerRow {
  /** Nobody for what the house does by itself. */
  readonly personId: string | null;
  readonly act: string;
  readonly registerId?: string;
  readonly entryId?: string;
  readonly field?: string;
  readonly entryVersion?: number;
  readonly from?: string;
  readonly to?: string;
  /** Of what was written into several fields at once: what each held and what it holds, null for blank; instead of field, from and to. */
  readonly fields?: Readonly<Record<string, readonly [string | null, string | null]>>;
  readonly detail?: LedgerDetail;
  /** The act on a block that this belongs to. */
  readonly actId?: number | undefined;
}

/** A row of the ledger, as taking back an act reads it. */
export interface LedgerOfAct {
  readonly entryId: string;
  readonly act: string;
  readonly field: string | null;
  readonly from: string | null;
  readonly to: string | null;
  readonly detail: LedgerDetail | null;
}

@Injectable()
export class LedgerStore {
  async write(trx: Trx, houseId: string, rows: readonly LedgerRow[]): Promise<void> {
    if (rows.length > 0) await this.writing(houseId, rows).execute(trx);
  }

  /** What writes rows, as a statement or a part of one. One document for all rows: thousands of them cost one round trip. */
  writing = (houseId: string, rows: readonly LedgerRow[]) => sql`
      insert into ledger (house_id, person_id, act, register_id, entry_id, field_key, entry_version, from_value, to_value, detail, act_id, fields)
      select ${houseId}, "personId", act, "registerId", "entryId", field, "entryVersion", "from", "to", detail, "actId", fields
      from jsonb_to_recordset(${JSON.stringify(rows)}::jsonb) as row("personId" uuid, act text, "registerId" uuid, "entryId" uuid, field text,
        "entryVersion" int, "from" text, "to" text, detail jsonb, "actId" bigint, fields jsonb)`;

  /** What the person wrote into some cells, each at the version that the entry had after it. */
  async writtenBy(
    db: Reader,
    { houseId, id: personId }: Pick<Caller, 'houseId' | 'id'>,
    registerId: string,
    cells: readonly { entry: string; field: string; version: number }[],
  ): Promise<{ entryId: string; field: string; from: string | null; to: string | null }[]> {
    const { rows } = await sql<{ entryId: string; field: string; from: string | null; to: string | null }>`
      select line.entry_id as "entryId", line.field_key as field, line.from_value as "from", line.to_value as "to"
      from jsonb_to_recordset(${JSON.stringify(cells)}::jsonb) as asked(entry uuid, field text, version int)
      join ledger_lines as line on line.house_id = ${houseId} and line.entry_id = asked.entry and line.field_key = asked.field and line.entry_version = asked.version
      where line.register_id = ${registerId} and line.person_id = ${personId} and line.act = 'cell.written'`.execute(db);
    return rows;
  }

  /** Those of the entries of which somebody has made the last change, within so many minutes. */
  async changedLastBy(
    db: Reader,
    houseId: string,
    registerId: string,
    entryIds: readonly string[],
    personId: string | null,
    minutes: number,
  ): Promise<ReadonlySet<string>> {
    const { rows } = await sql<{ entryId: string }>`
      select asked.id as "entryId" from unnest(${[...entryIds]}::uuid[]) as asked(id)
      cross join lateral (
        select person_id, at from ledger
        where house_id = ${houseId} and register_id = ${registerId} and entry_id = asked.id and act in ('cell.written', 'entry.inserted', 'entry.restored')
        order by ledger.id desc limit 1) as last
      where last.person_id = ${personId} and last.at > now() - ${minutes} * interval '1 minute'`.execute(db);
    return new Set(rows.map(({ entryId }) => entryId));
  }

  /** What entries held when the person deleted them last. */
  async deletedBy(
    db: Reader,
    { houseId, id: personId }: Pick<Caller, 'houseId' | 'id'>,
    registerId: string,
    entryIds: readonly string[],
  ): Promise<Map<string, LedgerDetail>> {
    if (entryIds.length === 0) return new Map();
    const rows = await db
      .selectFrom('ledger')
      .select(['entry_id', 'detail'])
      .where('house_id', '=', houseId)
      .where('register_id', '=', registerId)
      .where('person_id', '=', personId)
      .where('act', '=', 'entry.deleted')
      .where('entry_id', '=', amongIds(entryIds))
      .orderBy('id')
      .execute();
    return new Map(rows.flatMap(({ entry_id, detail }) => (entry_id && detail ? [[entry_id, detail] as const] : [])));
  }

  /** What an act on a block did to some entries, in the order in which it was done. */
  async ofAct(db: Reader, houseId: string, actId: number, entryIds: readonly string[]): Promise<LedgerOfAct[]> {
    const { rows } = await sql<LedgerOfAct>`
      select entry_id as "entryId", act, field_key as field, from_value as "from", to_value as "to", detail from ledger_lines
      where house_id = ${houseId} and act_id = ${actId} and entry_id = any(${entryIds}::uuid[]) order by id`.execute(db);
    return rows;
  }

  /** Who last changed a field of an entry after the given version, and when; undefined when nobody did. */
  lastChange(db: Reader, houseId: string, entryId: string, field: string, afterVersion: number) {
    return db
      .selectFrom('ledger_lines as line')
      .leftJoin('people', (join) => join.onRef('people.house_id', '=', 'line.house_id').onRef('people.id', '=', 'line.person_id'))
      .select(['people.name as by', 'line.at'])
      .where('line.house_id', '=', houseId)
      .where('line.entry_id', '=', entryId)
      .where('line.field_key', '=', field)
      .where('line.entry_version', '>', afterVersion)
      .orderBy('line.id', 'desc')
      .limit(1)
      .executeTakeFirst();
  }
}
