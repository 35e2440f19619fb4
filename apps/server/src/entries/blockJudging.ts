// Judging blocks with authority: parents before children, and no value twice where the rule says so.
import { Injectable } from '@nestjs/common';
import { carried, type Cells, type Verdict } from '@dellum/core';
import type { EntryView, WriteBlockDto } from '@dellum/contract';
import { sql } from 'kysely';
import type { FieldBuild, HouseBuild, RegisterBuild } from '../build/build.store.js';
import { CompiledCatalogs } from '../catalogs/compiled.service.js';
import { countKey, Counts } from '../counts/counts.js';
import type { Reader, Trx } from '../database/database.js';
import { todayOf } from '../houses/houses.service.js';
import { afterVerdict, carriesOf, catalogsOf, cellJudges, depthIn, judgeCell, type Judgement } from './judging.js';

/** What nobody else may store at the same time: a value of a field without repeats. */
export const valueLock = (field: FieldBuild, value: string): string => `${field.id} ${value}`;

/** So many distinct texts of a block get suggestions; each costs a look at its catalog. */
const mostSuggested = 100;

type Outcomes = readonly { readonly entry: string; readonly field: string; readonly verdict: Verdict }[];

/** The outcomes of a block, with suggestions for what was refused. */
function suggested(cells: WriteBlockDto['cells'], outcomes: Outcomes, fields: ReadonlyMap<string, FieldBuild>, after: ReadonlyMap<string, Cells>, judgement: Judgement): Outcomes {
  if (judgement.suggest) return outcomes;
  const known = new Map<string, Verdict>();
  return outcomes.map((outcome, at) => {
    if (outcome.verdict.verdict !== 'refused') return outcome;
    const { text } = cells[at]!;
    // A refusal that depends on other fields says the same of the same text where its message is the same.
    const key = `${outcome.field}\u001F${text}\u001F${outcome.verdict.message}`;
    let verdict = known.get(key);
    if (verdict === undefined && known.size < mostSuggested) {
      verdict = judgeCell(fields.get(outcome.field)!, { text }, after.get(outcome.entry) ?? {}, { ...judgement, suggest: true }).verdict;
      known.set(key, verdict);
    }
    return verdict?.verdict === 'refused' && verdict.code === outcome.verdict.code ? { ...outcome, verdict } : outcome;
  });
}

@Injectable()
export class BlockJudging {
  constructor(
    private readonly catalogs: CompiledCatalogs,
    private readonly counts: Counts,
  ) {}

  /** What cells of these fields are judged by. */
  async judgement(db: Reader, build: HouseBuild, register: RegisterBuild, fields: readonly FieldBuild[], suggest: boolean): Promise<Judgement> {
    const catalogs = await this.catalogs.some(db, build, catalogsOf(fields));
    return { locale: build.locale, catalogs, carries: carriesOf(build, register), suggest, today: todayOf(new Date(), build.locale), fields: register.fields };
  }

  /** Judges the cells of a block, parents before their children; what a cell clears or fills outside the block goes with it. */
  async block(trx: Trx, houseId: string, register: RegisterBuild, cells: WriteBlockDto['cells'], fields: ReadonlyMap<string, FieldBuild>, entries: ReadonlyMap<string, EntryView>, judgement: Judgement) {
    const places = cells.map((cell, place) => ({ cell, place, field: fields.get(cell.field)! })).sort((a, b) => depthIn(a.field) - depthIn(b.field));
    const repeats = await this.repeatsIn(trx, houseId, places, entries, judgement);
    const outcomes: { entry: string; field: string; verdict: Verdict }[] = [];
    const after = new Map<string, Cells>();
    const judgeOf = cellJudges(judgement);
    for (const { cell, place, field } of places) {
      const before = after.get(cell.entry) ?? carried(entries.get(cell.entry)!.cells, judgement.carries);
      const judged = judgeOf(field, { text: cell.text, repeats: repeats(field, before[field.key]) }, before);
      outcomes[place] = { entry: cell.entry, field: cell.field, verdict: judged.verdict };
      after.set(cell.entry, afterVerdict(register, before, judged, judgement)?.cells ?? before);
    }
    return { outcomes: suggested(cells, outcomes, fields, after, judgement), after };
  }

  /** For fields without repeats: what entries hold already, and what the block itself brings twice. */
  private async repeatsIn(trx: Trx, houseId: string, places: readonly { cell: { text: string; entry: string }; field: FieldBuild }[], entries: ReadonlyMap<string, EntryView>, judgement: Judgement) {
    const unique = places.filter(({ field }) => field.rule?.noRepeats);
    const wanted = unique.flatMap(({ cell, field }) => {
      const { verdict } = judgeCell(field, cell, carried(entries.get(cell.entry)!.cells, judgement.carries), judgement);
      return verdict.verdict === 'taken' && verdict.value !== '' ? [{ field, value: verdict.value }] : [];
    });
    await this.holdValues(trx, wanted.map(({ field, value }) => valueLock(field, value)));
    const held = wanted.length === 0 ? new Map<string, Map<string, number>>() : await this.counts.ofValues(trx, houseId, [...new Set(wanted.map(({ field }) => field.id))], [...new Set(wanted.map(({ value }) => countKey(value)))]);
    const brought = new Set<string>();
    return (field: FieldBuild, before: string | undefined) => (value: string) => {
      const key = `${field.id} ${value}`;
      if (value === before) return false;
      if ((held.get(field.id)?.has(countKey(value)) ?? false) || brought.has(key)) return true;
      brought.add(key);
      return false;
    };
  }

  /** Lets nobody else store these values of fields without repeats until the transaction ends; in one order, so that none deadlock. */
  async holdValues(trx: Trx, locks: readonly string[]): Promise<void> {
    if (locks.length === 0) return;
    await sql`select pg_advisory_xact_lock(hashtextextended(lock, 1)) from (select unnest(${[...new Set(locks)].sort()}::text[]) as lock) ordered`.execute(trx);
  }
}
