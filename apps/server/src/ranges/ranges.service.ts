// Named ranges: made over selected cells, renamed, ended otherwise, laid over other cells, deleted when nothing uses them.
import { randomUUID } from 'node:crypto';
import { Injectable } from '@nestjs/common';
import {
  clean,
  endAnother,
  endAt,
  endingOf,
  examine,
  heldBy,
  nameFault,
  namingCatalogs,
  proposalOf,
  readSourceState,
  readsDirectly,
  redefined,
  stretchesOver,
  type Proposal,
  type SourceRange,
} from '@dellum/core';
import {
  rangeMark,
  type ChangeRangeDto,
  type CureDto,
  type MakeRangeDto,
  type Outcome,
  type RangeLine,
  type RangeLook,
} from '@dellum/contract';
import { StructureService, apartIn } from '../structure/structure.service.js';
import type { HouseBuild } from '../structure/structure.store.js';
import { Database, type Trx } from '../database/database.js';
import { EntriesStore } from '../entries/entries.store.js';
import type { Caller } from '../access/access.js';
import { notFound, ProblemError } from '../problems/index.js';
import { outsideOf, PlanningService, questionsOf } from '../sources/planning.service.js';
import { SourcesService } from '../sources/sources.service.js';
import { SourceStatesService } from '../compiled/sourceStates.service.js';
import { stretchesAt } from '../sources/placing.js';
import { FindingsService } from './findings.service.js';

/** How many values of each kind a look at a change names. */
const mostShown = 20;

@Injectable()
export class RangesService {
  constructor(
    private readonly database: Database,
    private readonly builds: StructureService,
    private readonly entries: EntriesStore,
    private readonly sources: SourcesService,
    private readonly sourceStates: SourceStatesService,
    private readonly planning: PlanningService,
    private readonly findings: FindingsService,
  ) {}

  make(caller: Caller, dto: MakeRangeDto): Promise<Outcome> {
    return this.sources.propose(caller, async (trx, build) => {
      mustBeFree(dto.name, build.ranges);
      const stretches = await stretchesAt(trx, this.entries, build, caller, dto.shape, dto.place, dto.ends);
      return proposalOf({
        what: 'range made',
        range: { id: randomUUID(), name: clean(dto.name), shape: dto.shape, inherits: dto.inherits && dto.shape === 'levels', stretches },
      });
    });
  }

  change(caller: Caller, id: string, dto: ChangeRangeDto): Promise<Outcome> {
    return this.sources.propose(caller, (trx, build) => this.changing(trx, caller, build, id, dto));
  }

  /** What a change would bring in, take out and respell, and how many entries it touches. */
  look(caller: Caller, id: string, dto: ChangeRangeDto): Promise<RangeLook> {
    return this.database.transaction(async (trx) => {
      const build = await this.builds.at(trx, caller.houseId);
      const plan = await this.planning.plan(trx, build, await this.changing(trx, caller, build, id, dto));
      const found = redefined(readSourceState(plan.before).taking(id), readSourceState(plan.after).taking(id));
      const { comesIn, goesOut, respelled } = found;
      return {
        takes: found.takes,
        comesIn: comesIn.slice(0, mostShown),
        goesOut: goesOut.slice(0, mostShown),
        respelled: respelled.slice(0, mostShown),
        counts: { comesIn: comesIn.length, goesOut: goesOut.length, respelled: respelled.length },
        entries:
          questionsOf(plan).reduce((sum, question) => sum + heldBy(question), 0) +
          outsideOf(plan).reduce((sum, { entries }) => sum + entries, 0),
      };
    });
  }

  private async changing(trx: Trx, caller: Caller, build: HouseBuild, id: string, dto: ChangeRangeDto): Promise<Proposal> {
    const range = rangeOf(build, id);
    if (dto.seen !== undefined && dto.seen !== rangeMark(range)) {
      throw new ProblemError(
        'range-changed',
        `Somebody else has changed “${range.name}” since you looked at it. Look at it again, then change it.`,
      );
    }
    if (dto.name !== undefined)
      mustBeFree(
        dto.name,
        build.ranges.filter((other) => other.id !== id),
      );
    const named: SourceRange = {
      ...range,
      ...(dto.name !== undefined && { name: clean(dto.name) }),
      ...(dto.inherits !== undefined && { inherits: dto.inherits && range.shape === 'levels' }),
    };
    const placed = dto.place
      ? { ...named, stretches: await stretchesAt(trx, this.entries, build, caller, range.shape, dto.place, dto.ends ?? endingOf(range)) }
      : named;
    return proposalOf({ what: 'range changed', range: dto.place ? placed : await this.ended(trx, build, placed, dto) });
  }

  /** The range with another end, on the state of now. */
  private async ended(trx: Trx, build: HouseBuild, range: SourceRange, dto: ChangeRangeDto): Promise<SourceRange> {
    if (!dto.ends && !dto.endEntry) return range;
    const { registers } = await this.sourceStates.read(trx, build, { ranges: [range.id] });
    let reached = false;
    const stretches = range.stretches.map((stretch) => {
      const { entries } = registers.get(stretch.registerId)!;
      if (dto.endEntry === undefined) return endAnother(stretch, entries, stretchesOver(build.ranges, stretch.registerId), dto.ends!);
      const ended = endAt(stretch, entries, dto.endEntry);
      reached ||= ended !== undefined;
      return ended ?? stretch;
    });
    if (dto.endEntry !== undefined && !reached)
      throw new ProblemError('no-cells', 'The range cannot end above its start. Choose a row below it.');
    return { ...range, stretches };
  }

  remove(caller: Caller, id: string): Promise<Outcome> {
    return this.sources.propose(caller, (_trx, build) => {
      const range = rangeOf(build, id);
      const users = [...build.catalogs.values()]
        .filter(({ definition }) => readsDirectly(definition, 'ranges', id))
        .map(({ title }) => `catalog ${title}`);
      if (users.length > 0)
        throw new ProblemError('in-use', `“${range.name}” feeds ${users.join(', ')}. Take it out there first.`, { users });
      return proposalOf({ what: 'range deleted', range });
    });
  }

  /** Every range with what it takes, what it leaves out and why, and what the doctor finds. */
  async lines(caller: Caller): Promise<readonly RangeLine[]> {
    return (await this.findings.of(await this.builds.now(caller.houseId))).ranges;
  }

  /** Does the cure of a finding. It is found anew; one that is not there any more mends nothing. */
  cure(caller: Caller, dto: CureDto): Promise<Outcome> {
    return this.sources.propose(caller, async (trx, build) => {
      const sourceState = await this.sourceStates.read(trx, build, { ranges: build.ranges.map(({ id }) => id), catalogs: naming(build) });
      const finding = examine(dto.rangeId, sourceState, { apart: apartIn(build) }).find(
        ({ kind, words }) => kind === dto.kind && words === dto.words,
      );
      if (!finding?.cure) throw notFound('This finding');
      return finding.cure.proposal;
    });
  }
}

/** Catalogs whose values name ranges: with them it is known which ranges are used by name. */
const naming = (build: HouseBuild): string[] => namingCatalogs([...build.catalogs.values()].map(({ definition }) => definition));

function rangeOf(build: HouseBuild, id: string): SourceRange {
  const range = build.ranges.find((known) => known.id === id);
  if (!range) throw notFound('This range');
  return range;
}

function mustBeFree(name: string, others: readonly SourceRange[]): void {
  const fault = nameFault(
    name,
    others.map((range) => range.name),
  );
  if (fault)
    throw new ProblemError(fault.code === 'name taken' ? 'name-taken' : 'name-unfit', fault.message, { faults: { name: fault.message } });
}
