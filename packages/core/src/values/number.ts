// Exact decimal numbers, held as canonical strings: `1.0` and `1` are one value.
import type { Decimal } from 'decimal.js';
import { Exact } from './exact.js';
import { matchKey } from '../text/index.js';
import { read, unread, type Locale, type ValueKind } from './models.js';

const mostDigits = 40;

/** Raised, lowered and circled digits, fractions, and signs that are raised: they look like digits and are none. */
const raised = /[\p{No}\u2070-\u209F]/u;

export const isRaised = (text: string): boolean => raised.test(text);

/** A number as it is written with one of the decimal marks: its sign, its digits, and those after the mark. */
function shapeWith(mark: string, group: string): RegExp {
  const whole = `(?:\\d{1,3}(${group})\\d{3}(?:\\3\\d{3})*|\\d+)`;
  return new RegExp(`^([+-]?)(${whole})?(?:${mark}(\\d+))?$`, 'u');
}
const shapes = { ',': shapeWith(',', "[ .']"), '.': shapeWith('\\.', "[ ,']") } as const;

/**
 * Reads a decimal in the house's notation: optional sign (a real minus too), digits, groups of three parted by a
 * blank, an apostrophe or the other mark, one decimal mark. Undefined when it is not a plain number.
 */
export function readDecimal(text: string, locale: Locale): Decimal | undefined {
  if (isRaised(text)) return undefined;
  const plain = matchKey(text).replace('−', '-').replaceAll('’', "'");
  const found = shapes[locale.decimalMark].exec(plain);
  if (!found) return undefined;
  const [, sign, integer = '', , fraction = ''] = found;
  const digits = integer.replace(/\D/gu, '');
  if (digits + fraction === '' || digits.length + fraction.length > mostDigits) return undefined;
  return new Exact(`${sign}${digits || '0'}.${fraction || '0'}`);
}

/** How many digits a text that is a number has after its decimal mark, zeros included. */
export function typedDecimals(text: string, { decimalMark }: Locale): number {
  const at = text.lastIndexOf(decimalMark);
  return at < 0 ? 0 : text.slice(at).replace(/\D/gu, '').length;
}

/** The one string under which a number is stored. */
export function canonical(number: Decimal): string {
  return number.isZero() ? '0' : new Exact(number).toFixed();
}

/** Writes a canonical number with the house's decimal mark. */
export function writeDecimal(value: string, locale: Locale): string {
  return value.replace('.', locale.decimalMark);
}

export const numberKind: ValueKind = {
  kind: 'number',
  label: 'a number',
  parse(text, locale) {
    const number = readDecimal(text, locale);
    return number ? read(canonical(number)) : unread(`“${text}” is not a number. Write it like ${writeDecimal('12.5', locale)}.`);
  },
  format: writeDecimal,
};
