// Parts of a house that come into another: whatever is chosen, what comes in hangs together with what is there.
import { brought, collisionsOf, partFaults, partsHere, newRule, ofRanges, waysIn, type HouseParts, type WayIn } from '@dellum/core';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';

const name = fc.constantFrom('Pilots', 'pilots', 'Quays', 'Ships', 'Notes');
const ids = (prefix: string, names: readonly string[]) => names.map((own, at) => ({ id: `${prefix} ${at}`, name: own }));
const names = fc.uniqueArray(name, { selector: (one) => one.toLowerCase(), maxLength: 4 });

/** A house in which every sheet has a list or a field of a catalog, and everything is named at random. */
const house = (prefix: string) =>
  fc
    .record({
      sources: names,
      entrySheets: names,
      ranges: names,
      catalogs: names,
      linked: names,
      forms: names,
      figures: names,
      groups: names,
      people: names,
    })
    .filter(
      ({ sources, entrySheets }) =>
        sources.length > 0 && entrySheets.every((one) => !sources.some((other) => other.toLowerCase() === one.toLowerCase())),
    )
    .map((made): HouseParts => {
      const lists = ids(`${prefix} list`, made.sources);
      const ranges = ids(`${prefix} range`, made.ranges);
      const catalogs = ids(`${prefix} catalog`, made.catalogs);
      const people = ids(`${prefix} person`, made.people);
      const groups = ids(`${prefix} group`, made.groups);
      const entrySheets = ids(`${prefix} sheet`, made.entrySheets);
      const sheet = {
        note: '',
        shown: false,
        limited: false,
        downloads: true,
        groups: groups.map(({ id }) => ({ groupId: id, enters: true })),
      };
      const field = { key: 'value', heading: 'Value', kind: 'text' as const, width: 100, group: '' };
      return {
        sheets: [
          ...lists.map(({ id, name: title }) => ({
            ...sheet,
            id: `of ${id}`,
            kind: 'source' as const,
            title,
            registers: [{ id, title, closing: null, fields: [{ ...field, rule: null }] }],
          })),
          ...entrySheets.map(({ id, name: title }, at) => ({
            ...sheet,
            id: `of ${id}`,
            kind: 'entry' as const,
            title,
            registers: [
              {
                id,
                title,
                closing: null,
                fields: [
                  { ...field, rule: catalogs.length > 0 ? { ...newRule('catalog'), catalogId: catalogs[at % catalogs.length]!.id } : null },
                ],
              },
            ],
          })),
        ],
        ranges: ranges.map(({ id, name: own }, at) => ({
          id,
          name: own,
          shape: 'list',
          inherits: false,
          stretches: [{ registerId: lists[at % lists.length]!.id, fields: ['value'], start: { at: 'top' }, end: { ends: 'last' } }],
        })),
        catalogs: catalogs.map(({ id, name: title }, at) => ({
          id,
          key: title.toLowerCase(),
          title,
          note: '',
          definition: ofRanges(ranges.length > 0 ? [ranges[at % ranges.length]!.id] : []),
          kept: [],
          stewards: people.map((person) => person.id),
        })),
        linked: ids(`${prefix} linked`, made.linked).map((source) => ({
          ...source,
          settings: { kind: 'computed', catalogs: catalogs.map((one) => one.name.toLowerCase()) },
          every: 0,
        })),
        forms:
          entrySheets.length === 0
            ? []
            : ids(`${prefix} form`, made.forms).map(({ id, name: title }) => ({
                id,
                title,
                registerId: entrySheets[0]!.id,
                layout: { intro: '', thanks: '', sections: [] },
                published: true,
              })),
        figures:
          entrySheets.length === 0
            ? []
            : ids(`${prefix} figure`, made.figures).map(({ id, name: title }) => ({
                id,
                title,
                definition: { registerId: entrySheets[0]!.id, by: [], time: null, measure: 'count', of: null, only: [], chart: 'bars' },
              })),
        groups: groups.map((group) => ({ ...group, people: people.map(({ id }) => id) })),
        people: people.map(({ id, name: own }) => ({ id, name: own, signIn: own, role: 'clerk' })),
        toldApart: [],
      };
    });

const together = (one: HouseParts, other: HouseParts): HouseParts =>
  Object.fromEntries(
    Object.keys(one).map((part) => [part, [...one[part as keyof HouseParts], ...other[part as keyof HouseParts]]]),
  ) as unknown as HouseParts;

describe('Parts that come into a house', () => {
  it('hang together with what is there, whatever is chosen: nothing is named twice, and nothing names what is nowhere', () => {
    fc.assert(
      fc.property(house('here'), house('new'), fc.array(fc.constantFrom(...waysIn)), (here, come, chosen) => {
        expect([partFaults(here), partFaults(come)]).toEqual([[], []]);
        const collisions = collisionsOf(come, partsHere(here));
        const ways = new Map<string, WayIn>(chosen.flatMap((way, at) => (collisions[at] ? [[collisions[at].id, way] as const] : [])));
        expect(partFaults(together(here, brought(come, partsHere(here), ways)))).toEqual([]);
      }),
    );
  });

  it('come in as they are where no name is taken', () => {
    fc.assert(
      fc.property(house('new'), (come) => {
        const nothing = { sheets: [], ranges: [], catalogs: [], linked: [], forms: [], figures: [], groups: [], people: [], toldApart: [] };
        expect(collisionsOf(come, partsHere(nothing))).toEqual([]);
        expect(brought(come, partsHere(nothing), new Map())).toEqual(come);
      }),
    );
  });

  it('lead a source that is computed over a catalog to the key by which that is known from now on', () => {
    const come = fc.sample(
      house('new').filter(({ catalogs, linked }) => catalogs.length > 0 && linked.length > 0),
      1,
    )[0]!;
    const { id, key } = come.catalogs[0]!;
    const besides = come.linked.map((source) => [source.id, 'beside'] as const);
    const beside = brought(come, partsHere(come), new Map<string, WayIn>([[id, 'beside'], ...besides]));
    expect(beside.catalogs.map((catalog) => catalog.key)).toContain(`${key}-2`);
    expect(beside.linked[0]!.settings.catalogs).toContain(`${key}-2`);
    const here = {
      ...come,
      catalogs: come.catalogs.map((catalog) => ({ ...catalog, id: `its ${catalog.id}`, key: `old-${catalog.key}` })),
    };
    const used = brought(come, partsHere(here), new Map<string, WayIn>(besides));
    expect(used.linked[0]!.settings.catalogs![0]).toBe(`old-${key}`);
  });
});
