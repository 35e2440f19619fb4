// Amounts of money in the house's currency (ISO 4217): exact decimals, typed with or without its code or sign, shown with
// as many decimals as the currency has.
import { canonical, isRaised, readDecimal, typedDecimals, writeDecimal } from './number.js';
import { read, unread, type Locale, type ValueKind } from './models.js';

interface Currency {
  readonly code: string;
  readonly decimals: number;
  /** The code or the sign of the currency before a number, and after it. */
  readonly before: RegExp;
  readonly after: RegExp;
}
const known = new Map<string, Currency>();

/** The sign and the decimals of a currency, as the language's own tables (CLDR) have them. */
function currencyOf({ currency: code }: Pick<Locale, 'currency'>): Currency {
  const made = known.get(code);
  if (made) return made;
  const format = new Intl.NumberFormat('en', { style: 'currency', currency: code, currencyDisplay: 'narrowSymbol' });
  const sign = format.formatToParts(0).find(({ type }) => type === 'currency')?.value ?? code;
  const mark = `(?:${escaped(code)}|${escaped(sign)})`;
  const currency = {
    code,
    decimals: format.resolvedOptions().maximumFractionDigits ?? 2,
    before: new RegExp(`^\\s*([+\\u2212-]?)\\s*${mark}\\s*(.*)$`, 'iu'),
    after: new RegExp(`^()(.*?)\\s*${mark}\\s*$`, 'iu'),
  };
  known.set(code, currency);
  return currency;
}

const escaped = (text: string): string => text.replaceAll(/[.*+?^${}()|[\]\\]/gu, String.raw`\$&`);

/** The text without the code or the sign of the currency, before or after the number. */
function bare(typed: string, { before, after }: Currency): string {
  const text = typed.normalize('NFKC');
  const found = before.exec(text) ?? after.exec(text);
  return found ? `${found[1]}${found[2]}` : text;
}

export const amountKind: ValueKind = {
  kind: 'amount',
  label: 'an amount of money',
  parse(text, locale) {
    const currency = currencyOf(locale);
    // Digits that are raised, and fractions, are none: they are looked for before compatibility forms are made plain.
    const written = bare(text, currency);
    const number = isRaised(text) ? undefined : readDecimal(written, locale);
    if (!number) return unread(`“${text}” is not an amount. Write it like ${writeDecimal('12.50', locale)}, in ${currency.code}.`);
    if (typedDecimals(written, locale) > currency.decimals)
      return unread(
        currency.decimals === 0
          ? `“${text}” has decimals; amounts in ${currency.code} have none.`
          : `“${text}” has too many decimals; amounts in ${currency.code} have at most ${currency.decimals}.`,
      );
    return read(canonical(number));
  },
  format(value, locale) {
    const { code, decimals } = currencyOf(locale);
    const [whole, fraction = ''] = value.split('.');
    const written = decimals === 0 && fraction === '' ? whole! : `${whole}.${fraction.padEnd(decimals, '0')}`;
    return `${writeDecimal(written, locale)} ${code}`;
  },
};
