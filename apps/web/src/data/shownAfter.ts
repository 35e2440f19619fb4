// What a list shows of acts before the server has done them.
import { grouped, withTexts } from '@dellum/core';
import type { ActDto, EntryView } from '@dellum/contract';

/** The rows of a list as they will be after some acts: new ones, unless they are there already, moved ones, and cells written into them. */
export function shownAfter(entries: readonly EntryView[], acts: readonly ActDto[]): EntryView[] {
  let shown = [...entries];
  for (const { act, rows = [], fields = [], entries: ids, before, cells = [] } of acts) {
    if (act === 'write') {
      const texts = grouped(cells, ({ entry }) => entry);
      shown = shown.map((entry) =>
        texts.has(entry.id)
          ? {
              ...entry,
              cells: withTexts(
                entry.cells,
                texts.get(entry.id)!.map(({ field, text }) => [field, text] as const),
              ),
            }
          : entry,
      );
    }
    if (act === 'move') {
      const moved = shown.filter(({ id }) => ids?.includes(id));
      const rest = shown.filter(({ id }) => !ids?.includes(id));
      const place = before === undefined ? -1 : rest.findIndex(({ id }) => id === before);
      shown = place < 0 ? [...rest, ...moved] : [...rest.slice(0, place), ...moved, ...rest.slice(place)];
    }
    if (act !== 'insert' || !ids || shown.some(({ id }) => id === ids[0])) continue;
    const made = rows.map((texts, at): EntryView => ({
      id: ids[at]!,
      version: 1,
      cells: Object.fromEntries(texts.flatMap((text, column) => (text.trim() === '' ? [] : [[fields[column]!, text]]))),
    }));
    const place = before === undefined ? -1 : shown.findIndex(({ id }) => id === before);
    shown = place < 0 ? [...shown, ...made] : [...shown.slice(0, place), ...made, ...shown.slice(place)];
  }
  return shown;
}
