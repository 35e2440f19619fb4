// Values that clerks bring in: added to the source of a catalog before they are stored, or asked for when they are.
import { randomUUID } from 'node:crypto';
import { Injectable } from '@nestjs/common';
import {
  afterStep,
  catalogIdOf,
  grouped,
  itemKey,
  matchKey,
  parentsOf,
  type Cells,
  type SourceState,
  type Step,
  type Verdict,
} from '@dellum/core';
import { adding, type CatalogAt } from '../catalogs/itemSteps.js';
import { catalogOf } from '../catalogs/catalogs.service.js';
import type { FieldBuild, HouseBuild, RegisterBuild } from '../structure/structure.store.js';
import type { Trx } from '../database/database.js';
import { ChangesStore } from '../changes/changes.store.js';
import type { Caller } from '../access/access.js';
import { ProblemError } from '../problems/index.js';
import { RequestsStore, type NewRequest } from './requests.store.js';
import { SourcesService } from '../sources/sources.service.js';
import { SourceStatesService } from '../compiled/sourceStates.service.js';
import type { Writer } from './entryWriter.service.js';

/** A value that a catalog is to get under some parents. */
export interface Addition {
  readonly catalogId: string;
  readonly path: readonly string[];
  readonly value: string;
}
/** Thrown out of a transaction that has found values to add: they are added first, then it is tried again. */
export class AddFirst extends Error {
  constructor(readonly additions: readonly Addition[]) {
    super('values are to be added first');
  }
}

/** A judged cell of an entry, as it is after judging. */
export interface JudgedCell {
  readonly entry: string;
  readonly field: FieldBuild;
  readonly verdict: Verdict;
  readonly cells: Cells;
}

/** The judged cells of a block. */
export const judgedCells = (
  outcomes: readonly { readonly entry: string; readonly field: string; readonly verdict: Verdict }[],
  fields: ReadonlyMap<string, FieldBuild>,
  after: ReadonlyMap<string, Cells>,
): JudgedCell[] =>
  outcomes.map(({ entry, field, verdict }) => ({ entry, field: fields.get(field)!, verdict, cells: after.get(entry) ?? {} }));

/** The new values of a judged cell, where they belong, when its verdict is of this kind. */
const newIn = (cell: JudgedCell, kind: 'requested' | 'added'): Addition[] => {
  const { rule } = cell.field;
  const catalogId = catalogIdOf(rule);
  return cell.verdict.verdict === kind && catalogId !== undefined
    ? cell.verdict.newValues.map((value) => ({ catalogId, path: parentsOf(rule).map((key) => cell.cells[key] ?? ''), value }))
    : [];
};

@Injectable()
export class NewValuesService {
  constructor(
    private readonly sources: SourcesService,
    private readonly sourceStates: SourceStatesService,
    private readonly requests: RequestsStore,
    private readonly changes: ChangesStore,
  ) {}

  /** Does an act of entering; values that it has to add first are added, and it is tried again. */
  async around<T>(caller: Caller, act: () => Promise<T>): Promise<T> {
    try {
      return await act();
    } catch (error) {
      if (!(error instanceof AddFirst)) throw error;
      await this.add(caller, error.additions);
    }
    try {
      return await act();
    } catch (error) {
      if (!(error instanceof AddFirst)) throw error;
      throw new ProblemError(
        'in-use',
        `“${error.additions[0]!.value}” was added to the source of the catalog, but the catalog leaves it out. Ask an administrator to look at its filter.`,
        { users: [] },
      );
    }
  }

  /** Throws what is to be added before the judged cells can be stored. */
  mustAdd(judged: readonly JudgedCell[]): void {
    const additions = judged.flatMap((cell) => newIn(cell, 'added'));
    if (additions.length > 0) throw new AddFirst(additions);
  }

  /** Writes values into the sources of their catalogs, as one proposal. */
  async add(caller: Caller, additions: readonly Addition[]): Promise<void> {
    // One thing in several spellings is added once, as it was written first.
    const wanted = [
      ...grouped(additions, ({ catalogId, path, value }) => `${catalogId} ${itemKey({ path, value: matchKey(value) })}`).values(),
    ].map(([first]) => first!);
    const outcome = await this.sources.propose(caller, async (trx, build) => {
      const sourceState = await this.sourceStates.read(trx, build, { catalogs: [...new Set(additions.map(({ catalogId }) => catalogId))] });
      return { steps: stepsFor(build, sourceState, wanted) };
    });
    if (outcome.slip) throw new ProblemError('slip-open', 'The new value would change entries elsewhere. Ask an administrator to add it.');
  }

  /** Keeps the requests of stored cells, in their transaction. */
  async keepRequests(trx: Trx, caller: Writer, register: RegisterBuild, judged: readonly JudgedCell[]): Promise<void> {
    const requests = judged.flatMap((cell) =>
      newIn(cell, 'requested').map((request): NewRequest => ({
        id: randomUUID(),
        fieldId: cell.field.id,
        entryId: cell.entry,
        ...request,
      })),
    );
    if (requests.length === 0) return;
    await this.requests.add(trx, caller.houseId, caller.id, requests);
    await this.changes.append(trx, caller.houseId, [{ audience: 'everyone', body: { kind: 'requests', registerId: register.id } }]);
  }
}

/** The steps that add values one after the other, each to the sources as the one before has left. */
function stepsFor(build: HouseBuild, before: SourceState, additions: readonly Addition[]): Step[] {
  const all: Step[] = [];
  let sourceState = before;
  for (const { catalogId, path, value } of additions) {
    const steps = stepsOf({ id: catalogId, title: catalogOf(build, catalogId).title, sourceState }, path, value);
    all.push(...steps);
    sourceState = steps.reduce(afterStep, sourceState);
  }
  return all;
}

function stepsOf(catalog: CatalogAt, path: readonly string[], value: string): readonly Step[] {
  try {
    return adding(catalog, { path: [...path], value, widen: true }).steps;
  } catch (error) {
    // Somebody else has added it in between.
    if (error instanceof ProblemError && error.code === 'name-taken') return [];
    throw error;
  }
}
