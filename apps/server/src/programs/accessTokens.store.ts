// Queries for access tokens. Of a token only its hash is kept.
import { Injectable } from '@nestjs/common';
import { matchKey } from '@dellum/core';
import type { AccessTokenView } from '@dellum/contract';
import { sql } from 'kysely';
import type { Reader, Trx } from '../database/database.js';

type Opened = Pick<AccessTokenView, 'id' | 'name' | 'writes' | 'catalogs' | 'registers' | 'until'>;
export interface NewToken extends Opened {
  readonly hash: Buffer;
  readonly madeBy: string;
}
export type TokenRow = Omit<AccessTokenView, 'over'> & { readonly ended: boolean };
export interface TokenUse extends Opened {
  /** How often it was used in this minute, this time included. */
  readonly asked: number;
}

const day = sql<string>`to_char(until, 'YYYY-MM-DD')`;

@Injectable()
export class AccessTokensStore {
  async add(trx: Trx, houseId: string, { hash, madeBy, name, catalogs, registers, ...token }: NewToken): Promise<void> {
    await trx
      .insertInto('access_tokens')
      .values({
        house_id: houseId,
        ...token,
        name,
        name_key: matchKey(name),
        catalogs: [...catalogs],
        registers: [...registers],
        token_hash: hash,
        made_by: madeBy,
      })
      .execute();
  }

  async all(db: Reader, houseId: string): Promise<TokenRow[]> {
    const rows = await db
      .selectFrom('access_tokens as token')
      .leftJoin('people', (join) => join.onRef('people.house_id', '=', 'token.house_id').onRef('people.id', '=', 'token.made_by'))
      .select(['token.id', 'token.name', 'writes', 'catalogs', 'registers', 'people.name as by', 'made_at', 'last_used_at', 'ended_at'])
      .select(day.as('until'))
      .where('token.house_id', '=', houseId)
      .orderBy('made_at', 'desc')
      .orderBy('token.id')
      .execute();
    return rows.map(({ made_at, last_used_at, ended_at, ...row }) => ({
      ...row,
      at: made_at.toISOString(),
      lastUsed: last_used_at?.toISOString() ?? null,
      ended: ended_at !== null,
    }));
  }

  /** Ends a token for good; its name if it was not over before. */
  async end(trx: Trx, houseId: string, id: string): Promise<string | undefined> {
    const ended = await trx
      .updateTable('access_tokens')
      .set({ ended_at: new Date() })
      .where('house_id', '=', houseId)
      .where('id', '=', id)
      .where('ended_at', 'is', null)
      .returning('name')
      .executeTakeFirst();
    return ended?.name;
  }

  /** Notes that a token is used, and counts it in its minute; undefined for one that was ended or never made. */
  use(db: Reader, houseId: string, hash: Buffer): Promise<TokenUse | undefined> {
    const minute = sql<Date>`date_trunc('minute', now())`;
    return db
      .updateTable('access_tokens')
      .set((eb) => ({
        last_used_at: sql<Date>`now()`,
        asked: eb
          .case()
          .when('minute', '=', minute)
          .then(eb('asked', '+', 1))
          .else(1)
          .end(),
        minute,
      }))
      .where('house_id', '=', houseId)
      .where('token_hash', '=', hash)
      .where('ended_at', 'is', null)
      .returning(['id', 'name', 'writes', 'catalogs', 'registers', 'asked'])
      .returning(day.as('until'))
      .executeTakeFirst();
  }

  /**
   * Claims a key of a token for what is asked; whoever sends it a second time waits here until the first is done. What was answered before
   * comes back with it.
   */
  async claimKey(
    trx: Trx,
    houseId: string,
    tokenId: string,
    key: string,
    asked: Buffer,
  ): Promise<'new' | { readonly asked: Buffer; readonly answer: unknown }> {
    const added = await trx
      .insertInto('program_answers')
      .values({ house_id: houseId, token_id: tokenId, key, asked })
      .onConflict((conflict) => conflict.doNothing())
      .executeTakeFirst();
    if (added.numInsertedOrUpdatedRows === 1n) return 'new';
    return trx
      .selectFrom('program_answers')
      .select(['asked', 'answer'])
      .where('house_id', '=', houseId)
      .where('token_id', '=', tokenId)
      .where('key', '=', key)
      .executeTakeFirstOrThrow();
  }

  async answer(trx: Trx, houseId: string, tokenId: string, key: string, answer: unknown): Promise<void> {
    await trx
      .updateTable('program_answers')
      .set({ answer: JSON.stringify(answer) })
      .where('house_id', '=', houseId)
      .where('token_id', '=', tokenId)
      .where('key', '=', key)
      .execute();
  }

  /** Forgets answers of more than a week ago, in every house. */
  async forgetOld(db: Reader): Promise<void> {
    await db
      .deleteFrom('program_answers')
      .where('at', '<', sql<Date>`now() - interval '7 days'`)
      .execute();
  }
}
