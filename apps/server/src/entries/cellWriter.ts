// The hot path of a clerk's edit: entry, value counts, ledger row and change row in one statement, one round trip.
import { Injectable } from '@nestjs/common';
import type { Cells } from '@dellum/core';
import type { Change, EntryView } from '@dellum/contract';
import { sql } from 'kysely';
import type { FieldBuild, RegisterBuild } from '../build/build.store.js';
import { deltasOf } from '../counts/counts.js';
import type { Trx } from '../database/database.js';
import { liveChannel } from '../live/changes.js';
import type { Caller } from '../people/guard.js';

@Injectable()
export class CellWriter {
  /**
   * Stores one changed cell. `before` is the entry as everybody sees it, locked by this transaction. Raw SQL, since
   * five statements in a row cost a third of the writes a second (bench `entry.write`); all values are bound.
   */
  async write(trx: Trx, caller: Caller, register: RegisterBuild, field: FieldBuild, before: EntryView, after: Cells): Promise<void> {
    const version = before.version + 1;
    const deltas = deltasOf(before.cells, after, new Map([[field.key, field.id]]));
    const body: Change = { kind: 'cells', registerId: register.id, entryId: before.id, version, cells: { [field.key]: after[field.key] ?? null }, by: caller.id };
    await sql`
      with written as (
        update entries set cells = ${JSON.stringify(after)}::jsonb, version = ${version}
        where house_id = ${caller.houseId} and register_id = ${register.id} and id = ${before.id}
      ), counted as (
        insert into value_deltas (house_id, field_id, value, entries)
        select ${caller.houseId}, "fieldId", value, entries
        from jsonb_to_recordset(${JSON.stringify(deltas)}::jsonb) as delta("fieldId" uuid, value text, entries bigint)
      ), recorded as (
        insert into ledger (house_id, person_id, act, register_id, entry_id, field_key, entry_version, from_value, to_value)
        values (${caller.houseId}, ${caller.id}, 'cell.written', ${register.id}, ${before.id}, ${field.key}, ${version},
          ${before.cells[field.key] ?? null}, ${after[field.key] ?? null})
      ), taken as (
        update house_counters set seq = seq + 1 where house_id = ${caller.houseId} returning seq
      ), told as (
        insert into changes (house_id, seq, audience, body)
        select ${caller.houseId}, seq, 'everyone', ${JSON.stringify(body)}::jsonb from taken
      )
      select pg_notify(${liveChannel}, ${caller.houseId} || ':' || seq) from taken`.execute(trx);
  }
}
