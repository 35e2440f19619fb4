// Names that nothing else has yet.
import { longestName } from './forbidden.js';
import { matchKey } from './keys.js';

/** The first of the name itself and the name with 2, 3 … that is not taken. */
function firstFree(isTaken: (name: string) => boolean, named: (end: string) => string, mark: string): string {
  for (let number = 1; ; number++) {
    const name = named(number === 1 ? '' : `${mark}${number}`);
    if (!isTaken(name)) return name;
  }
}

/** The name itself where it is free, else with the first number that makes it so: "Harbour lists 2". What would be too long is cut. */
export function freeAmong(name: string, taken: readonly string[]): string {
  const keys = new Set(taken.map(matchKey));
  return firstFree(
    (tried) => keys.has(matchKey(tried)),
    (end) => `${end === '' ? name : name.slice(0, longestName - end.length)}${end}`,
    ' ',
  );
}

const words = (name: string, between: string, most: number): string =>
  matchKey(name)
    .normalize('NFD')
    .replace(/[^a-z0-9]+/gu, between)
    .replace(new RegExp(`^${between}|${between}$`, 'gu'), '')
    .slice(0, most);

/** What a name is in addresses: "harbour-lists". `otherwise`: where nothing of it can stand there. */
export const addressKey = (name: string, otherwise: string): string => words(name, '-', 60) || otherwise;

/** A key that no other field has, and that no object of the language has by itself: entries are objects by their keys. */
export function freeFieldKey(heading: string, taken: readonly string[]): string {
  const own = words(heading, '_', 40) || 'field';
  // Names that objects have by nature are passed over wherever objects are read.
  return firstFree(
    (tried) => taken.includes(tried) || tried in Object.prototype || tried === 'prototype',
    (end) => `${own}${end}`,
    '_',
  );
}

/** The same for a key in addresses: "harbour-lists-2". */
export const freeKeyAmong = (key: string, taken: ReadonlySet<string>): string =>
  firstFree(
    (tried) => taken.has(tried),
    (end) => `${key}${end}`,
    '-',
  );
