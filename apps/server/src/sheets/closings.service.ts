// When entries are closed: set by administrators, with how many that would be first.
import { Injectable } from '@nestjs/common';
import { carried, closes, closingReads, type Closing } from '@dellum/core';
import type { ClosingDto, ClosingTrial } from '@dellum/contract';
import type { Caller } from '../access/access.js';
import { Database } from '../database/database.js';
import { EntriesStore } from '../entries/entries.store.js';
import { carriesOf } from '../entries/judging.js';
import { PlacesStore } from '../entries/places.store.js';
import { LedgerStore } from '../ledger/ledger.store.js';
import { notFound, ProblemError } from '../problems/index.js';
import { todayOf } from '../structure/days.js';
import { SheetsStore } from '../structure/sheets.store.js';
import { StructureService, fieldWithKey } from '../structure/structure.service.js';
import type { HouseBuild, RegisterBuild } from '../structure/structure.store.js';

@Injectable()
export class ClosingsService {
  constructor(
    private readonly database: Database,
    private readonly builds: StructureService,
    private readonly store: SheetsStore,
    private readonly entries: EntriesStore,
    private readonly places: PlacesStore,
    private readonly ledger: LedgerStore,
  ) {}

  /** How many entries would be closed now. Costs a look at every entry. */
  async trial(caller: Caller, registerId: string, dto: ClosingDto): Promise<ClosingTrial> {
    const db = this.database.kysely;
    const build = await this.builds.now(caller.houseId);
    const register = entryRegisterOf(build, registerId);
    const closing = readClosing(dto, register);
    const place = { houseId: caller.houseId, registerId };
    const entries = await this.places.total(db, place);
    if (!closing) return { closed: 0, entries };
    const today = todayOf(new Date(), build.locale);
    const carries = carriesOf(build, register);
    const filled = register.fields.map(({ key }) => key);
    const held = await this.entries.combinations(db, place, closingReads(closing), filled);
    const closed = held.filter(({ cells }) => closes(closing, carried(cells, carries), today));
    return { closed: closed.reduce((sum, one) => sum + one.entries, 0), entries };
  }

  set(caller: Caller, registerId: string, dto: ClosingDto): Promise<void> {
    return this.builds.change(caller.houseId, async (trx, build) => {
      const register = entryRegisterOf(build, registerId);
      const closing = readClosing(dto, register);
      await this.store.close(trx, caller.houseId, registerId, closing);
      await this.ledger.write(trx, caller.houseId, [
        { personId: caller.id, act: 'sheet.closing', registerId, detail: { title: register.title, closing } },
      ]);
    });
  }
}

function entryRegisterOf(build: HouseBuild, id: string): RegisterBuild {
  const register = build.registers.get(id);
  if (!register || register.source) throw notFound('This entry sheet');
  return register;
}

/** Checks what is said against the fields; null where nothing is ever closed. */
function readClosing({ where, after }: ClosingDto, register: RegisterBuild): Closing | null {
  const conditions = (where?.conditions ?? []).map(({ field, is, value }) => ({ field: fieldWithKey(register, field).key, is, value }));
  const since = after && fieldWithKey(register, after.field);
  if (since && since.kind !== 'date') {
    const words = `${since.heading} holds no dates. Choose a field of dates.`;
    throw new ProblemError('kind-unfit', words, { faults: { after: words } });
  }
  if (conditions.length === 0 && !after) return null;
  return {
    where: conditions.length === 0 ? null : { all: where!.all, conditions },
    after: after && { field: after.field, days: after.days },
  };
}
