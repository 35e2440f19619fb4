// What is done to a block of cells as one act. Each act says what is given for a cell of the block; the judge decides
// what becomes of it.
import { series, type FieldId } from '../registers/index.js';
import type { Given } from '../rules/index.js';
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

export interface ClearAct {
  readonly does: 'clear';
}
/** Carries on what the first cells of each field hold: the same again, or the series that they begin. */
export interface FillAct {
  readonly does: 'fill';
  readonly how: 'same' | 'series';
  /** Stored values by field, from the top of the block. */
  readonly given: Readonly<Record<FieldId, readonly string[]>>;
}
export interface ReplaceAct extends Search {
  readonly does: 'replace';
  readonly by: string;
}
/** Rows of texts, in the order of the fields of the block. */
export interface PasteAct {
  readonly does: 'paste';
  readonly texts: readonly (readonly string[])[];
}
export interface DeleteRowsAct {
  readonly does: 'delete';
}
/** Takes back another act, or does it again when that one took back. */
export interface BackAct {
  readonly does: 'back';
  readonly of: number;
}
/** A column was made a list, and its entries follow by carries; the act is there to be taken back. */
export interface GatherAct {
  readonly does: 'gather';
}
/** Writes what was changed in a file that came back; which cells these are is kept with the file. */
export interface BringAct {
  readonly does: 'bring';
  readonly file: number;
}
/** BlockActs that write texts into cells. */
export type WritingAct = ClearAct | FillAct | ReplaceAct | PasteAct;
export type BlockAct = WritingAct | DeleteRowsAct | BackAct | GatherAct | BringAct;

export interface ActField {
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
export function replaced(what: ReplaceAct, shown: string): string | undefined {
  if (!finds(what, shown)) return undefined;
  if (what.whole) return what.by;
  const after = shown.replaceAll(new RegExp(escaped(what.find), what.exact ? 'gu' : 'giu'), () => what.by);
  return after === shown ? undefined : after;
}

/** The values that carry on, `count` of them after the given ones. */
export const filledOn = ({ how }: Pick<FillAct, 'how'>, given: readonly string[], count: number): string[] =>
  how === 'series' ? series(given, count) : Array.from({ length: count }, (_, at) => given[at % Math.max(1, given.length)] ?? '');

/** How many of the first cells of a block begin what is carried on: for a series those that are filled, else the first one. */
export function givenIn(how: FillAct['how'], held: readonly string[]): readonly string[] {
  if (how === 'same') return held.slice(0, 1);
  const end = held.indexOf('');
  // A block that is filled to its end carries on its first cell.
  return end <= 0 ? held.slice(0, 1) : held.slice(0, end);
}

/** What goes into a cell; undefined leaves it alone. `held` is what is stored there. */
export type GivenAt = (row: number, field: ActField, held: string) => Given | undefined;

const asTyped = (text: string | undefined): Given | undefined => (text === undefined ? undefined : { typed: text });

/** What an act gives for the cells of a block of so many entries. */
export function givenBy(what: WritingAct, fields: readonly ActField[], entries: number, locale: Locale): GivenAt {
  switch (what.does) {
    case 'clear':
      return (_row, _field, held) => (held === '' ? undefined : { typed: '' });
    case 'replace':
      return (_row, { kind }, held) => (held === '' ? undefined : asTyped(replaced(what, format(kind, held, locale))));
    case 'paste': {
      const columns = new Map(fields.map(({ key }, at) => [key, at]));
      return (row, { key }) => asTyped(what.texts[row]?.[columns.get(key) ?? -1]);
    }
    case 'fill': {
      const on = new Map(
        fields.map(({ key }) => [key, filledOn(what, what.given[key] ?? [], Math.max(0, entries - (what.given[key]?.length ?? 0)))]),
      );
      return (row, { key }) => {
        const value = on.get(key)?.[row - (what.given[key]?.length ?? 0)];
        return value === undefined ? undefined : { chosen: value };
      };
    }
  }
}

/** What came of an act so far, in cells. */
export interface ActOutcome {
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
export const noOutcome: ActOutcome = { taken: 0, corrected: 0, refused: 0, passedOver: 0, refusals: [] };
export const mostRefusals = 1000;

/** Two parts of one outcome together. */
export const bothOutcomes = (a: ActOutcome, b: ActOutcome): ActOutcome => ({
  taken: a.taken + b.taken,
  corrected: a.corrected + b.corrected,
  refused: a.refused + b.refused,
  passedOver: a.passedOver + b.passedOver,
  refusals: [...a.refusals, ...b.refusals].slice(0, mostRefusals),
});
