// Arrangements: how each person looks at a register. Entries are arranged when they are asked for and stay where they are,
// whatever is written to them, until entries come or go or the person arranges them anew.
import { Injectable } from '@nestjs/common';
import type { RawBuilder } from 'kysely';
import { emptyWithin, fittingTo, type Arrangement } from '@dellum/core';
import type { ArrangementDto, WantedDto, ArrangementView, EntryView, HeldValues, ValuesQueryDto } from '@dellum/contract';
import { StructureService, fieldWithKey } from '../structure/structure.service.js';
import { registerOf } from '../structure/sheetAccess.js';
import type { HouseBuild, RegisterBuild } from '../structure/structure.store.js';
import { CompiledCatalogsService } from '../compiled/compiled.service.js';
import { CountsStore } from '../counts/counts.store.js';
import { Database, type Reader, type Trx } from '../database/database.js';
import { carriesOf, catalogsOf } from '../entries/judging.js';
import { OutsideHoldingsService } from '../outside/outsideHoldings.service.js';
import { PlacesStore } from '../entries/places.store.js';
import type { Caller } from '../access/access.js';
import { ProblemError } from '../problems/index.js';
import { arrangedSql } from './arrangedSql.js';
import { ArrangementsStore, type Mine } from './arrangements.store.js';

const mine = (caller: Caller, registerId: string): Mine => ({ houseId: caller.houseId, personId: caller.id, registerId });

@Injectable()
export class ArrangementsService {
  constructor(
    private readonly database: Database,
    private readonly builds: StructureService,
    private readonly catalogs: CompiledCatalogsService,
    private readonly store: ArrangementsStore,
    private readonly places: PlacesStore,
    private readonly counts: CountsStore,
    private readonly outside: OutsideHoldingsService,
  ) {}

  async of(caller: Caller, registerId: string): Promise<ArrangementView> {
    const register = registerOf(await this.builds.now(caller.houseId), registerId, caller);
    const { version, arrangement } = await this.store.of(this.database.kysely, mine(caller, registerId));
    return { version, arrangement: fittingTo(arrangement, register.fields) };
  }

  async keep(caller: Caller, registerId: string, dto: ArrangementDto): Promise<ArrangementView> {
    const register = registerOf(await this.builds.now(caller.houseId), registerId, caller);
    const arrangement = readArrangement(dto, register);
    return this.database.transaction(async (trx) => {
      const before = await this.store.of(trx, mine(caller, registerId));
      const same =
        JSON.stringify([before.arrangement.sort, before.arrangement.only]) === JSON.stringify([arrangement.sort, arrangement.only]);
      return this.store.keep(trx, mine(caller, registerId), arrangement, !same);
    });
  }

  /** Brings the entries into order by what they hold now. */
  async anew(caller: Caller, registerId: string): Promise<ArrangementView> {
    registerOf(await this.builds.now(caller.houseId), registerId, caller);
    return this.database.transaction(async (trx) =>
      this.store.keep(trx, mine(caller, registerId), (await this.store.of(trx, mine(caller, registerId))).arrangement, true),
    );
  }

  /** A page of the entries as the caller has arranged them. */
  async page(
    caller: Caller,
    build: HouseBuild,
    register: RegisterBuild,
    from: number,
    count: number,
  ): Promise<{ total: number; entries: EntryView[] }> {
    const own = mine(caller, register.id);
    const total =
      (await this.store.standing(this.database.kysely, own, false)) ??
      (await this.database.transaction((trx) => this.arranged(trx, build, register, own)));
    const ids = await this.store.ids(this.database.kysely, own, from, count);
    return { total, entries: await this.store.entriesOf(this.database.kysely, own, ids) };
  }

  /**
   * The ids from one entry to another, both included, as the caller has arranged them; an end left out is open. Undefined when an end is
   * not among them. `most`: no more than the first so many.
   */
  async between(
    trx: Trx,
    caller: Caller,
    build: HouseBuild,
    register: RegisterBuild,
    first: string | undefined,
    last: string | undefined,
    most = Infinity,
  ): Promise<string[] | undefined> {
    const own = mine(caller, register.id);
    const total = await this.arranged(trx, build, register, own);
    const ends = [first, last].flatMap((id) => id ?? []);
    const places = await this.store.placesOf(trx, own, ends);
    if (places.length < new Set(ends).size) return undefined;
    const all = [...places, ...(first === undefined ? [0] : []), ...(last === undefined ? [total - 1] : [])];
    const [from, to] = [Math.min(...all), Math.max(...all)];
    return this.store.ids(trx, own, from, Math.min(most, to - from + 1));
  }

  /** All entries as the person has arranged them, by an expression that gives their ids in order. */
  async allIds(trx: Trx, caller: Caller, build: HouseBuild, register: RegisterBuild): Promise<RawBuilder<string[]>> {
    const own = mine(caller, register.id);
    await this.arranged(trx, build, register, own);
    return this.store.allIds(own);
  }

  /** Arranges the entries unless they stand arranged; returns how many they are. */
  private async arranged(trx: Trx, build: HouseBuild, register: RegisterBuild, own: Mine): Promise<number> {
    const standing = await this.store.standing(trx, own, true);
    if (standing !== undefined) return standing;
    const view = await this.store.of(trx, own);
    if (view.version === 0) await this.store.keep(trx, own, view.arrangement, true);
    return this.store.arrange(trx, own, await this.sqlOf(trx, build, register, fittingTo(view.arrangement, register.fields)));
  }

  /** The order and the conditions of an arrangement, as a statement takes them. */
  async sqlOf(db: Reader, build: HouseBuild, register: RegisterBuild, arrangement: Wanted): Promise<ReturnType<typeof arrangedSql>> {
    const sorted = arrangement.sort.map(({ field }) => fieldWithKey(register, field));
    const catalogs = await this.catalogs.some(db, build, catalogsOf(sorted));
    const wanted = arrangement.only.filter(({ only }) => only === 'outside').map(({ field }) => fieldWithKey(register, field));
    const outside = new Map(
      await Promise.all(wanted.map(async (field) => [field.key, await this.outside.of(db, build, register, [field])] as const)),
    );
    const carries = carriesOf(build, register);
    // Several values are counted one by one. What is being corrected is counted as everybody sees it, and looked for as such.
    const single = sorted.filter(({ kind }) => kind !== 'several values');
    const held = await Promise.all(single.map((field) => this.counts.hasFew(db, build.houseId, field.id)));
    const few = new Set(single.filter((_, at) => held[at]).map(({ key }) => key));
    return arrangedSql(arrangement, { houseId: build.houseId, register, carries, catalogs, outside, few });
  }

  /** The values that entries hold in a field, for choosing among them. */
  async values(caller: Caller, registerId: string, { field: key, search }: ValuesQueryDto): Promise<HeldValues> {
    const db = this.database.kysely;
    const register = registerOf(await this.builds.now(caller.houseId), registerId, caller);
    const field = fieldWithKey(register, key);
    const values = await this.counts.mostHeld(db, caller.houseId, field.id, search ?? '', mostValues + 1);
    const held = (await this.counts.held(db, caller.houseId, [field.id])).get(field.id) ?? 0;
    return {
      values: values.slice(0, mostValues),
      blank: (await this.places.total(db, { houseId: caller.houseId, registerId })) - held,
      more: values.length > mostValues,
    };
  }
}

const mostValues = 200;

/** Which entries are shown, and in which order. */
type Wanted = Pick<Arrangement, 'sort' | 'only'>;

/** Checks which entries are wanted; every field that is named must be there. */
export function readWanted(dto: WantedDto, register: RegisterBuild): Wanted {
  for (const { field } of [...dto.sort, ...dto.only]) fieldWithKey(register, field);
  const only = dto.only.map((one): Arrangement['only'][number] => {
    const { field } = one;
    switch (one.only) {
      case 'values':
        return { only: 'values', field, values: one.values ?? [] };
      case 'outside':
        return { only: 'outside', field };
      case 'text':
        return { only: 'text', field, text: one.text ?? '' };
      case 'within': {
        const within = { only: 'within' as const, field, from: one.from ?? null, until: one.until ?? null };
        if (emptyWithin(within, fieldWithKey(register, field).kind !== 'date'))
          throw new ProblemError('not-valid', 'The end lies before the beginning, so nothing would be shown. Swap them.', {
            faults: { until: 'Swap them.' },
          });
        return within;
      }
    }
  });
  return { sort: dto.sort, only };
}

function readArrangement(dto: ArrangementDto, register: RegisterBuild): Arrangement {
  const arrangement: Arrangement = {
    ...readWanted(dto, register),
    fields: dto.fields.map(({ field, hidden, width }) => ({ field, hidden, width: width ?? null })),
    inView: dto.inView,
    colouredBy: dto.colouredBy ?? null,
  };
  return fittingTo(arrangement, register.fields);
}
