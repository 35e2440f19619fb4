// What the columns of a table hold: of which kind they are, how they write numbers and days, and how often each value stands in them.
import type { CameBack } from '../exchange/comparing.js';
import { clean, copied, longestValue } from '../text/index.js';
import type { Spelling } from '../upkeep/index.js';
import { dateOrders, decimalMarks, format, type FieldKind, type Locale } from '../values/index.js';
import type { FoundCheck } from './checks.js';
import { heldOf, readHeld, textHeldIn, type Held, type Writing } from './held.js';
import { TextTable } from './textTable.js';

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
/** Of more different texts none is kept: its kind is told by these, and tried on the others as they come. */
const mostKept = 20_000;
/** Nor of texts that have more characters together. */
const mostKeptCharacters = 5_000_000;
const oddShown = 3;
/** So many different texts tell how a column is written whose kind is known; longer ones are no numbers and no days. */
const mostSeen = 20_000;
const longestNumber = 100;

/** Something that stands in a column, and how often. */
export interface Counted {
  readonly held: Held;
  /** Something of it cannot be stored. */
  readonly isCut: boolean;
  /** It says that its row adds up others. */
  readonly isTotal: boolean;
  /** Its number among what stands in the column, from 1 on; 0 where it is not kept. */
  readonly nth: number;
  entries: number;
  /** As a text, cleaned; known when the whole column is. */
  text: string;
}

/** Words by which a row says that it adds up others. */
const totalWords = /^\s*(?:(?:grand |sub ?|sub-)?totals?\b|sums?\b|(?:zwischen|end|gesamt)?summe\b|gesamt\b|somme\b|totale\b)/iu;

interface GuessedKind {
  readonly kind: AdoptedKind;
  readonly writing: Writing;
  readonly unsure: boolean;
}
/** What stands in a column beside what is kept, once that is too much. */
interface Rest {
  readonly guessed: GuessedKind;
  readonly locale: Locale;
  filled: number;
  unread: number;
  cut: number;
}

const numberIn = (cell: Exclude<CameBack, { is: 'text' }>): number => (cell.is === 'number' ? cell.number : cell.serial);

const countedAs = (cell: CameBack, nth: number): Counted => ({
  held: heldOf(cell)!,
  isCut: cell.is === 'text' && cell.text !== textHeldIn(cell),
  isTotal: cell.is === 'text' && totalWords.test(cell.text),
  nth,
  entries: 0,
  text: '',
});

/** Counts what stands in a column, cell by cell: whatever stands in it again costs a look and no more, and its memory has an end. */
export class ColumnCounts {
  private readonly byText = new TextTable<Counted>();
  private readonly numbers: { readonly [Is in 'number' | 'day']: Map<number, Counted> } = { number: new Map(), day: new Map() };
  private readonly all: Counted[] = [];
  private characters = 0;
  private rest: Rest | undefined;
  private readonly passing = {
    held: { is: 'text' as CameBack['is'], text: '' },
    isCut: false,
    isTotal: false,
    nth: 0,
    entries: 0,
    text: '',
  };

  constructor(private readonly house: Locale) {}

  /** What the cell holds, until the next one is looked at, and before it is counted; undefined where it is blank after all. */
  look(cell: CameBack): Counted | undefined {
    const counted = cell.is === 'text' ? this.byText.get(cell.text) : this.numbers[cell.is].get(numberIn(cell));
    if (counted) return counted;
    if (this.rest) return this.pass(cell);
    if (textHeldIn(cell) === undefined) return undefined;
    const own: CameBack = cell.is === 'text' ? { is: 'text', text: copied(cell.text) } : cell;
    const one = countedAs(own, this.all.length + 1);
    if (own.is === 'text') this.byText.add(own.text, one);
    else this.numbers[own.is].set(numberIn(own), one);
    this.keep(one);
    return one;
  }

  /**
   * What is not kept is the same thing each time: made anew, it would be taken for what stays, as those before it did, and fill the memory.
   */
  private pass(cell: CameBack): Counted | undefined {
    const text = textHeldIn(cell);
    if (text === undefined) return undefined;
    const { passing } = this;
    passing.held.is = cell.is;
    passing.held.text = text;
    passing.isCut = cell.is === 'text' && cell.text !== text;
    passing.isTotal = cell.is === 'text' && totalWords.test(cell.text);
    return passing;
  }

  private keep(one: Counted): void {
    this.all.push(one);
    this.characters += one.held.text.length;
    if (this.all.length < mostKept && this.characters < mostKeptCharacters) return;
    const guessed = this.guessed();
    this.rest = { guessed, locale: { ...this.house, ...guessed.writing }, filled: 0, unread: 0, cut: 0 };
  }

  count(one: Counted): void {
    if (one.nth > 0) {
      one.entries++;
      return;
    }
    const { rest } = this;
    if (!rest) return;
    rest.filled++;
    if (one.isCut) rest.cut++;
    if (rest.guessed.kind !== 'text' && !readHeld(rest.guessed.kind, one.held, rest.locale).isRead) rest.unread++;
  }

  /** True once it holds too much to be a list. */
  get isTooMuch(): boolean {
    return this.all.length > mostValues || this.characters > mostCharacters;
  }

  /** The texts in it so far that are among some. */
  holdsText(text: string): boolean {
    return this.byText.get(text) !== undefined || this.all.some(({ held }) => held.is === 'text' && clean(held.text) === text);
  }
  get hasTexts(): boolean {
    return this.byText.size > 0;
  }

  /** As texts, by their numbers from 1 on; known once it was found. */
  get texts(): string[] {
    return this.all.map(({ text }) => text);
  }

  get cut(): number {
    return this.all.reduce((sum, one) => sum + (one.isCut ? one.entries : 0), this.rest?.cut ?? 0);
  }

  private guessed(): GuessedKind {
    const step = Math.ceil(this.all.length / sampled);
    return kindOf(
      this.all.filter((_, place) => place % step === 0),
      this.house,
    );
  }

  /** What it is, with the texts of all that is kept. */
  found(at: number, heading: string): FoundColumn {
    const { rest } = this;
    // What stands in rows of totals alone is counted nowhere.
    const all = this.all.filter(({ entries }) => entries > 0);
    const counted = (some: readonly Counted[]) => some.reduce((sum, { entries }) => sum + entries, 0);
    const filled = counted(all) + (rest?.filled ?? 0);
    const guessed = rest?.guessed ?? this.guessed();
    const { writing } = guessed;
    const locale = { ...this.house, ...writing };
    for (const one of all) one.text = clean(readHeld('text', one.held, locale).value);
    const unreadAs = (as: AdoptedKind) => all.filter(({ held }) => !readHeld(as, held, locale).isRead);
    const own = unreadAs(guessed.kind);
    const unread = counted(own) + (rest?.unread ?? 0);
    // What stood in it first may have been read as what comes later is not.
    const kind = rest && unread > (1 - mostly) * filled ? 'text' : guessed.kind;
    return {
      at,
      heading,
      filled,
      distinct: all.length + (rest?.filled ?? 0),
      kind,
      writing,
      unsure: kind === guessed.kind && guessed.unsure,
      unread: { ...(!rest && Object.fromEntries(adoptedKinds.map((as) => [as, counted(unreadAs(as))]))), [guessed.kind]: unread, text: 0 },
      odd: kind === 'text' ? [] : own.slice(0, oddShown).map(({ held }) => held.text),
      values: !this.isTooMuch && all.every(({ held }) => held.text.length <= longestValue) ? valuesOf(all) : null,
    };
  }
}

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

type HeldOften = Pick<Counted, 'held' | 'entries'>;

/** The writing in which the most of a column is read as a kind; as the house writes where several read as much. */
function writingAs(
  kind: (typeof guessed)[number],
  all: readonly HeldOften[],
  house: Locale,
): { writing: Writing; unread: number; unsure: boolean } {
  const own = writingOf(house);
  const tried = writingsOf(kind, own).map((writing) => {
    const locale = { ...house, ...writing };
    return { writing, unread: all.reduce((sum, { held, entries: count }) => sum + (isLikely(kind, held, locale) ? 0 : count), 0) };
  });
  const unread = Math.min(...tried.map((one) => one.unread));
  const best = tried.flatMap((one) => (one.unread === unread ? [one.writing] : []));
  return {
    writing: best.find((writing) => isSame(writing, own)) ?? best[0]!,
    unread,
    unsure: best.length > 1 && differs(all, kind, best, house),
  };
}
const writingOf = ({ decimalMark, dateOrder }: Locale): Writing => ({ decimalMark, dateOrder });
const isSame = (one: Writing, other: Writing): boolean => one.decimalMark === other.decimalMark && one.dateOrder === other.dateOrder;

/** The kind that reads the most of a column, and the writing in which it does. */
function kindOf(all: readonly Counted[], house: Locale): GuessedKind {
  const entries = all.reduce((sum, one) => sum + one.entries, 0);
  for (const kind of entries === 0 ? [] : guessed) {
    const { writing, unread, unsure } = writingAs(kind, all, house);
    if (entries - unread >= mostly * entries) return { kind, writing, unsure };
  }
  return { kind: 'text', writing: writingOf(house), unsure: false };
}

/** How a column writes its numbers or days, where it is known which field it is: looked at text by text, of which it keeps some. */
export class ColumnWriting {
  private readonly texts = new Map<string, number>();

  constructor(
    readonly kind: FieldKind,
    private readonly house: Locale,
  ) {}

  see(cell: CameBack): void {
    if (cell.is !== 'text' || cell.text.length > longestNumber) return;
    const before = this.texts.get(cell.text);
    if (before !== undefined) this.texts.set(cell.text, before + 1);
    else if (this.texts.size < mostSeen) this.texts.set(copied(cell.text), 1);
  }

  /** Undefined where the house reads no less of it in its own way. */
  get found(): Writing | undefined {
    const kind = guessed.find((known) => known === this.kind);
    if (kind === undefined || this.texts.size === 0) return undefined;
    const all = [...this.texts].flatMap(([text, entries]) => {
      const held = heldOf({ is: 'text', text });
      return held ? [{ held, entries }] : [];
    });
    const { writing } = writingAs(kind, all, this.house);
    return isSame(writing, writingOf(this.house)) ? undefined : writing;
  }
}

/** A cell of a column as the house writes it; as it stands where the writing of the column does not read it. */
export function inHouseWriting(kind: FieldKind, cell: CameBack, writing: Writing, house: Locale): CameBack {
  const held = cell.is === 'text' ? heldOf(cell) : undefined;
  const read = held && readHeld(kind, held, { ...house, ...writing });
  return read?.isRead ? { is: 'text', text: format(kind, read.value, house) } : cell;
}

/** A number by itself is no percentage. */
const isLikely = (kind: AdoptedKind, held: Held, locale: Locale): boolean =>
  !(kind === 'percent' && held.is === 'number') && readHeld(kind, held, locale).isRead;

/** Whether it matters which of some writings is meant. */
const differs = (all: readonly HeldOften[], kind: AdoptedKind, among: readonly Writing[], house: Locale): boolean =>
  all.some(({ held }) => new Set(among.map((writing) => readHeld(kind, held, { ...house, ...writing }).value)).size > 1);
