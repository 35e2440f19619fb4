// Making a range: its name and its place, checked before anything is stored.
import { clean, forbiddenCharacter, longestName, matchKey } from '../text/index.js';
import type { Entry, EntryId } from '../registers/index.js';
import { extentOf, firstOrdinal, ordinalsOf } from './extent.js';
import type { RangeEnding, Stretch } from './models.js';

export type NameFault = { readonly code: 'name empty' | 'name taken' | 'name too long' | 'forbidden character'; readonly message: string };

/** What is wrong with a name, or undefined. Names that differ only by blanks or case count as taken. */
export function nameFault(name: string, taken: readonly string[]): NameFault | undefined {
  const character = forbiddenCharacter(name);
  if (character)
    return {
      code: 'forbidden character',
      message: `The name holds the character ${character}, which cannot be stored. Type it again without it.`,
    };
  const key = matchKey(name);
  if (key === '') return { code: 'name empty', message: 'Give the range a name, so that catalogs can refer to it.' };
  if (clean(name).length > longestName) return { code: 'name too long', message: `Keep the name under ${longestName} characters.` };
  const other = taken.find((known) => matchKey(known) === key);
  if (other === undefined) return undefined;
  const spelled = clean(other) === clean(name) ? '' : ` It is written “${other}”.`;
  return { code: 'name taken', message: `There is a range of this name already.${spelled} Choose another name.` };
}

/** Start and end of a stretch over the selected entries. A selection from the first row starts at the top. */
export function anchorsOf(
  entries: readonly Entry[],
  selected: readonly EntryId[],
  ends: RangeEnding,
): Pick<Stretch, 'start' | 'end'> | undefined {
  const ordinals = ordinalsOf(entries);
  const chosen = selected.flatMap((entry) => ordinals.get(entry) ?? []);
  if (chosen.length === 0) return undefined;
  const first = chosen.reduce((least, ordinal) => Math.min(least, ordinal));
  const last = chosen.reduce((most, ordinal) => Math.max(most, ordinal));
  return {
    start: first === 0 ? { at: 'top' } : { at: 'entry', entry: entries[first]!.id },
    end: ends === 'fixed' ? { ends, entry: entries[last]!.id } : { ends },
  };
}

/** The same stretch with another way of ending. A fixed end is put at the last row that is taken now. */
export function endAnother(stretch: Stretch, entries: readonly Entry[], others: readonly Stretch[], ends: RangeEnding): Stretch {
  if (ends !== 'fixed') return { ...stretch, end: { ends } };
  const { first, beyond } = extentOf(stretch, entries, others);
  return { ...stretch, end: { ends, entry: beyond > first ? entries[beyond - 1]!.id : null } };
}

/** The same stretch with its fixed end at this entry; undefined when the entry stands above its start. */
export function endAt(stretch: Stretch, entries: readonly Entry[], entry: EntryId): Stretch | undefined {
  const ordinals = ordinalsOf(entries);
  const last = ordinals.get(entry);
  if (last === undefined || last < firstOrdinal(stretch, ordinals)) return undefined;
  return { ...stretch, end: { ends: 'fixed', entry } };
}
