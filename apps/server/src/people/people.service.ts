// People: added, given a role, signed in and out.
import { randomUUID } from 'node:crypto';
import { Injectable } from '@nestjs/common';
import { clean, forbiddenCharacter, matchKey } from '@dellum/core';
import type { AddPersonDto, ChangePasswordDto, ChangePersonDto, Person, SignInDto } from '@dellum/contract';
import { Database, type Trx } from '../database/database.js';
import { LedgerStore } from '../ledger/ledger.store.js';
import { ChangesStore } from '../changes/changes.store.js';
import { notFound, ProblemError } from '../problems/index.js';
import type { Caller } from '../access/access.js';
import { hashPassword, mustBeStrong, passwordFits } from './passwords.js';
import { OwnPasswordService, ownKey, tooManyTries } from './ownPassword.service.js';
import { SecondFactorService } from './secondFactor.service.js';
import { KnownBrowsersService } from './knownBrowsers.service.js';
import { PeopleStore } from './people.store.js';
import { SessionsService, type BegunFrom } from './sessions.service.js';
import { TriesStore } from './tries.store.js';

const nameKey = (signIn: string): string => `name ${matchKey(signIn)}`;

@Injectable()
export class PeopleService {
  constructor(
    private readonly database: Database,
    private readonly store: PeopleStore,
    private readonly sessions: SessionsService,
    private readonly tries: TriesStore,
    private readonly browsers: KnownBrowsersService,
    private readonly own: OwnPasswordService,
    private readonly factor: SecondFactorService,
    private readonly ledger: LedgerStore,
    private readonly changes: ChangesStore,
  ) {}

  all(caller: Caller): Promise<Person[]> {
    return this.store.all(this.database.kysely, caller.houseId);
  }

  /**
   * Signs someone in; returns the Set-Cookie lines. Tries are counted in the database before the password is looked at: against the name,
   * or in a browser that the person has used before, against that browser.
   */
  async signIn(
    houseId: string,
    { signIn, password, code }: Pick<SignInDto, 'signIn' | 'password' | 'code'>,
    from: BegunFrom & { readonly address: string },
  ): Promise<string[]> {
    const db = this.database.kysely;
    const person = await this.store.bySignIn(db, houseId, signIn);
    const known = await this.browsers.keyOf(db, houseId, person?.id, from.cookies);
    const key = known ?? nameKey(signIn);
    if (!(await this.tries.mayTry(houseId, key, from.address))) throw tooManyTries();
    const fits = await passwordFits(password, person?.password_hash);
    if (!fits || !person) {
      await this.refused(houseId, person?.id, from.address);
      throw new ProblemError('wrong-sign-in', 'The sign-in name or the password is wrong. Try again.');
    }
    if (person.out_since) throw new ProblemError('wrong-sign-in', 'You are not let into this house any more. Ask an administrator.');
    if (person.factor_secret) await this.mustHaveCode(houseId, { id: person.id, secret: person.factor_secret }, code, from.address);
    return this.database.transaction(async (trx) => {
      await this.tries.forget(trx, houseId, [key, nameKey(signIn)]);
      const cookie = await this.sessions.begin(trx, houseId, person.id, from);
      await this.ledger.write(trx, houseId, [{ personId: person.id, act: 'session.begun', detail: { from: from.by ?? from.address } }]);
      await this.changes.append(trx, houseId, [{ audience: 'administrators', body: { kind: 'people' } }]);
      return known ? [cookie] : [cookie, await this.browsers.know(trx, houseId, person.id, from.secure)];
    });
  }

  private async refused(houseId: string, personId: string | undefined, from: string): Promise<void> {
    await this.database.transaction((trx) =>
      this.ledger.write(trx, houseId, [{ personId: personId ?? null, act: 'session.refused', detail: { from } }]),
    );
  }

  private async mustHaveCode(
    houseId: string,
    person: { readonly id: string; readonly secret: string },
    code: string | undefined,
    address: string,
  ): Promise<void> {
    if (code === undefined || code.trim() === '')
      throw new ProblemError('second-factor', 'Type the six digits that your app shows, or one of your codes on paper.');
    if (await this.factor.accepts(houseId, person, code)) return;
    await this.refused(houseId, person.id, address);
    throw new ProblemError('second-factor', 'This code is not right, or was used already. Type the one that your app shows now.');
  }

  async add(caller: Caller, dto: AddPersonDto): Promise<{ id: string }> {
    await mustBeStrong(dto.password, [await this.store.houseName(this.database.kysely, caller.houseId), dto.name, dto.signIn]);
    const passwordHash = await hashPassword(dto.password);
    return this.database.transaction(async (trx) => {
      const id = await this.addWithin(trx, caller.houseId, { ...dto, passwordHash });
      await this.told(trx, caller, 'person.added', { id, name: dto.name, role: dto.role });
      return { id };
    });
  }

  /** Adds a person within a transaction that does more, such as making the house. */
  async addWithin(
    trx: Trx,
    houseId: string,
    person: Pick<AddPersonDto, 'name' | 'signIn' | 'role'> & { passwordHash: string },
  ): Promise<string> {
    const name = clean(person.name);
    const signIn = clean(person.signIn);
    if (name === '' || signIn === '')
      throw new ProblemError('not-valid', 'Type a name and a sign-in name.', {
        faults: { [name === '' ? 'name' : 'signIn']: 'This must not be blank.' },
      });
    if (forbiddenCharacter(name + signIn))
      throw new ProblemError('not-valid', 'The name holds a character that cannot be stored. Type it again.');
    if (await this.store.bySignIn(trx, houseId, signIn)) {
      const words = `Somebody signs in as “${signIn}” already. Choose another sign-in name.`;
      throw new ProblemError('name-taken', words, { faults: { signIn: words } });
    }
    const id = randomUUID();
    await this.store.add(trx, houseId, { id, name, signIn, role: person.role, passwordHash: person.passwordHash });
    return id;
  }

  async change(caller: Caller, id: string, dto: ChangePersonDto): Promise<void> {
    await this.database.transaction(async (trx) => {
      await this.mustExist(trx, caller, id);
      if (dto.role && dto.role !== 'administrator' && (await this.store.otherAdministrators(trx, caller.houseId, id)) === 0) {
        throw new ProblemError('last-administrator', 'This is the only administrator. Make someone else an administrator first.');
      }
      await this.store.change(trx, caller.houseId, id, { ...(dto.name && { name: clean(dto.name) }), ...(dto.role && { role: dto.role }) });
      await this.told(trx, caller, 'person.changed', { id, ...dto });
    });
  }

  /** Sets a new password and signs the person out everywhere. */
  async resetPassword(caller: Caller, id: string, password: string): Promise<void> {
    await mustBeStrong(password, await this.wordsAbout(caller.houseId, id));
    const password_hash = await hashPassword(password);
    await this.database.transaction(async (trx) => {
      await this.mustExist(trx, caller, id);
      const { sign_in } = await this.store.own(trx, caller.houseId, id);
      await this.store.change(trx, caller.houseId, id, { password_hash });
      // Who has a new password begins anew, from wherever.
      await this.tries.forget(trx, caller.houseId, [nameKey(sign_in), ownKey(id)]);
      await this.browsers.forget(trx, caller.houseId, id);
      await this.sessions.endAllOf(trx, caller.houseId, id);
      await this.told(trx, caller, 'person.password-reset', { id });
    });
  }

  /** Puts a person out of the house, signed out everywhere, or lets them in again. Entries and history stay as they are. */
  async admit(caller: Caller, id: string, admitted: boolean): Promise<void> {
    await this.database.transaction(async (trx) => {
      await this.mustExist(trx, caller, id);
      if (!admitted && (await this.store.otherAdministrators(trx, caller.houseId, id)) === 0)
        throw new ProblemError('last-administrator', 'This is the only administrator. Make someone else an administrator first.');
      await this.store.change(trx, caller.houseId, id, { out_since: admitted ? null : new Date() });
      if (!admitted) await this.sessions.endAllOf(trx, caller.houseId, id);
      await this.told(trx, caller, admitted ? 'person.let-in' : 'person.put-out', { id });
    });
  }

  /** Changes one's own password; one stays signed in here and nowhere else. Wrong tries count as at the sign-in. */
  async changePassword(caller: Caller, token: string, { current, password }: ChangePasswordDto, address: string): Promise<void> {
    await this.own.mustFit(caller, current, address, 'current');
    const { sign_in } = await this.store.own(this.database.kysely, caller.houseId, caller.id);
    await mustBeStrong(password, await this.wordsAbout(caller.houseId, caller.id));
    const password_hash = await hashPassword(password);
    await this.database.transaction(async (trx) => {
      await this.store.change(trx, caller.houseId, caller.id, { password_hash });
      await this.tries.forget(trx, caller.houseId, [nameKey(sign_in)]);
      await this.browsers.forget(trx, caller.houseId, caller.id);
      await this.sessions.endOthers(trx, caller, token);
      await this.told(trx, caller, 'person.password-changed', { id: caller.id });
    });
  }

  async signOutEverywhere(caller: Caller, id: string): Promise<void> {
    await this.database.transaction(async (trx) => {
      await this.mustExist(trx, caller, id);
      await this.sessions.endAllOf(trx, caller.houseId, id);
      await this.told(trx, caller, 'person.signed-out', { id });
    });
  }

  /** What everybody knows of a person: no password is made of it. */
  private async wordsAbout(houseId: string, id: string): Promise<string[]> {
    const db = this.database.kysely;
    const person = await this.store.byId(db, houseId, id);
    return person ? [await this.store.houseName(db, houseId), person.name, person.sign_in] : [];
  }

  private async mustExist(trx: Trx, caller: Caller, id: string): Promise<void> {
    if (!(await this.store.byId(trx, caller.houseId, id))) throw notFound('This person');
  }

  private async told(trx: Trx, caller: Caller, act: string, detail: Record<string, unknown>): Promise<void> {
    await this.ledger.write(trx, caller.houseId, [{ personId: caller.id, act, detail }]);
    await this.changes.append(trx, caller.houseId, [{ audience: 'administrators', body: { kind: 'people' } }]);
  }
}
