// Queries for figures: entries counted part by part, and figures that are kept.
import { Injectable } from '@nestjs/common';
import type { FigureDefinition, FigureGroup } from '@dellum/core';
import { sql, type RawBuilder, type Sql } from 'kysely';
import type { Reader, Trx } from '../database/database.js';
import type { FigureSql } from './figureSql.js';

type Fragment = ReturnType<Sql>;

/** Entries that are counted in one statement. */
const partSize = 50_000;

export interface KeptFigure {
  readonly id: string;
  readonly title: string;
  readonly definition: FigureDefinition;
  readonly personId: string;
  readonly by: string;
}
/** A stretch of a register by its positions; an end left out is open. */
export interface Part {
  readonly from: string | undefined;
  readonly until: string | undefined;
  readonly entries: number;
}

const dayOf = (beginning: string | null, rest: string): string => (beginning === null ? '' : beginning + rest);

@Injectable()
export class FiguresStore {
  async kept(db: Reader, houseId: string): Promise<KeptFigure[]> {
    return db
      .selectFrom('figures')
      .innerJoin('people', (join) => join.onRef('people.house_id', '=', 'figures.house_id').onRef('people.id', '=', 'figures.person_id'))
      .select(['figures.id', 'figures.title', 'figures.definition', 'figures.person_id as personId', 'people.name as by'])
      .where('figures.house_id', '=', houseId)
      .orderBy('figures.title')
      .execute();
  }

  async keep(trx: Trx, houseId: string, figure: Omit<KeptFigure, 'by'>): Promise<void> {
    const row = { title: figure.title, register_id: figure.definition.registerId, definition: JSON.stringify(figure.definition) };
    await trx
      .insertInto('figures')
      .values({ house_id: houseId, id: figure.id, person_id: figure.personId, ...row })
      .onConflict((conflict) => conflict.columns(['house_id', 'id']).doUpdateSet(row))
      .execute();
  }

  async remove(trx: Trx, houseId: string, id: string): Promise<void> {
    await trx.deleteFrom('figures').where('house_id', '=', houseId).where('id', '=', id).execute();
  }

  /** The register in parts of about as many entries; one open part where it is small. */
  async parts(db: Reader, houseId: string, registerId: string): Promise<Part[]> {
    const chunks = await db
      .selectFrom('chunks')
      .select(['from_pos as pos', 'entries'])
      .where('house_id', '=', houseId)
      .where('register_id', '=', registerId)
      .orderBy('from_pos')
      .execute();
    const parts: { from: string | undefined; until: string | undefined; entries: number }[] = [
      { from: undefined, until: undefined, entries: 0 },
    ];
    for (const { pos, entries } of chunks) {
      const last = parts.at(-1)!;
      if (last.entries < partSize) last.entries += entries;
      else {
        last.until = pos;
        parts.push({ from: pos, until: undefined, entries });
      }
    }
    return parts;
  }

  /** The entries of a part in their groups. A register without groups comes to one. */
  async groups(trx: Trx, houseId: string, registerId: string, figure: FigureSql, { from, until }: Part): Promise<FigureGroup[]> {
    // Groups are put together in memory; sorting the entries on disk costs half of the time.
    await sql`select set_config('work_mem', '64MB', true)`.execute(trx);
    const within: Fragment[] = [
      ...(from === undefined ? [] : [sql`pos >= ${from}`]),
      ...(until === undefined ? [] : [sql`pos < ${until}`]),
    ];
    const where = sql.join([sql`house_id = ${houseId}`, sql`register_id = ${registerId}`, ...within, figure.condition], sql` and `);
    return this.grouped(trx, figure, sql`select ${figure.inner} from entries where ${where}`);
  }

  /** The combinations of the fields that a figure reads in their groups, each for the entries that hold it. */
  async groupsOf(db: Reader, figure: FigureSql, combinations: RawBuilder<unknown>): Promise<FigureGroup[]> {
    return this.grouped(
      db,
      figure,
      sql`select ${figure.inner}, entries as times from ${combinations} as held where ${figure.condition}`,
      sql`e.times`,
    );
  }

  /** `from`: what is grouped; `times`: how many entries a row of it stands for, where that is not one. */
  private async grouped(db: Reader, figure: FigureSql, from: Fragment, times?: Fragment): Promise<FigureGroup[]> {
    const entries = times ? sql`coalesce(sum(${times}), 0)::bigint` : sql`count(*)`;
    const columns = [...figure.values, ...(figure.time ? [figure.time.day] : [])];
    const places = columns.map((_, at) => sql.lit(at + 1));
    const { rows } = await sql<Record<string, string | null> & Omit<FigureGroup, 'values' | 'time'>>`
      select ${sql.join([...columns.map((column, at) => sql`${column} as ${sql.ref(`d${at}`)}`), sql`${entries} as entries`, figure.measures(times)])}
      from (${from}) e ${figure.joins}
      ${places.length > 0 ? sql`group by ${sql.join(places)}` : sql``}`.execute(db);
    return rows.map(({ entries, measured, sum, least, most, ...held }) => ({
      values: figure.values.map((_, at) => held[`d${at}`] ?? ''),
      time: figure.time ? dayOf(held[`d${figure.values.length}`] ?? null, figure.time.rest) : null,
      entries,
      measured,
      sum,
      least,
      most,
    }));
  }

  /** The values of a link field whose entries hold a value in another field; '' for entries without such a value. At most `limit`. */
  async linksTo(
    db: Reader,
    houseId: string,
    registerId: string,
    figure: Pick<FigureSql, 'inner' | 'joins' | 'values'>,
    link: Fragment,
    value: string,
    limit: number,
  ): Promise<string[]> {
    const { rows } = await sql<{ link: string | null }>`
      select distinct ${link} as link from (select ${figure.inner} from entries where house_id = ${houseId} and register_id = ${registerId}) e ${figure.joins}
      where coalesce(${figure.values[0]!}, '') = ${value} limit ${limit}`.execute(db);
    return rows.map((row) => row.link ?? '');
  }
}
