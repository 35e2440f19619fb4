import {
  behindOf,
  catalogSentence,
  compileCatalog,
  cycleThrough,
  dependents,
  itemKey,
  levelsOf,
  lookUp,
  nearest,
  ofRanges,
  itemChanges,
  lookupSteps,
  lookUpName,
  recompileCatalog,
  packItems,
  passes,
  readTypedList,
  readSourceState,
  houseLocale,
  search,
  searchIndex,
  unpackItems,
  withItemChanges,
  validityOn,
  writeTypedList,
  type CatalogDefinition,
  type CatalogPart,
  type Entry,
  type Catalog,
  type Item,
  type ItemChanges,
  type KeptItem,
  type RegisterState,
  type SourceRange,
  type SourceState,
} from '@dellum/core';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';

const item = (value: string, over: Partial<Item> = {}): Item => ({
  value,
  path: [],
  label: value,
  otherNames: [],
  state: 'offered',
  from: [],
  ...over,
});
const catalogOf = (...items: Item[]) => compileCatalog('c', 'Pilots', items);
const pilots = catalogOf(
  item('Tam Ossel', { otherNames: ['T. Ossel'] }),
  item('Bryn Calloway'),
  item('Ilse Marchbank'),
  item('Rook Tansy'),
  item('Odd Fenwright', { state: 'retired' }),
);

const typed = (values: readonly string[], join: CatalogPart['join'] = 'or'): CatalogPart => ({ kind: 'typed', join, values });
const list = (id: string, texts: readonly string[]): { register: RegisterState; range: SourceRange } => ({
  register: {
    id,
    heading: id,
    fields: [{ key: 'value', heading: id, kind: 'text' }],
    entries: texts.map((text, at): Entry => ({ id: `${id}${at}`, cells: { value: text } })),
  },
  range: {
    id: `range ${id}`,
    name: id,
    shape: 'list',
    inherits: false,
    stretches: [{ registerId: id, fields: ['value'], start: { at: 'top' }, end: { ends: 'last' } }],
  },
});
const kept = (value: string, over: Partial<KeptItem> = {}): KeptItem => ({ value, path: [], retired: false, otherNames: [], ...over });
const sourceStateOf = (
  definitions: Readonly<Record<string, CatalogDefinition>>,
  sources: readonly { register: RegisterState; range: SourceRange }[] = [],
  keptItems: Readonly<Record<string, readonly KeptItem[]>> = {},
): SourceState => ({
  locale: houseLocale,
  registers: new Map(sources.map(({ register }) => [register.id, register])),
  ranges: sources.map(({ range }) => range),
  definitions: new Map(Object.entries(definitions)),
  kept: new Map(Object.entries(keptItems)),
  linked: new Map([['files', [{ value: ' Fathom ' }, { value: '' }, { value: 'Corrow', label: 'Corrow Brothers' }]]]),
});
const parts = (...own: CatalogPart[]): CatalogDefinition => ({ ...ofRanges([]), parts: own });
const offered = (sourceState: SourceState, id = 'c') =>
  readSourceState(sourceState)
    .items(id)
    .filter(({ state }) => state === 'offered')
    .map(({ value }) => value);

describe('composeCatalog', () => {
  it('keeps the order of the parts; a value of two parts stands once and owns both rows', () => {
    const [a, b] = [list('a', ['x', 'y']), list('b', ['y', 'z'])];
    const items = readSourceState(
      sourceStateOf({ c: ofRanges(['range a', 'range b']) }, [a, b], {
        c: [kept('old', { retired: true }), kept('x', { otherNames: ['ex'] })],
      }),
    ).items('c');
    expect(items.map(({ value, state }) => `${value} ${state}`)).toEqual(['x offered', 'y offered', 'z offered', 'old retired']);
    expect(items[1]!.from.map(({ id }) => id)).toEqual(['range a', 'range b']);
    expect(items[0]!.otherNames).toEqual(['ex']);
  });
  it('joins sets as sets: or, and, without', () => {
    const values = fc.uniqueArray(fc.constantFrom('a', 'b', 'c', 'd', 'e'), { maxLength: 5 });
    fc.assert(
      fc.property(values, values, values, (one, two, three) => {
        const now = offered(sourceStateOf({ c: parts(typed(one), typed(two, 'and'), typed(three, 'without')) }));
        expect(now).toEqual(one.filter((value) => two.includes(value) && !three.includes(value)));
        expect(offered(sourceStateOf({ c: parts(typed(one), typed(two)) }))).toEqual([...new Set([...one, ...two])]);
      }),
    );
  });
  it('takes what other catalogs offer, with all that they keep', () => {
    const items = readSourceState(
      sourceStateOf({ c: parts({ kind: 'catalog', join: 'or', catalogId: 'inner' }), inner: parts(typed(['a', 'b'])) }, [], {
        inner: [kept('a', { note: 'first', colour: 'teal' }), kept('b', { retired: true })],
      }),
    ).items('c');
    expect(items).toMatchObject([{ value: 'a', note: 'first', colour: 'teal' }]);
  });
  it('queries a register: value, label, companions, filter', () => {
    const vessels: RegisterState = {
      id: 'vessels',
      heading: 'Vessels',
      fields: ['sign', 'name', 'class', 'length'].map((key) => ({ key, heading: key, kind: key === 'length' ? 'number' : 'text' })),
      entries: [
        ['Q1', 'Marrow', 'tug', '20'],
        ['Q2', 'Kestrel', 'Ferry', '90'],
        ['Q3', 'Tern', 'TUG', '9'],
      ].map(([sign, name, kind, length], at) => ({ id: `v${at}`, cells: { sign: sign!, name: name!, class: kind!, length: length! } })),
    };
    const query: CatalogPart = {
      kind: 'query',
      join: 'or',
      registerId: 'vessels',
      value: 'sign',
      label: 'name',
      companions: ['length'],
      filter: {
        all: true,
        conditions: [
          { field: 'class', is: 'is', value: 'tug' },
          { field: 'length', is: 'at least', value: '9.0' },
        ],
      },
    };
    const sourceState = {
      ...sourceStateOf({ c: { ...parts(query), order: { by: 'companion', field: 'length', direction: 'up' } } }),
      registers: new Map([['vessels', vessels]]),
    };
    const reader = readSourceState(sourceState);
    expect(reader.items('c')).toMatchObject([
      { value: 'Q3', label: 'Tern', companions: { length: '9' } },
      { value: 'Q1', label: 'Marrow', companions: { length: '20' } },
    ]);
    expect(reader.companions('c')).toEqual([{ key: 'length', heading: 'length', kind: 'number' }]);
    expect(
      catalogSentence(
        sourceState.definitions.get('c')!,
        { range: String, register: String, field: (_id, key) => key, linked: String, catalog: String },
        String,
      ),
    ).toBe(
      'Offers sign, shown as name, of vessels where class is “tug” and length is at least “9.0”, ordered by length; repeats stand once.',
    );
  });
  it('takes linked values cleaned, and lets spellings of one value stand once', () => {
    expect(offered(sourceStateOf({ c: parts({ kind: 'linked', join: 'or', sourceId: 'files' }) }))).toEqual(['Fathom', 'Corrow']);
    const [only] = readSourceState(
      sourceStateOf({ c: { ...parts(typed(['North  Quay'.replace('  ', ' '), 'NORTH quay'])), distinct: 'spelling' } }),
    ).items('c');
    expect(only).toMatchObject({ value: 'North Quay', otherNames: ['NORTH quay'] });
  });
  it('orders siblings among themselves; filters leave the parents of what passes', () => {
    const table: RegisterState = {
      id: 't',
      heading: 'T',
      fields: ['group', 'item', 'unit'].map((key) => ({ key, heading: key, kind: 'text' })),
      entries: [
        ['B', 'b2', 't'],
        ['A', 'a1', 'kg'],
        ['B', 'b1', 'kg'],
      ].map(([group, own, unit], at) => ({ id: `t${at}`, cells: { group: group!, item: own!, unit: unit! } })),
    };
    const range: SourceRange = {
      id: 'r',
      name: 'R',
      shape: 'levels',
      inherits: false,
      stretches: [{ registerId: 't', fields: ['group', 'item'], start: { at: 'top' }, end: { ends: 'last' } }],
    };
    const of = (over: Partial<CatalogDefinition>) =>
      readSourceState(
        sourceStateOf({ c: { ...parts({ kind: 'range', join: 'or', rangeId: 'r', label: null, companions: ['unit'] }), ...over } }, [
          { register: table, range },
        ]),
      ).items('c');
    expect(of({}).map(itemKey)).toEqual(['B', 'B\u001Fb2', 'B\u001Fb1', 'A', 'A\u001Fa1']);
    expect(of({ order: { by: 'alphabetical' } }).map(itemKey)).toEqual(['A', 'A\u001Fa1', 'B', 'B\u001Fb1', 'B\u001Fb2']);
    expect(of({ filter: { all: true, conditions: [{ field: 'unit', is: 'is', value: 't' }] } }).map(itemKey)).toEqual(['B', 'B\u001Fb2']);
    expect(levelsOf(of({}))).toBe(2);
    expect(compileCatalog('c', 'C', of({})).items.map(({ value }) => value)).toEqual(['b2', 'b1', 'a1']);
  });
});

describe('dependencies', () => {
  const definitions = new Map([
    ['a', parts({ kind: 'catalog', join: 'or', catalogId: 'b' })],
    ['b', parts({ kind: 'query', join: 'or', registerId: 'visits', value: 'pilot', label: null, companions: [], filter: null })],
    ['c', parts(typed(['x']))],
  ]);
  it('name the way through which a catalog would feed itself, also through a bound field', () => {
    const bound = (catalog: string | undefined) => behindOf(definitions, () => catalog);
    expect(cycleThrough('a', bound('a'))).toEqual(['a', 'b', 'a']);
    expect(cycleThrough('a', bound('c'))).toBeUndefined();
    expect(
      cycleThrough(
        'b',
        behindOf(new Map([...definitions, ['b', parts({ kind: 'catalog', join: 'or', catalogId: 'a' })]]), () => undefined),
      ),
    ).toEqual(['b', 'a', 'b']);
  });
  it('put every catalog after all it is composed of', () => {
    const order = dependents(['b'], definitions);
    expect(order).toEqual(['b', 'a']);
  });
});

describe('passes', () => {
  const holds = (
    is: Parameters<typeof passes>[0] extends infer F
      ? F extends { conditions: readonly (infer C)[] }
        ? C extends { is: infer I }
          ? I
          : never
        : never
      : never,
    value: string,
    held: string,
  ) => passes({ all: true, conditions: [{ field: 'f', is, value }] }, () => held);
  it.each([
    ['is', 'TUG ', 'tug', true],
    ['is', '1.0', '1', true],
    ['is not', 'tug', 'ferry', true],
    ['contains', 'ER', 'ferry', true],
    ['starts with', 'fer', 'Ferry', true],
    ['at least', '9', '10', true],
    ['at least', '2026-01-02', '2026-01-01', false],
    ['at most', '10', '', false],
    ['is blank', '', ' ', true],
    ['is filled', '', 'x', true],
  ] as const)('%s %j: %j → %s', (is, value, held, expected) => expect(holds(is, value, held)).toBe(expected));
});

describe('a typed list', () => {
  it.each([
    ['yes, no', '.', ['yes', 'no']],
    ['2,5; 3,5', ',', ['2,5', '3,5']],
    ['a;b\nc', '.', ['a', 'b', 'c']],
    ['"Ossel, Tam", Rook', '.', ['Ossel, Tam', 'Rook']],
    ['say ""hi"", x', '.', ['say ""hi""', 'x']],
    ['a,,b, a ,', '.', ['a', 'b']],
  ] as const)('%j (decimal %s) is %j', (text, decimalMark, values) =>
    expect(readTypedList(text, { ...houseLocale, decimalMark }).values).toEqual(values),
  );
  it('says what it dropped', () => expect(readTypedList('a,,b,a,', houseLocale)).toMatchObject({ blanks: 1, repeats: 1 }));
  it('is read again as it was written', () => {
    fc.assert(
      fc.property(
        fc.uniqueArray(fc.string({ unit: fc.constantFrom('a', 'b', ',', ';', '"', ' '), minLength: 1, maxLength: 5 }), {
          minLength: 1,
          maxLength: 6,
        }),
        (texts) => {
          const { values } = readTypedList(
            writeTypedList(texts.map((text) => text.replace(/\s+/g, ' ').trim()).filter((text) => text !== '')),
            houseLocale,
          );
          expect(readTypedList(writeTypedList(values), houseLocale).values).toEqual(values);
        },
      ),
    );
  });
});

describe('what has changed of items', () => {
  const value = fc.constantFrom(...'abcdefghijkl');
  const one = fc.record({
    value,
    path: fc.constantFrom([], ['a'], ['b']),
    label: value,
    otherNames: fc.array(value, { maxLength: 2 }),
    state: fc.constantFrom('offered' as const, 'retired' as const),
    companions: fc.option(fc.record({ unit: value }), { nil: undefined }),
    note: fc.option(value, { nil: undefined }),
  });
  const list = fc
    .uniqueArray(one, { selector: itemKey, maxLength: 14 })
    .map((items) =>
      items.map(({ note, companions, ...own }): Item => ({ ...own, ...(note && { note }), ...(companions && { companions }), from: [] })),
    );
  it('makes the items after of the items before, also when it has travelled; what came from other rows is the same', () =>
    fc.assert(
      fc.property(list, list, (before, after) => {
        const changes = itemChanges(before, after, Infinity)!;
        const travelled = JSON.parse(JSON.stringify(changes)) as ItemChanges;
        expect(withItemChanges(before, travelled)).toEqual(after);
        const moved = before.map((item): Item => ({ ...item, from: [{ by: 'typed', id: '', rows: [] }] }));
        expect(itemChanges(before, moved, Infinity)).toEqual({ removed: [], put: [] });
        const count = changes.removed.length + changes.put.length;
        if (count > 0) expect(itemChanges(before, after, count - 1)).toBeUndefined();
      }),
    ));
  it('brings a compiled catalog to where compiling it whole leads, act after act, whatever was looked up before', () => {
    const flat = fc
      .uniqueArray(one, { selector: ({ value: own }) => own, maxLength: 12 })
      .map((items) =>
        items.map(({ note, companions, ...own }): Item => ({
          ...own,
          path: [],
          from: [],
          ...(note && { note, ...(companions && { companions }) }),
        })),
      );
    const texts = [...'abcdefghijklm', 'A', 'B', 'Ä', ' c '];
    const found = (catalog: Catalog) => [
      texts.map((text) => lookUp(catalog, text)),
      texts.map((text) => lookUpName(catalog, text)),
      catalog.items,
      catalog.all,
    ];
    fc.assert(
      fc.property(fc.array(flat, { minLength: 2, maxLength: 5 }), fc.subarray([...lookupSteps]), ([first, ...next], made) => {
        let catalog = compileCatalog('c', 'Things', first!);
        for (const step of made) catalog.index.get(step);
        for (const items of next) {
          catalog = recompileCatalog(catalog, 'Things', items, [], itemChanges(catalog.items, items, Infinity)!);
          expect(found(catalog)).toEqual(found(compileCatalog('c', 'Things', items, [])));
        }
      }),
    );
  });
  it('is one value gone and one put, whichever value is added, corrected, taken out or moved', () =>
    fc.assert(
      fc.property(list, one, fc.nat(), fc.nat(), fc.constantFrom('add', 'correct', 'take out', 'move'), (before, made, from, to, act) => {
        const place = from % Math.max(1, before.length);
        const after = [...before];
        const [gone] = act === 'add' ? [] : after.splice(place, 1);
        const put = act === 'add' ? { ...made, from: [] } : act === 'correct' ? gone && { ...gone, label: `${gone.label}x` } : gone;
        const at = act === 'correct' ? place : to % (after.length + 1);
        if (put && act !== 'take out' && !after.some((item) => itemKey(item) === itemKey(put))) after.splice(at, 0, put as Item);
        const { removed, put: some } = itemChanges(before, after, Infinity)!;
        expect([removed.length <= 1, some.length <= 1]).toEqual([true, true]);
      }),
    ));
});

describe('packed items', () => {
  const text = fc.constantFrom('a', 'b', 'c', 'd');
  const made = fc.record({
    value: text,
    label: text,
    otherNames: fc.array(text, { maxLength: 2 }),
    state: fc.constantFrom('offered' as const, 'retired' as const),
    unit: fc.option(text, { nil: undefined }),
    rows: fc.nat({ max: 2 }),
    note: fc.option(text, { nil: undefined }),
  });
  it('are unpacked as they were, but for the entries of their rows', () => {
    fc.assert(
      fc.property(
        fc.uniqueArray(made, { selector: ({ value }) => value, maxLength: 4 }),
        fc.uniqueArray(made, { selector: ({ value }) => value, maxLength: 4 }),
        (roots, children) => {
          const of = (
            { value, label, otherNames, state, unit, rows, note }: (typeof roots)[number],
            path: readonly string[],
            at: number,
          ): Item => ({
            value,
            path,
            label,
            otherNames,
            ...(note !== undefined && { note }),
            ...(unit !== undefined && { companions: { unit } }),
            state,
            from:
              rows === 0
                ? []
                : [
                    {
                      by: 'range',
                      id: 'r',
                      rows: Array.from({ length: rows }, (_, more) => ({ register: 'l', entry: '', ordinal: at + more })),
                    },
                  ],
          });
          const items = roots.flatMap((root, at) => [
            of(root, [], at),
            ...children.map((child, place) => of(child, [root.value], at + place)),
          ]);
          expect(unpackItems(packItems(items, [{ key: 'unit', heading: 'Unit', kind: 'text' }]))).toEqual(items);
        },
      ),
    );
  });
});

describe('validity', () => {
  it.each([
    ['2026-01-01', 'valid'],
    ['2025-12-31', 'not yet valid'],
    ['2026-12-31', 'valid'],
    ['2027-01-01', 'no longer valid'],
  ])('on %s is %s, both ends counted', (day, expected) =>
    expect(validityOn({ validFrom: '2026-01-01', validUntil: '2026-12-31' }, day)).toBe(expected),
  );
  it('keeps what is not valid out of the picker', () =>
    expect(
      searchIndex(catalogOf(item('a', { validUntil: '2026-01-01' }), item('b')), '2026-06-01').items.map(({ value }) => value),
    ).toEqual(['b']));
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
  it('gives all offered items in catalog order for an empty query', () =>
    expect(found(' ').matches.map((match) => match.item.value)).toEqual(['Tam Ossel', 'Bryn Calloway', 'Ilse Marchbank', 'Rook Tansy']));
  it('finds words anywhere and in any order, starts of words first', () => {
    expect(found('tan').matches.map((match) => match.item.value)).toEqual(['Rook Tansy']);
    expect(found('ossel tam').matches[0]).toMatchObject({
      item: { value: 'Tam Ossel' },
      spans: [
        { start: 0, end: 3 },
        { start: 4, end: 9 },
      ],
    });
    const index = searchIndex(catalogOf(item('Xan'), item('An old one'), item('The an')));
    expect(search(index, 'an', 9).matches.map((match) => match.item.value)).toEqual(['An old one', 'The an', 'Xan']);
  });
  it('marks what was typed in the text as it is written', () => {
    fc.assert(
      fc.property(
        fc.string({ unit: fc.constantFrom('a', 'É', 'ß', 'ﬁ', '№', ' ', 'x'), minLength: 1, maxLength: 12 }),
        fc.nat(),
        fc.nat(),
        (label, from, length) => {
          const word =
            [...label]
              .slice(from % label.length, (from % label.length) + 1 + (length % 3))
              .join('')
              .trim()
              .split(' ')[0] ?? '';
          fc.pre(word !== '');
          const [match] = search(searchIndex(catalogOf(item(label))), word, 1).matches;
          const plain = (text: string) => text.normalize('NFKD').replace(/\p{M}/gu, '').toLowerCase().replaceAll('ß', 'ss');
          for (const { start, end } of match!.spans)
            expect([plain(label.slice(start, end)), plain(word)]).toEqual([expect.stringContaining(plain(word)), plain(word)]);
        },
      ),
    );
  });
  it('finds the value behind a label, notes, other names and companions, words spread over them', () => {
    const grown = [
      item('K-7', { label: 'Copper beech', note: 'hedge', otherNames: ['Fagus'], companions: { pot: '40' } }),
      item('K-8', { label: 'Copper rose' }),
    ];
    const index = searchIndex(catalogOf(...grown));
    for (const query of ['k-7', 'hedge', 'beech 40', 'hedge copper', 'fag bee'])
      expect(
        search(index, query, 9).matches.map((match) => match.item.value),
        query,
      ).toEqual(['K-7']);
    expect(search(index, 'copper', 9).total).toBe(2);
    expect(search(index, 'copper nothing', 9).total).toBe(0);
  });
  it('puts a name that begins with the word before a note that has it, however long the label', () => {
    const index = searchIndex(
      catalogOf(
        item('Zed', { note: 'See the kite' }),
        item('Alpha bravo charlie delta', { otherNames: ['Gull', 'Kite'] }),
        item('№ 7', { note: 'kites' }),
      ),
    );
    expect(search(index, 'kite', 9).matches.map((match) => match.item.value)).toEqual(['Alpha bravo charlie delta', '№ 7', 'Zed']);
    expect(search(index, 'no', 9).matches[0]).toMatchObject({ item: { value: '№ 7' }, spans: [{ start: 0, end: 1 }] });
  });
  it('finds what is written without its blanks and signs', () => {
    const index = searchIndex(catalogOf(item('8 x 40'), item('Plank 18 x 400'), item('+5 to port')));
    expect(search(index, '8x40', 9).matches.map((match) => match.item.value)).toEqual(['8 x 40', 'Plank 18 x 400']);
    expect(search(index, '+5', 9).matches.map((match) => match.item.value)).toEqual(['+5 to port']);
    expect(search(index, '--', 9).total).toBe(0);
  });
  it('agrees with looking at each item by itself, however many are asked for', () => {
    const word = fc.string({ unit: fc.constantFrom('a', 'b', 'ß', ' ', '-'), maxLength: 6 });
    fc.assert(
      fc.property(
        fc.uniqueArray(
          word.map((text) => text.trim()).filter((text) => text !== ''),
          { minLength: 1, maxLength: 12 },
        ),
        word,
        word,
        (labels, note, query) => {
          const index = searchIndex(catalogOf(...labels.map((label) => item(label, { note }))));
          const plain = (text: string) => text.toLowerCase().replaceAll('ß', 'ss');
          const words = plain(query)
            .split(' ')
            .filter((part) => part !== '');
          const naive = labels.filter((label) => words.every((part) => plain(label).includes(part) || plain(note).includes(part)));
          const all = search(index, query, 1000);
          if (naive.length > 0) expect(new Set(all.matches.map((match) => match.item.value))).toEqual(new Set(naive));
          expect(search(index, query, 3).matches).toEqual(all.matches.slice(0, 3));
          expect(search(index, query, 3).total).toBe(all.total);
        },
      ),
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
