// The second factor of a person: set up with the password and a first code, asked for at the sign-in, given up with the password.
import { Injectable } from '@nestjs/common';
import type { FactorView, NewFactor, RecoveryCodes, Role } from '@dellum/contract';
import type { Caller } from '../access/access.js';
import { ChangesStore } from '../changes/changes.store.js';
import { Database, type Trx } from '../database/database.js';
import { LedgerStore } from '../ledger/ledger.store.js';
import { notFound, ProblemError } from '../problems/index.js';
import { addressOf, newRecoveryCodes, newSecret, stepOf } from './factorCodes.js';
import { OwnPasswordService } from './ownPassword.service.js';
import { PeopleStore } from './people.store.js';
import { SecondFactorStore } from './secondFactor.store.js';
import { SessionsService } from './sessions.service.js';

const wrongCode = (message: string) => new ProblemError('not-valid', message, { faults: { code: message } });

@Injectable()
export class SecondFactorService {
  constructor(
    private readonly database: Database,
    private readonly store: SecondFactorStore,
    private readonly people: PeopleStore,
    private readonly own: OwnPasswordService,
    private readonly sessions: SessionsService,
    private readonly ledger: LedgerStore,
    private readonly changes: ChangesStore,
  ) {}

  of(caller: Caller): Promise<FactorView> {
    return this.store.view(this.database.kysely, caller.houseId, caller.id);
  }

  /** Looks at the code of somebody whose password was right; the code is used up. */
  async accepts(houseId: string, person: { readonly id: string; readonly secret: string }, code: string): Promise<boolean> {
    const db = this.database.kysely;
    const step = stepOf(person.secret, code);
    if (step !== undefined) return this.store.useStep(db, houseId, person.id, step);
    return this.store.useRecoveryCode(db, houseId, person.id, code);
  }

  /** A new secret, which holds once a code of it is shown. */
  async begin(caller: Caller, password: string, address: string): Promise<NewFactor> {
    await this.own.mustFit(caller, password, address);
    const secret = newSecret();
    const db = this.database.kysely;
    await this.store.begin(db, caller.houseId, caller.id, secret);
    const { sign_in } = await this.people.own(db, caller.houseId, caller.id);
    return { secret, address: addressOf(secret, await this.people.houseName(db, caller.houseId), sign_in) };
  }

  /** Takes the new secret, shown to work by a code. Whoever is signed in elsewhere as this person is signed out there. */
  async confirm(caller: Caller, token: string, code: string): Promise<RecoveryCodes> {
    return this.database.transaction(async (trx) => {
      const secret = await this.store.pending(trx, caller.houseId, caller.id);
      if (secret === undefined) throw wrongCode('Start over: show the code to your app first.');
      const step = stepOf(secret, code);
      if (step === undefined) throw wrongCode('This is not the code that your app shows now. Type the six digits again.');
      await this.store.keep(trx, caller.houseId, caller.id, secret, step);
      await this.sessions.endOthers(trx, caller, token);
      await this.told(trx, caller, 'person.factor-set', caller.id);
      return this.codes(trx, caller);
    });
  }

  /** New codes for paper; those from before are worth nothing any more. */
  async renewCodes(caller: Caller, password: string, address: string): Promise<RecoveryCodes> {
    await this.own.mustFit(caller, password, address);
    return this.database.transaction(async (trx) => {
      await this.told(trx, caller, 'person.codes-renewed', caller.id);
      return this.codes(trx, caller);
    });
  }

  private async codes(trx: Trx, caller: Caller): Promise<RecoveryCodes> {
    const codes = newRecoveryCodes();
    await this.store.replaceCodes(trx, caller.houseId, caller.id, codes);
    return { codes };
  }

  /** Gives one's own factor up. */
  async giveUp(caller: Caller, password: string, address: string): Promise<void> {
    await this.own.mustFit(caller, password, address);
    const { required } = await this.of(caller);
    if (required)
      throw new ProblemError('not-allowed', `The house asks every ${caller.role} for a second factor. Set up another app instead.`);
    await this.database.transaction(async (trx) => {
      await this.store.drop(trx, caller.houseId, caller.id);
      await this.told(trx, caller, 'person.factor-dropped', caller.id);
    });
  }

  /** Takes the factor of somebody away who has lost it; the person is signed out everywhere. */
  async reset(caller: Caller, id: string): Promise<void> {
    await this.database.transaction(async (trx) => {
      if (!(await this.people.byId(trx, caller.houseId, id))) throw notFound('This person');
      await this.store.drop(trx, caller.houseId, id);
      await this.sessions.endAllOf(trx, caller.houseId, id);
      await this.told(trx, caller, 'person.factor-reset', id);
    });
  }

  async requiredOf(caller: Caller): Promise<{ roles: Role[] }> {
    return { roles: await this.store.roles(this.database.kysely, caller.houseId) };
  }

  /** Says which roles need a second factor. Who has none sets it up before anything else. */
  async require(caller: Caller, roles: readonly Role[]): Promise<void> {
    await this.database.transaction(async (trx) => {
      await this.store.require(trx, caller.houseId, roles);
      await this.ledger.write(trx, caller.houseId, [{ personId: caller.id, act: 'house.factor', detail: { roles } }]);
      await this.changes.append(trx, caller.houseId, [{ audience: 'everyone', body: { kind: 'people' } }]);
    });
  }

  private async told(trx: Trx, caller: Caller, act: string, id: string): Promise<void> {
    await this.ledger.write(trx, caller.houseId, [{ personId: caller.id, act, detail: { id } }]);
    await this.changes.append(trx, caller.houseId, [{ audience: 'administrators', body: { kind: 'people' } }]);
  }
}
