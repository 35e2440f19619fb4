// A field that only administrators change: whatever way a clerk takes, it stays; what follows from other fields still stands in it.
import { randomUUID } from 'node:crypto';
import { newLayout } from '@dellum/core';
import type { BlockOutcome, EditOutcome, EntryActView, EntryChange, FormView, Problem, RecordView, TakenBack, Why } from '@dellum/contract';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { makeEntrySheet, type Made } from './entrySheet.js';
import { startServer, until, type Running } from './house.js';

let running: Running;
let made: Made;
let at: string;
beforeAll(async () => {
  running = await startServer();
  made = await makeEntrySheet(running, [
    ['Berth', 'text'],
    ['Length', 'number'],
    ['Note', 'text'],
  ]);
  at = `/registers/${made.register.id}`;
  await made.rule('berth', { kind: 'catalog', catalogId: made.berths, brings: [{ companion: 'length', field: 'length' }] } as Parameters<
    Made['rule']
  >[1]);
  expect((await made.rule('length', { kind: 'plain', readOnly: true })).status).toBe(204);
});
afterAll(() => running.close());

const administrator = () => made.house.administrator;
const clerk = () => made.house.clerk;
const edit = async (entry: string, text: string, visitor = clerk()) => {
  const { version } = (await visitor.get<RecordView>(`${at}/records/${entry}`)).entry;
  return (await visitor.call<Problem | EditOutcome>('PATCH', `${at}/entries/${entry}`, { field: 'length', text, version })).body;
};

describe('a field that only administrators change', () => {
  it('is filled by what comes along, changed by an administrator, and by no clerk: cell, new entry, block, form, large act, history', async () => {
    const entry = await made.entry({ berth: 'S1' });
    expect(await made.cells(entry)).toEqual({ berth: 'S1', length: '60' });
    const refused = { code: 'value-refused', verdict: 'read only', detail: 'Only administrators change Length.' };
    expect(await edit(entry, '61')).toMatchObject(refused);
    expect(await edit(entry, '')).toMatchObject(refused);
    // What it holds may be said again.
    expect(await edit(entry, '60')).toMatchObject({ verdict: { verdict: 'taken' } });
    expect(await edit(entry, '75', administrator())).toMatchObject({ verdict: { verdict: 'taken', value: '75' } });

    const fresh = randomUUID();
    const begun = await clerk().call<Problem>('PUT', `${at}/entries/${fresh}`, { field: 'length', text: '9' });
    expect(begun.body).toMatchObject(refused);

    const block = await clerk().call<BlockOutcome>('POST', `${at}/entries/block`, {
      cells: [
        { entry, field: 'length', text: '1' },
        { entry, field: 'note', text: 'seen' },
      ],
    });
    expect(block.body.outcomes.map(({ verdict }) => verdict.verdict)).toEqual(['refused', 'taken']);

    const [last] = (await clerk().get<EntryChange[]>(`${at}/records/${entry}/history`)).filter(({ field }) => field === 'length');
    expect((await clerk().call<Problem>('POST', `${at}/records/${entry}/history/${last!.id}/back`, { field: 'length' })).status).toBe(409);

    const { body: act } = await clerk().call<EntryActView & Problem>('POST', `${at}/entry-acts`, {
      does: 'clear',
      block: { fields: ['length', 'note'], arranged: false },
    });
    await until(async () => (await clerk().get<EntryActView>(`${at}/entry-acts/${act.id}`)).state === 'done');
    expect(await made.cells(entry)).toEqual({ berth: 'S1', length: '75' });

    const why = (visitor = clerk()) => visitor.call<Why>('POST', `/fields/${made.register.fields[1]!.id}/rule/why`, { text: '5', entry });
    expect(JSON.stringify((await why()).body)).toContain('Only administrators change Length.');
    expect(JSON.stringify((await why(administrator())).body)).not.toContain('Only administrators');
  });

  it('goes back with the edit of one’s own that has filled it', async () => {
    const entry = await made.entry({ berth: 'S1' });
    const moved = await made.edit(entry, 'berth', 'N1');
    expect(await made.cells(entry)).toEqual({ berth: 'N1', length: '120' });
    await clerk().call<TakenBack>('POST', `${at}/entries/taken-back`, { cells: moved.body.written });
    expect(await made.cells(entry)).toEqual({ berth: 'S1', length: '60' });
  });

  it('is not asked by a form', async () => {
    const { body } = await administrator().call<{ id: string }>('POST', '/forms', { registerId: made.register.id, title: 'Arrivals' });
    const { title, edition } = await administrator().get<FormView>(`/forms/${body.id}`);
    const layout = newLayout(made.register.fields);
    await administrator().call('PUT', `/forms/${body.id}`, { title, layout, edition });
    const published = await administrator().call<Problem>('POST', `/forms/${body.id}/versions`, {});
    expect(published.body).toMatchObject({
      code: 'form-faulty',
      faults: { length: 'Only administrators change Length, so nobody could answer it. Take it out of the form.' },
    });
  });
});
