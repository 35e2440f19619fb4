// Files that come in, whoever brings them: taken in piece by piece, and read by a job.
import { createHash } from 'node:crypto';
import { Injectable } from '@nestjs/common';
import { mostFileBytes } from '@dellum/contract';
import type { Caller } from '../access/access.js';
import { Database, type Trx } from '../database/database.js';
import { JobsService } from '../jobs/jobs.service.js';
import { keptInParts } from './fileParts.js';
import { ReturnedStore, type Arrival } from './returned.store.js';

@Injectable()
export class ArrivalsService {
  constructor(
    private readonly database: Database,
    private readonly store: ReturnedStore,
    private readonly jobs: JobsService,
  ) {}

  /**
   * Takes a file in; its number. Nothing of one that is too large, or breaks off, is kept. `within` is done with the last of it; where it
   * says false the file is taken already, nothing of it is kept, and the answer is undefined.
   */
  async take(
    caller: Caller,
    arrival: Arrival,
    bytes: AsyncIterable<Buffer>,
    within: (trx: Trx) => Promise<boolean>,
  ): Promise<number | undefined> {
    const db = this.database.kysely;
    const { houseId } = caller;
    const id = await this.store.add(db, caller, arrival);
    try {
      const { digest, size } = await this.keep(houseId, id, bytes);
      const isTaken = await this.database.transaction(async (trx) => {
        if (!(await within(trx))) return false;
        await this.store.came(trx, houseId, id, digest, size);
        await this.jobs.send(trx, 'compare', [{ houseId, fileId: id }]);
        return true;
      });
      if (isTaken) return id;
    } catch (error) {
      await this.store.remove(db, houseId, id);
      throw error;
    }
    await this.store.remove(db, houseId, id);
    return undefined;
  }

  private async keep(houseId: string, id: number, bytes: AsyncIterable<Buffer>): Promise<{ digest: Buffer; size: number }> {
    const digest = createHash('sha256');
    const store = (part: number, own: Buffer) => this.store.addPart(this.database.kysely, houseId, id, part, own);
    const size = await keptInParts(bytes, mostFileBytes, store, (piece) => digest.update(piece));
    return { digest: digest.digest(), size };
  }
}
