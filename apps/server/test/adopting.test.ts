// A house out of files as an office keeps them, over HTTP.
import type { AdoptionSummary, AdoptionView, BuildView, FieldCount, LedgerPage, Me, Problem } from '@dellum/contract';
import { sql } from 'kysely';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { lockBuild } from '../src/database/database.js';
import { applied, book, bring, emptyHouse as emptyHouseOf, mend, proposed, registersIn, settled, view, type Rows } from './adoptions.js';
import { unreadable } from './badFiles.js';
import { ruleDto } from './entrySheet.js';
import { entriesOf, openHouse, startServer, until, type Running } from './house.js';

let running: Running;
beforeAll(async () => {
  running = await startServer();
});
afterAll(() => running.close());
const emptyHouse = () => emptyHouseOf(running);

/** How many transactions wait for a build that another one holds. */
async function waitingForLocks(): Promise<number> {
  const { rows } = await sql<{ waiting: number }>`select count(*)::int as waiting from pg_locks
    where locktype = 'advisory' and not granted and database = (select oid from pg_database where datname = current_database())`.execute(
    running.database.kysely,
  );
  return rows[0]!.waiting;
}

const groups: Readonly<Record<string, readonly string[]>> = {
  Kräuter: ['Lavendel', 'Rosmarin', 'Kamille'],
  Gehölze: ['Hainbuche', 'Schlehdorn', 'Hartriegel'],
};
const plants = Object.entries(groups).flatMap(([group, all]) => all.map((plant) => [group, plant] as const));
/**
 * Sixty sales as a till writes them: a title, days as d.m.yyyy, decimal commas, numbers with leading zeros, slips of the finger, a total.
 */
const till = (): Buffer => {
  const lines = Array.from({ length: 60 }, (_, at) => {
    const [group, plant] = plants[at % plants.length]!;
    const written = at === 13 ? 'Lavendl' : at === 21 ? 'HAINBUCHE' : plant;
    return `00${400 + at};${(at % 28) + 1}.3.2026;${group};${written};${at % 7},50;${['bar', 'Karte'][at % 2]}`;
  });
  const text = ['Kasse März', '', 'Nr;Tag;Gruppe;Pflanze;Betrag;Zahlung', ...lines, 'Summe;;;;210,00;'].join('\r\n');
  return Buffer.from(text, 'latin1');
};

describe('Files become a house', () => {
  it('read, looked at, applied as one act, and taken back as one', async () => {
    const visitor = await emptyHouse();
    const ready = await proposed(visitor, [['kasse_maerz.csv', till()]]);
    expect(ready.state).toBe('ready');
    const [table] = ready.proposal!.tables;
    expect([table!.title, table!.rows, table!.columns.map(({ heading, kind }) => `${heading}: ${kind}`)]).toEqual([
      'kasse maerz',
      60,
      ['Nr: text', 'Tag: date', 'Gruppe: text', 'Pflanze: text', 'Betrag: number', 'Zahlung: text'],
    ]);
    expect(ready.proposal!.lists.map(({ levels }) => levels.map(({ heading }) => heading))).toEqual([['Gruppe', 'Pflanze'], ['Zahlung']]);
    // Nothing is stored before it is said.
    expect((await visitor.get<BuildView>('/build')).sheets).toEqual([]);

    const done = await applied(visitor, ready.id);
    expect(done).toMatchObject({ state: 'applied', applied: { entries: 60, rows: 6 + 2, since: 0 } });
    const registers = await registersIn(visitor);
    const sales = registers.get('kasse maerz')!;
    const entries = await entriesOf(visitor, sales);
    expect(entries).toHaveLength(60);
    expect(entries[13]!.cells).toEqual({
      nr: '00413',
      tag: '2026-03-14',
      gruppe: 'Kräuter',
      pflanze: 'Lavendel',
      betrag: '6.5',
      zahlung: 'Karte',
    });
    expect(entries[21]!.cells['pflanze']).toBe('Hainbuche');
    const counts = await visitor.get<FieldCount[]>(`/registers/${sales.id}/counts`);
    expect(counts.map(({ outside }) => outside)).toEqual(counts.map(() => 0));
    // The next file of that kind is understood: a spelling is another name from now on.
    const [field] = sales.fields.filter(({ key }) => key === 'pflanze');
    const { entry } = (
      await visitor.call<{ entry: { cells: Record<string, string> } }>('PATCH', `/registers/${sales.id}/entries/${entries[0]!.id}`, {
        field: field!.key,
        text: 'Lavendl',
        version: 1,
      })
    ).body;
    expect(entry.cells['pflanze']).toBe('Lavendel');

    await visitor.call('PATCH', `/registers/${sales.id}/entries/${entries[1]!.id}`, { field: 'nr', text: 'changed', version: 1 });
    expect((await view(visitor, ready.id)).applied!.since).toBe(1);
    const { status, body } = await visitor.call<AdoptionView>('POST', `/adoptions/${ready.id}/taken-back`, {});
    expect([status, body.state]).toEqual([200, 'ready']);
    const after = await visitor.get<BuildView>('/build');
    expect([after.sheets, after.ranges, after.catalogs]).toEqual([[], [], []]);
    const acts = (await visitor.get<LedgerPage>('/ledger')).lines.map(({ act }) => act);
    expect(acts).toEqual(expect.arrayContaining(['files.adopted', 'files.taken-back']));
    // And it can be applied again.
    expect((await applied(visitor, ready.id)).applied!.entries).toBe(60);
  });

  it('workbooks of both standards with titles, merged headings, totals and two tables on a sheet make one house of shared lists', async () => {
    const visitor = await emptyHouse();
    const sales = (from: number): Rows =>
      Array.from({ length: 40 }, (_, at) => {
        const [, plant] = plants[(at + from) % plants.length]!;
        return [{ day: `2026-0${(at % 9) + 1}-12` }, plant, ['Fenn', 'Marsh', 'Holt'][at % 3]!, 1 + (at % 12), at * 1.25];
      });
    const headings = ['Day', 'Plant', 'Grower', 'Pots', 'Paid'];
    const first = book('sales.xlsx', [
      { title: 'Sheet1', rows: [['Sales of the spring'], [], headings, ...sales(0), ['Total', '', '', 260, 975]], merge: ['A1:E1'] },
      { title: 'Plants', rows: [['Group', 'Plant', 'Height'], ...plants.map(([group, plant], at) => [group, plant, 30 + at])] },
    ]);
    const second = book('autumn.ods', [{ title: 'Autumn', rows: [headings, ...sales(3)] }]);
    const ready = await proposed(visitor, [
      ['sales.xlsx', first],
      ['autumn.ods', second],
    ]);
    expect(ready.why).toBeNull();
    expect(ready.proposal!.tables.map(({ title, rows, use }) => [title, rows, use])).toEqual([
      ['sales', 40, 'entries'],
      ['Plants', 6, 'list'],
      ['Autumn', 40, 'entries'],
    ]);
    expect(ready.proposal!.lists.map(({ title, home, columns }) => [title, home !== null, columns.length])).toEqual([
      ['Plants', true, 2],
      ['Grower', false, 2],
    ]);
    const done = await applied(visitor, ready.id);
    expect(done.applied!.sheets.map(({ title, kind }) => [title, kind])).toEqual([
      ['sales', 'entry'],
      ['Autumn', 'entry'],
      ['Lists', 'source'],
    ]);
    const registers = await registersIn(visitor);
    for (const title of ['sales', 'Autumn']) {
      const register = registers.get(title)!;
      expect(await entriesOf(visitor, register)).toHaveLength(40);
      expect(register.fields.map(({ kind }) => kind)).toEqual(['date', 'text', 'text', 'number', 'number']);
      const counts = await visitor.get<FieldCount[]>(`/registers/${register.id}/counts`);
      expect(counts.map(({ outside }) => outside)).toEqual(counts.map(() => 0));
    }
    const growers = registers.get('Grower')!;
    expect((await entriesOf(visitor, growers)).map(({ cells }) => cells['value']).sort()).toEqual(['Fenn', 'Holt', 'Marsh']);
  });

  it('tells how many rows are read, and how many of all are stored; discarded meanwhile, it is gone', async () => {
    const visitor = await emptyHouse();
    const rows = 60_000;
    const file = Buffer.from(['No;Quay;Tons', ...Array.from({ length: rows }, (_, at) => `V${at};Quay ${at % 8};${at % 900}`)].join('\n'));
    const seen = async (id: string, during: AdoptionView['state']) => {
      const all: NonNullable<AdoptionView['progress']>[] = [];
      await until(async () => {
        const now = await view(visitor, id);
        if (now.progress) all.push(now.progress);
        return now.state !== during;
      });
      return all;
    };
    const { body } = await bring(visitor, 'long.csv', file);
    const reading = await seen(body.id, 'reading');
    expect(reading.every(({ done, total }, at) => total === null && done <= rows + 1 && done >= (reading[at - 1]?.done ?? 0))).toBe(true);
    await visitor.call('POST', `/adoptions/${body.id}/applied`, {});
    const storing = await seen(body.id, 'applying');
    expect(storing.every(({ done }, at) => done <= rows && done >= (storing[at - 1]?.done ?? 0))).toBe(true);
    expect(storing.some(({ done, total }) => done > 0 && total === rows)).toBe(true);
    expect(await view(visitor, body.id)).toMatchObject({ state: 'applied', applied: { entries: rows } });
    const again = await bring(visitor, 'long.csv', file);
    expect((await visitor.call('DELETE', `/adoptions/${again.body.id}`)).status).toBe(204);
    expect((await visitor.get<AdoptionView[]>('/adoptions')).map(({ id }) => id)).toEqual([body.id]);
  }, 120_000);

  it('is mended by hand: headings, kinds, columns and lists that are not wanted, a spelling, lists that are one', async () => {
    const visitor = await emptyHouse();
    const { id, proposal } = await proposed(visitor, [['kasse.csv', till()]]);
    const [table] = proposal!.tables;
    const [plant, payment] = proposal!.lists;
    await mend(visitor, id, 'tables', { table: table!.id, title: 'Verkauf' });
    await mend(visitor, id, 'columns', { table: table!.id, at: 4, kind: 'text', heading: 'Bezahlt' });
    await mend(visitor, id, 'columns', { table: table!.id, at: 0, wanted: false });
    await mend(visitor, id, 'lists', { list: payment!.id, title: 'Zahlungsarten' });
    await mend(visitor, id, 'lists', { list: plant!.id, title: 'Sortiment' });
    const mended = await mend(visitor, id, 'spellings', { list: plant!.id, from: ['Lavendl'], to: null });
    const [, , , column] = mended.proposal!.tables[0]!.columns;
    expect(column!.outside).toBe(1);
    // What one says again holds; what was said before stays.
    expect(mended.proposal!.lists.map(({ title }) => title)).toEqual(['Sortiment', 'Zahlungsarten']);
    // Somebody else sees the same.
    const other = await view(visitor, id);
    expect(other.proposal).toEqual(mended.proposal);
    await applied(visitor, id);
    const register = (await registersIn(visitor)).get('Verkauf')!;
    expect(register.fields.map(({ heading, kind }) => [heading, kind])).toEqual([
      ['Tag', 'date'],
      ['Gruppe', 'text'],
      ['Pflanze', 'text'],
      ['Bezahlt', 'text'],
      ['Zahlung', 'text'],
    ]);
    expect((await entriesOf(visitor, register))[13]!.cells['pflanze']).toBe('Lavendl');
    const counts = await visitor.get<FieldCount[]>(`/registers/${register.id}/counts`);
    expect(counts.reduce((sum, { outside }) => sum + outside, 0)).toBe(1);
  });

  it('holds all files, however fast one follows the other', async () => {
    const visitor = await emptyHouse();
    const files = Array.from({ length: 6 }, (_, at) => [`day ${at}.csv`, Buffer.from(`Word,Count\nday,${at}\nnight,${at}`)] as const);
    const { proposal, files: kept } = await proposed(visitor, files);
    expect(kept.map(({ name }) => name)).toEqual(files.map(([name]) => name));
    expect(proposal!.tables.map(({ title }) => title)).toEqual(files.map((_, at) => `day ${at}`));
  });

  it('takes the headings from the row that is said', async () => {
    const visitor = await emptyHouse();
    const rows = [['1', '2'], ['Name', 'Town'], ...Array.from({ length: 20 }, (_, at) => [`Person ${at}`, ['Ash', 'Elm'][at % 2]!])];
    const { id, proposal } = await proposed(visitor, [['people.csv', Buffer.from(rows.map((row) => row.join(',')).join('\n'))]]);
    const { id: table } = proposal!.tables[0]!;
    expect((await mend(visitor, id, 'tables', { table, heading: 2 })).state).toBe('reading');
    const anew = await settled(visitor, id);
    expect(anew.proposal!.tables[0]).toMatchObject({ heading: 2, rows: 20 });
    expect(anew.proposal!.tables[0]!.columns.map(({ heading }) => heading)).toEqual(['Name', 'Town']);
  });

  it('chooses from the lists that the house has, unless one says otherwise, and makes no second ones', async () => {
    const visitor = await emptyHouse();
    const first = await proposed(visitor, [['kasse_maerz.csv', till()]]);
    expect(first.proposal!.lists.map(({ catalog }) => catalog)).toEqual([null, null]);
    const [levels, paid] = (await applied(visitor, first.id)).applied!.catalogs.map(({ id }) => id);
    const second = await proposed(visitor, [['kasse_april.csv', till()]]);
    expect(second.proposal!.lists.map(({ id, catalog, columns }) => [id, catalog, columns.length])).toEqual([
      [`house:${levels!}`, levels, 2],
      [`house:${paid!}`, paid, 1],
    ]);
    const left = await mend(visitor, second.id, 'lists', { list: `house:${paid!}`, wanted: false });
    const own = left.proposal!.tables[0]!.columns.find(({ heading }) => heading === 'Zahlung')!.list!;
    expect([own.id.startsWith('house:'), left.proposal!.lists.find(({ id }) => id === `house:${paid!}`)?.wanted]).toEqual([false, false]);
    await mend(visitor, second.id, 'lists', { list: `house:${paid!}`, wanted: true });
    expect((await visitor.call('PUT', `/adoptions/${second.id}/lists`, { list: 'house:x', wanted: true })).status).toBe(422);

    const done = await applied(visitor, second.id);
    expect([done.applied!.catalogs, done.applied!.entries, done.applied!.rows]).toEqual([[], 60, 0]);
    const sales = (await registersIn(visitor)).get('kasse april')!;
    const rules = sales.fields.flatMap(({ key, rule }) =>
      rule?.kind === 'catalog' ? [[key, rule.catalogId, rule.level, rule.parents]] : [],
    );
    expect(rules).toEqual([
      ['gruppe', levels, 0, []],
      ['pflanze', levels, 1, ['gruppe']],
      ['zahlung', paid, null, []],
    ]);
    // Known by its other name, and written as the house writes it.
    expect((await entriesOf(visitor, sales))[13]!.cells['pflanze']).toBe('Lavendel');
    const counts = await visitor.get<FieldCount[]>(`/registers/${sales.id}/counts`);
    expect(counts.map(({ outside }) => outside)).toEqual(counts.map(() => 0));
    // What others choose from stays; what nobody else needs goes.
    expect((await visitor.call<Problem>('POST', `/adoptions/${first.id}/taken-back`, {})).body.code).toBe('in-use');
    expect((await visitor.call('POST', `/adoptions/${second.id}/taken-back`, {})).status).toBe(200);
    expect((await visitor.call('POST', `/adoptions/${first.id}/taken-back`, {})).status).toBe(200);
  });

  it('stores nothing where a list is gone from which it was to choose, says so, and is made anew', async () => {
    const visitor = await emptyHouse();
    const definition = {
      parts: [{ kind: 'typed', join: 'or', values: ['bar', 'Karte'] }],
      filter: null,
      distinct: 'value',
      order: { by: 'kept' },
    };
    const { body: catalog } = await visitor.call<{ id: string }>('POST', '/catalogs', { title: 'Zahlungen', note: '', definition });
    const ready = await proposed(visitor, [['kasse.csv', till()]]);
    expect(ready.proposal!.lists.map(({ catalog: known }) => known)).toContain(catalog.id);
    const { key } = (await visitor.get<Me>('/session')).house;
    const { id: houseId } = await running.database.kysely
      .selectFrom('houses')
      .select('id')
      .where('key', '=', key)
      .executeTakeFirstOrThrow();
    let deleted: Promise<{ status: number }> | undefined;
    await running.database.transaction(async (trx) => {
      await lockBuild(trx, houseId);
      deleted = visitor.call('DELETE', `/catalogs/${catalog.id}`);
      await until(async () => (await waitingForLocks()) > 0);
      expect((await visitor.call('POST', `/adoptions/${ready.id}/applied`, {})).status).toBe(202);
      await until(async () => (await waitingForLocks()) > 1);
    });
    expect((await deleted!).status).toBeLessThan(300);
    const told = await settled(visitor, ready.id);
    expect([told.state, told.why]).toEqual(['ready', expect.stringContaining('is not there any more')]);
    expect(told.proposal!.lists.map(({ catalog: known }) => known)).toEqual([null, null]);
    expect((await visitor.get<BuildView>('/build')).sheets).toEqual([]);
    expect((await applied(visitor, ready.id)).state).toBe('applied');
  });

  it('comes in beside what is there, under names of its own, and is not taken back while something stands on it', async () => {
    const house = await openHouse(running, [{ visit: 'A' }]);
    const { administrator: visitor } = house;
    const before = await visitor.get<BuildView>('/build');
    const text = ['Pilots,Note', ...Array.from({ length: 24 }, (_, at) => `${['Tam Ossel', 'Ada Brisk'][at % 2]},n ${at}`)].join('\n');
    const first = await proposed(visitor, [['Pilots.csv', Buffer.from(text)]]);
    const second = await proposed(visitor, [['Pilots.csv', Buffer.from(text)]]);
    // Both at once.
    await Promise.all([
      visitor.call('POST', `/adoptions/${first.id}/applied`, {}),
      visitor.call('POST', `/adoptions/${second.id}/applied`, {}),
    ]);
    const [one, other] = [await settled(visitor, first.id), await settled(visitor, second.id)];
    const titles = [one, other].flatMap(({ applied: done }) => done!.catalogs.map(({ title }) => title));
    expect(new Set(titles).size).toBe(2);
    expect(titles).not.toContain('Pilots');
    const build = await visitor.get<BuildView>('/build');
    expect(build.sheets.filter(({ id }) => before.sheets.some((sheet) => sheet.id === id))).toEqual(before.sheets);
    // A field of the house takes its values from there.
    const field = build.sheets
      .flatMap(({ registers }) => registers)
      .find(({ id }) => id === house.visits.id)!
      .fields.find(({ key }) => key === 'pilot')!;
    const rule = ruleDto({ kind: 'catalog', catalogId: one.applied!.catalogs[0]!.id });
    expect((await visitor.call('PUT', `/fields/${field.id}/rule`, rule)).status).toBeLessThan(300);
    const { status, body } = await visitor.call<Problem>('POST', `/adoptions/${first.id}/taken-back`, {});
    expect([status, body.code]).toEqual([409, 'in-use']);
    expect((await visitor.call('POST', `/adoptions/${second.id}/taken-back`, {})).status).toBe(200);
  });
});

describe('Bad files and wrong moments', () => {
  it.each(unreadable.filter(([what]) => what !== 'nothing'))('%s is told in a sentence', async (_what, name, file, says) => {
    const visitor = await emptyHouse();
    const { body } = await bring(visitor, name, file());
    const read = await settled(visitor, body.id);
    expect([read.state, read.why]).toEqual(['unreadable', expect.stringMatching(says)]);
    expect((await visitor.call('POST', `/adoptions/${body.id}/applied`, {})).status).toBe(409);
  });

  it('an empty file is refused, and a file without a table says so', async () => {
    const visitor = await emptyHouse();
    expect((await bring(visitor, 'a.csv', Buffer.alloc(0))).body).toMatchObject({
      code: 'not-valid',
      detail: 'The file is empty. Choose another file.',
    });
    expect(await visitor.get<AdoptionSummary[]>('/adoptions')).toEqual([]);
  });

  it('characters that cannot be stored, and texts longer than a cell takes, lose nothing else', async () => {
    const visitor = await emptyHouse();
    const lines = ['Word,Other', 'a\u001Fb,one', `${'long '.repeat(9000)},two`, 'c\uFFFEd,three'];
    const ready = await proposed(visitor, [['odd.csv', Buffer.from(lines.join('\n'))]]);
    expect(ready.said).toEqual([expect.stringMatching(/2 cells hold what cannot be stored/u)]);
    const done = await applied(visitor, ready.id);
    expect([done.state, done.why]).toEqual(['applied', null]);
    const register = [...(await registersIn(visitor)).values()].find(({ fields }) => fields.length === 2)!;
    expect((await entriesOf(visitor, register)).map(({ cells }) => cells['other'])).toEqual(['one', 'two', 'three']);
  });

  it('headings, words and bounds that are made to do harm', async () => {
    const visitor = await emptyHouse();
    const lines = Array.from({ length: 24 }, (_, at) => JSON.stringify({ 'No\u0000te\ud800': ['a', 'b'][at % 2], Count: at }));
    const noted = await proposed(visitor, [['notes.jsonl', Buffer.from(lines.join('\n'))]]);
    expect([noted.state, noted.why]).toEqual(['ready', null]);
    expect((await applied(visitor, noted.id)).why).toBeNull();
    const rows: Rows = Array.from({ length: 6 }, (_, at) => [
      ...[`V${at}`, at, at, { day: '2026-03-01' }, 'x', { day: '2026-03-01' }, 'x', ['a', 'b'][at % 2]!, ['b', 'a'][at % 2]!],
    ]);
    const checks = [
      { cells: 'A2:A9', type: 'textLength', operator: 'between', formula1: '-5', formula2: '2' },
      { cells: 'B2:B9', type: 'whole', operator: 'between', formula1: '9', formula2: '1', prompt: 'a_x0000_b' },
      { cells: 'C2:C9', type: 'decimal', operator: 'lessThanOrEqual', formula1: '9'.repeat(400) },
      { cells: 'D2:D9', type: 'date', operator: 'greaterThanOrEqual', formula1: '999999999999' },
      { cells: 'E2:E9', type: 'list', formula1: 'Nowhere!$A$1:$A$9' },
      { cells: 'F2:F9', type: 'date', operator: 'lessThan', formula1: 'TODAY()+99999' },
      // One that depends on itself, and two that depend on one another.
      { cells: 'G2:G9', type: 'list', formula1: 'INDIRECT(G2)' },
      { cells: 'H2:H9', type: 'list', formula1: 'INDIRECT($I2)' },
      { cells: 'I2:I9', type: 'list', formula1: 'INDIRECT($H2)' },
    ];
    const headings = ['Visit', 'One', 'Two', 'Day', 'Mark', 'Until', 'Own', 'This', 'That'];
    const names = { x: 'Visits!$G$2:$G$7', a: 'Visits!$H$2:$H$7', b: 'Visits!$I$2:$I$7' };
    const bytes = book('harm.xlsx', [{ title: 'Visits', rows: [headings, ...rows], checks }], names);
    const ready = await proposed(visitor, [['harm.xlsx', bytes]]);
    expect([ready.state, ready.proposal!.tables[0]!.columns.slice(0, 6).map(({ check }) => check?.taken)]).toEqual([
      'ready',
      [null, null, null, null, null, null],
    ]);
    expect((await applied(visitor, ready.id)).why).toBeNull();
  });

  it('what is not there, is of another house, or is applied already is refused', async () => {
    const [visitor, stranger] = [await emptyHouse(), await emptyHouse()];
    const { id, proposal } = await proposed(visitor, [['kasse.csv', till()]]);
    for (const path of [`/adoptions/${id}`, '/adoptions/00000000-0000-4000-8000-000000000000'])
      expect((await stranger.call('GET', path)).status).toBe(404);
    expect((await stranger.call('DELETE', `/adoptions/${id}`)).status).toBe(404);
    expect((await stranger.call('POST', `/adoptions/${id}/applied`, {})).status).toBe(404);
    expect((await bring(stranger, 'a.csv', till(), id)).status).toBe(404);
    expect((await visitor.call('PUT', `/adoptions/${id}/columns`, { table: 'x', at: 1 })).status).toBe(422);
    expect(
      (await visitor.call('PUT', `/adoptions/${id}/columns`, { table: proposal!.tables[0]!.id, at: 1, kind: 'several values' })).status,
    ).toBe(422);
    const twice = await Promise.all([1, 2].map(() => visitor.call('POST', `/adoptions/${id}/applied`, {})));
    expect(twice.map(({ status }) => status).sort()).toEqual([202, 409]);
    const done = await settled(visitor, id);
    expect(done.applied!.entries).toBe(60);
    expect((await visitor.call('PUT', `/adoptions/${id}/columns`, { table: proposal!.tables[0]!.id, at: 1 })).status).toBe(409);
    // A proposal that is forgotten leaves what came of it.
    expect((await visitor.call('DELETE', `/adoptions/${id}`)).status).toBe(204);
    expect((await registersIn(visitor)).size).toBe(3);
  });
});
