// What a proposal would change, computed by the core on the state that this transaction sees.
import { Injectable } from '@nestjs/common';
import {
  afterProposal,
  afterStep,
  carried,
  compileCatalog,
  dependents,
  diffCatalogs,
  displaced,
  grouped,
  impactOf,
  itemKey,
  levelsOf,
  losesStanding,
  meant,
  questionKey,
  readsOf,
  readSourceState,
  ruleAs,
  standingChange,
  touchedBy,
  touchedValues,
  type CatalogDefinition,
  type CatalogDiff,
  type CompanionField,
  type Item,
  type KeptItem,
  type Proposal,
  type Question,
  type SourceState,
  type StandingChange,
} from '@dellum/core';
import { registersOf, type SlipQuestion, type TurnedEntries } from '@dellum/contract';
import { boundFields } from '../structure/structure.service.js';
import type { FieldBuild, HouseBuild } from '../structure/structure.store.js';
import { CompiledCatalogsService } from '../compiled/compiled.service.js';
import { CountsStore } from '../counts/counts.store.js';
import { OutsideService } from '../outside/outside.service.js';
import type { Trx } from '../database/database.js';
import { SourceStatesService } from '../compiled/sourceStates.service.js';

export interface CatalogPlan {
  readonly catalogId: string;
  readonly diff: CatalogDiff;
  readonly questions: readonly Question[];
  /** Entries that come outside by it whatever is answered, and those that come inside, by field. */
  readonly outside: Readonly<Record<string, number>>;
  readonly inside: number;
  readonly before: readonly Item[];
  readonly after: readonly Item[];
  readonly companions: readonly CompanionField[];
}
export interface Plan {
  readonly proposal: Proposal;
  readonly before: SourceState;
  readonly after: SourceState;
  readonly catalogs: readonly CatalogPlan[];
}

export const questionsOf = (plan: Plan): SlipQuestion[] =>
  plan.catalogs.flatMap(({ catalogId, questions }) => questions.map((question) => ({ ...question, catalogId })));
export const outsideOf = (plan: Plan): TurnedEntries[] =>
  [
    ...grouped(
      plan.catalogs.flatMap(({ outside }) => Object.entries(outside)),
      ([fieldId]) => fieldId,
    ),
  ].map(([fieldId, counts]) => ({ fieldId, entries: counts.reduce((sum, [, entries]) => sum + entries, 0) }));
export const insideOf = (plan: Plan): number => plan.catalogs.reduce((sum, { inside }) => sum + inside, 0);

/** The catalogs that a proposal touches, each after all it is composed of. Needs no entries. */
function touchedCatalogs(build: HouseBuild, proposal: Proposal): string[] {
  const definitions = new Map([...build.catalogs].map(([id, { definition }]) => [id, definition]));
  let bare: SourceState = {
    locale: build.locale,
    registers: new Map(),
    ranges: build.ranges,
    definitions,
    kept: new Map(),
    linked: new Map(),
  };
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
  const come = new Set(
    after
      .filter((item) => item.state === 'retired' && item.from.length > 0 && !hadSource.has(itemKey(item)) && wasRetired.has(itemKey(item)))
      .map(itemKey),
  );
  return kept.filter((item) => come.has(itemKey(item))).map((item) => ({ ...item, retired: false }));
}

@Injectable()
export class PlanningService {
  constructor(
    private readonly sourceStates: SourceStatesService,
    private readonly compiled: CompiledCatalogsService,
    private readonly counts: CountsStore,
    private readonly outside: OutsideService,
  ) {}

  async plan(trx: Trx, build: HouseBuild, proposal: Proposal): Promise<Plan> {
    const touched = touchedCatalogs(build, proposal);
    // A definition that is proposed may read what the standing one does not.
    const proposed: HouseBuild = {
      ...build,
      catalogs: new Map(
        [...build.catalogs].map(([id, catalog]) => [id, { ...catalog, definition: definitionAfter(proposal, id) ?? catalog.definition }]),
      ),
    };
    const wanted = { catalogs: touched, registers: registersOf(proposal) };
    const standing = await this.sourceStates.read(trx, build, wanted);
    const composes = proposal.steps.some(({ what }) => what === 'catalog changed');
    const coming = composes ? await this.sourceStates.read(trx, proposed, wanted) : standing;
    const before: SourceState = {
      ...standing,
      registers: new Map([...coming.registers, ...standing.registers]),
      linked: new Map([...coming.linked, ...standing.linked]),
      kept: new Map([...coming.kept, ...standing.kept]),
    };
    let after = afterProposal(before, proposal);
    let reader = readSourceState(after);
    const catalogs: CatalogPlan[] = [];
    for (const catalogId of touched) {
      const was = (await this.compiled.get(trx, build, catalogId)).items;
      const restored = reappearing(was, reader.items(catalogId), after.kept.get(catalogId) ?? []);
      if (restored.length === 0) continue;
      after = afterStep(after, { what: 'items kept', catalogId, items: restored });
      reader = readSourceState(after);
    }
    for (const catalogId of touched)
      catalogs.push(
        await this.planCatalog(
          trx,
          build,
          catalogId,
          { items: reader.items(catalogId), companions: reader.companions(catalogId) },
          proposal,
        ),
      );
    return { proposal, before, after, catalogs };
  }

  private async planCatalog(
    trx: Trx,
    build: HouseBuild,
    catalogId: string,
    { items: after, companions }: CatalogAfter,
    { steps, meanings = [] }: Proposal,
  ): Promise<CatalogPlan> {
    const before = (await this.compiled.get(trx, build, catalogId)).items;
    const known = meanings.filter((meaning) => meaning.catalogId === catalogId);
    const deepest = levelsOf(before) - 1;
    const bound = grouped(boundFields(build, catalogId), (field) => levelIn(field, deepest));
    // The deepest level is what the catalog offers, whether a field is bound to it or not.
    if (!bound.has(undefined)) bound.set(undefined, []);
    const plans = await Promise.all(
      [...bound].map(async ([level, fields]) => {
        const own = known.filter((meaning) => (meaning.level ?? level ?? deepest) === (level ?? deepest));
        const diff = meant(diffCatalogs(before, after, level), own, after, level);
        const usage = await this.counts.ofValues(
          trx,
          build.houseId,
          fields.map(({ id }) => id),
          touchedValues(diff),
        );
        return { diff, ...impactOf(diff, usage, new Map(own.map(({ from, answer }) => [from, answer])), level) };
      }),
    );
    // Whoever retires a value has said what becomes of its entries.
    const retired = new Set(
      steps.flatMap((step) =>
        step.what === 'items kept' && step.catalogId === catalogId
          ? step.items.filter((item) => item.retired).map(({ value, path }) => `${path.length} ${value}`)
          : [],
      ),
    );
    const asked = plans
      .flatMap((plan) => plan.questions)
      .filter(({ value, level = deepest, becomes }) => becomes !== undefined || !retired.has(`${level} ${value}`));
    const comeInside = Object.assign({}, ...plans.map((plan) => plan.inside)) as Record<string, number>;
    const standing = await this.standing(trx, build, catalogId, { before, after: { items: after, companions } }, asked, comeInside);
    // A value that entries hold only where they stay right, under parents that keep it, is nothing to ask about.
    const depending = new Set(dependingFields(build, catalogId).map(({ id }) => id));
    const questions = [
      ...asked.filter(
        (question) => standing.turning.has(questionKey(question)) || Object.keys(question.holds).some((id) => !depending.has(id)),
      ),
      ...standing.questions,
    ];
    const inside = Object.values({ ...comeInside, ...standing.inside }).reduce((sum, count) => sum + count, 0);
    return {
      catalogId,
      diff: joinedDiff(plans.map(({ diff }) => diff)),
      questions,
      outside: standing.outside,
      inside,
      before,
      after,
      companions,
    };
  }

  /**
   * What becomes of entries in the fields whose rules read other fields too: by their distinct combinations, which costs
   * a look at every entry and is done only where something can turn. `questions`: about the values that are decided about; `comeInside`:
   * entries that come inside by their value alone.
   */
  private async standing(
    trx: Trx,
    build: HouseBuild,
    catalogId: string,
    { before, after }: { before: readonly Item[]; after: CatalogAfter },
    questions: readonly Question[],
    comeInside: Readonly<Record<string, number>>,
  ): Promise<StandingChange> {
    const asked = new Set(questions.map(questionKey));
    const becomes = new Map(
      questions.flatMap((question) => (question.becomes === undefined ? [] : [[questionKey(question), question.becomes] as const])),
    );
    const depending = dependingFields(build, catalogId);
    const loses = depending.length > 0 && losesStanding(before, after.items);
    const fields = loses ? depending : depending.filter(({ id }) => comeInside[id] !== undefined);
    if (fields.length === 0) return { questions: [], outside: {}, inside: {}, turning: asked };
    const held = await this.outside.heldIn(trx, build, fields);
    const catalogs = await this.compiled.some(trx, build, [catalogId]);
    const compiled = new Map([[catalogId, compileCatalog(catalogId, build.catalogs.get(catalogId)!.title, after.items, after.companions)]]);
    const deepest = levelsOf(before) - 1;
    const changes = [...grouped(fields, ({ registerId }) => registerId)].map(([registerId, own]) => {
      const register = build.registers.get(registerId)!;
      const carries = build.carries.filter((carry) => carry.registerId === registerId);
      const seen = (field: FieldBuild) => held.get(field.id)!.map(({ cells, entries }) => ({ cells: carried(cells, carries), entries }));
      const context = { locale: build.locale, fields: register.fields };
      return standingChange(
        own.map((field) => ({ id: field.id, field, level: levelIn(field, deepest), held: seen(field) })),
        displaced(before, after.items),
        asked,
        becomes,
        { ...context, catalogs },
        { ...context, catalogs: compiled },
      );
    });
    return joinedStanding(changes);
  }
}

/** The fields bound to a catalog whose rules read other fields of the entry. */
const dependingFields = (build: HouseBuild, catalogId: string): FieldBuild[] =>
  boundFields(build, catalogId).filter(({ rule }) => readsOf(rule).length > 0);

/** The level to which a field is bound; undefined for the deepest. */
export function levelIn({ rule }: FieldBuild, deepest: number): number | undefined {
  const level = ruleAs('catalog', rule)?.level ?? deepest;
  return level === deepest ? undefined : level;
}

/** What a catalog will be. */
interface CatalogAfter {
  readonly items: readonly Item[];
  readonly companions: readonly CompanionField[];
}

/** What a change does in the fields of several registers as one: a value that left its parents is asked about once. */
function joinedStanding(changes: readonly StandingChange[]): StandingChange {
  const questions = grouped(
    changes.flatMap((change) => change.questions),
    questionKey,
  );
  return {
    questions: [...questions.values()].map((own) => ({
      ...own[0]!,
      holds: Object.assign({}, ...own.map(({ holds }) => holds)) as Record<string, number>,
    })),
    outside: Object.assign({}, ...changes.map(({ outside }) => outside)) as Record<string, number>,
    inside: Object.assign({}, ...changes.map(({ inside }) => inside)) as Record<string, number>,
    turning: new Set(changes.flatMap(({ turning }) => [...turning])),
  };
}

/** The changes of all levels of a catalog as one. */
function joinedDiff(diffs: readonly CatalogDiff[]): CatalogDiff {
  if (diffs.length === 1) return diffs[0]!;
  const all = <K extends 'added' | 'removed' | 'restored'>(which: K) => [...new Set(diffs.flatMap((diff) => diff[which]))];
  const edited = [...new Map(diffs.flatMap((diff) => diff.edited).map((edit) => [`${edit.level ?? ''} ${edit.from}`, edit])).values()];
  return { added: all('added'), removed: all('removed'), restored: all('restored'), edited, moved: diffs.some(({ moved }) => moved) };
}

/** The definition that a proposal gives to a catalog; undefined when it gives none. */
function definitionAfter({ steps }: Proposal, id: string): CatalogDefinition | undefined {
  return steps.flatMap((step) => (step.what === 'catalog changed' && step.catalogId === id ? [step.definition] : [])).at(-1);
}
