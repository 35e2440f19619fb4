// Judging blocks with authority: settled by the core, and no value twice where the rule says so.
import { Injectable } from '@nestjs/common';
import { carried, judgeEdit, matchKey, settle, type Cells, type Edit, type Verdict } from '@dellum/core';
import { mayDesign, type EntryView, type Role } from '@dellum/contract';
import type { FieldBuild, HouseBuild, RegisterBuild } from '../structure/structure.store.js';
import { CompiledCatalogsService } from '../compiled/compiled.service.js';
import type { Reader, Trx } from '../database/database.js';
import { todayOf } from '../structure/days.js';
import { carriesOf, catalogsOf, type Judgement } from '../entries/judging.js';
import { RepeatsService } from './repeats.service.js';

/** So many distinct texts of a block get suggestions; each costs a look at its catalog. */
const mostSuggested = 100;

type Outcomes = readonly { readonly entry: string; readonly field: string; readonly verdict: Verdict }[];

/** The outcomes of a block, with suggestions for what was refused. */
function suggested(
  edits: readonly Edit[],
  outcomes: Outcomes,
  fields: ReadonlyMap<string, FieldBuild>,
  after: ReadonlyMap<string, Cells>,
  judgement: Judgement,
): Outcomes {
  if (judgement.suggest) return outcomes;
  const known = new Map<string, Verdict>();
  return outcomes.map((outcome, at) => {
    if (outcome.verdict.verdict !== 'refused') return outcome;
    const { typed, chosen } = edits[at]!;
    // A refusal that depends on other fields says the same of the same text where its message is the same.
    const key = JSON.stringify([outcome.field, typed, chosen, outcome.verdict.message]);
    let verdict = known.get(key);
    if (verdict === undefined && known.size < mostSuggested) {
      verdict = judgeEdit(fields.get(outcome.field)!, typed === undefined ? { chosen } : { typed }, after.get(outcome.entry) ?? {}, {
        ...judgement,
        suggest: true,
      });
      known.set(key, verdict);
    }
    return verdict?.verdict === 'refused' && verdict.code === outcome.verdict.code ? { ...outcome, verdict } : outcome;
  });
}

@Injectable()
export class BlockJudgingService {
  constructor(
    private readonly catalogs: CompiledCatalogsService,
    private readonly repeats: RepeatsService,
  ) {}

  /** What cells of these fields are judged by, typed by somebody in a role. */
  async judgement(
    db: Reader,
    build: HouseBuild,
    register: RegisterBuild,
    fields: readonly FieldBuild[],
    suggest: boolean,
    role: Role,
  ): Promise<Judgement> {
    const catalogs = await this.catalogs.some(db, build, catalogsOf(fields));
    return {
      locale: build.locale,
      catalogs,
      carries: carriesOf(build, register),
      suggest,
      today: todayOf(new Date(), build.locale),
      fields: register.fields,
      designs: mayDesign(role),
    };
  }

  /** Settles the cells of a block; what a cell clears or fills outside the block goes with it. */
  async block(
    trx: Trx,
    houseId: string,
    register: RegisterBuild,
    edits: readonly Edit[],
    fields: ReadonlyMap<string, FieldBuild>,
    entries: ReadonlyMap<string, EntryView>,
    judgement: Judgement,
  ) {
    const repeats = await this.repeatsIn(
      trx,
      houseId,
      edits.map((edit) => ({ edit, field: fields.get(edit.field)! })),
      entries,
      judgement,
    );
    const standing = new Map([...entries].map(([id, entry]) => [id, entry.cells]));
    const settled = settle(register.fields, standing, edits, { ...judgement, repeats });
    const outcomes = edits.map(({ entry, field }, at) => ({ entry, field, verdict: settled.verdicts[at]! }));
    const after = new Map([...settled.entries].map(([id, plan]) => [id, plan.cells]));
    return { outcomes: suggested(edits, outcomes, fields, after, judgement), after };
  }

  /** For fields without repeats: what entries hold already, and what the block itself brings twice. */
  private async repeatsIn(
    trx: Trx,
    houseId: string,
    places: readonly { edit: Edit; field: FieldBuild }[],
    entries: ReadonlyMap<string, EntryView>,
    judgement: Judgement,
  ) {
    const unique = places.filter(({ field }) => field.rule?.noRepeats);
    const wanted = unique.flatMap(({ edit, field }) => {
      const verdict = judgeEdit(field, edit, carried(entries.get(edit.entry)!.cells, judgement.carries), judgement);
      return verdict.verdict === 'taken' && verdict.value !== '' ? [{ field, value: verdict.value }] : [];
    });
    const heldElsewhere = await this.repeats.hold(trx, houseId, wanted);
    const fields = new Map(unique.map(({ field }) => [field.key, field]));
    const brought = new Set<string>();
    return (key: string, value: string, own: string): boolean => {
      const field = fields.get(key)!;
      const one = `${key} ${matchKey(value)}`;
      if (value === own) return false;
      if (heldElsewhere(field, value, own) || brought.has(one)) return true;
      brought.add(one);
      return false;
    };
  }
}
