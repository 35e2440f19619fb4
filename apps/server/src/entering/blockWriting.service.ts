// Cells of a block, judged and stored as part of an act: with authority, in the role that whoever began it has now.
import { Injectable } from '@nestjs/common';
import { carried, cellsOfNew, noOutcome, wordsOf, type ActOutcome, type Cells, type Edit, type Refused, type Verdict } from '@dellum/core';
import type { EntryView, Role } from '@dellum/contract';
import type { Trx } from '../database/database.js';
import { EntriesStore } from '../entries/entries.store.js';
import { carriesOf, withFollowers, type Judgement } from '../entries/judging.js';
import { PlacesStore } from '../entries/places.store.js';
import { todayOf } from '../structure/days.js';
import type { FieldBuild, HouseBuild, RegisterBuild } from '../structure/structure.store.js';
import { BlockJudgingService } from './blockJudging.service.js';
import { ClosingService } from './closing.service.js';
import { EntryWriterService, type PreparedCells, type Writer } from './entryWriter.service.js';
import { judgedCells, NewValuesService, type JudgedCell } from './newValues.service.js';
import { RepeatsService } from './repeats.service.js';
import { seenAs } from './takenBack.js';

/** An act under way: who began it, on what it works, and in which transaction. */
export interface ActAt {
  readonly trx: Trx;
  readonly caller: Writer;
  readonly build: HouseBuild;
  readonly register: RegisterBuild;
  readonly actId: number;
}

type Entries = ReadonlyMap<string, EntryView>;

/** What cells of an act are judged by. */
interface JudgedBy {
  readonly judgement: Judgement;
  readonly role: Role;
  readonly fields: ReadonlyMap<string, FieldBuild>;
}
/** Cells of an act that are judged and not stored yet. */
export interface JudgedPart {
  readonly cells: readonly JudgedCell[];
  readonly prepared: PreparedCells;
  readonly outcome: ActOutcome;
}

@Injectable()
export class BlockWritingService {
  constructor(
    private readonly judging: BlockJudgingService,
    private readonly entries: EntriesStore,
    private readonly places: PlacesStore,
    private readonly writing: EntryWriterService,
    private readonly repeats: RepeatsService,
    private readonly closing: ClosingService,
    private readonly newValues: NewValuesService,
  ) {}

  /** Stores what is taken of some cells of locked entries; what is refused is said. */
  async write(at: ActAt, edits: readonly Edit[], fields: readonly FieldBuild[], entries: Entries): Promise<ActOutcome> {
    if (edits.length === 0) return noOutcome;
    const judged = await this.judge(at, await this.judgedBy(at, fields), edits, entries);
    await this.store(at, judged);
    return judged.outcome;
  }

  /** What the cells of some fields are judged by in this transaction. */
  async judgedBy({ trx, caller, build, register }: ActAt, fields: readonly FieldBuild[]): Promise<JudgedBy> {
    const needed = new Set(fields.flatMap((field) => withFollowers(register, field)));
    const role = await this.roleOf(trx, caller);
    const judgement = await this.judging.judgement(trx, build, register, [...needed], false, role);
    return { judgement, role, fields: new Map(fields.map((field) => [field.key, field])) };
  }

  /** Judges cells of locked entries. Throws what has to be added to catalogs first. */
  async judge(
    { trx, caller, build, register, actId }: ActAt,
    { judgement, role, fields }: JudgedBy,
    edits: readonly Edit[],
    entries: Entries,
  ): Promise<JudgedPart> {
    const { carries } = judgement;
    const closed = await this.closing.closedTo(trx, build, register, seenAs(entries.values(), carries), { id: caller.id, role });
    const { outcomes, after } = await this.judging.block(trx, caller.houseId, register, edits, fields, entries, { ...judgement, closed });
    const cells = judgedCells(outcomes, fields, after);
    this.newValues.mustAdd(cells);
    const words = edits.map((edit) => ({
      entry: edit.entry,
      field: edit.field,
      text: wordsOf(fields.get(edit.field)!.kind, edit, build.locale),
    }));
    const prepared = this.writing.prepared(caller, register, entries, after, carries, actId);
    return { cells, prepared, outcome: outcomeOf(words, outcomes) };
  }

  /** Stores what is taken of judged cells. */
  async store({ trx, caller, register }: ActAt, { prepared, cells }: JudgedPart): Promise<void> {
    await this.writing.write(trx, prepared);
    await this.newValues.keepRequests(trx, caller, register, cells);
  }

  /** Adds new entries at the end, each as its rules begin it. */
  async addBelow({ trx, caller, build, register, actId }: ActAt, ids: readonly string[]): Promise<void> {
    const place = { houseId: caller.houseId, registerId: register.id };
    await this.places.lockOrder(trx, place);
    const above = await this.entries.above(trx, place, undefined);
    const begun = cellsOfNew(register.fields, above && carried(above.cells, carriesOf(build, register)), todayOf(new Date(), build.locale));
    const cells = await this.repeats.freshCells(trx, caller.houseId, register, begun, ids.length);
    await this.writing.insert(
      trx,
      caller,
      register,
      undefined,
      ids.map((id) => ({ id, cells })),
      'entry.inserted',
      actId,
    );
  }

  /** Those of some entries that are open to whoever has begun the act. */
  async openAmong({ trx, caller, build, register }: ActAt, entries: readonly { id: string; cells: Cells }[]): Promise<string[]> {
    const closed = await this.closing.closedTo(trx, build, register, entries, { id: caller.id, role: await this.roleOf(trx, caller) });
    return entries.filter(({ id }) => closed(id) === undefined).map(({ id }) => id);
  }

  /** In which role the person is now who has begun the act; acts go on after their request. */
  async roleOf(trx: Trx, { houseId, id }: Writer): Promise<Role> {
    if (id === null) return 'reader';
    const person = await trx.selectFrom('people').select('role').where('house_id', '=', houseId).where('id', '=', id).executeTakeFirst();
    return person?.role ?? 'reader';
  }
}

/** What came of the cells of one part. */
function outcomeOf(
  cells: readonly { entry: string; field: string; text: string }[],
  outcomes: readonly { readonly verdict: Verdict }[],
): ActOutcome {
  const refusals = outcomes.flatMap(({ verdict }, at): Refused[] =>
    verdict.verdict === 'refused'
      ? [{ ...cells[at]!, message: verdict.message, suggestions: verdict.suggestions, ...(verdict.mayConfirm && { mayConfirm: true }) }]
      : [],
  );
  const corrected = outcomes.filter(({ verdict }) => verdict.verdict === 'taken' && verdict.corrected).length;
  return { ...noOutcome, taken: outcomes.length - refusals.length, corrected, refused: refusals.length, refusals };
}
