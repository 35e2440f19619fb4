// Houses: the first one is made on the first page; later every request belongs to one.
import { randomUUID } from 'node:crypto';
import { Injectable } from '@nestjs/common';
import { addressKey, clean, houseLocale, type Locale } from '@dellum/core';
import type { ChangeHouseDto, MakeHouseDto, Me, Threshold } from '@dellum/contract';
import { sql } from 'kysely';
import { todayOf } from '../structure/days.js';
import { StructureService } from '../structure/structure.service.js';
import { LedgerStore } from '../ledger/ledger.store.js';
import { Database, type Reader, type Trx } from '../database/database.js';
import type { Caller } from '../access/access.js';
import { hashPassword, mustBeStrong } from '../people/passwords.js';
import { PeopleService } from '../people/people.service.js';
import { SessionsService } from '../people/sessions.service.js';
import { ProblemError } from '../problems/index.js';
import { demoAccounts } from './demoAccounts.js';

/** The key of a house in addresses: its name in small letters, digits and hyphens. */
export const houseKey = (name: string): string => addressKey(name, 'house');

export async function houseNameOf(db: Reader, houseId: string): Promise<string> {
  return (await db.selectFrom('houses').select('name').where('id', '=', houseId).executeTakeFirstOrThrow()).name;
}

/** Makes a house without people; used by the first page, the demo and the tests. */
export async function makeHouse(trx: Trx, house: { key: string; name: string; demo: boolean; locale?: Locale }): Promise<string> {
  const id = randomUUID();
  await trx
    .insertInto('houses')
    .values({ id, key: house.key, name: clean(house.name), locale: JSON.stringify(house.locale ?? houseLocale), demo: house.demo })
    .execute();
  await trx.insertInto('house_counters').values({ house_id: id, seq: 0 }).execute();
  return id;
}

@Injectable()
export class HousesService {
  constructor(
    private readonly database: Database,
    private readonly people: PeopleService,
    private readonly sessions: SessionsService,
    private readonly builds: StructureService,
    private readonly ledger: LedgerStore,
  ) {}

  async threshold(key: string | undefined): Promise<Threshold> {
    const houses = await this.database.kysely.selectFrom('houses').select(['key', 'name', 'demo']).orderBy('key').limit(2).execute();
    const named = key
      ? await this.database.kysely.selectFrom('houses').select(['key', 'name', 'demo']).where('key', '=', key).executeTakeFirst()
      : undefined;
    const house = named ?? (houses.length === 1 ? houses[0] : undefined);
    return {
      empty: houses.length === 0,
      house: house ? { key: house.key, name: house.name } : null,
      demoAccounts: house?.demo ? demoAccounts : [],
    };
  }

  async houseOfSignIn(key: string | undefined): Promise<string> {
    const houses = await this.database.kysely
      .selectFrom('houses')
      .select(['id', 'key'])
      .$if(key !== undefined, (query) => query.where('key', '=', key!))
      .limit(2)
      .execute();
    if (houses.length === 1) return houses[0]!.id;
    throw new ProblemError(
      'wrong-sign-in',
      'Say which house you belong to: type its short name as it stands in the address you were given.',
    );
  }

  async me(caller: Caller): Promise<Me> {
    const house = await this.database.kysely
      .selectFrom('houses')
      .select(['key', 'name', 'locale', 'demo'])
      .where('id', '=', caller.houseId)
      .executeTakeFirstOrThrow();
    return {
      id: caller.id,
      name: caller.name,
      role: caller.role,
      ...(caller.needsFactor && { needsFactor: true as const }),
      house: { ...house, today: todayOf(new Date(), house.locale) },
    };
  }

  /** Changes how the house is called, and how it writes dates, numbers and amounts. What is stored stays as it is. */
  async change(caller: Caller, { name, ...written }: ChangeHouseDto): Promise<void> {
    const fault = wrongWriting(written);
    if (fault) throw new ProblemError('not-valid', fault.message, { faults: { [fault.part]: fault.message } });
    const called = name === undefined ? undefined : clean(name);
    if (called === '') throw new ProblemError('not-valid', 'Type the name of the house.', { faults: { name: 'This must not be blank.' } });
    await this.builds.change(caller.houseId, async (trx, build) => {
      const locale: Locale = { ...build.locale, ...written };
      await trx
        .updateTable('houses')
        .set({ locale: JSON.stringify(locale), ...(called !== undefined && { name: called }) })
        .where('id', '=', caller.houseId)
        .execute();
      await this.ledger.write(trx, caller.houseId, [
        { personId: caller.id, act: 'house.changed', detail: { before: build.locale, after: locale, name: called } },
      ]);
    });
  }

  /** Makes the first house and its first administrator, and signs them in. Only while there is no house. */
  async makeFirst(dto: MakeHouseDto, from: { cookies: string | undefined; secure: boolean }): Promise<string> {
    await mustBeStrong(dto.password, [dto.house, dto.name, dto.signIn]);
    const passwordHash = await hashPassword(dto.password);
    return this.database.transaction(async (trx) => {
      await sql`lock table houses in exclusive mode`.execute(trx);
      if (await trx.selectFrom('houses').select('id').limit(1).executeTakeFirst()) {
        throw new ProblemError('house-exists', 'There is a house already. Sign in, or ask its administrator to add you.');
      }
      const houseId = await makeHouse(trx, { key: houseKey(dto.house), name: dto.house, demo: false });
      const personId = await this.people.addWithin(trx, houseId, {
        name: dto.name,
        signIn: dto.signIn,
        role: 'administrator',
        passwordHash,
      });
      return this.sessions.begin(trx, houseId, personId, from);
    });
  }
}

/** What of the chosen ways of writing this server cannot do, or undefined. */
export function wrongWriting({
  language,
  currency,
  timeZone,
}: Omit<ChangeHouseDto, 'name'>): { part: string; message: string } | undefined {
  if (language !== undefined && Intl.DateTimeFormat.supportedLocalesOf([language]).length === 0)
    return { part: 'language', message: `“${language}” is not a language that can be written here. Choose another.` };
  if (currency !== undefined && !Intl.supportedValuesOf('currency').includes(currency))
    return { part: 'currency', message: `“${currency}” is not a currency. Choose one by its code of three letters.` };
  if (timeZone !== undefined && timeZone !== 'UTC' && !Intl.supportedValuesOf('timeZone').includes(timeZone))
    return { part: 'timeZone', message: `“${timeZone}” is not a time zone. Choose one of the list.` };
  return undefined;
}
