// Downloads over HTTP; workbooks are read by a reader that shares no code with Dellum (readWorkbook.py, Debian's python3-openpyxl).
import { execFileSync } from 'node:child_process';
import { randomUUID } from 'node:crypto';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import type { DownloadDto, DownloadView, EntryActView, FieldView, LedgerPage, Problem } from '@dellum/contract';
import Papa from 'papaparse';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { chain, makeEntrySheet, type Made } from './entrySheet.js';
import { entriesOf, startServer, until, type Running, type Visitor } from './house.js';

let running: Running;
const folder = mkdtempSync('/tmp/dellum-books-');
beforeAll(async () => {
  running = await startServer();
});
afterAll(async () => {
  rmSync(folder, { recursive: true });
  await running.close();
});

const wanted = (over: Partial<DownloadDto> = {}): DownloadDto => ({
  format: 'workbook',
  arranged: false,
  labels: false,
  guarded: false,
  comesBack: false,
  ...over,
});

async function downloaded(
  visitor: Visitor,
  registerId: string,
  over: Partial<DownloadDto> = {},
): Promise<{ view: DownloadView; bytes: Buffer; headers: Headers }> {
  const begun = await visitor.call<DownloadView>('POST', `/registers/${registerId}/downloads`, wanted(over));
  expect(begun.status).toBe(202);
  const { id } = begun.body;
  await until(async () => (await visitor.get<DownloadView>(`/downloads/${id}`)).state === 'done');
  const response = await fetch(`${running.base}/api/v1/downloads/${id}/file`, { headers: { cookie: await visitor.signedIn() } });
  expect(response.status).toBe(200);
  return {
    view: await visitor.get<DownloadView>(`/downloads/${id}`),
    bytes: Buffer.from(await response.arrayBuffer()),
    headers: response.headers,
  };
}

interface Read {
  readonly names: Readonly<Record<string, string>>;
  readonly sheets: readonly {
    readonly title: string;
    readonly frozen: string | null;
    readonly rows: readonly (readonly [type: string, format: string, value: string | number | null][])[];
    readonly checks: readonly Readonly<Record<string, string>>[];
    readonly colours: readonly (readonly [area: string, type: string, operator: string, formula: string, tint: string])[];
  }[];
}
function readWith<Found>(reader: string, bytes: Buffer): Found {
  const path = join(folder, `${randomUUID()}.xlsx`);
  writeFileSync(path, bytes);
  return JSON.parse(execFileSync('/usr/bin/python3', [join(import.meta.dirname, reader), path], { maxBuffer: 1e9 }).toString()) as Found;
}
const read = (bytes: Buffer): Read => readWith<Read>('readWorkbook.py', bytes);
const valuesOf = ({ rows }: Read['sheets'][number]) => rows.map((row) => row.map(([, , value]) => value));

const kinds = [
  ['Quay', 'text'],
  ['Berth', 'text'],
  ['Day', 'date'],
  ['Share', 'percent'],
  ['Toll', 'amount'],
  ['State', 'text'],
  ['Code', 'text'],
] as const;

async function logbook(): Promise<Made> {
  const made = await makeEntrySheet(running, kinds);
  const { quay, berth } = chain(made.berths);
  await made.rule('quay', { ...quay, hint: 'Where does it lie?', hintTitle: 'Quay', mayBeBlank: false });
  await made.rule('berth', { ...berth, others: 'confirm', refusalText: '{field} must be under its quay.' });
  await made.rule('day', { kind: 'date', from: { of: 'day', day: '2026-01-01' }, until: { of: 'today', plus: 2 } });
  await made.rule('toll', { kind: 'number', least: { of: 'number', number: '0' }, most: null });
  await made.rule('state', { kind: 'typed', values: ['due', 'in', 'gone'], others: 'accept' });
  await made.rule('code', { kind: 'pattern', pattern: '[A-Z]+', others: 'accept' });
  const keep = (path: readonly string[], value: string, colour: string, label = value) =>
    made.house.administrator.call('PUT', `/catalogs/${made.berths}/items/kept`, { path, value, otherNames: [], colour, label });
  await keep([], 'North', 'teal', 'The "North", by name');
  await keep(['North'], 'N1', 'sky');
  // One text for two things of different colours is coloured as neither.
  await keep(['North'], 'N2', 'amber');
  await keep(['South'], 'N2', 'brick');
  await made.entry({ quay: 'North', berth: 'N1', day: '29/11/2026', share: '12.5 %', toll: '1200.50', state: 'in', code: 'A' });
  await made.entry({ quay: 'South', code: '=1+1' });
  return made;
}

it('a hundred downloads at once are written, all of them whole; of one person the newest twenty are kept', async () => {
  const made = await logbook();
  const { administrator, clerk, steward, reader } = made.house;
  const people = [administrator, clerk, steward, reader];
  const begun = await Promise.all(
    Array.from({ length: 100 }, (_, at) =>
      people[at % people.length]!.call<DownloadView>(
        'POST',
        `/registers/${made.register.id}/downloads`,
        wanted({ format: at % 8 < 4 ? 'workbook' : 'csv' }),
      ),
    ),
  );
  expect(begun.every(({ status }) => status === 202)).toBe(true);
  const kept = () => administrator.get<DownloadView[]>('/downloads');
  await until(async () => (await kept()).every(({ state }) => state === 'done'));
  const files = await kept();
  expect(files).toHaveLength(people.length * 20);
  for (const format of ['workbook', 'csv'])
    expect(new Set(files.filter((file) => file.format === format).map(({ bytes, done }) => `${bytes > 0} ${done}`))).toEqual(
      new Set(['true 2']),
    );
});

it('several values stand in every format as they are typed; in described tables as these part them', async () => {
  const made = await makeEntrySheet(running, [['Services', 'several values']]);
  await made.entry({ services: 'Water, "a, b"' });
  const of = async (format: DownloadDto['format']) => (await downloaded(made.house.clerk, made.register.id, { format })).bytes;
  const typed = 'Water, "a, b"';
  expect(read(await of('workbook')).sheets[0]!.rows[1]![0]![2]).toBe(typed);
  const document = readWith<object>('readOpenDocument.py', await of('opendocument'));
  expect(JSON.stringify(document)).toContain(JSON.stringify(typed));
  expect(Papa.parse<string[]>((await of('csv')).toString()).data[1]).toEqual([typed]);
  const { tables, faults } = readWith<{ tables: Record<string, Record<string, string>[]>; faults: unknown[] }>(
    'readTables.py',
    await of('tables'),
  );
  expect([tables['Log.csv'], faults]).toEqual([[{ services: 'Water\u001Fa, b' }], []]);
});

describe('downloaded tables', () => {
  it('hold together as their description says; what is outside is what does not', async () => {
    const made = await logbook();
    await made.rule('code', { kind: 'length', least: 1, most: 3 });
    await made.entry({ quay: 'South', berth: 'S1', day: '30/11/2026', toll: '7', state: 'gone', code: 'ABC' });
    const { bytes, headers } = await downloaded(made.house.clerk, made.register.id, { format: 'tables' });
    expect(headers.get('content-disposition')).toContain('.zip"');
    const { tables, faults } = readWith<{ tables: Record<string, Record<string, string>[]>; faults: unknown[][] }>('readTables.py', bytes);
    const [log, ...lists] = Object.keys(tables);
    expect(tables[log!]!.map(({ quay, berth, day, share, toll, code }) => [quay, berth, day, share, toll, code])).toEqual([
      ['North', 'N1', '2026-11-29', '0.125', '1200.5', 'A'],
      ['South', '', '', '', '', '=1+1'],
      ['South', 'S1', '2026-11-30', '', '7', 'ABC'],
    ]);
    expect(lists).toHaveLength(2);
    // A rule that was made stricter, and a value that is retired, leave entries outside.
    expect(faults).toEqual([[log, 3, 'code', '=1+1']]);
    await made.house.administrator.call('POST', `/catalogs/${made.berths}/items/acts`, { act: 'retire', path: ['North'], value: 'N1' });
    const after = readWith<{ faults: unknown[][] }>(
      'readTables.py',
      (await downloaded(made.house.clerk, made.register.id, { format: 'tables' })).bytes,
    );
    expect(after.faults).toEqual([
      [log, 3, 'code', '=1+1'],
      [log, 2, 'quay berth', 'North N1'],
    ]);
  });
});

describe('a downloaded workbook', () => {
  it('has every value with its kind, every list under its name, every check with its words', async () => {
    const made = await logbook();
    const { view, bytes, headers } = await downloaded(made.house.clerk, made.register.id);
    expect(headers.get('content-disposition')).toContain(`filename="${made.register.title}.xlsx"`);
    expect(view).toMatchObject({ state: 'done', done: 2, total: 2, bytes: bytes.length, format: 'workbook' });
    const { names, sheets } = read(bytes);
    expect(sheets.map(({ title }) => title)).toEqual([made.register.title, 'Lists', 'About']);
    const [entries, lists, about] = sheets as [Read['sheets'][number], Read['sheets'][number], Read['sheets'][number]];
    expect(entries.frozen).toBe('A2');
    expect(entries.rows[0]!.map(([, , heading]) => heading)).toEqual(kinds.map(([heading]) => heading));
    expect(entries.rows[1]).toEqual([
      ['s', '@', 'North'],
      ['s', '@', 'N1'],
      ['d', 'dd/mm/yyyy', '2026-11-29T00:00:00'],
      ['n', '0.0%', 0.125],
      ['n', '#,##0.00" EUR"', 1200.5],
      ['s', '@', 'in'],
      ['s', '@', 'A'],
    ]);
    // A text is a text, whatever it looks like.
    expect(entries.rows[2]!.at(-1)).toEqual(['s', '@', '=1+1']);
    expect(valuesOf(lists)[0]).toEqual([null, expect.any(String), 'under', expect.any(String)]);
    const listed = valuesOf(lists).slice(1);
    expect(listed.map(([, quay]) => quay).filter(Boolean)).toEqual(['North', 'South']);
    expect(listed.map(([, , under, berth]) => [under, berth])).toEqual(
      expect.arrayContaining([
        ['North', 'N1'],
        ['North', 'N2'],
      ]),
    );
    const [flat, tree] = Object.keys(names).filter((name) => !/_(?:keys|end)$/u.test(name));
    expect(Object.keys(names).sort()).toEqual([flat, tree, `${tree!}_keys`, `${tree!}_end`].sort());
    expect(names[flat!]).toMatch(/^OFFSET\(Lists!\$B\$2,0,0,MAX\(1,COUNTA\(Lists!\$B\$2:\$B\$\d+\)\),1\)$/u);
    expect(names[tree!]).toBe('Lists!$D$2');
    const check = (column: string) => entries.checks.find(({ sqref }) => sqref === `${column}2:${column}1048576`);
    expect(entries.colours).toEqual([
      ['A2:A1048576', 'cellIs', 'equal', '"North"', expect.stringMatching(/^FF[0-9A-F]{6}$/u)],
      ['B2:B1048576', 'cellIs', 'equal', '"N1"', expect.stringMatching(/^FF[0-9A-F]{6}$/u)],
    ]);
    expect(entries.colours[0]![4]).not.toBe(entries.colours[1]![4]);
    const labelled = read((await downloaded(made.house.clerk, made.register.id, { labels: true })).bytes).sheets[0]!;
    expect([labelled.colours[0]![3], labelled.rows[1]![0]![2]]).toEqual(['"The ""North"", by name"', 'The "North", by name']);
    expect(check('A')).toMatchObject({
      type: 'list',
      formula1: flat,
      prompt: 'Where does it lie?',
      promptTitle: 'Quay',
      allowBlank: 'False',
    });
    expect(check('A')).not.toHaveProperty('errorStyle', 'warning');
    expect(check('B')).toMatchObject({ type: 'list', errorStyle: 'warning', error: 'Berth must be under its quay.', allowBlank: 'True' });
    expect(check('B')!['formula1']).toContain(`EXACT(${tree!}_keys,$A2)`);
    expect(check('C')).toMatchObject({ type: 'date', formula1: '46023', formula2: 'TODAY()+2' });
    expect(check('D')).toBeUndefined();
    expect(check('E')).toMatchObject({ type: 'decimal', operator: 'greaterThanOrEqual', formula1: '0' });
    expect(check('F')).toMatchObject({ type: 'list', errorStyle: 'information', formula1: '"due,in,gone"' });
    expect(check('G')).toBeUndefined();
    expect(valuesOf(about).flat()).toContain('Code is not compared with its pattern there.');
  });

  it('holds what is odd as it is: signs that XML has no room for, long texts, headings like one another', async () => {
    const made = await makeEntrySheet(running, [
      ['<A & "B">', 'text'],
      ['a: [b]', 'text'],
    ]);
    const [first] = made.register.fields as [FieldView];
    const odd = ['<b>&amp;</b>', '_x0041_', '  spaced  out  ', '“é” 👩‍👩‍👧', '+1', '@x', '-2', 'x'.repeat(5000)];
    for (const text of odd) await made.entry({ [first.key]: text });
    const stored = (await entriesOf(made.house.clerk, made.register)).map(({ cells }) => cells[first.key]);
    const { sheets } = read((await downloaded(made.house.clerk, made.register.id)).bytes);
    expect(valuesOf(sheets[0]!)[0]).toEqual(['<A & "B">', 'a: [b]']);
    // This reader leaves the escape of the standard for a text that looks like one as it stands.
    expect(
      valuesOf(sheets[0]!)
        .slice(1)
        .map(([text]) => text),
    ).toEqual(stored.map((text) => text?.replace('_x0041_', '_x005F_x0041_')));
  });

  it('is whole, whatever is changed while it is written, and of many entries at once', async () => {
    const made = await makeEntrySheet(running, [
      ['One', 'number'],
      ['Two', 'text'],
    ]);
    const { administrator, clerk } = made.house;
    const many = 5000;
    const texts = Array.from({ length: many }, (_, at) => [String(at), `row ${at}`]);
    const { body: act } = await clerk.call<EntryActView>('POST', `/registers/${made.register.id}/entry-acts`, {
      does: 'paste',
      below: true,
      fields: ['one', 'two'],
      texts,
    });
    await until(async () => (await clerk.get<EntryActView>(`/registers/${made.register.id}/entry-acts/${act.id}`)).state === 'done', 60);
    const all = await Promise.all(
      Array.from({ length: 8 }, async (_, at) => {
        if (at === 4) await administrator.call('PATCH', `/fields/${made.register.fields[1]!.id}`, { heading: 'Second' });
        return downloaded(at % 2 === 0 ? clerk : administrator, made.register.id);
      }),
    );
    for (const { bytes } of all) {
      const rows = valuesOf(read(bytes).sheets[0]!);
      expect([['One', 'Two'].join(), ['One', 'Second'].join()]).toContain(rows[0]!.join());
      expect(rows.slice(1)).toEqual(texts.map(([one, two]) => [Number(one), two]));
    }
  });
});

interface ReadOpen {
  readonly colours: readonly (readonly [style: string, condition: string, tint: string])[];
  readonly names: Readonly<Record<string, string>>;
  readonly checks: Readonly<Record<string, { condition: string | null; blank: string; help: string[][]; refusal: (string | null)[][] }>>;
  readonly sheets: readonly (readonly [title: string, rows: readonly (readonly [times: number, cells: (string | null)[][]])[]])[];
}

describe('a downloaded OpenDocument', () => {
  it('has every value with its kind, every list under its name, every check with its words, on blank rows too', async () => {
    const made = await logbook();
    const { view, bytes } = await downloaded(made.house.clerk, made.register.id, { format: 'opendocument' });
    expect(view.name).toBe(`${made.register.title}.ods`);
    const { names, checks, sheets, colours } = readWith<ReadOpen>('readOpenDocument.py', bytes);
    expect(colours.map(([style, condition]) => [style, condition])).toEqual([
      ['coloured0', 'cell-content()="North"'],
      ['coloured1', 'cell-content()="N1"'],
    ]);
    expect(new Set(colours.map(([, , tint]) => tint)).size).toBe(2);
    expect(sheets.map(([title]) => title)).toEqual([made.register.title, 'Lists', 'About']);
    const [heading, first, second, blank] = sheets[0]![1];
    expect(heading![1].map(([, text]) => text)).toEqual(kinds.map(([text]) => text));
    expect(first![1]).toEqual([
      ['string', 'North', 'check0'],
      ['string', 'N1', 'check1'],
      ['date', '2026-11-29', 'check2'],
      ['percentage', '0.125', null],
      ['currency', '1200.5', 'check4'],
      ['string', 'in', 'check5'],
      ['string', 'A', null],
    ]);
    expect(second![1].at(-1)).toEqual(['string', '=1+1', null]);
    expect(blank![0]).toBe(1_048_573);
    expect(blank![1].map(([, , check]) => check)).toEqual(first![1].map(([, , check]) => check));
    const [flat, tree] = Object.keys(names)
      .filter((name) => !/_(?:keys|end)$/u.test(name))
      .sort((a, b) => a.length - b.length || (a < b ? -1 : 1));
    expect(names[tree!]).toBe('$Lists.$D$2');
    expect(names[`${tree!}_keys`]).toMatch(/^\$Lists\.\$C\$2:\.\$C\$\d+$/u);
    expect(names[flat!]).toContain('OFFSET([$Lists.$B$2];0;0;MAX(1;COUNTA([$Lists.$B$2:.$B$');
    expect(checks['check0']).toEqual({
      condition: `of:cell-content-is-in-list(${flat!})`,
      blank: 'false',
      help: [[null, 'Quay', 'Where does it lie?']],
      refusal: [['stop', 'Quay', '']],
    });
    expect(checks['check1']!.condition).toContain(`EXACT(${tree!}_keys;[.$A2])`);
    expect(checks['check1']!.refusal).toEqual([['warning', 'Berth', 'Berth must be under its quay.']]);
    expect(checks['check2']!.condition).toBe('of:cell-content-is-date() and cell-content-is-between(46023;TODAY()+2)');
    expect(checks['check4']!.condition).toBe('of:cell-content-is-decimal-number() and cell-content()>=0');
    expect(checks['check5']!.condition).toBe('of:cell-content-is-in-list("due";"in";"gone")');
  });
});

describe('entries as CSV and as JSON Lines', () => {
  it('are exact, as one has arranged them or all, and no formula where that is asked for', async () => {
    const made = await logbook();
    const { clerk } = made.house;
    const csv = async (over: Partial<DownloadDto>) =>
      Papa.parse<string[]>((await downloaded(clerk, made.register.id, { format: 'csv', ...over })).bytes.toString(), {
        skipEmptyLines: true,
      }).data;
    expect(await csv({})).toEqual([
      kinds.map(([heading]) => heading),
      ['North', 'N1', '2026-11-29', '0.125', '1200.5', 'in', 'A'],
      ['South', '', '', '', '', '', '=1+1'],
    ]);
    expect((await csv({ guarded: true }))[2]!.at(-1)).toBe("'=1+1");
    await clerk.call('PUT', `/registers/${made.register.id}/arrangement`, {
      sort: [{ field: 'quay', direction: 'down' }],
      only: [],
      fields: made.register.fields.map(({ key }) => ({ field: key, hidden: key !== 'quay' && key !== 'code' })),
      inView: 0,
    });
    expect(await csv({ arranged: true })).toEqual([
      ['Quay', 'Code'],
      ['South', '=1+1'],
      ['North', 'A'],
    ]);
    const lines = (await downloaded(clerk, made.register.id, { format: 'json lines' })).bytes.toString().trimEnd().split('\n');
    const stored = await entriesOf(clerk, made.register);
    expect(lines.map((line) => JSON.parse(line) as unknown)).toEqual(stored.map(({ id, version, cells }) => ({ id, version, cells })));
  });

  it('are what is looked for among the records, in its order, whatever is arranged', async () => {
    const made = await logbook();
    const { clerk } = made.house;
    const csv = async (found: object) => {
      const { bytes } = await downloaded(clerk, made.register.id, {
        format: 'csv',
        arranged: true,
        found: { only: [], sort: [], ...found },
      });
      return Papa.parse<string[]>(bytes.toString(), { skipEmptyLines: true })
        .data.slice(1)
        .map((row) => row.at(-1));
    };
    expect(await csv({})).toEqual(['A', '=1+1']);
    expect(await csv({ sort: [{ field: 'quay', direction: 'down' }] })).toEqual(['=1+1', 'A']);
    expect(await csv({ search: 'soUTH  1+' })).toEqual(['=1+1']);
    expect(await csv({ only: [{ only: 'values', field: 'quay', values: ['North'] }] })).toEqual(['A']);
    expect(await csv({ search: 'nowhere' })).toEqual([]);
    for (const found of [
      null,
      [],
      { only: [], sort: [{ field: 'nothing', direction: 'up' }] },
      { only: [], sort: [], search: 'a '.repeat(21) },
      { only: [], sort: [], from: 0 },
    ]) {
      const { status } = await clerk.call('POST', `/registers/${made.register.id}/downloads`, { ...wanted(), found });
      expect([400, 404, 422], JSON.stringify(found)).toContain(status);
    }
  });

  it('are a file without lines where there are no entries', async () => {
    const made = await makeEntrySheet(running, [['A', 'text']]);
    expect((await downloaded(made.house.clerk, made.register.id, { format: 'csv' })).bytes.toString()).toBe('A\r\n');
    expect((await downloaded(made.house.clerk, made.register.id, { format: 'json lines' })).bytes.length).toBe(0);
    expect(valuesOf(read((await downloaded(made.house.clerk, made.register.id)).bytes).sheets[0]!)).toEqual([['A']]);
  });
});

describe('a download', () => {
  it('is one’s own and the administrators’, stands in the ledger, and goes when it is deleted', async () => {
    const made = await logbook();
    const { clerk, reader, administrator, steward } = made.house;
    const { view } = await downloaded(reader, made.register.id, { format: 'csv' });
    expect((await administrator.get<DownloadView[]>('/downloads')).map(({ id }) => id)).toContain(view.id);
    expect((await steward.get<DownloadView[]>('/downloads')).map(({ id }) => id)).not.toContain(view.id);
    for (const [method, path] of [
      ['GET', ''],
      ['GET', '/file'],
      ['DELETE', ''],
    ] as const)
      expect((await clerk.call(method, `/downloads/${view.id}${path}`)).status, path).toBe(404);
    const { lines } = await administrator.get<LedgerPage>('/ledger');
    expect(lines.find(({ act }) => act === 'sheet.downloaded')).toMatchObject({ registerId: made.register.id });
    // A sheet that stays in the house is looked at, and downloaded by administrators alone; files of before, too.
    const limits = (more: object) =>
      administrator.call('PUT', `/sheets/${made.register.sheetId}/limits`, { limited: false, groups: [], ...more });
    await limits({ downloads: false });
    for (const answer of [
      await reader.call<Problem>('GET', `/downloads/${view.id}/file`),
      await clerk.call<Problem>('POST', `/registers/${made.register.id}/downloads`, wanted()),
    ])
      expect([answer.status, answer.body.code]).toEqual([403, 'not-allowed']);
    expect(await reader.get<DownloadView[]>('/downloads')).toEqual([]);
    expect((await administrator.call('GET', `/downloads/${view.id}/file`)).status).toBe(200);
    expect((await reader.call('GET', `/registers/${made.register.id}/entries?from=0&count=10`)).status).toBe(200);
    // Who sees it may be said anew without saying who downloads it.
    await limits({});
    expect((await reader.call('GET', `/downloads/${view.id}/file`)).status).toBe(403);
    await limits({ downloads: true });
    expect((await reader.call('GET', `/downloads/${view.id}/file`)).status).toBe(200);
    // Who may not look at the sheet any more gets nothing of it.
    await administrator.call('PUT', `/sheets/${made.register.sheetId}/limits`, { limited: true, groups: [] });
    expect((await reader.call('GET', `/downloads/${view.id}/file`)).status).toBe(404);
    expect((await clerk.call('POST', `/registers/${made.register.id}/downloads`, wanted())).status).toBe(404);
    expect((await reader.call('DELETE', `/downloads/${view.id}`)).status).toBe(204);
    expect((await administrator.call('GET', `/downloads/${view.id}`)).status).toBe(404);
  });

  it('makes room for newer ones: so many of a person are kept', async () => {
    const made = await makeEntrySheet(running, [['A', 'text']]);
    for (let count = 0; count < 22; count += 1)
      await made.house.steward.call('POST', `/registers/${made.register.id}/downloads`, wanted({ format: 'csv' }));
    expect(await made.house.steward.get<DownloadView[]>('/downloads')).toHaveLength(20);
  });

  it.each([{}, { format: 'paper' }, { ...wanted(), arranged: 'yes' }, { ...wanted(), more: 1 }, null])(
    'is refused for %j',
    async (body) => {
      const made = await makeEntrySheet(running, [['A', 'text']]);
      expect([400, 422]).toContain((await made.house.clerk.call('POST', `/registers/${made.register.id}/downloads`, body)).status);
    },
  );
});
