// Queries for requests of clerks. A request counts only while its entry still holds the value.
import { Injectable } from '@nestjs/common';
import type { OwnRequest, RequestAtEntry, RequestState } from '@dellum/contract';
import { sql } from 'kysely';
import { amongIds } from '../database/among.js';
import type { Reader, Trx } from '../database/database.js';

/** A request as it is made. */
export interface NewRequest {
  readonly id: string;
  readonly catalogId: string;
  readonly fieldId: string;
  readonly entryId: string;
  readonly path: readonly string[];
  readonly value: string;
}
/** A request that waits, with who made it. */
export interface WaitingRequest extends Omit<NewRequest, 'path'> {
  readonly path: string[];
  readonly by: string;
  readonly at: Date;
  /** What the cell holds: the value, alone or among others. */
  readonly held: string;
}

/** True while a cell still holds the value of its request, alone or among others. */
const stillHeld = sql<boolean>`requests.value = any(string_to_array(cells ->> fields.key, ${'\u001F'}))`;

/** The most of one's own requests that are told. */
const mostOwn = 500;

/** How long a declined request is told at its entry. */
const toldFor = sql`interval '30 days'`;

@Injectable()
export class RequestsStore {
  async add(trx: Trx, houseId: string, personId: string | null, requests: readonly NewRequest[]): Promise<void> {
    if (requests.length === 0) return;
    await sql`
      delete from requests using jsonb_to_recordset(${JSON.stringify(requests)}::jsonb) as request("fieldId" uuid, "entryId" uuid, value text), fields, entries
      where requests.house_id = ${houseId} and requests.field_id = request."fieldId" and requests.entry_id = request."entryId" and state = 'waiting'
        and fields.house_id = requests.house_id and fields.id = requests.field_id
        and entries.house_id = requests.house_id and entries.register_id = fields.register_id and entries.id = requests.entry_id
        and (requests.value = request.value or not ${stillHeld})`.execute(trx);
    await sql`
      insert into requests (house_id, id, catalog_id, field_id, entry_id, path, value, person_id)
      select ${houseId}, id, "catalogId", "fieldId", "entryId", path, value, ${personId}
      from jsonb_to_recordset(${JSON.stringify(requests)}::jsonb) as request(id uuid, "catalogId" uuid, "fieldId" uuid, "entryId" uuid, path jsonb, value text)`.execute(
      trx,
    );
  }

  /** The requests that wait for some catalogs. */
  async waiting(db: Reader, houseId: string, catalogIds: readonly string[]): Promise<WaitingRequest[]> {
    if (catalogIds.length === 0) return [];
    const { rows } = await sql<WaitingRequest>`
      select requests.id, requests.catalog_id as "catalogId", field_id as "fieldId", entry_id as "entryId", path, value, coalesce(people.name, 'somebody without an account') as by, requests.at, cells ->> fields.key as held
      from requests
      left join people on people.house_id = requests.house_id and people.id = requests.person_id
      join fields on fields.house_id = requests.house_id and fields.id = requests.field_id
      join entries on entries.house_id = requests.house_id and entries.register_id = fields.register_id and entries.id = requests.entry_id
      where requests.house_id = ${houseId} and state = 'waiting' and requests.catalog_id = any(${catalogIds}::uuid[]) and ${stillHeld}
      order by requests.at`.execute(db);
    return rows;
  }

  /** What became of the requests of a register's entries that still hold their value: those that wait, and those lately declined. */
  async ofRegister(db: Reader, houseId: string, registerId: string): Promise<RequestAtEntry[]> {
    const { rows } = await sql<RequestAtEntry>`
      select entry_id as "entryId", fields.key as field, requests.value, state, coalesce(word, '') as word, people.name as by
      from requests
      join fields on fields.house_id = requests.house_id and fields.id = requests.field_id and fields.register_id = ${registerId}
      join entries on entries.house_id = requests.house_id and entries.register_id = ${registerId} and entries.id = requests.entry_id
      left join people on people.house_id = requests.house_id and people.id = requests.answered_by
      where requests.house_id = ${houseId} and ${stillHeld}
        and (state = 'waiting' or (state = 'declined' and answered_at > now() - ${toldFor}))
      order by requests.at`.execute(db);
    return rows;
  }

  /** What somebody asked for: what waits at its entry, and what was answered; the newest first. */
  async ofPerson(db: Reader, houseId: string, personId: string): Promise<OwnRequest[]> {
    const { rows } = await sql<Omit<OwnRequest, 'at'> & { at: Date }>`
      select requests.id, fields.register_id as "registerId", entry_id as "entryId", fields.key as field, requests.value, state, answer, coalesce(word, '') as word, people.name as by, requests.at
      from requests
      join fields on fields.house_id = requests.house_id and fields.id = requests.field_id
      left join entries on entries.house_id = requests.house_id and entries.register_id = fields.register_id and entries.id = requests.entry_id
      left join people on people.house_id = requests.house_id and people.id = requests.answered_by
      where requests.house_id = ${houseId} and requests.person_id = ${personId} and (state <> 'waiting' or ${stillHeld})
      order by requests.at desc, requests.id limit ${mostOwn}`.execute(db);
    return rows.map((row) => ({ ...row, at: row.at.toISOString() }));
  }

  async answer(
    trx: Trx,
    houseId: string,
    ids: readonly string[],
    by: string,
    state: RequestState,
    answer: string | null,
    word: string,
  ): Promise<void> {
    await trx
      .updateTable('requests')
      .set({ state, answer, word, answered_by: by, answered_at: new Date() })
      .where('house_id', '=', houseId)
      .where('id', '=', amongIds(ids))
      .execute();
  }
}
