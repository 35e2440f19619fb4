// What the texts of some columns mean in a list: one of its values, or none. Spellings that are likely slips mean what they are slips of, unless
// it was said otherwise by hand.
import { grouped } from '../group.js';
import { longestValue, matchKey, sourceTextFault } from '../text/index.js';
import { lookAlikes, type LookAlike, type Spelling } from '../upkeep/index.js';

/** Counts for more than any spelling: it is right. */
const right = Number.MAX_SAFE_INTEGER;

export class Meanings {
  private readonly byText = new Map<string, string>();
  private readonly texts: readonly Spelling[];
  /** In the order in which they were found. */
  readonly values = new Set<string>();

  /** `known`: the values of a list that is there already; without it they are those that the texts likely mean. `said`: by hand. */
  constructor(known: ReadonlySet<string> | undefined, texts: readonly Spelling[], said: ReadonlyMap<string, string | null> = new Map()) {
    this.texts = summed(texts);
    const fit = this.texts.filter(({ value }) => value.length <= longestValue && !sourceTextFault(value));
    const own = [...(known ?? [])].map((value) => ({ value, entries: right }));
    const likely = new Map<string, string>();
    for (const [first, ...others] of lookAlikes([...own, ...fit.filter(({ value }) => !known?.has(value))]))
      for (const { value } of others) likely.set(value, first!.value);
    const meant = ({ value }: Spelling): string | null => {
      const first = said.has(value) ? said.get(value)! : (likely.get(value) ?? value);
      return first !== null && first !== value && said.has(first) ? said.get(first)! : first;
    };
    for (const value of known ?? []) this.values.add(value);
    for (const one of fit) {
      const value = meant(one);
      if (value === null || (known && !known.has(value))) continue;
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

  static alikeIn(texts: readonly Spelling[]): LookAlike[] {
    return lookAlikes(summed(texts));
  }
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
