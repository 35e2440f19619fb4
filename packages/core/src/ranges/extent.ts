// Which rows of its register a stretch covers now.
import { isBlank } from '../text/index.js';
import type { Entry, EntryId } from '../registers/index.js';
import { endKind } from './ends.js';
import type { Extent, Stretch } from './models.js';

/** Ordinals by entry, counted from 0. */
export function ordinalsOf(entries: readonly Entry[]): Map<EntryId, number> {
  return new Map(entries.map((entry, ordinal) => [entry.id, ordinal]));
}

/** The ordinal at which a stretch starts. An anchor that is not there counts as the top. */
export function firstOrdinal({ start }: Stretch, ordinals: ReadonlyMap<EntryId, number>): number {
  if (start.at === 'top') return 0;
  const ordinal = ordinals.get(start.entry);
  if (ordinal === undefined) return 0;
  return start.at === 'entry' ? ordinal : ordinal + 1;
}

/** Where a growing stretch must stop: the start of the next one that shares a field, or the end of the register. */
function boundOf(
  stretch: Stretch,
  first: number,
  others: readonly Stretch[],
  ordinals: ReadonlyMap<EntryId, number>,
  length: number,
): number {
  let bound = length;
  for (const other of others) {
    if (!other.fields.some((field) => stretch.fields.includes(field))) continue;
    const start = firstOrdinal(other, ordinals);
    if (start > first && start < bound) bound = start;
  }
  return bound;
}

const nowhere: ReadonlyMap<EntryId, number> = new Map();

const visible = /[!-~]/u;
/** What is plainly visible need not be cleaned to be seen. */
const isFilled = (text: string | undefined): boolean => text !== undefined && (visible.test(text) || !isBlank(text));

/** The rows of a stretch. `others` are the stretches over the same register (the stretch itself may be among them). */
export function extentOf(stretch: Stretch, entries: readonly Entry[], others: readonly Stretch[]): Extent {
  // Where nothing is anchored to an entry, no entry needs to be found.
  const isAnchored = ({ start, end }: Stretch) => start.at !== 'top' || end.ends === 'fixed';
  const ordinals = isAnchored(stretch) || others.some(isAnchored) ? ordinalsOf(entries) : nowhere;
  const first = firstOrdinal(stretch, ordinals);
  const bound = boundOf(stretch, first, others, ordinals, entries.length);
  const endOrdinal = stretch.end.ends === 'fixed' && stretch.end.entry !== null ? ordinals.get(stretch.end.entry) : undefined;
  const filled = (ordinal: number) => stretch.fields.some((field) => isFilled(entries[ordinal]!.cells[field]));
  return { registerId: stretch.registerId, first, beyond: endKind(stretch.end).beyond(filled, first, bound, endOrdinal), bound };
}
