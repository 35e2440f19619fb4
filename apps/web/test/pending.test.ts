// Edits that are shown before they are answered: an entry shows what is stored and all edits of it that still wait.
import type { EntryView } from '@dellum/contract';
import fc from 'fast-check';
import { expect, it } from 'vitest';
import { asGiven, pend, upToDate, withPatch } from '../src/data/recentPatches.js';

type Patch = Readonly<Record<string, string | null>>;

const fields = ['berth', 'quay', 'state'];
const patches = fc.dictionary(fc.constantFrom(...fields), fc.constantFrom('a', 'b', null), { minKeys: 1 });
const edits = fc.array(fc.record({ patch: patches, taken: fc.boolean() }), { minLength: 1, maxLength: 5 });
const answers = fc.array(fc.integer({ min: -1, max: 4 }), { maxLength: 10 });

it('an entry shows what is stored with the edits that wait, whichever before them are taken and refused, and pages come between', () => {
  let number = 0;
  fc.assert(
    fc.property(edits, answers, (wanted, order) => {
      const id = `entry ${number++}`;
      let stored: EntryView = { id, version: 1, cells: { berth: 'first', quay: 'east' } };
      let shown = stored;
      const under = wanted.map(({ patch, taken }) => {
        const cells: Patch = { ...patch };
        const mine = { cells, taken, waits: true, pended: pend(id, cells, shown.cells) };
        shown = withPatch(shown, shown.version, cells);
        return mine;
      });
      const expected = () =>
        under.filter(({ waits }) => waits).reduce((entry, { cells }) => withPatch(entry, entry.version, cells), stored);
      // Edits of an entry are answered in their order; -1 is a page that comes between.
      for (const what of [...order, ...under.map(() => 0)]) {
        const next = under.find(({ waits }) => waits);
        if (what < 0 || !next) shown = upToDate(stored);
        else {
          next.waits = false;
          if (next.taken) {
            stored = withPatch(stored, stored.version + 1, next.cells);
            next.pended.ended();
            shown = asGiven(stored)(shown);
          } else shown = next.pended.refused()(shown);
        }
        expect(shown.cells).toEqual(expected().cells);
      }
    }),
  );
});
