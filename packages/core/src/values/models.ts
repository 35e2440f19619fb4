// What a cell can hold. Every stored value is a string in one canonical form; a blank cell holds nothing.

export const fieldKinds = ['text', 'number', 'amount', 'percent', 'date', 'yes/no', 'several values'] as const;
export type FieldKind = (typeof fieldKinds)[number];

/** How the house writes numbers and dates. */
export interface Locale {
  /** BCP 47 language tag, for collation and names of months. */
  readonly language: string;
  readonly decimalMark: '.' | ',';
  readonly dateOrder: 'dmy' | 'mdy' | 'ymd';
  /** Two-digit years up to this one are read as 20xx, later ones as 19xx. */
  readonly yearPivot: number;
  /** The currency of amounts, by its code of three letters (ISO 4217). */
  readonly currency: string;
  /** What parts the values of a typed list; a semicolon where it is left out and the comma is the decimal mark, else a comma. */
  readonly listMark?: ',' | ';';
  /** The zone whose days are the house's (IANA); the server's where it is left out. */
  readonly timeZone?: string;
  /** The first day of a week, 0 for Sunday; Monday where it is left out. */
  readonly firstDay?: number;
}

export const dateOrders = ['dmy', 'mdy', 'ymd'] as const;
export const decimalMarks = ['.', ','] as const;
export const listMarks = [',', ';'] as const;

export const houseLocale: Locale = { language: 'en-GB', decimalMark: '.', dateOrder: 'dmy', yearPivot: 68, currency: 'EUR' };

export type Parsed = { readonly ok: true; readonly value: string } | { readonly ok: false; readonly reason: string };

/** One kind of value: `parse` reads what people type, `format` shows what is stored; parse(format(v)) is v. */
export interface ValueKind {
  readonly kind: FieldKind;
  readonly label: string;
  /** `today`: the house's day, for words like "tomorrow". */
  parse(text: string, locale: Locale, today?: string): Parsed;
  format(value: string, locale: Locale): string;
}

export const read = (value: string): Parsed => ({ ok: true, value });
export const unread = (reason: string): Parsed => ({ ok: false, reason });
