// The Quillhaven Harbour Office: a small harbour, made up, and so is everything in it.
import { joinedValues } from '@dellum/core';
import { demoAccounts } from '@dellum/server';
import type { EntrySheetBlueprint, HouseBlueprint, SourceSheetBlueprint } from './blueprint.js';
import { demoFigures, demoForms, formSheets } from './forms.js';
import { readFileSync } from 'node:fs';
import { chance, pick } from './chance.js';

const kept = <T>(file: string): T => JSON.parse(readFileSync(new URL(`../data/${file}`, import.meta.url), 'utf8')) as T;

const pilots = ['Tam Ossel', 'Bryn Calloway', 'Ilse Marchbank', 'Rook Tansy', 'Corin Vale', 'Wenna Hallet'];
const status = ['Expected', 'Alongside', 'Shifted', 'Departed'];
const quays = ['Lantern Basin', 'Heron Mole', 'Salt Quay', 'Timber Pond'];
const berths: Readonly<Record<string, readonly string[]>> = {
  'Lantern Basin': ['Lantern 2', 'Lantern 4', 'Lantern 6', 'Lantern 9'],
  'Heron Mole': ['Heron 1', 'Heron 2', 'Heron 3'],
  'Salt Quay': ['Salt 1', 'Salt 2'],
  'Timber Pond': ['Pond 1', 'Pond 3', 'Pond 4'],
};
const services = ['Water', 'Shore power', 'Waste', 'Lines'];
const cranes = ['Crane 40 t', 'Crane 80 t', 'Crane 40 t'];
const brokers = [
  'Ashcombe & Lorne',
  'Bellweather Shipping',
  'Corrow Brothers',
  'Dunmarrow Agency',
  'Eastlight Brokers',
  'Fathom & Daughters',
];
const vessels = [
  'Marrowind',
  'Sallow Kestrel',
  'Old Tern',
  'Pellworm Star',
  'Anke Dorsey',
  'Grey Halyard',
  'Fennick',
  'Tilly Orme',
  'Brackwater',
  'Candle Rose',
  'Dunlin',
  'Ember Quay',
  'Fulmar II',
  'Gannet Row',
  'Hollow Bell',
  'Isla Merrow',
  'Juniper Bay',
  'Kittiwake',
  'Loam',
  'Merganser',
  'Noctule',
  'Oxbow Lady',
  'Plover',
  'Quern',
  'Ruddy Shel',
  'Salt Mary',
  'Turnstone',
  'Umber',
  'Velvet Tide',
  'Widgeon',
];
const cargo = ['Sawn timber', 'Road salt', 'Gravel', 'Frozen fish', 'Grain', 'Scrap metal', 'Empty containers', 'Machine parts'];
const remarks = ['Waits for the tide', 'Needs fenders', 'Crew change', 'Late papers', 'Two lines doubled', 'Pilot ladder wet'];

/** What slipped in before there were lists: spellings that stand outside today. */
const oldPilots: readonly (readonly [string, number])[] = [
  ['R. Tansey', 5],
  ['B. Calloway', 4],
  ['Ilse Marchbanks', 3],
];
const oldQuays: readonly (readonly [string, number])[] = [
  ['North Basin', 4],
  ['Lantern Bsn', 4],
  ['Salt Quai', 2],
];

const day = 86_400_000;
const iso = (moment: number) => new Date(moment).toISOString().slice(0, 10);
const visits = 1512;

/** How some of them were written in a hurry. */
const slipsOfTheFinger: Readonly<Record<string, string>> = {
  'Scrap metal': 'scrap metal',
  'Machine parts': 'Machine prts',
  'Empty containers': 'Empty container',
};

/** What the words of the ship's papers are in the harbour's own list: groups or sub-groups. */
const goodsLike: Readonly<Record<string, readonly string[]>> = {
  'Sawn timber': ['Pine boards', 'Oak planks', 'Spruce beams'],
  'Road salt': ['Salt'],
  Gravel: ['Gravel'],
  'Frozen fish': ['Cod', 'Herring', 'Mackerel'],
  Grain: ['Grain and seed'],
  'Scrap metal': ['Scrap iron'],
  'Empty containers': ['Empty containers'],
  'Machine parts': ['Machinery'],
};

const goods = kept<readonly (readonly [string, string, string, string, string])[]>('cargo.json');

function berthVisits(
  today: number,
  ships: EntrySheetBlueprint['entries'],
  longest: ReadonlyMap<string, number>,
): EntrySheetBlueprint['entries'] {
  const random = chance(4170);
  const asked = chance(99);
  const loaded = chance(31);
  const start = today - 400 * day;
  return Array.from({ length: visits }, (_, at) => {
    const arrival = start + Math.floor((at / visits) * 414) * day;
    const stay = 1 + Math.floor(random() * 4);
    const quay = pick(random, [
      ['Lantern Basin', 5],
      ['Heron Mole', 4],
      ['Salt Quay', 3],
      ['Timber Pond', 2],
    ]);
    const cells: Record<string, string> = { visit: `QV-${String(616 + at).padStart(4, '0')}`, arrival: iso(arrival) };
    const ship = ships[Math.floor(random() * vessels.length)]!;
    const length = Number(ship['length']);
    cells['vessel'] = ship['call_sign']!;
    cells['length'] = ship['length']!;
    cells['quay'] = random() < 0.012 ? pick(random, oldQuays) : quay;
    if (random() < 0.94) {
      // A ship lies where it fits; at a quay that is too short for it another one takes it.
      const share = random();
      const fit = (at: string) => berths[at]!.filter((berth) => longest.get(berth)! >= length);
      const there = fit(quay).length > 0 ? quay : quays.find((one) => fit(one).length > 0);
      if (there !== undefined)
        Object.assign(cells, { ...(cells['quay'] === quay && { quay: there }), berth: fit(there)[Math.floor(share * fit(there).length)]! });
    }
    const left = arrival + stay * day <= today;
    if (left) cells['departure'] = iso(arrival + stay * day);
    cells['status'] = left
      ? 'Departed'
      : arrival <= today
        ? pick(random, [
            ['Alongside', 5],
            ['Shifted', 1],
          ])
        : 'Expected';
    const hasPilot = arrival <= today || random() < 0.3;
    if (hasPilot && random() < 0.82)
      cells['pilot'] =
        random() < 0.012
          ? pick(random, oldPilots)
          : pick(random, [
              ['Tam Ossel', 40],
              ['Bryn Calloway', 38],
              ['Ilse Marchbank', 25],
              ['Rook Tansy', 10],
              ['Corin Vale', 4],
              ['Odd Fenwright', 2],
            ]);
    if (random() < 0.85) cells['cargo'] = cargo[Math.floor(random() * cargo.length)]!;
    if (cells['cargo'] && loaded() < 0.8) {
      const like = goods.filter(([group, sub]) => goodsLike[cells['cargo']!]!.includes(sub) || goodsLike[cells['cargo']!]!.includes(group));
      const [group, sub, item, unit] = like[Math.floor(loaded() * like.length)]!;
      Object.assign(cells, { goods_group: group, goods_sub: sub, goods: item, unit });
    }
    if (cells['cargo'] && loaded() < 0.015) cells['cargo'] = slipsOfTheFinger[cells['cargo']] ?? cells['cargo'];
    if (cells['cargo']) cells['quantity'] = String(Math.round(random() * 4800) / 2 + 20);
    cells['rate'] = pick(random, [
      ['0.03', 2],
      ['0.075', 5],
      ['0.2', 1],
    ]);
    cells['plan'] = `${'ABCDEFGH'[Math.floor(random() * 8)]!}${String(Math.floor(random() * 100_000)).padStart(5, '0')}`;
    cells['shore_power'] = random() < 0.4 ? 'yes' : 'no';
    const needs = services.filter(() => asked() < 0.45);
    if (needs.length > 0) cells['services'] = joinedValues(needs);
    if (random() < 0.12) cells['remarks'] = remarks[Math.floor(random() * remarks.length)]!;
    return cells;
  });
}

/** Services that clerks have asked for, by the row at which they stand. */
const askedFor: Readonly<Record<number, string>> = {
  297: 'Crane 120 t',
  301: 'Crane 120t',
  306: 'Crane 120 t',
  312: 'Linnes',
  315: 'Fork lift',
};

function craneHours(today: number): EntrySheetBlueprint['entries'] {
  const random = chance(80);
  return Array.from({ length: 320 }, (_, at) => ({
    day: iso(today - (320 - at) * day),
    quay: pick(random, [
      ['Lantern Basin', 5],
      ['Salt Quay', 4],
      ['Timber Pond', 2],
    ]),
    service:
      askedFor[at] ??
      pick(random, [
        ['Crane 40 t', 6],
        ['Crane 80 t', 3],
        ['Lines', 1],
      ]),
    hours: String(1 + Math.floor(random() * 16) / 2),
    ...(random() < 0.5 && {
      pilot: pick(random, [
        ['Tam Ossel', 4],
        ['Bryn Calloway', 3],
        ['Ilse Marchbank', 2],
      ]),
    }),
  }));
}

type Cells = Readonly<Record<string, string>>;
const filled = (cells: Cells): Cells => Object.fromEntries(Object.entries(cells).filter(([, text]) => text !== ''));

const classes = ['tug', 'coaster', 'bulk carrier', 'fishing boat', 'ferry', 'tanker', 'barge', 'pilot boat'];
const fleetNames = [
  'Amber',
  'Bracken',
  'Copper',
  'Drift',
  'Elder',
  'Fern',
  'Grey',
  'Heath',
  'Iron',
  'Juniper',
  'Kelp',
  'Lark',
  'Marsh',
  'Night',
  'Oat',
];
const fleetTails = [
  'Wind',
  'Star',
  'Tern',
  'Gull',
  'Maid',
  'Rose',
  'Bell',
  'Tide',
  'Heron',
  'Lass',
  'Thorn',
  'Reed',
  'Swift',
  'Wren',
  'Crown',
  'Spirit',
];

/** About 240 vessels: those that visit, and more that are known. */
function fleet(flags: readonly (readonly [string, string])[]): EntrySheetBlueprint['entries'] {
  const random = chance(240);
  const names = [...vessels, ...fleetNames.flatMap((head) => fleetTails.map((tail) => `${head} ${tail}`))].slice(0, 240);
  return names.map((name, at) => ({
    call_sign: `${'QHVX'[at % 4]!}${String.fromCharCode(65 + ((at * 7) % 26))}${String.fromCharCode(65 + ((at * 11) % 26))}${String(100 + at)}`,
    name,
    class: pick(
      random,
      classes.map((one, place) => [one, place === 1 ? 6 : 2] as const),
    ),
    flag: flags[Math.floor(random() * flags.length)]![0],
    length: String(12 + Math.floor(random() * 170)),
    ...(random() < 0.9 && { broker: brokers[Math.floor(random() * brokers.length)]! }),
  }));
}

const givenNames = [
  'Alma',
  'Bertil',
  'Cato',
  'Dagny',
  'Edo',
  'Frida',
  'Gorm',
  'Hedda',
  'Ivo',
  'Juna',
  'Kettil',
  'Lovisa',
  'Mads',
  'Nanna',
  'Orla',
  'Pelle',
  'Runa',
  'Sten',
  'Tove',
  'Ulf',
];
const familyNames = [
  'Brandt-Hale',
  'Corvey',
  'Dunmore',
  'Ekhorn',
  'Fallow',
  'Grimsel',
  'Harrowby',
  'Inchbold',
  'Jessop',
  'Kirkvane',
  'Lindal',
  'Morrow',
];
const duties = ['master', 'mate', 'chief engineer', 'cook', 'cargo officer'];

/** Whom to call on board: two or three people of each of the first ships. */
function crew(ships: EntrySheetBlueprint['entries']): EntrySheetBlueprint['entries'] {
  const random = chance(64);
  return ships
    .slice(0, 24)
    .flatMap((ship) =>
      duties
        .slice(0, 2 + Math.floor(random() * 2))
        .map((duty) => ({
          name: `${givenNames[Math.floor(random() * givenNames.length)]!} ${familyNames[Math.floor(random() * familyNames.length)]!}`,
          vessel: ship['call_sign']!,
          duty,
          channel: `VHF ${6 + Math.floor(random() * 70)}`,
          ...(random() < 0.4 && { launch_fee: String(20 + Math.floor(random() * 12) * 2.5) }),
        })),
    );
}

/** Greatest length and draught of each berth; two of them are closed for a while. */
function berthDetails(today: number): readonly Cells[] {
  const random = chance(12);
  return quays
    .flatMap((quay) => berths[quay]!.map((berth) => ({ quay, berth })))
    .map(({ quay, berth }, at) =>
      filled({
        berth,
        quay,
        length: String(60 + Math.floor(random() * 14) * 10),
        draught: String(4 + Math.floor(random() * 12) / 2),
        closed_from: at === 2 ? iso(today + 5 * day) : at === 7 ? iso(today - 20 * day) : '',
        closed_until: at === 2 ? iso(today + 12 * day) : at === 7 ? iso(today + 3 * day) : '',
      }),
    );
}

const wide = (key: string, heading: string, width: number, kind: 'text' | 'number' | 'date' | 'percent' = 'text') => ({
  key,
  heading,
  kind,
  width,
});

/** The other source sheets: headings, tables, codes with names, and rates with the day from which each holds. */
function tables(today: number): readonly SourceSheetBlueprint[] {
  const cargoRows = goods.map(([group, sub, item, unit, hazard]) => filled({ group, sub, item, unit, hazard }));
  const flagRows = kept<readonly (readonly [string, string])[]>('flags.json').map(([code, name]) => ({ code, name }));
  return [
    {
      title: 'Berths by quay',
      note: 'A list under each quay; the headings are the quays.',
      lists: quays.map((quay) => ({ heading: quay, texts: berths[quay]!, ranges: [] })),
      headings: { name: 'Berths by quay', ends: 'last' },
    },
    {
      title: 'Berth details',
      note: 'How long a ship may be at each berth, and when one is closed.',
      lists: [],
      tables: [
        {
          heading: 'Berth details',
          fields: [
            wide('berth', 'Berth', 110),
            wide('length', 'Greatest length, m', 130, 'number'),
            wide('draught', 'Draught, m', 100, 'number'),
            wide('closed_from', 'Closed from', 110, 'date'),
            wide('closed_until', 'Closed until', 110, 'date'),
            wide('quay', 'Quay', 130),
          ],
          rows: berthDetails(today),
          ranges: [{ name: 'Berths with details', from: 0, ends: 'last' }],
        },
      ],
    },
    {
      title: 'Cargo table',
      note: 'Group, sub-group and item, with the unit each is counted in.',
      lists: [],
      tables: [
        {
          heading: 'Cargo',
          fields: [
            wide('group', 'Group', 150),
            wide('sub', 'Sub-group', 150),
            wide('item', 'Item', 240),
            wide('unit', 'Unit', 70),
            wide('hazard', 'Hazard note', 220),
          ],
          rows: cargoRows,
          ranges: [{ name: 'Cargo', from: 0, ends: 'last', shape: 'levels', fields: ['group', 'sub', 'item'] }],
        },
      ],
    },
    {
      title: 'Codes and rates',
      note: 'Flag registries by their code, and the dues rates with the day from which each holds.',
      lists: [],
      tables: [
        {
          heading: 'Flag registries',
          fields: [wide('code', 'Code', 80), wide('name', 'Name', 150)],
          rows: flagRows,
          ranges: [{ name: 'Flag registries', from: 0, ends: 'last' }],
        },
        {
          heading: 'Dues rates',
          fields: [wide('rate', 'Rate', 90, 'percent'), wide('from', 'Holds from', 110, 'date')],
          rows: [
            { rate: '0.03', from: iso(today - 900 * day) },
            { rate: '0.075', from: iso(today - 400 * day) },
            { rate: '0.2', from: iso(today - 200 * day) },
          ],
          ranges: [{ name: 'Dues rates', from: 0, ends: 'gap' }],
        },
      ],
    },
  ];
}

const fromRange = (rangeId: string, over: { label?: string; companions?: readonly string[] } = {}) => ({
  kind: 'range' as const,
  join: 'or' as const,
  rangeId,
  label: over.label ?? null,
  companions: over.companions ?? [],
});

const bound = (catalog: string, hint: string, refusalText = '') => ({
  catalog,
  mayBeBlank: true,
  others: 'refuse' as const,
  hint,
  refusalText,
});

/** The demo house around the day it is started. `key` lets tests load several side by side. */
export function quillhaven(today: Date, key = 'quillhaven'): HouseBlueprint {
  const moment = Date.UTC(today.getFullYear(), today.getMonth(), today.getDate());
  const ships = fleet(kept('flags.json'));
  const longest = new Map(berthDetails(moment).map(({ berth, length }) => [berth!, Number(length)] as const));
  return {
    key,
    name: 'Quillhaven Harbour Office',
    demo: true,
    people: demoAccounts,
    sourceSheets: [
      {
        title: 'Harbour lists',
        note: 'Lists side by side, each on its own. Clerks do not see it.',
        lists: [
          { heading: 'Pilots', texts: pilots, ranges: [{ name: 'Pilots', from: 0, ends: 'last' }] },
          { heading: 'Visit status', texts: [...status, 'Cancelled'], ranges: [{ name: 'Visit status', from: 0, ends: 'fixed', last: 3 }] },
          { heading: 'Quays', texts: quays, ranges: [{ name: 'Quays', from: 0, ends: 'gap' }] },
          {
            heading: 'Services',
            texts: [...services, '', ...cranes],
            ranges: [
              { name: 'Services', from: 0, ends: 'fixed', last: 3 },
              { name: 'Cranes', from: 5, ends: 'last' },
            ],
          },
          { heading: 'Ship brokers', texts: brokers, ranges: [{ name: 'Ship brokers', from: 0, ends: 'last' }] },
        ],
      },
      ...tables(moment),
    ],
    linked: [
      { name: 'Broker file', settings: { kind: 'text file', path: 'ship-brokers.txt', encoding: 'told apart' }, every: 60 },
      { name: 'Tariff documents', settings: { kind: 'folder', path: 'tariffs', pattern: 'Tariff *.txt', endings: false }, every: 60 },
      {
        name: 'Vessel classes',
        settings: {
          kind: 'database',
          connection: 'Vessel registry',
          schema: 'registry',
          table: 'vessel_classes',
          value: 'code',
          label: 'title',
          companions: ['greatest_length'],
        },
        every: 1440,
      },
      {
        name: 'Neighbour ports',
        settings: { kind: 'service', connection: 'Port list', address: 'ports', list: 'data.ports', value: 'code', label: 'name' },
        every: 15,
      },
      {
        name: 'Long berths',
        settings: {
          kind: 'computed',
          catalogs: ['berths-with-length'],
          expression: 'berths_with_length.filter(b, int(b.length) >= 120).map(b, b.value)',
        },
        every: 1440,
      },
    ],
    catalogs: [
      {
        title: 'Berths with length',
        note: 'Every berth with its greatest length and draught.',
        parts: [fromRange('Berths with details', { companions: ['length', 'draught'] })],
      },
      {
        title: 'Tariffs',
        note: 'The documents in the tariff folder.',
        parts: [{ kind: 'linked', join: 'or', sourceId: 'Tariff documents' }],
      },
      {
        title: 'Vessel classes',
        note: 'As the vessel registry keeps them.',
        parts: [{ kind: 'linked', join: 'or', sourceId: 'Vessel classes' }],
      },
      {
        title: 'Neighbour ports',
        note: 'From the list service of the coast.',
        parts: [{ kind: 'linked', join: 'or', sourceId: 'Neighbour ports' }],
        order: { by: 'alphabetical' },
      },
      {
        title: 'Berths for long ships',
        note: 'Computed: berths of 120 m and more.',
        parts: [{ kind: 'linked', join: 'or', sourceId: 'Long berths' }],
      },
      {
        title: 'Pilots',
        note: 'Who may bring a ship in.',
        ranges: ['Pilots'],
        stewards: ['tobin'],
        retired: ['Odd Fenwright'],
        otherNames: { 'T. Ossel': 'Tam Ossel', 'I. Marchbank': 'Ilse Marchbank' },
      },
      {
        title: 'Visit status',
        note: 'How far a visit has come.',
        ranges: ['Visit status'],
        kept: {
          Expected: { colour: 'olive' },
          Alongside: { colour: 'teal' },
          Departed: { colour: 'slate' },
          Shifted: { colour: 'damson', note: 'Moved to another berth during the visit.' },
        },
      },
      { title: 'Quays', note: 'Where ships come alongside.', ranges: ['Quays'] },
      {
        title: 'Services',
        note: 'What the harbour does for a ship, cranes included.',
        ranges: ['Services', 'Cranes'],
        stewards: ['tobin'],
      },
      { title: 'Berths', note: 'Every berth under its quay.', ranges: ['Berths by quay'] },
      {
        title: 'Berths that fit',
        note: 'Every berth under its quay, with the longest ship it takes.',
        parts: [
          {
            kind: 'keyed',
            join: 'or',
            catalogId: 'Quays',
            by: null,
            registerId: 'Berth details',
            key: 'quay',
            value: 'berth',
            label: null,
            companions: ['length'],
          },
        ],
      },
      {
        title: 'Cargo',
        note: 'What ships carry, in groups; each item with its unit.',
        parts: [fromRange('Cargo', { companions: ['unit', 'hazard'] })],
      },
      {
        title: 'Flags',
        note: 'Flag registries: the name is shown, the code is stored.',
        parts: [fromRange('Flag registries', { label: 'name' })],
        order: { by: 'alphabetical' },
      },
      {
        title: 'Dues rates',
        note: 'What of the value is due, from which day.',
        parts: [fromRange('Dues rates', { companions: ['from'] })],
        order: { by: 'companion', field: 'from', direction: 'down' },
      },
      { title: 'Ship brokers', note: 'Who answers for a ship ashore.', ranges: ['Ship brokers'], order: { by: 'alphabetical' } },
      {
        title: 'Tugs',
        note: 'Vessels that can help others: by call sign, shown by name.',
        parts: [
          {
            kind: 'query',
            join: 'or',
            registerId: 'Vessels',
            value: 'call_sign',
            label: 'name',
            companions: ['length'],
            filter: { all: true, conditions: [{ field: 'class', is: 'is', value: 'tug' }] },
          },
        ],
        order: { by: 'alphabetical' },
      },
      {
        title: 'Vessels',
        note: 'Every ship the office knows: its call sign is stored, its name is shown.',
        parts: [
          {
            kind: 'query',
            join: 'or',
            registerId: 'Vessels',
            value: 'call_sign',
            label: 'name',
            companions: ['class', 'length'],
            filter: null,
          },
        ],
        order: { by: 'alphabetical' },
      },
      {
        title: 'Works without cranes',
        note: 'What is done for a ship by hand.',
        parts: [
          { kind: 'catalog', join: 'or', catalogId: 'Services' },
          { kind: 'range', join: 'without', rangeId: 'Cranes', label: null, companions: [] },
        ],
      },
    ],
    entrySheets: [
      {
        title: 'Berth visits',
        note: 'Every ship that comes alongside, from announcement to departure.',
        fields: [
          { key: 'visit', heading: 'Visit', kind: 'text', width: 92 },
          {
            key: 'vessel',
            heading: 'Vessel',
            kind: 'text',
            width: 140,
            rule: {
              ...bound('Vessels', 'The ship by its name or its call sign; its length comes along.'),
              brings: [{ companion: 'length', field: 'length' }],
            },
          },
          { key: 'length', heading: 'Length, m', kind: 'number', width: 90 },
          {
            key: 'quay',
            heading: 'Quay',
            kind: 'text',
            width: 140,
            group: 'Where and when',
            rule: bound('Quays', 'The quay the ship is announced for.'),
          },
          {
            key: 'berth',
            heading: 'Berth',
            kind: 'text',
            width: 100,
            group: 'Where and when',
            rule: {
              ...bound('Berths that fit', 'Where at the quay the ship lies; only berths that are long enough.'),
              level: 1,
              parents: ['quay'],
              fitting: [{ companion: 'length', is: 'at least', field: 'length' }],
            },
          },
          { key: 'arrival', heading: 'Arrival', kind: 'date', width: 108, group: 'Where and when' },
          {
            key: 'departure',
            heading: 'Departure',
            kind: 'date',
            width: 108,
            group: 'Where and when',
            rule: { kind: 'date', from: { of: 'field', field: 'arrival', plus: 0 }, hint: 'Blank until the ship has left.' },
          },
          { key: 'status', heading: 'Status', kind: 'text', width: 120, rule: bound('Visit status', 'How far the visit has come.') },
          {
            key: 'pilot',
            heading: 'Pilot',
            kind: 'text',
            width: 150,
            rule: bound('Pilots', 'Who brings the ship in; blank when nobody does.'),
          },
          { key: 'cargo', heading: 'Cargo', kind: 'text', width: 150, group: 'Cargo and dues' },
          {
            key: 'goods_group',
            heading: 'Goods group',
            kind: 'text',
            width: 120,
            group: 'Cargo and dues',
            rule: { ...bound('Cargo', 'What the cargo is in the harbour’s own list; the group first, or the goods at once.'), level: 0 },
          },
          {
            key: 'goods_sub',
            heading: 'Sub-group',
            kind: 'text',
            width: 130,
            group: 'Cargo and dues',
            rule: { ...bound('Cargo', ''), level: 1, parents: ['goods_group'], blankParent: 'all' },
          },
          {
            key: 'goods',
            heading: 'Goods',
            kind: 'text',
            width: 190,
            group: 'Cargo and dues',
            rule: {
              ...bound('Cargo', 'Its unit comes along.'),
              level: 2,
              parents: ['goods_group', 'goods_sub'],
              blankParent: 'all',
              brings: [{ companion: 'unit', field: 'unit' }],
            },
          },
          { key: 'unit', heading: 'Unit', kind: 'text', width: 64, group: 'Cargo and dues' },
          {
            key: 'quantity',
            heading: 'Quantity, t',
            kind: 'number',
            width: 104,
            group: 'Cargo and dues',
            rule: { kind: 'number', least: { of: 'number', number: '0' }, hint: 'In tonnes.' },
          },
          {
            key: 'rate',
            heading: 'Dues rate',
            kind: 'percent',
            width: 96,
            group: 'Cargo and dues',
            rule: { ...bound('Dues rates', 'The rate that holds on the day of arrival.'), day: 'arrival' },
          },
          {
            key: 'plan',
            heading: 'Plan code',
            kind: 'text',
            width: 100,
            rule: { kind: 'length', least: 6, most: 6, hint: 'Exactly six characters, from the berth plan.' },
          },
          { key: 'shore_power', heading: 'Shore power', kind: 'yes/no', width: 104 },
          {
            key: 'services',
            heading: 'Services',
            kind: 'several values',
            width: 190,
            rule: bound('Services', 'What the ship asked for; as many as it needs.'),
          },
          {
            key: 'from',
            heading: 'Comes from',
            kind: 'text',
            width: 130,
            rule: bound('Neighbour ports', 'The last port, from the list service of the coast.'),
          },
          {
            key: 'tariff',
            heading: 'Tariff',
            kind: 'text',
            width: 140,
            rule: bound('Tariffs', 'The document that holds for this visit, from the tariff folder.'),
          },
          { key: 'remarks', heading: 'Remarks', kind: 'text', width: 220 },
        ],
        entries: berthVisits(moment, ships, longest),
      },
      {
        title: 'Crane hours',
        note: 'Which crane worked where, and how long.',
        fields: [
          { key: 'day', heading: 'Day', kind: 'date', width: 108 },
          { key: 'quay', heading: 'Quay', kind: 'text', width: 150, rule: bound('Quays', '') },
          { key: 'service', heading: 'Service', kind: 'text', width: 150, rule: { ...bound('Services', ''), others: 'request' } },
          { key: 'hours', heading: 'Hours', kind: 'number', width: 90 },
          { key: 'pilot', heading: 'Pilot on board', kind: 'text', width: 160, rule: bound('Pilots', '') },
        ],
        entries: craneHours(moment),
      },
      {
        title: 'Vessels',
        note: 'Every ship the office knows, by its call sign.',
        fields: [
          { key: 'call_sign', heading: 'Call sign', kind: 'text', width: 100 },
          { key: 'name', heading: 'Name', kind: 'text', width: 150 },
          { key: 'class', heading: 'Class', kind: 'text', width: 120, group: 'Ship' },
          {
            key: 'flag',
            heading: 'Flag',
            kind: 'text',
            width: 140,
            group: 'Ship',
            rule: bound('Flags', 'Type the code or the name of the registry.'),
          },
          { key: 'length', heading: 'Length, m', kind: 'number', width: 100, group: 'Ship' },
          { key: 'broker', heading: 'Broker', kind: 'text', width: 180, group: 'Ashore', rule: bound('Ship brokers', '') },
          {
            key: 'usual_berth',
            heading: 'Usual berth',
            kind: 'text',
            width: 120,
            group: 'Ashore',
            rule: bound('Berths for long ships', 'For ships of 120 m and more.'),
          },
        ],
        entries: ships,
      },
      {
        title: 'Crew contacts',
        note: 'Whom to call on board, and what the launch costs them.',
        fields: [
          { key: 'name', heading: 'Name', kind: 'text', width: 180 },
          { key: 'vessel', heading: 'Vessel', kind: 'text', width: 160, rule: bound('Vessels', 'The ship by its name or its call sign.') },
          { key: 'duty', heading: 'Duty', kind: 'text', width: 130, rule: { kind: 'typed', values: duties } },
          { key: 'channel', heading: 'Channel', kind: 'text', width: 100 },
          {
            key: 'launch_fee',
            heading: 'Launch fee',
            kind: 'amount',
            width: 120,
            rule: { kind: 'number', least: { of: 'number', number: '0' }, most: null, decimals: null, hint: 'For one way.' },
          },
        ],
        entries: crew(ships),
      },
      ...formSheets(moment, ships, berths),
    ],
    forms: demoForms,
    figures: demoFigures,
    requests: [{ sheet: 'Crane hours', field: 'service', values: Object.values(askedFor), by: 'mara' }],
  };
}
