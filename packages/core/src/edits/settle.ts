// What edits make of entries: judged in the order in which fields read one another, with all that is cleared and filled.
// One cell, a block and a form go through here, in the browser ahead of the server and on the server with authority.
import { blockJudge, type CellJudge } from '../blocks/index.js';
import { carried, type Carry } from '../impact/index.js';
import { withTexts, type Cells, type EntryId, type FieldId } from '../registers/index.js';
import {
  judge,
  planCascade,
  wordsOf,
  type CascadeField,
  type CascadePlan,
  type Given,
  type JudgeContext,
  type Verdict,
} from '../rules/index.js';
import { inReadingOrder } from './order.js';

/** What somebody typed into a cell, or chose for it. */
export type Edit = Given & {
  readonly entry: EntryId;
  readonly field: FieldId;
  /** The value was said to be meant. */
  readonly confirmed?: boolean | undefined;
};

export interface EditContext extends Omit<JudgeContext, 'entry' | 'held' | 'repeats' | 'confirmed'> {
  /** The corrections under way in the register: their old spellings cannot be used anew. */
  readonly carries?: readonly Carry[];
  /** Whether another entry holds the value of a field without repeats; `held` is what the cell itself held. */
  repeats?(field: FieldId, value: string, held: string): boolean;
  /** What is said of an edit in an entry that is closed to whoever types; undefined for one that is open. */
  closed?(entry: EntryId): string | undefined;
}

export interface Settlement {
  /** The verdict on each edit, in the order of the edits. */
  readonly verdicts: readonly Verdict[];
  /** The edited entries as they will be, and what was cleared, kept and filled in each. */
  readonly entries: ReadonlyMap<EntryId, CascadePlan>;
}

const untouched = (cells: Cells): CascadePlan => ({ cells, cleared: [], kept: [], filled: [] });

/** A value that a correction under way replaces is taken as what it becomes. */
function corrected(field: CascadeField, given: Given, verdict: Verdict, { carries = [], locale }: EditContext): Verdict {
  if (verdict.verdict !== 'taken') return verdict;
  const value = carried({ [field.key]: verdict.value }, carries)[field.key] ?? '';
  return value === verdict.value
    ? verdict
    : { ...verdict, value, corrected: `“${wordsOf(field.kind, given, locale)}” was taken as ${value}.` };
}

/** The verdict on one edit of a cell, in the entry as it is before. */
export function judgeEdit(field: CascadeField, given: Given & Pick<Edit, 'confirmed'>, cells: Cells, context: EditContext): Verdict {
  const { carries: _carries, repeats, closed: _closed, ...known } = context;
  const held = cells[field.key] ?? '';
  const verdict = judge(field, given, {
    ...known,
    held,
    entry: cells,
    ...(given.confirmed && { confirmed: true }),
    ...(repeats && { repeats: (value: string) => repeats(field.key, value, held) }),
  });
  return corrected(field, given, verdict, context);
}

/**
 * In a closed entry what a cell holds may be said again, and nothing else. `closed`: what is said of it; undefined for one that is open.
 */
export function unlessClosed(verdict: Verdict, held: string, closed: string | undefined): Verdict {
  const stays = verdict.verdict === 'taken' && verdict.value === held && !verdict.fills;
  return closed === undefined || stays ? verdict : { verdict: 'refused', code: 'closed', message: closed, suggestions: [] };
}

type Known = Omit<EditContext, 'repeats' | 'carries' | 'closed'>;

/** What the judge of one cell knows of a context; taken out once for all edits of a block. */
function knownIn(context: EditContext): Known {
  const found = knownOf.get(context);
  if (found) return found;
  const { repeats: _repeats, carries: _carries, closed: _closed, ...known } = context;
  knownOf.set(context, known);
  return known;
}
const knownOf = new WeakMap<EditContext, Known>();

/** The entry after a verdict on one of its cells, with all that follows from it; undefined when nothing is stored. */
export function afterVerdict(
  fields: readonly CascadeField[],
  cells: Cells,
  field: FieldId,
  verdict: Verdict,
  context: EditContext,
): CascadePlan | undefined {
  if (verdict.verdict === 'refused') return undefined;
  const fills = verdict.verdict === 'taken' ? Object.entries(verdict.fills ?? {}) : [];
  const after = withTexts(cells, [[field, verdict.value], ...fills]);
  if ((after[field] ?? '') === (cells[field] ?? '') && fills.length === 0) return undefined;
  const plan = planCascade(fields, after, [field, ...fills.map(([key]) => key)], knownIn(context));
  return fills.length === 0 ? plan : { ...plan, filled: [...fills.map(([key, value]) => ({ field: key, value })), ...plan.filled] };
}

/** Two plans one after the other: what the second one wrote over is not said of the first. */
function joined(first: CascadePlan, second: CascadePlan | undefined, field: FieldId): CascadePlan {
  if (!second) return first;
  if (first.cleared.length + first.kept.length + first.filled.length === 0) return second;
  const stays = (one: FieldId) => one !== field && (first.cells[one] ?? '') === (second.cells[one] ?? '');
  return {
    cells: second.cells,
    cleared: [...first.cleared.filter((one) => stays(one.field)), ...second.cleared],
    kept: [...first.kept.filter(stays), ...second.kept],
    filled: [...first.filled.filter((one) => stays(one.field)), ...second.filled],
  };
}

/** Judges the edits of a block; what each distinct text means is found once a field. */
function editJudge(context: EditContext): (field: CascadeField, edit: Edit, cells: Cells) => Verdict {
  const judges = new Map<CascadeField, CellJudge>();
  return (field, edit, cells) => {
    if (field.rule?.noRepeats || edit.confirmed) return judgeEdit(field, edit, cells, context);
    const own = judges.get(field) ?? blockJudge(field, knownIn(context));
    judges.set(field, own);
    return corrected(field, edit, own(edit, cells, cells[field.key] ?? ''), context);
  };
}

/**
 * Settles edits of the entries of a register. `entries` holds each edited entry as it is stored; the edits name fields
 * that are among `fields`. Nothing is stored of an edit that is refused. Deterministic: the same edits in any order of
 * their fields come out the same.
 */
export function settle(
  fields: readonly CascadeField[],
  entries: ReadonlyMap<EntryId, Cells>,
  edits: readonly Edit[],
  context: EditContext,
): Settlement {
  const turns = new Map(inReadingOrder(fields).map((field, turn) => [field.key, { field, turn }]));
  const inTurn = edits.map((edit, at) => ({ edit, at, ...turns.get(edit.field)! })).sort((a, b) => a.turn - b.turn);
  const verdicts: Verdict[] = [];
  const after = new Map<EntryId, CascadePlan>();
  const judgeOf = editJudge(context);
  for (const { edit, at, field } of inTurn) {
    const before = after.get(edit.entry) ?? untouched(carried(entries.get(edit.entry)!, context.carries ?? []));
    // Whether it is closed goes by the entry as it is stored: what closes it may come with the rest.
    const verdict = unlessClosed(judgeOf(field, edit, before.cells), before.cells[field.key] ?? '', context.closed?.(edit.entry));
    verdicts[at] = verdict;
    after.set(edit.entry, joined(before, afterVerdict(fields, before.cells, field.key, verdict, context), field.key));
  }
  return { verdicts, entries: after };
}
