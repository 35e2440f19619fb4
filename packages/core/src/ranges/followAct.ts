// How the anchors of a range follow an act on a register: a range is tied to entries, not to row numbers.
import { applyAct, type Act, type Entry, type EntryId, type RegisterId } from '../registers/index.js';
import { extentOf, firstOrdinal, ordinalsOf } from './extent.js';
import { stretchesOver, type RangeEnd, type RangeStart, type SourceRange, type Stretch } from './models.js';

interface Anchored {
  readonly first: number;
  /** Ordinal of the fixed end; undefined when the stretch grows or is empty. */
  readonly last: number | undefined;
}

function anchored(stretch: Stretch, entries: readonly Entry[]): Anchored {
  const ordinals = ordinalsOf(entries);
  const end = stretch.end.ends === 'fixed' && stretch.end.entry !== null ? ordinals.get(stretch.end.entry) : undefined;
  return { first: firstOrdinal(stretch, ordinals), last: end };
}

/** The place just under the nearest entry above `ordinal` that stays. */
function placeAbove(entries: readonly Entry[], ordinal: number, leaves: ReadonlySet<EntryId>): RangeStart {
  for (let above = ordinal - 1; above >= 0; above--) {
    if (!leaves.has(entries[above]!.id)) return { at: 'after', entry: entries[above]!.id };
  }
  return { at: 'top' };
}

/** Passes the anchors that leave to their inner neighbours; a stretch with nothing left keeps its place. */
function passAnchors(stretch: Stretch, entries: readonly Entry[], others: readonly Stretch[], leaves: ReadonlySet<EntryId>): Stretch {
  const { first, last } = anchored(stretch, entries);
  const innermost = last ?? extentOf(stretch, entries, others).beyond - 1;
  let start = stretch.start;
  if (start.at === 'after' && leaves.has(start.entry)) start = placeAbove(entries, first, leaves);
  if (start.at === 'entry' && leaves.has(start.entry)) {
    const inner = entries.slice(first, innermost + 1).find((entry) => !leaves.has(entry.id));
    start = inner ? { at: 'entry', entry: inner.id } : placeAbove(entries, first, leaves);
  }
  let end: RangeEnd = stretch.end;
  if (end.ends === 'fixed' && end.entry !== null && leaves.has(end.entry)) {
    const inner = entries.slice(first, innermost + 1).findLast((entry) => !leaves.has(entry.id));
    end = { ends: 'fixed', entry: inner?.id ?? null };
  }
  return { ...stretch, start, end };
}

/** True when the act takes along every entry of a stretch that starts at an entry: such a stretch goes with them. */
function movesWhole(stretch: Stretch, entries: readonly Entry[], others: readonly Stretch[], moving: ReadonlySet<EntryId>): boolean {
  if (stretch.start.at !== 'entry') return false;
  const { first, beyond } = extentOf(stretch, entries, others);
  const covered = entries.slice(first, beyond);
  return covered.length > 0 && covered.every((entry) => moving.has(entry.id));
}

/** After the order has changed a stretch keeps its ordinals: the anchors are the entries that now stand there. */
function keepOrdinals(stretch: Stretch, before: readonly Entry[], after: readonly Entry[]): Stretch {
  const { first, last } = anchored(stretch, before);
  let start = stretch.start;
  if (start.at === 'entry') start = { at: 'entry', entry: after[first]!.id };
  if (start.at === 'after') start = { at: 'after', entry: after[first - 1]!.id };
  const end: RangeEnd = last === undefined ? stretch.end : { ends: 'fixed', entry: after[last]!.id };
  return { ...stretch, start, end };
}

function followed(stretch: Stretch, entries: readonly Entry[], others: readonly Stretch[], act: Act, language: string): Stretch {
  switch (act.act) {
    case 'write':
    case 'insert':
      return stretch;
    case 'delete':
      return passAnchors(stretch, entries, others, new Set(act.entries));
    case 'move': {
      const moving = new Set(act.entries);
      return movesWhole(stretch, entries, others, moving) ? stretch : passAnchors(stretch, entries, others, moving);
    }
    case 'sort':
    case 'arrange':
      return keepOrdinals(stretch, entries, applyAct(entries, act, language));
  }
}

/** The range after an act on the register. `entries` and `others` (ranges over it) are as they were before. */
export function followAct(
  range: SourceRange,
  registerId: RegisterId,
  entries: readonly Entry[],
  others: readonly SourceRange[],
  act: Act,
  language: string,
): SourceRange {
  const neighbours = stretchesOver(others, registerId);
  const stretches = range.stretches.map((stretch) =>
    stretch.registerId === registerId ? followed(stretch, entries, neighbours, act, language) : stretch,
  );
  return stretches.every((stretch, at) => stretch === range.stretches[at]) ? range : { ...range, stretches };
}
