// Queries for records: entries that are looked for, those that name one of them, and what was changed in one.
import { Injectable } from '@nestjs/common';
import type { EntryView } from '@dellum/contract';
import { sql, type RawBuilder } from 'kysely';
import type { arrangedSql } from '../arrangements/arrangedSql.js';
import type { Reader } from '../database/database.js';
import { partsOf } from '../entries/holds.js';

interface Place {
  readonly houseId: string;
  readonly registerId: string;
}
/** A word that is looked for: in any text of an entry, or as the label of values that some fields hold. */
export interface Sought {
  readonly word: string;
  readonly labelled: readonly { readonly key: string; readonly values: readonly string[] }[];
}
/** A field of a register that holds a value. */
export interface Holding {
  readonly fieldId: string;
  readonly registerId: string;
  readonly key: string;
  readonly value: string;
}
export interface ChangeRow {
  readonly id: number;
  readonly at: Date;
  readonly by: string | null;
  readonly act: string;
  readonly field: string | null;
  readonly from: string | null;
  readonly to: string | null;
}

const mostShown = 10;
const mostChanges = 300;

/** Every word stands somewhere in the entry. */
function findsAll(sought: readonly Sought[]): RawBuilder<boolean> {
  const finds = sought.map(({ word, labelled }) => {
    const shown = labelled.map(({ key, values }) => sql`${partsOf(sql`cells ->> ${key}`)} && ${values}::text[]`);
    const inText = sql`exists (select 1 from jsonb_each_text(cells) as cell(key, value) where position(lower(${word}) in lower(cell.value)) > 0)`;
    return sql`(${sql.join([inText, ...shown], sql` or `)})`;
  });
  return finds.length === 0 ? sql<boolean>`true` : sql<boolean>`(${sql.join(finds, sql` and `)})`;
}

type Arranged = ReturnType<typeof arrangedSql>;

const isFound = ({ houseId, registerId }: Place, sought: readonly Sought[], condition: Arranged['condition']) =>
  sql`house_id = ${houseId} and register_id = ${registerId} and ${condition} and ${findsAll(sought)}`;

@Injectable()
export class RecordsStore {
  /** The ids of all that is looked for, in order, as an expression. */
  allIds = (place: Place, sought: readonly Sought[], { joins, condition, order }: Arranged) =>
    sql<string[]>`array(select id from entries ${joins} where ${isFound(place, sought, condition)} order by ${order})`;

  /** A page of the entries that are looked for, with how many they are. */
  async page(
    db: Reader,
    { houseId, registerId }: Place,
    sought: readonly Sought[],
    { joins, condition, order }: Arranged,
    from: number,
    count: number,
  ): Promise<{ total: number; entries: EntryView[] }> {
    const where = isFound({ houseId, registerId }, sought, condition);
    const total = await sql<{ total: number }>`select count(*) as total from entries where ${where}`.execute(db);
    const { rows } =
      await sql<EntryView>`select id, version, cells from entries ${joins} where ${where} order by ${order} offset ${from} limit ${count}`.execute(
        db,
      );
    return { total: total.rows[0]!.total, entries: rows };
  }

  /** The first entries of each register that hold a value in a field. */
  async holding(
    db: Reader,
    houseId: string,
    holdings: readonly Holding[],
  ): Promise<(EntryView & { fieldId: string; registerId: string })[]> {
    if (holdings.length === 0) return [];
    const { rows } = await sql<EntryView & { fieldId: string; registerId: string }>`
      select wanted."fieldId", wanted."registerId", found.id, found.version, found.cells
      from jsonb_to_recordset(${JSON.stringify(holdings)}::jsonb) as wanted("fieldId" uuid, "registerId" uuid, key text, value text)
      cross join lateral (
        select id, version, cells from entries
        where house_id = ${houseId} and register_id = wanted."registerId" and (cells ->> wanted.key = wanted.value or wanted.value = any(${partsOf(sql`cells ->> wanted.key`)}))
        order by pos limit ${sql.lit(mostShown)}) as found`.execute(db);
    return rows;
  }

  /** What was changed in an entry, the newest first. `id`: that one change. */
  async changes(db: Reader, { houseId, registerId }: Place, entryId: string, id?: number): Promise<ChangeRow[]> {
    const { rows } = await sql<ChangeRow>`
      select line.id, line.at, people.name as by, line.act, line.field_key as field, line.from_value as "from", line.to_value as "to"
      from ledger_lines as line left join people on people.house_id = line.house_id and people.id = line.person_id
      where line.house_id = ${houseId} and line.register_id = ${registerId} and line.entry_id = ${entryId}
        and line.act in ('cell.written', 'cell.followed', 'entry.inserted', 'entry.deleted', 'entry.restored') and (${id ?? null}::bigint is null or line.id = ${id ?? null}::bigint)
      order by line.id desc limit ${mostChanges}`.execute(db);
    return rows;
  }
}
