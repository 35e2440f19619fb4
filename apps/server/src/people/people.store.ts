// Queries for people and their sign-in.
import { Injectable } from '@nestjs/common';
import { matchKey } from '@dellum/core';
import type { Person, Role } from '@dellum/contract';
import { sql } from 'kysely';
import type { Reader, Trx } from '../database/database.js';

@Injectable()
export class PeopleStore {
  async all(db: Reader, houseId: string): Promise<Person[]> {
    const rows = await db
      .selectFrom('people')
      .leftJoin('sessions', (join) =>
        join
          .onRef('sessions.house_id', '=', 'people.house_id')
          .onRef('sessions.person_id', '=', 'people.id')
          .on('sessions.expires_at', '>', sql<Date>`now()`),
      )
      .select(['people.id', 'people.name', 'people.sign_in', 'people.role', 'people.out_since'])
      .select(sql<boolean>`people.factor_secret is not null`.as('factor'))
      .select((eb) => [eb.fn.count<number>('sessions.token_hash').as('sessions'), eb.fn.max('sessions.last_seen_at').as('seen')])
      .where('people.house_id', '=', houseId)
      .groupBy(['people.house_id', 'people.id'])
      .orderBy('people.name')
      .execute();
    return rows.map(({ sign_in, seen, out_since, ...person }) => ({
      ...person,
      signIn: sign_in,
      lastSeen: seen?.toISOString() ?? null,
      outSince: out_since?.toISOString() ?? null,
    }));
  }

  byId(db: Reader, houseId: string, id: string) {
    return db
      .selectFrom('people')
      .select(['id', 'name', 'role', 'sign_in'])
      .where('house_id', '=', houseId)
      .where('id', '=', id)
      .executeTakeFirst();
  }

  async houseName(db: Reader, houseId: string): Promise<string> {
    return (await db.selectFrom('houses').select('name').where('id', '=', houseId).executeTakeFirstOrThrow()).name;
  }

  bySignIn(db: Reader, houseId: string, signIn: string) {
    return db
      .selectFrom('people')
      .select(['id', 'name', 'role', 'password_hash', 'out_since', 'factor_secret'])
      .where('house_id', '=', houseId)
      .where('sign_in_key', '=', matchKey(signIn))
      .executeTakeFirst();
  }

  own(db: Reader, houseId: string, id: string) {
    return db
      .selectFrom('people')
      .select(['sign_in', 'password_hash'])
      .where('house_id', '=', houseId)
      .where('id', '=', id)
      .executeTakeFirstOrThrow();
  }

  async add(
    trx: Trx,
    houseId: string,
    person: { id: string; name: string; signIn: string; role: Role; passwordHash: string },
  ): Promise<void> {
    await trx
      .insertInto('people')
      .values({
        house_id: houseId,
        id: person.id,
        name: person.name,
        sign_in: person.signIn,
        sign_in_key: matchKey(person.signIn),
        role: person.role,
        password_hash: person.passwordHash,
      })
      .execute();
  }

  async change(
    trx: Trx,
    houseId: string,
    id: string,
    change: { name?: string; role?: Role; password_hash?: string; out_since?: Date | null },
  ): Promise<void> {
    if (Object.keys(change).length === 0) return;
    await trx.updateTable('people').set(change).where('house_id', '=', houseId).where('id', '=', id).execute();
  }

  async otherAdministrators(trx: Trx, houseId: string, id: string): Promise<number> {
    const others = await trx
      .selectFrom('people')
      .select('id')
      .where('house_id', '=', houseId)
      .where('role', '=', 'administrator')
      .where('out_since', 'is', null)
      .where('id', '!=', id)
      .forUpdate()
      .execute();
    return others.length;
  }
}
