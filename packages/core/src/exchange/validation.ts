// A check as a formula of the standards (ISO/IEC 29500; the functions are in OpenFormula, ISO/IEC 26300, too). Only OFFSET, COUNTA, MAX,
// SUMPRODUCT, EXACT, ROW, IF and TODAY are used.
import type { FieldId } from '../registers/index.js';
import { serialOf } from './cellValue.js';
import type { BookList, Check, Edge } from './models.js';

export interface Validation {
  readonly type: 'list' | 'date' | 'decimal' | 'whole' | 'textLength';
  readonly operator?: 'between' | 'greaterThanOrEqual' | 'lessThanOrEqual';
  readonly formulas: readonly string[];
}

/**
 * What parts the parents of a row in the key of a list. It is drawn by no program, allowed in XML, and in no stored value: `clean` drops
 * it.
 */
export const keyMark = '\u2063';
/** The first row of entries and of list values; the headings stand above. */
export const firstRow = 2;
/** So many rows stand free below a list, for values that are added by hand. */
export const spareRows = 1000;

/** A1 notation of a column counted from 0. */
export function columnName(at: number): string {
  const rest = Math.floor(at / 26);
  return `${rest > 0 ? columnName(rest - 1) : ''}${String.fromCharCode(65 + (at % 26))}`;
}

/** The formulas of a check, in the first row; `columnOf` gives the place of another column, counted from 0. */
export function validationOf(check: Check, columnOf: (key: FieldId) => number): Validation | null {
  const cell = (key: FieldId) => `$${columnName(columnOf(key))}${firstRow}`;
  switch (check.check) {
    case 'list':
      return { type: 'list', formulas: [check.list] };
    case 'list under':
      return { type: 'list', formulas: [under(check.list, check.parents.map(cell).join(`&"${keyMark}"&`))] };
    case 'values':
      return { type: 'list', formulas: [`"${check.values.join(',').replaceAll('"', '""')}"`] };
    case 'day':
      return between('date', edge(check.from, cell, serialOf, false), edge(check.until, cell, serialOf, true));
    case 'number':
    case 'whole number':
      return between(
        check.check === 'number' ? 'decimal' : 'whole',
        edge(check.from, cell, String, false),
        edge(check.until, cell, String, true),
      );
    case 'length':
      return between('textLength', check.least, check.most);
  }
}

/**
 * The rows of a list whose key is that of the parents. Where none is, the blank cell below the list is offered: no error, and nothing to
 * choose. EXACT compares capital letters, too, and takes no sign for a wildcard.
 */
const under = (list: string, key: string): string =>
  `OFFSET(${list},ROW(${list}_end)-SUMPRODUCT(MAX(EXACT(${list}_keys,${key})*(ROW(${list}_end)-ROW(${list}_keys))))-ROW(${list}),0,` +
  `MAX(1,SUMPRODUCT(--EXACT(${list}_keys,${key}))),1)`;

function between(type: Validation['type'], from: number | string | null, until: number | string | null): Validation | null {
  if (from !== null && until !== null) return { type, operator: 'between', formulas: [String(from), String(until)] };
  if (from !== null) return { type, operator: 'greaterThanOrEqual', formulas: [String(from)] };
  return until === null ? null : { type, operator: 'lessThanOrEqual', formulas: [String(until)] };
}

/** The last day and the greatest number that are counted; a blank cell beside is no bound. */
const most = '9E+307';

function edge(
  bound: Edge | null,
  cell: (key: FieldId) => string,
  written: (value: string) => string | number,
  isUntil: boolean,
): string | number | null {
  if (!bound) return null;
  const plus = (days: number) => (days === 0 ? '' : days > 0 ? `+${days}` : String(days));
  switch (bound.of) {
    case 'value':
      return written(bound.value);
    case 'today':
      return `TODAY()${plus(bound.plus)}`;
    case 'column': {
      const at = `${cell(bound.key)}${plus(bound.plus)}`;
      return `IF(${cell(bound.key)}="",${isUntil ? most : `-${most}`},${at})`;
    }
  }
}

/**
 * What the names of a list stand for, with its columns on the sheet of lists: the key (only under parents) and the value, counted from 0.
 */
export function namesOf(
  list: BookList,
  sheet: string,
  at: { readonly key: number; readonly value: number },
): readonly (readonly [name: string, formula: string])[] {
  const last = firstRow + list.rows.length + spareRows - 1;
  const [key, value] = [columnName(at.key), columnName(at.value)];
  const first = `${sheet}!$${value}$${firstRow}`;
  if (list.levels === 0) return [[list.name, `OFFSET(${first},0,0,MAX(1,COUNTA(${first}:$${value}$${last})),1)`]];
  return [
    [list.name, first],
    [`${list.name}_keys`, `${sheet}!$${key}$${firstRow}:$${key}$${last}`],
    [`${list.name}_end`, `${sheet}!$${key}$${last + 1}`],
  ];
}

/** The same formula as OpenFormula (ISO/IEC 26300-4) writes it: references in brackets, a semicolon between what a function takes. */
export const openFormula = (formula: string): string =>
  formula.replaceAll(
    /"(?:[^"]|"")*"|(?<![\p{L}\p{N}_.])(?:([\p{L}_][\p{L}\p{N}_]*)!)?(\$?[A-Z]{1,3}\$?\d+)(?::(\$?[A-Z]{1,3}\$?\d+))?(?![\p{L}\p{N}_(])|,/gu,
    (token, sheet: string | undefined, first: string | undefined, last: string | undefined) => {
      if (token === ',') return ';';
      if (first === undefined) return token;
      return `[${sheet === undefined ? '' : `$${sheet}`}.${first}${last === undefined ? '' : `:.${last}`}]`;
    },
  );
