// Queries for forms, their versions, links and what was filled.
import { createHash } from 'node:crypto';
import { Injectable } from '@nestjs/common';
import type { FormLayout } from '@dellum/core';
import type { FormLink, FormView } from '@dellum/contract';
import { sql } from 'kysely';
import type { Reader, Trx } from '../database/database.js';

const hashOf = (token: string): Buffer => createHash('sha256').update(token).digest();

/** A link as whoever has its token finds it. */
export interface LinkRow {
  readonly houseId: string;
  readonly id: string;
  readonly formId: string;
  readonly expires: Date;
  readonly perHour: number;
  readonly closed: boolean;
}
export interface FormVersion {
  readonly version: number;
  readonly title: string;
  readonly layout: FormLayout;
}

/** An entry that came through a form. */
export interface Filling {
  readonly entryId: string;
  readonly linkId: string | null;
  readonly version: number;
}

@Injectable()
export class FormsStore {
  async add(trx: Trx, houseId: string, form: { id: string; registerId: string; title: string; layout: FormLayout }): Promise<void> {
    await trx
      .insertInto('forms')
      .values({
        house_id: houseId,
        id: form.id,
        register_id: form.registerId,
        title: form.title,
        layout: JSON.stringify(form.layout),
        published: null,
      })
      .execute();
  }

  async draft(db: Reader, houseId: string, id: string): Promise<{ edition: number; layout: FormLayout } | undefined> {
    return db.selectFrom('forms').select(['edition', 'layout']).where('house_id', '=', houseId).where('id', '=', id).executeTakeFirst();
  }

  async versions(db: Reader, houseId: string, id: string): Promise<FormView['versions']> {
    const { rows } = await sql<{ version: number; at: Date; by: string; filled: number }>`
      select form_versions.version, form_versions.at, people.name as by,
        (select count(*) from form_fillings where house_id = ${houseId} and form_id = ${id} and version = form_versions.version) as filled
      from form_versions join people on people.house_id = form_versions.house_id and people.id = form_versions.person_id
      where form_versions.house_id = ${houseId} and form_id = ${id} order by version desc`.execute(db);
    return rows.map((row) => ({ ...row, at: row.at.toISOString() }));
  }

  async links(db: Reader, houseId: string, id: string): Promise<FormLink[]> {
    const { rows } = await sql<Omit<FormLink, 'expires'> & { expires: Date }>`
      select form_links.id, people.name as by, expires_at as expires, per_hour as "perHour", closed_at is not null as closed,
        (select count(*) from form_fillings where house_id = ${houseId} and link_id = form_links.id) as filled
      from form_links join people on people.house_id = form_links.house_id and people.id = form_links.person_id
      where form_links.house_id = ${houseId} and form_id = ${id} order by form_links.at desc`.execute(db);
    return rows.map((row) => ({ ...row, expires: row.expires.toISOString() }));
  }

  /** Changes the layout as it was in this edition; false when somebody else was first. */
  async lay(trx: Trx, houseId: string, id: string, edition: number, change: { title: string; layout: FormLayout }): Promise<boolean> {
    const { numUpdatedRows } = await trx
      .updateTable('forms')
      .set({ title: change.title, layout: JSON.stringify(change.layout), edition: edition + 1 })
      .where('house_id', '=', houseId)
      .where('id', '=', id)
      .where('edition', '=', edition)
      .executeTakeFirst();
    return numUpdatedRows > 0n;
  }

  /** Adds the next version and shows it to those who fill the form. */
  async publish(trx: Trx, houseId: string, id: string, personId: string, form: { title: string; layout: FormLayout }): Promise<number> {
    const { last } = await trx
      .selectFrom('form_versions')
      .select((eb) => eb.fn.max<number | null>('version').as('last'))
      .where('house_id', '=', houseId)
      .where('form_id', '=', id)
      .executeTakeFirstOrThrow();
    const version = (last ?? 0) + 1;
    await trx
      .insertInto('form_versions')
      .values({ house_id: houseId, form_id: id, version, title: form.title, layout: JSON.stringify(form.layout), person_id: personId })
      .execute();
    await trx.updateTable('forms').set({ published: version }).where('house_id', '=', houseId).where('id', '=', id).execute();
    return version;
  }

  async close(trx: Trx, houseId: string, id: string): Promise<void> {
    await trx.updateTable('forms').set({ published: null }).where('house_id', '=', houseId).where('id', '=', id).execute();
  }

  async remove(trx: Trx, houseId: string, id: string): Promise<void> {
    await trx.deleteFrom('forms').where('house_id', '=', houseId).where('id', '=', id).execute();
  }

  async version(db: Reader, houseId: string, id: string, version: number): Promise<FormVersion | undefined> {
    return db
      .selectFrom('form_versions')
      .select(['version', 'title', 'layout'])
      .where('house_id', '=', houseId)
      .where('form_id', '=', id)
      .where('version', '=', version)
      .executeTakeFirst();
  }

  async addLink(
    trx: Trx,
    houseId: string,
    link: { id: string; formId: string; token: string; expires: Date; perHour: number; personId: string },
  ): Promise<void> {
    await trx
      .insertInto('form_links')
      .values({
        house_id: houseId,
        id: link.id,
        form_id: link.formId,
        token_hash: hashOf(link.token),
        expires_at: link.expires,
        per_hour: link.perHour,
        person_id: link.personId,
        closed_at: null,
      })
      .execute();
  }

  async closeLink(trx: Trx, houseId: string, formId: string, id: string): Promise<boolean> {
    const { numUpdatedRows } = await trx
      .updateTable('form_links')
      .set({ closed_at: new Date() })
      .where('house_id', '=', houseId)
      .where('form_id', '=', formId)
      .where('id', '=', id)
      .where('closed_at', 'is', null)
      .executeTakeFirst();
    return numUpdatedRows > 0n;
  }

  /** The link of a token, in whichever house. */
  async link(db: Reader, token: string): Promise<LinkRow | undefined> {
    const row = await db
      .selectFrom('form_links')
      .select(['house_id', 'id', 'form_id', 'expires_at', 'per_hour', 'closed_at'])
      .where('token_hash', '=', hashOf(token))
      .executeTakeFirst();
    return (
      row && {
        houseId: row.house_id,
        id: row.id,
        formId: row.form_id,
        expires: row.expires_at,
        perHour: row.per_hour,
        closed: row.closed_at !== null,
      }
    );
  }

  /** How many entries came by a link within the last hour. The link stays locked, so that two at once are counted one after the other. */
  async filledWithinHour(trx: Trx, { houseId, id }: Pick<LinkRow, 'houseId' | 'id'>): Promise<number> {
    await trx.selectFrom('form_links').select('id').where('house_id', '=', houseId).where('id', '=', id).forUpdate().execute();
    const { filled } = await trx
      .selectFrom('form_fillings')
      .select((eb) => eb.fn.countAll<number>().as('filled'))
      .where('house_id', '=', houseId)
      .where('link_id', '=', id)
      .where('at', '>', sql<Date>`now() - interval '1 hour'`)
      .executeTakeFirstOrThrow();
    return filled;
  }

  /**
   * Claims a submission for an entry. False when it was stored before; one that is being stored at this moment is waited for.
   */
  async claim(
    trx: Trx,
    houseId: string,
    filling: { formId: string; submission: string; version: number; entryId: string; linkId: string | null },
  ): Promise<boolean> {
    const { rows } = await sql`
      insert into form_fillings (house_id, form_id, submission, version, entry_id, link_id)
      values (${houseId}, ${filling.formId}, ${filling.submission}, ${filling.version}, ${filling.entryId}, ${filling.linkId})
      on conflict do nothing returning submission`.execute(trx);
    return rows.length > 0;
  }

  /** What a submission became, by which link, if it came by one. */
  async fillingOf(db: Reader, houseId: string, formId: string, submission: string): Promise<Filling | undefined> {
    return db
      .selectFrom('form_fillings')
      .select(['entry_id as entryId', 'link_id as linkId', 'version'])
      .where('house_id', '=', houseId)
      .where('form_id', '=', formId)
      .where('submission', '=', submission)
      .executeTakeFirst();
  }

  /** The version that a form had when a link to it was made; 0 when it had none. */
  async versionWhenMade(db: Reader, { houseId, formId, id }: Pick<LinkRow, 'houseId' | 'formId' | 'id'>): Promise<number> {
    const { version } = await db
      .selectFrom('form_versions')
      .innerJoin('form_links', (join) =>
        join
          .onRef('form_links.house_id', '=', 'form_versions.house_id')
          .onRef('form_links.form_id', '=', 'form_versions.form_id')
          .onRef('form_links.at', '>=', 'form_versions.at'),
      )
      .select((eb) => eb.fn.max('form_versions.version').as('version'))
      .where('form_versions.house_id', '=', houseId)
      .where('form_versions.form_id', '=', formId)
      .where('form_links.id', '=', id)
      .executeTakeFirstOrThrow();
    return version ?? 0;
  }
}
