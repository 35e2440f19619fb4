// Judging a block: each distinct text, and each value that is chosen, is judged once for each state of the fields that its verdict depends on. Costs grow
// with distinct texts; a repeated cell costs one lookup.
import type { Cells } from '../registers/index.js';
import {
  isNothing,
  judge,
  meansHeld,
  readsOf,
  type Given,
  type JudgeContext,
  type JudgedField,
  type Verdict,
  type VerdictCode,
} from '../rules/index.js';

/** Verdicts that another value held in the cell can turn: what a cell held it may take back in any spelling. */
const turnedByHeld: ReadonlySet<VerdictCode> = new Set(['retired', 'not yet valid', 'no longer valid', 'condition']);

export type BlockContext = Omit<JudgeContext, 'entry' | 'held' | 'repeats' | 'confirmed'>;
/** The verdict on what is given for a cell of `entry` (as it is before) that holds `held`. */
export type CellJudge = (given: Given, entry: Cells, held: string) => Verdict;

/** A judge that remembers; `contextOf` gives the context of an entry. */
function remembering(field: JudgedField, contextOf: (entry: Cells) => JudgeContext): CellJudge {
  const ofTyped = new Map<string, Verdict>();
  const ofChosen = new Map<string, Verdict>();
  return (given, entry, held) => {
    const known = given.typed === undefined ? ofChosen : ofTyped;
    const text = given.typed ?? given.chosen;
    let verdict = known.get(text);
    if (held !== '') {
      if (!isNothing(given) && meansHeld(field, given, held, contextOf(entry))) return { verdict: 'taken', value: held };
      // Of several values, those that the cell holds are looked at in another light than new ones.
      if (field.kind === 'several values') return judge(field, given, { ...contextOf(entry), held });
      // Emptying a cell is another thing than leaving it empty.
      if (isNothing(given)) return judge(field, given, { ...contextOf(entry), held });
      if (verdict?.verdict === 'refused' && turnedByHeld.has(verdict.code)) return judge(field, given, { ...contextOf(entry), held });
    }
    if (verdict === undefined) {
      verdict = judge(field, given, contextOf(entry));
      known.set(text, verdict);
      if (held !== '' && verdict.verdict === 'refused' && turnedByHeld.has(verdict.code))
        return judge(field, given, { ...contextOf(entry), held });
    }
    return verdict;
  };
}

/** What gives the verdict of `judge` for each cell of one field. */
export function blockJudge(field: JudgedField, context: BlockContext): CellJudge {
  const reads = readsOf(field.rule);
  if (reads.length === 0) return remembering(field, () => context);
  const judges = new Map<string, CellJudge>();
  let lastKey: string | undefined;
  let last: CellJudge | undefined;
  return (given, entry, held) => {
    const key = reads.length === 1 ? (entry[reads[0]!] ?? '') : reads.map((read) => entry[read] ?? '').join('\u001F');
    if (key !== lastKey || !last) {
      lastKey = key;
      last = judges.get(key) ?? remembering(field, (own) => ({ ...context, entry: own }));
      judges.set(key, last);
    }
    return last(given, entry, held);
  };
}
