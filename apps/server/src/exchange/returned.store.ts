// Queries for files that came back.
import { Injectable } from '@nestjs/common';
import {
  downloadKept,
  sentKept,
  type FileColumn,
  type FileHeading,
  type IntakeWay,
  type RememberedColumn,
  type ReturnedState,
  type Role,
} from '@dellum/contract';
import { sql, type RawBuilder, type SqlBool } from 'kysely';
import type { Caller } from '../access/access.js';
import type { Reader, Trx } from '../database/database.js';
import { keyOf } from './comparison.js';

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
  readonly way: IntakeWay;
  /** The program that sent it. */
  readonly program: string | null;
  /** The intake that takes it. */
  readonly intake: IntakeOfFile | null;
}
/** Of an intake, what a file of it is read by. */
export interface IntakeOfFile {
  readonly id: string;
  readonly name: string;
  readonly holdsAll: boolean;
}

/** How a file comes. */
export interface Arrival {
  readonly name: string;
  /** The sheet at which it is brought, or of its intake. */
  readonly registerId: string | null;
  readonly intakeId?: string;
  readonly way?: IntakeWay;
  readonly program?: string;
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
  async add(db: Reader, caller: Caller, { name, registerId, intakeId, way, program }: Arrival): Promise<number> {
    const { id } = await db
      .insertInto('returned_files')
      .values({
        house_id: caller.houseId,
        person_id: caller.id,
        name,
        digest: Buffer.alloc(0),
        bytes: 0,
        register_id: registerId,
        intake_id: intakeId ?? null,
        program: program ?? null,
        ...(way && { way }),
      })
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
      .leftJoin('intakes', (join) =>
        join.onRef('intakes.house_id', '=', 'returned_files.house_id').onRef('intakes.id', '=', 'returned_files.intake_id'),
      )
      .select([
        'houses.key as houseKey',
        'returned_files.id',
        'returned_files.name',
        'returned_files.person_id',
        'people.name as by',
        'people.role',
        'at',
        'digest',
        'returned_files.register_id',
      ])
      .select(['sent_id', 'state', 'run', 'done', 'why', 'said', 'headings', 'columns', 'act_id', 'way', 'program'])
      .select(['intakes.id as intakeId', 'intakes.name as intakeName', 'holds_all as holdsAll'])
      .where('returned_files.house_id', '=', houseId)
      .orderBy('returned_files.id', 'desc');
  }

  /** Of the house, or of a person; those of an intake are listed there. */
  async list(db: Reader, houseId: string, personId?: string): Promise<ReturnedFile[]> {
    const rows = await this.files(db, houseId)
      .where('returned_files.intake_id', 'is', null)
      .$if(personId !== undefined, (query) => query.where('returned_files.person_id', '=', personId!))
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

  /** Takes turns with whoever reads or ends another file of the intake; false while an earlier one of it is read, which goes first. */
  async isNext(trx: Trx, houseId: string, id: number, { id: intakeId }: IntakeOfFile): Promise<boolean> {
    await trx
      .selectFrom('intakes')
      .select('id')
      .where('house_id', '=', houseId)
      .where('id', '=', intakeId)
      .forNoKeyUpdate()
      .executeTakeFirst();
    const [first = id] = await this.reading(trx, houseId, intakeId);
    return first >= id;
  }

  /** The files of an intake that are to be read, the first one first. */
  async reading(db: Reader, houseId: string, intakeId: string): Promise<number[]> {
    const rows = await db
      .selectFrom('returned_files')
      .select('id')
      .where('house_id', '=', houseId)
      .where('intake_id', '=', intakeId)
      .where('state', '=', 'reading')
      .orderBy('id')
      .execute();
    return rows.map(({ id }) => id);
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

  /** False when somebody else has begun to read it since, or it is gone. */
  async end(db: Reader, houseId: string, id: number, run: number, outcome: ReadOutcome): Promise<boolean> {
    const { state, why, said, headings, columns, registerId, sentId } = outcome;
    const { numUpdatedRows } = await db
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
      .executeTakeFirst();
    return numUpdatedRows > 0n;
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

  /** It is stored by an act, null where nothing in it is new; its bytes are of no use any more. */
  async applied(trx: Trx, houseId: string, id: number, actId: number | null): Promise<void> {
    await trx.deleteFrom('returned_parts').where('house_id', '=', houseId).where('file_id', '=', id).execute();
    await trx
      .updateTable('returned_files')
      .set({ state: 'applied', act_id: actId })
      .where('house_id', '=', houseId)
      .where('id', '=', id)
      .execute();
  }

  /** Begins a file of its own for what is stored of one that waits, which keeps its bytes and can be compared again. */
  async part(trx: Trx, houseId: string, id: number): Promise<number> {
    const own = [
      'house_id',
      'person_id',
      'name',
      'at',
      'digest',
      'bytes',
      'register_id',
      'sent_id',
      'state',
      'run',
      'done',
      'said',
    ] as const;
    const also = ['headings', 'columns', 'intake_id', 'way', 'program'] as const;
    const { id: part } = await trx
      .insertInto('returned_files')
      .columns([...own, ...also, 'part_of'])
      .expression((eb) =>
        eb
          .selectFrom('returned_files')
          .select([...own, ...also, 'id'])
          .where('house_id', '=', houseId)
          .where('id', '=', id),
      )
      .returning('id')
      .executeTakeFirstOrThrow();
    return part;
  }

  /** Forgets what could not be read of earlier files of the same name of the intake: it may have come half. */
  async forgetUnreadable(trx: Trx, { caller: { houseId }, id, name, intake }: ReturnedFile): Promise<void> {
    await trx
      .deleteFrom('returned_files')
      .where('house_id', '=', houseId)
      .where('intake_id', '=', intake?.id ?? null)
      .where('name', '=', name)
      .where('id', '<', id)
      .where('state', '=', 'unreadable')
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

  /**
   * How often new rows of these marks, which hold the same, came with earlier files of the same kind. Of a file that somebody brought: the
   * rows that were stored and are there. Of an intake: all that were not taken back as a whole, also those that wait, or were deleted here
   * since.
   */
  async broughtBefore(
    db: Reader,
    { caller: { houseId }, ...file }: Pick<ReturnedFile, 'caller' | 'id' | 'digest' | 'name' | 'intake'>,
    registerId: string,
    sentId: string | null,
    marks: readonly Buffer[],
  ): Promise<Map<string, number>> {
    if (marks.length === 0) return new Map();
    const { intake } = file;
    const isBefore =
      sentId === null && intake ? sql<SqlBool>`(${isOfIntake(intake, file)}) and ${isStillBrought}` : isStored(registerId, file, sentId);
    const rows = await db
      .selectFrom('returned_rows')
      .innerJoin('returned_files', (join) =>
        join.onRef('returned_files.house_id', '=', 'returned_rows.house_id').onRef('returned_files.id', '=', 'returned_rows.file_id'),
      )
      .select(['mark', sql<number>`count(*)::int`.as('rows')])
      .where('returned_rows.house_id', '=', houseId)
      .where('returned_files.id', '!=', file.id)
      .where('returned_files.register_id', '=', registerId)
      .where('what', '=', 'new')
      .where('mark', '=', sql<Buffer>`any(${marks}::bytea[])`)
      .where(isBefore)
      .groupBy('mark')
      .execute();
    return new Map(rows.map(({ mark, rows: count }) => [keyOf(mark!), count]));
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
          .where('own.intake_id', 'is', null)
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

  /**
   * Forgets what never came whole, the bytes of files after a week, and in the end the files. What new rows they brought is known as long
   * as what went out; what an intake has brought, as long as there is the intake, and what waits of it until somebody decides.
   */
  async forgetOld(db: Reader): Promise<void> {
    const old = (days: number) => sql<Date>`now() - make_interval(days => ${days})`;
    await db
      .deleteFrom('returned_files')
      .where('state', '=', 'coming')
      .where('at', '<', sql<Date>`now() - interval '1 hour'`)
      .execute();
    const brought = db.deleteFrom('returned_files').where('intake_id', 'is', null);
    await brought.where('state', '!=', 'applied').where('at', '<', old(downloadKept)).execute();
    await brought.where('at', '<', old(sentKept)).execute();
    await db
      .deleteFrom('returned_parts')
      .using('returned_files')
      .whereRef('returned_files.house_id', '=', 'returned_parts.house_id')
      .whereRef('returned_files.id', '=', 'returned_parts.file_id')
      .where('intake_id', 'is', null)
      .where('at', '<', old(downloadKept))
      .execute();
  }

  async unfinished(db: Reader): Promise<{ houseId: string; fileId: number }[]> {
    return db.selectFrom('returned_files').select(['house_id as houseId', 'id as fileId']).where('state', '=', 'reading').execute();
  }
}

/** An earlier file whose new rows are there, of the same bytes or the same that went out. */
const isStored = (registerId: string, { digest }: Pick<ReturnedFile, 'digest'>, sentId: string | null): RawBuilder<SqlBool> =>
  sql`state = 'applied' and ${sentId === null ? sql`digest = ${digest}` : sql`sent_id = ${sentId}`} and exists (
    select 1 from entries where entries.house_id = returned_rows.house_id and entries.id = returned_rows.entry_id and entries.register_id = ${registerId})`;

/** A file of the intake that held rows which this one holds again: the same under its name, or, where each file holds all, any. */
const isOfIntake = ({ id, holdsAll }: IntakeOfFile, { name, digest }: Pick<ReturnedFile, 'name' | 'digest'>): RawBuilder<SqlBool> =>
  sql`returned_files.intake_id = ${id} and (${holdsAll} or returned_files.name = ${name} or digest = ${digest})`;

const isStillBrought = sql`not exists (select 1 from entry_acts back where back.house_id = returned_files.house_id
  and back.what ->> 'does' = 'back' and (back.what ->> 'of')::bigint = returned_files.act_id)`;

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
  readonly way: IntakeWay;
  readonly program: string | null;
  readonly intakeId: string | null;
  readonly intakeName: string | null;
  readonly holdsAll: boolean | null;
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
  way: row.way,
  program: row.program,
  intake: row.intakeId === null ? null : { id: row.intakeId, name: row.intakeName ?? '', holdsAll: row.holdsAll === true },
});
