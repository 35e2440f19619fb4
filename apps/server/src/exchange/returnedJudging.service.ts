// What would become of rows of a file that came back, as it is decided now: judged as if their cells had been typed, with all that follows.
import { Injectable } from '@nestjs/common';
import { carried, cellsOfNew, format, type Cells, type Verdict } from '@dellum/core';
import type { EntryView, FollowingCell, ReturnedCell, ReturnedRowKind } from '@dellum/contract';
import type { Caller } from '../access/access.js';
import type { Trx } from '../database/database.js';
import { BlockJudgingService } from '../entering/blockJudging.service.js';
import { ClosingService } from '../entering/closing.service.js';
import { seenAs } from '../entering/takenBack.js';
import { withFollowers } from '../entries/judging.js';
import type { HouseBuild, RegisterBuild } from '../structure/structure.store.js';

interface RowToJudge {
  readonly what: ReturnedRowKind;
  readonly entry: string;
  readonly cells: readonly ReturnedCell[];
}
export type JudgedReturn<Row extends RowToJudge> = Row & {
  readonly follows: readonly FollowingCell[];
  readonly verdicts: ReadonlyMap<string, Verdict>;
  /** The entry as it would be; undefined where nothing of the row is judged. */
  readonly after: Cells | undefined;
};
interface Place {
  readonly build: HouseBuild;
  readonly register: RegisterBuild;
}
interface SettledEntry {
  readonly verdicts: Map<string, Verdict>;
  readonly before: Cells;
  readonly after: Cells;
}

@Injectable()
export class ReturnedJudgingService {
  constructor(
    private readonly blocks: BlockJudgingService,
    private readonly closing: ClosingService,
  ) {}

  /** `standing`: the entries of the rows, as far as they are there. */
  async judge<Row extends RowToJudge>(
    trx: Trx,
    caller: Caller,
    place: Place,
    rows: readonly Row[],
    standing: ReadonlyMap<string, EntryView>,
  ): Promise<JudgedReturn<Row>[]> {
    const decided = await this.settled(trx, caller, place, rows, standing, ({ takes }) => takes === 'came');
    // What stays as it is here is judged beside what comes, to say what would be refused of it.
    const open = rows.filter(({ cells }) => cells.some(({ takes }) => takes === 'here'));
    const both = open.length > 0 ? await this.settled(trx, caller, place, open, standing, () => true) : undefined;
    return rows.map((row) => {
      const own = decided.get(row.entry);
      const verdicts = new Map([...(both?.get(row.entry)?.verdicts ?? []), ...(own?.verdicts ?? [])]);
      const cells = row.cells.map((cell) => withVerdict(cell, verdicts.get(cell.field)));
      return { ...row, cells, verdicts, after: own?.after, follows: own ? followsIn(place, row.cells, own) : [] };
    });
  }

  /** By entry, the verdicts on some cells, and the entry before and after. */
  private async settled(
    trx: Trx,
    caller: Caller,
    { build, register }: Place,
    rows: readonly RowToJudge[],
    standing: ReadonlyMap<string, EntryView>,
    which: (cell: ReturnedCell) => boolean,
  ): Promise<Map<string, SettledEntry>> {
    const known = new Map(register.fields.map((field) => [field.key, field]));
    const typed = rows
      .filter(({ what, entry }) => what === 'new' || standing.has(entry))
      .flatMap(({ entry, cells }) =>
        cells
          .filter((cell) => which(cell) && known.has(cell.field))
          .map(({ field, text, confirmed }) => ({ entry, field, typed: text, ...(confirmed && { confirmed }) })),
      );
    const fields = new Map([...new Set(typed.map(({ field }) => field))].map((key) => [key, known.get(key)!]));
    const needed = new Set([...fields.values()].flatMap((field) => withFollowers(register, field)));
    const judgement = await this.blocks.judgement(trx, build, register, [...needed], typed.length <= 200, caller.role);
    const begun = cellsOfNew(register.fields, undefined, judgement.today ?? '');
    const entries = new Map(
      [...new Set(typed.map(({ entry }) => entry))].map((id) => [id, standing.get(id) ?? { id, version: 0, cells: begun }]),
    );
    const closed = await this.closing.closedTo(trx, build, register, seenAs(standing.values(), judgement.carries), caller);
    const { outcomes, after } = await this.blocks.block(trx, build.houseId, register, typed, fields, entries, { ...judgement, closed });
    const found = new Map<string, SettledEntry>();
    for (const { entry, field, verdict } of outcomes) {
      const before = carried(entries.get(entry)!.cells, judgement.carries);
      const held = found.get(entry) ?? { verdicts: new Map<string, Verdict>(), before, after: after.get(entry) ?? before };
      held.verdicts.set(field, verdict);
      found.set(entry, held);
    }
    return found;
  }
}

/** The cells that change with those that came. */
function followsIn({ build, register }: Place, cells: readonly ReturnedCell[], { before, after }: SettledEntry): FollowingCell[] {
  const came = new Set(cells.filter(({ takes }) => takes === 'came').map(({ field }) => field));
  return register.fields.flatMap(({ key, kind }) => {
    const [was = '', is = ''] = [before[key], after[key]];
    if (came.has(key) || was === is) return [];
    const shown = (value: string) => (value === '' ? '' : format(kind, value, build.locale));
    return [{ field: key, shown: shown(was), becomes: shown(is) }];
  });
}

/** With what would be said of it where it is refused. */
function withVerdict({ refused: _before, ...cell }: ReturnedCell, verdict: Verdict | undefined): ReturnedCell {
  if (verdict?.verdict !== 'refused') return cell;
  const { code, message, suggestions, mayConfirm } = verdict;
  return { ...cell, refused: { code, message, suggestions, ...(mayConfirm && { mayConfirm: true }) } };
}
