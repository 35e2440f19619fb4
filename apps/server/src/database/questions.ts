// Questions that may take long (a search through all entries): so few at once a person, and so long at most, that one person's questions
// never keep others from what they enter.
import { Injectable } from '@nestjs/common';
import { sql } from 'kysely';
import type { Reader } from './database.js';
import { Standby } from './standby.js';

/** Questions of one person that are answered at the same time; others wait for them. */
const mostAtOnce = 2;
/** Milliseconds after which the database gives a question up. */
const longest = 20_000;

@Injectable()
export class Questions {
  private readonly asking = new Map<string, number>();
  private readonly waiting = new Map<string, (() => void)[]>();

  constructor(private readonly standby: Standby) {}

  /** Asks in the turn of the person. What takes too long is given up as busy. */
  async ask<T>(
    { id: personId, houseId }: { readonly id: string; readonly houseId: string },
    question: (db: Reader) => Promise<T>,
  ): Promise<T> {
    await this.turn(personId);
    try {
      return await this.standby.read(houseId, (db) =>
        db.transaction().execute(async (trx) => {
          await sql`select set_config('statement_timeout', ${String(longest)}, true), set_config('transaction_read_only', 'on', true)`.execute(
            trx,
          );
          return question(trx);
        }),
      );
    } finally {
      this.next(personId);
    }
  }

  private async turn(personId: string): Promise<void> {
    const now = this.asking.get(personId) ?? 0;
    if (now < mostAtOnce) return void this.asking.set(personId, now + 1);
    // Whoever ends hands the turn on.
    await new Promise<void>((go) => this.waiting.set(personId, [...(this.waiting.get(personId) ?? []), go]));
  }

  private next(personId: string): void {
    const [go, ...rest] = this.waiting.get(personId) ?? [];
    if (rest.length > 0) this.waiting.set(personId, rest);
    else this.waiting.delete(personId);
    if (go) return go();
    const left = (this.asking.get(personId) ?? 1) - 1;
    if (left > 0) this.asking.set(personId, left);
    else this.asking.delete(personId);
  }
}
