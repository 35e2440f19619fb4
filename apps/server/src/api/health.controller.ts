// Whether this server and its database are there.
import { Controller, Get } from '@nestjs/common';
import { sql } from 'kysely';
import { Database } from '../database/database.js';
import { Open } from '../access/access.js';

@Controller('health')
@Open()
export class HealthController {
  constructor(private readonly database: Database) {}

  @Get()
  async health(): Promise<{ ok: true }> {
    await sql`select 1`.execute(this.database.kysely);
    return { ok: true };
  }
}
