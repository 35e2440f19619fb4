// Files that go out to be filled in and come back, changed by another program (editBook.py, Debian's python3-openpyxl) as somebody would.
import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import type {
  DownloadDto,
  DownloadView,
  EntryActView,
  Problem,
  ReturnedCell,
  ReturnedFileView,
  ReturnedRow,
  ReturnedRows,
  ReturnedShown,
} from '@dellum/contract';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { chain, makeEntrySheet, type Made } from './entrySheet.js';
import { entriesOf, openHouse, startServer, until, type Running, type Visitor } from './house.js';

let running: Running;
const folder = mkdtempSync('/tmp/dellum-returned-');
/** For tests that store nothing. */
let standing: Made & { ids: string[] };
beforeAll(async () => {
  running = await startServer();
  standing = await logbook();
});
afterAll(async () => {
  rmSync(folder, { recursive: true });
  await running.close();
});

const kinds = [
  ['Quay', 'text'],
  ['Berth', 'text'],
  ['Day', 'date'],
  ['Toll', 'amount'],
  ['Note', 'text'],
] as const;

async function logbook(): Promise<Made & { ids: string[] }> {
  const made = await makeEntrySheet(running, kinds);
  const { quay, berth } = chain(made.berths);
  await made.rule('quay', quay);
  await made.rule('berth', berth);
  const rows: readonly Record<string, string>[] = [
    { quay: 'North', berth: 'N1', day: '29/11/2026', toll: '1200.50', note: 'first' },
    { quay: 'North', berth: 'N2', toll: '80', note: 'second' },
    { quay: 'South', berth: 'S1', note: '=1+1' },
  ];
  const ids: string[] = [];
  for (const cells of rows) ids.push(await made.entry(cells));
  return { ...made, ids };
}

async function sentOut(made: Made, over: Partial<DownloadDto> = {}): Promise<Buffer> {
  const { clerk } = made.house;
  const wanted = { format: 'workbook', arranged: false, labels: true, guarded: false, comesBack: true, ...over };
  const begun = await clerk.call<DownloadView & Problem>('POST', `/registers/${made.register.id}/downloads`, wanted);
  expect([begun.status, begun.body.detail]).toEqual([202, undefined]);
  await until(async () => (await clerk.get<DownloadView>(`/downloads/${begun.body.id}`)).state === 'done');
  const response = await fetch(`${running.base}/api/v1/downloads/${begun.body.id}/file`, { headers: { cookie: await clerk.signedIn() } });
  return Buffer.from(await response.arrayBuffer());
}

interface Edits {
  readonly set?: Readonly<Record<string, string | number | null | { readonly day: string }>>;
  readonly append?: readonly (readonly (string | number | null | { readonly day: string })[])[];
  readonly remove?: readonly number[];
  readonly sort?: number;
  readonly swap?: readonly [number, number];
  readonly rename?: Readonly<Record<string, string>>;
  readonly unmark?: true;
  readonly about?: true;
  readonly above?: string;
  readonly mark?: string;
}
function edited(bytes: Buffer, edits: Edits): Buffer {
  const path = join(folder, 'book.xlsx');
  writeFileSync(path, bytes);
  execFileSync('/usr/bin/python3', [join(import.meta.dirname, 'editBook.py'), path, JSON.stringify(edits)]);
  return readFileSync(path);
}

async function bring(
  visitor: Visitor,
  bytes: Buffer,
  name = 'Log.xlsx',
  registerId?: string,
): Promise<{ status: number; body: ReturnedFileView & Problem }> {
  const query = new URLSearchParams({ name, ...(registerId !== undefined && { registerId }) });
  const response = await fetch(`${running.base}/api/v1/returned-files?${query.toString()}`, {
    method: 'POST',
    headers: { cookie: await visitor.signedIn(), 'content-type': 'application/octet-stream' },
    body: new Uint8Array(bytes),
  });
  return { status: response.status, body: (await response.json()) as ReturnedFileView & Problem };
}
const look = (visitor: Visitor, id: number) => visitor.get<ReturnedFileView>(`/returned-files/${id}`);
async function read(visitor: Visitor, id: number): Promise<ReturnedFileView> {
  await until(async () => (await look(visitor, id)).state !== 'reading');
  return look(visitor, id);
}
async function back(made: Made, bytes: Buffer, visitor = made.house.clerk): Promise<ReturnedFileView> {
  const { status, body } = await bring(visitor, bytes);
  expect([status, body.detail]).toEqual([202, undefined]);
  return read(visitor, body.id);
}
const rowsOf = (visitor: Visitor, id: number, show: ReturnedShown) => visitor.get<ReturnedRows>(`/returned-files/${id}/rows?show=${show}`);
const rows = (made: Made, { id }: ReturnedFileView, show: ReturnedShown) => rowsOf(made.house.clerk, id, show);
const brief = ({ field, text, was, shown }: ReturnedCell) => [field, text, was, shown];

async function applied(made: Made, { id }: ReturnedFileView): Promise<EntryActView> {
  const { status, body } = await made.house.clerk.call<ReturnedFileView & Problem>('POST', `/returned-files/${id}/applied`, {});
  expect([status, body.detail]).toEqual([202, undefined]);
  return done(made, body.actId!);
}
async function done(made: Made, actId: number): Promise<EntryActView> {
  const path = `/registers/${made.register.id}/entry-acts/${actId}`;
  await until(async () => (await made.house.clerk.get<EntryActView>(path)).state === 'done');
  return made.house.clerk.get<EntryActView>(path);
}
const cellsNow = async (made: Made) => (await entriesOf(made.house.clerk, made.register)).map(({ cells }) => cells);
const nothing = { cells: 0, rows: 0, asked: 0, askedCame: 0, added: 0, missing: 0, deletes: 0, deleted: 0, refused: [] };

describe('a workbook that comes back', () => {
  it.each(['workbook', 'opendocument'] as const)('as it went out changes nothing: %s', async (format) => {
    const made = standing;
    for (const labels of [true, false]) {
      const file = await back(made, await sentOut(made, { format, labels }));
      expect(file).toMatchObject({ state: 'ready', known: true, registerId: made.register.id, said: [], counts: nothing, done: 3 });
      const refused = await made.house.clerk.call('POST', `/returned-files/${file.id}/applied`, {});
      expect([refused.status, refused.body.code]).toEqual([422, 'no-cells']);
    }
  });

  it('brings what was changed, is stored as one act, and is taken back as one; the same file again changes nothing', async () => {
    const made = await logbook();
    const before = await cellsNow(made);
    const bytes = edited(await sentOut(made), {
      set: { D2: 1300, C3: { day: '2026-12-01' }, E4: null, B4: 'N1' },
      append: [
        ['North', 'N1', { day: '2026-12-02' }, 5, 'new'],
        [null, null, null, null, 'only a note'],
      ],
      sort: 4,
    });
    const file = await back(made, bytes);
    expect(file.counts).toEqual({ ...nothing, cells: 3, rows: 3, added: 2, refused: [{ code: 'not under parent', cells: 1 }] });
    const changed = (await rows(made, file, 'changed')).rows.flatMap((row) => row.cells.map((cell) => [row.entry, ...brief(cell)]));
    expect(changed).toHaveLength(4);
    expect(changed).toEqual(
      expect.arrayContaining([
        [made.ids[0], 'toll', '1300.00 EUR', '1200.50 EUR', '1200.50 EUR'],
        [made.ids[1], 'day', '01.12.2026', '', ''],
        [made.ids[2], 'berth', 'N1', 'S1', 'S1'],
        [made.ids[2], 'note', '', '=1+1', '=1+1'],
      ]),
    );
    const { outcome, id } = await applied(made, file);
    expect(outcome).toMatchObject({ taken: 9, refused: 1, passedOver: 0 });
    expect(outcome.refusals).toMatchObject([{ entry: made.ids[2], field: 'berth', text: 'N1' }]);
    const after = await cellsNow(made);
    expect(after.slice(0, 3)).toEqual([
      { ...before[0], toll: '1300' },
      { ...before[1], day: '2026-12-01' },
      { quay: 'South', berth: 'S1' },
    ]);
    expect(after.slice(3)).toEqual(
      expect.arrayContaining([{ quay: 'North', berth: 'N1', day: '2026-12-02', toll: '5', note: 'new' }, { note: 'only a note' }]),
    );

    const again = await back(made, bytes);
    expect(again.counts).toEqual({ ...nothing, refused: [{ code: 'not under parent', cells: 1 }] });
    expect(again.said).toEqual(['2 new rows were stored when the file was brought before; they are not stored again.']);

    const undo = await made.house.clerk.call<EntryActView>('POST', `/registers/${made.register.id}/entry-acts`, { does: 'back', of: id });
    await done(made, undo.body.id);
    expect(await cellsNow(made)).toEqual(before);
    // What was taken back can be brought once more.
    expect((await back(made, bytes)).counts).toMatchObject({ cells: 3, added: 2 });
  });

  it('asks where somebody has changed the same cell here, and says what is gone on either side', async () => {
    const made = await logbook();
    const [first, second, third] = made.ids as [string, string, string];
    const bytes = edited(await sentOut(made), { set: { E2: 'there', D2: 7, E4: 'there too' }, remove: [3] });
    await made.edit(first, 'note', 'here');
    await made.house.clerk.call('POST', `/registers/${made.register.id}/entries/delete`, { entries: [third] });
    const file = await back(made, bytes);
    expect(file.counts).toEqual({ ...nothing, cells: 1, rows: 1, asked: 1, missing: 1, deleted: 1 });
    const [asked] = (await rows(made, file, 'asked')).rows;
    expect(asked).toMatchObject({ row: 2, entry: first, about: 'North, N1' });
    expect(asked!.cells.filter((cell) => cell.asked).map(brief)).toEqual([['note', 'there', 'first', 'here']]);
    expect((await rows(made, file, 'missing')).rows).toMatchObject([{ row: null, entry: second, about: 'North, N2', deletes: false }]);
    expect((await rows(made, file, 'deleted')).rows).toMatchObject([{ row: 3, about: 'South, S1' }]);

    const decide = (path: string, body: object) =>
      made.house.clerk.call<ReturnedFileView & Problem>('PUT', `/returned-files/${file.id}/${path}`, body);
    expect((await decide(`rows/${asked!.ord}`, { field: 'note', takes: 'came' })).status).toBe(200);
    expect((await look(made.house.clerk, file.id)).counts.askedCame).toBe(1);
    expect((await decide('decided', { what: 'asked', takes: 'here' })).body.counts.askedCame).toBe(0);
    expect((await decide('decided', { what: 'asked', takes: 'came' })).body.counts.askedCame).toBe(1);
    expect((await decide('decided', { what: 'missing', takes: 'came' })).body.counts.deletes).toBe(1);
    expect((await applied(made, file)).outcome).toMatchObject({ taken: 3, refused: 0, passedOver: 0 });
    expect(await cellsNow(made)).toEqual([{ quay: 'North', berth: 'N1', day: '2026-11-29', toll: '7', note: 'there' }]);
  });

  it('says what is cleared with what came, as it is decided', async () => {
    const made = await logbook();
    const bytes = edited(await sentOut(made), { set: { A2: 'South', A3: 'South' } });
    await made.edit(made.ids[1]!, 'quay', 'South');
    await made.edit(made.ids[1]!, 'quay', '');
    const file = await back(made, bytes);
    const [first] = (await rows(made, file, 'changed')).rows;
    expect(first!.follows).toEqual([{ field: 'berth', shown: 'N1', becomes: '' }]);
    const [asked] = (await rows(made, file, 'asked')).rows;
    expect(asked!.follows).toEqual([]);
    const decided = await made.house.clerk.call<ReturnedRow>('PUT', `/returned-files/${file.id}/rows/${first!.ord}`, {
      field: 'quay',
      takes: 'here',
    });
    expect(decided.body.follows).toEqual([]);
    await made.house.clerk.call('PUT', `/returned-files/${file.id}/decided`, { what: 'asked', takes: 'came' });
    await applied(made, file);
    expect((await cellsNow(made)).slice(0, 2)).toMatchObject([{ quay: 'North', berth: 'N1' }, { quay: 'South' }]);
  });

  it('is mended where it is refused, and leaves alone what was changed after it was looked at', async () => {
    const made = await logbook();
    const bytes = edited(await sentOut(made), { set: { B2: 'S1', C2: 'soon', E3: 'there', A4: 'Nroth' } });
    const file = await back(made, bytes);
    expect(file.counts.refused).toEqual([
      { code: 'not under parent', cells: 1 },
      { code: 'outside', cells: 1 },
      { code: 'wrong kind', cells: 1 },
    ]);
    const refused = (await rows(made, file, 'refused')).rows;
    const [first] = refused;
    const mend = (ord: number, body: object) =>
      made.house.clerk.call<{ cells: ReturnedCell[] } & Problem>('PUT', `/returned-files/${file.id}/rows/${ord}`, body);
    const mended = await mend(first!.ord, { field: 'day', text: '3/12/2026' });
    expect([mended.status, mended.body.detail]).toEqual([200, undefined]);
    expect(mended.body.cells.find(({ field }) => field === 'day')).toMatchObject({ text: '3/12/2026', takes: 'came' });
    expect(mended.body.cells.find(({ field }) => field === 'day')).not.toHaveProperty('refused');
    expect(
      (await mend(first!.ord, { field: 'berth', text: 'S2' })).body.cells.find(({ field }) => field === 'berth')!.refused,
    ).toMatchObject({ code: 'outside' });
    await mend(first!.ord, { field: 'berth', takes: 'here' });
    expect((await look(made.house.clerk, file.id)).counts.refused).toEqual([{ code: 'outside', cells: 1 }]);
    await made.edit(made.ids[1]!, 'note', 'meanwhile');
    const { outcome } = await applied(made, file);
    expect(outcome).toMatchObject({ taken: 1, refused: 1, passedOver: 1 });
    expect(await cellsNow(made)).toMatchObject([{ berth: 'N1', day: '2026-12-03' }, { note: 'meanwhile' }, { quay: 'South' }]);
    const late = await mend(first!.ord, { field: 'day', text: '4/12/2026' });
    expect([late.status, late.body.code]).toEqual([409, 'file-settled']);
  });
});

it('a slip of the finger that came many times is mended once', async () => {
  const made = standing;
  const rows = Array.from({ length: 2500 }, (_, at) => `${at % 2 === 0 ? 'Nort' : 'North'};N1;${at}`);
  const { body } = await bring(made.house.clerk, Buffer.from(`Quay;Berth;Note\n${rows.join('\n')}\n`), 'slips.csv', made.register.id);
  await read(made.house.clerk, body.id);
  const columns = ['quay', 'berth', 'note'].map((field, at) => ({ at, field }));
  await made.house.clerk.call('PUT', `/returned-files/${body.id}/columns`, { registerId: made.register.id, columns });
  const file = await read(made.house.clerk, body.id);
  expect(file.counts.refused.find(({ code }) => code === 'outside')).toEqual({ code: 'outside', cells: 1250 });
  const { total, rows: shown } = await rowsOf(made.house.clerk, file.id, 'refused');
  expect(total).toBe(1250);
  const mend = (text: string, alike: boolean) =>
    made.house.clerk.call('PUT', `/returned-files/${file.id}/rows/${shown[0]!.ord}`, { field: 'quay', text, alike });
  await mend('Nor', false);
  expect((await look(made.house.clerk, file.id)).counts.refused.find(({ code }) => code === 'outside')).toEqual({
    code: 'outside',
    cells: 1250,
  });
  await mend('North', false);
  expect((await look(made.house.clerk, file.id)).counts.refused.find(({ code }) => code === 'outside')).toEqual({
    code: 'outside',
    cells: 1249,
  });
  const [next] = (await rowsOf(made.house.clerk, file.id, 'refused')).rows;
  await made.house.clerk.call('PUT', `/returned-files/${file.id}/rows/${next!.ord}`, { field: 'quay', text: 'North', alike: true });
  expect((await look(made.house.clerk, file.id)).counts).toEqual({ ...nothing, added: 2500 });
});

describe('a workbook that was treated badly', () => {
  it.each<[string, Edits]>([
    ['rows sorted, columns moved, a title above', { sort: 0, swap: [0, 4], above: 'Our log' }],
    ['a heading said otherwise that is a field by its old name', {}],
  ])('is known all the same: %s', async (_what, edits) => {
    const made = await logbook();
    const out = await sentOut(made);
    await made.house.administrator.call('PATCH', `/fields/${made.register.fields[4]!.id}`, { heading: 'Remark' });
    const file = await back(made, edited(out, { set: { E2: 'changed' }, ...edits }));
    expect(file.counts).toEqual({ ...nothing, cells: 1, rows: 1 });
    expect((await rows(made, file, 'changed')).rows.flatMap(({ cells }) => cells.map(brief))).toEqual([
      ['note', 'changed', 'first', 'first'],
    ]);
  });

  it('has no column any more that says which row is which: what is as it went out is known again', async () => {
    const made = standing;
    const file = await back(made, edited(await sentOut(made), { set: { E2: 'changed' }, unmark: true }));
    expect(file).toMatchObject({ state: 'ready', known: true, counts: { ...nothing, added: 1 } });
    expect(file.said).toEqual([expect.stringMatching(/^The hidden column that says which row is which is gone\./u)]);
  });

  it('has columns of its own, and some of a field that is deleted since', async () => {
    const made = await logbook();
    const out = await sentOut(made);
    await made.house.administrator.call('DELETE', `/fields/${made.register.fields[3]!.id}`);
    const file = await back(made, edited(out, { set: { D2: 7, E2: 'changed' }, rename: { Day: 'When' } }));
    expect(file.counts).toEqual({ ...nothing, cells: 1, rows: 1 });
    expect(file.said).toEqual(['“Toll” is no longer on the sheet, and not read.', '“When” is no field of the sheet, and not read.']);
    const columns = file.columns.map(({ at, heading, field }) => ({ at, field: heading === 'When' ? 'day' : field }));
    const elsewhere = { registerId: made.house.visits.id, columns: [{ at: 0, field: 'pilot' }] };
    expect((await made.house.clerk.call('PUT', `/returned-files/${file.id}/columns`, elsewhere)).status).toBe(422);
    const set = await made.house.clerk.call<ReturnedFileView>('PUT', `/returned-files/${file.id}/columns`, {
      registerId: made.register.id,
      columns,
    });
    expect(set.status).toBe(200);
    expect((await read(made.house.clerk, file.id)).counts).toEqual({ ...nothing, cells: 1, rows: 1 });
  });

  it('has rules that were changed since it went out: they are those of now', async () => {
    const made = await logbook();
    const out = await sentOut(made);
    await made.rule('note', { kind: 'length', least: 1, most: 4 });
    expect((await back(made, edited(out, { set: { E2: 'too long', E3: 'fits' } }))).counts).toEqual({
      ...nothing,
      cells: 1,
      rows: 1,
      refused: [{ code: 'length', cells: 1 }],
    });
  });

  it.each<[string, Edits, string]>([
    [
      'a changed mark',
      { mark: '{}x' },
      'Its mark was changed, so it is not known what it held when it went out: every difference is asked about.',
    ],
    [
      'half a mark',
      { mark: 'Dellum, to be brought back. house' },
      'Its mark was changed, so it is not known what it held when it went out: every difference is asked about.',
    ],
  ])('has %s: it is asked of which sheet it is, and then about every difference', async (_what, edits, said) => {
    const made = standing;
    const bytes = edited(await sentOut(made), { ...edits, set: { E2: 'changed' } });
    const file = await back(made, bytes);
    expect(file).toMatchObject({ state: 'unclear', known: false, registerId: null, said: [said] });
    const columns = file.columns.map(({ at, heading }) => ({
      at,
      field: kinds.some(([known]) => known === heading) ? heading.toLowerCase() : null,
    }));
    await made.house.clerk.call('PUT', `/returned-files/${file.id}/columns`, { registerId: made.register.id, columns });
    expect((await read(made.house.clerk, file.id)).counts).toEqual({ ...nothing, asked: 1 });
    const { body } = await bring(made.house.clerk, bytes, 'Log.xlsx', made.register.id);
    expect(await read(made.house.clerk, body.id)).toMatchObject({ state: 'ready', counts: { ...nothing, asked: 1 } });
  });

  it('is of another house, or of a sheet that is gone', async () => {
    const made = await logbook();
    const out = await sentOut(made);
    const other = await openHouse(running, []);
    expect(await back(made, out, other.clerk)).toMatchObject({
      state: 'unreadable',
      why: expect.stringMatching(/^This file went out of another house, “[^”]+”\. Bring it back there\.$/u) as string,
    });
    await made.house.administrator.call('DELETE', `/sheets/${made.register.sheetId}`);
    expect(await back(made, out)).toMatchObject({ state: 'unreadable', why: 'The sheet that this file is of is not there any more.' });
  });

  it('went out so long ago that nobody knows what it held: every difference is asked about', async () => {
    const made = await logbook();
    const bytes = edited(await sentOut(made), { set: { E2: 'changed' }, append: [['South', 'S1', null, null, 'new']] });
    await running.database.kysely
      .updateTable('sent_files')
      .set({ at: new Date('2026-01-01') })
      .where('house_id', '=', made.house.id)
      .execute();
    await running.forget();
    const file = await back(made, bytes);
    expect(file).toMatchObject({ state: 'ready', known: false, counts: { ...nothing, asked: 1, added: 1 } });
  });

  it('is not from here at all: rows of a table become new entries, the same file twice only once', async () => {
    const made = await logbook();
    const csv = Buffer.from('Berth;Remarks;Quay\r\nN1;hello;North\r\nX9;;North\r\n;;\r\n');
    const { body } = await bring(made.house.clerk, csv, 'from outside.csv', made.register.id);
    const file = await read(made.house.clerk, body.id);
    expect(file).toMatchObject({ state: 'unclear', registerId: made.register.id });
    expect(file.columns.map(({ field }) => field)).toEqual(['berth', null, 'quay']);
    const columns = file.columns.map(({ at, field }) => ({ at, field: field ?? 'note' }));
    await made.house.clerk.call('PUT', `/returned-files/${file.id}/columns`, { registerId: made.register.id, columns });
    const ready = await read(made.house.clerk, file.id);
    expect(ready.counts).toEqual({ ...nothing, added: 2, refused: [{ code: 'outside', cells: 1 }] });
    await applied(made, ready);
    expect((await cellsNow(made)).slice(3)).toEqual([{ quay: 'North', berth: 'N1', note: 'hello' }, { quay: 'North' }]);
    const again = await bring(made.house.clerk, csv, 'from outside.csv', made.register.id);
    expect((await read(made.house.clerk, again.body.id)).counts).toEqual(nothing);
  });

  it.each([
    ['nothing', Buffer.alloc(0), /is empty/u],
    ['no workbook', Buffer.from('89504E470D0A1A0A0000000D49484452', 'hex'), /neither a workbook/u],
  ])('is not read: %s', async (_what, bytes, why) => {
    const made = standing;
    expect(await back(made, bytes)).toMatchObject({ state: 'unreadable', why: expect.stringMatching(why) as string });
  });
});

describe('bringing files back', () => {
  it('is for those who enter data on the sheet; one sees one’s own, an administrator all', async () => {
    const made = await logbook();
    const out = await sentOut(made);
    const { reader, steward, administrator, clerk } = made.house;
    for (const visitor of [reader, steward]) expect((await bring(visitor, out)).status).toBe(403);
    const file = await back(made, out);
    expect((await administrator.get<ReturnedFileView[]>('/returned-files')).map(({ id }) => id)).toEqual([file.id]);
    const own = await back(made, out, administrator);
    expect((await clerk.call('GET', `/returned-files/${own.id}`)).status).toBe(404);
    expect((await clerk.call('DELETE', `/returned-files/${file.id}`)).status).toBe(204);
    expect((await clerk.get<ReturnedFileView[]>('/returned-files')).length).toBe(0);
    const feeding = await administrator.call<Problem>('POST', `/registers/${made.house.pilots.id}/downloads`, {
      format: 'workbook',
      arranged: false,
      labels: true,
      guarded: false,
      comesBack: true,
    });
    expect([feeding.status, feeding.body.code]).toEqual([403, 'not-allowed']);
    const csv = await clerk.call<Problem>('POST', `/registers/${made.register.id}/downloads`, {
      format: 'csv',
      arranged: false,
      labels: true,
      guarded: false,
      comesBack: true,
    });
    expect(csv.status).toBe(422);
  });

  it('is taken up by another server while one is at it, and found once', async () => {
    const made = standing;
    const lines = Array.from({ length: 20_000 }, (_, at) => `North;N1;row ${at}`);
    const { body } = await bring(made.house.clerk, Buffer.from(`Quay;Berth;Note\n${lines.join('\n')}\n`), 'long.csv', made.register.id);
    // Whether its headings are known by now or not, it is read from its beginning once it is said what they are.
    await read(made.house.clerk, body.id);
    const columns = ['quay', 'berth', 'note'].map((field, at) => ({ at, field }));
    await made.house.clerk.call('PUT', `/returned-files/${body.id}/columns`, { registerId: made.register.id, columns });
    await until(async () => (await look(made.house.clerk, body.id)).done > 0);
    // A server that begins takes up what it finds unfinished.
    const other = await startServer(running.database.url);
    const file = await read(made.house.clerk, body.id);
    expect(file).toMatchObject({ state: 'ready', done: 20_000, counts: { ...nothing, added: 20_000 } });
    await other.close();
    expect(await cellsNow(made)).toHaveLength(3);
  });

  it('stores nothing on a sheet that feeds catalogs by now, and is not forgotten while it is being stored', async () => {
    const made = await logbook();
    const { administrator, clerk } = made.house;
    const file = await back(made, edited(await sentOut(made), { set: { E2: 'changed' } }));
    const part = { kind: 'query', join: 'or', registerId: made.register.id, value: 'note', companions: [] };
    const definition = { parts: [part], filter: null, distinct: 'value', order: { by: 'kept' } };
    const catalog = await administrator.call<Problem & { id: string }>('POST', '/catalogs', { title: 'Notes', note: '', definition });
    expect([catalog.status, catalog.body.detail]).toEqual([201, undefined]);
    const refused = await clerk.call('POST', `/returned-files/${file.id}/applied`, {});
    expect([refused.status, refused.body.code]).toEqual([409, 'in-use']);
    expect((await administrator.call('DELETE', `/catalogs/${catalog.body.id}`)).status).toBeLessThan(300);
    const { body } = await clerk.call<ReturnedFileView>('POST', `/returned-files/${file.id}/applied`, {});
    await done(made, body.actId!);
    const acts = running.database.kysely.updateTable('entry_acts').where('house_id', '=', made.house.id).where('id', '=', body.actId!);
    await acts.set({ state: 'under way' }).execute();
    expect((await clerk.call('DELETE', `/returned-files/${file.id}`)).status).toBe(409);
    await acts.set({ state: 'done' }).execute();
    expect((await clerk.call('DELETE', `/returned-files/${file.id}`)).status).toBe(204);
  });

  it('takes no more than a file may have, and keeps nothing of it', async () => {
    const made = standing;
    const { status, body } = await bring(made.house.clerk, Buffer.alloc(50 * 1024 * 1024 + 1), 'large.csv', made.register.id);
    expect([status, body.code]).toEqual([413, 'too-large']);
    const kept = await running.database.kysely.selectFrom('returned_files').select('name').where('name', '=', 'large.csv').execute();
    expect(kept).toEqual([]);
  });
});
