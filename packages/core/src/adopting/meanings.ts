// What the texts of some columns mean in a list: one of its values, or none. Spellings that are likely slips mean what they are slips of,
// unless it was said otherwise by hand.
import { grouped } from '../group.js';
import { longestValue, looseKey, matchKey, slips, sourceTextFault } from '../text/index.js';
import { lookAlikes, type LookAlike, type Spelling } from '../upkeep/index.js';

/** Slips are told apart up to so many. */
const farthest = 4;
/** A slip is so many times rarer than what it is a slip of, or stands fewer than so many times. */
const timesRarer = 6;
const fewestUses = 4;
/** Counts for more than any spelling: it is right. */
const right = Number.MAX_SAFE_INTEGER;

export class Meanings {
  private readonly byText = new Map<string, string>();
  private readonly texts: readonly Spelling[];
  /** In the order in which they were found. */
  readonly values = new Set<string>();

  /**
   * `known`: of a list that is there already, its values and what is shown for them, each with its value; without it the values are those
   * that the texts likely mean. `said`: by hand. `open`: what is said by hand may be a new value of it.
   */
  constructor(
    known: ReadonlyMap<string, string> | undefined,
    texts: readonly Spelling[],
    said: ReadonlyMap<string, string | null> = new Map(),
    open = true,
  ) {
    this.texts = summed(texts);
    const fit = this.texts.filter(({ value }) => value.length <= longestValue && !sourceTextFault(value));
    const own = [...(known?.keys() ?? [])].map((value) => ({ value, entries: right }));
    const likely = new Map(known);
    for (const group of lookAlikes([...own, ...fit.filter(({ value }) => !known?.has(value))])) {
      const heads = known ? group.filter(({ value }) => known.has(value)) : headsOf(group);
      for (const { value } of group) {
        const head = likely.has(value) ? undefined : nearest(value, heads);
        if (head !== undefined) likely.set(value, known?.get(head) ?? head);
      }
    }
    const meant = ({ value }: Spelling): string | null => {
      const first = said.has(value) ? said.get(value)! : (likely.get(value) ?? value);
      return first !== null && first !== value && said.has(first) ? said.get(first)! : first;
    };
    for (const value of known?.values() ?? []) this.values.add(value);
    const isValue = new Set([...(known?.values() ?? []), ...(open ? said.values() : [])]);
    for (const one of fit) {
      const value = meant(one);
      if (value === null || (known && !isValue.has(value))) continue;
      this.byText.set(one.value, value);
      this.values.add(value);
    }
  }

  /** Undefined for a text that is none of the values. */
  of(text: string): string | undefined {
    return this.byText.get(text);
  }

  /** By value, the texts that become it. */
  spellings(): ReadonlyMap<string, readonly Spelling[]> {
    return grouped(
      this.texts.filter(({ value }) => this.byText.has(value)),
      ({ value }) => this.byText.get(value)!,
    );
  }

  outside(): Spelling[] {
    return this.texts.filter(({ value }) => !this.byText.has(value));
  }
}

/**
 * Of spellings that look alike, those that are values: what is used nearly as often as another is no slip of it, however alike they are.
 */
function headsOf([first, ...others]: LookAlike): Spelling[] {
  const isOwn = ({ value, entries }: Spelling) =>
    entries >= fewestUses && entries * timesRarer > first!.entries && squeezed(value) !== squeezed(first!.value);
  return [first!, ...others.filter(isOwn)];
}
/** Without what is told apart by nobody: case, accents, blanks and punctuation. */
const squeezed = (text: string): string => looseKey(text).replaceAll(' ', '');

/** Of some values, the one with the fewest slips between; undefined where there is none. */
function nearest(text: string, among: readonly Spelling[]): string | undefined {
  if (among.length < 2) return among[0]?.value;
  const distances = among.map(({ value }) => ({ value, distance: slips(matchKey(text), matchKey(value), farthest) }));
  return distances.reduce((best, one) => (one.distance < best.distance ? one : best)).value;
}

function summed(texts: readonly Spelling[]): Spelling[] {
  const counts = new Map<string, number>();
  for (const { value, entries } of texts) counts.set(value, (counts.get(value) ?? 0) + entries);
  return [...counts].map(([value, entries]) => ({ value, entries }));
}

/** Whether texts are among values, in any spelling but a slip: quick, for telling which list a column belongs to. */
export class KnownTexts {
  private readonly keys: ReadonlySet<string>;
  constructor(values: Iterable<string>) {
    this.keys = new Set([...values].map(matchKey));
  }
  has(text: string): boolean {
    return this.keys.has(matchKey(text));
  }
  /** Of some texts, the share of entries that hold one of the values. */
  share(texts: readonly Spelling[]): number {
    const all = texts.reduce((sum, { entries }) => sum + entries, 0);
    return all === 0 ? 0 : texts.reduce((sum, { value, entries }) => sum + (this.has(value) ? entries : 0), 0) / all;
  }
}
