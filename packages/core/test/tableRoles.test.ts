import { namingField, tableRoles, type Item, type RegisterField } from '@dellum/core';
import { describe, expect, it } from 'vitest';

const fields = (...headings: string[]): RegisterField[] =>
  headings.map((heading) => ({ key: heading.toLowerCase(), heading, kind: 'text' }));
const rows = (own: readonly RegisterField[], ...texts: string[][]) =>
  texts.map((row) => ({ cells: Object.fromEntries(row.map((text, at) => [own[at]!.key, text])) }));
const item = (value: string, companions?: Record<string, string>): Item => ({
  value,
  path: [],
  label: value,
  otherNames: [],
  state: 'offered',
  from: [],
  ...(companions && { companions }),
});

describe('the fields of a table in a catalog of it', () => {
  it('are levels up to the first that tells the rows apart; what follows comes along', () => {
    const own = fields('Group', 'Article', 'Unit');
    expect([...tableRoles(own, rows(own, ['Soil', 'Peat', 'bag'], ['Soil', 'Bark', 'bag'])).values()]).toEqual(['level', 'level', 'along']);
  });
  it('show the name beside a code, not something that repeats or is a code itself', () => {
    const staff = fields('Account', 'Name', 'Place');
    expect([...tableRoles(staff, rows(staff, ['avenn', 'Ada Venn', 'GH'], ['bhawk', 'Ben Hawk', 'GH'])).values()]).toEqual([
      'level',
      'label',
      'along',
    ]);
    const places = fields('Code', 'Department');
    expect([...tableRoles(places, rows(places, ['GH', 'Greenhouse'], ['SH', 'Shop floor'])).values()]).toEqual(['level', 'label']);
    const pairs = fields('Own', 'Other');
    expect([...tableRoles(pairs, rows(pairs, ['AB', 'CD'], ['EF', 'GH'])).values()]).toEqual(['level', 'along']);
  });
});

describe('the field that names the items of a catalog', () => {
  const staff = fields('Account', 'Works');
  const held = rows(staff, ['avenn', 'gh'], ['bhawk', 'SH'], ['cmoss', 'nowhere']);
  it('is found by the value in any spelling, or by a companion', () => {
    expect(namingField(staff, held, [item('GH'), item('SH')], [])).toEqual({ key: 'works', by: null, share: 2 / 3 });
    expect(namingField(staff, held, [item('Greenhouse', { code: 'gh' }), item('Shop', { code: 'SH' })], ['code'])).toEqual({
      key: 'works',
      by: 'code',
      share: 2 / 3,
    });
  });
  it('is none where too few texts name an item', () => {
    expect(namingField(staff, held, [item('GH')], [])).toBeUndefined();
    expect(namingField(staff, [], [item('GH')], [])).toBeUndefined();
  });
});
