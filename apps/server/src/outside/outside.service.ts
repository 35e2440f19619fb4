// Which entries hold what their rule does not find right. Computed from the distinct values of a field, or where its rule
// depends on other fields of the entry, from the distinct combinations; never stored.
import { Injectable } from '@nestjs/common';
import { blankIsWrong, canBeOutside, carried, catalogIdOf, entriesHeld, isOutside, readsOf, type Held } from '@dellum/core';
import type { FieldCount } from '@dellum/contract';
import type { FieldBuild, HouseBuild } from '../structure/structure.store.js';
import { CompiledCatalogsService } from '../compiled/compiled.service.js';
import type { Reader } from '../database/database.js';
import { EntriesStore } from '../entries/entries.store.js';
import { PlacesStore } from '../entries/places.store.js';
import { CombinationsStore, manyEntries, type Combined } from '../counts/combinations.store.js';
import { CountsStore } from '../counts/counts.store.js';
import { JobsService } from '../jobs/jobs.service.js';

/** How many entries hold something in a field, and what of it is outside. */
export interface Found {
  readonly held: number;
  readonly outside: readonly Held[];
}

export const entriesIn = ({ outside }: Found): number => entriesHeld(outside);

/** What is found in a field, in numbers. */
export const countOf = ({ id, key }: FieldBuild, found: ReadonlyMap<string, Found>): FieldCount => {
  const { held, outside } = found.get(id)!;
  return { fieldId: id, held, outside: entriesHeld(outside), blank: entriesHeld(outside.filter(({ cells }) => !(key in cells))) };
};

/** Fields that some reading of a register knows under these keys. */
const mostKnown = 500;

@Injectable()
export class OutsideService {
  /** Combinations by field, of the moment in the life of the house at which they were counted. */
  private readonly known = new Map<string, { seq: number; rule: string; held: readonly Held[] }>();

  constructor(
    private readonly counts: CountsStore,
    private readonly combinations: CombinationsStore,
    private readonly jobs: JobsService,
    private readonly catalogs: CompiledCatalogsService,
    private readonly places: PlacesStore,
    private readonly entries: EntriesStore,
  ) {}

  /** What is held and outside in some fields; a field may carry a rule that is only tried. */
  async of(db: Reader, build: HouseBuild, fields: readonly FieldBuild[]): Promise<Map<string, Found>> {
    // Fields in which nothing can be outside may hold a million distinct values; they are summed by the database.
    const checked = fields.filter(canBeOutside);
    const summed = await this.counts.held(
      db,
      build.houseId,
      fields.filter((field) => !canBeOutside(field)).map(({ id }) => id),
    );
    const held = await this.heldIn(db, build, checked);
    // Counted value by value, entries with several would count more than once.
    const several = new Map(
      await Promise.all(
        fields
          .filter(({ kind }) => kind === 'several values')
          .map(async ({ id, registerId, key }) => [id, await this.counts.filled(db, build.houseId, registerId, key)] as const),
      ),
    );
    const catalogs = await this.catalogs.some(
      db,
      build,
      checked.flatMap(({ rule }) => catalogIdOf(rule) ?? []),
    );
    return new Map(
      fields.map((field) => {
        const rows = held.get(field.id);
        if (!rows) return [field.id, { held: several.get(field.id) ?? summed.get(field.id) ?? 0, outside: [] }];
        const register = build.registers.get(field.registerId)!;
        const carries = build.carries.filter(({ registerId }) => registerId === register.id);
        const context = { locale: build.locale, catalogs, fields: register.fields };
        const filled = several.get(field.id) ?? entriesHeld(rows.filter(({ cells }) => field.key in cells));
        return [field.id, { held: filled, outside: rows.filter(({ cells }) => isOutside(field, carried(cells, carries), context)) }];
      }),
    );
  }

  /** What each of some fields holds, with what its rule reads besides, as rows hold it. */
  async heldIn(db: Reader, build: HouseBuild, fields: readonly FieldBuild[]): Promise<Map<string, readonly Held[]>> {
    const alone = fields.filter(({ rule }) => readsOf(rule).length === 0);
    const counts = await this.counts.ofFields(
      db,
      build.houseId,
      alone.map(({ id }) => id),
    );
    const held = new Map(
      alone.map(
        ({ id, key }) => [id, [...(counts.get(id) ?? [])].map(([value, entries]): Held => ({ cells: { [key]: value }, entries }))] as const,
      ),
    );
    for (const field of alone.filter(blankIsWrong)) {
      const blanks = await this.blanks(db, build.houseId, field, held.get(field.id)!);
      if (blanks > 0) held.get(field.id)!.push({ cells: {}, entries: blanks });
    }
    const depending = fields.filter(({ rule }) => readsOf(rule).length > 0);
    if (depending.length === 0) return held;
    const seq = await this.momentOf(db, build.houseId);
    for (const [id, rows] of await Promise.all(
      depending.map(async (field) => [field.id, await this.combined(db, build, field, seq)] as const),
    ))
      held.set(id, [...rows]);
    return held;
  }

  /** How many entries hold nothing in a field. */
  private async blanks(db: Reader, houseId: string, { registerId, key, kind }: FieldBuild, held: readonly Held[]): Promise<number> {
    const total = await this.places.total(db, { houseId, registerId });
    return total - (kind === 'several values' ? await this.counts.filled(db, houseId, registerId, key) : entriesHeld(held));
  }

  private async momentOf(db: Reader, houseId: string): Promise<number> {
    const { seq } = await db.selectFrom('house_counters').select('seq').where('house_id', '=', houseId).executeTakeFirstOrThrow();
    return seq;
  }

  /**
   * The distinct combinations of a field with those its rule reads. In a large register they are kept once they were asked for; until then,
   * and where they are too many, it costs a look at every entry, once a change of the house.
   */
  private async combined(db: Reader, build: HouseBuild, field: FieldBuild, seq: number): Promise<readonly Held[]> {
    const wanted = { houseId: build.houseId, registerId: field.registerId, keys: keysOf(field) };
    const kept = await this.combinations.of(db, wanted);
    if (typeof kept !== 'string') return blankIsWrong(field) ? kept : kept.filter(({ cells }) => field.key in cells);
    const held = await this.scanned(db, wanted, field.id, blankIsWrong(field), seq);
    const own = build.registers.get(field.registerId)!.fields.find(({ id }) => id === field.id);
    // Of a rule that is only tried nothing is kept.
    const isSet = own !== undefined && keysOf(own).join() === wanted.keys.join();
    if (kept === 'unknown' && isSet && entriesHeld(held) > manyEntries) await this.jobs.send(undefined, 'combine', [wanted]);
    return held;
  }

  private async scanned(db: Reader, { houseId, registerId, keys }: Combined, fieldId: string, withBlanks: boolean, seq: number) {
    const id = `${houseId}/${fieldId}/${withBlanks}`;
    const known = this.known.get(id);
    if (known?.seq === seq && known.rule === keys.join()) return known.held;
    const held = await this.entries.combinations(db, { houseId, registerId }, keys, withBlanks ? undefined : keys.slice(0, 1));
    if (this.known.size >= mostKnown) this.known.clear();
    this.known.set(id, { seq, rule: keys.join(), held });
    return held;
  }
}

/** The field, and those that its rule reads. */
const keysOf = ({ key, rule }: FieldBuild): readonly string[] => [key, ...readsOf(rule)];
