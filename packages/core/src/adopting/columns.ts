// What the columns of a table hold: of which kind they are, how they write numbers and days, and how often each value stands in them.
import type { CameBack } from '../exchange/comparing.js';
import { clean, forbiddenCharacter, longestText, longestValue } from '../text/index.js';
import type { Spelling } from '../upkeep/index.js';
import { dateOrders, decimalMarks, type FieldKind, type Locale } from '../values/index.js';
import type { FoundCheck } from './checks.js';
import { heldOf, readHeld, type Held, type Writing } from './held.js';

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
  /** Cells that a kind does not read; of kinds other than its own known only where its texts are not too many. */
  readonly unread: Readonly<Partial<Record<AdoptedKind, number>>>;
  /** Some of the texts that its kind does not read. */
  readonly odd: readonly string[];
  /** What it is checked against in its file. */
  readonly check?: FoundCheck;
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
/** With more different texts only its own kind is tried on all of them. */
const mostRead = 20_000;
const oddShown = 3;

/** Something that stands in a column, and how often. */
export interface Counted {
  readonly held: Held;
  /** Something of it cannot be stored. */
  readonly isCut: boolean;
  entries: number;
  /** As a text, cleaned; known when the whole column is. */
  text: string;
}

const isCut = (cell: CameBack): boolean =>
  cell.is === 'text' && (cell.text.length > longestText || forbiddenCharacter(cell.text) !== undefined);

/** Counts what stands in a column, cell by cell: whatever stands in it again costs a look and no more. */
export class ColumnCounts {
  private readonly known: { readonly [Is in CameBack['is']]: Map<string | number, Counted | undefined> } = {
    text: new Map(),
    number: new Map(),
    day: new Map(),
  };
  private readonly all: Counted[] = [];
  private filled = 0;

  /** What the cell holds; undefined where it is blank after all. */
  add(cell: CameBack): Counted | undefined {
    const key = cell.is === 'text' ? cell.text : cell.is === 'number' ? cell.number : cell.serial;
    const known = this.known[cell.is];
    let counted = known.get(key);
    if (counted === undefined && !known.has(key)) {
      const held = heldOf(cell);
      counted = held && { held, isCut: isCut(cell), entries: 0, text: '' };
      known.set(key, counted);
      if (counted) this.all.push(counted);
    }
    if (!counted) return undefined;
    counted.entries++;
    this.filled++;
    return counted;
  }

  get cut(): number {
    return this.all.reduce((sum, one) => sum + (one.isCut ? one.entries : 0), 0);
  }

  found(at: number, heading: string, house: Locale): FoundColumn {
    const { all } = this;
    const { kind, writing, unsure } = kindOf(
      all.filter((_, place) => place % Math.ceil(all.length / sampled) === 0),
      house,
    );
    const locale = { ...house, ...writing };
    for (const one of all) one.text = clean(readHeld('text', one.held, locale).value);
    const unreadAs = (as: AdoptedKind) => all.filter(({ held }) => !readHeld(as, held, locale).isRead);
    const own = unreadAs(kind);
    const counted = (some: readonly Counted[]) => some.reduce((sum, { entries }) => sum + entries, 0);
    return {
      at,
      heading,
      filled: this.filled,
      distinct: all.length,
      kind,
      writing,
      unsure,
      unread: {
        ...(all.length <= mostRead && Object.fromEntries(adoptedKinds.map((as) => [as, counted(unreadAs(as))]))),
        text: 0,
        [kind]: counted(own),
      },
      odd: own.slice(0, oddShown).map(({ held }) => held.text),
      values: canBeValues(all) ? valuesOf(all) : null,
    };
  }
}

const canBeValues = (all: readonly Counted[]): boolean =>
  all.length <= mostValues &&
  all.every(({ held }) => held.text.length <= longestValue) &&
  all.reduce((sum, { held }) => sum + held.text.length, 0) <= mostCharacters;

function valuesOf(all: readonly Counted[]): Spelling[] {
  const counts = new Map<string, number>();
  for (const { text, entries } of all) counts.set(text, (counts.get(text) ?? 0) + entries);
  return [...counts].map(([value, entries]) => ({ value, entries }));
}

const guessed = ['yes/no', 'date', 'percent', 'number', 'amount'] as const;

/** The ways of writing in which values of a kind differ. */
function writingsOf(kind: (typeof guessed)[number], own: Writing): Writing[] {
  if (kind === 'yes/no') return [own];
  return kind === 'date'
    ? dateOrders.map((dateOrder) => ({ ...own, dateOrder }))
    : decimalMarks.map((decimalMark) => ({ ...own, decimalMark }));
}

/** The kind that reads the most of a column, and the writing in which it does; as the house writes where several do. */
function kindOf(all: readonly Counted[], house: Locale): { kind: AdoptedKind; writing: Writing; unsure: boolean } {
  const own: Writing = { decimalMark: house.decimalMark, dateOrder: house.dateOrder };
  const entries = all.reduce((sum, one) => sum + one.entries, 0);
  for (const kind of entries === 0 ? [] : guessed) {
    const tried = writingsOf(kind, own).map((writing) => {
      const locale = { ...house, ...writing };
      return { writing, unread: all.reduce((sum, { held, entries: count }) => sum + (isLikely(kind, held, locale) ? 0 : count), 0) };
    });
    const least = Math.min(...tried.map(({ unread }) => unread));
    if (entries - least < mostly * entries) continue;
    const best = tried.flatMap(({ writing, unread }) => (unread === least ? [writing] : []));
    const isOwn = ({ decimalMark, dateOrder }: Writing) => decimalMark === own.decimalMark && dateOrder === own.dateOrder;
    return { kind, writing: best.find(isOwn) ?? best[0]!, unsure: best.length > 1 && differs(all, kind, best, house) };
  }
  return { kind: 'text', writing: own, unsure: false };
}

/** A number by itself is no percentage. */
const isLikely = (kind: AdoptedKind, held: Held, locale: Locale): boolean =>
  !(kind === 'percent' && held.is === 'number') && readHeld(kind, held, locale).isRead;

/** Whether it matters which of some writings is meant. */
const differs = (all: readonly Counted[], kind: AdoptedKind, among: readonly Writing[], house: Locale): boolean =>
  all.some(({ held }) => new Set(among.map((writing) => readHeld(kind, held, { ...house, ...writing }).value)).size > 1);
