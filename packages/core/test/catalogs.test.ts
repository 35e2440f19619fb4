import { compileCatalog, itemsOf, lookUp, nearest, search, searchIndex, takeRange, type Entry, type Item, type KeptItem, type SourceRange } from '@dellum/core';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';

const item = (value: string, over: Partial<Item> = {}): Item => ({ value, label: value, otherNames: [], state: 'offered', from: [], ...over });
const catalogOf = (...items: Item[]) => compileCatalog('c', 'Pilots', items);
const pilots = catalogOf(item('Tam Ossel', { otherNames: ['T. Ossel'] }), item('Bryn Calloway'), item('Ilse Marchbank'), item('Rook Tansy'), item('Odd Fenwright', { state: 'retired' }));

describe('itemsOf', () => {
  const list = (id: string, texts: string[]) => {
    const entries: Entry[] = texts.map((text, at) => ({ id: `${id}${at}`, cells: { value: text } }));
    const range: SourceRange = { id, name: id, field: 'value', start: { at: 'top' }, end: { ends: 'last' } };
    return { rangeId: id, taking: takeRange(range, entries, [range]) };
  };
  const kept = (value: string, retired: boolean, ...otherNames: string[]): KeptItem => ({ value, retired, otherNames });
  it('keeps the order of the parts; a value of two parts stands once and owns both rows', () => {
    const items = itemsOf([list('a', ['x', 'y']), list('b', ['y', 'z'])], [kept('old', true), kept('x', false, 'ex')]);
    expect(items.map(({ value, state }) => `${value} ${state}`)).toEqual(['x offered', 'y offered', 'z offered', 'old retired']);
    expect(items[1]!.from.map(({ rangeId }) => rangeId)).toEqual(['a', 'b']);
    expect(items[0]!.otherNames).toEqual(['ex']);
  });
  it('offers a retired value again when a source gives it', () => expect(itemsOf([list('a', ['x'])], [kept('x', true)]).map(({ state }) => state)).toEqual(['offered']));
});

describe('lookUp', () => {
  it.each([
    ['Tam Ossel', 'Tam Ossel', 'value'],
    ['  Tam  Ossel', 'Tam Ossel', 'value'],
    ['T. Ossel', 'Tam Ossel', 'other name'],
    ['ROOK tansy', 'Rook Tansy', 'value differently written'],
    ['t. ossel', 'Tam Ossel', 'other name differently written'],
  ])('finds %j as %s by %s', (text, value, by) => expect(lookUp(pilots, text)).toMatchObject({ found: 'item', item: { value }, by }));
  it('finds nothing by likeness alone', () => expect(lookUp(pilots, 'Tam Osel').found).toBe('nothing'));
  it('prefers the exact value to another item that is written so differently', () => {
    const twins = catalogOf(item('quay'), item('Quay'));
    expect(lookUp(twins, 'Quay')).toMatchObject({ item: { value: 'Quay' } });
    expect(lookUp(twins, 'QUAY')).toMatchObject({ found: 'ambiguous', items: [{ value: 'quay' }, { value: 'Quay' }] });
  });
});

describe('search', () => {
  const found = (query: string, limit = 50) => search(searchIndex(pilots), query, limit);
  it('gives all offered items in catalog order for an empty query', () => expect(found(' ').matches.map((match) => match.item.value)).toEqual(['Tam Ossel', 'Bryn Calloway', 'Ilse Marchbank', 'Rook Tansy']));
  it('finds words anywhere and in any order, starts of words first', () => {
    expect(found('tan').matches.map((match) => match.item.value)).toEqual(['Rook Tansy']);
    expect(found('ossel tam').matches[0]).toMatchObject({ item: { value: 'Tam Ossel' }, spans: [{ start: 0, end: 3 }, { start: 4, end: 9 }] });
    const index = searchIndex(catalogOf(item('Xan'), item('An old one'), item('The an')));
    expect(search(index, 'an', 9).matches.map((match) => match.item.value)).toEqual(['An old one', 'The an', 'Xan']);
  });
  it('marks what was typed in the text as it is written', () => {
    fc.assert(
      fc.property(fc.string({ unit: fc.constantFrom('a', 'É', 'ß', 'ﬁ', ' ', 'x'), minLength: 1, maxLength: 12 }), fc.nat(), fc.nat(), (label, from, length) => {
        const word = [...label].slice(from % label.length, (from % label.length) + 1 + (length % 3)).join('').trim().split(' ')[0] ?? '';
        fc.pre(word !== '');
        const [match] = search(searchIndex(catalogOf(item(label))), word, 1).matches;
        for (const { start, end } of match!.spans) expect(end).toBeGreaterThan(start);
      }),
    );
  });
  it('says how many there are beyond what it gives', () => expect(found('', 2)).toMatchObject({ total: 4, matches: [{}, {}] }));
  it('names the other name that was found', () => expect(found('t. o').matches[0]).toMatchObject({ otherName: 'T. Ossel', spans: [] }));
});

describe('nearest', () => {
  it('suggests slips of the finger, none when nothing is near, and never what is retired', () => {
    expect(nearest(pilots, 'Tam Osel')).toEqual(['Tam Ossel']);
    expect(nearest(pilots, 'Byrn Caloway')).toEqual(['Bryn Calloway']);
    expect(nearest(pilots, 'Odd Fenwrigth')).toEqual([]);
    expect(nearest(pilots, 'zebra')).toEqual([]);
  });
  it('suggests at most three, ties by use', () => {
    const four = catalogOf(item('Berth 1'), item('Berth 2'), item('Berth 3'), item('Berth 4'));
    expect(nearest(four, 'Berth 9', new Map([['Berth 4', 7]]))).toEqual(['Berth 4', 'Berth 1', 'Berth 2']);
  });
});
