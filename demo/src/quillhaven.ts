// The Quillhaven Harbour Office: a small harbour, made up, and so is everything in it.
import { demoAccounts } from '@dellum/server';
import type { EntrySheetBlueprint, HouseBlueprint } from './blueprint.js';
import { chance, pick } from './chance.js';

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
const brokers = ['Ashcombe & Lorne', 'Bellweather Shipping', 'Corrow Brothers', 'Dunmarrow Agency', 'Eastlight Brokers', 'Fathom & Daughters'];
const vessels = ['Marrowind', 'Sallow Kestrel', 'Old Tern', 'Pellworm Star', 'Anke Dorsey', 'Grey Halyard', 'Fennick', 'Tilly Orme', 'Brackwater', 'Candle Rose', 'Dunlin', 'Ember Quay', 'Fulmar II', 'Gannet Row', 'Hollow Bell', 'Isla Merrow', 'Juniper Bay', 'Kittiwake', 'Loam', 'Merganser', 'Noctule', 'Oxbow Lady', 'Plover', 'Quern', 'Ruddy Shel', 'Salt Mary', 'Turnstone', 'Umber', 'Velvet Tide', 'Widgeon'];
const cargo = ['Sawn timber', 'Road salt', 'Gravel', 'Frozen fish', 'Grain', 'Scrap metal', 'Empty containers', 'Machine parts'];
const remarks = ['Waits for the tide', 'Needs fenders', 'Crew change', 'Late papers', 'Two lines doubled', 'Pilot ladder wet'];

/** What slipped in before there were lists: spellings that stand outside today. */
const oldPilots: readonly (readonly [string, number])[] = [['R. Tansey', 5], ['B. Calloway', 4], ['Ilse Marchbanks', 3]];
const oldQuays: readonly (readonly [string, number])[] = [['North Basin', 4], ['Lantern Bsn', 4], ['Salt Quai', 2]];

const day = 86_400_000;
const iso = (moment: number) => new Date(moment).toISOString().slice(0, 10);
const visits = 1512;

function berthVisits(today: number): EntrySheetBlueprint['entries'] {
  const random = chance(4170);
  const start = today - 400 * day;
  return Array.from({ length: visits }, (_, at) => {
    const arrival = start + Math.floor((at / visits) * 414) * day;
    const stay = 1 + Math.floor(random() * 4);
    const quay = pick(random, [['Lantern Basin', 5], ['Heron Mole', 4], ['Salt Quay', 3], ['Timber Pond', 2]]);
    const cells: Record<string, string> = { visit: `QV-${String(616 + at).padStart(4, '0')}`, vessel: vessels[Math.floor(random() * vessels.length)]!, arrival: iso(arrival) };
    cells['quay'] = random() < 0.012 ? pick(random, oldQuays) : quay;
    if (random() < 0.94) cells['berth'] = berths[quay]![Math.floor(random() * berths[quay]!.length)]!;
    const left = arrival + stay * day <= today;
    if (left) cells['departure'] = iso(arrival + stay * day);
    cells['status'] = left ? 'Departed' : arrival <= today ? pick(random, [['Alongside', 5], ['Shifted', 1]]) : 'Expected';
    const hasPilot = arrival <= today || random() < 0.3;
    if (hasPilot && random() < 0.82) cells['pilot'] = random() < 0.012 ? pick(random, oldPilots) : pick(random, [['Tam Ossel', 40], ['Bryn Calloway', 38], ['Ilse Marchbank', 25], ['Rook Tansy', 10], ['Corin Vale', 4], ['Odd Fenwright', 2]]);
    if (random() < 0.85) cells['cargo'] = cargo[Math.floor(random() * cargo.length)]!;
    if (cells['cargo']) cells['quantity'] = String(Math.round(random() * 4800) / 2 + 20);
    cells['rate'] = pick(random, [['0.03', 2], ['0.075', 5], ['0.2', 1]]);
    cells['plan'] = `${'ABCDEFGH'[Math.floor(random() * 8)]!}${String(Math.floor(random() * 100_000)).padStart(5, '0')}`;
    cells['shore_power'] = random() < 0.4 ? 'yes' : 'no';
    if (random() < 0.12) cells['remarks'] = remarks[Math.floor(random() * remarks.length)]!;
    return cells;
  });
}

function craneHours(today: number): EntrySheetBlueprint['entries'] {
  const random = chance(80);
  return Array.from({ length: 320 }, (_, at) => ({
    day: iso(today - (320 - at) * day),
    quay: pick(random, [['Lantern Basin', 5], ['Salt Quay', 4], ['Timber Pond', 2]]),
    service: pick(random, [['Crane 40 t', 6], ['Crane 80 t', 3], ['Lines', 1]]),
    hours: String(1 + Math.floor(random() * 16) / 2),
    ...(random() < 0.5 && { pilot: pick(random, [['Tam Ossel', 4], ['Bryn Calloway', 3], ['Ilse Marchbank', 2]]) }),
  }));
}

const bound = (catalog: string, hint: string, refusalText = '') => ({ catalog, mayBeBlank: true, others: 'refuse' as const, hint, refusalText });

/** The demo house around the day it is started. `key` lets tests load several side by side. */
export function quillhaven(today: Date, key = 'quillhaven'): HouseBlueprint {
  const moment = Date.UTC(today.getFullYear(), today.getMonth(), today.getDate());
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
          { heading: 'Ship brokers', texts: brokers, ranges: [] },
        ],
      },
    ],
    catalogs: [
      { title: 'Pilots', note: 'Who may bring a ship in.', ranges: ['Pilots'], retired: ['Odd Fenwright'], otherNames: { 'T. Ossel': 'Tam Ossel', 'I. Marchbank': 'Ilse Marchbank' } },
      { title: 'Visit status', note: 'How far a visit has come.', ranges: ['Visit status'] },
      { title: 'Quays', note: 'Where ships come alongside.', ranges: ['Quays'] },
      { title: 'Services', note: 'What the harbour does for a ship, cranes included.', ranges: ['Services', 'Cranes'] },
    ],
    entrySheets: [
      {
        title: 'Berth visits',
        note: 'Every ship that comes alongside, from announcement to departure.',
        fields: [
          { key: 'visit', heading: 'Visit', kind: 'text', width: 92 },
          { key: 'vessel', heading: 'Vessel', kind: 'text', width: 130 },
          { key: 'quay', heading: 'Quay', kind: 'text', width: 140, rule: bound('Quays', 'The quay the ship is announced for.') },
          { key: 'berth', heading: 'Berth', kind: 'text', width: 100 },
          { key: 'arrival', heading: 'Arrival', kind: 'date', width: 108 },
          { key: 'departure', heading: 'Departure', kind: 'date', width: 108 },
          { key: 'status', heading: 'Status', kind: 'text', width: 120, rule: bound('Visit status', 'How far the visit has come.') },
          { key: 'pilot', heading: 'Pilot', kind: 'text', width: 150, rule: bound('Pilots', 'Who brings the ship in; blank when nobody does.') },
          { key: 'cargo', heading: 'Cargo', kind: 'text', width: 150 },
          { key: 'quantity', heading: 'Quantity, t', kind: 'number', width: 104 },
          { key: 'rate', heading: 'Dues rate', kind: 'percent', width: 96 },
          { key: 'plan', heading: 'Plan code', kind: 'text', width: 100 },
          { key: 'shore_power', heading: 'Shore power', kind: 'yes/no', width: 104 },
          { key: 'remarks', heading: 'Remarks', kind: 'text', width: 220 },
        ],
        entries: berthVisits(moment),
      },
      {
        title: 'Crane hours',
        note: 'Which crane worked where, and how long.',
        fields: [
          { key: 'day', heading: 'Day', kind: 'date', width: 108 },
          { key: 'quay', heading: 'Quay', kind: 'text', width: 150, rule: bound('Quays', '') },
          { key: 'service', heading: 'Service', kind: 'text', width: 150, rule: bound('Services', '') },
          { key: 'hours', heading: 'Hours', kind: 'number', width: 90 },
          { key: 'pilot', heading: 'Pilot on board', kind: 'text', width: 160, rule: bound('Pilots', '') },
        ],
        entries: craneHours(moment),
      },
    ],
  };
}
