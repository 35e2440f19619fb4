// Queries for intakes, and for the files that they have taken.
import { Injectable } from '@nestjs/common';
import { matchKey } from '@dellum/core';
import type { IntakeDto, IntakeFileView, IntakeView, Role } from '@dellum/contract';
import { sql, type RawBuilder } from 'kysely';
import type { Caller } from '../access/access.js';
import type { Reader, Trx } from '../database/database.js';
import { leftBy } from './standing.js';

/** An intake as files are taken into it. */
export interface Intake extends IntakeDto {
  readonly id: string;
  readonly isOff: boolean;
  readonly failure: string | null;
  /** In whose name it stores, and whether that person is there. */
  readonly person: { readonly id: string; readonly name: string; readonly role: Role; readonly isIn: boolean };
  /** Files that wait for somebody, or are read. */
  readonly open: number;
}
/** A file of a folder, as it is now. */
export interface FolderFile {
  readonly name: string;
  readonly size: number;
  readonly modified: Date;
}

const mostListed = 200;

@Injectable()
export class IntakesStore {
  async add(trx: Trx, houseId: string, id: string, personId: string, dto: IntakeDto): Promise<void> {
    await trx
      .insertInto('intakes')
      .values({ house_id: houseId, id, person_id: personId, ...rowOf(dto) })
      .execute();
  }

  /** Sets it up anew, in the name of whoever does. The folder is looked at from the beginning where it is another one. */
  async change(trx: Trx, houseId: string, id: string, personId: string, dto: IntakeDto): Promise<void> {
    const folder = sql<string | null>`(select folder from intakes where house_id = ${houseId} and id = ${id})`;
    await trx
      .deleteFrom('intake_taken')
      .where('house_id', '=', houseId)
      .where('intake_id', '=', id)
      .where(sql<boolean>`${folder} is distinct from ${dto.folder}`)
      .execute();
    await trx
      .updateTable('intakes')
      .set({ person_id: personId, failure: null, ...rowOf(dto) })
      .where('house_id', '=', houseId)
      .where('id', '=', id)
      .execute();
  }

  async setOff(trx: Trx, houseId: string, id: string, off: boolean): Promise<void> {
    await trx
      .updateTable('intakes')
      .set({ off_since: off ? sql<Date>`coalesce(off_since, now())` : null, failure: null })
      .where('house_id', '=', houseId)
      .where('id', '=', id)
      .execute();
  }

  /** Removes it; its files stay as files that came. */
  async remove(trx: Trx, houseId: string, id: string): Promise<void> {
    await trx.deleteFrom('intakes').where('house_id', '=', houseId).where('id', '=', id).execute();
  }

  /** Notes why no file is taken; true where that is news. */
  async fail(db: Reader, houseId: string, id: string, failure: string | null): Promise<boolean> {
    const { numUpdatedRows } = await db
      .updateTable('intakes')
      .set({ failure })
      .where('house_id', '=', houseId)
      .where('id', '=', id)
      .where(sql<boolean>`failure is distinct from ${failure}`)
      .executeTakeFirst();
    return numUpdatedRows > 0n;
  }

  private query(db: Reader, houseId: string) {
    const filesThat = (are: RawBuilder<unknown>) => sql<number>`(select count(*)::int from returned_files files
      where files.house_id = intakes.house_id and files.intake_id = intakes.id and ${are})`;
    return db
      .selectFrom('intakes')
      .innerJoin('people', (join) => join.onRef('people.house_id', '=', 'intakes.house_id').onRef('people.id', '=', 'intakes.person_id'))
      .select(['intakes.id', 'intakes.name', 'register_id', 'folder', 'pattern', 'holds_all', 'made_at', 'off_since', 'failure'])
      .select(['people.id as personId', 'people.name as by', 'people.role', 'people.out_since'])
      .select(filesThat(sql`state in ('unclear', 'ready', 'unreadable')`).as('waits'))
      .select(filesThat(sql`state <> 'applied'`).as('open'))
      .select(
        sql<Date | null>`(select max(files.at) from returned_files files
          where files.house_id = intakes.house_id and files.intake_id = intakes.id)`.as('last'),
      )
      .where('intakes.house_id', '=', houseId)
      .orderBy('intakes.name_key');
  }

  async all(db: Reader, houseId: string): Promise<IntakeView[]> {
    const rows = await this.query(db, houseId).execute();
    return rows.map((row) => ({
      ...dtoOf(row),
      id: row.id,
      by: row.by,
      at: row.made_at.toISOString(),
      off: row.off_since?.toISOString() ?? null,
      failure: row.off_since === null ? (leftBy(personOf(row)) ?? row.failure) : null,
      last: row.last?.toISOString() ?? null,
      waits: row.waits,
    }));
  }

  async one(db: Reader, houseId: string, id: string): Promise<Intake | undefined> {
    const row = await this.query(db, houseId).where('intakes.id', '=', id).executeTakeFirst();
    return (
      row && {
        ...dtoOf(row),
        id: row.id,
        isOff: row.off_since !== null,
        failure: row.failure,
        person: { id: row.personId, ...personOf(row) },
        open: row.open,
      }
    );
  }

  /** Intakes whose folder is to be looked at, in every house. */
  due(db: Reader): Promise<{ houseId: string; intakeId: string }[]> {
    return db
      .selectFrom('intakes')
      .select(['house_id as houseId', 'id as intakeId'])
      .where('folder', 'is not', null)
      .where('off_since', 'is', null)
      .execute();
  }

  /** The files of the folder as they were when they were taken, by name. */
  async taken(db: Reader, houseId: string, intakeId: string): Promise<Map<string, FolderFile>> {
    const rows = await db
      .selectFrom('intake_taken')
      .select(['name', 'size', 'modified'])
      .where('house_id', '=', houseId)
      .where('intake_id', '=', intakeId)
      .execute();
    return new Map(rows.map((row) => [row.name, row]));
  }

  /** Notes that a file of the folder is taken; false where it was before, as it is now, or the intake is gone. */
  async take(trx: Trx, houseId: string, intakeId: string, { name, size, modified }: FolderFile): Promise<boolean> {
    const row = await trx
      .insertInto('intake_taken')
      .columns(['house_id', 'intake_id', 'name', 'size', 'modified'])
      .expression((eb) =>
        eb
          .selectFrom('intakes')
          .select([
            'house_id',
            'id',
            sql<string>`${name}`.as('name'),
            sql<number>`${size}::bigint`.as('size'),
            sql<Date>`${modified}::timestamptz`.as('modified'),
          ])
          .where('house_id', '=', houseId)
          .where('id', '=', intakeId),
      )
      .onConflict((conflict) =>
        conflict
          .columns(['house_id', 'intake_id', 'name'])
          .doUpdateSet({ size, modified })
          .where(sql<boolean>`(intake_taken.size, intake_taken.modified) is distinct from (excluded.size, excluded.modified)`),
      )
      .returning('name')
      .executeTakeFirst();
    return row !== undefined;
  }

  /** A file that could not be taken in, with why. */
  async addUnreadable(trx: Trx, { houseId, id: personId }: Caller, intake: Intake, name: string, why: string): Promise<void> {
    await trx
      .insertInto('returned_files')
      .values({
        house_id: houseId,
        person_id: personId,
        name,
        digest: Buffer.alloc(0),
        bytes: 0,
        register_id: intake.registerId,
        intake_id: intake.id,
        way: 'folder',
        state: 'unreadable',
        why,
      })
      .execute();
  }

  /** The files of an intake, the newest first. */
  async files(db: Reader, houseId: string, intakeId: string): Promise<IntakeFileView[]> {
    return (await this.fileQuery(db, houseId, intakeId).limit(mostListed).execute()).map(viewOf);
  }

  private fileQuery(db: Reader, houseId: string, intakeId: string) {
    return db
      .selectFrom('returned_files as file')
      .innerJoin('people', (join) => join.onRef('people.house_id', '=', 'file.house_id').onRef('people.id', '=', 'file.person_id'))
      .select(['file.id', 'file.name', 'at', 'state', 'way', 'program', 'people.name as person', 'why', 'part_of'])
      .select(sql<number>`(select count(*)::int from returned_rows where house_id = file.house_id and file_id = file.id)`.as('rows'))
      .select(
        sql<boolean>`exists (select 1 from entry_acts back where back.house_id = file.house_id
          and back.what ->> 'does' = 'back' and (back.what ->> 'of')::bigint = file.act_id)`.as('takenBack'),
      )
      .where('file.house_id', '=', houseId)
      .where('intake_id', '=', intakeId)
      .where('state', '!=', 'coming')
      .orderBy('file.id', 'desc');
  }

  /** A file, and what waits of it. */
  async file(db: Reader, houseId: string, intakeId: string, id: number): Promise<IntakeFileView[]> {
    const rows = await this.fileQuery(db, houseId, intakeId)
      .where((eb) => eb.or([eb('file.id', '=', id), eb('part_of', '=', id)]))
      .execute();
    return rows.map(viewOf);
  }
}

const personOf = (row: { readonly by: string; readonly role: Role; readonly out_since: Date | null }) => ({
  name: row.by,
  role: row.role,
  isIn: row.out_since === null,
});
interface FileRow extends Omit<IntakeFileView, 'at' | 'by' | 'partOf'> {
  readonly at: Date;
  readonly person: string;
  readonly program: string | null;
  readonly part_of: number | null;
}
const viewOf = ({ person, program, part_of, at, ...row }: FileRow): IntakeFileView => ({
  ...row,
  at: at.toISOString(),
  by: program ?? person,
  partOf: part_of,
});
const rowOf = ({ name, registerId, folder, pattern, holdsAll }: IntakeDto) => ({
  name,
  name_key: matchKey(name),
  register_id: registerId,
  folder,
  pattern,
  holds_all: holdsAll,
});
const dtoOf = (row: { name: string; register_id: string; folder: string | null; pattern: string; holds_all: boolean }): IntakeDto => ({
  name: row.name,
  registerId: row.register_id,
  folder: row.folder,
  pattern: row.pattern,
  holdsAll: row.holds_all,
});
