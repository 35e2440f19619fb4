// Says to every server which houses have changed. It is said once a change is committed, and in few statements however many commit at once:
// PostgreSQL lets transactions that announce something commit one after the other, those of all houses, each with its write to the disk.
import { Injectable, Logger, type BeforeApplicationShutdown } from '@nestjs/common';
import { sql } from 'kysely';
import { Database } from '../database/database.js';

/** The channel of LISTEN/NOTIFY; its payload is `house:seq`. */
export const liveChannel = 'dellum_live';

@Injectable()
export class AnnouncerService implements BeforeApplicationShutdown {
  /** The newest change of each house that nobody was told of yet. */
  private untold = new Map<string, number>();
  private telling: Promise<void> | undefined;
  private readonly logger = new Logger('live');

  constructor(private readonly database: Database) {}

  /** Announces a change of a house that is committed. */
  announce(houseId: string, seq: number): void {
    this.untold.set(houseId, Math.max(seq, this.untold.get(houseId) ?? 0));
    this.telling ??= this.tell().finally(() => (this.telling = undefined));
  }

  /** Tells what there is to tell, and then what came meanwhile. */
  private async tell(): Promise<void> {
    while (this.untold.size > 0) {
      const payloads = [...this.untold].map(([houseId, seq]) => `${houseId}:${seq}`);
      this.untold = new Map();
      // Whoever does not hear it sees it when the numbers are looked at.
      await sql`select pg_notify(${liveChannel}, payload) from unnest(${payloads}::text[]) as payload`
        .execute(this.database.kysely)
        .catch((error: unknown) =>
          this.logger.warn(
            `Changes could not be announced (${error instanceof Error ? error.message : String(error)}); they are seen later.`,
          ),
        );
    }
  }

  async beforeApplicationShutdown(): Promise<void> {
    await this.telling;
  }
}
