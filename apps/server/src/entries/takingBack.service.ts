// Taking back on entry sheets, by the ledger: what one wrote oneself, and entries that one deleted.
import { Injectable } from '@nestjs/common';
import { carried } from '@dellum/core';
import type { RestoreEntriesDto, TakeBackCellsDto, TakenBack } from '@dellum/contract';
import { BuildService, feedsCatalogs } from '../build/build.service.js';
import { Database, holdBuild } from '../database/database.js';
import { Ledger } from '../ledger/ledger.js';
import type { Caller } from '../people/guard.js';
import { notFound, ProblemError } from '../problems/index.js';
import { EntriesStore } from './entries.store.js';
import { entryRegister, EntryWriting, writtenCells } from './entryWriting.js';
import { carriesOf } from './judging.js';
import { PlacesStore } from './places.store.js';
import { ofFields, takenBack } from './takenBack.js';

@Injectable()
export class TakingBack {
  constructor(
    private readonly database: Database,
    private readonly builds: BuildService,
    private readonly store: EntriesStore,
    private readonly places: PlacesStore,
    private readonly ledger: Ledger,
    private readonly writing: EntryWriting,
  ) {}

  /**
   * Takes back cells that the caller has written: each gets what it held before, unless somebody has changed it since. It
   * is not judged: what a cell held it may take back.
   */
  takeBack(caller: Caller, registerId: string, dto: TakeBackCellsDto): Promise<TakenBack> {
    return this.database.transaction(async (trx) => {
      await holdBuild(trx, caller.houseId);
      const build = await this.builds.at(trx, caller.houseId);
      const register = entryRegister(build, registerId, caller);
      if (feedsCatalogs(build, registerId)) throw new ProblemError('in-use', 'These entries are values elsewhere; change them by hand, so that what depends on them is asked about.', { users: [] });
      const carries = carriesOf(build, register);
      const place = { houseId: caller.houseId, registerId };
      const entries = new Map((await this.store.lock(trx, place, [...new Set(dto.cells.map(({ entry }) => entry))])).map((entry) => [entry.id, entry]));
      const wrote = await this.ledger.writtenBy(trx, caller, registerId, dto.cells);
      const { after, taken } = takenBack(register, wrote, entries, carries);
      const written = [...after].flatMap(([id, cells]) => writtenCells(entries.get(id)!, carried(entries.get(id)!.cells, carries), cells));
      return { entries: await this.writing.cells(trx, caller, register, entries, after, carries), written, changed: dto.cells.length - taken };
    });
  }

  /** Brings back entries that the caller has deleted, with all they held. Where they are values elsewhere, that is asked about. */
  async restore(caller: Caller, registerId: string, dto: RestoreEntriesDto): Promise<{ entries: string[] }> {
    const feeding = await this.database.transaction(async (trx) => {
      await holdBuild(trx, caller.houseId);
      const build = await this.builds.at(trx, caller.houseId);
      const register = entryRegister(build, registerId, caller);
      const place = { houseId: caller.houseId, registerId };
      await this.places.lockOrder(trx, place);
      const there = new Set((await this.store.lock(trx, place, dto.entries)).map(({ id }) => id));
      const deleted = await this.ledger.deletedBy(trx, caller, registerId, dto.entries.filter((id) => !there.has(id)));
      const entries = dto.entries.flatMap((id) => (deleted.has(id) ? [{ id, cells: ofFields(register, deleted.get(id)!) }] : []));
      if (entries.length === 0) throw notFound('An entry that you deleted');
      if (feedsCatalogs(build, registerId)) return entries;
      await this.writing.insert(trx, caller, register, dto.before, entries, 'entry.restored');
      return [];
    });
    if (feeding.length > 0) await this.writing.propose(caller, registerId, { act: 'insert', before: dto.before ?? null, entries: feeding });
    return { entries: dto.entries };
  }
}
