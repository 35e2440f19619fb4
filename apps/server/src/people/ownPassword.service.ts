// One's own password, asked for before what matters is changed. Wrong tries count as at the sign-in.
import { Injectable } from '@nestjs/common';
import type { Caller } from '../access/access.js';
import { Database } from '../database/database.js';
import { ProblemError } from '../problems/index.js';
import { passwordFits } from './passwords.js';
import { PeopleStore } from './people.store.js';
import { TriesStore } from './tries.store.js';

export const tooManyTries = () =>
  new ProblemError('too-many-tries', 'Too many wrong tries. Wait 15 minutes, or ask an administrator to reset the password.');

/** Under which the tries of somebody who is signed in are counted. */
export const ownKey = (personId: string): string => `own ${personId}`;

@Injectable()
export class OwnPasswordService {
  constructor(
    private readonly database: Database,
    private readonly store: PeopleStore,
    private readonly tries: TriesStore,
  ) {}

  /** Throws where it is not the password; `member`: of the request, to which that is told. */
  async mustFit(caller: Caller, password: string, address: string, member = 'password'): Promise<void> {
    const person = await this.store.own(this.database.kysely, caller.houseId, caller.id);
    if (!(await this.tries.mayTry(caller.houseId, ownKey(caller.id), address))) throw tooManyTries();
    const words = 'This is not the password you have now. Type it again.';
    if (!(await passwordFits(password, person.password_hash))) throw new ProblemError('not-valid', words, { faults: { [member]: words } });
    await this.tries.forget(this.database.kysely, caller.houseId, [ownKey(caller.id)]);
  }
}
