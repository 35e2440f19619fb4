// Forms: laid out and published, filled exactly once, judged by the rules of now, and opened by links.
import { randomUUID } from 'node:crypto';
import { newRule, type CatalogRule, type Comparison, type FormField, type FormLayout, type Rule } from '@dellum/core';
import type {
  BuildView,
  CatalogItems,
  EntryPage,
  Filled,
  FillView,
  FormView,
  PackedCatalog,
  Problem,
  RequestGroup,
} from '@dellum/contract';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { judgeCases, tableField } from '../../../packages/core/test/judgeTable.js';
import { makeEntrySheet, type Made } from './entrySheet.js';
import { startServer, Visitor, type Running } from './house.js';

let running: Running;
beforeAll(async () => {
  running = await startServer();
});
afterAll(() => running.close());

const ask = (field: string, over: Partial<FormField> = {}): FormField => ({
  field,
  help: '',
  control: null,
  wide: false,
  begins: null,
  where: null,
  ...over,
});
const layout = (...fields: FormField[]): FormLayout => ({
  intro: '',
  thanks: '',
  sections: [{ id: 'only', heading: '', help: '', columns: 2, where: null, fields }],
});
const where = (field: string, is: Comparison, value = '') => ({ all: true, conditions: [{ field, is, value }] });
const answers = (texts: Readonly<Record<string, string>>) => Object.entries(texts).map(([field, text]) => ({ field, text }));

interface Form {
  readonly made: Made;
  readonly id: string;
  lay(next: FormLayout): Promise<{ status: number; body: Problem & { edition: number } }>;
  publish(): Promise<{ status: number; body: Problem & { version: number } }>;
  fill(texts: Readonly<Record<string, string>>, over?: Record<string, unknown>): Promise<{ status: number; body: Problem & Filled }>;
  entries(): Promise<EntryPage['entries']>;
}

async function makeForm(made: Made, first?: FormLayout): Promise<Form> {
  const { administrator, clerk } = made.house;
  const { body } = await administrator.call<{ id: string }>('POST', '/forms', { registerId: made.register.id, title: 'Waste declaration' });
  const form: Form = {
    made,
    id: body.id,
    async lay(next) {
      const { title, edition } = await administrator.get<FormView>(`/forms/${body.id}`);
      return administrator.call('PUT', `/forms/${body.id}`, { title, layout: next, edition });
    },
    publish: () => administrator.call('POST', `/forms/${body.id}/versions`, {}),
    fill: (texts, over = {}) =>
      clerk.call('POST', `/forms/${body.id}/entries`, { submission: randomUUID(), version: 1, answers: answers(texts), ...over }),
    entries: async () => (await clerk.get<EntryPage>(`/registers/${made.register.id}/entries`)).entries,
  };
  if (first) {
    await form.lay(first);
    await form.publish();
  }
  return form;
}
const quayBerthShip = [
  ['Quay', 'text'],
  ['Berth', 'text'],
  ['Ship', 'number'],
  ['Kind', 'text'],
] as const;
/** A register whose berths stand under their quays and whose kind is waste, oil or other. */
async function wasteSheet(): Promise<Made> {
  const made = await makeEntrySheet(running, quayBerthShip);
  await made.rule('quay', { kind: 'catalog', catalogId: made.berths, level: 0, mayBeBlank: false } as Partial<CatalogRule> & {
    kind: 'catalog';
  });
  await made.rule('berth', { kind: 'catalog', catalogId: made.berths, level: 1, parents: ['quay'] } as Partial<CatalogRule> & {
    kind: 'catalog';
  });
  await made.rule('kind', { kind: 'typed', values: ['waste', 'oil', 'other'] } as Partial<Rule> & { kind: 'typed' });
  return made;
}
const all = layout(ask('quay'), ask('berth'), ask('kind'), ask('ship', { where: where('kind', 'is', 'oil') }));

describe('a layout', () => {
  it('asks all fields at first, parents first; is kept against others, and published only without faults', async () => {
    const made = await wasteSheet();
    const form = await makeForm(made);
    const view = await made.house.administrator.get<FormView>(`/forms/${form.id}`);
    expect(view.layout.sections[0]!.fields.map(({ field }) => field)).toEqual(['quay', 'berth', 'ship', 'kind']);
    expect([view.published, view.edition]).toEqual([null, 1]);
    expect((await form.lay(layout(ask('berth'), ask('quay')))).body.edition).toBe(2);
    const stale = await made.house.administrator.call<Problem>('PUT', `/forms/${form.id}`, { title: 'Other', layout: all, edition: 1 });
    expect([stale.status, stale.body.code]).toEqual([409, 'form-changed']);
    const faulty = await form.publish();
    expect([faulty.status, faulty.body.code, Object.keys(faulty.body.faults!)]).toEqual([422, 'form-faulty', ['berth']]);
    expect((await form.fill({ quay: 'North' })).body.code).toBe('form-closed');
    await form.lay(all);
    expect((await form.publish()).body.version).toBe(1);
    expect((await form.publish()).body.version).toBe(2);
    const build = await made.house.clerk.get<BuildView>('/build');
    expect(build.forms).toEqual([
      { id: form.id, registerId: made.register.id, title: 'Waste declaration', published: 2, fields: ['quay', 'berth', 'kind', 'ship'] },
    ]);
    // A published form settles its controls, so that they stay while lists are coming.
    const fill = await made.house.clerk.get<FillView>(`/forms/${form.id}/filling`);
    expect(fill.layout.sections[0]!.fields.map(({ control }) => control)).toEqual([
      'radio buttons',
      'radio buttons',
      'radio buttons',
      'line',
    ]);
  });

  it('reads values in conditions as their fields store them, and protects the fields that it asks', async () => {
    const made = await wasteSheet();
    const form = await makeForm(made);
    await form.lay(layout(ask('quay'), ask('ship'), ask('kind', { where: where('ship', 'at least', '12.50') })));
    const { layout: kept } = await made.house.administrator.get<FormView>(`/forms/${form.id}`);
    expect(kept.sections[0]!.fields[2]!.where!.conditions[0]!.value).toBe('12.5');
    const ship = made.register.fields.find(({ key }) => key === 'ship')!;
    const removed = await made.house.administrator.call<Problem>('DELETE', `/fields/${ship.id}`);
    expect([removed.status, removed.body.users]).toEqual([409, ['form Waste declaration']]);
    expect((await made.house.administrator.call('DELETE', `/forms/${form.id}`)).status).toBe(204);
    expect((await made.house.administrator.call('DELETE', `/fields/${ship.id}`)).status).toBe(200);
  });
});

describe('filling', () => {
  it('stores an entry once however often it is sent, also at the same moment, and marks it with its form', async () => {
    const form = await makeForm(await wasteSheet(), all);
    const submission = randomUUID();
    const sent = await Promise.all([1, 2, 3].map(() => form.fill({ quay: 'north', berth: 'n1', kind: 'waste' }, { submission })));
    expect(sent.map(({ status, body }) => [status, body.entryId, body.cells])).toEqual(
      sent.map(() => [200, submission, { quay: 'North', berth: 'N1', kind: 'waste' }]),
    );
    expect(sent.filter(({ body }) => body.again)).toHaveLength(2);
    const entries = await form.entries();
    expect(entries).toMatchObject([{ id: submission, form: { id: form.id, version: 1 } }]);
    await form.publish();
    await form.fill({ quay: 'South' }, { version: 2 });
    expect((await form.entries()).map((entry) => entry.form?.version)).toEqual([1, 2]);
    const { versions } = await form.made.house.administrator.get<FormView>(`/forms/${form.id}`);
    expect(versions.map(({ version, filled }) => [version, filled])).toEqual([
      [2, 1],
      [1, 1],
    ]);
  });

  it('stores nothing of a hidden field, and tells every answer that is refused at once', async () => {
    const form = await makeForm(await wasteSheet(), all);
    expect((await form.fill({ quay: 'North', kind: 'waste', ship: 'not a number' })).body.cells).toEqual({ quay: 'North', kind: 'waste' });
    const { status, body } = await form.fill({ berth: 'N1', kind: 'oil', ship: 'wide' });
    expect([status, body.code]).toEqual([422, 'form-refused']);
    expect(body.answers!.map(({ field, code }) => [field, code])).toEqual([
      ['quay', 'blank'],
      ['berth', 'parent blank'],
      ['ship', 'wrong kind'],
    ]);
    expect(await form.entries()).toHaveLength(1);
  });

  it('refuses answers that are not asked, unknown versions, too much text, and forms that were closed', async () => {
    const form = await makeForm(await wasteSheet(), layout(ask('quay'), ask('berth'), ask('kind')));
    expect((await form.fill({ quay: 'North', ship: '5' })).body.faults).toEqual({ ship: 'This form does not ask it.' });
    expect((await form.fill({ quay: 'North' }, { version: 9 })).body.code).toBe('not-found');
    expect((await form.fill({ quay: 'x'.repeat(30_000) })).body.answers).toMatchObject([{ field: 'quay', code: 'length' }]);
    expect((await form.fill({ quay: 'x'.repeat(10_000_000) })).status).toBe(413);
    const twice = await form.made.house.clerk.call<Problem>('POST', `/forms/${form.id}/entries`, {
      submission: randomUUID(),
      version: 1,
      answers: [
        { field: 'quay', text: 'North' },
        { field: 'quay', text: 'South' },
      ],
    });
    expect(twice.body.code).toBe('not-valid');
    expect((await form.made.house.administrator.call('DELETE', `/forms/${form.id}/versions`)).status).toBe(204);
    const closed = await form.fill({ quay: 'North' });
    expect([closed.status, closed.body.code]).toEqual([410, 'form-closed']);
    expect(await form.entries()).toEqual([]);
  });

  it('judges by what holds when it is sent: a value retired meanwhile, a rule and a field that changed', async () => {
    const made = await wasteSheet();
    const form = await makeForm(made, all);
    const { items } = await made.house.administrator.get<CatalogItems>(`/catalogs/${made.berths}/items`);
    expect(items.some(({ value }) => value === 'N1')).toBe(true);
    await made.house.administrator.call('POST', `/catalogs/${made.berths}/items/acts`, { path: ['North'], value: 'N1', act: 'retire' });
    expect((await form.fill({ quay: 'North', berth: 'N1' })).body.answers).toMatchObject([{ field: 'berth', code: 'retired' }]);
    await made.rule('kind', { kind: 'typed', values: ['only this'] } as Partial<Rule> & { kind: 'typed' });
    expect((await form.fill({ quay: 'North', kind: 'waste' })).body.answers).toMatchObject([{ field: 'kind', code: 'outside' }]);
    // Asked by an older version only, the field can go; who still has it on screen is told.
    await form.lay(layout(ask('quay'), ask('kind')));
    await form.publish();
    const berth = made.register.fields.find(({ key }) => key === 'berth')!;
    await made.house.administrator.call('DELETE', `/fields/${berth.id}/rule`);
    expect((await made.house.administrator.call('DELETE', `/fields/${berth.id}`)).status).toBe(200);
    expect((await form.fill({ quay: 'North', berth: 'N2' })).body.code).toBe('form-changed');
    expect((await form.fill({ quay: 'North', berth: '' })).status).toBe(200);
  });

  it('asks for new values, adds them, holds values that must not repeat, and stores what is confirmed', async () => {
    const made = await makeEntrySheet(running, [
      ['Pilot', 'text'],
      ['Number', 'text'],
      ['Tide', 'text'],
      ['Crew', 'several values'],
    ]);
    const list = await made.house.administrator.call<{ id: string }>('POST', '/catalogs', {
      title: 'Crew',
      note: '',
      definition: {
        parts: [{ kind: 'typed', join: 'or', values: ['Mate', 'Cook'] }],
        filter: null,
        distinct: 'value',
        order: { by: 'kept' },
      },
    });
    await made.rule('pilot', { ...newRule('catalog'), catalogId: list.body.id, others: 'request' });
    await made.rule('crew', { ...newRule('catalog'), catalogId: list.body.id, others: 'add' });
    await made.rule('number', { ...newRule('plain'), noRepeats: true });
    await made.rule('tide', { ...newRule('typed'), values: ['ebb', 'flood'], others: 'confirm' } as Rule & { kind: 'typed' });
    const form = await makeForm(made, layout(ask('pilot'), ask('number'), ask('tide'), ask('crew')));
    expect((await form.fill({ pilot: 'Bosun', number: 'A1', crew: 'Cook, Diver' })).status).toBe(200);
    expect((await made.house.administrator.get<RequestGroup[]>('/requests')).map(({ spellings }) => spellings[0]!.value)).toEqual([
      'Bosun',
    ]);
    expect((await made.house.administrator.get<CatalogItems>(`/catalogs/${list.body.id}/items`)).items.map(({ value }) => value)).toEqual([
      'Mate',
      'Cook',
      'Diver',
    ]);
    expect((await form.fill({ number: 'A1' })).body.answers).toMatchObject([{ field: 'number', code: 'repeat' }]);
    const both = await Promise.all([form.fill({ number: 'B1' }), form.fill({ number: 'B1' })]);
    expect(both.map(({ status }) => status).sort()).toEqual([200, 422]);
    expect((await form.fill({ tide: 'slack' })).body.answers).toMatchObject([{ field: 'tide', mayConfirm: true }]);
    expect((await form.fill({}, { answers: [{ field: 'tide', text: 'slack', confirmed: true }] })).body.cells).toEqual({ tide: 'slack' });
  });

  it('gives the verdicts of the judge table', async () => {
    const keys = [...new Set(judgeCases.map(({ field }) => field))];
    const made = await makeEntrySheet(
      running,
      keys.map((key) => [key, tableField(key).field.kind] as const),
    );
    const list = await made.house.administrator.call<{ id: string }>('POST', '/catalogs', {
      title: 'Judged',
      note: '',
      definition: {
        parts: [{ kind: 'typed', join: 'or', values: ['Tam Ossel', 'Bryn Calloway', 'Rook Tansy'] }],
        filter: null,
        distinct: 'value',
        order: { by: 'kept' },
      },
    });
    for (const key of keys) {
      const { rule } = tableField(key).field;
      // What is added would be found by the cases after it.
      if (rule)
        await made.rule(key, {
          ...rule,
          mayBeBlank: true,
          ...(rule.kind === 'catalog' && { catalogId: list.body.id, others: rule.others === 'add' ? 'request' : rule.others }),
        });
    }
    const form = await makeForm(made, layout(...keys.map((key) => ask(key))));
    const wrong: unknown[] = [];
    for (const { field, text, result } of judgeCases) {
      const { rule } = tableField(field).field;
      const blank = text.trim() === '' && rule?.mayBeBlank === false;
      if (blank) continue;
      const { body } = await form.fill({ [field]: text });
      const got = body.answers ? body.answers[0]!.code : body.cells ? `=${body.cells[field] ?? ''}` : body.code;
      if (got !== result) wrong.push([field, text, result, got]);
    }
    expect(wrong).toEqual([]);
  }, 120_000);
});

describe('a link', () => {
  const open = async (form: Form, over: Record<string, unknown> = {}) =>
    (
      await form.made.house.administrator.call<{ id: string; token: string } & Problem>('POST', `/forms/${form.id}/links`, {
        expires: new Date(Date.now() + 86_400_000).toISOString(),
        perHour: 2,
        ...over,
      })
    ).body;
  const stranger = () => new Visitor(running.base);

  it('lets anybody fill the form and nothing else, so often an hour, until it ends', async () => {
    const form = await makeForm(await wasteSheet(), all);
    const { token, id } = await open(form);
    const view = await stranger().get<FillView>(`/open/${token}`);
    expect(view.fields.map(({ key }) => key)).toEqual(['quay', 'berth', 'kind', 'ship']);
    const list = await stranger().get<PackedCatalog>(`/open/${token}/catalogs/${form.made.berths}`);
    expect([list.packed.values, list.packed.companions, list.packed.homes]).toEqual([['North', 'N1', 'N2', 'South', 'S1', 'N2'], {}, []]);
    const others = (await form.made.house.administrator.get<BuildView>('/build')).catalogs.find(
      ({ id: known }) => known !== form.made.berths,
    )!;
    expect((await stranger().call('GET', `/open/${token}/catalogs/${others.id}`)).status).toBe(404);
    const fill = (submission = randomUUID()) =>
      stranger().call<Problem & Filled>('POST', `/open/${token}/entries`, {
        submission,
        version: 1,
        answers: answers({ quay: 'North', kind: 'oil', ship: '12.50' }),
      });
    const first = randomUUID();
    expect((await fill(first)).body.cells).toEqual({ quay: 'North', kind: 'oil', ship: '12.5' });
    expect((await fill()).status).toBe(200);
    expect([(await fill()).body.code, (await fill(first)).body.again]).toEqual(['link-limit', true]);
    expect(await form.entries()).toHaveLength(2);
    expect((await form.made.house.administrator.call('DELETE', `/forms/${form.id}/links/${id}`)).status).toBe(204);
    expect((await stranger().call('GET', `/open/${token}`)).body.code).toBe('form-closed');
    const { links } = await form.made.house.administrator.get<FormView>(`/forms/${form.id}`);
    expect(links).toMatchObject([{ closed: true, filled: 2, perHour: 2 }]);
  });

  it('fills nothing once the entries of its sheet are values of a catalog', async () => {
    const form = await makeForm(await wasteSheet(), layout(ask('quay'), ask('kind')));
    const { token } = await open(form);
    const { administrator } = form.made.house;
    const part = { kind: 'query', join: 'or', registerId: form.made.register.id, value: 'kind', label: null, companions: [], filter: null };
    const made = await administrator.call('POST', '/catalogs', {
      title: 'Kinds met',
      note: '',
      definition: { parts: [part], filter: null, distinct: 'value', order: { by: 'kept' } },
    });
    expect(made.status).toBe(201);
    const { body } = await stranger().call<Problem>('POST', `/open/${token}/entries`, {
      submission: randomUUID(),
      version: 1,
      answers: answers({ quay: 'North', kind: 'oil' }),
    });
    expect([body.code, await form.entries()]).toEqual(['form-closed', []]);
  });

  it('tells of what was stored only what came by it and was asked, and nothing once it is closed', async () => {
    const form = await makeForm(await wasteSheet(), layout(ask('quay'), ask('kind')));
    const [mine, other] = [await open(form), await open(form)];
    const submission = randomUUID();
    const fill = (token: string) =>
      stranger().call<Problem & Filled>('POST', `/open/${token}/entries`, {
        submission,
        version: 1,
        answers: answers({ quay: 'North', kind: 'oil' }),
      });
    expect((await fill(mine.token)).status).toBe(200);
    const { administrator } = form.made.house;
    const [stored] = await form.entries();
    const written = await administrator.call('PATCH', `/registers/${form.made.register.id}/entries/${submission}`, {
      field: 'ship',
      text: '12.50',
      version: stored!.version,
    });
    expect(written.status).toBe(200);
    expect((await fill(mine.token)).body).toMatchObject({ again: true, cells: { quay: 'North', kind: 'oil' } });
    expect(Object.keys((await fill(mine.token)).body.cells)).not.toContain('ship');
    expect((await fill(other.token)).status).toBe(404);
    await administrator.call('DELETE', `/forms/${form.id}/links/${mine.id}`);
    expect((await fill(mine.token)).body.code).toBe('form-closed');
  });

  it('fills no version from before it was made, and counts tries that are refused', async () => {
    const form = await makeForm(await wasteSheet(), all);
    const { administrator } = form.made.house;
    const early = await open(form);
    expect((await administrator.call('POST', `/forms/${form.id}/versions`, {})).status).toBeLessThan(300);
    const late = await open(form);
    const fill = async (token: string, version: number, quay = 'North') =>
      (
        await stranger().call<Problem>('POST', `/open/${token}/entries`, {
          submission: randomUUID(),
          version,
          answers: answers({ quay, kind: 'oil' }),
        })
      ).body.code;
    expect([await fill(early.token, 1), await fill(late.token, 1), await fill(late.token, 2)]).toEqual([
      undefined,
      'form-changed',
      undefined,
    ]);
    const codes = new Set<string>();
    for (let at = 0; at < 70; at++) codes.add(await fill(early.token, 1, 'Nowhere'));
    expect([...codes]).toEqual(['form-refused', 'link-limit']);
  });

  it('is refused when it is not known, over, or would let strangers write values', async () => {
    const form = await makeForm(await wasteSheet(), all);
    expect((await stranger().call('GET', '/open/nothing')).status).toBe(404);
    expect((await open(form, { expires: '2020-01-01T00:00:00Z' })).code).toBe('not-valid');
    expect((await open(form, { expires: 'soon' })).code).toBe('not-valid');
    // A day is one of the house, to its end.
    const { administrator } = form.made.house;
    await administrator.call('PATCH', '/house', { timeZone: 'Pacific/Kiritimati' });
    await open(form, { expires: '2031-03-01' });
    const links = (await administrator.get<FormView>(`/forms/${form.id}`)).links;
    expect(links.map(({ expires }) => expires)).toContain('2031-03-01T09:59:59.000Z');
    const soon = await open(form, { expires: new Date(Date.now() + 1500).toISOString() });
    await expect.poll(async () => (await stranger().call('GET', `/open/${soon.token}`)).body.code, { timeout: 10_000 }).toBe('form-closed');
    expect(
      (await stranger().call('POST', `/open/${soon.token}/entries`, { submission: randomUUID(), version: 1, answers: [] })).body.code,
    ).toBe('form-closed');
    const { token } = await open(form);
    await form.made.house.administrator.call('DELETE', `/forms/${form.id}/versions`);
    expect((await stranger().call('GET', `/open/${token}`)).body.code).toBe('form-closed');
  });
});
