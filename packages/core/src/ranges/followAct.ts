// How the anchors of a range follow an act on its register: a range is tied to entries, not to row numbers.
import { applyAct, type Act, type Entry, type EntryId } from '../registers/index.js';
import type { RangeEnd, RangeStart, SourceRange } from './models.js';
import { firstOrdinal, ordinalsOf, takeRange } from './takeRange.js';

interface Stretch {
  readonly first: number;
  /** Ordinal of the fixed end; undefined when the range grows or is empty. */
  readonly last: number | undefined;
}

function stretchOf(range: SourceRange, entries: readonly Entry[]): Stretch {
  const ordinals = ordinalsOf(entries);
  const end = range.end.ends === 'fixed' && range.end.entry !== null ? ordinals.get(range.end.entry) : undefined;
  return { first: firstOrdinal(range, ordinals), last: end };
}

/** The place just under the nearest entry above `ordinal` that stays. */
function placeAbove(entries: readonly Entry[], ordinal: number, leaves: ReadonlySet<EntryId>): RangeStart {
  for (let above = ordinal - 1; above >= 0; above--) {
    if (!leaves.has(entries[above]!.id)) return { at: 'after', entry: entries[above]!.id };
  }
  return { at: 'top' };
}

/** Passes the anchors that leave to their inner neighbours; a range with nothing left keeps its place. */
function passAnchors(range: SourceRange, entries: readonly Entry[], others: readonly SourceRange[], leaves: ReadonlySet<EntryId>): SourceRange {
  const { first, last } = stretchOf(range, entries);
  const innermost = last ?? takeRange(range, entries, others).beyond - 1;
  let start = range.start;
  if (start.at === 'after' && leaves.has(start.entry)) start = placeAbove(entries, first, leaves);
  if (start.at === 'entry' && leaves.has(start.entry)) {
    const inner = entries.slice(first, innermost + 1).find((entry) => !leaves.has(entry.id));
    start = inner ? { at: 'entry', entry: inner.id } : placeAbove(entries, first, leaves);
  }
  let end: RangeEnd = range.end;
  if (end.ends === 'fixed' && end.entry !== null && leaves.has(end.entry)) {
    const inner = entries.slice(first, innermost + 1).findLast((entry) => !leaves.has(entry.id));
    end = { ends: 'fixed', entry: inner?.id ?? null };
  }
  return { ...range, start, end };
}

/** True when the act takes along every entry of a range that starts at an entry: such a range goes with them. */
function movesWhole(range: SourceRange, entries: readonly Entry[], others: readonly SourceRange[], moving: ReadonlySet<EntryId>): boolean {
  if (range.start.at !== 'entry') return false;
  const { first, beyond } = takeRange(range, entries, others);
  const stretch = entries.slice(first, beyond);
  return stretch.length > 0 && stretch.every((entry) => moving.has(entry.id));
}

/** After a sort a range keeps its ordinals: the anchors are the entries that now stand there. */
function keepOrdinals(range: SourceRange, before: readonly Entry[], after: readonly Entry[]): SourceRange {
  const { first, last } = stretchOf(range, before);
  let start = range.start;
  if (start.at === 'entry') start = { at: 'entry', entry: after[first]!.id };
  if (start.at === 'after') start = { at: 'after', entry: after[first - 1]!.id };
  const end: RangeEnd = last === undefined ? range.end : { ends: 'fixed', entry: after[last]!.id };
  return { ...range, start, end };
}

/** The range after the act. `others` are the ranges of the same register before it. */
export function followAct(range: SourceRange, entries: readonly Entry[], others: readonly SourceRange[], act: Act, language: string): SourceRange {
  switch (act.act) {
    case 'write':
    case 'insert':
      return range;
    case 'delete':
      return passAnchors(range, entries, others, new Set(act.entries));
    case 'move': {
      const moving = new Set(act.entries);
      return movesWhole(range, entries, others, moving) ? range : passAnchors(range, entries, others, moving);
    }
    case 'sort':
      return keepOrdinals(range, entries, applyAct(entries, act, language));
  }
}
