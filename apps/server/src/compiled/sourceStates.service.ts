// Reads from the database as much of the sources as a question needs: a fixed number of queries, whatever it asks.
import { Injectable } from '@nestjs/common';
import { grouped, partReads, type Entry, type LinkedRow, type RegisterId, type RegisterState, type SourceState } from '@dellum/core';
import type { HouseBuild } from '../structure/structure.store.js';
import { CatalogsStore } from './catalogs.store.js';
import type { Reader } from '../database/database.js';
import { EntriesStore } from '../entries/entries.store.js';

interface Wanted {
  readonly catalogs?: Iterable<string>;
  readonly registers?: Iterable<RegisterId>;
  /** All ranges are known; this adds the registers under some of them. */
  readonly ranges?: Iterable<string>;
}

/** The catalogs and all they are composed of, with the registers and linked sources that these read. */
function closure(build: HouseBuild, wanted: Wanted): { catalogs: Set<string>; registers: Set<RegisterId>; linked: Set<string> } {
  const catalogs = new Set<string>();
  const registers = new Set(wanted.registers ?? []);
  const linked = new Set<string>();
  const rangeById = new Map(build.ranges.map((range) => [range.id, range]));
  const addRange = (id: string) => rangeById.get(id)?.stretches.forEach(({ registerId }) => registers.add(registerId));
  const visit = (id: string) => {
    if (catalogs.has(id)) return;
    catalogs.add(id);
    for (const part of build.catalogs.get(id)?.definition.parts ?? []) {
      const reads = partReads(part);
      reads.ranges?.forEach(addRange);
      if (reads.anyRange) build.ranges.forEach(({ id: range }) => addRange(range));
      reads.registers?.forEach((register) => registers.add(register));
      reads.linked?.forEach((source) => linked.add(source));
      reads.catalogs?.forEach(visit);
    }
  };
  for (const id of wanted.catalogs ?? []) visit(id);
  for (const id of wanted.ranges ?? []) addRange(id);
  return { catalogs, registers, linked };
}

@Injectable()
export class SourceStatesService {
  constructor(
    private readonly entries: EntriesStore,
    private readonly catalogs: CatalogsStore,
  ) {}

  async read(db: Reader, build: HouseBuild, wanted: Wanted): Promise<SourceState> {
    const { catalogs, registers, linked } = closure(build, wanted);
    const entries = await this.entriesOf(db, build, [...registers]);
    return {
      locale: build.locale,
      registers: new Map([...registers].flatMap((id) => this.state(build, id, entries.get(id) ?? []))),
      ranges: build.ranges,
      definitions: new Map([...build.catalogs].map(([id, { definition }]) => [id, definition])),
      kept: await this.catalogs.kept(db, build.houseId, [...catalogs]),
      linked: await this.linked(db, build.houseId, [...linked]),
    };
  }

  private state(build: HouseBuild, id: RegisterId, entries: readonly Entry[]): [RegisterId, RegisterState][] {
    const register = build.registers.get(id);
    if (!register) return [];
    const fields = register.fields.map(({ key, heading, kind }) => ({ key, heading, kind }));
    return [[id, { id, heading: register.title, fields, entries }]];
  }

  private async entriesOf(db: Reader, build: HouseBuild, registerIds: readonly RegisterId[]): Promise<Map<RegisterId, Entry[]>> {
    const rows = await this.entries.allOf(db, build.houseId, registerIds);
    return new Map(
      [...grouped(rows, ({ registerId }) => registerId)].map(([id, own]) => [
        id,
        own.map(({ id: entry, cells }) => ({ id: entry, cells })),
      ]),
    );
  }

  private async linked(db: Reader, houseId: string, ids: readonly string[]): Promise<Map<string, readonly LinkedRow[]>> {
    if (ids.length === 0) return new Map();
    const rows = await db
      .selectFrom('linked_sources')
      .select(['id', 'rows'])
      .where('house_id', '=', houseId)
      .where('id', 'in', ids)
      .execute();
    return new Map(rows.map((row) => [row.id, row.rows]));
  }
}
