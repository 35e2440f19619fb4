// How a house writes, who may enter it, and what its fields hold: changed by administrators, with nothing stored changed by it.
import { newRule, type Rule } from '@dellum/core';
import type { BuildView, KindTrial, Me, Person, Problem, SessionView } from '@dellum/contract';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { makeEntrySheet } from './entrySheet.js';
import { entriesOf, openHouse, startServer, Visitor, type Running } from './house.js';

let running: Running;
beforeAll(async () => {
  running = await startServer();
});
afterAll(() => running.close());

describe('how a house writes', () => {
  it('is changed by administrators; texts are read by it from then on, and nothing stored changes', async () => {
    const made = await makeEntrySheet(running, [
      ['Load', 'number'],
      ['Day', 'date'],
    ]);
    const { administrator, clerk } = made.house;
    const entry = await made.entry({ load: '1.5', day: '3.4.2026' });
    const change = (body: object, visitor = administrator) => visitor.call<Problem>('PATCH', '/house', body);
    expect(
      (
        await change({
          language: 'de',
          decimalMark: ',',
          dateOrder: 'mdy',
          currency: 'CHF',
          timeZone: 'Pacific/Kiritimati',
          firstDay: 0,
          name: ' Marl  Lane ',
        })
      ).status,
    ).toBe(204);
    // What is not said stays.
    expect((await change({ listMark: ';' })).status).toBe(204);
    const me = await clerk.get<Me>('/session');
    expect(me.house).toMatchObject({
      name: 'Marl Lane',
      locale: { language: 'de', decimalMark: ',', dateOrder: 'mdy', currency: 'CHF', firstDay: 0 },
    });
    expect(me.house.today).toBe(new Intl.DateTimeFormat('sv', { timeZone: 'Pacific/Kiritimati' }).format(new Date()));
    expect(await made.cells(entry)).toEqual({ load: '1.5', day: '2026-04-03' });
    await made.edit(entry, 'load', '2,25');
    await made.edit(entry, 'day', '4/3/2026');
    expect(await made.cells(entry)).toEqual({ load: '2.25', day: '2026-04-03' });
    expect((await change({ name: 'x' }, clerk)).status).toBe(403);
  });
  it.each([
    [{ language: 'x' }, 'language'],
    [{ language: 'zz-ZZ' }, 'language'],
    [{ currency: 'ZZZ' }, 'currency'],
    [{ currency: 'eur' }, 'currency'],
    [{ timeZone: 'Nowhere/At all' }, 'timeZone'],
    [{ dateOrder: 'dym' }, 'dateOrder'],
    [{ decimalMark: '·' }, 'decimalMark'],
    [{ firstDay: 7 }, 'firstDay'],
    [{ name: ' \u200B ' }, 'name'],
  ])('refuses %j', async (body, part) => {
    const house = await openHouse(running, []);
    const { status, body: problem } = await house.administrator.call<Problem>('PATCH', '/house', body);
    expect([status, Object.keys(problem.faults ?? {})]).toEqual([422, [part]]);
  });
});

describe('one’s own account', () => {
  it('has a password that whoever knows it changes; other browsers are signed out', async () => {
    const house = await openHouse(running, []);
    const elsewhere = new Visitor(running.base, { house: house.key, role: 'clerk' });
    await elsewhere.get('/session');
    await house.clerk.get('/session');
    const change = (current: string, password: string) => house.clerk.call<Problem>('PUT', '/session/password', { current, password });
    expect((await change('not this one', 'another-long-one')).body).toMatchObject({
      status: 422,
      faults: { current: expect.any(String) as string },
    });
    expect((await change('correct-horse-1', 'short')).status).toBe(422);
    expect((await change('correct-horse-1', 'another-long-one')).status).toBe(204);
    const sessions = await house.clerk.get<SessionView[]>('/session/all');
    expect(sessions.map(({ here }) => here)).toEqual([true]);
    expect((await elsewhere.call('GET', '/session')).status).toBe(401);
    expect(
      (await new Visitor(running.base).call('POST', '/session', { house: house.key, signIn: 'clerk', password: 'correct-horse-1' })).status,
    ).toBe(401);
    expect(
      (await new Visitor(running.base).call('POST', '/session', { house: house.key, signIn: 'clerk', password: 'another-long-one' }))
        .status,
    ).toBe(204);
  });
  it('is closed to whoever is put out, and open again when let in; entries and names stay', async () => {
    const house = await openHouse(running, [{ visit: 'V1' }]);
    const people = await house.administrator.get<Person[]>('/people');
    const id = (role: string) => people.find((person) => person.role === role)!.id;
    const admit = (role: string, admitted: boolean, visitor = house.administrator) =>
      visitor.call<Problem>('PUT', `/people/${id(role)}/admitted`, { admitted });
    await house.clerk.get('/session');
    expect((await admit('clerk', false)).status).toBe(204);
    expect((await house.clerk.call('GET', '/session')).status).toBe(401);
    expect(
      (
        await new Visitor(running.base).call<Problem>('POST', '/session', {
          house: house.key,
          signIn: 'clerk',
          password: 'correct-horse-1',
        })
      ).body.detail,
    ).toContain('not let into this house');
    expect((await house.administrator.get<Person[]>('/people')).find((person) => person.role === 'clerk')!.outSince).not.toBeNull();
    expect((await admit('administrator', false)).body.code).toBe('last-administrator');
    expect((await admit('steward', false, house.reader)).status).toBe(403);
    expect((await admit('clerk', true)).status).toBe(204);
    expect((await new Visitor(running.base, { house: house.key, role: 'clerk' }).call('GET', '/session')).status).toBe(200);
    expect(await entriesOf(house.administrator, house.visits)).toHaveLength(1);
  });
});

describe('the kind of a field', () => {
  it('is changed with its impact first: what can be read is read anew, the rest stays and is outside', async () => {
    const made = await makeEntrySheet(running, [['Rate', 'text']]);
    const { administrator, clerk } = made.house;
    const texts = ['5 %', '12.5%', '5 %', 'about half'];
    const entries: string[] = [];
    for (const text of texts) entries.push(await made.entry({ rate: text }));
    const { id } = made.register.fields[0]!;
    const trial = await administrator.call<KindTrial>('POST', `/fields/${id}/kind/trial`, { kind: 'percent' });
    expect(trial.body).toEqual({ held: 4, unread: 1, examples: [{ value: 'about half', entries: 1 }] });
    expect((await administrator.call('PUT', `/fields/${id}/kind`, { kind: 'percent' })).status).toBe(204);
    expect(await Promise.all(entries.map(made.cells))).toEqual([
      { rate: '0.05' },
      { rate: '0.125' },
      { rate: '0.05' },
      { rate: 'about half' },
    ]);
    expect(await clerk.get(`/registers/${made.register.id}/counts`)).toMatchObject([{ held: 4, outside: 1 }]);
    // Back again it shows what it showed.
    await administrator.call('PUT', `/fields/${id}/kind`, { kind: 'text' });
    expect(await made.cells(entries[0]!)).toEqual({ rate: '5 %' });
    expect((await clerk.call('PUT', `/fields/${id}/kind`, { kind: 'text' })).status).toBe(403);
    await made.rule('rate', { kind: 'length', least: 1, most: 9 } as Partial<Rule> & { kind: 'length' });
    expect((await administrator.call<Problem>('PUT', `/fields/${id}/kind`, { kind: 'number' })).body.code).toBe('kind-unfit');
  });
  it('of a list that feeds a catalog stays, since entries may hold its values', async () => {
    const house = await openHouse(running, []);
    const { status, body } = await house.administrator.call<Problem>('PUT', `/fields/${house.pilots.fields[0]!.id}/kind`, {
      kind: 'number',
    });
    expect([status, body.code]).toEqual([409, 'in-use']);
  });
});

describe('a new list for a field', () => {
  it('is made with its range and its catalog, holds the kind of the field, and is offered at once', async () => {
    const made = await makeEntrySheet(running, [['Rate', 'percent']]);
    const { administrator } = made.house;
    const { id } = made.register.fields[0]!;
    const list = (values: string[], title?: string) =>
      administrator.call<{ catalogId: string } & Problem>('POST', `/fields/${id}/rule/list`, { values, ...(title && { title }) });
    // A list holds values as they are stored, never texts as they are typed.
    expect((await list(['5 %'])).body.faults).toMatchObject({ values: expect.any(String) as string });
    expect((await list([])).status).toBe(422);
    expect((await list(['0.05'], 'Pilots')).body.code).toBe('name-taken');
    const { body } = await list(['0.05', '0.125', '0.05']);
    const build = await administrator.get<BuildView>('/build');
    const field = build.sheets.flatMap(({ registers }) => registers).find((register) => register.id === made.register.id)!.fields[0]!;
    expect(field.rule).toMatchObject({ ...newRule('catalog'), catalogId: body.catalogId });
    const register = build.sheets
      .find(({ title }) => title === 'Lists' && build.ranges.some(({ name }) => name === 'Rate'))!
      .registers.find(({ title }) => title === 'Rate')!;
    expect([register.fields[0]!.kind, (await entriesOf(administrator, register)).map(({ cells }) => cells['value'])]).toEqual([
      'percent',
      ['0.05', '0.125'],
    ]);
    const entry = await made.entry({ rate: '12.5' });
    expect(await made.cells(entry)).toEqual({ rate: '0.125' });
    expect((await made.edit(entry, 'rate', '1')).status).toBe(422);
  });
});
