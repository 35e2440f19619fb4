// What the core computes over 100,000 values: compiling, the range doctor, look-alikes, searching.
import {
  clean,
  examine,
  houseLocale,
  levelsOf,
  lookAlikes,
  looseKey,
  ofRanges,
  readSourceState,
  slips,
  type Entry,
  type RegisterState,
  type SourceState,
} from '@dellum/core';
import { chance } from '@dellum/demo';
import { median, print, times } from './measure.js';

const size = 100_000;
const heads = [
  'Amber',
  'Birch',
  'Copper',
  'Drift',
  'Elder',
  'Flint',
  'Grove',
  'Hazel',
  'Iron',
  'Juniper',
  'Kestrel',
  'Larch',
  'Marble',
  'Nettle',
  'Ochre',
  'Pewter',
  'Quartz',
  'Rowan',
  'Sorrel',
  'Thistle',
];
const tails = [
  'bolt',
  'brace',
  'cable',
  'clamp',
  'collar',
  'coupling',
  'flange',
  'gasket',
  'hinge',
  'lever',
  'nozzle',
  'pulley',
  'rivet',
  'socket',
  'spindle',
  'strap',
  'valve',
  'washer',
  'wedge',
  'winch',
];

/** Three levels, 20 groups with 20 sub-groups each, in rows as a table repeats them downwards; the cells are not quite clean. */
function table(): SourceState {
  const entries = Array.from({ length: size }, (_, at): Entry => {
    const [group, sub] = [heads[at % 20]!, tails[Math.floor(at / 20) % 20]!];
    return {
      id: `e${at}`,
      cells: {
        group,
        sub: `${group} ${sub}`,
        item: at % 9 === 0 ? ` ${sub}  no. ${at}` : `${sub} no. ${at}`,
        unit: at % 3 === 0 ? 't' : 'kg',
      },
    };
  });
  const register: RegisterState = {
    id: 'r',
    heading: 'Table',
    fields: ['group', 'sub', 'item', 'unit'].map((key) => ({ key, heading: key, kind: 'text' })),
    entries,
  };
  return {
    locale: houseLocale,
    registers: new Map([['r', register]]),
    ranges: [
      {
        id: 'range',
        name: 'Items',
        shape: 'levels',
        inherits: false,
        stretches: [{ registerId: 'r', fields: ['group', 'sub', 'item'], start: { at: 'top' }, end: { ends: 'last' } }],
      },
    ],
    definitions: new Map([
      ['c', { ...ofRanges([]), parts: [{ kind: 'range', join: 'or', rangeId: 'range', label: null, companions: [] }] }],
    ]),
    kept: new Map(),
    linked: new Map(),
  };
}

/** Cleans and dedupes the same cells, and nothing else. */
function barePass({ registers }: SourceState): number {
  const seen = new Set<string>();
  for (const { cells } of registers.get('r')!.entries) for (const key of ['group', 'sub', 'item']) seen.add(clean(cells[key]!));
  return seen.size;
}

export async function catalogCompile(): Promise<void> {
  const sourceState = table();
  const bare = median(await times(7, async () => barePass(sourceState)));
  const ours = median(
    await times(7, async () => {
      const items = readSourceState(sourceState).items('c');
      if (levelsOf(items) !== 3) throw new Error('three levels were expected');
    }),
  );
  print({
    name: 'catalog.compile.100k',
    value: ours,
    unit: 'ms',
    against: 'one pass that cleans and dedupes the same cells',
    ratio: bare / ours,
  });
}

export async function doctor(): Promise<void> {
  const sourceState = table();
  const bare = median(await times(7, async () => barePass(sourceState)));
  const ours = median(await times(7, async () => examine('range', sourceState)));
  print({ name: 'doctor.100k', value: ours, unit: 'ms', against: 'one pass that cleans and dedupes the same cells', ratio: bare / ours });
}

/** One slip of the finger: a letter left out, doubled, wrong, or two swapped. */
function slipped(text: string, random: () => number): string {
  const at = 1 + Math.floor(random() * (text.length - 2));
  const kind = Math.floor(random() * 6);
  if (kind === 0) return text.slice(0, at) + text.slice(at + 1);
  if (kind === 1) return text.slice(0, at) + text[at]! + text.slice(at);
  if (kind === 2) return `${text.slice(0, at)}${text[at] === 'x' ? 'z' : 'x'}${text.slice(at + 1)}`;
  if (kind === 3) return text.slice(0, at) + text[at + 1]! + text[at]! + text.slice(at + 2);
  return kind === 4 ? text.toUpperCase() : ` ${text.replace(' ', '  ')}.`;
}

const letters = 'abcdefghijklmnopqrstuvwxyz';

/** Invented names, far from each other, and slipped spellings of one in twenty. */
function names(): { values: string[]; planted: (readonly [string, string])[] } {
  const random = chance(97);
  const word = (length: number) => Array.from({ length }, () => letters[Math.floor(random() * 26)]!).join('');
  const right = new Set<string>();
  while (right.size < size * 0.95) right.add(`${word(5 + Math.floor(random() * 4))} ${word(5 + Math.floor(random() * 5))}`);
  const planted: (readonly [string, string])[] = [];
  const all = new Set(right);
  for (const name of right) {
    if (all.size >= size) break;
    const wrong = slipped(name, random);
    if (wrong === name || all.has(wrong) || random() < 0.5) continue;
    all.add(wrong);
    planted.push([name, wrong]);
  }
  return { values: [...all].sort(() => random() - 0.5), planted };
}

export async function lookAlike(): Promise<void> {
  const { values, planted } = names();
  const spelled = values.map((value) => ({ value, entries: 0 }));
  let groups = lookAlikes(spelled);
  const ours = median(await times(3, async () => void (groups = lookAlikes(spelled))));
  const groupOf = new Map(groups.flatMap((group, at) => group.map(({ value }) => [value, at] as const)));
  const found = planted.filter(([right, wrong]) => groupOf.has(right) && groupOf.get(right) === groupOf.get(wrong)).length;
  const meant = new Map(planted.map(([right, wrong]) => [wrong, right]));
  const rootOf = (value: string) => meant.get(value) ?? value;
  const pairs = groups.flatMap((group) => group.slice(1).map(({ value }) => [group[0]!.value, value] as const));
  const good = pairs.filter(([a, b]) => rootOf(a) === rootOf(b)).length;
  // All pairs of a sample, extrapolated by the number of pairs.
  const sample = values.slice(0, 1500).map(looseKey);
  const [spent] = await times(1, async () => {
    let near = 0;
    for (let a = 0; a < sample.length; a++) for (let b = a + 1; b < sample.length; b++) if (slips(sample[a]!, sample[b]!, 1) <= 1) near++;
    return near;
  });
  const pairsOf = (count: number) => (count * (count - 1)) / 2;
  const bare = (spent! / pairsOf(sample.length)) * pairsOf(values.length);
  print({
    name: 'lookalikes.100k',
    value: ours,
    unit: 'ms',
    against: `all pairs, extrapolated from ${sample.length} values; recall ${(found / planted.length).toFixed(4)}, precision ${(good / pairs.length).toFixed(4)}`,
    ratio: bare / ours,
  });
}
