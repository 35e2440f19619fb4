// Reads a spreadsheet of ISO/IEC 26300 (OpenDocument).
import { dayNumber, type CameBack, type FileName } from '@dellum/core';
import type { Archive } from './archive.js';
import { withPassword } from './archive.js';
import {
  mostColumns,
  countAnew,
  nothingNoticed,
  UnreadableFile,
  type Noticed,
  type OpenedFile,
  type Piece,
  type ReadRow,
} from './models.js';
import { heardWhole, parsed, tags, tooLong, type Heard } from './xmlParts.js';
import { longestText } from './models.js';
import { ChecksHeard, formulaOf, referenceOf } from './openDocumentChecks.js';

const content = 'content.xml';
const manifest = 'META-INF/manifest.xml';
const epoch = dayNumber('1899-12-30');
/** A sheet has so many rows at most. */
const lastRow = 1_048_576;

export async function openOpenDocument(archive: Archive): Promise<OpenedFile> {
  const noticed = nothingNoticed();
  noticed.macros = archive.names.some((name) => /^(?:Basic|Scripts)\/./u.test(name));
  const locked = archive.has(manifest)
    ? await heardWhole(
        archive.part(manifest),
        tags((_tag, name) => (name === 'encryption-data' ? true : undefined)),
      )
    : [];
  if (locked.length > 0) throw withPassword();
  if (!archive.has(content)) throw new UnreadableFile('The file is not whole: it has no contents. Save it again where it was made.');
  const names: FileName[] = [];
  return {
    noticed,
    names,
    async *pieces(): AsyncIterable<Piece> {
      countAnew(noticed);
      names.length = 0;
      for await (const pieces of parsed(archive.part(content), piecesHeard(noticed, names))) yield* pieces;
    },
  };
}

const standard: Readonly<Record<string, string>> = {
  'urn:oasis:names:tc:opendocument:xmlns:office:1.0': 'office',
  'urn:oasis:names:tc:opendocument:xmlns:table:1.0': 'table',
  'urn:oasis:names:tc:opendocument:xmlns:text:1.0': 'text',
  'urn:oasis:names:tc:opendocument:xmlns:style:1.0': 'style',
};

/** Whatever prefixes the file uses, names are those of the standard; `?:` begins those of others. */
class Names {
  private readonly known = new Map<string, string>();
  private readonly prefixes = new Map<string, string>();

  declare(attributes: Readonly<Record<string, string>>): void {
    for (const [key, value] of Object.entries(attributes))
      if (key.startsWith('xmlns:')) this.prefixes.set(key.slice('xmlns:'.length), standard[value] ?? '?');
  }
  of(name: string): string {
    const known = this.known.get(name);
    if (known !== undefined) return known;
    const at = name.indexOf(':');
    const called = `${this.prefixes.get(name.slice(0, at)) ?? '?'}:${name.slice(at + 1)}`;
    this.known.set(name, called);
    return called;
  }
  in(attributes: Readonly<Record<string, string>>): Map<string, string> {
    return new Map(Object.entries(attributes).map(([key, value]) => [this.of(key), value]));
  }
}

/** Elements of which nothing stands in a cell. */
const passedOver = new Set(['office:annotation', 'table:tracked-changes', 'table:shapes', 'text:note', 'table:dde-links']);

/** `named`: what cells are called is added to it. */
function piecesHeard(noticed: Noticed, named: FileName[]): Heard<Piece> {
  const names = new Names();
  const checks = new ChecksHeard();
  let message: ReadonlyMap<string, string> = new Map();
  const hidden = new Set<string>();
  let [pieces, rows]: [Piece[], ReadRow[]] = [[], []];
  let [passing, depth, row, repeated, column, style] = [0, 0, 0, 1, 0, ''];
  let cells = new Map<number, CameBack>();
  let cell: Map<string, string> | undefined;
  let [shown, paragraphs, inParagraph] = ['', 0, false];

  const flush = () => {
    if (rows.length > 0) pieces.push({ piece: 'rows', rows });
    rows = [];
  };
  const opened: Readonly<Record<string, (attributes: Map<string, string>) => void>> = {
    'style:style': (attributes) => {
      style = attributes.get('style:name') ?? '';
    },
    'style:table-properties': (attributes) => {
      if (attributes.get('table:display') === 'false') hidden.add(style);
    },
    'table:table-source': () => {
      noticed.links = true;
    },
    'table:table-row': (attributes) => {
      if (depth !== 1) return;
      repeated = countIn(attributes, 'table:number-rows-repeated');
      [column, cells] = [0, new Map()];
    },
    'table:table-cell': (attributes) => {
      if (depth !== 1) return;
      cell = attributes;
      [shown, paragraphs] = ['', 0];
      if (attributes.has('table:formula')) noticed.formulas += 1;
    },
    'table:content-validation': (attributes) => checks.define(attributes),
    'table:help-message': (attributes) => {
      [message, shown, paragraphs] = [attributes, '', 0];
    },
    'table:error-message': (attributes) => {
      [message, shown, paragraphs] = [attributes, '', 0];
    },
    'table:named-range': (attributes) => {
      const formula = referenceOf(attributes.get('table:cell-range-address') ?? '');
      named.push({ name: attributes.get('table:name') ?? '', formula });
    },
    'table:named-expression': (attributes) => {
      named.push({ name: attributes.get('table:name') ?? '', formula: formulaOf(attributes.get('table:expression') ?? '') });
    },
    'table:covered-table-cell': (attributes) => {
      if (depth === 1) column += countIn(attributes, 'table:number-columns-repeated');
    },
    'text:p': () => {
      shown += paragraphs > 0 ? '\n' : '';
      paragraphs += 1;
      inParagraph = true;
    },
    'text:s': (attributes) => {
      if (inParagraph) shown += ' '.repeat(Math.min(longestText, countIn(attributes, 'text:c')));
    },
    'text:tab': () => {
      if (inParagraph) shown += '\t';
    },
    'text:line-break': () => {
      if (inParagraph) shown += '\n';
    },
  };
  const table = (attributes: Map<string, string>) => {
    depth += 1;
    if (depth !== 1) return;
    flush();
    row = 0;
    pieces.push({
      piece: 'sheet',
      title: attributes.get('table:name') ?? '',
      hidden: hidden.has(attributes.get('table:style-name') ?? ''),
    });
  };
  const cellEnded = () => {
    if (depth !== 1 || !cell) return;
    const count = countIn(cell, 'table:number-columns-repeated');
    const held = cellOf(cell, shown, noticed);
    const check = cell.get('table:content-validation-name');
    if (check !== undefined)
      checks.cells(check, { top: row + 1, bottom: Math.min(row + repeated, lastRow), left: column, right: column + count - 1 });
    if (held) {
      const until = Math.min(column + count, mostColumns);
      if (column + count > mostColumns) noticed.beyond += column + count - Math.max(column, mostColumns);
      for (let at = column; at < until; at += 1) cells.set(at, held);
    }
    column += count;
    cell = undefined;
  };
  const rowEnded = () => {
    if (depth !== 1) return;
    const count = Math.min(repeated, lastRow - row);
    // Each counts, also where one stands for many.
    if (cells.size > 0) for (let at = 1; at <= count; at += 1) rows.push({ number: row + at, cells });
    row += count;
  };
  return {
    open({ name, attributes }) {
      names.declare(attributes);
      const called = names.of(name);
      if (passing > 0 || passedOver.has(called)) {
        passing += 1;
        return;
      }
      if (called === 'table:table') return table(names.in(attributes));
      opened[called]?.(names.in(attributes));
    },
    text(text) {
      if (passing > 0 || !inParagraph) return;
      // Line breaks and blanks in a row are one blank there.
      shown += text.replaceAll(/[\t\n\r ]+/gu, ' ');
      if (shown.length > longestText) throw tooLong();
    },
    close(name) {
      if (passing > 0) {
        passing -= 1;
        return;
      }
      const called = names.of(name);
      if (called === 'text:p') inParagraph = false;
      if (called === 'table:table-cell') cellEnded();
      if (called === 'table:table-row') rowEnded();
      if (called === 'table:help-message') checks.help(message, shown);
      if (called === 'table:error-message') checks.error(message, shown);
      if (called !== 'table:table') return;
      depth -= 1;
      const own = depth === 0 ? checks.ofSheet() : [];
      if (own.length === 0) return;
      flush();
      pieces.push({ piece: 'checks', checks: own });
    },
    taken() {
      flush();
      const all = pieces;
      pieces = [];
      return all;
    },
  };
}

function countIn(attributes: ReadonlyMap<string, string>, name: string): number {
  const count = Number(attributes.get(name) ?? 1);
  return Number.isInteger(count) && count > 0 ? count : 1;
}

function cellOf(attributes: ReadonlyMap<string, string>, shown: string, noticed: Noticed): CameBack | undefined {
  const text: CameBack | undefined = shown === '' ? undefined : { is: 'text', text: shown };
  const value = attributes.get('office:value');
  switch (attributes.get('office:value-type')) {
    case 'float':
    case 'percentage':
    case 'currency': {
      const number = Number(value ?? '');
      return value === undefined || value === '' || !Number.isFinite(number) ? text : { is: 'number', number };
    }
    case 'date': {
      const [, day, time] = /^(\d{4}-\d{2}-\d{2})(?:T(.*))?$/u.exec(attributes.get('office:date-value') ?? '') ?? [];
      if (day === undefined) return text;
      return time === undefined || /^00:00(?::00)?(?:\.0+)?$/u.test(time)
        ? { is: 'day', serial: dayNumber(day) - epoch }
        : { is: 'text', text: `${day} ${time}` };
    }
    case 'boolean':
      return { is: 'text', text: attributes.get('office:boolean-value') === 'true' ? 'TRUE' : 'FALSE' };
    default: {
      if (attributes.has('table:formula') && /^(?:#|Err:)/u.test(shown)) noticed.errors += 1;
      const whole = attributes.get('office:string-value');
      return whole === undefined || whole === '' ? text : { is: 'text', text: whole };
    }
  }
}
