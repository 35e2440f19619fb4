// An entry sheet with fields of the wanted kinds, and a catalog of berths under their quays to bind them to.
import { newRule, type CatalogRule, type Rule } from '@dellum/core';
import type { BuildView, EditOutcome, EntryPage, FieldView, Problem, RegisterView } from '@dellum/contract';
import { entriesOf, openHouse, type House, type Running } from './house.js';

/** A rule as it is sent, everything not named being as in a new one. */
export const ruleDto = (rule: Partial<Rule> & { kind: Rule['kind'] }) => ({ ...newRule(rule.kind), ...rule });

export interface Made {
  readonly house: House;
  readonly register: RegisterView;
  readonly berths: string;
  rule(key: string, rule: Partial<Rule> & { kind: Rule['kind'] }): Promise<{ status: number; body: Problem }>;
  entry(cells?: Readonly<Record<string, string>>): Promise<string>;
  edit(
    entry: string,
    field: string,
    text: string,
    more?: Record<string, unknown>,
  ): Promise<{ status: number; body: EditOutcome & Problem }>;
  cells(entry: string): Promise<Readonly<Record<string, string>>>;
}

/** A sheet of fields of all kinds, and a catalog of berths under their quays. */
export async function makeEntrySheet(running: Running, fields: readonly (readonly [heading: string, kind: string])[]): Promise<Made> {
  const house = await openHouse(running, []);
  const { administrator, clerk } = house;
  const table = await administrator.call<{ id: string }>('POST', '/tables', {
    sheetId: house.pilots.sheetId,
    heading: 'Berths',
    fields: ['Quay', 'Berth', 'Length', 'From'].map((heading, at) => ({ heading, kind: ['text', 'text', 'number', 'date'][at] })),
  });
  const rows = [
    ['North', 'N1', '120', ''],
    ['North', 'N2', '80', ''],
    ['South', 'S1', '60', '2026-01-01'],
    ['South', 'N2', '40', ''],
  ];
  await administrator.call('POST', `/registers/${table.body.id}/acts`, {
    acts: [{ act: 'insert', fields: ['quay', 'berth', 'length', 'from'], rows }],
  });
  const entries = await administrator.get<EntryPage>(`/registers/${table.body.id}/entries`);
  await administrator.call('POST', '/ranges', {
    name: 'Berths',
    shape: 'levels',
    inherits: false,
    ends: 'last',
    place: { registerIds: [table.body.id], fields: ['quay', 'berth'], entries: [entries.entries[0]!.id] },
  });
  const range = (await administrator.get<BuildView>('/build')).ranges.find(({ name }) => name === 'Berths')!;
  const definition = {
    parts: [{ kind: 'range', join: 'or', rangeId: range.id, label: null, companions: ['length'] }],
    filter: null,
    distinct: 'value',
    order: { by: 'kept' },
  };
  const catalog = await administrator.call<{ id: string }>('POST', '/catalogs', { title: 'Berths', note: '', definition });
  const sheet = await administrator.call<{ id: string }>('POST', '/sheets', { kind: 'entry', title: 'Log' });
  const registerOf = async () =>
    (await administrator.get<BuildView>('/build')).sheets.find(({ id }) => id === sheet.body.id)!.registers[0]!;
  const { id } = await registerOf();
  for (const [heading, kind] of fields) await administrator.call('POST', `/registers/${id}/fields`, { heading, kind });
  const register = await registerOf();
  const field = (key: string): FieldView => register.fields.find((known) => known.key === key)!;
  const edit: Made['edit'] = async (entry, key, text, more = {}) => {
    const version = (await entriesOf(clerk, register)).find((known) => known.id === entry)!.version;
    return clerk.call<EditOutcome & Problem>('PATCH', `/registers/${id}/entries/${entry}`, { field: key, text, version, ...more });
  };
  return {
    house,
    register,
    berths: catalog.body.id,
    edit,
    rule: (key, rule) => administrator.call('PUT', `/fields/${field(key).id}/rule`, ruleDto(rule)),
    async entry(cells = {}) {
      const { body } = await clerk.call<{ entries: string[] }>('POST', `/registers/${id}/entries`, { count: 1 });
      for (const [key, text] of Object.entries(cells)) await edit(body.entries[0]!, key, text);
      return body.entries[0]!;
    },
    cells: async (entry) => (await entriesOf(clerk, register)).find((known) => known.id === entry)!.cells,
  };
}

/** Quay and berth bound to the two levels of the catalog. */
export const chain = (
  berths: string,
  over: Partial<CatalogRule> = {},
): { quay: Partial<CatalogRule> & { kind: 'catalog' }; berth: Partial<CatalogRule> & { kind: 'catalog' } } => ({
  quay: { kind: 'catalog', catalogId: berths, level: 0 },
  berth: { kind: 'catalog', catalogId: berths, level: 1, parents: ['quay'], ...over },
});
export const quayAndBerth = [
  ['Quay', 'text'],
  ['Berth', 'text'],
  ['Ship', 'number'],
  ['Depth', 'number'],
] as const;
