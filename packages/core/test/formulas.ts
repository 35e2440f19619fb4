// A small reader of the formulas in written workbooks, of just the functions that are used. It shares no code with what writes them.

type Area = { readonly sheet: string; readonly row: number; readonly column: number; readonly rows: number; readonly columns: number };
type Scalar = string | number | boolean;
type Value = Scalar | Area | readonly Scalar[];

export interface Workbook {
  cell(sheet: string, row: number, column: number): Scalar;
  readonly names: ReadonlyMap<string, string>;
  readonly today: number;
}

const isArea = (value: Value): value is Area => typeof value === 'object' && 'sheet' in value;

/** The texts that a list formula offers in a row of a sheet; formulas are written for row 2. */
export function offeredBy(formula: string, book: Workbook, sheet: string, row: number): Scalar[] {
  if (formula.startsWith('"')) return formula.slice(1, -1).replaceAll('""', '"').split(',');
  return scalars(evaluate(formula, book, sheet, row), book).filter((text) => text !== '');
}

function scalars(value: Value, book: Workbook): Scalar[] {
  if (!isArea(value)) return Array.isArray(value) ? [...(value as readonly Scalar[])] : [value as Scalar];
  return Array.from({ length: value.rows * value.columns }, (_, at) =>
    book.cell(value.sheet, value.row + Math.floor(at / value.columns), value.column + (at % value.columns)),
  );
}

/** What a formula of one cell comes to in a row of a sheet. */
export const calculated = (formula: string, book: Workbook, sheet: string, row: number): Scalar =>
  scalars(evaluate(formula, book, sheet, row), book)[0]!;

function evaluate(formula: string, book: Workbook, sheet: string, row: number): Value {
  const tokens =
    formula.match(
      /"(?:[^"]|"")*"|\d+(?:\.\d+)?(?:E\+\d+)?|(?:(?:'[^']+'|[\p{L}_][\p{L}\p{N}_]*)!)?\$?[A-Z]{1,3}\$?\d+|[\p{L}_][\p{L}\p{N}_.]*|[-+*&=(),:]/gu,
    ) ?? [];
  if (tokens.join('') !== formula) throw new Error(`Not read: ${formula}`);
  let at = 0;
  const next = () => tokens[at++]!;
  const numbers = (value: Value) => scalars(value, book).map(Number);
  const each = (a: Value, b: Value, by: (one: Scalar, other: Scalar) => Scalar): Value => {
    const [left, right] = [scalars(a, book), scalars(b, book)];
    const length = Math.max(left.length, right.length);
    const all = Array.from({ length }, (_, index) => by(left[left.length === 1 ? 0 : index]!, right[right.length === 1 ? 0 : index]!));
    return all.length === 1 ? all[0]! : all;
  };
  const reference = (token: string): Area => {
    const [, where, letters, absolute, digits] = /^(?:(.+)!)?\$?([A-Z]+)(\$?)(\d+)$/u.exec(token)!;
    const column = [...letters!].reduce((sum, letter) => sum * 26 + letter.charCodeAt(0) - 64, 0) - 1;
    const shift = absolute === '$' ? 0 : row - 2;
    return { sheet: where?.replaceAll("'", '') ?? sheet, row: Number(digits) + shift, column, rows: 1, columns: 1 };
  };
  const apply = (name: string, values: readonly Value[]): Value => {
    switch (name) {
      case 'OFFSET': {
        const [from, down, right, rows, columns] = values as [Area, Scalar, Scalar, Scalar, Scalar];
        const area = {
          ...from,
          row: from.row + Number(down),
          column: from.column + Number(right),
          rows: Number(rows),
          columns: Number(columns),
        };
        if (area.row < 1 || area.row + area.rows - 1 > 1_048_576 || area.rows < 1) throw new Error('A reference that is none.');
        return area;
      }
      case 'ROW': {
        const area = values[0] as Area;
        return area.rows === 1 ? area.row : Array.from({ length: area.rows }, (_, index) => area.row + index);
      }
      case 'MAX':
        return Math.max(...values.flatMap(numbers));
      case 'SUMPRODUCT':
        return values.flatMap(numbers).reduce((sum, number) => sum + number, 0);
      case 'COUNTA':
        return scalars(values[0]!, book).filter((held) => held !== '').length;
      case 'EXACT':
        return each(values[0]!, values[1]!, (one, other) => String(one) === String(other));
      case 'TODAY':
        return book.today;
      case 'IF':
        return scalars(values[0]!, book)[0] ? values[1]! : values[2]!;
      default:
        throw new Error(`No such function: ${name}`);
    }
  };
  const primary = (): Value => {
    const token = next();
    if (token === '(') {
      const inner = comparison();
      next();
      return inner;
    }
    if (token === '-') return each(0, primary(), (zero, other) => Number(zero) - Number(other));
    if (token.startsWith('"')) return token.slice(1, -1).replaceAll('""', '"');
    if (/^\d/u.test(token)) return Number(token);
    if (tokens[at] === '(') {
      next();
      const values: Value[] = [];
      while (tokens[at] !== ')') {
        values.push(comparison());
        if (tokens[at] === ',') next();
      }
      next();
      return apply(token, values);
    }
    const named = book.names.get(token);
    if (named !== undefined) return evaluate(named, book, sheet, row);
    const from = reference(token);
    if (tokens[at] !== ':') return from;
    next();
    const until = reference(next());
    return { ...from, rows: until.row - from.row + 1, columns: until.column - from.column + 1 };
  };
  const product = (): Value => {
    let value = primary();
    while (tokens[at] === '*') {
      next();
      value = each(value, primary(), (one, other) => Number(one) * Number(other));
    }
    return value;
  };
  const sum = (): Value => {
    let value = product();
    while (tokens[at] === '+' || tokens[at] === '-') {
      const sign = next() === '+' ? 1 : -1;
      value = each(value, product(), (one, other) => Number(one) + sign * Number(other));
    }
    return value;
  };
  const joined = (): Value => {
    let value = sum();
    while (tokens[at] === '&') {
      next();
      value = each(value, sum(), (one, other) => `${String(one)}${String(other)}`);
    }
    return value;
  };
  function comparison(): Value {
    const value = joined();
    if (tokens[at] !== '=') return value;
    next();
    return each(value, joined(), (one, other) => one === other);
  }
  return comparison();
}
