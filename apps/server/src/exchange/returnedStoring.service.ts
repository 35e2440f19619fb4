// Stores what files brought, as acts: what somebody has looked at, or, of an intake, what fits by itself.
import { Injectable } from '@nestjs/common';
import type { Caller } from '../access/access.js';
import { Database, holdBuild, type Trx } from '../database/database.js';
import { EntryActsService } from '../entering/entryActs.service.js';
import { ReturnedRowsStore } from '../entering/returnedRows.store.js';
import { LedgerStore } from '../ledger/ledger.store.js';
import { ProblemError } from '../problems/index.js';
import { enteredRegister } from '../structure/sheetAccess.js';
import { feedsCatalogs, StructureService } from '../structure/structure.service.js';
import { ReturnedStore, type ReturnedFile } from './returned.store.js';

@Injectable()
export class ReturnedStoringService {
  constructor(
    private readonly database: Database,
    private readonly builds: StructureService,
    private readonly store: ReturnedStore,
    private readonly rows: ReturnedRowsStore,
    private readonly acts: EntryActsService,
    private readonly ledger: LedgerStore,
  ) {}

  /**
   * Stores what a file brings as it is decided, as one act of whoever says so; the build is held. Throws `no-cells` where that is nothing.
   */
  async apply(trx: Trx, caller: Caller, { id, registerId, name, intake, program }: ReturnedFile): Promise<void> {
    const build = await this.builds.at(trx, caller.houseId);
    const register = enteredRegister(build, registerId ?? '', caller);
    if (feedsCatalogs(build, register.id))
      throw new ProblemError(
        'in-use',
        `${register.title} feeds catalogs by now. Change its entries on the sheet, so that what depends on them is asked about.`,
        { users: [] },
      );
    const entries = await this.rows.entriesToWrite(trx, caller.houseId, id);
    if (entries.length === 0) throw new ProblemError('no-cells', 'There is nothing to store. What stands in the file stands here, too.');
    const actId = await this.acts.bringWithin(trx, caller, register.id, id, entries);
    await this.store.applied(trx, caller.houseId, id, actId);
    const detail = { name, entries: entries.length, ...(intake && { intake: intake.name }), ...(program !== null && { program }) };
    await this.ledger.write(trx, caller.houseId, [{ personId: caller.id, act: 'file.brought', registerId: register.id, actId, detail }]);
  }

  private async storeFitting(trx: Trx, { id, caller: { houseId } }: ReturnedFile, isPart: boolean): Promise<void> {
    const whole = isPart ? await this.store.part(trx, houseId, id) : id;
    if (isPart) await this.rows.part(trx, houseId, id, whole);
    const file = await this.store.one(trx, houseId, whole);
    if (file) await this.apply(trx, file.caller, file);
  }

  /**
   * A file of an intake has been read, which `end` notes: what fits of it is stored at once, as a file of its own where something else
   * waits. False where an earlier file of the intake goes first, or `end` says so: nothing is noted then.
   */
  async endByItself(file: ReturnedFile, end: (trx: Trx) => Promise<boolean>): Promise<boolean> {
    const { houseId } = file.caller;
    return this.database.transaction(async (trx) => {
      await holdBuild(trx, houseId);
      if (file.intake && !(await this.store.isNext(trx, houseId, file.id, file.intake))) return false;
      if (!(await end(trx))) return false;
      await this.store.forgetUnreadable(trx, file);
      const { fits, waits } = await this.rows.fitting(trx, houseId, file.id);
      if (fits > 0) await this.storeFitting(trx, file, waits > 0);
      else if (waits === 0) await this.store.applied(trx, houseId, file.id, null);
      return true;
    });
  }
}
