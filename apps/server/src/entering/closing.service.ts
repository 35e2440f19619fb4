// Which entries are closed to somebody. Whoever changed an entry last may put it right for a while: what closes it may have been a slip.
import { Injectable } from '@nestjs/common';
import { closedWords, isClosed, type Cells } from '@dellum/core';
import { mayDesign, type Role } from '@dellum/contract';
import type { Reader } from '../database/database.js';
import { LedgerStore } from '../ledger/ledger.store.js';
import { ProblemError } from '../problems/index.js';
import { todayOf } from '../structure/days.js';
import type { HouseBuild, RegisterBuild } from '../structure/structure.store.js';

/** How long whoever changed an entry last may go on with it; minutes. */
export const stillOpen = 15;

interface Person {
  readonly id: string | null;
  readonly role: Role;
}

@Injectable()
export class ClosingService {
  constructor(private readonly ledger: LedgerStore) {}

  /** What is said of an edit of an entry that is closed to somebody; undefined for one that is open. */
  async closedTo(
    db: Reader,
    build: HouseBuild,
    { id: registerId, closing, fields }: RegisterBuild,
    entries: readonly { readonly id: string; readonly cells: Cells }[],
    person: Person,
  ): Promise<(entry: string) => string | undefined> {
    const none = () => undefined;
    if (!closing || mayDesign(person.role)) return none;
    const today = todayOf(new Date(), build.locale);
    const closed = entries.filter(({ cells }) => isClosed(closing, cells, today)).map(({ id }) => id);
    if (closed.length === 0) return none;
    const own = await this.ledger.changedLastBy(db, build.houseId, registerId, closed, person.id, stillOpen);
    const words = closedWords(closing, fields, build.locale);
    const told = new Set(closed.filter((id) => !own.has(id)));
    return (entry) => (told.has(entry) ? words : undefined);
  }

  /** Throws `entry-closed` where one of the entries is closed to somebody. */
  async mustBeOpen(...asked: Parameters<ClosingService['closedTo']>): Promise<void> {
    const [, , , entries] = asked;
    const closed = await this.closedTo(...asked);
    const words = entries.flatMap(({ id }) => closed(id) ?? []);
    if (words.length === 0) return;
    const many =
      entries.length === 1
        ? ''
        : ` ${words.length === 1 ? 'One' : words.length} of ${entries.length} chosen entries cannot be changed, so nothing is.`;
    throw new ProblemError('entry-closed', `${words[0]!}${many}`);
  }
}
