// What is said of a sheet that is not there for everybody, or not for everything.
import { closingSentence } from '@dellum/core';
import { mayDesign, mayEnter, type BuildView, type Me, type SheetView } from '@dellum/contract';

/** For whom a limited sheet is there, in words; undefined for one that is there for everybody. */
export function limitWords(sheet: SheetView, build: BuildView): string | undefined {
  if (!sheet.limited) return undefined;
  const names = build.groups.filter(({ id }) => sheet.groups.some(({ groupId }) => groupId === id)).map(({ name }) => name);
  return `Only ${[...names, 'administrators'].join(', ')} see this sheet.`;
}

/** What is said of an entry sheet under its title: its note, and what whoever reads it may not take for granted. */
export function aboutSheet(sheet: SheetView, build: BuildView, me: Me): string {
  const enters = sheet.registers.some((register) => register.enters);
  const closings = sheet.registers.flatMap(({ closing, fields }) => (closing ? [closingSentence(closing, fields, me.house.locale)] : []));
  const limits = mayDesign(me.role) ? limitWords(sheet, build) : !enters && mayEnter(me.role) && 'You may look at it; others enter data.';
  const stays = mayDesign(me.role) && !sheet.downloads && 'Only administrators download it.';
  return [sheet.note, limits, stays, ...closings].filter(Boolean).join(' ');
}

export const mayDownload = (sheet: SheetView, me: Me): boolean => mayDesign(me.role) || sheet.downloads;
