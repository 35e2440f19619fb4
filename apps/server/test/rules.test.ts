// Rules by HTTP: every kind gives the verdict of the core, cascades clear and fill, nothing is held twice.
import type { Rule, Verdict } from '@dellum/core';
import type {
  BlockOutcome,
  BuildView,
  FieldCount,
  HeldIn,
  Problem,
  RuleChange,
  RuleImpact,
  RulesTakenBack,
  RuleTrial,
  Why,
} from '@dellum/contract';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { judgeCases as cases, judgeTable as table } from '../../../packages/core/test/judgeTable.js';
import { chain, makeEntrySheet, quayAndBerth, ruleDto } from './entrySheet.js';
import { entriesOf, openHouse, startServer, type House, type Running } from './house.js';

let running: Running;
beforeAll(async () => {
  running = await startServer();
});
afterAll(() => running.close());

describe('the judge table', () => {
  it('gives by HTTP, as one block and cell by cell, what it gives in the core', async () => {
    const made = await makeEntrySheet(
      running,
      Object.entries(table.fields).map(([key, { kind }]) => [key, kind] as const),
    );
    for (const [key, { rule }] of Object.entries(table.fields))
      if (rule)
        expect([
          key,
          (await made.rule(key, rule.kind === 'catalog' ? { ...rule, catalogId: made.house.catalog.id } : rule)).status,
        ]).toEqual([key, 204]);
    const { body: added } = await made.house.clerk.call<{ entries: string[] }>('POST', `/registers/${made.register.id}/entries`, {
      count: cases.length,
    });
    const { body } = await made.house.clerk.call<BlockOutcome>('POST', `/registers/${made.register.id}/entries/block`, {
      cells: cases.map(({ field, text }, at) => ({ entry: added.entries[at]!, field, text })),
    });
    const resultOf = (verdict: Verdict) => (verdict.verdict === 'refused' ? verdict.code : `=${verdict.value}`);
    expect(body.outcomes.map(({ verdict }, at) => [cases[at]!.field, cases[at]!.text, resultOf(verdict)])).toEqual(
      cases.map(({ field, text, result }) => [field, text, result]),
    );
    // What is stored is what the verdict said.
    const stored = new Map((await entriesOf(made.house.clerk, made.register)).map(({ id, cells }) => [id, cells]));
    expect(cases.map(({ field }, at) => stored.get(added.entries[at]!)![field] ?? '')).toEqual(
      cases.map(({ result }) => (result.startsWith('=') && result.slice(1).trim() !== '' ? result.slice(1) : '')),
    );
    // One case of each field by itself: the same verdict, as a problem where it is refused.
    const entry = await made.entry();
    for (const [field, texts] of Object.entries(table.cases)) {
      for (const [text, result] of Object.entries(texts).slice(-4)) {
        const { status, body: edited } = await made.edit(entry, field, text);
        expect([field, text, status === 200 ? resultOf(edited.verdict) : edited.verdict]).toEqual([field, text, result]);
        await made.edit(entry, field, '');
      }
    }
  });
});

describe('a cascade', () => {
  it('offers what stands under the parent, and clears a choice that no longer fits', async () => {
    const made = await makeEntrySheet(running, quayAndBerth);
    const { quay, berth } = chain(made.berths);
    await made.rule('quay', quay);
    await made.rule('berth', berth);
    const entry = await made.entry();
    expect((await made.edit(entry, 'berth', 'N1')).body).toMatchObject({
      verdict: 'parent blank',
      detail: 'Quay is blank. Choose it first; then its values are offered here.',
    });
    await made.edit(entry, 'quay', 'north');
    expect((await made.edit(entry, 'berth', 'S1')).body).toMatchObject({
      verdict: 'not under parent',
      detail: '“S1” is not under North. Choose a value of this Quay.',
    });
    expect((await made.edit(entry, 'berth', 'n1')).status).toBe(200);
    const moved = await made.edit(entry, 'quay', 'South');
    expect(moved.body.cleared).toEqual([{ field: 'berth', value: 'N1' }]);
    expect(await made.cells(entry)).toEqual({ quay: 'South' });
    // A berth that stands under both quays stays.
    await made.edit(entry, 'berth', 'N2');
    expect((await made.edit(entry, 'quay', 'North')).body.cleared).toEqual([]);
    expect(await made.cells(entry)).toEqual({ quay: 'North', berth: 'N2' });
  });
  it('keeps and marks on demand; what is outside counts at the shallowest level that fails, and is listed', async () => {
    const made = await makeEntrySheet(running, quayAndBerth);
    const { quay, berth } = chain(made.berths, { misfit: 'keep' });
    await made.rule('quay', { ...quay, others: 'confirm' });
    await made.rule('berth', berth);
    const [first, second] = [await made.entry({ quay: 'North', berth: 'N1' }), await made.entry({ quay: 'North', berth: 'N1' })];
    expect((await made.edit(first, 'quay', 'South')).body.kept).toEqual(['berth']);
    expect((await made.edit(second, 'quay', 'Elsewhere')).body).toMatchObject({ verdict: 'outside', mayConfirm: true });
    expect((await made.edit(second, 'quay', 'Elsewhere', { confirmed: true })).body.verdict).toMatchObject({
      verdict: 'marked',
      value: 'Elsewhere',
    });
    const counts = await made.house.clerk.get<FieldCount[]>(`/registers/${made.register.id}/counts`);
    expect(counts.map(({ held, outside }) => [held, outside])).toEqual([
      [2, 1],
      [2, 1],
      [0, 0],
      [0, 0],
    ]);
    const listed = async (key: string) => (await entriesOf(made.house.clerk, made.register, `&outside=${key}`)).map(({ id }) => id);
    expect([await listed('quay'), await listed('berth'), await listed('*')]).toEqual([[second], [first], [first, second]]);
  });
  it('fills upwards where exactly one way leads there, a single choice by itself, and brings companions along', async () => {
    const made = await makeEntrySheet(running, quayAndBerth);
    const { quay, berth } = chain(made.berths, { blankParent: 'all', brings: [{ companion: 'length', field: 'depth' }] });
    await made.rule('quay', quay);
    await made.rule('berth', berth);
    const entry = await made.entry();
    expect((await made.edit(entry, 'berth', 'S1')).body.filled).toEqual([
      { field: 'quay', value: 'South' },
      { field: 'depth', value: '60' },
    ]);
    expect(await made.cells(entry)).toEqual({ quay: 'South', berth: 'S1', depth: '60' });
    const other = await made.entry();
    await made.edit(other, 'berth', 'N2');
    expect(await made.cells(other)).toMatchObject({ berth: 'N2' });
    expect(await made.cells(other)).not.toHaveProperty('quay');
  });
  it('offers only what fits the entry', async () => {
    const made = await makeEntrySheet(running, quayAndBerth);
    await made.rule('berth', {
      kind: 'catalog',
      catalogId: made.berths,
      fitting: [{ companion: 'length', is: 'at least', field: 'ship' }],
    });
    const entry = await made.entry({ ship: '100' });
    expect((await made.edit(entry, 'berth', 'S1')).body).toMatchObject({
      verdict: 'condition',
      detail: 'S1 does not fit: its Length (60) is not at least Ship (100).',
    });
    expect((await made.edit(entry, 'berth', 'N1')).status).toBe(200);
  });
  it('judges a block parents first, and clears outside of it', async () => {
    const made = await makeEntrySheet(running, quayAndBerth);
    const { quay, berth } = chain(made.berths);
    await made.rule('quay', quay);
    await made.rule('berth', berth);
    const [one, two] = [await made.entry({ quay: 'North', berth: 'N1' }), await made.entry({ quay: 'North', berth: 'N1' })];
    const cell = (entry: string, field: string, text: string) => ({ entry, field, text });
    const { body } = await made.house.clerk.call<{ outcomes: { verdict: { verdict: string } }[] }>(
      'POST',
      `/registers/${made.register.id}/entries/block`,
      { cells: [cell(one, 'berth', 'S1'), cell(one, 'quay', 'South'), cell(two, 'quay', 'South')] },
    );
    expect(body.outcomes.map(({ verdict }) => verdict.verdict)).toEqual(['taken', 'taken', 'taken']);
    expect([await made.cells(one), await made.cells(two)]).toEqual([{ quay: 'South', berth: 'S1' }, { quay: 'South' }]);
  });
});

describe('a rule without repeats', () => {
  it.each([
    ['Straße 1', ' STRASSE  1'],
    ['Tam\u00A0Ossel', 'tam ossel'],
    ['co\u00ADop', 'COOP'],
    ['ﬁne', 'Fine'],
    ['ẞ', 'ss'],
    ['Οδος', 'ΟΔΟΣ'],
    ['Café', 'CAFE\u0301'],
  ])('takes %j for %j written differently, typed or pasted', async (first, second) => {
    const made = await makeEntrySheet(running, [['Code', 'text']]);
    await made.rule('code', { kind: 'plain', noRepeats: true });
    const [one, other] = [await made.entry({ code: first }), await made.entry()];
    expect((await made.edit(other, 'code', second)).body).toMatchObject({ code: 'value-refused', verdict: 'repeat' });
    const { body } = await made.house.clerk.call<BlockOutcome>('POST', `/registers/${made.register.id}/entries/block`, {
      cells: [{ entry: other, field: 'code', text: second }],
    });
    expect(body.outcomes[0]!.verdict).toMatchObject({ verdict: 'refused', code: 'repeat' });
    // The entry itself may write its value otherwise.
    expect((await made.edit(one, 'code', second)).status).toBe(200);
  });
  it('holds against two at once, in a block, and lets an entry keep what it has', async () => {
    const made = await makeEntrySheet(running, [['Code', 'text']]);
    await made.rule('code', { kind: 'plain', noRepeats: true });
    const entries = await Promise.all(Array.from({ length: 4 }, () => made.entry()));
    const tries = await Promise.all(
      entries.map((entry) =>
        made.house.clerk.call<Problem>('PATCH', `/registers/${made.register.id}/entries/${entry}`, {
          field: 'code',
          text: 'A1',
          version: 1,
        }),
      ),
    );
    expect(tries.map(({ status }) => status).sort()).toEqual([200, 422, 422, 422]);
    expect(tries.find(({ status }) => status === 422)!.body).toMatchObject({
      verdict: 'repeat',
      detail: 'Another entry holds “A1” already; Code has no repeats.',
    });
    const { body } = await made.house.clerk.call<{ outcomes: { verdict: { verdict: string } }[] }>(
      'POST',
      `/registers/${made.register.id}/entries/block`,
      { cells: entries.map((entry, at) => ({ entry, field: 'code', text: ['B1', 'B1', 'A1', 'C1'][at]! })) },
    );
    const texts = await Promise.all(entries.map(async (entry) => (await made.cells(entry))['code']));
    expect(body.outcomes.filter(({ verdict }) => verdict.verdict === 'refused').length).toBeGreaterThanOrEqual(1);
    expect(new Set(texts.filter(Boolean)).size).toBe(texts.filter(Boolean).length);
  });
  it('holds against blocks that are pasted at the same time', async () => {
    const made = await makeEntrySheet(running, [['Code', 'text']]);
    await made.rule('code', { kind: 'plain', noRepeats: true });
    const { body } = await made.house.clerk.call<{ entries: string[] }>('POST', `/registers/${made.register.id}/entries`, { count: 60 });
    const codes = Array.from({ length: 20 }, (_, at) => `C${at}`);
    // Three blocks of the same codes, each in another order.
    const blocks = [codes, codes.toReversed(), [...codes.slice(7), ...codes.slice(0, 7)]];
    const answers = await Promise.all(
      blocks.map((texts, block) =>
        made.house.clerk.call<BlockOutcome>('POST', `/registers/${made.register.id}/entries/block`, {
          cells: texts.map((text, at) => ({ entry: body.entries[block * 20 + at]!, field: 'code', text })),
        }),
      ),
    );
    expect(answers.map(({ status }) => status)).toEqual([200, 200, 200]);
    const held = (await entriesOf(made.house.clerk, made.register)).flatMap(({ cells }) => cells['code'] ?? []);
    expect(held.sort()).toEqual(codes.toSorted());
    expect(answers.flatMap(({ body: { outcomes } }) => outcomes.filter(({ verdict }) => verdict.verdict === 'refused')).length).toBe(40);
  });
});

describe('a block', () => {
  it('is judged in the order in which fields read one another, whichever stands left', async () => {
    const made = await makeEntrySheet(running, [
      ['Departure', 'date'],
      ['Arrival', 'date'],
    ]);
    await made.rule('departure', { kind: 'date', from: { of: 'field', field: 'arrival', plus: 0 }, until: null });
    const [one, other] = [await made.entry({ arrival: '1.11.2026', departure: '2.11.2026' }), await made.entry()];
    const { body } = await made.house.clerk.call<BlockOutcome>('POST', `/registers/${made.register.id}/entries/block`, {
      cells: [
        { entry: one, field: 'departure', text: '6.11.2026' },
        { entry: one, field: 'arrival', text: '5.11.2026' },
        { entry: other, field: 'departure', text: '4.11.2026' },
        { entry: other, field: 'arrival', text: '5.11.2026' },
      ],
    });
    expect(body.outcomes.map(({ verdict }) => verdict.verdict)).toEqual(['taken', 'taken', 'refused', 'taken']);
    expect([await made.cells(one), await made.cells(other)]).toEqual([
      { arrival: '2026-11-05', departure: '2026-11-06' },
      { arrival: '2026-11-05' },
    ]);
  });
});

describe('a rule', () => {
  it('keeps the fields that it depends on from being deleted', async () => {
    const made = await makeEntrySheet(running, quayAndBerth);
    const { quay, berth } = chain(made.berths, { brings: [{ companion: 'length', field: 'depth' }] });
    await made.rule('quay', quay);
    await made.rule('berth', berth);
    const remove = (key: string) =>
      made.house.administrator.call<Problem>('DELETE', `/fields/${made.register.fields.find((field) => field.key === key)!.id}`);
    expect((await remove('depth')).body.users).toEqual(['the rule of Berth, which depends on it']);
    expect((await remove('quay')).body.code).toBe('in-use');
    expect((await remove('ship')).status).toBe(200);
  });
  it('says what a new entry begins with', async () => {
    const made = await makeEntrySheet(running, [
      ['Day', 'date'],
      ['Shift', 'text'],
      ['State', 'text'],
    ]);
    await made.rule('day', { kind: 'plain', begins: { with: 'today', value: '' } });
    await made.rule('shift', { kind: 'plain', begins: { with: 'above', value: '' } });
    await made.rule('state', { kind: 'typed', values: ['open', 'closed'], begins: { with: 'value', value: 'open' } });
    const first = await made.entry({ shift: 'night' });
    const second = await made.entry();
    const today = new Date().toISOString().slice(0, 10);
    expect([await made.cells(first), await made.cells(second)]).toEqual([
      { day: today, shift: 'night', state: 'open' },
      { day: today, shift: 'night', state: 'open' },
    ]);
    const counts = await made.house.clerk.get<FieldCount[]>(`/registers/${made.register.id}/counts`);
    expect(counts.map(({ held }) => held)).toEqual([2, 2, 2]);
  });
  it('holds only where its condition is met', async () => {
    const made = await makeEntrySheet(running, [
      ['State', 'text'],
      ['Left', 'date'],
    ]);
    await made.rule('left', {
      kind: 'date',
      from: { of: 'today', plus: 0 },
      where: { all: true, conditions: [{ field: 'state', is: 'is', value: 'open' }] },
    });
    const entry = await made.entry({ state: 'open' });
    expect((await made.edit(entry, 'left', 'yesterday')).body).toMatchObject({ verdict: 'too early' });
    await made.edit(entry, 'state', 'closed');
    expect((await made.edit(entry, 'left', 'yesterday')).status).toBe(200);
  });
  it('says while it is written what can never be met, and is not set when it cannot be read', async () => {
    const made = await makeEntrySheet(running, [
      ['Day', 'date'],
      ['Amount', 'number'],
      ['Code', 'text'],
      ['Other', 'text'],
    ]);
    const field = (key: string) => made.register.fields.find((known) => known.key === key)!.id;
    const faults = async (key: string, rule: Partial<Rule> & { kind: Rule['kind'] }) =>
      (await made.house.administrator.call<RuleTrial & Problem>('POST', `/fields/${field(key)}/rule/trial`, ruleDto(rule))).body.faults;
    const bound = (day: string) => ({ of: 'day', day }) as const;
    expect(await faults('day', { kind: 'date', from: bound('2026-12-01'), until: bound('2026-11-01') })).toMatchObject([
      { part: 'bounds' },
    ]);
    expect(
      await faults('amount', { kind: 'number', least: { of: 'number', number: '5' }, most: { of: 'number', number: '4' } }),
    ).toMatchObject([{ part: 'bounds', message: 'The least is more than the most, so no number can be entered.' }]);
    expect(await faults('code', { kind: 'typed', values: [] })).toMatchObject([{ part: 'values' }]);
    expect(await faults('code', { kind: 'catalog', catalogId: made.berths, level: 1, parents: ['other'] })).toMatchObject([
      { part: 'parents' },
    ]);
    expect(await faults('code', { kind: 'length', least: 6, most: 6, begins: { with: 'value', value: 'abc' } })).toMatchObject([
      { part: 'begins' },
    ]);
    expect(await faults('code', { kind: 'pattern', pattern: '([A-Z' })).toMatchObject([{ part: 'pattern' }]);
    const refused = await made.rule('code', { kind: 'pattern', pattern: '([A-Z' });
    expect([refused.status, refused.body.code]).toEqual([422, 'not-valid']);
    expect((await made.rule('day', { kind: 'length', least: 1, most: 2 })).status).toBe(422);
    expect((await made.rule('code', { kind: 'catalog', catalogId: made.berths, level: 1, parents: ['code'] })).body.detail).toContain(
      'cannot depend on itself',
    );
  });
  it('has the members of its own kind and no others, alone and for many fields', async () => {
    const made = await makeEntrySheet(running, [['Code', 'text']]);
    const { id } = made.register.fields[0]!;

    for (const rule of [
      {},
      [],
      { kind: 'nothing' },
      { kind: 'constructor' },
      { ...ruleDto({ kind: 'plain' }), pattern: 'x' },
      { ...ruleDto({ kind: 'length' }), least: { of: 'number', number: '1' } },
      { ...ruleDto({ kind: 'typed' }), values: [null] },
      ruleDto({ kind: 'catalog', catalogId: 'none' }),
    ]) {
      expect((await made.house.administrator.call('PUT', `/fields/${id}/rule`, rule)).status, JSON.stringify(rule)).toBe(422);
      expect((await made.house.administrator.call('PUT', '/bindings', { fields: [id], rule })).status, JSON.stringify(rule)).toBe(422);
    }
    expect((await made.rule('code', { kind: 'length', least: 2, most: 2 })).status).toBe(204);
  });
});

describe('many fields at once', () => {
  it('are bound, given a copied rule and cleared, passing over those it does not fit', async () => {
    const made = await makeEntrySheet(running, [
      ['Quay', 'text'],
      ['Berth', 'text'],
      ['Note', 'text'],
      ['Size', 'number'],
    ]);
    const { quay, berth } = chain(made.berths);
    await made.rule('quay', quay);
    await made.rule('berth', berth);
    await made.entry({ note: 'x', size: '4' });
    const { administrator, clerk } = made.house;
    const id = (key: string) => made.register.fields.find((field) => field.key === key)!.id;
    const rules = async () =>
      (await administrator.get<BuildView>('/build')).sheets
        .flatMap(({ registers }) => registers)
        .find((register) => register.id === made.register.id)!
        .fields.map(({ rule }) => rule?.kind ?? null);
    const length = ruleDto({ kind: 'length', least: 6, most: 6 });
    const tried = await administrator.call<RuleImpact[]>('POST', '/bindings/trial', { fields: [id('note'), id('size')], rule: length });
    expect(tried.body).toMatchObject([
      { held: 1, now: 0, outside: 1 },
      { unfit: 'A field of this kind cannot take a text of a certain length.' },
    ]);
    expect((await administrator.call('PUT', '/bindings', { fields: [id('note'), id('size')], rule: length })).body).toEqual({ set: 1 });
    expect(await rules()).toEqual(['catalog', 'catalog', 'length', null]);
    // Copied is the rule alone; a register without the parent's field is passed over.
    const copied = await administrator.call<RuleImpact[]>('POST', '/bindings/trial', {
      fields: [id('note'), made.house.pilotField.id],
      from: id('berth'),
    });
    expect(copied.body[1]!.unfit).toBe('Visits has no field “quay”, on which the rule depends.');
    const onItself = await administrator.call<RuleImpact[]>('POST', '/bindings/trial', { fields: [id('quay')], from: id('berth') });
    expect(onItself.body[0]!.unfit).toBe('Quay cannot depend on itself.');
    await administrator.call('PUT', '/bindings', { fields: [id('note')], from: id('berth') });
    await administrator.call('PUT', '/bindings', { fields: [id('quay')] });
    expect(await rules()).toEqual([null, 'catalog', 'catalog', null]);
    expect((await administrator.call('PUT', '/bindings', { fields: [id('size')], rule: length })).body).toMatchObject({
      code: 'kind-unfit',
    });
    expect((await administrator.call('PUT', '/bindings', { fields: [made.house.pilots.fields[0]!.id] })).status).toBe(404);
    expect((await clerk.call('GET', '/bindings')).status).toBe(403);
  });
});

describe('why', () => {
  it('is answered to everybody; where a value comes from to administrators alone', async () => {
    const made = await makeEntrySheet(running, quayAndBerth);
    const { quay, berth } = chain(made.berths);
    await made.rule('quay', quay);
    await made.rule('berth', berth);
    const entry = await made.entry({ quay: 'South' });
    const id = made.register.fields.find(({ key }) => key === 'berth')!.id;
    const ask = async (visitor: House['clerk'], text: string) =>
      (await visitor.call<Why>('POST', `/fields/${id}/rule/why`, { text, entry })).body;
    expect((await ask(made.house.administrator, 'S1')).steps.map(({ step }) => step)).toEqual(['rule', 'catalog', 'part']);
    expect((await ask(made.house.reader, 'S1')).steps.map(({ step }) => step)).toEqual(['rule', 'catalog']);
    expect((await ask(made.house.clerk, 'N1')).steps.find(({ passed }) => !passed)).toMatchObject({
      step: 'parent',
      words: 'Berths has it, but not under South.',
    });
    expect((await made.house.clerk.call('POST', `/fields/${id}/rule/why`, { text: 'S1', entry: id })).status).toBe(404);
  });
});

describe('a value', () => {
  it('is found wherever entries hold it, blanks too, and lists just these entries', async () => {
    const house = await openHouse(running, [
      { visit: 'V1', pilot: 'Tam Ossel' },
      { visit: 'V2' },
      { visit: 'Tam Ossel', pilot: 'Tam Ossel' },
    ]);
    const held = await house.reader.get<HeldIn[]>(`/held?value=${encodeURIComponent('Tam Ossel')}`);
    expect(held.map(({ fieldId, entries }) => [house.visits.fields.find(({ id }) => id === fieldId)!.key, entries]).sort()).toEqual([
      ['pilot', 2],
      ['visit', 1],
    ]);
    const listed = async (query: string) => (await entriesOf(house.clerk, house.visits, query)).map(({ cells }) => cells['visit']);
    expect(await listed('&field=pilot&value=Tam%20Ossel')).toEqual(['V1', 'Tam Ossel']);
    expect(await listed('&field=pilot&value=')).toEqual(['V2']);
    expect(await listed('&field=pilot&value=Nobody')).toEqual([]);
    expect((await house.clerk.call('GET', `/registers/${house.visits.id}/entries?field=captain&value=x`)).status).toBe(404);
  });
});

describe('the history of rules', () => {
  it('says who set what, one act for many fields, and takes each back and forth', async () => {
    const made = await makeEntrySheet(running, quayAndBerth);
    const { administrator, clerk } = made.house;
    await made.rule('quay', { kind: 'typed', values: ['North'] });
    const ids = made.register.fields.slice(0, 2).map(({ id }) => id);
    await administrator.call('PUT', '/bindings', { fields: ids, rule: ruleDto({ kind: 'catalog', catalogId: made.berths, level: 0 }) });
    const history = () => administrator.get<RuleChange[]>('/bindings/history');
    const rulesNow = async () =>
      (await administrator.get<BuildView>('/build')).sheets
        .flatMap(({ registers }) => registers)
        .find(({ id }) => id === made.register.id)!
        .fields.slice(0, 2)
        .map(({ rule }) => rule?.kind ?? null);
    expect((await history()).map(({ fields, by, standing }) => [fields.length, by, standing])).toEqual([
      [2, 'The administrator', true],
      [1, 'The administrator', false],
    ]);
    const [both] = await history();
    expect((await administrator.call<RulesTakenBack>('POST', '/bindings/taken-back', { change: both!.id })).body).toEqual({
      set: 2,
      changed: 0,
    });
    expect(await rulesNow()).toEqual(['typed', null]);
    // Taking back is an act of its own and is taken back in turn; a field that was changed since is passed over.
    await made.rule('berth', { kind: 'plain', hint: 'x' });
    const [, back] = await history();
    expect((await administrator.call<RulesTakenBack>('POST', '/bindings/taken-back', { change: back!.id })).body).toEqual({
      set: 1,
      changed: 1,
    });
    expect(await rulesNow()).toEqual(['catalog', 'plain']);
    expect((await administrator.get<RuleChange[]>(`/bindings/history?field=${ids[1]!}`)).length).toBe(3);
    expect((await administrator.call<Problem>('POST', '/bindings/taken-back', { change: 999_999_999 })).body.code).toBe('not-found');
    expect((await clerk.call('GET', '/bindings/history')).status).toBe(403);
  });
  it('takes an expression over the entry, and refuses one that cannot be read', async () => {
    const made = await makeEntrySheet(running, quayAndBerth);
    expect((await made.rule('depth', { kind: 'expression', expression: 'value <= entry.ship / 2', message: 'Too deep.' })).status).toBe(
      204,
    );
    const entry = await made.entry({ ship: '100' });
    expect((await made.edit(entry, 'depth', '51')).body).toMatchObject({ verdict: 'condition', detail: 'Too deep.' });
    expect((await made.edit(entry, 'depth', '50')).status).toBe(200);
    await made.edit(entry, 'ship', '80');
    const [, , , depth] = await made.house.clerk.get<FieldCount[]>(`/registers/${made.register.id}/counts`);
    expect(depth).toMatchObject({ held: 1, outside: 1 });
    for (const expression of ['value >', 'value < entry.nowhere', ''])
      expect((await made.rule('depth', { kind: 'expression', expression })).body.code).toBe('not-valid');
  });
});

describe('binding as a chain', () => {
  it('ties several fields to the levels of a catalog in one act, and says where a chain would break', async () => {
    const made = await makeEntrySheet(running, [
      ['Quay', 'text'],
      ['Berth', 'text'],
      ['Bollard', 'text'],
    ]);
    const { administrator } = made.house;
    const ids = made.register.fields.map(({ id }) => id);
    const chained = async (fields: readonly string[]) =>
      administrator.call<Problem & { set: number }>('PUT', '/bindings', { fields, chain: made.berths });
    expect((await chained(ids)).body).toMatchObject({
      code: 'kind-unfit',
      detail: 'The chain breaks at Bollard: Berths has 2 levels only.',
    });
    expect((await chained(ids.slice(0, 1))).body.code).toBe('not-valid');
    const trial = await administrator.call<RuleImpact[]>('POST', '/bindings/trial', { fields: ids.slice(0, 2), chain: made.berths });
    expect(trial.body.map(({ unfit }) => unfit)).toEqual([undefined, undefined]);
    expect((await chained(ids.slice(0, 2))).body.set).toBe(2);
    const entry = await made.entry({ quay: 'North' });
    expect((await made.edit(entry, 'berth', 'S1')).body).toMatchObject({ verdict: 'not under parent' });
    expect((await made.edit(entry, 'berth', 'n1')).status).toBe(200);
    expect((await made.edit(entry, 'quay', 'South')).body.cleared).toEqual([{ field: 'berth', value: 'N1' }]);
  });
});
