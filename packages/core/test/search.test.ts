// The quick search against a slow one that follows the definition and shares nothing with it.
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { compileCatalog, search, searchIndex, type Item } from '../src/index.js';

const plain = (text: string) => text.normalize('NFKD').replace(/\p{M}/gu, '').toLowerCase().replaceAll('ß', 'ss');

interface Texts {
  readonly label: string;
  readonly others: readonly string[];
}

/** Where a word stands best: the label before the rest, starts of words first, then the first place in its own text; undefined where it is not. */
function standing({ label, others }: Texts, word: string): readonly number[] | undefined {
  const all = [label, ...others].flatMap((own, nth) => {
    const text = plain(own);
    return [...text].flatMap((_, at) => {
      if (!text.startsWith(word, at)) return [];
      const isStart = at === 0 || (/[\p{L}\p{N}]/u.test(text[at]!) && !/[\p{L}\p{N}]/u.test(text[at - 1]!));
      return [[nth === 0 ? 0 : 1, isStart ? 0 : 1, at]];
    });
  });
  return all.sort((a, b) => a[0]! - b[0]! || a[1]! - b[1]! || a[2]! - b[2]!)[0];
}

const signless = (text: string) => plain(text).replace(/[^\p{L}\p{N}]+/gu, '');
const sum = (all: readonly (readonly number[])[]) => [0, 1, 2].map((part) => all.reduce((total, own) => total + own[part]!, 0));

function slowly(items: readonly Texts[], query: string, where: 'anywhere' | 'starts'): number[] | undefined {
  const words = plain(query).split(/\s+/u).filter(Boolean);
  const found = items.flatMap((item, row) => {
    const own = words.map((word) => standing(item, word));
    if (own.some((place) => place === undefined || (where === 'starts' && place[1] === 1))) return [];
    return [{ row, rank: sum(own as number[][]) }];
  });
  if (found.length === 0) return undefined;
  // Beside the label weighs most, then being inside of a word, then the place.
  return found
    .sort((a, b) => a.rank[0]! - b.rank[0]! || a.rank[1]! - b.rank[1]! || a.rank[2]! - b.rank[2]! || a.row - b.row)
    .map(({ row }) => row);
}

const letters = ['a', 'b', 'é', 'ß', '1', '7', ' ', '-', '+', 'ж', '山'] as const;
const text = fc.string({ unit: fc.constantFrom(...letters), maxLength: 9 }).map((own) => own.trim());
const texts = fc.record({
  label: text.filter((own) => own !== ''),
  others: fc.array(
    text.filter((own) => own !== ''),
    { maxLength: 2 },
  ),
});

const itemOf = ({ label, others }: Texts, at: number): Item => ({
  value: label,
  path: [],
  // Two items of one label are two items.
  label,
  otherNames: others,
  state: 'offered',
  from: [{ rangeId: 'r', entryId: String(at) } as never],
});

/** The same items over and over, so that the text is long enough to be searched by its letters. */
const over = (items: readonly Texts[], times: number): Texts[] => Array.from({ length: times }, () => items).flat();

describe('search, however long the list', () => {
  for (const [size, times] of [
    ['a short one', 1],
    ['a long one', 60],
  ] as const)
    it(`finds and ranks in ${size} what a look at each item by itself finds`, () => {
      fc.assert(
        fc.property(
          fc.array(texts, { minLength: 8, maxLength: 20 }),
          fc.string({ unit: fc.constantFrom(...letters), minLength: 1, maxLength: 5 }),
          fc.constantFrom('anywhere' as const, 'starts' as const),
          (some, query, where) => {
            const items = over(some, times);
            const index = searchIndex({ items: items.map(itemOf) });
            const wanted = slowly(items, query, where);
            const all = search(index, query, items.length + 1, where);
            const few = search(index, query, 7, where);
            if (signless(query) === '' && !plain(query).trim()) return;
            if (wanted === undefined) {
              // Then signs and blanks are left out of account.
              const loose = items.filter(
                ({ label, others }) => signless(query) !== '' && [label, ...others].some((own) => signless(own).includes(signless(query))),
              );
              if (where === 'anywhere') expect(all.total).toBe(loose.length);
              return;
            }
            expect(all.matches.map(({ item }) => item)).toEqual(wanted.map((row) => index.items[row]));
            expect(few).toEqual({ matches: all.matches.slice(0, 7), total: wanted.length });
          },
        ),
        { numRuns: times === 1 ? 400 : 60 },
      );
    });

  it('finds the same when one types a word letter by letter, and another one after it', () => {
    const items = Array.from({ length: 3000 }, (_, at) => ({ label: `item ${at} ${'abcde'[at % 5]!}`, others: [] }));
    const index = searchIndex({ items: items.map(itemOf) });
    for (const query of ['i', 'it', 'item', 'item ', 'item 4', 'item 42', 'item 42 b', 'b 42', '2 4', 'z']) {
      const wanted = slowly(items, query, 'anywhere') ?? [];
      const { matches, total } = search(index, query, 50);
      expect([query, total, matches.map(({ item }) => item.label)]).toEqual([
        query,
        wanted.length,
        wanted.slice(0, 50).map((row) => items[row]!.label),
      ]);
    }
  });
});

describe('the index', () => {
  it('holds what a day offers', () => {
    const catalog = compileCatalog('c', 'List', [
      itemOf({ label: 'open', others: [] }, 0),
      { ...itemOf({ label: 'gone', others: [] }, 1), state: 'retired' },
    ]);
    expect(searchIndex(catalog).items.map(({ value }) => value)).toEqual(['open']);
  });
});
