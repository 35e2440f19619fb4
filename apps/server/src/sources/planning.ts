// What a proposal would change, computed by the core on the state that this transaction sees.
import { Injectable } from '@nestjs/common';
import { afterProposal, afterStep, dependents, diffCatalogs, grouped, impactOf, itemKey, itemsAtLevel, levelsOf, meant, readWorld, touchedBy, touchedValues, type CatalogDefinition, type CatalogDiff, type Item, type KeptItem, type Proposal, type Question, type SourceWorld } from '@dellum/core';
import { registersOf, type SlipQuestion } from '@dellum/contract';
import { boundFields } from '../build/build.service.js';
import type { HouseBuild } from '../build/build.store.js';
import { CompiledCatalogs } from '../catalogs/compiled.service.js';
import { Counts } from '../counts/counts.js';
import type { Trx } from '../database/database.js';
import { Worlds } from './worlds.js';

export interface CatalogPlan {
  readonly catalogId: string;
  readonly diff: CatalogDiff;
  readonly questions: readonly Question[];
  readonly inside: number;
  readonly before: readonly Item[];
  readonly after: readonly Item[];
}
export interface Plan {
  readonly proposal: Proposal;
  readonly before: SourceWorld;
  readonly after: SourceWorld;
  readonly catalogs: readonly CatalogPlan[];
}

export const questionsOf = (plan: Plan): SlipQuestion[] => plan.catalogs.flatMap(({ catalogId, questions }) => questions.map((question) => ({ ...question, catalogId })));
export const insideOf = (plan: Plan): number => plan.catalogs.reduce((sum, { inside }) => sum + inside, 0);

/** The catalogs that a proposal touches, each after all it is composed of. Needs no entries. */
function touchedCatalogs(build: HouseBuild, proposal: Proposal): string[] {
  const definitions = new Map([...build.catalogs].map(([id, { definition }]) => [id, definition]));
  let bare: SourceWorld = { locale: build.locale, registers: new Map(), ranges: build.ranges, definitions, kept: new Map(), linked: new Map() };
  const touched = new Set<string>();
  for (const step of proposal.steps) {
    touchedBy(bare, step).forEach((id) => touched.add(id));
    bare = afterStep(bare, step);
    touchedBy(bare, step).forEach((id) => touched.add(id));
  }
  return dependents(touched, bare.definitions);
}

/** Retired values that come into the sources again are offered again, unless the proposal itself retires them. */
function reappearing(before: readonly Item[], after: readonly Item[], kept: readonly KeptItem[]): KeptItem[] {
  const hadSource = new Set(before.filter(({ from }) => from.length > 0).map(itemKey));
  const wasRetired = new Set(before.filter(({ state }) => state === 'retired').map(itemKey));
  const come = new Set(after.filter((item) => item.state === 'retired' && item.from.length > 0 && !hadSource.has(itemKey(item)) && wasRetired.has(itemKey(item))).map(itemKey));
  return kept.filter((item) => come.has(itemKey(item))).map((item) => ({ ...item, retired: false }));
}

@Injectable()
export class Planning {
  constructor(
    private readonly worlds: Worlds,
    private readonly compiled: CompiledCatalogs,
    private readonly counts: Counts,
  ) {}

  async plan(trx: Trx, build: HouseBuild, proposal: Proposal): Promise<Plan> {
    const touched = touchedCatalogs(build, proposal);
    // A definition that is proposed may read what the standing one does not.
    const proposed: HouseBuild = { ...build, catalogs: new Map([...build.catalogs].map(([id, catalog]) => [id, { ...catalog, definition: definitionAfter(proposal, id) ?? catalog.definition }])) };
    const wanted = { catalogs: touched, registers: registersOf(proposal) };
    const [standing, coming] = [await this.worlds.read(trx, build, wanted), await this.worlds.read(trx, proposed, wanted)];
    const before: SourceWorld = { ...standing, registers: new Map([...coming.registers, ...standing.registers]), linked: new Map([...coming.linked, ...standing.linked]), kept: new Map([...coming.kept, ...standing.kept]) };
    let after = afterProposal(before, proposal);
    const catalogs: CatalogPlan[] = [];
    for (const catalogId of touched) {
      const was = (await this.compiled.get(trx, build, catalogId)).items;
      const restored = reappearing(was, readWorld(after).items(catalogId), after.kept.get(catalogId) ?? []);
      if (restored.length > 0) after = afterStep(after, { what: 'items kept', catalogId, items: restored });
    }
    const reader = readWorld(after);
    for (const catalogId of touched) catalogs.push(await this.planCatalog(trx, build, catalogId, reader.items(catalogId), proposal));
    return { proposal, before, after, catalogs };
  }

  private async planCatalog(trx: Trx, build: HouseBuild, catalogId: string, after: readonly Item[], { steps, meanings = [] }: Proposal): Promise<CatalogPlan> {
    const before = (await this.compiled.get(trx, build, catalogId)).items;
    const known = meanings.filter((meaning) => meaning.catalogId === catalogId);
    const deepest = levelsOf(before) - 1;
    const bound = grouped(boundFields(build, catalogId), ({ rule }) => (rule?.kind === 'catalog' && rule.level !== deepest ? rule.level : null));
    // The deepest level is what the catalog offers, whether a field is bound to it or not.
    if (!bound.has(null)) bound.set(null, []);
    const answered = new Map(known.map(({ from, answer }) => [from, answer]));
    const plans = await Promise.all(
      [...bound].map(async ([level, fields]) => {
        const diff = meant(diffCatalogs(itemsAtLevel(before, level ?? undefined), itemsAtLevel(after, level ?? undefined)), known, after);
        const usage = await this.counts.ofValues(trx, build.houseId, fields.map(({ id }) => id), touchedValues(diff));
        return { diff, ...impactOf(diff, usage, answered) };
      }),
    );
    const inside = plans.flatMap((plan) => Object.values(plan.inside)).reduce((sum, count) => sum + count, 0);
    // Whoever retires a value has said what becomes of its entries.
    const retired = new Set(steps.flatMap((step) => (step.what === 'items kept' && step.catalogId === catalogId ? step.items.filter((item) => item.retired).map(({ value }) => value) : [])));
    const questions = plans.flatMap((plan) => plan.questions).filter(({ value, becomes }) => becomes !== undefined || !retired.has(value));
    return { catalogId, diff: joinedDiff(plans.map(({ diff }) => diff)), questions, inside, before, after };
  }
}

/** The changes of all levels of a catalog as one. */
function joinedDiff(diffs: readonly CatalogDiff[]): CatalogDiff {
  if (diffs.length === 1) return diffs[0]!;
  const all = <K extends 'added' | 'removed' | 'restored'>(which: K) => [...new Set(diffs.flatMap((diff) => diff[which]))];
  const edited = [...new Map(diffs.flatMap((diff) => diff.edited).map((edit) => [edit.from, edit])).values()];
  return { added: all('added'), removed: all('removed'), restored: all('restored'), edited, moved: diffs.some(({ moved }) => moved) };
}

/** The definition that a proposal gives to a catalog; undefined when it gives none. */
function definitionAfter({ steps }: Proposal, id: string): CatalogDefinition | undefined {
  return steps.flatMap((step) => (step.what === 'catalog changed' && step.catalogId === id ? [step.definition] : [])).at(-1);
}
