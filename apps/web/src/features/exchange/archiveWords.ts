// What is in a house archive, in words.
import type { NamedParts, WayIn } from '@dellum/core';
import type { ArchiveCounts } from '@dellum/contract';
import { number } from '../../frame/written.js';

const things: { readonly [Part in keyof ArchiveCounts]: readonly [one: string, many: string] } = {
  sheets: ['sheet', 'sheets'],
  entries: ['entry', 'entries'],
  lists: ['list', 'lists'],
  rows: ['row in lists', 'rows in lists'],
  ranges: ['range', 'ranges'],
  catalogs: ['catalog', 'catalogs'],
  linked: ['linked source', 'linked sources'],
  forms: ['form', 'forms'],
  figures: ['figure', 'figures'],
  groups: ['group of people', 'groups of people'],
  people: ['person', 'people'],
};

/** "9 sheets, 12 lists, 3,917 entries"; what there is none of is left out. */
export function countsWords(counts: ArchiveCounts): string {
  const named = (Object.keys(things) as (keyof ArchiveCounts)[]).filter((part) => counts[part] > 0);
  return named.map((part) => `${number.format(counts[part])} ${things[part][counts[part] === 1 ? 0 : 1]}`).join(', ') || 'nothing';
}

export const partWords: { readonly [Part in NamedParts]: string } = {
  sheets: 'Sheets',
  ranges: 'Ranges',
  catalogs: 'Catalogs',
  linked: 'Linked sources',
  forms: 'Forms',
  figures: 'Figures',
  groups: 'Groups of people',
  people: 'People',
};

/** How something comes in where there is no choice. */
export const onlyWayWords: { readonly [Way in WayIn]: (instead: string) => string } = {
  here: () => 'the one that is here stays as it is',
  beside: (instead) => `comes in as “${instead}”`,
  'left out': () => 'is left out',
};

/** The ways in which something can come in whose name is taken. */
export const wayWords: { readonly [Way in WayIn]: (instead: string) => string } = {
  here: () => 'use the one that is here',
  beside: (instead) => `bring it in as “${instead}”`,
  'left out': () => 'leave it out',
};
