// A stored value as a cell of a workbook holds it: a number, a day or a text. What cannot be held exactly stays a text.
import { dayNumber, isOfKind, isNumeric, type FieldKind } from '../values/index.js';

export type CellValue =
  | { readonly is: 'number'; readonly number: string; readonly decimals: number }
  /** Days since 1899-12-30. */
  | { readonly is: 'day'; readonly serial: number }
  | { readonly is: 'text'; readonly text: string };

/** Both standards keep numbers as IEEE 754 doubles: so many digits come back as they went. */
export const exactDigits = 15;
/** The day from which such programs count (as `dayNumber` counts it). */
export const epoch = dayNumber('1899-12-30');
/** Days before this one are counted differently by programs that take 1900 for a leap year. */
const firstDay = '1900-03-01';

/** `text`: what the cell shows where it is neither a number nor a day. */
export function cellValue(kind: FieldKind, value: string, text: string): CellValue {
  if (kind === 'date' && isOfKind('date', value) && value >= firstDay) return { is: 'day', serial: dayNumber(value) - epoch };
  if (isNumeric(kind) && isOfKind(kind, value) && value.replaceAll(/[-.]|^-?0\.0*/gu, '').length <= exactDigits)
    return { is: 'number', number: value, decimals: value.split('.')[1]?.length ?? 0 };
  return { is: 'text', text };
}

/** Today, or another day, as such programs count days. */
export const serialOf = (day: string): number => dayNumber(day) - epoch;
