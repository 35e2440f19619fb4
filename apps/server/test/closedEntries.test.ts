// Closed entries: whatever way a clerk takes, nothing of one is changed or deleted; administrators and corrections still reach it.
import type {
  BlockOutcome,
  BuildView,
  ClosingTrial,
  EditOutcome,
  EntryActView,
  EntryChange,
  KindTrial,
  Outcome,
  Problem,
  RecordView,
  TakenBack,
  Why,
} from '@dellum/contract';
import { sql } from 'kysely';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { makeEntrySheet, type Made } from './entrySheet.js';
import { startServer, until, type Running, type Visitor } from './house.js';

let running: Running;
let made: Made;
let at: string;
beforeAll(async () => {
  running = await startServer();
  made = await makeEntrySheet(running, [
    ['Ship', 'text'],
    ['Status', 'text'],
    ['Day', 'date'],
  ]);
  at = `/registers/${made.register.id}`;
});
afterAll(() => running.close());

const departed = { where: { all: true, conditions: [{ field: 'status', is: 'is', value: 'Departed' }] }, after: null };
const close = (closing: object, visitor: Visitor = made.house.administrator) => visitor.call<Problem>('PUT', `${at}/closing`, closing);
const edit = async (entry: string, field: string, text: string, visitor = made.house.clerk) => {
  const { version } = (await visitor.get<RecordView>(`${at}/records/${entry}`)).entry;
  return visitor.call<Problem & EditOutcome>('PATCH', `${at}/entries/${entry}`, { field, text, version });
};
/** As if the last change of all entries had been made longer ago. The ledger itself is never changed but here. */
const later = (minutes: number) =>
  sql`update ledger set at = at - ${minutes} * interval '1 minute' where register_id = ${made.register.id}`.execute(
    running.database.kysely,
  );
const entryWith = async (cells: Readonly<Record<string, string>>) => {
  const entry = await made.entry(cells);
  await later(16);
  return entry;
};

describe('a closed entry', () => {
  it('is changed, filled, deleted and taken back by no clerk, in whatever way', async () => {
    expect((await close(departed)).status).toBe(204);
    const { clerk, administrator } = made.house;
    const entry = await entryWith({ ship: 'Loam', status: 'Departed' });
    const open = await entryWith({ ship: 'Plover', status: 'Expected' });
    const words = 'This entry is closed, since Status is “Departed”. Only administrators change it now.';

    expect((await edit(entry, 'ship', 'Umber')).body).toMatchObject({ code: 'value-refused', verdict: 'closed', detail: words });
    // What it holds may be said again.
    expect((await edit(entry, 'ship', 'Loam')).body).toMatchObject({ verdict: { verdict: 'taken' } });
    expect((await clerk.call<Problem>('PUT', `${at}/entries/${entry}`, { field: 'ship', text: 'Umber' })).body.code).toBe('value-refused');
    const cells = [entry, open].map((id) => ({ entry: id, field: 'ship', text: 'Umber' }));
    const block = await clerk.call<BlockOutcome>('POST', `${at}/entries/block`, { cells });
    expect(block.body.outcomes.map(({ verdict }) => verdict.verdict)).toEqual(['refused', 'taken']);

    const gone = await clerk.call<Problem>('POST', `${at}/entries/delete`, { entries: [entry, open] });
    expect([gone.status, gone.body.code]).toEqual([409, 'entry-closed']);
    expect(gone.body.detail).toContain('One of 2 chosen entries cannot be changed');
    for (const what of [
      { does: 'clear', block: { fields: ['ship'], arranged: false } },
      { does: 'delete', block: { fields: [], first: entry, last: entry, arranged: false } },
    ]) {
      const { body } = await clerk.call<EntryActView>('POST', `${at}/entry-acts`, what);
      await until(async () => (await clerk.get<EntryActView>(`${at}/entry-acts/${body.id}`)).state === 'done');
    }
    const [last] = (await clerk.get<EntryChange[]>(`${at}/records/${entry}/history`)).filter(({ field }) => field === 'status');
    expect((await clerk.call<Problem>('POST', `${at}/records/${entry}/history/${last!.id}/back`, { field: 'status' })).body.code).toBe(
      'entry-closed',
    );
    expect(await made.cells(entry)).toEqual({ ship: 'Loam', status: 'Departed' });
    expect(await made.cells(open)).toEqual({ status: 'Expected' });

    const why = await clerk.call<Why>('POST', `/fields/${made.register.fields[0]!.id}/rule/why`, { text: 'Umber', entry });
    expect(why.body.offered).toBe(false);
    expect(why.body.steps.map(({ words: said }) => said)).toContain(words);
    expect((await edit(entry, 'ship', 'Umber', administrator)).status).toBe(200);
    expect((await administrator.call('POST', `${at}/entries/delete`, { entries: [entry] })).status).toBe(200);
  });

  it('may be put right for a while by whoever changed it last, and by nobody else', async () => {
    await close(departed);
    const { clerk, administrator } = made.house;
    const entry = await made.entry({ ship: 'Loam', status: 'Expected' });
    // A slip of the hand, the rest of the row typed after it, and the slip taken back.
    const slip = await edit(entry, 'status', 'Departed');
    expect((await edit(entry, 'day', '29.11.2026')).status).toBe(200);
    const back = { cells: slip.body.written };
    expect((await clerk.call<TakenBack>('POST', `${at}/entries/taken-back`, back)).body.changed).toBe(0);
    expect(await made.cells(entry)).toEqual({ ship: 'Loam', status: 'Expected', day: '2026-11-29' });

    await edit(entry, 'status', 'Departed');
    await later(16);
    expect((await edit(entry, 'ship', 'Umber')).body.code).toBe('value-refused');
    await edit(entry, 'ship', 'Umber', administrator);
    expect((await edit(entry, 'ship', 'Loam')).body.code).toBe('value-refused');
    const taken = await clerk.call<Problem>('POST', `${at}/entries/taken-back`, { cells: [{ entry, field: 'status', version: 5 }] });
    expect(taken.body.code).toBe('entry-closed');
    expect((await made.cells(entry))['ship']).toBe('Umber');
  });

  it('is closed by the day in a field; how many that are is said before, also to nobody but administrators', async () => {
    const trial = async (closing: object) =>
      (await made.house.administrator.call<ClosingTrial>('POST', `${at}/closing/trial`, closing)).body;
    const before = await trial({ where: null, after: { field: 'day', days: 30 } });
    const [old, recent] = [await entryWith({ day: '1.1.2020' }), await entryWith({ day: '1.1.2999' })];
    const after = await trial({ where: null, after: { field: 'day', days: 30 } });
    expect([after.closed - before.closed, after.entries - before.entries]).toEqual([1, 2]);
    expect(await trial({ where: null, after: null })).toEqual({ ...after, closed: 0 });
    // What holds nothing at all is never closed; what holds something elsewhere is.
    const blank = { where: { all: true, conditions: [{ field: 'ship', is: 'is blank', value: '' }] }, after: null };
    const { closed } = await trial(blank);
    await made.entry({});
    expect(await trial(blank)).toEqual({ closed, entries: after.entries + 1 });
    await made.entry({ status: 'Expected' });
    expect(await trial(blank)).toEqual({ closed: closed + 1, entries: after.entries + 2 });
    await close({ where: null, after: { field: 'day', days: 30 } });
    expect([(await edit(old, 'ship', 'x')).status, (await edit(recent, 'ship', 'x')).status]).toEqual([422, 200]);
    await close({ where: null, after: null });
    expect((await edit(old, 'ship', 'x')).status).toBe(200);
    expect((await close(departed, made.house.clerk)).status).toBe(403);
    expect((await made.house.clerk.call('POST', `${at}/closing/trial`, departed)).status).toBe(403);
  });

  it.each([
    [{ where: null, after: { field: 'status', days: 3 } }, 422, 'kind-unfit'],
    [{ where: null, after: { field: 'nowhere', days: 3 } }, 404, 'not-found'],
    [{ where: null, after: { field: 'day', days: -1 } }, 422, 'not-valid'],
    [{ where: null, after: { field: 'day', days: 1.5 } }, 422, 'not-valid'],
    [{ where: { all: true, conditions: [{ field: 'x', is: 'is', value: '' }] }, after: null }, 404, 'not-found'],
    [{ where: [[]], after: null }, 422, 'not-valid'],
    [{}, 422, 'not-valid'],
  ])('refuses to be said as %j', async (closing, status, code) => {
    const answer = await close(closing);
    expect([answer.status, answer.body.code]).toEqual([status, code]);
  });
  it('holds its fields: they are neither deleted nor made another kind, and source lists have none', async () => {
    await close({ where: null, after: { field: 'day', days: 3 } });
    const day = made.register.fields.find(({ key }) => key === 'day')!;
    const gone = await made.house.administrator.call<Problem>('DELETE', `/fields/${day.id}`);
    expect([gone.body.code, JSON.stringify(gone.body)]).toEqual(['in-use', expect.stringContaining('when entries of Log are closed')]);
    const kind = await made.house.administrator.call<KindTrial & Problem>('PUT', `/fields/${day.id}/kind`, { kind: 'text' });
    expect(kind.body.code).toBe('kind-unfit');
    const list = await made.house.administrator.call<Problem>('PUT', `/registers/${made.house.pilots.id}/closing`, departed);
    expect(list.body.code).toBe('not-found');
    expect(
      (await made.house.clerk.get<BuildView>('/build')).sheets.flatMap(({ registers }) => registers.map(({ closing }) => closing)),
    ).toContainEqual({ where: null, after: { field: 'day', days: 3 } });
    await close({ where: null, after: null });
  });
  it('is reached by a correction of a value, which is decided for all entries', async () => {
    await made.rule('ship', { kind: 'catalog', catalogId: made.house.catalog.id });
    await close(departed);
    const entry = await entryWith({ ship: 'Tam Ossel', status: 'Departed' });
    const { administrator, pilots } = made.house;
    const [first] = (await administrator.get<{ entries: { id: string }[] }>(`/registers/${pilots.id}/entries`)).entries;
    const { body } = await administrator.call<Outcome>('POST', `/registers/${pilots.id}/acts`, {
      acts: [{ act: 'write', cells: [{ entry: first!.id, field: 'value', text: 'Tam Ossell' }] }],
    });
    await administrator.call('POST', `/slips/${body.slip!.id}/answers`, {
      answers: body.slip!.questions.map(({ catalogId, value }) => ({ catalogId, value, answer: 'corrected' })),
    });
    await until(async () => (await made.cells(entry))['ship'] === 'Tam Ossell');
    expect((await edit(entry, 'ship', 'Rook Tansy')).body).toMatchObject({ verdict: 'closed' });
  });
});
