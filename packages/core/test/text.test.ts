import { alphabetical, clean, cleanLines, forbiddenCharacter, isBlank, looseKey, matchKey, slips } from '@dellum/core';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';

/** Texts that hurt: blanks of all kinds, zero-width and combining characters, ligatures, scripts of both directions. */
const nasty = fc.string({
  unit: fc.oneof(
    fc.string({ unit: 'grapheme', minLength: 1, maxLength: 1 }),
    fc.constantFrom(
      ' ',
      '\u00A0',
      '\u200B',
      '\uFEFF',
      '\u3000',
      '\t',
      '\n',
      'ß',
      'ẞ',
      'ς',
      'Σ',
      'İ',
      'ı',
      'ﬁ',
      'Å',
      '\u0301',
      'א',
      '٣',
      '-',
      '−',
      '1',
      '.',
      ',',
    ),
  ),
  maxLength: 24,
});

describe('clean', () => {
  it('is idempotent, and leaves no outer, double or odd blanks', () => {
    fc.assert(
      fc.property(nasty, (text) => {
        const cleaned = clean(text);
        expect(clean(cleaned)).toBe(cleaned);
        expect(cleaned).not.toMatch(/^\s|\s$|\s\s|[\u200B\uFEFF\u00A0]/u);
      }),
    );
  });
  it.each([
    ['co\u00ADop', 'coop'],
    ['North\u200E bed', 'North bed'],
    ['a\u202Eb', 'ab'],
    ['\u3164', ''],
    ['\u2800 x', 'x'],
    ['a\u200Db', 'ab'],
    ['👨\u200D', '👨'],
  ])('drops what nobody sees: %j is %j', (typed, seen) => {
    expect(clean(typed)).toBe(seen);
    expect(isBlank(typed)).toBe(seen === '');
  });
  it.each(['👨\u200D👩\u200D👧', '❤\uFE0F', 'می\u200Cخواهم', 'שלום\u200F!', '葛\u{E0100}', '1\uFE0F\u20E3'])(
    'keeps what changes what is seen: %j',
    (text) => expect(clean(text)).toBe(text.normalize('NFC')),
  );
  it('is idempotent among signs that nobody sees', () =>
    fc.assert(
      fc.property(
        fc.array(
          fc.constantFrom(
            'a',
            'ا',
            'ב',
            '👨',
            '❤',
            '葛',
            '1',
            ' ',
            '\u200C',
            '\u200D',
            '\uFE0F',
            '\u00AD',
            '\u200F',
            '\u{E0100}',
            '🏽',
            'e\u0301',
          ),
          { maxLength: 8 },
        ),
        (signs) => void expect(clean(clean(signs.join('')))).toBe(clean(signs.join(''))),
      ),
    ));
  it('keeps the lines of a text of several', () => expect(cleanLines(' a  b \r\n\n c\u00AD ')).toBe('a b\n\nc'));
  it('keeps right-to-left and combining characters', () => {
    expect(clean('  שלום \u0301a ')).toBe('שלום \u0301a');
    expect(clean('e\u0301')).toBe('é');
  });
});

describe('matchKey', () => {
  it('is idempotent and blind to case and blanks', () => {
    fc.assert(
      fc.property(nasty, (text) => {
        const key = matchKey(text);
        expect(matchKey(key)).toBe(key);
        expect(matchKey(` ${text.replaceAll(' ', '  ')}\u00A0`)).toBe(key);
      }),
    );
  });
  it.each([
    ['straße', 'STRASSE'],
    ['ẞ', 'ss'],
    ['ΟΔΟΣ', 'οδος'],
    ['ﬁsh', 'FISH'],
    ['Ｑuay ２', 'quay 2'],
    [' lantern  BASIN ', 'Lantern Basin'],
    ['x\u200By', 'XY'],
  ])('takes %s and %s for one value', (a, b) => expect(matchKey(a)).toBe(matchKey(b)));
  it('tells a dotless i from an i', () => expect(matchKey('ı')).not.toBe(matchKey('i')));
});

describe('looseKey', () => {
  it.each([
    ['Crème-Brûlée', 'creme brulee'],
    ['St. Anne’s', 'st anne s'],
    ['1.2', '1.2'],
    ['−5', '-5'],
    ['...', ''],
  ])('makes %s to %s', (text, key) => expect(looseKey(text)).toBe(key));
  it('never joins different numbers', () => {
    expect(looseKey('1.2')).not.toBe(looseKey('12'));
    expect(looseKey('−5')).not.toBe(looseKey('5'));
  });
});

describe('forbiddenCharacter', () => {
  it.each([
    ['a\u0000b', 'U+0000'],
    ['a\u001Fb', 'U+001F'],
    ['\uD800', 'U+D800'],
  ])('names the character in %j', (text, name) => expect(forbiddenCharacter(text)).toBe(name));
  it('takes everything that is text', () => expect(forbiddenCharacter('😀 שלום\n')).toBeUndefined());
});

describe('alphabetical', () => {
  it('orders numbers by size', () =>
    expect(['Berth 10', 'Berth 2', 'berth 1'].sort(alphabetical('en-GB'))).toEqual(['berth 1', 'Berth 2', 'Berth 10']));
  it('is total: only one text is equal to a text', () => {
    const compare = alphabetical('en-GB');
    fc.assert(
      fc.property(nasty, nasty, (a, b) => {
        expect(Math.sign(compare(a, b))).toBe(-Math.sign(compare(b, a)) + 0);
      }),
    );
    fc.assert(
      fc.property(nasty, nasty, (a, b) => {
        expect(compare(a, b) === 0).toBe(a === b);
      }),
    );
  });
});

describe('slips', () => {
  const naive = (a: string, b: string): number => {
    if (a === '' || b === '') return a.length + b.length;
    const swap = a.length > 1 && b.length > 1 && a[0] === b[1] && a[1] === b[0] ? naive(a.slice(2), b.slice(2)) + 1 : Infinity;
    return Math.min(naive(a.slice(1), b) + 1, naive(a, b.slice(1)) + 1, naive(a.slice(1), b.slice(1)) + (a[0] === b[0] ? 0 : 1), swap);
  };
  it('equals the definition, cut off at the most asked for', () => {
    const word = fc.string({ unit: fc.constantFrom('a', 'b', 'c'), maxLength: 5 });
    fc.assert(
      fc.property(word, word, fc.integer({ min: 0, max: 5 }), (a, b, most) => {
        expect(slips(a, b, most)).toBe(Math.min(naive(a, b), most + 1));
      }),
    );
  });
});
