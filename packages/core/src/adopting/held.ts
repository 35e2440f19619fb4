// What a cell of a file holds, as a text, and how a field of each kind reads it.
import { epoch } from '../exchange/cellValue.js';
import { plainNumber, type CameBack } from '../exchange/comparing.js';
import { clean, isBlank, storable } from '../text/index.js';
import { takenFor } from '../upkeep/index.js';
import { dayOf, format, isOfKind, type FieldKind, type Locale } from '../values/index.js';

/** Numbers and days in their stored form; a text as it is written, so far as it can be stored. */
export interface Held {
  readonly is: CameBack['is'];
  readonly text: string;
}
/** How a column writes its numbers and days. */
export type Writing = Pick<Locale, 'decimalMark' | 'dateOrder'>;
/** What a field holds of a cell: as its kind reads it, or the text as it stands where it does not. */
export interface ReadCell {
  readonly value: string;
  readonly isRead: boolean;
}

/** Undefined for a cell that is blank after all. */
export function heldOf(cell: CameBack | undefined): Held | undefined {
  const text = cell && textHeldIn(cell);
  return text === undefined ? undefined : { is: cell!.is, text };
}

/** The same, as a text alone. */
export function textHeldIn(cell: CameBack): string | undefined {
  if (cell.is === 'number') return plainNumber(cell.number);
  if (cell.is === 'day') return dayOf(cell.serial + epoch);
  const text = storable(cell.text);
  return isBlank(text) ? undefined : text;
}

/** `locale`: of the house, with the writing of the column. */
export function readHeld(kind: FieldKind, { is, text }: Held, locale: Locale): ReadCell {
  if (is === 'number') {
    if (kind === 'text') return { value: format('number', text, locale), isRead: true };
    return { value: text, isRead: kind !== 'date' && kind !== 'yes/no' && isOfKind(kind, text) };
  }
  if (is === 'day') return { value: text, isRead: kind === 'text' || kind === 'date' };
  if (kind === 'text') return { value: text, isRead: true };
  const taken = takenFor(kind, clean(text), locale);
  return { value: taken ?? text, isRead: taken !== undefined };
}
