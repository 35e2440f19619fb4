// What each range of one field takes from its register, and what it leaves out and why.
import { clean } from '../text/index.js';
import type { Entry, EntryId } from '../registers/index.js';
import { endKind } from './ends.js';
import type { LeftOut, LeftOutWhy, RangeTaking, RangeValue, SourceRange, SourceRow } from './models.js';

/** Ordinals by entry, counted from 0. */
export function ordinalsOf(entries: readonly Entry[]): Map<EntryId, number> {
  return new Map(entries.map((entry, ordinal) => [entry.id, ordinal]));
}

/** The ordinal at which a range starts. An anchor that is not there counts as the top. */
export function firstOrdinal(range: SourceRange, ordinals: ReadonlyMap<EntryId, number>): number {
  if (range.start.at === 'top') return 0;
  const ordinal = ordinals.get(range.start.entry);
  if (ordinal === undefined) return 0;
  return range.start.at === 'entry' ? ordinal : ordinal + 1;
}

/** Where a growing range must stop: the start of the next range of the field, or the end of the register. */
function boundOf(range: SourceRange, first: number, others: readonly SourceRange[], ordinals: ReadonlyMap<EntryId, number>, length: number): number {
  let bound = length;
  for (const other of others) {
    if (other.id === range.id || other.field !== range.field) continue;
    const start = firstOrdinal(other, ordinals);
    if (start > first && start < bound) bound = start;
  }
  return bound;
}

/**
 * Reads one range. `others` are the ranges of the same register (the range itself may be among them).
 * Values are cleaned; blanks are skipped; a repeat belongs to the value's first place.
 */
export function takeRange(range: SourceRange, entries: readonly Entry[], others: readonly SourceRange[]): RangeTaking {
  const ordinals = ordinalsOf(entries);
  const texts = entries.map((entry) => clean(entry.cells[range.field] ?? ''));
  const filled = texts.map((text) => text !== '');
  const first = firstOrdinal(range, ordinals);
  const bound = boundOf(range, first, others, ordinals, entries.length);
  const endOrdinal = range.end.ends === 'fixed' && range.end.entry !== null ? ordinals.get(range.end.entry) : undefined;
  const kind = endKind(range.end);
  const beyond = kind.beyond(filled, first, bound, endOrdinal);

  const rowsByValue = new Map<string, SourceRow[]>();
  const leftOut: LeftOut[] = [];
  const leave = (ordinal: number, why: LeftOutWhy) => leftOut.push({ entry: entries[ordinal]!.id, ordinal, why, text: texts[ordinal]! });
  for (let ordinal = first; ordinal < beyond; ordinal++) {
    const row = { entry: entries[ordinal]!.id, ordinal };
    const known = rowsByValue.get(texts[ordinal]!);
    if (!filled[ordinal]) leave(ordinal, 'blank');
    else if (known) {
      known.push(row);
      leave(ordinal, 'repeat');
    } else rowsByValue.set(texts[ordinal]!, [row]);
  }
  for (let ordinal = beyond; ordinal < bound; ordinal++) {
    if (filled[ordinal]) leave(ordinal, range.end.ends === 'gap' ? 'after the gap' : 'past the end');
  }
  const values: RangeValue[] = [...rowsByValue].map(([value, rows]) => ({ value, rows }));
  return { values, leftOut, first, beyond, grows: kind.grows };
}
