// Changes of the sources: acts on lists and tables, changes of ranges, catalogs and linked sources. What touches no entry
// is live at once; what touches entries waits on a slip until its questions are answered.
import { randomUUID } from 'node:crypto';
import { Injectable } from '@nestjs/common';
import { answered, questionKey, type Proposal, type Step } from '@dellum/core';
import { mayDesign, type ActsDto, type AnswerSlipDto, type CanAgain, type Outcome, type Slip } from '@dellum/contract';
import { StructureService, boundFields } from '../structure/structure.service.js';
import type { HouseBuild } from '../structure/structure.store.js';
import { Database, lockBuild, type Trx } from '../database/database.js';
import { LedgerStore } from '../ledger/ledger.store.js';
import { ChangesStore } from '../changes/changes.store.js';
import type { Caller } from '../access/access.js';
import { notFound, ProblemError } from '../problems/index.js';
import { sourceOf } from './placing.js';
import { ActsStore, type DoneAct } from './acts.store.js';
import { ApplyingService } from './applying.service.js';
import { entriesTouched, notesOf } from './notes.js';
import { insideOf, outsideOf, PlanningService, questionsOf, type Plan } from './planning.service.js';
import { readAct } from './readAct.js';
import { SourcesStore } from './sources.store.js';

/** Says what is to be done; gets the build as this transaction sees it. */
export type Propose = (trx: Trx, build: HouseBuild) => Promise<Proposal> | Proposal;

@Injectable()
export class SourcesService {
  constructor(
    private readonly database: Database,
    private readonly builds: StructureService,
    private readonly planning: PlanningService,
    private readonly applying: ApplyingService,
    private readonly acts: ActsStore,
    private readonly store: SourcesStore,
    private readonly ledger: LedgerStore,
    private readonly changes: ChangesStore,
  ) {}

  /** The slips that wait: all for administrators, their own for stewards. */
  slips(caller: Caller): Promise<Slip[]> {
    return this.store.slips(this.database.kysely, caller.houseId, mayDesign(caller.role) ? undefined : caller.id);
  }

  /** Some acts on one list or table, done together. */
  act(caller: Caller, registerId: string, { acts, joins }: ActsDto): Promise<Outcome> {
    return this.propose(caller, (_trx, build) => {
      const register = sourceOf(build, registerId, caller);
      return {
        steps: acts.map((dto): Step => ({ what: 'act', registerId, act: readAct(dto, register, build.locale) })),
        ...(joins !== undefined && { joins }),
      };
    });
  }

  /** Takes back the person's last act on the registers of a sheet, or does again what was taken back. */
  async again(caller: Caller, sheetId: string, as: 'undone' | 'done'): Promise<Outcome> {
    let nothing = false;
    const outcome = await this.propose(caller, async (trx, build) => {
      const registers = [...build.registers.values()].filter((register) => register.sheetId === sheetId).map(({ id }) => id);
      if (registers.length === 0 && !build.sheets.some(({ id }) => id === sheetId)) throw notFound('This sheet');
      const found = await this.acts.next(trx, caller, registers, as === 'undone' ? 'done' : 'undone');
      nothing = !found;
      if (!found) return { steps: [] };
      return as === 'undone' ? backOf(found) : { ...found.proposal, again: { act: found.id, as } };
    });
    return nothing
      ? { slip: null, notes: [as === 'undone' ? 'There is nothing of yours to undo on this sheet.' : 'There is nothing to redo.'] }
      : outcome;
  }

  /** What of the person's acts on the registers of a sheet can be taken back, and done again. */
  async canAgain({ houseId, id: personId }: Caller, sheetId: string): Promise<CanAgain> {
    return this.acts.states(this.database.kysely, { houseId, personId, sheetId });
  }

  /** Takes one act back, whoever did it. */
  takeBack(caller: Caller, actId: number): Promise<Outcome> {
    return this.propose(caller, async (trx) => {
      const act = await this.acts.find(trx, caller.houseId, actId);
      if (!act || act.state === 'undone') throw notFound('This change');
      return backOf(act);
    });
  }

  /** Plans what is proposed and does it, or saves the slip that asks. One transaction; nobody changes the build meanwhile. */
  propose(caller: Caller, proposing: Propose): Promise<Outcome> {
    return this.database.transaction(async (trx) => {
      await lockBuild(trx, caller.houseId);
      const build = await this.builds.at(trx, caller.houseId);
      return this.proposeWithin(trx, caller, build, await proposing(trx, build));
    });
  }

  /** The same in a transaction that holds the build lock already. */
  async proposeWithin(trx: Trx, caller: Caller, build: HouseBuild, proposal: Proposal): Promise<Outcome> {
    if (proposal.steps.length === 0) return { slip: null, notes: [] };
    await this.mustNotWait(trx, caller, proposal);
    const plan = await this.planning.plan(trx, build, proposal);
    mustHaveEntries(plan);
    mustNotReuse(build, plan);
    if (questionsOf(plan).length > 0 || outsideOf(plan).length > 0)
      return { slip: await this.ask(trx, caller, plan, randomUUID()), notes: [] };
    const act = await this.applying.apply(trx, caller, build, plan, new Map());
    return { slip: null, notes: notesOf(build, plan), act };
  }

  /** Answers a slip: the plan is made anew on the state of now, and done when every question has its answer. */
  async answer(caller: Caller, slipId: string, dto: AnswerSlipDto): Promise<Outcome> {
    const outcome = await this.database.transaction(async (trx) => {
      await lockBuild(trx, caller.houseId);
      const build = await this.builds.at(trx, caller.houseId);
      const slip = await this.slipOf(trx, caller, slipId);
      const plan = await this.planning.plan(trx, build, slip.proposal);
      mustNotReuse(build, plan);
      const settled = new Map(
        plan.catalogs.map(({ catalogId, questions }) => {
          const given = new Map(
            dto.answers.filter((answer) => answer.catalogId === catalogId).map((one) => [questionKey(one), one.answer]),
          );
          return [catalogId, answered(questions, given)] as const;
        }),
      );
      const complete = new Map([...settled].flatMap(([id, settlement]) => (settlement ? [[id, settlement] as const] : [])));
      if (complete.size < settled.size) return { slip: await this.ask(trx, caller, plan, slipId), notes: [] };
      await this.store.removeSlip(trx, caller.houseId, slipId);
      await this.applying.apply(trx, caller, build, plan, complete);
      await this.changes.append(trx, caller.houseId, [slipsChanged]);
      return { slip: null, notes: notesOf(build, plan) };
    });
    if (outcome.slip)
      throw new ProblemError('slip-changed', 'What the change touches is different now. Look at the slip again and answer what it asks.');
    return outcome;
  }

  /** Leaves it: the proposal is dropped and nothing changes. */
  async leave(caller: Caller, slipId: string): Promise<void> {
    await this.database.transaction(async (trx) => {
      const slip = await this.slipOf(trx, caller, slipId);
      await this.store.removeSlip(trx, caller.houseId, slipId);
      // What a linked source brought and was left is asked about again when it is read the next time.
      await this.store.forgetMarks(
        trx,
        caller.houseId,
        slip.proposal.steps.flatMap((step) => (step.what === 'linked read' ? [step.sourceId] : [])),
      );
      await this.ledger.write(trx, caller.houseId, [{ personId: caller.id, act: 'slip.left', detail: { proposal: slip.proposal } }]);
      await this.changes.append(trx, caller.houseId, [slipsChanged]);
    });
  }

  private async slipOf(trx: Trx, caller: Caller, id: string): Promise<Slip> {
    const slip = await this.store.slip(trx, caller.houseId, id, mayDesign(caller.role) ? undefined : caller.id);
    if (!slip) throw notFound('This slip');
    return slip;
  }

  private async ask(trx: Trx, caller: Caller, plan: Plan, id: string): Promise<Slip> {
    const questions = questionsOf(plan);
    await this.store.saveSlip(trx, caller.houseId, {
      id,
      personId: caller.id,
      proposal: plan.proposal,
      questions,
      outside: outsideOf(plan),
      inside: insideOf(plan),
      entries: entriesTouched(plan.proposal),
    });
    await this.changes.append(trx, caller.houseId, [slipsChanged]);
    return (await this.store.slip(trx, caller.houseId, id, undefined))!;
  }

  private async mustNotWait(trx: Trx, caller: Caller, proposal: Proposal): Promise<void> {
    const waiting = await this.store.slipOn(trx, caller.houseId, entriesTouched(proposal));
    if (waiting)
      throw new ProblemError('slip-open', `A change of ${waiting} to this cell waits for its answers. Answer or leave its slip first.`);
  }
}

const slipsChanged = { audience: 'keepers', body: { kind: 'slips' } } as const;

/** The proposal that takes an act back: what was corrected by it is corrected back. */
function backOf({ id, back, proposal: { meanings = [] } }: DoneAct): Proposal {
  const corrected = meanings
    .filter(({ answer }) => answer === 'corrected')
    .map(({ from, to, ...meaning }) => ({ ...meaning, from: to, to: from }));
  return { steps: back, meanings: corrected, again: { act: id, as: 'undone' } };
}

/** What is written to, deleted or moved must be there, and what is new must not; taking back passes over what went since. */
function mustHaveEntries({ before, proposal }: Plan): void {
  if (proposal.again) return;
  const known = new Set([...before.registers.values()].flatMap(({ entries }) => entries.map(({ id }) => id)));
  const made = new Set(
    proposal.steps.flatMap((step) => (step.what === 'act' && step.act.act === 'insert' ? step.act.entries.map(({ id }) => id) : [])),
  );
  if ([...made].some((id) => known.has(id)))
    throw new ProblemError('not-valid', 'A new row has the id of one that is there.', { faults: { entries: 'Give ids that no row has.' } });
  const missing = entriesTouched(proposal).some((id) => !known.has(id) && !made.has(id));
  if (missing) throw notFound('A row of the list');
}

/** While a correction is under way its old spelling cannot be a value again. */
function mustNotReuse(build: HouseBuild, plan: Plan): void {
  for (const { catalogId, diff } of plan.catalogs) {
    const fields = new Set(boundFields(build, catalogId).map(({ id }) => id));
    const old = new Set(build.carries.filter(({ fieldId }) => fields.has(fieldId)).map(({ from }) => from));
    const reused = [...diff.added, ...diff.restored, ...diff.edited.map(({ to }) => to)].find((value) => old.has(value));
    if (reused)
      throw new ProblemError(
        'carry-under-way',
        `Entries are still following the correction of “${reused}”. Use this spelling again when they are through.`,
      );
  }
}
