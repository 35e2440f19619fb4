// BlockActs on blocks: which text goes into which cell, and what an arrangement makes of the fields of a register.
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  arrangementWords,
  arranges,
  asKept,
  bothOutcomes,
  emptyWithin,
  fieldsInOrder,
  finds,
  fittingTo,
  givenIn,
  houseLocale,
  matchKey,
  mostRefusals,
  movedField,
  noOutcome,
  replaced,
  showing,
  showingOnly,
  sortedBy,
  givenBy,
  type Arrangement,
  type ActField,
} from '../src/index.js';

const text: ActField = { key: 'a', kind: 'text' };
const day: ActField = { key: 'd', kind: 'date' };

describe('carrying down', () => {
  const carried = (how: 'same' | 'series', field: ActField, given: readonly string[], rows: number) => {
    const at = givenBy({ does: 'fill', how, given: { [field.key]: given } }, [field], rows, houseLocale);
    return Array.from({ length: rows }, (_, row) => at(row, field, '')?.chosen);
  };
  it('leaves what is given alone and fills the rest', () => {
    expect(carried('same', text, ['Rook'], 4)).toEqual([undefined, 'Rook', 'Rook', 'Rook']);
    expect(carried('series', text, ['Gate 1', 'Gate 3'], 4)).toEqual([undefined, undefined, 'Gate 5', 'Gate 7']);
    expect(carried('series', text, ['slack', 'ebb'], 5)).toEqual([undefined, undefined, 'slack', 'ebb', 'slack']);
    expect(carried('series', { key: 'n', kind: 'number' }, ['9'], 3)).toEqual([undefined, '10', '11']);
  });
  it('carries on days day by day, or month by month where they are months apart', () => {
    expect(carried('series', day, ['2026-01-31'], 3)).toEqual([undefined, '2026-02-01', '2026-02-02']);
    expect(carried('series', day, ['2026-01-15', '2026-02-15'], 4)).toEqual([undefined, undefined, '2026-03-15', '2026-04-15']);
  });
  it('begins a series with the filled cells at the top, and a full block with its first', () => {
    expect(givenIn('series', ['1', '2', '', ''])).toEqual(['1', '2']);
    expect(givenIn('series', ['1', '2', '3'])).toEqual(['1']);
    expect(givenIn('same', ['1', '2', ''])).toEqual(['1']);
    expect(givenIn('series', ['', '2'])).toEqual(['']);
  });
});

describe('finding and replacing', () => {
  it('finds in any case and spelling of width, or exactly as written', () => {
    expect(finds({ find: 'basin', whole: false, exact: false }, 'Lantern BASIN')).toBe(true);
    expect(finds({ find: 'basin', whole: false, exact: true }, 'Lantern BASIN')).toBe(false);
    expect(finds({ find: 'lantern', whole: true, exact: false }, 'Lantern 1')).toBe(false);
    expect(finds({ find: '', whole: false, exact: false }, 'Lantern')).toBe(false);
  });
  it('takes what is typed for what it is: neither pattern nor reference', () => {
    const what = { does: 'replace', whole: false, exact: false } as const;
    expect(replaced({ ...what, find: '(1.5)', by: '$1 & $&' }, 'Quay (1.5) or (1x5)')).toBe('Quay $1 & $& or (1x5)');
    expect(replaced({ ...what, find: 'x', by: 'y' }, 'nothing of it')).toBeUndefined();
    expect(replaced({ ...what, find: 'OLD', by: 'new', whole: true }, 'old')).toBe('new');
  });
  it('leaves nothing of the sought text behind, unless what replaces it brings it', () => {
    fc.assert(
      fc.property(
        fc.stringMatching(/^[a-c .*$]{1,4}$/u),
        fc.stringMatching(/^[x-z]{0,3}$/u),
        fc.stringMatching(/^[a-c .*$]{0,12}$/u),
        (find, by, shown) => {
          const after = replaced({ does: 'replace', find, by, whole: false, exact: true }, shown);
          expect(after).toBe(shown.includes(find) ? shown.split(find).join(by) : undefined);
        },
      ),
    );
  });
  it('replaces in what a cell shows: a day as the house writes it', () => {
    const at = givenBy({ does: 'replace', find: '.2026', by: '.2027', whole: false, exact: false }, [day], 1, houseLocale);
    expect(at(0, day, '2026-03-01')).toEqual({ typed: '01.03.2027' });
    expect(at(0, day, '')).toBeUndefined();
  });
});

describe('pasting and clearing', () => {
  it('puts each text where it belongs and leaves cells beyond a ragged row alone', () => {
    const fields = [text, day];
    const at = givenBy({ does: 'paste', texts: [['one', 'two'], ['three']] }, fields, 2, houseLocale);
    expect(fields.map((field) => at(0, field, 'held'))).toEqual([{ typed: 'one' }, { typed: 'two' }]);
    expect(fields.map((field) => at(1, field, 'held'))).toEqual([{ typed: 'three' }, undefined]);
  });
  it('clears only what holds something', () => {
    const at = givenBy({ does: 'clear' }, [text], 2, houseLocale);
    expect([at(0, text, 'held'), at(1, text, '')]).toEqual([{ typed: '' }, undefined]);
  });
  it('adds outcomes up in any grouping and keeps the first refusals', () => {
    const outcome = fc.record({
      taken: fc.nat(9),
      corrected: fc.nat(9),
      refused: fc.nat(9),
      passedOver: fc.nat(9),
      refusals: fc.constant([]),
    });
    fc.assert(
      fc.property(outcome, outcome, outcome, (a, b, c) => {
        expect(bothOutcomes(bothOutcomes(a, b), c)).toEqual(bothOutcomes(a, bothOutcomes(b, c)));
      }),
    );
    const many = Array.from({ length: mostRefusals }, (_, at) => ({
      entry: String(at),
      field: 'a',
      text: '',
      message: '',
      suggestions: [],
    }));
    expect(bothOutcomes({ ...noOutcome, refusals: many }, { ...noOutcome, refusals: many }).refusals).toEqual(many);
  });
});

describe('an arrangement', () => {
  const fields = ['a', 'b', 'c', 'd'].map((key) => ({ key, heading: key.toUpperCase(), kind: 'text' as const }));
  const keys = (arrangement: Arrangement) => fieldsInOrder(fields, arrangement).map(({ field }) => field.key);
  it('moves and hides fields without losing or doubling any', () => {
    const key = fc.constantFrom('a', 'b', 'c', 'd');
    fc.assert(
      fc.property(fc.array(fc.tuple(key, fc.option(key), fc.boolean()), { maxLength: 8 }), (steps) => {
        const end = steps.reduce(
          (arrangement: Arrangement, [moved, before, hidden]) =>
            showing(movedField(arrangement, fields, moved, before), fields, moved, { hidden }),
          asKept,
        );
        expect(keys(end).sort()).toEqual(['a', 'b', 'c', 'd']);
        const last = steps.at(-1);
        if (last && last[0] !== last[1]) expect(keys(end)[keys(end).indexOf(last[0]) + 1] ?? null).toBe(last[1]);
      }),
    );
  });
  it('shows fields that came later, and forgets those that went', () => {
    const arrangement: Arrangement = {
      ...asKept,
      fields: [
        { field: 'c', hidden: false, width: 90 },
        { field: 'gone', hidden: true, width: null },
      ],
      sort: [{ field: 'gone', direction: 'up' }],
      only: [{ only: 'outside', field: 'gone' }],
      colouredBy: 'gone',
    };
    expect(keys(arrangement)).toEqual(['c', 'a', 'b', 'd']);
    expect(fittingTo(arrangement, fields)).toEqual({ ...asKept, fields: [arrangement.fields[0]] });
  });
  it('sorts by the newest request first and says what it does', () => {
    const sorted = sortedBy(sortedBy(asKept, { field: 'a', direction: 'up' }), { field: 'b', direction: 'down' });
    const shown = showingOnly(sorted, 'c', { only: 'values', field: 'c', values: ['x', ''] });
    const names = {
      locale: houseLocale,
      field: (key: string) => key.toUpperCase(),
      value: (_key: string, value: string) => matchKey(value),
    };
    expect(arrangementWords(shown, names)).toBe('only where C is x or blank; by B, the last first, then by A');
    expect(arranges(showingOnly({ ...shown, sort: [] }, 'c', undefined))).toBe(false);
  });
  it('knows bounds the wrong way round, by size and by day', () => {
    expect([
      emptyWithin({ from: '9', until: '10' }, true),
      emptyWithin({ from: '10', until: '9' }, true),
      emptyWithin({ from: null, until: '9' }, true),
    ]).toEqual([false, true, false]);
    expect(emptyWithin({ from: '2026-02-01', until: '2026-01-31' }, false)).toBe(true);
  });
});
