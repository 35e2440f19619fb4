// Browsers in which a person has signed in before. Wrong tries elsewhere count against the name, and never keep the person out of them.
import { createHash, randomBytes } from 'node:crypto';
import { Injectable } from '@nestjs/common';
import { parseCookie, stringifySetCookie } from 'cookie';
import { sql } from 'kysely';
import type { Reader, Trx } from '../database/database.js';
import { SessionsService } from './sessions.service.js';

const daysKnown = 400;
/** So many browsers of a person are known; the one used longest ago goes. */
const mostKnown = 20;
const hashOf = (token: string) => createHash('sha256').update(token).digest();

@Injectable()
export class KnownBrowsersService {
  constructor(private readonly sessions: SessionsService) {}

  private async cookieName(): Promise<string> {
    return `${await this.sessions.cookieName()}_known`;
  }

  /** What tries from this browser are counted under, where the person has signed in with it before. */
  async keyOf(db: Reader, houseId: string, personId: string | undefined, cookies: string | undefined): Promise<string | undefined> {
    const token = cookies ? parseCookie(cookies)[await this.cookieName()] : undefined;
    if (!token || personId === undefined) return undefined;
    const known = await db
      .selectFrom('known_browsers')
      .select('at')
      .where('house_id', '=', houseId)
      .where('person_id', '=', personId)
      .where('token_hash', '=', hashOf(token))
      .where('at', '>', sql<Date>`now() - make_interval(days => ${daysKnown})`)
      .executeTakeFirst();
    return known && `browser ${hashOf(token).toString('base64url')}`;
  }

  /** Knows the browser from now on; returns the Set-Cookie line. */
  async know(trx: Trx, houseId: string, personId: string, secure: boolean): Promise<string> {
    const token = randomBytes(32).toString('base64url');
    await trx
      .insertInto('known_browsers')
      .values({ house_id: houseId, person_id: personId, token_hash: hashOf(token) })
      .execute();
    await sql`delete from known_browsers where house_id = ${houseId} and person_id = ${personId} and token_hash in (
      select token_hash from known_browsers where house_id = ${houseId} and person_id = ${personId} order by at desc offset ${mostKnown})`.execute(
      trx,
    );
    return stringifySetCookie({
      name: await this.cookieName(),
      value: token,
      httpOnly: true,
      sameSite: 'lax',
      path: '/api/v1/session',
      secure,
      maxAge: daysKnown * 86_400,
    });
  }

  /** Knows none of the person's browsers any more: the password is another one now. */
  async forget(trx: Trx, houseId: string, personId: string): Promise<void> {
    await trx.deleteFrom('known_browsers').where('house_id', '=', houseId).where('person_id', '=', personId).execute();
  }
}
