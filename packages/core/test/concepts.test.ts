// Concepts that are read: what this house writes comes back as it was, and what others write is taken as the standard means it.
import { conceptParts, ConceptsReader, partFaults, skos, statementsOf, type Item, type ReadConcept, type Statement } from '@dellum/core';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';

const read = (statements: readonly Statement[], language = 'en-GB') => {
  const reader = new ConceptsReader();
  for (const statement of statements) reader.add(statement);
  return reader.found(language);
};
const word = fc.stringMatching(/^[a-zà-ž0-9/#%" ]{0,6}[a-z]$/u).map((text) => text.trim().replaceAll(/ +/gu, ' '));
const words = (most: number) => fc.uniqueArray(word, { maxLength: most });
const day = fc.constantFrom('2020-01-01', '2026-12-31');

/** Items of three levels, in which no name means two things. */
const items = fc
  .uniqueArray(
    fc.record({
      names: fc.tuple(word, word, word),
      depth: fc.integer({ min: 1, max: 3 }),
      label: fc.option(fc.constantFrom('Shown', 'Anders')),
      others: words(3),
      note: fc.option(word),
      from: fc.option(day),
      retired: fc.boolean(),
    }),
    { maxLength: 25, selector: ({ names, depth }) => names.slice(0, depth).join('\u001F') },
  )
  .map((all) => {
    const found = new Map<string, Item>();
    const own = (path: readonly string[], value: string): Item => ({
      ...{ value, path, label: value, otherNames: [], state: 'offered', from: [] },
    });
    for (const { names, depth, label, others, note, from, retired } of all) {
      for (let level = 0; level < depth; level++) {
        const path = names.slice(0, level);
        const key = [...path, names[level]].join('\u001F');
        if (!found.has(key)) found.set(key, own(path, names[level]!));
      }
      const [path, value] = [names.slice(0, depth - 1), names[depth - 1]!];
      found.set([...path, value].join('\u001F'), {
        ...own(path, value),
        label: label ?? value,
        otherNames: others.map((name) => `other ${name}`),
        ...(note !== null && { note }),
        ...(from !== null && { validFrom: from }),
        state: retired ? 'retired' : 'offered',
      });
    }
    return [...found.values()];
  });
const plain = ({ value, path, label, otherNames, note, validFrom, retired }: ReadConcept) =>
  JSON.stringify([path, value, label, [...otherNames].sort(), note ?? null, validFrom ?? null, retired]);

describe('Concepts', () => {
  it('that go out come back as they were, in whatever order the statements stand', () => {
    fc.assert(
      fc.property(items, fc.infiniteStream(fc.nat()), (all, order) => {
        const about = { scheme: 'urn:house:pilots', title: 'Pilots', language: 'en-GB' };
        const statements = statementsOf(all, about)
          .map((statement) => ({ statement, at: order.next().value as number }))
          .sort((one, other) => one.at - other.at)
          .map(({ statement }) => statement);
        const { schemes, left } = read(statements);
        expect(left).toEqual({ several: 0, loose: 0, same: 0 });
        expect(schemes.map(({ title }) => title)).toEqual(all.length > 0 ? ['Pilots'] : []);
        const expected = all.map(({ state, ...item }) => plain({ ...item, retired: state === 'retired' }));
        expect((schemes[0]?.concepts ?? []).map(plain).sort()).toEqual(expected.sort());
        let made = 0;
        const { parts, rows } = conceptParts(schemes, () => `id ${made++}`);
        expect(partFaults(parts)).toEqual([]);
        // Every value stands in a row, under its parents.
        const laid = new Set(
          [...rows.values()].flat().flatMap((cells) => Object.values(cells).map((_, at, own) => own.slice(0, at + 1).join('\u001F'))),
        );
        expect(laid).toEqual(new Set(all.map(({ path, value }) => [...path, value].join('\u001F'))));
      }),
    );
  });

  const said = (
    subject: string,
    ...pairs: readonly (readonly [string, string | { readonly text: string; readonly language?: string }])[]
  ) =>
    pairs.map(([name, held]): Statement => ({
      subject,
      predicate: `${skos}${name}`,
      object: typeof held === 'string' ? { iri: held } : held,
    }));

  it('are taken as others say them: narrower and top ones, languages, no notation, several parents, circles, the same name twice', () => {
    const { schemes, left } = read([
      ...said('urn:s', ['prefLabel', { text: 'Häfen', language: 'de' }], ['hasTopConcept', 'urn:n']),
      ...said(
        'urn:n',
        ['prefLabel', { text: 'Nord', language: 'de' }],
        ['prefLabel', { text: 'North', language: 'en' }],
        ['narrower', 'urn:b1'],
      ),
      ...said('urn:b1', ['notation', { text: 'B1' }], ['broader', 'urn:o'], ['altLabel', { text: 'erster Platz' }]),
      ...said('urn:b1b', ['notation', { text: 'b1' }], ['broader', 'urn:n'], ['prefLabel', { text: 'Old berth' }]),
      ...said('urn:x/Loop%20one', ['broader', 'urn:x/two']),
      ...said('urn:x/two', ['broader', 'urn:x/Loop%20one']),
    ]);
    expect(left).toEqual({ several: 1, loose: 1, same: 1 });
    expect(schemes.map(({ title, concepts }) => [title, concepts.map(({ path, value }) => [...path, value].join(' / '))])).toEqual([
      ['Häfen', ['North', 'North / B1']],
      ['Concepts', ['o', 'Loop one', 'Loop one / two']],
    ]);
    expect(schemes[0]!.concepts.map(({ label, otherNames }) => [label, otherNames])).toEqual([
      ['North', ['Nord']],
      ['B1', ['erster Platz', 'Old berth']],
    ]);
  });
});
