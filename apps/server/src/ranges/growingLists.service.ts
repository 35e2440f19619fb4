// A list of given values in one piece: the list on its source sheet, a growing range over it, and a catalog of the range.
import { randomUUID } from 'node:crypto';
import { Injectable } from '@nestjs/common';
import { clean, freeAmong, nameFault, ofRanges, type FieldKind, type SourceRange } from '@dellum/core';
import type { HouseBuild } from '../structure/structure.store.js';
import { CatalogsService } from '../catalogs/catalogs.service.js';
import { CountsStore, deltasOf } from '../counts/counts.store.js';
import type { Trx } from '../database/database.js';
import { EntriesStore } from '../entries/entries.store.js';
import { LedgerStore } from '../ledger/ledger.store.js';
import type { Caller } from '../access/access.js';
import { ProblemError } from '../problems/index.js';
import { SheetsStore } from '../structure/sheets.store.js';
import { SourcesStore } from '../sources/sources.store.js';

const listWidth = 160;

export interface WantedList {
  /** The source sheet on which it stands; made where there is none of this title. */
  readonly sheet: { readonly title: string; readonly note: string };
  readonly title: string;
  readonly kind: FieldKind;
  /** As they are stored. */
  readonly values: readonly string[];
  readonly note: string;
}

export interface MadeList {
  readonly catalogId: string;
  readonly rangeId: string;
  readonly registerId: string;
}

@Injectable()
export class GrowingListsService {
  constructor(
    private readonly sheets: SheetsStore,
    private readonly entries: EntriesStore,
    private readonly counts: CountsStore,
    private readonly sources: SourcesStore,
    private readonly catalogs: CatalogsService,
    private readonly ledger: LedgerStore,
  ) {}

  /** Makes it in the caller's transaction; the name must be free among the ranges. */
  async make(trx: Trx, caller: Caller, build: HouseBuild, wanted: WantedList): Promise<MadeList> {
    const { houseId } = caller;
    const title = clean(wanted.title);
    const fault = nameFault(
      title,
      build.ranges.map(({ name }) => name),
    );
    if (fault)
      throw new ProblemError(fault.code === 'name taken' ? 'name-taken' : 'name-unfit', fault.message, {
        faults: { title: fault.message },
      });
    const sheet = build.sheets.find((known) => known.kind === 'source' && known.title === wanted.sheet.title);
    const sheetId = sheet?.id ?? randomUUID();
    if (!sheet) await this.sheets.addSheet(trx, houseId, { id: sheetId, kind: 'source', ...wanted.sheet });
    const beside = [...build.registers.values()].filter((register) => register.sheetId === sheetId).map((register) => register.title);
    const registerId = randomUUID();
    const field = randomUUID();
    await this.sheets.addRegister(trx, houseId, { id: registerId, sheetId, title: freeAmong(title, beside) });
    await this.sheets.addFields(trx, houseId, registerId, [
      { id: field, key: 'value', heading: title, kind: wanted.kind, width: listWidth },
    ]);
    const rows = wanted.values.map((value) => ({ id: randomUUID(), cells: { value } }));
    await this.entries.insert(trx, { houseId, registerId }, undefined, rows);
    await this.counts.write(
      trx,
      houseId,
      rows.flatMap(({ cells }) => deltasOf({}, cells, new Map([['value', field]]))),
    );
    const range: SourceRange = {
      id: randomUUID(),
      name: title,
      shape: 'list',
      inherits: false,
      stretches: [{ registerId, fields: ['value'], start: { at: 'top' }, end: { ends: 'last' } }],
    };
    await this.sources.addRanges(trx, houseId, [range]);
    const taken = [...build.catalogs.values()].map((catalog) => catalog.title);
    const catalogId = await this.catalogs.makeWithin(trx, caller, build, {
      title: freeAmong(title, taken),
      note: wanted.note,
      definition: ofRanges([range.id]),
    });
    await this.ledger.write(trx, houseId, [
      { personId: caller.id, act: 'list.made', registerId, detail: { title, catalogId, rangeId: range.id, values: rows.length } },
    ]);
    return { catalogId, rangeId: range.id, registerId };
  }
}
