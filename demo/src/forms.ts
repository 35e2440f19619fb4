// The sheets that are filled by forms, and the forms themselves: waste declarations and damage notes.
import type { FormField, FormSection } from '@dellum/core';
import type { EntrySheetBlueprint, FigureBlueprint, FormBlueprint } from './blueprint.js';
import { chance, pick } from './chance.js';

const day = 86_400_000;
const iso = (moment: number) => new Date(moment).toISOString().slice(0, 10);

type Entries = EntrySheetBlueprint['entries'];
type Berths = Readonly<Record<string, readonly string[]>>;

const wasteKinds = ['oily water', 'household waste', 'sewage', 'cargo residue', 'batteries and paint'];
const dangerous = new Set(['oily water', 'batteries and paint']);

/** About four declarations in five days, over a year. */
function wasteDeclarations(today: number, ships: Entries, berths: Berths): Entries {
  const random = chance(27);
  return Array.from({ length: 290 }, (_, at) => {
    const quay = pick(
      random,
      Object.keys(berths).map((name, place) => [name, 5 - place] as const),
    );
    const kind = pick(random, [
      ['oily water', 5],
      ['household waste', 6],
      ['sewage', 3],
      ['cargo residue', 3],
      ['batteries and paint', 1],
    ]);
    return {
      day: iso(today - Math.floor((290 - at) * 1.27) * day),
      vessel: ships[Math.floor(random() * 40)]!['call_sign']!,
      quay,
      berth: berths[quay]![Math.floor(random() * berths[quay]!.length)]!,
      kind,
      volume: String(Math.round(random() * 160) / 4 + 0.25),
      hazardous: dangerous.has(kind) ? 'yes' : 'no',
      ...(dangerous.has(kind) && { danger_code: kind === 'oily water' ? 'QW21' : 'QP08' }),
      ...(random() < 0.15 && {
        remarks: pick(random, [
          ['Barge asked for', 2],
          ['Wait for the crane', 1],
          ['Bins are at the gangway', 2],
        ]),
      }),
    };
  });
}

const damaged = ['fender', 'ladder', 'bollard', 'quay edge', 'lamp', 'crane rail', 'water point'];

function damageNotes(today: number, berths: Berths): Entries {
  const random = chance(35);
  return Array.from({ length: 64 }, (_, at) => {
    const quay = pick(
      random,
      Object.keys(berths).map((name) => [name, 1] as const),
    );
    const severity = pick(random, [
      ['slight', 6],
      ['serious', 3],
      ['dangerous', 1],
    ]);
    const closed = severity === 'dangerous' || random() < 0.15;
    const seen = today - Math.floor((64 - at) * 5.6) * day;
    return {
      seen: iso(seen),
      quay,
      berth: berths[quay]![Math.floor(random() * berths[quay]!.length)]!,
      what:
        damaged
          .filter(() => random() < 0.2)
          .slice(0, 2)
          .join('\u001F') || damaged[Math.floor(random() * damaged.length)]!,
      severity,
      closed_off: closed ? 'yes' : 'no',
      ...(closed && { closed_until: iso(seen + (3 + Math.floor(random() * 20)) * day) }),
      cost: String(40 + Math.floor(random() * 90) * 20),
      note: pick(random, [
        ['Seen on the morning round', 4],
        ['Told by a pilot', 2],
        ['A ship touched it while turning', 2],
        ['Rust', 1],
      ]),
    };
  });
}

const bound = (catalog: string, hint = '') => ({ catalog, mayBeBlank: false, hint });

/** The sheets; `ships` and `berths` are what the rest of the house knows of them. */
export function formSheets(today: number, ships: Entries, berths: Berths): readonly EntrySheetBlueprint[] {
  return [
    {
      title: 'Waste declarations',
      note: 'What ships hand over ashore, declared by a form.',
      fields: [
        {
          key: 'day',
          heading: 'Day',
          kind: 'date',
          width: 108,
          rule: {
            kind: 'date',
            mayBeBlank: false,
            from: null,
            until: { of: 'today', plus: 7 },
            begins: { with: 'today', value: '' },
            hint: 'The day of the hand-over, a week ahead at most.',
          },
        },
        { key: 'vessel', heading: 'Vessel', kind: 'text', width: 150, rule: bound('Vessels', 'The ship by its name or its call sign.') },
        { key: 'quay', heading: 'Quay', kind: 'text', width: 140, rule: bound('Quays') },
        {
          key: 'berth',
          heading: 'Berth',
          kind: 'text',
          width: 110,
          rule: { catalog: 'Berths', level: 1, parents: ['quay'], hint: 'Where the ship lies.' },
        },
        { key: 'kind', heading: 'Kind of waste', kind: 'text', width: 150, rule: { kind: 'typed', values: wasteKinds, mayBeBlank: false } },
        {
          key: 'volume',
          heading: 'Volume, m³',
          kind: 'number',
          width: 104,
          rule: {
            kind: 'number',
            mayBeBlank: false,
            least: { of: 'number', number: '0.05' },
            most: { of: 'number', number: '500' },
            decimals: 2,
            hint: 'In cubic metres.',
          },
        },
        { key: 'hazardous', heading: 'Hazardous', kind: 'yes/no', width: 100, rule: { kind: 'plain', mayBeBlank: false } },
        {
          key: 'danger_code',
          heading: 'Danger code',
          kind: 'text',
          width: 110,
          rule: {
            kind: 'length',
            least: 4,
            most: 4,
            mayBeBlank: false,
            where: { all: true, conditions: [{ field: 'hazardous', is: 'is', value: 'yes' }] },
            hint: 'Four characters, from the ship’s papers.',
          },
        },
        { key: 'remarks', heading: 'Remarks', kind: 'text', width: 220 },
      ],
      entries: wasteDeclarations(today, ships, berths),
    },
    {
      title: 'Damage notes',
      note: 'What is broken on the quays, as people see it.',
      fields: [
        {
          key: 'seen',
          heading: 'Seen on',
          kind: 'date',
          width: 108,
          rule: { kind: 'date', mayBeBlank: false, from: null, until: { of: 'today', plus: 0 }, begins: { with: 'today', value: '' } },
        },
        { key: 'quay', heading: 'Quay', kind: 'text', width: 140, rule: bound('Quays') },
        { key: 'berth', heading: 'Berth', kind: 'text', width: 110, rule: { catalog: 'Berths', level: 1, parents: ['quay'] } },
        {
          key: 'what',
          heading: 'What is damaged',
          kind: 'several values',
          width: 170,
          rule: { kind: 'typed', values: damaged, mayBeBlank: false },
        },
        {
          key: 'severity',
          heading: 'Severity',
          kind: 'text',
          width: 110,
          rule: { kind: 'typed', values: ['slight', 'serious', 'dangerous'], mayBeBlank: false },
        },
        { key: 'closed_off', heading: 'Closed off', kind: 'yes/no', width: 100 },
        {
          key: 'closed_until',
          heading: 'Closed until',
          kind: 'date',
          width: 112,
          rule: { kind: 'date', from: { of: 'field', field: 'seen', plus: 0 }, until: null },
        },
        {
          key: 'cost',
          heading: 'Cost',
          kind: 'amount',
          width: 110,
          rule: { kind: 'number', least: { of: 'number', number: '0' }, most: null, decimals: null },
        },
        { key: 'note', heading: 'Note', kind: 'text', width: 260 },
      ],
      entries: damageNotes(today, berths),
    },
  ];
}

const ask = (field: string, over: Partial<FormField> = {}): FormField => ({
  field,
  help: '',
  control: null,
  wide: false,
  begins: null,
  where: null,
  ...over,
});
const section = (id: string, heading: string, fields: readonly FormField[], over: Partial<FormSection> = {}): FormSection => ({
  id,
  heading,
  help: '',
  columns: 2,
  where: null,
  fields,
  ...over,
});
const yes = (field: string) => ({ all: true, conditions: [{ field, is: 'is' as const, value: 'yes' }] });

const own = (field: string) => ({ field, through: null });

/** Figures that are kept: through a link, over time, and of what is outside. */
export const demoFigures: readonly FigureBlueprint[] = [
  {
    title: 'Waste by kind and month',
    sheet: 'Waste declarations',
    definition: {
      by: [own('kind')],
      time: { path: own('day'), step: 'month' },
      measure: 'sum',
      of: own('volume'),
      only: [],
      chart: 'stacked',
    },
  },
  {
    title: 'Waste by broker',
    sheet: 'Waste declarations',
    definition: {
      by: [{ field: 'broker', through: { link: 'vessel', registerId: 'Vessels' } }, own('kind')],
      time: null,
      measure: 'sum',
      of: own('volume'),
      only: [],
      chart: 'stacked',
    },
  },
  {
    title: 'Visits by quay',
    sheet: 'Berth visits',
    definition: {
      by: [own('quay'), own('berth')],
      time: { path: own('arrival'), step: 'month' },
      measure: 'count',
      of: null,
      only: [],
      chart: 'line',
    },
  },
];

export const demoForms: readonly FormBlueprint[] = [
  {
    title: 'Waste declaration',
    sheet: 'Waste declarations',
    layout: {
      intro: 'One declaration for each kind of waste. It reaches the harbour office at once.',
      thanks: 'The declaration has reached the harbour office.',
      sections: [
        section('ship', 'The ship', [
          ask('vessel', { control: 'picker' }),
          ask('day', { control: 'calendar' }),
          ask('quay', { control: 'radio buttons', wide: true }),
          ask('berth', { control: 'drop-down' }),
        ]),
        section('waste', 'The waste', [
          ask('kind', { control: 'radio buttons', wide: true }),
          ask('volume', { control: 'line' }),
          ask('hazardous', { control: 'yes or no' }),
          ask('danger_code', { control: 'line', where: yes('hazardous') }),
        ]),
        section('more', '', [
          ask('remarks', { control: 'several lines', wide: true, help: 'Anything that whoever takes it should know.' }),
        ]),
      ],
    },
    filled: 24,
  },
  {
    title: 'Damage note',
    sheet: 'Damage notes',
    layout: {
      intro: '',
      thanks: 'Thank you. Somebody will look at it.',
      sections: [
        section('where', 'Where', [
          ask('quay', { control: 'drop-down' }),
          ask('berth', { control: 'drop-down' }),
          ask('seen', { control: 'calendar' }),
        ]),
        section('what', 'What', [
          ask('what', { control: 'check boxes', wide: true }),
          ask('severity', { control: 'radio buttons' }),
          ask('closed_off', { control: 'yes or no' }),
          ask('closed_until', { control: 'calendar', where: yes('closed_off') }),
          ask('note', { control: 'several lines', wide: true }),
        ]),
      ],
    },
    filled: 9,
  },
];
