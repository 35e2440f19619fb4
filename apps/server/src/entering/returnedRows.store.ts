// The rows of a file that came back in which something is changed, and what is decided of them.
import { Injectable } from '@nestjs/common';
import type {
  FollowingCell,
  ReturnedCell,
  ReturnedCounts,
  ReturnedRow,
  ReturnedRowKind,
  ReturnedRows,
  ReturnedShown,
} from '@dellum/contract';
import { sql, type RawBuilder, type SqlBool } from 'kysely';
import { amongIds } from '../database/among.js';
import type { Reader, Trx } from '../database/database.js';

export interface NewReturnedRow extends Omit<ReturnedRow, 'ord' | 'deletes'> {
  /** Of a new row, by what it holds. */
  readonly mark?: Buffer;
}

/** So many rows are shown at once; when they are settled, others follow. */
const mostShown = 100;

const shown: { readonly [Which in ReturnedShown]: RawBuilder<SqlBool> } = {
  asked: sql`asked > 0`,
  refused: sql`refused > 0`,
  changed: sql`what = 'changed' and jsonb_array_length(cells) > asked + refused`,
  new: sql`what = 'new'`,
  missing: sql`what = 'missing'`,
  deleted: sql`what = 'deleted'`,
};

/** Rows of which somebody has to decide something. */
const waits = sql<SqlBool>`(refused > 0 or asked > 0 or what in ('missing', 'deleted'))`;

/** A cell that was changed there alone, and is taken as it came. */
const taken = sql`not (cell -> 'asked')::boolean and cell ->> 'takes' = 'came' and not cell ? 'refused'`;

@Injectable()
export class ReturnedRowsStore {
  async clear(trx: Trx, houseId: string, fileId: number): Promise<void> {
    await trx.deleteFrom('returned_rows').where('house_id', '=', houseId).where('file_id', '=', fileId).execute();
  }

  /** Adds rows, the first of them as number `from`. */
  async add(trx: Trx, houseId: string, fileId: number, from: number, rows: readonly NewReturnedRow[]): Promise<void> {
    if (rows.length === 0) return;
    const counted = rows.map(({ cells }) => ({ asked: cells.filter((cell) => cell.asked).length, refused: refusedIn(cells) }));
    await sql`
      insert into returned_rows (house_id, file_id, ord, row, what, entry_id, about, cells, follows, mark, asked, refused)
      select ${houseId}, ${fileId}, ${from} + ord - 1, row, what, entry_id, about, cells, follows, mark, asked, refused
      from unnest(${rows.map(({ row }) => row)}::int[], ${rows.map(({ what }) => what)}::text[], ${rows.map(({ entry }) => entry)}::uuid[],
        ${rows.map(({ about }) => about)}::text[], ${rows.map(({ cells }) => JSON.stringify(cells))}::jsonb[],
        ${rows.map(({ follows }) => JSON.stringify(follows))}::jsonb[],
        ${rows.map(({ mark }) => mark ?? null)}::bytea[], ${counted.map(({ asked }) => asked)}::int[], ${counted.map(({ refused }) => refused)}::int[])
        with ordinality as given (row, what, entry_id, about, cells, follows, mark, asked, refused, ord)`.execute(trx);
  }

  /** The rows of some entries, in their order in the file. */
  async ofEntries(db: Reader, houseId: string, fileId: number, entries: readonly string[]): Promise<ReturnedRow[]> {
    const rows = await this.query(db, houseId, fileId).where('entry_id', '=', amongIds(entries)).execute();
    return rows.map(viewOf);
  }

  async one(db: Reader, houseId: string, fileId: number, ord: number): Promise<ReturnedRow | undefined> {
    const row = await this.query(db, houseId, fileId).where('ord', '=', ord).forUpdate().executeTakeFirst();
    return row && viewOf(row);
  }

  async list(db: Reader, houseId: string, fileId: number, show: ReturnedShown): Promise<ReturnedRows> {
    const rows = await this.query(db, houseId, fileId).where(shown[show]).limit(mostShown).execute();
    const { total } = await db
      .selectFrom('returned_rows')
      .select(sql<number>`count(*)::int`.as('total'))
      .where('house_id', '=', houseId)
      .where('file_id', '=', fileId)
      .where(shown[show])
      .executeTakeFirstOrThrow();
    return { rows: rows.map(viewOf), total };
  }

  private query(db: Reader, houseId: string, fileId: number) {
    return db
      .selectFrom('returned_rows')
      .select(['ord', 'row', 'what', 'entry_id', 'about', 'cells', 'follows', 'deletes'])
      .where('house_id', '=', houseId)
      .where('file_id', '=', fileId)
      .orderBy('ord');
  }

  /** What is decided of some rows. */
  async put(trx: Trx, houseId: string, fileId: number, rows: readonly ReturnedRow[]): Promise<void> {
    if (rows.length === 0) return;
    await sql`
      update returned_rows set cells = given.cells, follows = given.follows, deletes = given.deletes, refused = given.refused
      from unnest(${rows.map(({ ord }) => ord)}::int[], ${rows.map(({ cells }) => JSON.stringify(cells))}::jsonb[],
        ${rows.map(({ follows }) => JSON.stringify(follows))}::jsonb[], ${rows.map(({ deletes }) => deletes)}::boolean[],
        ${rows.map(({ cells }) => refusedIn(cells))}::int[]) as given (ord, cells, follows, deletes, refused)
      where house_id = ${houseId} and file_id = ${fileId} and returned_rows.ord = given.ord`.execute(trx);
  }

  /** Decides of all entries whose row did not come back. */
  async decideMissing(trx: Trx, houseId: string, fileId: number, deletes: boolean): Promise<void> {
    await trx
      .updateTable('returned_rows')
      .set({ deletes })
      .where('house_id', '=', houseId)
      .where('file_id', '=', fileId)
      .where('what', '=', 'missing')
      .execute();
  }

  /** Some of the rows with cells that were changed in both places, after one. */
  async asked(db: Reader, houseId: string, fileId: number, after: number, count: number): Promise<ReturnedRow[]> {
    const rows = await this.query(db, houseId, fileId).where('asked', '>', 0).where('ord', '>', after).limit(count).execute();
    return rows.map(viewOf);
  }

  /** Some of the rows in which a text came into a field and would be refused, after one. */
  async alike(
    db: Reader,
    houseId: string,
    fileId: number,
    cell: { field: string; text: string },
    after: number,
    count: number,
  ): Promise<ReturnedRow[]> {
    const rows = await this.query(db, houseId, fileId)
      .where('refused', '>', 0)
      .where(sql<SqlBool>`cells @> ${JSON.stringify([{ field: cell.field, text: cell.text, takes: 'came' }])}::jsonb`)
      .where('ord', '>', after)
      .limit(count)
      .execute();
    return rows.map(viewOf);
  }

  /** The entries that are changed, made or deleted, in the order of the file. */
  async entriesToWrite(db: Reader, houseId: string, fileId: number): Promise<string[]> {
    const rows = await db
      .selectFrom('returned_rows')
      .select('entry_id')
      .where('house_id', '=', houseId)
      .where('file_id', '=', fileId)
      .where(sql<SqlBool>`what = 'new' or deletes or (what = 'changed' and jsonb_path_exists(cells, '$[*] ? (@.takes == "came")'))`)
      .orderBy('ord')
      .execute();
    return rows.map(({ entry_id }) => entry_id);
  }

  /** How many rows of a file can be stored as they are, and how many wait for somebody. */
  async fitting(db: Reader, houseId: string, fileId: number): Promise<{ fits: number; waits: number }> {
    return db
      .selectFrom('returned_rows')
      .select([
        sql<number>`count(*) filter (where not ${waits})::int`.as('fits'),
        sql<number>`count(*) filter (where ${waits})::int`.as('waits'),
      ])
      .where('house_id', '=', houseId)
      .where('file_id', '=', fileId)
      .executeTakeFirstOrThrow();
  }

  /** Gives the rows that can be stored as they are to another file. */
  async part(trx: Trx, houseId: string, fileId: number, whole: number): Promise<void> {
    await trx
      .updateTable('returned_rows')
      .set({ file_id: whole })
      .where('house_id', '=', houseId)
      .where('file_id', '=', fileId)
      .where(sql<SqlBool>`not ${waits}`)
      .execute();
  }

  async counts(db: Reader, houseId: string, fileId: number): Promise<ReturnedCounts> {
    const byKind = await db
      .selectFrom('returned_rows')
      .select(['what', sql<number>`count(*)::int`.as('rows'), sql<number>`count(*) filter (where deletes)::int`.as('deletes')])
      .where('house_id', '=', houseId)
      .where('file_id', '=', fileId)
      .groupBy('what')
      .execute();
    const { rows: changed } = await sql<{ cells: number; rows: number; asked: number; askedCame: number }>`
      select count(*) filter (where ${taken})::int as cells, count(distinct ord) filter (where ${taken})::int as rows,
        count(*) filter (where (cell -> 'asked')::boolean)::int as asked,
        count(*) filter (where (cell -> 'asked')::boolean and cell ->> 'takes' = 'came')::int as "askedCame"
      from returned_rows, jsonb_array_elements(cells) cell
      where house_id = ${houseId} and file_id = ${fileId} and what = 'changed'`.execute(db);
    const { rows: refused } = await sql<{ code: string; cells: number }>`
      select cell -> 'refused' ->> 'code' as code, count(*)::int as cells from returned_rows, jsonb_array_elements(cells) cell
      where house_id = ${houseId} and file_id = ${fileId} and refused > 0 and cell ? 'refused' and cell ->> 'takes' = 'came'
      group by 1 order by 2 desc, 1`.execute(db);
    const of = (what: ReturnedRowKind) => byKind.find((one) => one.what === what);
    return {
      ...changed[0]!,
      added: of('new')?.rows ?? 0,
      missing: of('missing')?.rows ?? 0,
      deletes: of('missing')?.deletes ?? 0,
      deleted: of('deleted')?.rows ?? 0,
      refused,
    };
  }
}

/** Cells of which what came is taken, and would be refused. */
const refusedIn = (cells: readonly ReturnedCell[]): number => cells.filter(({ refused, takes }) => refused && takes === 'came').length;

interface Row {
  readonly ord: number;
  readonly row: number | null;
  readonly what: ReturnedRowKind;
  readonly entry_id: string;
  readonly about: string;
  readonly cells: ReturnedCell[];
  readonly follows: FollowingCell[];
  readonly deletes: boolean;
}
const viewOf = ({ entry_id, ...row }: Row): ReturnedRow => ({ ...row, entry: entry_id });
