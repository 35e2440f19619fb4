// The hot path of a clerk's edit: entry, value counts, ledger row and change row in one call that commits by itself.
import { Injectable } from '@nestjs/common';
import type { Cells } from '@dellum/core';
import type { Change, EntryView } from '@dellum/contract';
import { sql } from 'kysely';
import type { FieldBuild } from '../structure/structure.store.js';
import { deltasOf } from '../counts/counts.store.js';
import { Database } from '../database/database.js';
import { AnnouncerService } from '../changes/announcer.service.js';
import type { Caller } from '../access/access.js';

@Injectable()
export class CellWriterService {
  constructor(
    private readonly database: Database,
    private readonly announcer: AnnouncerService,
  ) {}

  /**
   * Stores one changed cell. `before` is the entry as everybody sees it; `build` the version of the build it was judged
   * by. False when either is not of now any more: nothing was stored, and the edit is to be judged anew.
   */
  async write(caller: Caller, field: FieldBuild, build: number, before: EntryView, after: Cells): Promise<boolean> {
    const deltas = deltasOf(before.cells, after, new Map([[field.key, field.id]]));
    const change: Change = {
      kind: 'cells',
      registerId: field.registerId,
      entryId: before.id,
      version: before.version + 1,
      cells: { [field.key]: after[field.key] ?? null },
      by: caller.id,
    };
    const { rows } = await sql<{ seq: number | null }>`
      select write_cell(${caller.houseId}, ${field.registerId}, ${before.id}, ${before.version}, ${build}, ${JSON.stringify(after)}::jsonb,
        ${JSON.stringify(deltas)}::jsonb, ${caller.id}, ${field.key}, ${before.cells[field.key] ?? null}, ${after[field.key] ?? null},
        ${JSON.stringify(change)}::jsonb) as seq`.execute(this.database.kysely);
    const { seq } = rows[0]!;
    if (seq === null) return false;
    this.announcer.announce(caller.houseId, seq);
    return true;
  }
}
