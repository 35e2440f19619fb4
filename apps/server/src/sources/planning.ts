// What a proposal would change, computed by the core on the state that this transaction sees.
import { Injectable } from '@nestjs/common';
import { diffCatalogs, impactOf, touchedValues, type CatalogDiff, type Item, type Question } from '@dellum/core';
import type { Proposal, SlipQuestion } from '@dellum/contract';
import { boundFields } from '../build/build.service.js';
import type { HouseBuild } from '../build/build.store.js';
import { CompiledCatalogs } from '../catalogs/compiled.service.js';
import { Counts } from '../counts/counts.js';
import type { Trx } from '../database/database.js';
import { EntriesStore } from '../entries/entries.store.js';
import { afterProposal, type SourceState } from './afterProposal.js';

export interface CatalogPlan {
  readonly catalogId: string;
  readonly diff: CatalogDiff;
  readonly questions: readonly Question[];
  readonly inside: number;
  readonly after: readonly Item[];
}
export interface Plan {
  readonly proposal: Proposal;
  readonly before: SourceState;
  readonly after: SourceState;
  readonly catalogs: readonly CatalogPlan[];
}

export const questionsOf = (plan: Plan): SlipQuestion[] => plan.catalogs.flatMap(({ catalogId, questions }) => questions.map((question) => ({ ...question, catalogId })));
export const insideOf = (plan: Plan): number => plan.catalogs.reduce((sum, { inside }) => sum + inside, 0);

@Injectable()
export class Planning {
  constructor(
    private readonly entries: EntriesStore,
    private readonly catalogs: CompiledCatalogs,
    private readonly counts: Counts,
  ) {}

  async plan(trx: Trx, build: HouseBuild, proposal: Proposal): Promise<Plan> {
    const { registerId } = proposal;
    const before: SourceState = {
      entries: await this.entries.all(trx, { houseId: build.houseId, registerId }),
      ranges: build.ranges.filter((range) => range.registerId === registerId),
    };
    const after = afterProposal(before, proposal, build.locale.language);
    const rangeIds = new Set(before.ranges.map(({ id }) => id));
    const touched = [...build.catalogs.values()].filter((catalog) => catalog.rangeIds.some((id) => rangeIds.has(id)));
    const catalogs: CatalogPlan[] = [];
    for (const { id } of touched) catalogs.push(await this.planCatalog(trx, build, id, registerId, after));
    return { proposal, before, after, catalogs };
  }

  private async planCatalog(trx: Trx, build: HouseBuild, catalogId: string, registerId: string, state: SourceState): Promise<CatalogPlan> {
    const before = await this.catalogs.get(trx, build, catalogId);
    const after = await this.catalogs.itemsIf(trx, build, catalogId, { registerId, ...state });
    const diff = diffCatalogs(before.items, after);
    const fields = boundFields(build, catalogId).map(({ id }) => id);
    const { questions, inside } = impactOf(diff, await this.counts.ofValues(trx, build.houseId, fields, touchedValues(diff)));
    return { catalogId, diff, questions, inside: Object.values(inside).reduce((sum, count) => sum + count, 0), after };
  }
}
