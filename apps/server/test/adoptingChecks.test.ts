// What stands in files already is taken over: drop-downs, bounds, their words, and what a description of tables says.
import type { FieldCount, Problem } from '@dellum/contract';
import { strToU8 } from 'fflate';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { applied, book, emptyHouse as emptyHouseOf, proposed, registersIn, type Rows } from './adoptions.js';
import { zipOf } from './badFiles.js';
import { entriesOf, startServer, type Running } from './house.js';

let running: Running;
beforeAll(async () => {
  running = await startServer();
});
afterAll(() => running.close());
const emptyHouse = () => emptyHouseOf(running);

describe('What stands in files already', () => {
  it('drop-downs that are there already become lists and rules with their words; what was wrong with them is said', async () => {
    const visitor = await emptyHouse();
    const rows: Rows = Array.from({ length: 12 }, (_, at) => [
      ['Ossel', 'Calloway', 'Tansy'][at % 3]!,
      ['open', 'done', 'dun'][at % 3]!,
      10 + at,
      { day: `2026-03-${10 + at}` },
      at === 5 ? 'North' : 'South',
    ]);
    const checks = [
      // Short of its list, and of the last rows.
      { cells: 'A2:A9', type: 'list', formula1: 'Lists!$A$2:$A$3', allow_blank: false, promptTitle: 'Who', prompt: 'The pilot on board.' },
      { cells: 'B2:B500', type: 'list', formula1: '"open,done"', allow_blank: true, errorStyle: 'warning', error: 'Open or done.' },
      { cells: 'C2:C500', type: 'whole', operator: 'between', formula1: '1', formula2: '30', allow_blank: true },
      { cells: 'D2:D500', type: 'date', operator: 'greaterThanOrEqual', formula1: '46023', allow_blank: true },
      { cells: 'E2:E500', type: 'list', formula1: 'Quays', allow_blank: true },
    ];
    const bytes = book(
      'checked.xlsx',
      [
        { title: 'Visits', rows: [['Pilot', 'State', 'Length', 'Day', 'Quay'], ...rows], checks },
        {
          title: 'Lists',
          hidden: true,
          rows: [
            ['Pilots', 'Quays'],
            ['Ossel', 'North'],
            ['Calloway', 'South'],
            ['Tansy', ''],
          ],
        },
      ],
      { Quays: 'OFFSET(Lists!$B$2,0,0,COUNTA(Lists!$B:$B)-1,1)' },
    );
    const { id, proposal } = await proposed(visitor, [['checked.xlsx', bytes]]);
    expect(proposal!.tables.map(({ title, wanted }) => [title, wanted])).toEqual([
      ['Visits', true],
      ['Lists', false],
    ]);
    expect(proposal!.lists.map(({ title, levels }) => [title, levels[0]!.values.map(({ value }) => value)])).toEqual([
      ['Pilots', ['Ossel', 'Calloway', 'Tansy']],
      ['State', ['open', 'done']],
      ['Quays', ['North', 'South']],
    ]);
    const [pilot, state] = proposal!.tables[0]!.columns;
    expect(pilot!.check).toMatchObject({ taken: { missed: 1 }, beyond: 4 });
    expect(state!.outside).toBe(4);
    const done = await applied(visitor, id);
    expect(done.why).toBeNull();
    const { fields } = (await registersIn(visitor)).get('Visits')!;
    expect(fields.map(({ heading, rule }) => [heading, rule?.kind])).toEqual([
      ['Pilot', 'catalog'],
      ['State', 'catalog'],
      ['Length', 'number'],
      ['Day', 'date'],
      ['Quay', 'catalog'],
    ]);
    expect(fields[0]!.rule).toMatchObject({ mayBeBlank: false, others: 'refuse', hintTitle: 'Who', hint: 'The pilot on board.' });
    expect(fields[1]!.rule).toMatchObject({ mayBeBlank: true, others: 'confirm', refusalText: 'Open or done.' });
    expect(fields[2]!.rule).toMatchObject({ least: { of: 'number', number: '1' }, most: { of: 'number', number: '30' }, decimals: 0 });
    expect(fields[3]!.rule).toMatchObject({ from: { of: 'day', day: '2026-01-01' }, until: null });
  });

  it('does the same for drop-downs of the other standard', async () => {
    const visitor = await emptyHouse();
    const rows: Rows = Array.from({ length: 12 }, (_, at) => [
      ['Ossel', 'Tansy'][at % 2]!,
      ['a, b', 'c'][at % 2]!,
      at,
      ['North', 'South'][at % 2]!,
    ]);
    const checks = [
      { column: 0, condition: 'of:cell-content-is-in-list([$Lists.$A$2:.$A$4])', help: ['Who', 'The pilot on board.'] },
      { column: 1, condition: 'of:cell-content-is-in-list("a, b";"c")', blank: 'false', error: ['warning', 'One of two.'] },
      { column: 2, condition: 'of:cell-content-is-whole-number() and cell-content()>=0' },
      { column: 3, condition: 'of:cell-content-is-in-list(Quays)' },
    ];
    const lists: Rows = [
      ['Pilots', 'Quays'],
      ['Ossel', 'North'],
      ['Tansy', 'South'],
      ['Calloway', 'West'],
    ];
    const sheets = [
      { title: 'Visits', rows: [['Pilot', 'State', 'Length', 'Quay'], ...rows], checks },
      { title: 'Lists', rows: lists },
    ];
    const { id, proposal } = await proposed(visitor, [['checked.ods', book('checked.ods', sheets, { Quays: '$Lists.$B$2:.$B$4' })]]);
    expect(proposal!.lists.map(({ title, levels }) => [title, levels[0]!.values.map(({ value }) => value)])).toEqual([
      ['Pilots', ['Ossel', 'Tansy', 'Calloway']],
      ['State', ['a, b', 'c']],
      ['Quays', ['North', 'South', 'West']],
    ]);
    await applied(visitor, id);
    const { fields } = (await registersIn(visitor)).get('Visits')!;
    expect(fields.map(({ rule }) => rule)).toMatchObject([
      { kind: 'catalog', hintTitle: 'Who', hint: 'The pilot on board.' },
      { kind: 'catalog', mayBeBlank: false, others: 'confirm', refusalText: 'One of two.' },
      { kind: 'number', least: { of: 'number', number: '0' }, most: null, decimals: 0 },
      { kind: 'catalog' },
    ]);
  });

  it.each(['dependent.xlsx', 'dependent.ods'])('takes over drop-downs that depend on one another: %s', async (name) => {
    const visitor = await emptyHouse();
    const isOther = name.endsWith('.ods');
    // Names as an office gives them: a blank written as a line, one in small letters, one forgotten; and a quay that has no list at all.
    const berths = new Map([
      ['North Quay', ['N1', 'N2', 'N3']],
      ['Salt', ['S1', 'S2']],
      ['Pond', ['P1', 'P2']],
      ['Mole', ['M1', 'M2']],
    ]);
    const rows: Rows = Array.from({ length: 48 }, (_, at) => {
      const [quay, own] = [...berths][at % 4]!;
      return [quay, own[Math.floor(at / 4) % 2]!, `Note ${at}`];
    });
    const pointed = (cells: string) => (isOther ? `$Lists.${cells}` : `Lists!${cells}`);
    const names = { North_Quay: pointed('$B$2:$B$4'), salt: pointed('$C$2:$C$3'), Spare: pointed('$E$2:$E$3') };
    const checks = isOther
      ? [
          { column: 0, condition: 'of:cell-content-is-in-list([$Lists.$A$2:.$A$5])' },
          { column: 1, condition: 'of:cell-content-is-in-list(INDIRECT([.A2]))' },
        ]
      : [
          { cells: 'A2:A49', type: 'list', formula1: 'Lists!$A$2:$A$5' },
          { cells: 'B2:B49', type: 'list', formula1: 'INDIRECT(SUBSTITUTE($A2," ","_"))' },
        ];
    const lists: Rows = [
      ['Quays', 'North', 'Salt', 'Pond', 'Spare'],
      ['North Quay', 'N1', 'S1', 'P1', 'X1'],
      ['Salt', 'N2', 'S2', 'P2', 'X2'],
      ['Pond', 'N3', '', '', ''],
      ['Spare', '', '', '', ''],
    ];
    const sheets = [
      { title: 'Visits', rows: [['Quay', 'Berth', 'Note'], ...rows], checks },
      { title: 'Lists', rows: lists },
    ];
    const { id, proposal } = await proposed(visitor, [[name, book(name, sheets, names)]]);
    expect(proposal!.tables.map(({ wanted }) => wanted)).toEqual([true, false]);
    expect(
      proposal!.lists.map(({ title, levels }) => [
        title,
        levels.map(({ values }) => values.map(({ path, value }) => [...path, value].join(' > '))),
      ]),
    ).toEqual([
      [
        'Berth',
        [
          ['North Quay', 'Salt', 'Pond', 'Spare', 'Mole'],
          [
            'North Quay > N1',
            'North Quay > N2',
            'North Quay > N3',
            'Salt > S1',
            'Salt > S2',
            'Pond > P1',
            'Pond > P2',
            'Spare > X1',
            'Spare > X2',
            'Mole > M1',
            'Mole > M2',
          ],
        ],
      ],
    ]);
    const [, berth] = proposal!.tables[0]!.columns;
    // Without the lines for blanks the one with a blank was never offered.
    expect(berth!.check!.taken).toMatchObject({
      takes: 'dependent',
      misnamed: isOther ? ['North Quay', 'Pond'] : ['Pond'],
      missing: ['Mole'],
    });
    expect(berth!.outside).toBe(0);
    await applied(visitor, id);
    const register = (await registersIn(visitor)).get('Visits')!;
    expect(register.fields.map(({ rule }) => rule)).toMatchObject([
      { kind: 'catalog', level: 0 },
      { kind: 'catalog', level: 1, parents: ['quay'] },
      null,
    ]);
    const counts = await visitor.get<FieldCount[]>(`/registers/${register.id}/counts`);
    expect(counts.reduce((sum, { outside }) => sum + outside, 0)).toBe(0);
    const [entry] = await entriesOf(visitor, register);
    const answer = await visitor.call<Problem>('PATCH', `/registers/${register.id}/entries/${entry!.id}`, {
      field: 'berth',
      text: 'S1',
      version: entry!.version,
    });
    expect([answer.status, answer.body.detail]).toEqual([422, expect.stringContaining('is not under North Quay')]);
  });

  it('keeps the values of a drop-down over numbers and days in the rule of the field', async () => {
    const visitor = await emptyHouse();
    const rows: Rows = Array.from({ length: 12 }, (_, at) => [
      [6.5, 12, 1500][at % 3]!,
      { day: `2026-11-0${(at % 3) + 1}` },
      at % 5,
      ['yes', 'no'][at % 2]!,
    ]);
    const checks = [
      { cells: 'A2:A40', type: 'list', formula1: 'Lists!$A$2:$A$5', prompt: 'As the pilot says.' },
      { cells: 'B2:B40', type: 'list', formula1: 'Lists!$B$2:$B$4', errorStyle: 'warning' },
      { cells: 'C2:C40', type: 'list', formula1: '"0,1,2,3,many"' },
      { cells: 'D2:D40', type: 'list', formula1: '"yes,no"' },
    ];
    const days = [1, 2, 3].map((day) => ({ day: `2026-11-0${day}` }));
    const lists: Rows = [
      ['Draughts', 'Days'],
      [6.5, days[0]!],
      [12, days[1]!],
      [1500, days[2]!],
      [9, ''],
    ];
    const sheets = [
      { title: 'Visits', rows: [['Draught', 'Day', 'Crew', 'Pilot'], ...rows], checks },
      { title: 'Lists', hidden: true, rows: lists },
    ];
    const { id } = await proposed(visitor, [['numbers.xlsx', book('numbers.xlsx', sheets)]]);
    const done = await applied(visitor, id);
    expect(done.why).toBeNull();
    const register = (await registersIn(visitor)).get('Visits')!;
    expect(register.fields.map(({ kind, rule }) => [kind, rule])).toMatchObject([
      ['number', { kind: 'typed', values: ['6.5', '12', '1500', '9'], others: 'refuse', hint: 'As the pilot says.' }],
      ['date', { kind: 'typed', values: ['2026-11-01', '2026-11-02', '2026-11-03'], others: 'confirm' }],
      // Not all of what it offers is a number.
      ['number', null],
      ['yes/no', null],
    ]);
    const [entry] = await entriesOf(visitor, register);
    const type = (text: string) =>
      visitor.call<Problem>('PATCH', `/registers/${register.id}/entries/${entry!.id}`, { field: 'draught', text, version: entry!.version });
    expect((await type('7')).status).toBe(422);
    expect((await type('1,500.0')).status).toBe(200);
  });

  it('takes over bounds that are formulas: today, and what stands in another column of the row', async () => {
    const visitor = await emptyHouse();
    const rows: Rows = Array.from({ length: 12 }, (_, at) => [
      { day: `2026-11-0${(at % 9) + 1}` },
      { day: `2026-11-1${at % 9}` },
      at,
      at + 3,
      at,
    ]);
    const checks = [
      { cells: 'A2:A40', type: 'date', operator: 'lessThanOrEqual', formula1: 'TODAY()+30' },
      { cells: 'B2:B40', type: 'date', operator: 'greaterThan', formula1: '$A2' },
      { cells: 'C2:C40', type: 'whole', operator: 'lessThanOrEqual', formula1: 'D2' },
      // One cell for all, another row, and what is no bound of the row.
      { cells: 'D2:D40', type: 'whole', operator: 'greaterThanOrEqual', formula1: '$C$2' },
      { cells: 'E2:E40', type: 'decimal', operator: 'greaterThanOrEqual', formula1: 'SUM(C2:D2)' },
    ];
    const bytes = book('bounds.xlsx', [{ title: 'Visits', rows: [['Arrival', 'Departure', 'Crew', 'Beds', 'Rest'], ...rows], checks }]);
    const { id, proposal } = await proposed(visitor, [['bounds.xlsx', bytes]]);
    expect(proposal!.tables[0]!.columns.map(({ check }) => check?.taken?.takes ?? null)).toEqual(['date', 'date', 'number', null, null]);
    await applied(visitor, id);
    const { fields } = (await registersIn(visitor)).get('Visits')!;
    expect(fields.map(({ rule }) => rule)).toMatchObject([
      { kind: 'date', from: null, until: { of: 'today', plus: 30 } },
      { kind: 'date', from: { of: 'field', field: 'arrival', plus: 1 }, until: null },
      { kind: 'number', least: null, most: { of: 'field', field: 'beds' }, decimals: 0 },
      null,
      null,
    ]);
    const register = (await registersIn(visitor)).get('Visits')!;
    const [entry] = await entriesOf(visitor, register);
    const answer = await visitor.call<Problem>('PATCH', `/registers/${register.id}/entries/${entry!.id}`, {
      field: 'departure',
      text: '2026-10-01',
      version: entry!.version,
    });
    expect([answer.status, answer.body.detail]).toEqual([422, expect.stringContaining('Departure must not be before')]);
  });

  it('takes tables as their description says them: kinds, bounds, lists and what stands under what', async () => {
    const visitor = await emptyHouse();
    const berths = ['North', 'South'].flatMap((quay) => [1, 2, 3].map((nth) => [quay, `${quay[0]}${nth}`] as const));
    const rows = Array.from({ length: 18 }, (_, at) => {
      const [quay, berth] = berths[at % berths.length]!;
      return [
        quay,
        berth,
        `2026-11-${String(at + 1).padStart(2, '0')}`,
        `${at}.125`,
        ['open', 'done'][at % 2],
        at % 3,
        `1234567890123456789.${at}1`,
        'Water|Power',
      ].join(',');
    });
    const string = (name: string, titles: string) => ({ name, titles, datatype: 'string' });
    const description = {
      '@context': 'http://www.w3.org/ns/csvw',
      tables: [
        {
          url: 'data/visits%20of%20may.csv',
          'dc:title': 'Visits',
          dialect: { header: false },
          tableSchema: {
            columns: [
              { ...string('quay', 'Quay'), required: true, 'dc:description': 'Where does it lie?' },
              { ...string('berth', 'Berth'), titles: { en: ['Berth'] } },
              { name: 'day', titles: 'Day', datatype: { base: 'date', minimum: '2026-01-01' } },
              { name: 'toll', titles: 'Toll', datatype: { base: 'decimal', minimum: 0, maximum: 500 } },
              { name: 'state', titles: 'State', datatype: { base: 'string', format: 'open|done|a\\.b' } },
              { name: 'crew', titles: 'Crew', datatype: 'integer' },
              { name: 'seal', titles: 'Seal', datatype: 'decimal' },
              { name: 'services', titles: 'Services', datatype: 'string', separator: '|' },
            ],
            foreignKeys: [
              { columnReference: 'quay', reference: { resource: 'quays.csv', columnReference: 'value' } },
              { columnReference: ['quay', 'berth'], reference: { resource: 'berths.csv', columnReference: ['under', 'value'] } },
            ],
          },
        },
        { url: 'quays.csv', 'dc:title': "The quays' list", tableSchema: { columns: [string('value', 'value')], primaryKey: 'value' } },
        // Two tables of one title.
        { url: 'berths.csv', 'dc:title': 'Visits', tableSchema: { columns: [string('under', 'under 1'), string('value', 'value')] } },
      ],
    };
    const csv = (head: string, lines: readonly string[]) => strToU8([head, ...lines].join('\r\n'));
    const packed = zipOf({
      'csv-metadata.json': strToU8(JSON.stringify(description)),
      'data/visits of may.csv': strToU8(rows.join('\r\n')),
      'quays.csv': csv('value', ['North', 'South', 'West']),
      'berths.csv': csv(
        'under 1,value',
        berths.map((pair) => pair.join(',')),
      ),
    });
    const { id, proposal, said } = await proposed(visitor, [['visits.zip', packed]]);
    expect(said).toEqual([]);
    expect(proposal!.tables[0]!.columns.map(({ heading, kind }) => [heading, kind])).toEqual([
      ['Quay', 'text'],
      ['Berth', 'text'],
      ['Day', 'date'],
      ['Toll', 'number'],
      ['State', 'text'],
      ['Crew', 'number'],
      ['Seal', 'number'],
      ['Services', 'text'],
    ]);
    const done = await applied(visitor, id);
    expect(done.why).toBeNull();
    const register = (await registersIn(visitor)).get('Visits')!;
    const rules = new Map(register.fields.map(({ heading, rule }) => [heading, rule]));
    expect(rules.get('Quay')).toMatchObject({ kind: 'catalog', mayBeBlank: false, hint: 'Where does it lie?' });
    expect(rules.get('Berth')).toMatchObject({ kind: 'catalog', level: 1 });
    expect(rules.get('Day')).toMatchObject({ kind: 'date', from: { of: 'day', day: '2026-01-01' }, until: null });
    expect(rules.get('Toll')).toMatchObject({ kind: 'number', least: { number: '0' }, most: { number: '500' } });
    expect(rules.get('State')).toMatchObject({ kind: 'catalog' });
    const [entry] = await entriesOf(visitor, register);
    expect(entry!.cells).toMatchObject({
      quay: 'North',
      berth: 'N1',
      day: '2026-11-01',
      toll: '0.125',
      state: 'open',
      crew: '0',
      // Every digit of it.
      seal: '1234567890123456789.01',
      services: 'Water, Power',
    });
  });

  it.each<[string, object | string, RegExp]>([
    ['no JSON', '{"tables":', /is no JSON/u],
    ['no table', { tables: [{ url: 7 }, 'x', null] }, /names no table/u],
    ['a table that is not there', { url: 'away.csv' }, /its part “away.csv” is missing/u],
    ['a table out of the archive', { url: '../../etc/hostname' }, /is missing/u],
    ['what is nested very deep', `{"tables":${'['.repeat(50_000)}${']'.repeat(50_000)}}`, /nested too deep/u],
  ])('a description with %s is told in a sentence', async (_what, description, says) => {
    const visitor = await emptyHouse();
    const text = typeof description === 'string' ? description : JSON.stringify(description);
    const { state, why } = await proposed(visitor, [
      ['x.zip', zipOf({ 'csv-metadata.json': strToU8(text), 'a.csv': strToU8('a,b\n1,2') })],
    ]);
    expect([state, why]).toEqual(['unreadable', expect.stringMatching(says)]);
  });
});
