// Queries for files that came back.
import { Injectable } from '@nestjs/common';
import {
  downloadKept,
  sentKept,
  type FileColumn,
  type FileHeading,
  type RememberedColumn,
  type ReturnedState,
  type Role,
} from '@dellum/contract';
import { sql, type SqlBool } from 'kysely';
import type { Caller } from '../access/access.js';
import type { Reader, Trx } from '../database/database.js';

export interface ReturnedFile {
  readonly id: number;
  readonly caller: Caller;
  /** The name of the house in addresses. */
  readonly houseKey: string;
  readonly name: string;
  readonly at: Date;
  readonly digest: Buffer;
  readonly registerId: string | null;
  readonly sentId: string | null;
  readonly state: ReturnedState;
  readonly run: number;
  readonly done: number;
  readonly why: string | null;
  readonly said: readonly string[];
  readonly headings: readonly FileHeading[];
  readonly columns: readonly FileColumn[] | null;
  readonly actId: number | null;
}

/** What is known of a file when it has been read. */
export interface ReadOutcome {
  readonly state: 'unreadable' | 'unclear' | 'ready';
  readonly why?: string;
  readonly said?: readonly string[];
  readonly headings?: readonly FileHeading[];
  readonly columns?: readonly FileColumn[] | null;
  readonly registerId?: string | null;
  readonly sentId?: string | null;
}

@Injectable()
export class ReturnedStore {
  async add(db: Reader, caller: Caller, name: string, registerId: string | null): Promise<number> {
    const { id } = await db
      .insertInto('returned_files')
      .values({ house_id: caller.houseId, person_id: caller.id, name, digest: Buffer.alloc(0), bytes: 0, register_id: registerId })
      .returning('id')
      .executeTakeFirstOrThrow();
    return id;
  }

  async addPart(db: Reader, houseId: string, fileId: number, part: number, bytes: Buffer): Promise<void> {
    await db.insertInto('returned_parts').values({ house_id: houseId, file_id: fileId, part, bytes }).execute();
  }

  /** All of it has come. */
  async came(trx: Trx, houseId: string, fileId: number, digest: Buffer, bytes: number): Promise<void> {
    await trx
      .updateTable('returned_files')
      .set({ digest, bytes, state: 'reading' })
      .where('house_id', '=', houseId)
      .where('id', '=', fileId)
      .execute();
  }

  private files(db: Reader, houseId: string) {
    return db
      .selectFrom('returned_files')
      .innerJoin('people', (join) =>
        join.onRef('people.house_id', '=', 'returned_files.house_id').onRef('people.id', '=', 'returned_files.person_id'),
      )
      .innerJoin('houses', 'houses.id', 'returned_files.house_id')
      .select([
        'houses.key as houseKey',
        'returned_files.id',
        'returned_files.name',
        'person_id',
        'people.name as by',
        'people.role',
        'at',
        'digest',
        'register_id',
      ])
      .select(['sent_id', 'state', 'run', 'done', 'why', 'said', 'headings', 'columns', 'act_id'])
      .where('returned_files.house_id', '=', houseId)
      .orderBy('returned_files.id', 'desc');
  }

  async list(db: Reader, houseId: string, personId?: string): Promise<ReturnedFile[]> {
    const rows = await this.files(db, houseId)
      .$if(personId !== undefined, (query) => query.where('person_id', '=', personId!))
      .where('state', '!=', 'coming')
      .limit(200)
      .execute();
    return rows.map((row) => fileOf(houseId, row));
  }

  async one(db: Reader, houseId: string, id: number): Promise<ReturnedFile | undefined> {
    const row = await this.files(db, houseId).where('returned_files.id', '=', id).executeTakeFirst();
    return row && fileOf(houseId, row);
  }

  /** The file, locked while it is changed; undefined when it is not in one of these states. */
  async claim(trx: Trx, houseId: string, id: number, states: readonly ReturnedState[]): Promise<ReturnedFile | undefined> {
    const row = await this.files(trx, houseId)
      .where('returned_files.id', '=', id)
      .where('state', 'in', [...states])
      .forUpdate('returned_files')
      .executeTakeFirst();
    return row && fileOf(houseId, row);
  }

  /** Begins to read it; whoever has begun before goes on no more. Undefined when there is nothing to read. */
  async begin(db: Reader, houseId: string, id: number): Promise<number | undefined> {
    const row = await db
      .updateTable('returned_files')
      .set((eb) => ({ run: eb('run', '+', 1), done: 0 }))
      .where('house_id', '=', houseId)
      .where('id', '=', id)
      .where('state', '=', 'reading')
      .returning('run')
      .executeTakeFirst();
    return row?.run;
  }

  /** How many rows are read; false when somebody else has begun to read it since, or it is gone. */
  async progress(trx: Trx, houseId: string, id: number, run: number, done: number): Promise<boolean> {
    const { numUpdatedRows } = await trx
      .updateTable('returned_files')
      .set({ done })
      .where('house_id', '=', houseId)
      .where('id', '=', id)
      .where('run', '=', run)
      .where('state', '=', 'reading')
      .executeTakeFirst();
    return numUpdatedRows > 0n;
  }

  async end(db: Reader, houseId: string, id: number, run: number, outcome: ReadOutcome): Promise<void> {
    const { state, why, said, headings, columns, registerId, sentId } = outcome;
    await db
      .updateTable('returned_files')
      .set({
        state,
        why: why ?? null,
        said: JSON.stringify(said ?? []),
        ...(headings && { headings: JSON.stringify(headings) }),
        ...(columns !== undefined && { columns: columns && JSON.stringify(columns) }),
        ...(registerId !== undefined && { register_id: registerId }),
        ...(sentId !== undefined && { sent_id: sentId }),
      })
      .where('house_id', '=', houseId)
      .where('id', '=', id)
      .where('run', '=', run)
      .where('state', '=', 'reading')
      .execute();
  }

  /** It is to be read anew, with these columns where they are given. */
  async again(
    trx: Trx,
    houseId: string,
    id: number,
    columns?: { readonly registerId: string; readonly columns: readonly FileColumn[] },
  ): Promise<void> {
    await trx
      .updateTable('returned_files')
      .set({ state: 'reading', done: 0, ...(columns && { register_id: columns.registerId, columns: JSON.stringify(columns.columns) }) })
      .where('house_id', '=', houseId)
      .where('id', '=', id)
      .execute();
  }

  /** It is stored by an act; its bytes are of no use any more. */
  async applied(trx: Trx, houseId: string, id: number, actId: number): Promise<void> {
    await trx.deleteFrom('returned_parts').where('house_id', '=', houseId).where('file_id', '=', id).execute();
    await trx
      .updateTable('returned_files')
      .set({ state: 'applied', act_id: actId })
      .where('house_id', '=', houseId)
      .where('id', '=', id)
      .execute();
  }

  async bytes(db: Reader, houseId: string, id: number): Promise<Buffer> {
    const rows = await db
      .selectFrom('returned_parts')
      .select('bytes')
      .where('house_id', '=', houseId)
      .where('file_id', '=', id)
      .orderBy('part')
      .execute();
    return Buffer.concat(rows.map(({ bytes }) => bytes));
  }

  /** The new rows that came with an earlier file of the same kind, were stored, and are there, by what they hold. */
  async broughtBefore(
    db: Reader,
    houseId: string,
    file: Pick<ReturnedFile, 'digest'>,
    registerId: string,
    sentId: string | null,
  ): Promise<Set<string>> {
    const rows = await db
      .selectFrom('returned_rows')
      .innerJoin('returned_files', (join) =>
        join.onRef('returned_files.house_id', '=', 'returned_rows.house_id').onRef('returned_files.id', '=', 'returned_rows.file_id'),
      )
      .innerJoin('entries', (join) =>
        join.onRef('entries.house_id', '=', 'returned_rows.house_id').onRef('entries.id', '=', 'returned_rows.entry_id'),
      )
      .select('mark')
      .where('returned_rows.house_id', '=', houseId)
      .where('state', '=', 'applied')
      .where('returned_files.register_id', '=', registerId)
      .where('entries.register_id', '=', registerId)
      .where('what', '=', 'new')
      .where(sentId === null ? sql<SqlBool>`digest = ${file.digest}` : sql<SqlBool>`sent_id = ${sentId}`)
      .execute();
    return new Set(rows.flatMap(({ mark }) => (mark ? [mark.toString('base64')] : [])));
  }

  async remembered(db: Reader, houseId: string, registerId: string, shape: Buffer): Promise<readonly RememberedColumn[] | undefined> {
    const row = await db
      .selectFrom('returned_shapes')
      .select('columns')
      .where('house_id', '=', houseId)
      .where('register_id', '=', registerId)
      .where('shape', '=', shape)
      .executeTakeFirst();
    return row?.columns;
  }

  async remember(trx: Trx, houseId: string, registerId: string, shape: Buffer, columns: readonly RememberedColumn[]): Promise<void> {
    const written = JSON.stringify(columns);
    await trx
      .insertInto('returned_shapes')
      .values({ house_id: houseId, register_id: registerId, shape, columns: written })
      .onConflict((conflict) => conflict.columns(['house_id', 'register_id', 'shape']).doUpdateSet({ columns: written }))
      .execute();
  }

  /** Keeps the newest files of a person that wait, also where many are brought at once. */
  async removeBeyond(trx: Trx, houseId: string, personId: string, most: number): Promise<void> {
    await sql`select pg_advisory_xact_lock(hashtextextended(${`dellum.returned ${houseId} ${personId}`}, 0))`.execute(trx);
    await trx
      .deleteFrom('returned_files')
      .where('house_id', '=', houseId)
      .where('id', 'in', (eb) =>
        eb
          .selectFrom('returned_files as own')
          .select('own.id')
          .where('own.house_id', '=', houseId)
          .where('own.person_id', '=', personId)
          .where('own.state', '!=', 'applied')
          .orderBy('own.id', 'desc')
          .offset(most),
      )
      .execute();
  }

  /** False while it is being stored: the act still reads its rows. */
  async remove(db: Reader, houseId: string, id: number): Promise<boolean> {
    const { numDeletedRows } = await db
      .deleteFrom('returned_files')
      .where('house_id', '=', houseId)
      .where('id', '=', id)
      .where(({ not, exists, selectFrom }) =>
        not(
          exists(
            selectFrom('entry_acts')
              .select('entry_acts.id')
              .whereRef('entry_acts.house_id', '=', 'returned_files.house_id')
              .whereRef('entry_acts.id', '=', 'returned_files.act_id')
              .where('entry_acts.state', '=', 'under way'),
          ),
        ),
      )
      .executeTakeFirst();
    return numDeletedRows > 0n;
  }

  /** Forgets what never came whole, the bytes of files after a week, and in the end the files. What new rows they brought is known as long as what went out. */
  async forgetOld(db: Reader): Promise<void> {
    const old = (days: number) => sql<Date>`now() - make_interval(days => ${days})`;
    await db
      .deleteFrom('returned_files')
      .where('state', '=', 'coming')
      .where('at', '<', sql<Date>`now() - interval '1 hour'`)
      .execute();
    await db.deleteFrom('returned_files').where('state', '!=', 'applied').where('at', '<', old(downloadKept)).execute();
    await db.deleteFrom('returned_files').where('at', '<', old(sentKept)).execute();
    await db
      .deleteFrom('returned_parts')
      .using('returned_files')
      .whereRef('returned_files.house_id', '=', 'returned_parts.house_id')
      .whereRef('returned_files.id', '=', 'returned_parts.file_id')
      .where('at', '<', old(downloadKept))
      .execute();
  }

  async unfinished(db: Reader): Promise<{ houseId: string; fileId: number }[]> {
    return db.selectFrom('returned_files').select(['house_id as houseId', 'id as fileId']).where('state', '=', 'reading').execute();
  }
}

interface Row {
  readonly houseKey: string;
  readonly id: number;
  readonly name: string;
  readonly person_id: string;
  readonly by: string;
  readonly role: string;
  readonly at: Date;
  readonly digest: Buffer;
  readonly register_id: string | null;
  readonly sent_id: string | null;
  readonly state: ReturnedState;
  readonly run: number;
  readonly done: number;
  readonly why: string | null;
  readonly said: string[];
  readonly headings: FileHeading[];
  readonly columns: FileColumn[] | null;
  readonly act_id: number | null;
}
const fileOf = (houseId: string, row: Row): ReturnedFile => ({
  id: row.id,
  houseKey: row.houseKey,
  caller: { id: row.person_id, houseId, name: row.by, role: row.role as Role },
  name: row.name,
  at: row.at,
  digest: row.digest,
  registerId: row.register_id,
  sentId: row.sent_id,
  state: row.state,
  run: row.run,
  done: row.done,
  why: row.why,
  said: row.said,
  headings: row.headings,
  columns: row.columns,
  actId: row.act_id,
});
