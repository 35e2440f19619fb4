import { clean, fieldKinds, format, houseLocale, joinedValues, parse, type FieldKind, type Locale } from '@dellum/core';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';

const comma: Locale = { ...houseLocale, decimalMark: ',' };
const american: Locale = { ...houseLocale, dateOrder: 'mdy' };
const value = (kind: FieldKind, text: string, locale = houseLocale) => {
  const parsed = parse(kind, text, locale);
  return parsed.ok ? parsed.value : undefined;
};

describe('a text that is far too long', () => {
  it.each(['number', 'amount', 'percent', 'date', 'yes/no'] as const)('is no %s, and is not read as one', (kind) => {
    for (const text of ['9'.repeat(20_000), ' '.repeat(20_000) + '1', '1' + '\u2009'.repeat(20_000) + 'EUR'])
      expect(parse(kind, text, houseLocale, '2026-11-29')).toMatchObject({ ok: false });
  });
});

describe('parse', () => {
  it.each<[FieldKind, string, string | undefined, Locale?]>([
    ['number', '1.0', '1'],
    ['number', '-0', '0'],
    ['number', '−5', '-5'],
    ['number', '１２', '12'],
    ['number', '1,234.50', '1234.5'],
    ['number', '1.234,50', '1234.5', comma],
    ['number', '12.5', undefined, comma],
    ['number', '1e309', undefined],
    ['number', 'NaN', undefined],
    ['number', '1,23', undefined],
    ['amount', '12.50 EUR', '12.5'],
    ['amount', '€ 1.234,50', '1234.5', comma],
    ['amount', '12.345', undefined],
    ['amount', '12.500', undefined],
    ['amount', '1 234,5 €', '1234.5', comma],
    ['number', '10³', undefined],
    ['number', '1½', undefined],
    ['number', "1,234'567", undefined],
    ['number', '1’234’567', '1234567'],
    ['number', '1 234 567', '1234567'],
    ['amount', '1200 ¥', '1200', { ...houseLocale, currency: 'JPY' }],
    ['amount', '1200.5', undefined, { ...houseLocale, currency: 'JPY' }],
    ['percent', '12.5%', '0.125'],
    ['percent', '12,5 %', '0.125', comma],
    ['percent', '7.5', '0.075'],
    ['date', '24.11.2026', '2026-11-24'],
    ['date', '2026-11-24', '2026-11-24'],
    ['date', '3/4/05', '2005-04-03'],
    ['date', '3/4/05', '2005-03-04', american],
    ['date', '1.2.69', '1969-02-01'],
    ['date', '31.2.2026', undefined],
    ['date', '29.2.2027', undefined],
    ['date', '29.2.2028', '2028-02-29'],
    ['date', '2026-13-01', undefined],
    ['yes/no', 'Y', 'yes'],
    ['yes/no', 'perhaps', undefined],
    ['text', '007', '007'],
  ])('reads %s %j as %j', (kind, text, stored, locale) => expect(value(kind, text, locale)).toBe(stored));

  it('says why not, in words one can act on', () =>
    expect(parse('date', '31.2.', houseLocale)).toEqual({ ok: false, reason: '“31.2.” is not a day of the calendar.' }));
});

describe('words that every object of the language knows', () => {
  const words = [...Object.getOwnPropertyNames(Object.prototype), ...Object.getOwnPropertyNames(Function.prototype)];
  it.each(fieldKinds.filter((kind) => kind !== 'text' && kind !== 'several values'))('are no %s', (kind) => {
    for (const word of words)
      for (const typed of [word, word.toLowerCase(), ` ${word.toUpperCase()}`])
        expect([typed, parse(kind, typed, houseLocale, '2026-11-29').ok]).toEqual([typed, false]);
  });
});

describe('dates as people type them', () => {
  const today = '2026-11-28';
  const german = { ...comma, language: 'de' };
  const french = { ...comma, language: 'fr' };
  const american = { ...houseLocale, dateOrder: 'mdy', language: 'en-US' } as const;
  it.each([
    ['28.11.', '2026-11-28', houseLocale],
    ['28/11', '2026-11-28', houseLocale],
    ['3 1', '2027-01-03', houseLocale],
    ['30.6', '2026-06-30', houseLocale],
    ['11/28', '2026-11-28', american],
    ['11-28', '2026-11-28', { ...houseLocale, dateOrder: 'ymd' } as const],
    ['29.2.', '2028-02-29', houseLocale],
    ['30.2.', undefined, houseLocale],
    ['28 November 2026', '2026-11-28', houseLocale],
    ['28 Nov', '2026-11-28', houseLocale],
    ['28-nov-26', '2026-11-28', houseLocale],
    ['Nov 28, 2025', '2025-11-28', houseLocale],
    ['2025 nov 2', '2025-11-02', houseLocale],
    ['3rd January', '2027-01-03', houseLocale],
    ['28 Ju 2026', undefined, houseLocale],
    ['28 Jun 2026', '2026-06-28', houseLocale],
    ['November 2026', undefined, houseLocale],
    ['28. Dezember 2026', '2026-12-28', german],
    ['3. März', '2027-03-03', german],
    ['1er févr. 2026', undefined, french],
    ['1 févr. 2026', '2026-02-01', french],
    ['2026-11-28', '2026-11-28', american],
    ['28', undefined, houseLocale],
    ['28.11.2026.1', undefined, houseLocale],
    ['28 x 2026', undefined, houseLocale],
  ])('%j is %s', (text, day, locale) => {
    const parsed = parse('date', text, locale, today);
    expect(parsed.ok ? parsed.value : undefined).toBe(day);
  });
  it('needs a day to be near to where no year is typed', () => expect(parse('date', '28.11.', houseLocale).ok).toBe(false));
});

describe('format', () => {
  const stored: { readonly [Kind in FieldKind]: fc.Arbitrary<string> } = {
    text: fc.string(),
    number: fc
      .tuple(fc.integer(), fc.integer({ min: 0, max: 9999 }))
      .map(([whole, part]) => value('number', `${whole}.${String(part).padStart(4, '0')}`)!),
    amount: fc.integer().map((hundredths) => value('amount', (hundredths / 100).toFixed(2))!),
    percent: fc.integer({ min: -100_000, max: 100_000 }).map((thousandths) => value('percent', String(thousandths / 1000))!),
    date: fc
      .date({ min: new Date('0101-01-01'), max: new Date('9998-12-31'), noInvalidDate: true })
      .map((day) => day.toISOString().slice(0, 10)),
    'yes/no': fc.constantFrom('yes', 'no'),
    'several values': fc
      .uniqueArray(
        fc
          .stringMatching(/^[a-z",; 2]{1,8}$/u)
          .map(clean)
          .filter(Boolean),
        { minLength: 1 },
      )
      .map(joinedValues),
  };
  it.each(fieldKinds)('is the inverse of parse for every stored %s', (kind) => {
    fc.assert(
      fc.property(stored[kind], fc.constantFrom(houseLocale, comma, american), (held, locale) => {
        expect(value(kind, format(kind, held, locale), locale)).toBe(held);
      }),
    );
  });
  it('shows an amount with the decimals of its currency', () => {
    expect(format('amount', '12.5', houseLocale)).toBe('12.50 EUR');
    expect(format('amount', '1200', { ...houseLocale, currency: 'JPY' })).toBe('1200 JPY');
    expect(format('amount', '-0.5', comma)).toBe('-0,50 EUR');
  });
  it('shows a value of another kind as it is', () => expect(format('date', 'soon', houseLocale)).toBe('soon'));
});
