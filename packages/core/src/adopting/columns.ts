// What the columns of a table hold: of which kind they are, how they write numbers and days, and how often each value stands in them.
import { clean, longestValue } from '../text/index.js';
import type { Spelling } from '../upkeep/index.js';
import { dateOrders, decimalMarks, type FieldKind, type Locale } from '../values/index.js';
import { readHeld, type Held, type Writing } from './held.js';

/** The kinds that a column can be proposed as, or be given by hand. */
export const adoptedKinds = ['text', 'yes/no', 'date', 'percent', 'number', 'amount'] as const satisfies readonly FieldKind[];
export type AdoptedKind = (typeof adoptedKinds)[number];

export interface FoundColumn {
  /** Where it stands on the sheet, counted from 0. */
  readonly at: number;
  readonly heading: string;
  readonly filled: number;
  readonly distinct: number;
  readonly kind: AdoptedKind;
  readonly writing: Writing;
  /** True where the cells do not tell which of its numbers or days are meant: it is read as the house writes. */
  readonly unsure: boolean;
  /** Cells that each kind does not read. */
  readonly unread: Readonly<Record<AdoptedKind, number>>;
  /** Some of the texts that its kind does not read. */
  readonly odd: readonly string[];
  /** Its texts with their counts; null where they are too many, or too long, to be a list. */
  readonly values: readonly Spelling[] | null;
}

/** A kind is proposed when it reads at least this share of what is filled. */
const mostly = 0.9;
/** So many different texts are looked at to tell the kind and the writing of a column. */
const sampled = 2000;
/** A column with more different texts is no list. */
const mostValues = 5000;
/** Nor is one whose texts have more characters together: it is filled with remarks. */
const mostCharacters = 250_000;
const oddShown = 3;

interface Counted {
  readonly held: Held;
  entries: number;
}

/** Counts what stands in a column, cell by cell. */
export class ColumnCounts {
  private readonly counts = new Map<string, Counted>();
  private filled = 0;

  add(held: Held): void {
    this.filled++;
    const key = `${held.is} ${held.text}`;
    const known = this.counts.get(key);
    if (known) known.entries++;
    else this.counts.set(key, { held, entries: 1 });
  }

  found(at: number, heading: string, house: Locale): FoundColumn {
    const all = [...this.counts.values()];
    const { kind, writing, unsure } = kindOf(
      all.filter((_, place) => place % Math.ceil(all.length / sampled) === 0),
      house,
    );
    const locale = { ...house, ...writing };
    const unreadAs = (as: AdoptedKind) => all.filter(({ held }) => !readHeld(as, held, locale).isRead);
    const unread = Object.fromEntries(
      adoptedKinds.map((as) => [as, unreadAs(as).reduce((sum, { entries }) => sum + entries, 0)]),
    ) as Record<AdoptedKind, number>;
    return {
      at,
      heading,
      filled: this.filled,
      distinct: all.length,
      kind,
      writing,
      unsure,
      unread,
      odd: unreadAs(kind)
        .slice(0, oddShown)
        .map(({ held }) => held.text),
      values: canBeValues(all) ? valuesOf(all, locale) : null,
    };
  }
}

const canBeValues = (all: readonly Counted[]): boolean =>
  all.length <= mostValues &&
  all.every(({ held }) => held.text.length <= longestValue) &&
  all.reduce((sum, { held }) => sum + held.text.length, 0) <= mostCharacters;

function valuesOf(all: readonly Counted[], locale: Locale): Spelling[] {
  const counts = new Map<string, number>();
  for (const { held, entries } of all) {
    const value = clean(readHeld('text', held, locale).value);
    counts.set(value, (counts.get(value) ?? 0) + entries);
  }
  return [...counts].map(([value, entries]) => ({ value, entries }));
}

const guessed = ['yes/no', 'date', 'percent', 'number', 'amount'] as const;
const writings = decimalMarks.flatMap((decimalMark) => dateOrders.map((dateOrder): Writing => ({ decimalMark, dateOrder })));

/** The kind that reads the most of a column, and the writing in which it does; as the house writes where several do. */
function kindOf(all: readonly Counted[], house: Locale): { kind: AdoptedKind; writing: Writing; unsure: boolean } {
  const own: Writing = { decimalMark: house.decimalMark, dateOrder: house.dateOrder };
  const entries = all.reduce((sum, one) => sum + one.entries, 0);
  for (const kind of entries === 0 ? [] : guessed) {
    const unreadIn = (writing: Writing) =>
      all.reduce((sum, { held, entries: count }) => sum + (isLikely(kind, held, { ...house, ...writing }) ? 0 : count), 0);
    const least = Math.min(...writings.map(unreadIn));
    if (entries - least < mostly * entries) continue;
    const best = writings.filter((writing) => unreadIn(writing) === least);
    const isHouse = unreadIn(own) === least;
    const writing = isHouse ? own : best[0]!;
    return { kind, writing, unsure: best.length > 1 && differs(all, kind, best, house) };
  }
  return { kind: 'text', writing: own, unsure: false };
}

/** A number by itself is no percentage. */
const isLikely = (kind: AdoptedKind, held: Held, locale: Locale): boolean =>
  !(kind === 'percent' && held.is === 'number') && readHeld(kind, held, locale).isRead;

/** Whether it matters which of some writings is meant. */
const differs = (all: readonly Counted[], kind: AdoptedKind, among: readonly Writing[], house: Locale): boolean =>
  all.some(({ held }) => new Set(among.map((writing) => readHeld(kind, held, { ...house, ...writing }).value)).size > 1);
