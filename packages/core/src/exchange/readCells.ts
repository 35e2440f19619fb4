// What cells of workbooks hold, from the way in which the standards write it.
import { dayOf } from '../values/index.js';
import type { CameBack } from './comparing.js';
import { epoch } from './cellValue.js';

const letters = 26;
const codeOfA = 65;

/** The column of a reference of A1 notation, counted from 0; undefined where it names none. */
export function columnOf(reference: string): number | undefined {
  const name = /^[A-Za-z]{1,9}/u.exec(reference)?.[0].toUpperCase();
  return name === undefined ? undefined : [...name].reduce((sum, letter) => sum * letters + letter.charCodeAt(0) - codeOfA + 1, 0) - 1;
}

/** The formats of ISO/IEC 29500 that stand for days and times without being written out, by their numbers. */
const standingDays: readonly (readonly [from: number, until: number])[] = [
  [14, 22],
  [27, 36],
  [45, 47],
  [50, 58],
];
const standingTimes = new Set([18, 19, 20, 21, 32, 33, 45, 46, 47]);

export type Counts = 'number' | 'day' | 'time';

/** What numbers in a format of ISO/IEC 29500 (18.8.30) count. `code`: as it is written out, where it is. */
export function countsIn(id: number, code: string | undefined): Counts {
  if (code === undefined) {
    if (standingTimes.has(id)) return 'time';
    return standingDays.some(([from, until]) => id >= from && id <= until) ? 'day' : 'number';
  }
  const shown = code.split(';')[0]!.replaceAll(/"[^"]*"|\\.|_.|\*.|\[(?![hms]+\])[^\]]*\]/giu, '');
  if (/[dy]/iu.test(shown)) return 'day';
  if (/h|s|\[m+\]/iu.test(shown)) return 'time';
  return /m/iu.test(shown) ? 'day' : 'number';
}

/** The system that counts days from 1904-01-01 is so many days behind. */
const behind1904 = 1462;
/** Programs that count from 1900 take it for a leap year: this is the day that never was, and those before it are one off. */
const neverWas = 60;

const twoDigits = (whole: number): string => String(whole).padStart(2, '0');

function clock(part: number): string {
  const seconds = Math.round(part * 86_400);
  const rest = seconds % 60;
  return `${twoDigits(Math.floor(seconds / 3600))}:${twoDigits(Math.floor(seconds / 60) % 60)}${rest === 0 ? '' : `:${twoDigits(rest)}`}`;
}

/**
 * A number in a cell that counts days: a day, or a text where it is a moment, which no field keeps. `from1904`: days are counted from
 * 1904-01-01 instead of 1900.
 */
export function daysRead(serial: number, counts: 'day' | 'time', from1904: boolean): CameBack {
  const whole = Math.floor(serial);
  const part = serial - whole;
  if (counts === 'time' && serial >= 0) return { is: 'text', text: clock(serial) };
  if (whole < 0 || whole > 2_958_465) return { is: 'number', number: serial };
  if (!from1904 && whole === neverWas) return { is: 'text', text: '1900-02-29' };
  const counted = from1904 ? whole + behind1904 : whole < neverWas ? whole + 1 : whole;
  if (part < 1 / 172_800) return { is: 'day', serial: counted };
  return { is: 'text', text: `${dayOf(counted + epoch)} ${clock(part)}` };
}

/** A text of ISO/IEC 29500 in which what XML cannot hold is written as `_xHHHH_` (ST_Xstring). */
export const unescaped = (text: string): string =>
  text.includes('_x')
    ? text.replaceAll(/_x([0-9A-Fa-f]{4})_/gu, (_whole, code: string) => String.fromCharCode(Number.parseInt(code, 16)))
    : text;
