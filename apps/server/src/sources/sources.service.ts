// Changes of the sources: an act on a list or a change of a range. What touches no entry is live at once; what
// touches entries waits on a slip until its questions are answered.
import { randomUUID } from 'node:crypto';
import { Injectable } from '@nestjs/common';
import { anchorsOf, clean, endAnother, endAt, nameFault, settle, sourceTextFault, type Act, type SourceRange } from '@dellum/core';
import type { ActDto, AnswerSlipDto, ChangeRangeDto, MakeRangeDto, Outcome, Proposal, Slip } from '@dellum/contract';
import { BuildService, boundFields, fieldWithKey, registerOf } from '../build/build.service.js';
import type { HouseBuild, RangeBuild, RegisterBuild } from '../build/build.store.js';
import { Database, lockBuild, type Trx } from '../database/database.js';
import { EntriesStore } from '../entries/entries.store.js';
import { Ledger } from '../ledger/ledger.js';
import { Changes } from '../live/changes.js';
import type { Caller } from '../people/guard.js';
import { notFound, ProblemError } from '../problems/index.js';
import { entriesTouched, sortNotes } from './afterProposal.js';
import { Applying } from './applying.js';
import { insideOf, Planning, questionsOf, type Plan } from './planning.js';
import { readAct } from './readAct.js';
import { SourcesStore } from './sources.store.js';

@Injectable()
export class SourcesService {
  constructor(
    private readonly database: Database,
    private readonly builds: BuildService,
    private readonly entries: EntriesStore,
    private readonly planning: Planning,
    private readonly applying: Applying,
    private readonly store: SourcesStore,
    private readonly ledger: Ledger,
    private readonly changes: Changes,
  ) {}

  slips(caller: Caller): Promise<Slip[]> {
    return this.store.slips(this.database.kysely, caller.houseId);
  }

  act(caller: Caller, registerId: string, dto: ActDto): Promise<Outcome> {
    return this.change(caller, async (_trx, build) => {
      const register = sourceOf(build, registerId, caller);
      const act = readAct(dto);
      mustFit(register, act);
      return { what: 'act', registerId, act };
    });
  }

  makeRange(caller: Caller, dto: MakeRangeDto): Promise<Outcome> {
    return this.change(caller, async (trx, build) => {
      const register = sourceOf(build, dto.registerId, caller);
      fieldWithKey(register, dto.field);
      mustBeFree(dto.name, build.ranges);
      const entries = await this.entries.all(trx, { houseId: caller.houseId, registerId: register.id });
      const anchors = anchorsOf(entries, dto.entries, dto.ends);
      if (!anchors) throw new ProblemError('no-cells', 'Select the cells that the range takes first; it would lie over none.');
      const range: SourceRange = { id: randomUUID(), name: clean(dto.name), field: dto.field, ...anchors };
      return { what: 'range made', registerId: register.id, range };
    });
  }

  changeRange(caller: Caller, id: string, dto: ChangeRangeDto): Promise<Outcome> {
    return this.change(caller, async (trx, build) => {
      const range = rangeOf(build, id);
      const { registerId, ...plain } = range;
      if (dto.name !== undefined) mustBeFree(dto.name, build.ranges.filter((other) => other.id !== id));
      const renamed: SourceRange = dto.name === undefined ? plain : { ...plain, name: clean(dto.name) };
      if (!dto.ends && !dto.endEntry) return { what: 'range changed', registerId, range: renamed };
      const entries = await this.entries.all(trx, { houseId: caller.houseId, registerId });
      const neighbours = build.ranges.filter((other) => other.registerId === registerId);
      const ended = dto.endEntry ? endAt(renamed, entries, dto.endEntry) : endAnother(renamed, entries, neighbours, dto.ends!);
      if (!ended) throw new ProblemError('no-cells', 'The range cannot end above its start. Choose a row below it.');
      return { what: 'range changed', registerId, range: ended };
    });
  }

  deleteRange(caller: Caller, id: string): Promise<Outcome> {
    return this.change(caller, async (_trx, build) => {
      const { registerId, ...range } = rangeOf(build, id);
      const users = [...build.catalogs.values()].filter(({ rangeIds }) => rangeIds.includes(id)).map(({ title }) => `catalog ${title}`);
      if (users.length > 0) throw new ProblemError('in-use', `“${range.name}” feeds ${users.join(', ')}. Take it out there first.`, { users });
      return { what: 'range deleted', registerId, range };
    });
  }

  /** Plans what is proposed and does it, or saves the slip that asks. One transaction; nobody changes the build meanwhile. */
  private change(caller: Caller, propose: (trx: Trx, build: HouseBuild) => Promise<Proposal>): Promise<Outcome> {
    return this.database.transaction(async (trx) => {
      await lockBuild(trx, caller.houseId);
      const build = await this.builds.at(trx, caller.houseId);
      const proposal = await propose(trx, build);
      await this.mustNotWait(trx, caller, proposal);
      const plan = await this.planning.plan(trx, build, proposal);
      mustHaveEntries(plan);
      mustNotReuse(build, plan);
      if (questionsOf(plan).length > 0) return { slip: await this.ask(trx, caller, plan, randomUUID()), notes: [] };
      await this.applying.apply(trx, caller, build, plan, new Map());
      return { slip: null, notes: notesOf(build, plan) };
    });
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
          const given = new Map(dto.answers.filter((answer) => answer.catalogId === catalogId).map(({ value, answer }) => [value, answer]));
          return [catalogId, settle(questions, given)] as const;
        }),
      );
      const complete = new Map([...settled].flatMap(([id, settlement]) => (settlement ? [[id, settlement] as const] : [])));
      if (complete.size < settled.size) return { slip: await this.ask(trx, caller, plan, slipId), notes: [] };
      await this.store.removeSlip(trx, caller.houseId, slipId);
      await this.applying.apply(trx, caller, build, plan, complete);
      await this.changes.append(trx, caller.houseId, [slipsChanged]);
      return { slip: null, notes: notesOf(build, plan) };
    });
    if (outcome.slip) throw new ProblemError('slip-changed', 'What the change touches is different now. Look at the slip again and answer what it asks.');
    return outcome;
  }

  /** Leaves it: the proposal is dropped and nothing changes. */
  async leave(caller: Caller, slipId: string): Promise<void> {
    await this.database.transaction(async (trx) => {
      const slip = await this.slipOf(trx, caller, slipId);
      await this.store.removeSlip(trx, caller.houseId, slipId);
      await this.ledger.write(trx, caller.houseId, [{ personId: caller.id, act: 'slip.left', registerId: slip.proposal.registerId, detail: { proposal: slip.proposal } }]);
      await this.changes.append(trx, caller.houseId, [slipsChanged]);
    });
  }

  private async slipOf(trx: Trx, caller: Caller, id: string): Promise<Slip> {
    const slip = await this.store.slip(trx, caller.houseId, id);
    if (!slip) throw notFound('This slip');
    return slip;
  }

  private async ask(trx: Trx, caller: Caller, plan: Plan, id: string): Promise<Slip> {
    const questions = questionsOf(plan);
    await this.store.saveSlip(trx, caller.houseId, { id, personId: caller.id, proposal: plan.proposal, questions, inside: insideOf(plan), entries: entriesTouched(plan.proposal) });
    await this.changes.append(trx, caller.houseId, [slipsChanged]);
    return this.slipOf(trx, caller, id);
  }

  private async mustNotWait(trx: Trx, caller: Caller, proposal: Proposal): Promise<void> {
    const waiting = await this.store.slipOn(trx, caller.houseId, proposal.registerId, entriesTouched(proposal));
    if (waiting) throw new ProblemError('slip-open', `A change of ${waiting} to this cell waits for its answers. Answer or leave its slip first.`);
  }
}

const slipsChanged = { audience: 'administrators', body: { kind: 'slips' } } as const;

/** Lists of source sheets only. */
function sourceOf(build: HouseBuild, registerId: string, caller: Caller): RegisterBuild {
  const register = registerOf(build, registerId, caller);
  if (!register.source) throw notFound('This list');
  return register;
}

function rangeOf(build: HouseBuild, id: string): RangeBuild {
  const range = build.ranges.find((known) => known.id === id);
  if (!range) throw notFound('This range');
  return range;
}

function mustBeFree(name: string, others: readonly SourceRange[]): void {
  const fault = nameFault(name, others.map((range) => range.name));
  if (fault) throw new ProblemError(fault.code === 'name taken' ? 'name-taken' : 'name-unfit', fault.message, { faults: { name: fault.message } });
}

/** Texts that a source cell cannot hold, and fields that the register does not have. */
function mustFit(register: RegisterBuild, act: Act): void {
  const texts = act.act === 'write' ? act.cells.map((cell) => [cell.field, cell.text] as const) : act.act === 'insert' ? act.entries.flatMap((entry) => Object.entries(entry.cells)) : [];
  if (act.act === 'sort') fieldWithKey(register, act.field);
  for (const [field, text] of texts) {
    fieldWithKey(register, field);
    const fault = sourceTextFault(text);
    if (fault) throw new ProblemError('value-refused', fault.message, { verdict: fault.code, suggestions: [] });
  }
}

function mustHaveEntries({ before, proposal }: Plan): void {
  const known = new Set(before.entries.map(({ id }) => id));
  const missing = entriesTouched(proposal).some((id) => !known.has(id));
  if (missing) throw notFound('A row of the list');
}

/** While a correction is under way its old spelling cannot be a value again. */
function mustNotReuse(build: HouseBuild, plan: Plan): void {
  for (const { catalogId, diff } of plan.catalogs) {
    const fields = new Set(boundFields(build, catalogId).map(({ id }) => id));
    const old = new Set(build.carries.filter(({ fieldId }) => fields.has(fieldId)).map(({ from }) => from));
    const reused = [...diff.added, ...diff.restored, ...diff.edited.map(({ to }) => to)].find((value) => old.has(value));
    if (reused) throw new ProblemError('carry-under-way', `Entries are still following the correction of “${reused}”. Use this spelling again when they are through.`);
  }
}

function notesOf(build: HouseBuild, plan: Plan): string[] {
  const offered = plan.catalogs.flatMap(({ catalogId, diff }) => {
    const fields = boundFields(build, catalogId).length;
    const values = [...diff.added, ...diff.restored];
    if (values.length === 0) return [];
    const what = values.length === 1 ? `“${values[0]!}” is` : `${values.length} values are`;
    return [`${what} offered now in ${fields === 1 ? '1 field' : `${fields} fields`}.`];
  });
  return [...sortNotes(plan.before, plan.after, plan.proposal), ...offered];
}
