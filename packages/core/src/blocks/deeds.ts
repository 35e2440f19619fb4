// What is done to a block of cells as one act. Each deed says which text goes into a cell of the block; the judge decides
// what becomes of it.
import { series, type FieldId } from '../registers/index.js';
import { matchKey } from '../text/index.js';
import { format, type FieldKind, type Locale } from '../values/index.js';

/** Judgment a text in what cells show. */
export interface Search {
  readonly find: string;
  /** The cell holds nothing else. */
  readonly whole: boolean;
  /** Capital letters and accents as they are written. */
  readonly exact: boolean;
}

export interface ClearDeed {
  readonly deed: 'clear';
}
/** Carries on what the first cells of each field hold: the same again, or the series that they begin. */
export interface CarryDeed {
  readonly deed: 'carry';
  readonly how: 'same' | 'series';
  /** Stored values by field, from the top of the block. */
  readonly given: Readonly<Record<FieldId, readonly string[]>>;
}
export interface ReplaceDeed extends Search {
  readonly deed: 'replace';
  readonly by: string;
}
/** Rows of texts, in the order of the fields of the block. */
export interface PasteDeed {
  readonly deed: 'paste';
  readonly texts: readonly (readonly string[])[];
}
export interface DeleteDeed {
  readonly deed: 'delete';
}
/** Takes back another act, or does it again when that one took back. */
export interface BackDeed {
  readonly deed: 'back';
  readonly of: number;
}
/** A column was made a list, and its entries follow by carries; the act is there to be taken back. */
export interface GatherDeed {
  readonly deed: 'gather';
}
/** Deeds that write texts into cells. */
export type WritingDeed = ClearDeed | CarryDeed | ReplaceDeed | PasteDeed;
export type Deed = WritingDeed | DeleteDeed | BackDeed | GatherDeed;

export interface DeedField {
  readonly key: FieldId;
  readonly kind: FieldKind;
}

const escaped = (text: string): string => text.replaceAll(/[.*+?^${}()|[\]\\]/gu, String.raw`\$&`);

/** Whether what a cell shows holds the text that is sought. */
export function finds({ find, whole, exact }: Search, shown: string): boolean {
  if (find === '' || shown === '') return false;
  const [sought, held] = exact ? [find, shown] : [matchKey(find), matchKey(shown)];
  return whole ? held === sought : held.includes(sought);
}

/** What a cell shows after replacing; undefined when it does not hold the text. Outside exact search, letters are compared in any case. */
export function replaced(deed: ReplaceDeed, shown: string): string | undefined {
  if (!finds(deed, shown)) return undefined;
  if (deed.whole) return deed.by;
  const after = shown.replaceAll(new RegExp(escaped(deed.find), deed.exact ? 'gu' : 'giu'), () => deed.by);
  return after === shown ? undefined : after;
}

/** The values that carry on, `count` of them after the given ones. */
export const carriedOn = ({ how }: Pick<CarryDeed, 'how'>, given: readonly string[], count: number): string[] =>
  how === 'series' ? series(given, count) : Array.from({ length: count }, (_, at) => given[at % Math.max(1, given.length)] ?? '');

/** How many of the first cells of a block begin what is carried on: for a series those that are filled, else the first one. */
export function givenIn(how: CarryDeed['how'], held: readonly string[]): readonly string[] {
  if (how === 'same') return held.slice(0, 1);
  const end = held.indexOf('');
  // A block that is filled to its end carries on its first cell.
  return end <= 0 ? held.slice(0, 1) : held.slice(0, end);
}

/** The text that goes into a cell; undefined leaves it alone. `held` is what is stored there. */
export type TextAt = (row: number, field: DeedField, held: string) => string | undefined;

/** The texts of a deed over a block of so many entries. */
export function textsOf(deed: WritingDeed, fields: readonly DeedField[], entries: number, locale: Locale): TextAt {
  switch (deed.deed) {
    case 'clear':
      return (_row, _field, held) => (held === '' ? undefined : '');
    case 'replace':
      return (_row, { kind }, held) => (held === '' ? undefined : replaced(deed, format(kind, held, locale)));
    case 'paste': {
      const columns = new Map(fields.map(({ key }, at) => [key, at]));
      return (row, { key }) => deed.texts[row]?.[columns.get(key) ?? -1];
    }
    case 'carry': {
      const on = new Map(
        fields.map(({ key }) => [key, carriedOn(deed, deed.given[key] ?? [], Math.max(0, entries - (deed.given[key]?.length ?? 0)))]),
      );
      return (row, { key, kind }) => {
        const value = on.get(key)?.[row - (deed.given[key]?.length ?? 0)];
        return value === undefined ? undefined : format(kind, value, locale);
      };
    }
  }
}

/** What came of a deed so far, in cells. */
export interface DeedOutcome {
  readonly taken: number;
  /** Of these, taken under another spelling. */
  readonly corrected: number;
  readonly refused: number;
  /** Taking back only: cells and entries that somebody has changed since; they stay as they are. */
  readonly passedOver: number;
  /** The first refused cells, to be mended; others are counted only. */
  readonly refusals: readonly Refused[];
}
export interface Refused {
  readonly entry: string;
  readonly field: FieldId;
  readonly text: string;
  readonly message: string;
  readonly suggestions: readonly string[];
  readonly mayConfirm?: boolean;
}
export const noOutcome: DeedOutcome = { taken: 0, corrected: 0, refused: 0, passedOver: 0, refusals: [] };
export const mostRefusals = 1000;

/** Two parts of one outcome together. */
export const bothOutcomes = (a: DeedOutcome, b: DeedOutcome): DeedOutcome => ({
  taken: a.taken + b.taken,
  corrected: a.corrected + b.corrected,
  refused: a.refused + b.refused,
  passedOver: a.passedOver + b.passedOver,
  refusals: [...a.refusals, ...b.refusals].slice(0, mostRefusals),
});
