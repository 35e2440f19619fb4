// Why a value is offered in a field, or not: traced by the core on the state of now.
import { Injectable } from '@nestjs/common';
import { carried, catalogIdOf, examine, explain, readSourceState, type Cells, type PartNames, type TraceSources } from '@dellum/core';
import { mayDesign, type Why, type WhyDto } from '@dellum/contract';
import { StructureService, fieldWithId } from '../structure/structure.service.js';
import { registerOf } from '../structure/sheetAccess.js';
import type { FieldBuild, HouseBuild } from '../structure/structure.store.js';
import { CompiledCatalogsService } from '../compiled/compiled.service.js';
import { Database } from '../database/database.js';
import { carriesOf } from '../entries/judging.js';
import { ClosingService } from '../entering/closing.service.js';
import { EntriesStore } from '../entries/entries.store.js';
import { todayOf } from '../structure/days.js';
import type { Caller } from '../access/access.js';
import { notFound } from '../problems/index.js';
import { SourceStatesService } from '../compiled/sourceStates.service.js';

@Injectable()
export class WhyService {
  constructor(
    private readonly database: Database,
    private readonly builds: StructureService,
    private readonly catalogs: CompiledCatalogsService,
    private readonly entries: EntriesStore,
    private readonly sourceStates: SourceStatesService,
    private readonly closing: ClosingService,
  ) {}

  async of(caller: Caller, fieldId: string, dto: WhyDto): Promise<Why> {
    const db = this.database.kysely;
    const build = await this.builds.now(caller.houseId);
    const field = fieldWithId(build, fieldId);
    const register = registerOf(build, field.registerId, caller);
    const entry = dto.entry === undefined ? {} : await this.cellsOf(caller, build, field, dto.entry);
    const asked = dto.entry === undefined ? [] : [{ id: dto.entry, cells: entry }];
    const closed = await this.closing.closedTo(db, build, register, asked, caller);
    const catalogs = await this.catalogs.some(db, build, [catalogIdOf(field.rule) ?? []].flat());
    const names = {
      locale: build.locale,
      companion: (id: string, key: string) => catalogs.get(id)?.companions?.find((known) => known.key === key)?.heading ?? key,
      catalog: (id: string) => build.catalogs.get(id)?.title ?? 'a catalog',
      field: (key: string) => register.fields.find((known) => known.key === key)?.heading ?? key,
    };
    const sources = mayDesign(caller.role) ? await this.sourcesOf(build, catalogIdOf(field.rule)) : undefined;
    return explain(
      field,
      dto.text,
      {
        locale: build.locale,
        catalogs,
        today: todayOf(new Date(), build.locale),
        entry,
        fields: register.fields,
        designs: mayDesign(caller.role),
      },
      names,
      sources,
      closed(dto.entry ?? ''),
    );
  }

  private async cellsOf(caller: Caller, build: HouseBuild, field: FieldBuild, id: string): Promise<Cells> {
    const register = build.registers.get(field.registerId)!;
    const found = await this.entries.withBuild(this.database.kysely, { houseId: caller.houseId, registerId: register.id }, id);
    if (!found) throw notFound('This entry');
    return carried(found.entry.cells, carriesOf(build, register));
  }

  private async sourcesOf(build: HouseBuild, catalogId: string | undefined): Promise<TraceSources | undefined> {
    const catalog = build.catalogs.get(catalogId ?? '');
    if (!catalog) return undefined;
    const sourceState = await this.sourceStates.read(this.database.kysely, build, { catalogs: [catalog.id] });
    const reader = readSourceState(sourceState);
    const companions = reader.companions(catalog.id);
    return {
      definition: catalog.definition,
      reader,
      names: partNamesOf(build),
      nameOf: (key) => companions.find((field) => field.key === key)?.heading ?? key,
      findings: (rangeId) => examine(rangeId, sourceState, { effects: true }),
    };
  }
}

const partNamesOf = (build: HouseBuild): PartNames => ({
  range: (id) => build.ranges.find((range) => range.id === id)?.name ?? 'a range',
  register: (id) => build.registers.get(id)?.title ?? 'a sheet',
  field: (id, key) => build.registers.get(id)?.fields.find((field) => field.key === key)?.heading ?? key,
  linked: (id) => build.linked.find((source) => source.id === id)?.name ?? 'a linked source',
  catalog: (id) => build.catalogs.get(id)?.title ?? 'a catalog',
});
