// The picker's search behind each key, against four general search libraries on the same keystrokes: words anywhere in the text, the best 50
// and how many there are in all.
import uFuzzy from '@leeoniya/ufuzzy';
import { search, searchIndex, type Item } from '@dellum/core';
import { chance } from '@dellum/demo';
import { Index } from 'flexsearch';
import Fuse from 'fuse.js';
import MiniSearch from 'minisearch';
import { median, percentile, print } from './measure.js';

const most = 50;
const texts = 60;
const keys = 12;

const heads =
  'amber birch copper drift elder flint grove hazel iron juniper kestrel larch marble nettle ochre pewter quartz rowan sorrel thistle'.split(
    ' ',
  );
const tails =
  'bolt brace cable clamp collar coupling flange gasket hinge lever nozzle pulley rivet socket spindle strap valve washer wedge winch'.split(
    ' ',
  );

/** Labels of three words and a number, all different. */
function labelsOf(size: number): string[] {
  const random = chance(97);
  const one = (words: readonly string[]) => words[Math.floor(random() * words.length)]!;
  return Array.from({ length: size }, (_, at) => `${one(heads)} ${one(tails)} ${one(heads)} ${at}`);
}

/** What is typed, key by key: a label from its beginning, its last words first, or parts of its words. */
function keystrokes(labels: readonly string[]): string[] {
  const random = chance(5);
  return Array.from({ length: texts }, (_, at) => {
    const [first, second, third, last] = labels[Math.floor(random() * labels.length)]!.split(' ') as [string, string, string, string];
    return [`${first} ${second} ${last}`, `${last} ${second}`, `${second.slice(1, 4)} ${third.slice(0, 3)}`][at % 3]!;
  }).flatMap((text) => Array.from({ length: Math.min(keys, text.length) }, (_, length) => text.slice(0, length + 1)));
}

type Search = (query: string) => number;

/** Every beginning of every ending of a word is found. */
const endings = (term: string): string[] => Array.from({ length: term.length }, (_, at) => term.slice(at));

const libraries: Readonly<Record<string, (labels: string[]) => Search>> = {
  minisearch(labels) {
    const index = new MiniSearch<{ id: number; label: string }>({ fields: ['label'], processTerm: endings });
    index.addAll(labels.map((label, id) => ({ id, label })));
    return (query) => index.search(query, { prefix: true, combineWith: 'AND', processTerm: (term) => term }).length;
  },
  flexsearch(labels) {
    const index = new Index({ tokenize: 'full' });
    labels.forEach((label, id) => index.add(id, label));
    return (query) => index.search(query, { limit: labels.length }).length;
  },
  'fuse.js'(labels) {
    const index = new Fuse(labels, { threshold: 0, ignoreLocation: true, useExtendedSearch: true });
    return (query) =>
      index.search(
        query
          .split(' ')
          .map((word) => `'${word}`)
          .join(' '),
      ).length;
  },
  ufuzzy(labels) {
    const index = new uFuzzy({ intraMode: 0, interIns: Infinity });
    return (query) => index.search(labels, query, keys, Infinity)[0]?.length ?? 0;
  },
};

interface Spent {
  readonly median: number;
  readonly high: number;
}

function spentBy(find: Search, typed: readonly string[]): Spent {
  for (const query of typed.slice(0, keys)) find(query);
  const spent = typed.slice(keys).map((query) => {
    const started = performance.now();
    find(query);
    return performance.now() - started;
  });
  return { median: median(spent), high: percentile(spent, 0.95) };
}

/** How many labels hold all words, by looking at each. */
const counted = (labels: readonly string[], query: string): number => {
  const words = query.split(' ').filter(Boolean);
  return labels.filter((label) => words.every((word) => label.includes(word))).length;
};

const inWords = ({ median: middle, high }: Spent): string => `${middle.toPrecision(2)} and ${high.toPrecision(2)}`;

function measured(size: number): { readonly ours: Spent; readonly made: number; readonly labels: string[]; readonly typed: string[] } {
  const labels = labelsOf(size);
  const items = labels.map((value): Item => ({ value, path: [], label: value, otherNames: [], state: 'offered', from: [] }));
  const typed = keystrokes(labels);
  const started = performance.now();
  const index = searchIndex({ items });
  const made = performance.now() - started;
  for (const query of typed.slice(0, 40)) {
    const { total } = search(index, query, most);
    if (total !== counted(labels, query)) throw new Error(`“${query}” was found ${total} times, not ${counted(labels, query)} times`);
  }
  // An index of its own: nothing that was asked for above is in its mind.
  const fresh = searchIndex({ items });
  return { ours: spentBy((query) => search(fresh, query, most).total, typed), made, labels, typed };
}

function pickerOf(name: string, size: number): void {
  const { ours, made, labels, typed } = measured(size);
  const others = Object.entries(libraries).map(([library, make]) => ({ library, ...spentBy(make(labels), typed) }));
  print({
    name,
    value: ours.high,
    unit: `ms a key at the 95th percentile (median ${ours.median.toPrecision(2)}; index ${Math.round(made)} ms)`,
    against: `the best of ${others.map((other) => `${other.library} ${inWords(other)}`).join(', ')}; the worse of median and 95th percentile`,
    ratio: Math.min(
      Math.min(...others.map((other) => other.median)) / ours.median,
      Math.min(...others.map((other) => other.high)) / ours.high,
    ),
  });
}

export async function picker5k(): Promise<void> {
  pickerOf('picker.search.5k', 5_000);
}

export async function picker100k(): Promise<void> {
  pickerOf('picker.search.100k', 100_000);
}

/** A frame, milliseconds. */
const frame = 16;

export async function picker1m(): Promise<void> {
  const { ours, made } = measured(1_000_000);
  print({
    name: 'picker.search.1m',
    value: ours.high,
    unit: `ms a key at the 95th percentile (median ${ours.median.toPrecision(2)}; index ${Math.round(made)} ms)`,
    against: `limit ${frame} ms`,
    ratio: frame / ours.high,
  });
}
