// Taking back on entry sheets, by the ledger: what one wrote oneself, and entries that one deleted.
import { Injectable } from '@nestjs/common';
import { carried } from '@dellum/core';
import type { RestoreEntriesDto, TakeBackCellsDto, TakenBack } from '@dellum/contract';
import { LedgerStore } from '../ledger/ledger.store.js';
import type { Caller } from '../access/access.js';
import { notFound } from '../problems/index.js';
import { EntriesStore } from '../entries/entries.store.js';
import { ClosingService } from './closing.service.js';
import { EntryWriterService, Waits, writtenCells } from './entryWriter.service.js';
import { carriesOf } from '../entries/judging.js';
import { PlacesStore } from '../entries/places.store.js';
import { repeatedBy, RepeatsService } from './repeats.service.js';
import { ofFields, seenAs, seenIn, takenBack } from './takenBack.js';

@Injectable()
export class TakingBackService {
  constructor(
    private readonly store: EntriesStore,
    private readonly places: PlacesStore,
    private readonly ledger: LedgerStore,
    private readonly writing: EntryWriterService,
    private readonly repeats: RepeatsService,
    private readonly closing: ClosingService,
  ) {}

  /**
   * Takes back cells that the caller has written: each gets what it held before, unless somebody has changed it since, or
   * another entry holds by now what may stand once. Nothing else is judged: what a cell held it may take back.
   */
  takeBack(caller: Caller, registerId: string, dto: TakeBackCellsDto): Promise<TakenBack> {
    return this.writing.enter(caller, registerId, async (at): Promise<TakenBack | Waits> => {
      const { trx, build, register } = at;
      const carries = carriesOf(build, register);
      const place = { houseId: caller.houseId, registerId };
      const entries = new Map(
        (await this.store.lock(trx, place, [...new Set(dto.cells.map(({ entry }) => entry))])).map((entry) => [entry.id, entry]),
      );
      await this.closing.mustBeOpen(trx, build, register, seenAs(entries.values(), carries), caller);
      const wrote = await this.ledger.writtenBy(trx, caller, registerId, dto.cells);
      // What an edit of one's own has cleared or filled goes back with it, whoever may change it by itself.
      const back = takenBack(register, wrote, entries, carries, true);
      const { after, left } = await this.repeats.leaveOut(trx, caller.houseId, register, seenIn(entries, carries), back.after);
      const written = [...after].flatMap(([id, cells]) => writtenCells(entries.get(id)!, carried(entries.get(id)!.cells, carries), cells));
      const now = await this.writing.change(at, caller, entries, after, carries);
      return now instanceof Waits ? now : { entries: now, written, changed: dto.cells.length - back.taken + left };
    });
  }

  /** Brings back entries that the caller has deleted, with all they held. Where they are values elsewhere, that is asked about. */
  restore(caller: Caller, registerId: string, dto: RestoreEntriesDto): Promise<{ entries: string[] }> {
    return this.writing.enter(caller, registerId, async (at): Promise<{ entries: string[] } | Waits> => {
      const { trx, register } = at;
      const place = { houseId: caller.houseId, registerId };
      await this.places.lockOrder(trx, place);
      const there = new Set((await this.store.lock(trx, place, dto.entries)).map(({ id }) => id));
      const deleted = await this.ledger.deletedBy(
        trx,
        caller,
        registerId,
        dto.entries.filter((id) => !there.has(id)),
      );
      const entries = dto.entries.flatMap((id) => (deleted.has(id) ? [{ id, cells: ofFields(register, deleted.get(id)!) }] : []));
      if (entries.length === 0) throw notFound('An entry that you deleted');
      const { left } = await this.repeats.leaveOut(
        trx,
        caller.houseId,
        register,
        new Map(),
        new Map(entries.map(({ id, cells }) => [id, cells])),
      );
      if (left > 0) throw repeatedBy('');
      return (await this.writing.add(at, caller, dto.before ?? undefined, entries, 'entry.restored')) ?? { entries: dto.entries };
    });
  }
}
