// Sessions: a cookie holds a random token, the database its hash.
import { createHash, randomBytes } from 'node:crypto';
import { Injectable } from '@nestjs/common';
import { parseCookie, stringifySetCookie } from 'cookie';
import { isUUID } from 'class-validator';
import { sql } from 'kysely';
import { ListenerService } from '../changes/listener.service.js';
import { Database, type Reader, type Trx } from '../database/database.js';
import type { SessionView } from '@dellum/contract';
import type { Caller } from '../access/access.js';

const daysValid = 14;
const hashOf = (token: string) => createHash('sha256').update(token).digest();

const longestFrom = 200;

/** From where a session is begun. */
export interface BegunFrom {
  /** The cookies of the browser: a session that it had before ends. */
  readonly cookies: string | undefined;
  readonly secure: boolean;
  /** What the browser says it is, and its address. */
  readonly by?: string;
}

@Injectable()
export class SessionsService {
  private name: string | undefined;

  constructor(
    private readonly database: Database,
    private readonly listener: ListenerService,
  ) {}

  /** The cookie's name differs between instances, so that two on one host do not sign each other out. */
  async cookieName(): Promise<string> {
    if (!this.name) {
      const { id } = await this.database.kysely.selectFrom('instance').select('id').executeTakeFirstOrThrow();
      this.name = `dellum_${id}`;
    }
    return this.name;
  }

  private async tokenOf(cookies: string | undefined): Promise<{ houseId: string; token: string } | undefined> {
    const value = cookies ? parseCookie(cookies)[await this.cookieName()] : undefined;
    const [houseId, token] = value?.split('.') ?? [];
    return houseId && token && isUUID(houseId) ? { houseId, token } : undefined;
  }

  /** The person whose session the cookies carry; marks the session as seen at most once a minute. */
  async callerOf(cookies: string | undefined): Promise<{ caller: Caller; token: string } | undefined> {
    const held = await this.tokenOf(cookies);
    if (!held) return undefined;
    const found = await this.database.kysely
      .selectFrom('sessions')
      .innerJoin('people', (join) => join.onRef('people.house_id', '=', 'sessions.house_id').onRef('people.id', '=', 'sessions.person_id'))
      .innerJoin('houses', 'houses.id', 'sessions.house_id')
      .select(['people.id', 'people.house_id as houseId', 'people.name', 'people.role', 'sessions.last_seen_at as seen'])
      .select(sql<boolean>`people.factor_secret is null and people.role = any (houses.factor_roles)`.as('needsFactor'))
      .where('sessions.house_id', '=', held.houseId)
      .where('sessions.token_hash', '=', hashOf(held.token))
      .where('sessions.expires_at', '>', sql<Date>`now()`)
      .where('people.out_since', 'is', null)
      .executeTakeFirst();
    if (!found) return undefined;
    const { seen, ...caller } = found;
    if (Date.now() - seen.getTime() > 60_000) await this.markSeen(held.houseId, held.token);
    return { caller, token: held.token };
  }

  private async markSeen(houseId: string, token: string): Promise<void> {
    await this.database.kysely
      .updateTable('sessions')
      .set({ last_seen_at: sql`now()` })
      .where('house_id', '=', houseId)
      .where('token_hash', '=', hashOf(token))
      .execute();
  }

  /** Begins a session under a new token; a session that the browser had before ends. Returns the Set-Cookie line. */
  async begin(trx: Trx, houseId: string, personId: string, { cookies: cookiesBefore, secure, by = '' }: BegunFrom): Promise<string> {
    const before = await this.tokenOf(cookiesBefore);
    if (before) await this.end(trx, before.houseId, before.token);
    const token = randomBytes(32).toString('base64url');
    const expires = new Date(Date.now() + daysValid * 86_400_000);
    await trx
      .insertInto('sessions')
      .values({
        house_id: houseId,
        token_hash: hashOf(token),
        person_id: personId,
        expires_at: expires,
        begun_from: by.slice(0, longestFrom),
      })
      .execute();
    return stringifySetCookie({
      name: await this.cookieName(),
      value: `${houseId}.${token}`,
      httpOnly: true,
      sameSite: 'lax',
      path: '/',
      secure,
      expires,
    });
  }

  async end(db: Reader, houseId: string, token: string): Promise<void> {
    await db.deleteFrom('sessions').where('house_id', '=', houseId).where('token_hash', '=', hashOf(token)).execute();
    await this.listener.tellSessionsEnded(db, houseId);
  }

  /** The sessions of a person that go on, the newest first; `token` is the one that asks. */
  async of(db: Reader, { houseId, id }: Caller, token: string | undefined): Promise<SessionView[]> {
    const rows = await db
      .selectFrom('sessions')
      .select(['id', 'token_hash', 'begun_at', 'begun_from', 'last_seen_at'])
      .where('house_id', '=', houseId)
      .where('person_id', '=', id)
      .where('expires_at', '>', sql<Date>`now()`)
      .orderBy('begun_at', 'desc')
      .execute();
    const own = token === undefined ? undefined : hashOf(token);
    return rows.map((row) => ({
      id: row.id,
      here: own?.equals(row.token_hash) ?? false,
      begunAt: row.begun_at.toISOString(),
      lastSeen: row.last_seen_at.toISOString(),
      from: row.begun_from,
    }));
  }

  /** Ends the sessions of a person save the one that asks. */
  async endOthers(db: Reader, { houseId, id }: Caller, token: string): Promise<void> {
    await db
      .deleteFrom('sessions')
      .where('house_id', '=', houseId)
      .where('person_id', '=', id)
      .where('token_hash', '!=', hashOf(token))
      .execute();
    await this.listener.tellSessionsEnded(db, houseId);
  }

  async endAllOf(db: Reader, houseId: string, personId: string): Promise<void> {
    await db.deleteFrom('sessions').where('house_id', '=', houseId).where('person_id', '=', personId).execute();
    await this.listener.tellSessionsEnded(db, houseId);
  }

  /** Forgets sessions that are over, in every house. */
  async forgetOld(db: Reader): Promise<void> {
    await db
      .deleteFrom('sessions')
      .where('expires_at', '<', sql<Date>`now()`)
      .execute();
  }

  /** The Set-Cookie line that takes the cookie away. */
  async expiredCookie(): Promise<string> {
    return stringifySetCookie({
      name: await this.cookieName(),
      value: '',
      httpOnly: true,
      sameSite: 'lax',
      path: '/',
      expires: new Date(0),
    });
  }
}
