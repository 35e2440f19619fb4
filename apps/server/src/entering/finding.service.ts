// Finding a text in what the cells of a register show, and the sums of a block. Costs distinct values, not entries.
import { Injectable } from '@nestjs/common';
import { finds, format, isNumeric } from '@dellum/core';
import type { BlockDto, BlockSum, FindDto, Found } from '@dellum/contract';
import { ArrangementsService } from '../arrangements/arrangements.service.js';
import { StructureService, fieldWithKey } from '../structure/structure.service.js';
import { registerOf } from '../structure/sheetAccess.js';
import type { FieldBuild, HouseBuild, RegisterBuild } from '../structure/structure.store.js';
import { CountsStore } from '../counts/counts.store.js';
import { Database, type Reader } from '../database/database.js';
import type { Caller } from '../access/access.js';
import { notFound } from '../problems/index.js';
import { FindingStore } from './finding.store.js';
import { carriesOf } from '../entries/judging.js';

/** So many values of a field are named. */
const mostNamed = 20;

@Injectable()
export class FindingService {
  constructor(
    private readonly database: Database,
    private readonly builds: StructureService,
    private readonly counts: CountsStore,
    private readonly store: FindingStore,
    private readonly arrangements: ArrangementsService,
  ) {}

  async find(caller: Caller, registerId: string, dto: FindDto): Promise<Found> {
    const db = this.database.kysely;
    const build = await this.builds.now(caller.houseId);
    const register = registerOf(build, registerId, caller);
    const fields = dto.fields.map((key) => fieldWithKey(register, key));
    const counts = await this.counts.ofFields(
      db,
      caller.houseId,
      fields.map(({ id }) => id),
    );
    const found = fields
      .map((field) => ({
        field,
        values: [...(counts.get(field.id) ?? [])]
          .filter(([value]) => finds(dto.search, format(field.kind, value, build.locale)))
          .map(([value, entries]) => ({ value, entries }))
          .sort((a, b) => b.entries - a.entries),
      }))
      .filter(({ values }) => values.length > 0);
    const cellsIn = (values: readonly { entries: number }[]) => values.reduce((sum, { entries }) => sum + entries, 0);
    return {
      cells: found.reduce((sum, { values }) => sum + cellsIn(values), 0),
      fields: found.map(({ field, values }) => ({ field: field.key, cells: cellsIn(values), values: values.slice(0, mostNamed) })),
      next: await this.next(db, caller, build, register, found, dto),
    };
  }

  /** The next entry that holds one of the values; after the last one, the first again. */
  private async next(
    db: Reader,
    caller: Caller,
    build: HouseBuild,
    register: RegisterBuild,
    found: readonly { field: FieldBuild; values: readonly { value: string }[] }[],
    { after, arranged }: FindDto,
  ): Promise<Found['next']> {
    if (found.length === 0) return null;
    const carries = carriesOf(build, register);
    const wanted = found.map(({ field, values }) => {
      const held = new Set(values.map(({ value }) => value));
      return {
        key: field.key,
        values: [...held, ...carries.filter((carry) => carry.field === field.key && held.has(carry.to)).map(({ from }) => from)],
      };
    });
    const place = { houseId: caller.houseId, registerId: register.id };
    if (arranged) await this.arrangements.page(caller, build, register, 0, 1);
    const order = arranged ? { personId: caller.id } : undefined;
    return (
      (await this.store.nextHolding(db, place, wanted, after, order)) ??
      (after === undefined ? null : ((await this.store.nextHolding(db, place, wanted, undefined, order)) ?? null))
    );
  }

  async sum(caller: Caller, registerId: string, block: BlockDto): Promise<BlockSum> {
    const build = await this.builds.now(caller.houseId);
    const register = registerOf(build, registerId, caller);
    const fields = block.fields.map((key) => fieldWithKey(register, key));
    return this.database.transaction(async (trx) => {
      const place = { houseId: caller.houseId, registerId };
      const ids = block.arranged ? await this.arrangements.between(trx, caller, build, register, block.first, block.last) : undefined;
      if (block.arranged && !ids) throw notFound('An end of the block');
      const numeric = fields.filter(({ kind }) => isNumeric(kind)).map(({ key }) => key);
      return this.store.sum(
        trx,
        place,
        ids ?? { first: block.first, last: block.last },
        fields.map(({ key }) => key),
        numeric,
      );
    });
  }
}
