// Whether this server can take requests: its database answers, and it is not about to stop.
import { Injectable, type BeforeApplicationShutdown } from '@nestjs/common';
import { sql } from 'kysely';
import { Database } from '../database/database.js';

@Injectable()
export class Readiness implements BeforeApplicationShutdown {
  private stopping = false;

  constructor(private readonly database: Database) {}

  async isReady(): Promise<boolean> {
    if (this.stopping) return false;
    return sql`select 1`.execute(this.database.kysely).then(
      () => true,
      () => false,
    );
  }

  beforeApplicationShutdown(): void {
    this.stopping = true;
  }
}
