// Closed entries: what closes one, and that nothing of one is changed while all else is settled as ever.
import {
  closedWords,
  houseLocale,
  isClosed,
  settle,
  type CascadeField,
  type Cells,
  type Closing,
  type Edit,
  type EditContext,
  type Given,
} from '@dellum/core';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';

const departed: Closing = { where: { all: true, conditions: [{ field: 'status', is: 'is', value: 'Departed' }] }, after: null };
const thirty: Closing = { where: null, after: { field: 'arrival', days: 30 } };

describe('an entry', () => {
  it.each<[Closing, Cells, string, boolean]>([
    [departed, { status: 'departed' }, '2026-11-29', true],
    [departed, { status: 'Expected' }, '2026-11-29', false],
    [departed, {}, '2026-11-29', false],
    // A blank entry is there to be filled.
    [{ where: { all: true, conditions: [{ field: 'status', is: 'is blank', value: '' }] }, after: null }, {}, '2026-11-29', false],
    [{ where: { all: true, conditions: [] }, after: null }, { status: 'x' }, '2026-11-29', false],
    [thirty, { arrival: '2026-10-30' }, '2026-11-29', false],
    [thirty, { arrival: '2026-10-29' }, '2026-11-29', true],
    [thirty, { arrival: '2027-01-01' }, '2026-11-29', false],
    [thirty, { arrival: 'soon' }, '2026-11-29', false],
    [thirty, { status: 'Departed' }, '2026-11-29', false],
    // Over the end of February in a leap year and none.
    [{ where: null, after: { field: 'arrival', days: 1 } }, { arrival: '2028-02-28' }, '2028-02-29', false],
    [{ where: null, after: { field: 'arrival', days: 1 } }, { arrival: '2026-02-28' }, '2026-03-02', true],
    [{ where: null, after: { field: 'arrival', days: 0 } }, { arrival: '2026-11-28' }, '2026-11-29', true],
    [{ ...departed, after: thirty.after }, { status: 'Expected', arrival: '2026-01-01' }, '2026-11-29', true],
    [{ ...departed, after: thirty.after }, { status: 'Departed', arrival: '2026-11-29' }, '2026-11-29', true],
  ])('%j with %j on %s is closed: %s', (closing, cells, today, closed) => {
    expect(isClosed(closing, cells, today)).toBe(closed);
  });
  it('says why in the words of the house', () => {
    const fields = [
      { key: 'status', heading: 'Status', kind: 'text' },
      { key: 'arrival', heading: 'Arrival', kind: 'date' },
    ] as const;
    expect(closedWords({ ...departed, after: { field: 'arrival', days: 1 } }, fields, houseLocale)).toBe(
      'This entry is closed, since Status is “Departed”, or Arrival is more than 1 day ago. Only administrators change it now.',
    );
    const since: Closing = { where: { all: true, conditions: [{ field: 'arrival', is: 'at most', value: '2026-01-31' }] }, after: null };
    expect(closedWords(since, fields, houseLocale)).toContain('Arrival is at most “31.01.2026”');
  });
});

const fields: readonly CascadeField[] = ['status', 'note'].map((key) => ({ key, heading: key, kind: 'text', rule: null }));
const context: EditContext = { locale: houseLocale, catalogs: new Map(), today: '2026-11-29', fields };

describe('settling', () => {
  it('changes nothing of a closed entry, and all others as if it were not there; what closes one may come with the rest', () => {
    const text = fc.constantFrom('Departed', 'Expected', 'x', '');
    const cells = fc.record({ status: fc.constantFrom('Departed', 'Expected'), note: fc.constantFrom('x', 'y') });
    const given = fc.oneof(
      text.map((typed): Given => ({ typed })),
      text.map((chosen): Given => ({ chosen })),
    );
    const edit = fc
      .record({ entry: fc.constantFrom('a', 'b', 'c'), field: fc.constantFrom('status', 'note'), given })
      .map(({ given, ...cell }): Edit => ({ ...cell, ...given }));
    fc.assert(
      fc.property(fc.tuple(cells, cells, cells), fc.array(edit, { maxLength: 6 }), ([a, b, c], typed: readonly Edit[]) => {
        const standing = new Map<string, Cells>(Object.entries({ a, b, c }));
        const closed = (entry: string) => (isClosed(departed, standing.get(entry)!, '2026-11-29') ? 'closed' : undefined);
        const edits = [...new Map(typed.map((one) => [`${one.entry} ${one.field}`, one])).values()];
        const { verdicts, entries } = settle(fields, standing, edits, { ...context, closed });
        const open = edits.filter(({ entry }) => closed(entry) === undefined);
        const without = settle(fields, standing, open, context);
        edits.forEach((one, at) => {
          const held = standing.get(one.entry)![one.field] ?? '';
          if (closed(one.entry) === undefined) expect(verdicts[at]).toEqual(without.verdicts[open.indexOf(one)]);
          else if ((one.typed ?? one.chosen) === held) expect(verdicts[at]).toEqual({ verdict: 'taken', value: held });
          else expect(verdicts[at]).toEqual({ verdict: 'refused', code: 'closed', message: 'closed', suggestions: [] });
        });
        for (const [id, before] of standing) expect(entries.get(id)?.cells ?? before).toEqual(without.entries.get(id)?.cells ?? before);
      }),
    );
  });
});
