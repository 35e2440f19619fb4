// Stores what was changed in a file that came back, part by part: cells, new entries, and entries that are to be deleted.
import { Injectable } from '@nestjs/common';
import { carried, noOutcome, type ActOutcome } from '@dellum/core';
import type { ReturnedRow } from '@dellum/contract';
import { EntriesStore } from '../entries/entries.store.js';
import { carriesOf } from '../entries/judging.js';
import { PlacesStore } from '../entries/places.store.js';
import { BlockWritingService, type ActAt } from './blockWriting.service.js';
import { EntryWriterService } from './entryWriter.service.js';
import { ReturnedRowsStore } from './returnedRows.store.js';
import { seenAs } from './takenBack.js';

@Injectable()
export class BringingService {
  constructor(
    private readonly rows: ReturnedRowsStore,
    private readonly entries: EntriesStore,
    private readonly places: PlacesStore,
    private readonly writing: EntryWriterService,
    private readonly blocks: BlockWritingService,
  ) {}

  async part(at: ActAt, file: number, ids: readonly string[]): Promise<ActOutcome> {
    const { trx, caller, build, register, actId } = at;
    const place = { houseId: caller.houseId, registerId: register.id };
    const rows = await this.rows.ofEntries(trx, caller.houseId, file, ids);
    await this.places.lockOrder(trx, place);
    const fresh = rows.filter(({ what }) => what === 'new').map(({ entry }) => entry);
    if (fresh.length > 0) await this.blocks.addBelow(at, fresh);
    const carries = carriesOf(build, register);
    const entries = new Map((await this.entries.lock(trx, place, ids)).map((entry) => [entry.id, entry]));

    const going = rows.filter(({ deletes, entry }) => deletes && entries.has(entry)).map(({ entry }) => entries.get(entry)!);
    const open = await this.blocks.openAmong(at, seenAs(going, carries));
    const gone = open.length > 0 ? await this.writing.remove(trx, caller, register, open, carries, actId) : 0;

    const fields = new Map(register.fields.map((field) => [field.key, field]));
    const wanted = rows.filter(({ deletes }) => !deletes).flatMap(cellsOf);
    // What somebody has changed since it was looked at stays as it is.
    const cells = wanted.flatMap(({ row, cell }) => {
      const entry = entries.get(row.entry);
      const stays =
        !entry || !fields.has(cell.field) || (row.what !== 'new' && (carried(entry.cells, carries)[cell.field] ?? '') !== cell.now);
      return stays ? [] : [{ entry: row.entry, field: cell.field, typed: cell.text, ...(cell.confirmed && { confirmed: true }) }];
    });
    const written = new Map(cells.map(({ entry }) => [entry, entries.get(entry)!]));
    const used = [...new Set(cells.map(({ field }) => field))].map((key) => fields.get(key)!);
    const outcome = cells.length > 0 ? await this.blocks.write(at, cells, used, written) : noOutcome;
    return { ...outcome, taken: outcome.taken + gone, passedOver: wanted.length - cells.length + going.length - gone };
  }
}

/** The cells of a row of which what came is taken. */
const cellsOf = (row: ReturnedRow) => row.cells.filter(({ takes }) => takes === 'came').map((cell) => ({ row, cell }));
