// What the cells of a list or table show, and the acts that a pasted block makes of them.
import { format, isBlank, type Locale } from '@dellum/core';
import type { ActDto, FieldView } from '@dellum/contract';
import type { CellLook, Place } from '../../grid/index.js';
import { isInList, pendingKey, type SourceRegister } from '../acts/useRegister.js';

/** The text of a cell as it is shown and edited. */
export function shownText(source: SourceRegister, { row, column }: Place, locale: Locale): string {
  const field = source.register.fields[column];
  const value = field && source.rows[row]?.cells[field.key];
  return value === undefined ? '' : format(field!.kind, value, locale);
}

export function lookOf(source: SourceRegister, place: Place, locale: Locale): CellLook {
  const { row, column } = place;
  const entry = source.rows[row];
  const field = source.register.fields[column]!;
  if (!entry) return { text: column === 0 ? 'type to add' : '', tone: 'faint' };
  const draft = source.draftOf(entry.id, field.key);
  if (draft)
    return draft.state === 'waiting'
      ? { text: draft.text, tone: 'waiting', said: 'waits to be stored' }
      : { text: draft.text, tone: 'refused', said: `refused: ${draft.message}` };
  const text = shownText(source, place, locale);
  if (source.pending.deleted.has(entry.id)) return { text, tone: 'pending', said: 'to be deleted; waits for an answer' };
  const becomes = source.pending.texts.get(pendingKey(entry.id, field.key));
  if (becomes !== undefined) return { text: becomes, tone: 'pending', said: `was ${text}; waits for an answer` };
  for (const { range, stretch, leftOut, markAt } of source.rails) {
    if (!stretch.fields.includes(field.key)) continue;
    const mark = markAt(source.entries[row] === entry ? row : source.entries.indexOf(entry));
    if (mark === 'missed' && text !== '')
      return {
        text,
        tone: 'missed',
        said: `${leftOut.find((left) => left.entry === entry.id)?.why ?? 'past the end'} of ${range.name}, not offered`,
      };
    if (mark === 'skipped' && text !== '' && field.key === stretch.fields.at(-1))
      return { text, tone: 'struck', said: 'a repeat, offered once' };
  }
  return { text, tone: 'plain' };
}

/** The acts of a block that goes in at a place: it writes over the rows that are there and adds the others below. */
export function actsOfBlock(source: SourceRegister, block: readonly (readonly string[])[], at: Place): ActDto[] {
  const fields = source.register.fields.slice(at.column);
  const cellsOf = (texts: readonly string[]) => texts.slice(0, fields.length).map((text, column) => ({ field: fields[column]!.key, text }));
  const over = (row: number) => source.rows[at.row + row];
  const cells = block.flatMap((texts, row) => {
    const entry = over(row);
    return isInList(entry) ? cellsOf(texts).map((cell) => ({ entry: entry.id, ...cell })) : [];
  });
  const rows = block.filter((_, row) => !isInList(over(row))).map((texts) => texts.slice(0, fields.length));
  return [
    ...(cells.length > 0 ? [{ act: 'write', cells } as const] : []),
    // Under ids of ours: they are shown before they are stored.
    ...(rows.length > 0
      ? [{ act: 'insert', entries: rows.map(() => crypto.randomUUID()), fields: fields.map(({ key }) => key), rows } as const]
      : []),
  ];
}

/** So much of a block is stored at once; a larger one is stored part by part, and one sees how far it is. */
const rowsInPart = 5000;
const cellsInPart = 20_000;

const slices = <T>(items: readonly T[], size: number): T[][] =>
  Array.from({ length: Math.ceil(items.length / size) }, (_, at) => items.slice(at * size, (at + 1) * size));

export interface ActPart {
  readonly acts: readonly ActDto[];
  /** How many rows it brings. */
  readonly rows: number;
}

/** The parts in which the acts of a block are stored. */
export function partsOf(acts: readonly ActDto[], columns: number): ActPart[] {
  return acts.flatMap((act): ActPart[] =>
    act.act === 'write'
      ? slices(act.cells ?? [], cellsInPart).map((cells) => ({ acts: [{ ...act, cells }], rows: Math.ceil(cells.length / columns) }))
      : slices(act.rows ?? [], rowsInPart).map((rows, at) => ({
          acts: [{ ...act, rows, ...(act.entries && { entries: act.entries.slice(at * rowsInPart, (at + 1) * rowsInPart) }) }],
          rows: rows.length,
        })),
  );
}

/** The acts that make some cells blank; none where they are blank already. */
export function actsOfClearing(
  rows: readonly { id: string; cells: Readonly<Record<string, string>> }[],
  fields: readonly FieldView[],
): ActDto[] {
  const cells = rows.flatMap((entry) =>
    fields.filter(({ key }) => key in entry.cells).map(({ key }) => ({ entry: entry.id, field: key, text: '' })),
  );
  return cells.length > 0 ? [{ act: 'write', cells }] : [];
}

/** What a column holds already, for the look at a paste. */
export const columnTexts = (source: SourceRegister, column: number): string[] => {
  const key = source.register.fields[column]?.key;
  return key === undefined
    ? []
    : source.entries.flatMap(({ cells }) => (cells[key] === undefined || isBlank(cells[key]) ? [] : [cells[key]]));
};
