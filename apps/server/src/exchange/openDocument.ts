// The parts of a spreadsheet of ISO/IEC 26300 (OpenDocument): checks first, then the sheet of entries piece by piece, then lists, what it
// is about, and names.
import {
  cellValue,
  firstRow,
  keyMark,
  namesOf,
  openFormula,
  columnName,
  shownInColumn,
  validationOf,
  type Book,
  type Column,
  type FieldKind,
  type Locale,
  type Validation,
} from '@dellum/core';
import { aboutLines, aboutSheet, entriesSheet, lastRow, listsSheet, placeOf, type About } from './bookSheets.js';
import { longestInFormula, quotedText, tints } from './tints.js';
import type { WrittenEntry } from './writer.js';
import { declaration } from './xml.js';

export const openDocumentType = 'application/vnd.oasis.opendocument.spreadsheet';

const namespaces = ['office', 'table', 'text', 'style', 'number', 'fo']
  .map(
    (name) =>
      `xmlns:${name}="${name === 'fo' ? 'urn:oasis:names:tc:opendocument:xmlns:xsl-fo-compatible:1.0' : `urn:oasis:names:tc:opendocument:xmlns:${name === 'number' ? 'datastyle' : name}:1.0`}"`,
  )
  .join(' ');
const signs: Readonly<Record<string, string>> = { '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;' };
/** Most texts have nothing in them that is written otherwise. */
const special = /[&<>"\u0000-\u0008\u000B\u000C\u000E-\u001F\uFFFE\uFFFF]/u;
/** A text in an attribute. What XML cannot hold is replaced (U+FFFD). */
const attribute = (text: string): string =>
  !special.test(text)
    ? text
    : text.replaceAll(/[\u0000-\u0008\u000B\u000C\u000E-\u001F\uFFFE\uFFFF]/gu, '\uFFFD').replaceAll(/[&<>"]/gu, (sign) => signs[sign]!);
/** A text as paragraphs; several blanks and tabs are elements of their own. */
const paragraphs = (text: string): string =>
  text
    .split(/\r\n|[\n\r]/u)
    .map(
      (line) =>
        `<text:p>${attribute(line)
          .replaceAll('\t', '<text:tab/>')
          .replaceAll(/^ | {2,}| $/gu, (blanks) => `<text:s text:c="${blanks.length}"/>`)}</text:p>`,
    )
    .join('');

const percentDecimals = 6;

/** How days, amounts and percentages are shown, as the house writes them. */
function styles({ dateOrder, currency }: Locale, columns: readonly Column[], title: string): string {
  const part = {
    d: '<number:day number:style="long"/>',
    m: '<number:month number:style="long"/>',
    y: '<number:year number:style="long"/>',
  };
  const mark = `<number:text>${dateOrder === 'ymd' ? '-' : '/'}</number:text>`;
  const day = [...dateOrder].map((letter) => part[letter as keyof typeof part]).join(mark);
  const cell = (name: string, data: string) =>
    `<style:style style:name="${name}" style:family="table-cell" style:data-style-name="${data}"/>`;
  const percents = Array.from({ length: percentDecimals + 1 }, (_, decimals) => decimals);
  return (
    `<office:automatic-styles><number:date-style style:name="nd">${day}</number:date-style>` +
    `<number:currency-style style:name="na"><number:number number:decimal-places="2" number:min-integer-digits="1" number:grouping="true"/><number:text> ${attribute(currency)}</number:text></number:currency-style>` +
    percents
      .map(
        (decimals) =>
          `<number:percentage-style style:name="np${decimals}"><number:number number:decimal-places="${decimals}" number:min-integer-digits="1"/><number:text>%</number:text></number:percentage-style>`,
      )
      .join('') +
    '<number:text-style style:name="nt"><number:text-content/></number:text-style>' +
    `${cell('day', 'nd')}${cell('amount', 'na')}${percents.map((decimals) => cell(`percent${decimals}`, `np${decimals}`)).join('')}${cell('text', 'nt')}` +
    '<style:style style:name="heading" style:family="table-cell"><style:text-properties fo:font-weight="bold"/></style:style>' +
    columns.map((column, at) => (hasColours(column) ? colouredStyle(column, at, title) : '')).join('') +
    columns
      .map(
        ({ width }, at) =>
          `<style:style style:name="co${at}" style:family="table-column"><style:table-column-properties style:column-width="${(width * 0.2).toFixed(1)}cm"/></style:style>`,
      )
      .join('') +
    '</office:automatic-styles>'
  );
}

const styleOfBlank: { readonly [Kind in FieldKind]: string } = {
  text: 'text',
  number: 'Default',
  amount: 'amount',
  percent: 'percent0',
  date: 'day',
  'yes/no': 'text',
  'several values': 'text',
};

/** Colours are of texts alone. */
const hasColours = ({ colours }: Column): boolean => colours.length > 0;
const styleIn = (column: Column, at: number): string => (hasColours(column) ? `coloured${at}` : styleOfBlank[column.kind]);

/** A style of texts that gives way to a tint where the cell holds a value which has one. */
function colouredStyle({ colours }: Column, at: number, title: string): string {
  const maps = colours.flatMap(([shown, colour]) =>
    shown.length > longestInFormula
      ? []
      : [
          `<style:map style:condition="${attribute(`cell-content()=${quotedText(shown)}`)}" style:apply-style-name="tint-${colour}" style:base-cell-address="${attribute(quoted(title))}.${columnName(at)}${firstRow}"/>`,
        ],
  );
  return `<style:style style:name="coloured${at}" style:family="table-cell" style:data-style-name="nt">${maps.join('')}</style:style>`;
}

const textCell = (text: string, style: string, more = ''): string =>
  text === ''
    ? `<table:table-cell table:style-name="${style}"${more}/>`
    : `<table:table-cell table:style-name="${style}"${more} office:value-type="string">${paragraphs(text)}</table:table-cell>`;

/** `shown`: what the cell shows, also where it is a number or a day. */
function valueCell(kind: FieldKind, value: string, shown: string, currency: string, more = ''): string {
  const held = cellValue(kind, value, shown);
  switch (held.is) {
    case 'text':
      return textCell(held.text, 'text', more);
    case 'day':
      return `<table:table-cell table:style-name="day"${more} office:value-type="date" office:date-value="${value}">${paragraphs(shown)}</table:table-cell>`;
    case 'number': {
      const type = { amount: 'currency', percent: 'percentage' }[kind as string] ?? 'float';
      const style =
        { amount: 'amount', percent: `percent${Math.min(percentDecimals, Math.max(0, held.decimals - 2))}` }[kind as string] ?? 'Default';
      const of = type === 'currency' ? ` office:currency="${attribute(currency)}"` : '';
      return `<table:table-cell table:style-name="${style}"${more} office:value-type="${type}"${of} office:value="${held.number}">${paragraphs(shown)}</table:table-cell>`;
    }
  }
}

/** The condition of a check in OpenDocument. */
function conditionOf({ type, operator, formulas }: Validation): string {
  if (type === 'list') {
    const [formula] = formulas as [string];
    const items = formula.startsWith('"')
      ? formula
          .slice(1, -1)
          .split(',')
          .map((item) => `"${item}"`)
          .join(';')
      : openFormula(formula);
    return `of:cell-content-is-in-list(${items})`;
  }
  const [first, second] = formulas.map(openFormula) as [string, string?];
  const content = type === 'textLength' ? 'cell-content-text-length' : 'cell-content';
  const bounds =
    operator === 'between'
      ? `${content}-is-between(${first};${second!})`
      : `${content}()${operator === 'lessThanOrEqual' ? '<=' : '>='}${first}`;
  const kind = {
    date: 'cell-content-is-date() and ',
    decimal: 'cell-content-is-decimal-number() and ',
    whole: 'cell-content-is-whole-number() and ',
    textLength: '',
  };
  return `of:${kind[type]}${bounds}`;
}

export class OpenDocumentParts {
  private readonly columns: readonly Column[];
  private readonly title: string;
  private readonly mark: string | undefined;
  /** For each column, its check by name, as an attribute of its cells. */
  private readonly checked: readonly string[];

  constructor(
    private readonly book: Book,
    private readonly locale: Locale,
    private readonly about: About,
  ) {
    this.columns = book.sheets[0]!.columns;
    this.mark = book.sheets[0]!.mark;
    this.title = entriesSheet(book);
    this.checked = this.columns.map((column, at) =>
      this.validationIn(column) || column.hint !== '' ? ` table:content-validation-name="check${at}"` : '',
    );
  }

  readonly manifest =
    `${declaration}<manifest:manifest xmlns:manifest="urn:oasis:names:tc:opendocument:xmlns:manifest:1.0" manifest:version="1.3">` +
    `<manifest:file-entry manifest:full-path="/" manifest:version="1.3" manifest:media-type="${openDocumentType}"/>` +
    '<manifest:file-entry manifest:full-path="styles.xml" manifest:media-type="text/xml"/>' +
    '<manifest:file-entry manifest:full-path="content.xml" manifest:media-type="text/xml"/></manifest:manifest>';

  /** The tints, which cells take on by what they hold. */
  readonly styles =
    `${declaration}<office:document-styles ${namespaces} office:version="1.3"><office:styles>` +
    tints
      .map(
        ([colour, tint]) =>
          `<style:style style:name="tint-${colour}" style:family="table-cell"><style:table-cell-properties fo:background-color="#${tint}"/></style:style>`,
      )
      .join('') +
    '</office:styles></office:document-styles>';

  private validationIn({ check }: Column): Validation | null {
    return check && validationOf(check, (key) => this.columns.findIndex((other) => other.key === key));
  }

  /** Up to the headings of the sheet of entries. */
  head(): string {
    const checks = this.columns.flatMap((column, at) => (this.checked[at] === '' ? [] : [this.checkXml(column, at)]));
    const columns = this.columns.map(
      (column, at) => `<table:table-column table:style-name="co${at}" table:default-cell-style-name="${styleIn(column, at)}"/>`,
    );
    const headings = this.columns.map(({ heading }) => textCell(heading, 'heading'));
    if (this.mark !== undefined) {
      columns.push('<table:table-column table:visibility="collapse" table:default-cell-style-name="text"/>');
      headings.push(textCell(this.mark, 'heading'));
    }
    return (
      `${declaration}<office:document-content ${namespaces} xmlns:of="urn:oasis:names:tc:opendocument:xmlns:of:1.2" office:version="1.3">` +
      `${styles(this.locale, this.columns, this.title)}<office:body><office:spreadsheet>` +
      (checks.length > 0 ? `<table:content-validations>${checks.join('')}</table:content-validations>` : '') +
      `<table:table table:name="${attribute(this.title)}">${columns.join('')}<table:table-header-rows>` +
      `<table:table-row>${headings.join('')}</table:table-row></table:table-header-rows>`
    );
  }

  private checkXml(column: Column, at: number): string {
    const validation = this.validationIn(column);
    const strict = { refuse: 'stop', confirm: 'warning', accept: 'information' }[column.strictness];
    const refusal = column.refusalText.replaceAll('{field}', column.heading).replaceAll('{value}', '');
    return (
      `<table:content-validation table:name="check${at}"${validation ? ` table:condition="${attribute(conditionOf(validation))}"` : ''}` +
      ` table:allow-empty-cell="${String(column.mayBeBlank)}" table:display-list="unsorted" table:base-cell-address="$${attribute(quoted(this.title))}.${cellName(at)}">` +
      (column.hint === ''
        ? ''
        : `<table:help-message table:title="${attribute(column.hintTitle || column.heading)}" table:display="true">${paragraphs(column.hint)}</table:help-message>`) +
      `<table:error-message table:message-type="${strict}" table:title="${attribute(column.heading)}" table:display="true">${refusal === '' ? '' : paragraphs(refusal)}</table:error-message>` +
      '</table:content-validation>'
    );
  }

  rows(entries: readonly WrittenEntry[]): string {
    return entries
      .map(({ id, cells }) => {
        const held = this.columns.map((column, at) => {
          const value = cells[column.key] ?? '';
          if (value === '' || hasColours(column))
            return textCell(value === '' ? '' : shownInColumn(column, cells, this.locale), styleIn(column, at), this.checked[at]);
          return valueCell(column.kind, value, shownInColumn(column, cells, this.locale), this.locale.currency, this.checked[at]);
        });
        return `<table:table-row>${held.join('')}${this.mark === undefined ? '' : textCell(id, 'text')}</table:table-row>`;
      })
      .join('');
  }

  /** What follows the last of so many entries: blank rows with their checks, the other sheets, the names. */
  tail(rows: number): string {
    const blank = this.columns.map((column, at) => textCell('', styleIn(column, at), this.checked[at])).join('');
    const left = lastRow - 1 - rows;
    return (
      (left > 0 && blank !== '' ? `<table:table-row table:number-rows-repeated="${left}">${blank}</table:table-row>` : '') +
      `</table:table>${this.listsXml()}${this.aboutXml()}${this.namesXml()}</office:spreadsheet></office:body></office:document-content>`
    );
  }

  private listsXml(): string {
    const { lists } = this.book;
    const most = Math.max(0, ...lists.map((list) => list.rows.length));
    const headings = lists.map((list) => textCell(list.levels > 0 ? 'under' : '', 'heading') + textCell(list.title, 'heading')).join('');
    const rows = Array.from({ length: most }, (_, row) =>
      lists
        .map((list) => {
          const held = list.rows[row];
          if (!held) return '<table:table-cell table:number-columns-repeated="2"/>';
          return (
            textCell(list.levels > 0 ? held.under.join(keyMark) : '', 'text') +
            valueCell(list.kind, held.value, held.value, this.locale.currency)
          );
        })
        .join(''),
    );
    return this.sheetXml(listsSheet, Math.max(1, lists.length * 2), [headings, ...rows]);
  }

  private aboutXml(): string {
    return this.sheetXml(
      aboutSheet,
      1,
      aboutLines(this.book, this.about).map((line, at) => textCell(line, at === 0 ? 'heading' : 'text')),
    );
  }

  private sheetXml(title: string, columns: number, rows: readonly string[]): string {
    const all = rows.map((row) => `<table:table-row>${row === '' ? '<table:table-cell/>' : row}</table:table-row>`).join('');
    return `<table:table table:name="${title}"><table:table-column table:number-columns-repeated="${columns}"/>${all}</table:table>`;
  }

  private namesXml(): string {
    const names = this.book.lists.flatMap((list, at) => namesOf(list, listsSheet, placeOf(at)));
    if (names.length === 0) return '';
    const base = `$${listsSheet}.$A$1`;
    const all = names.map(([name, formula]) => {
      const area = /^\[(.+)\]$/u.exec(openFormula(formula))?.[1];
      return area === undefined
        ? `<table:named-expression table:name="${attribute(name)}" table:base-cell-address="${base}" table:expression="of:${attribute(openFormula(formula))}"/>`
        : `<table:named-range table:name="${attribute(name)}" table:base-cell-address="${base}" table:cell-range-address="${attribute(area)}"/>`;
    });
    return `<table:named-expressions>${all.join('')}</table:named-expressions>`;
  }
}

const quoted = (title: string): string => (/^[\p{L}\p{N}_]+$/u.test(title) ? title : `'${title.replaceAll("'", "''")}'`);
const cellName = (column: number): string => `$${columnName(column)}$${firstRow}`;
