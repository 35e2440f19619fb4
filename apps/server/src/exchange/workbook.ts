// The parts of a workbook of ISO/IEC 29500 (OOXML): its sheets with their checks, the lists that these point at, and what it is about.
import {
  cellValue,
  columnName,
  firstRow,
  keyMark,
  namesOf,
  shownInColumn,
  validationOf,
  type Book,
  type BookList,
  type CellValue,
  type Column,
  type FieldKind,
  type Locale,
} from '@dellum/core';
import { aboutLines, aboutSheet, entriesSheet, lastRow, listsSheet, placeOf, type About } from './bookSheets.js';
import { longestInFormula, quotedText, tints } from './tints.js';
import type { WrittenEntry } from './writer.js';
import { declaration, xml } from './xml.js';

const main = 'xmlns="http://schemas.openxmlformats.org/spreadsheetml/2006/main"';
const relations = 'http://schemas.openxmlformats.org/officeDocument/2006/relationships';
const sheetType = 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet';
export const workbookType = sheetType;

/** What the standard takes at most. */
const longest = { cell: 32_767, prompt: 255, refusal: 225, title: 32 };

const cut = (text: string, most: number): string => (text.length <= most ? text : `${text.slice(0, most - 1)}…`);

const percentDecimals = 6;
const style = { general: 0, heading: 1, text: 2, day: 3, amount: 4, percent: 5 } as const;

/** The formats of the house, in the order of `style`. */
function stylesXml({ dateOrder, currency }: Locale): string {
  const days = { dmy: 'dd/mm/yyyy', mdy: 'mm/dd/yyyy', ymd: 'yyyy-mm-dd' }[dateOrder];
  const percents = Array.from({ length: percentDecimals + 1 }, (_, decimals) => `0${decimals > 0 ? `.${'0'.repeat(decimals)}` : ''}%`);
  const formats = [days, `#,##0.00" ${currency}"`, ...percents];
  const format = (id: number) => `<xf numFmtId="${id}" fontId="0" fillId="0" borderId="0" xfId="0" applyNumberFormat="1"/>`;
  return (
    `${declaration}<styleSheet ${main}><numFmts count="${formats.length}">` +
    formats.map((code, at) => `<numFmt numFmtId="${164 + at}" formatCode="${xml(code)}"/>`).join('') +
    '</numFmts><fonts count="2"><font><sz val="11"/><name val="Calibri"/></font><font><b/><sz val="11"/><name val="Calibri"/></font></fonts>' +
    '<fills count="2"><fill><patternFill patternType="none"/></fill><fill><patternFill patternType="gray125"/></fill></fills>' +
    '<borders count="1"><border><left/><right/><top/><bottom/><diagonal/></border></borders>' +
    '<cellStyleXfs count="1"><xf numFmtId="0" fontId="0" fillId="0" borderId="0"/></cellStyleXfs>' +
    `<cellXfs count="${3 + formats.length}"><xf numFmtId="0" fontId="0" fillId="0" borderId="0" xfId="0"/>` +
    '<xf numFmtId="0" fontId="1" fillId="0" borderId="0" xfId="0" applyFont="1"/>' +
    `${format(49)}${formats.map((_, at) => format(164 + at)).join('')}</cellXfs>` +
    '<cellStyles count="1"><cellStyle name="Normal" xfId="0" builtinId="0"/></cellStyles>' +
    `<dxfs count="${tints.length}">${tints.map(([, tint]) => `<dxf><fill><patternFill><bgColor rgb="FF${tint}"/></patternFill></fill></dxf>`).join('')}</dxfs></styleSheet>`
  );
}

const styleOf = (kind: FieldKind, value: CellValue): number => {
  if (value.is === 'text') return style.text;
  if (value.is === 'day') return style.day;
  if (kind === 'amount') return style.amount;
  return kind === 'percent' ? style.percent + Math.min(percentDecimals, Math.max(0, value.decimals - 2)) : style.general;
};
const styleOfBlank: { readonly [Kind in FieldKind]: number } = {
  text: style.text,
  number: style.general,
  amount: style.amount,
  percent: style.percent,
  date: style.day,
  'yes/no': style.text,
  'several values': style.text,
};

const textCell = (at: string, text: string, look: number): string =>
  text === '' ? '' : `<c r="${at}" s="${look}" t="inlineStr"><is><t xml:space="preserve">${xml(cut(text, longest.cell))}</t></is></c>`;

function valueCell(at: string, kind: FieldKind, value: string, shown: string): string {
  const held = cellValue(kind, value, shown);
  if (held.is === 'text') return textCell(at, held.text, style.text);
  return `<c r="${at}" s="${styleOf(kind, held)}"><v>${held.is === 'day' ? held.serial : held.number}</v></c>`;
}

const rowXml = (number: number, cells: readonly string[]): string => `<row r="${number}">${cells.join('')}</row>`;

/** A workbook of one sheet of entries, as the text of its parts; the sheet itself comes in pieces, last. */
export class WorkbookParts {
  readonly entrySheet = 'xl/worksheets/sheet1.xml';
  private readonly columns: readonly Column[];
  private readonly title: string;
  private readonly mark: string | undefined;

  constructor(
    private readonly book: Book,
    private readonly locale: Locale,
    private readonly about: About,
  ) {
    this.columns = book.sheets[0]!.columns;
    this.mark = book.sheets[0]!.mark;
    this.title = entriesSheet(book);
  }

  /** All parts but the sheet of entries. */
  fixed(): readonly (readonly [name: string, text: string])[] {
    const sheets = [this.title, listsSheet, aboutSheet];
    return [
      ['[Content_Types].xml', contentTypes(sheets.length)],
      ['_rels/.rels', relationsXml([['officeDocument', 'xl/workbook.xml']])],
      ['xl/workbook.xml', this.workbookXml(sheets)],
      [
        'xl/_rels/workbook.xml.rels',
        relationsXml([...sheets.map((_, at) => ['worksheet', `worksheets/sheet${at + 1}.xml`] as const), ['styles', 'styles.xml']]),
      ],
      ['xl/styles.xml', stylesXml(this.locale)],
      ['xl/worksheets/sheet2.xml', this.listsXml()],
      ['xl/worksheets/sheet3.xml', this.aboutXml()],
    ];
  }

  private workbookXml(sheets: readonly string[]): string {
    const names = this.book.lists.flatMap((list, at) => namesOf(list, listsSheet, placeOf(at)));
    return (
      `${declaration}<workbook ${main} xmlns:r="${relations}"><sheets>` +
      sheets.map((name, at) => `<sheet name="${xml(name)}" sheetId="${at + 1}" r:id="rId${at + 1}"/>`).join('') +
      `</sheets>${names.length > 0 ? `<definedNames>${names.map(([name, formula]) => `<definedName name="${xml(name)}">${xml(formula)}</definedName>`).join('')}</definedNames>` : ''}</workbook>`
    );
  }

  private listsXml(): string {
    const { lists } = this.book;
    const rows = Math.max(0, ...lists.map((list) => list.rows.length));
    const cellsIn = (row: number) =>
      lists.map((list, at) => {
        const place = placeOf(at);
        const held = list.rows[row];
        if (!held) return '';
        const key = list.levels > 0 ? textCell(`${columnName(place.key)}${row + firstRow}`, held.under.join(keyMark), style.text) : '';
        return key + valueCell(`${columnName(place.value)}${row + firstRow}`, list.kind, held.value, held.value);
      });
    const headings = lists.map((list, at) => headingsOf(list, placeOf(at)));
    const all = Array.from({ length: rows }, (_, row) => rowXml(row + firstRow, cellsIn(row)));
    return `${declaration}<worksheet ${main}>${frozen}<sheetData>${rowXml(1, headings)}${all.join('')}</sheetData></worksheet>`;
  }

  private aboutXml(): string {
    const lines = aboutLines(this.book, this.about);
    const rows = lines.map((line, row) => rowXml(row + 1, [textCell(`A${row + 1}`, line, row === 0 ? style.heading : style.text)]));
    return `${declaration}<worksheet ${main}><cols><col min="1" max="1" width="100" customWidth="1"/></cols><sheetData>${rows.join('')}</sheetData></worksheet>`;
  }

  /** The sheet of entries up to its headings. */
  head(): string {
    const widths = this.columns.map(
      ({ width, kind }, at) => `<col min="${at + 1}" max="${at + 1}" width="${width}" style="${styleOfBlank[kind]}" customWidth="1"/>`,
    );
    const headings = this.columns.map(({ heading }, at) => textCell(`${columnName(at)}1`, heading, style.heading));
    const last = this.columns.length;
    if (this.mark !== undefined) {
      widths.push(`<col min="${last + 1}" max="${last + 1}" width="8" hidden="1" customWidth="1"/>`);
      headings.push(textCell(`${columnName(last)}1`, this.mark, style.heading));
    }
    return `${declaration}<worksheet ${main}>${frozen}${widths.length > 0 ? `<cols>${widths.join('')}</cols>` : ''}<sheetData>${rowXml(1, headings)}`;
  }

  /** Some entries, the first of them in so many rows below the headings. */
  rows(entries: readonly WrittenEntry[], from: number): string {
    const names = [...this.columns, undefined].map((_column, at) => columnName(at));
    return entries
      .map(({ id, cells }, at) => {
        const row = from + at + firstRow;
        const held = this.columns.map((column, place) => {
          const value = cells[column.key] ?? '';
          return value === '' ? '' : valueCell(`${names[place]}${row}`, column.kind, value, shownInColumn(column, cells, this.locale));
        });
        return rowXml(row, this.mark === undefined ? held : [...held, textCell(`${names[held.length]}${row}`, id, style.text)]);
      })
      .join('');
  }

  /** What follows the last entry. */
  tail(): string {
    const checks = this.columns.flatMap((column, at) => this.checkXml(column, at));
    const colours = this.columns.map((column, at) => coloursXml(column, at)).join('');
    return `</sheetData>${colours}${checks.length > 0 ? `<dataValidations count="${checks.length}">${checks.join('')}</dataValidations>` : ''}</worksheet>`;
  }

  private checkXml(column: Column, at: number): string[] {
    const validation = column.check && validationOf(column.check, (key) => this.columns.findIndex((other) => other.key === key));
    if (!validation && column.hint === '') return [];
    const strict = { refuse: 'stop', confirm: 'warning', accept: 'information' }[column.strictness];
    const refusal = column.refusalText.replaceAll('{field}', column.heading).replaceAll('{value}', '');
    const attributes = [
      ...(validation
        ? [['type', validation.type], ['errorStyle', strict], ...(validation.operator ? [['operator', validation.operator]] : [])]
        : []),
      ['allowBlank', column.mayBeBlank ? '1' : '0'],
      ['showInputMessage', '1'],
      ['showErrorMessage', '1'],
      ...(column.refusalText === ''
        ? []
        : [
            ['errorTitle', cut(column.heading, longest.title)],
            ['error', cut(refusal, longest.refusal)],
          ]),
      ...(column.hint === ''
        ? []
        : [
            ['promptTitle', cut(column.hintTitle || column.heading, longest.title)],
            ['prompt', cut(column.hint, longest.prompt)],
          ]),
      ['sqref', `${columnName(at)}${firstRow}:${columnName(at)}${lastRow}`],
    ].map(([name, value]) => `${name}="${xml(value!)}"`);
    const formulas = (validation?.formulas ?? []).map((formula, place) => `<formula${place + 1}>${xml(formula)}</formula${place + 1}>`);
    return [`<dataValidation ${attributes.join(' ')}>${formulas.join('')}</dataValidation>`];
  }
}

/** The colours of the values of a column, as its cells show them. */
function coloursXml({ colours }: Column, at: number): string {
  const rules = colours.flatMap(([shown, colour], place) =>
    shown.length > longestInFormula
      ? []
      : [
          `<cfRule type="cellIs" dxfId="${tints.findIndex(([known]) => known === colour)}" priority="${place + 1}" operator="equal"><formula>${xml(quotedText(shown))}</formula></cfRule>`,
        ],
  );
  const name = columnName(at);
  return rules.length === 0
    ? ''
    : `<conditionalFormatting sqref="${name}${firstRow}:${name}${lastRow}">${rules.join('')}</conditionalFormatting>`;
}

const frozen =
  '<sheetViews><sheetView workbookViewId="0"><pane ySplit="1" topLeftCell="A2" activePane="bottomLeft" state="frozen"/></sheetView></sheetViews>';

const headingsOf = (list: BookList, place: { key: number; value: number }): string =>
  (list.levels > 0 ? textCell(`${columnName(place.key)}1`, 'under', style.heading) : '') +
  textCell(`${columnName(place.value)}1`, list.title, style.heading);

const contentTypes = (sheets: number): string =>
  `${declaration}<Types xmlns="http://schemas.openxmlformats.org/package/2006/content-types">` +
  '<Default Extension="rels" ContentType="application/vnd.openxmlformats-package.relationships+xml"/><Default Extension="xml" ContentType="application/xml"/>' +
  `<Override PartName="/xl/workbook.xml" ContentType="${sheetType}.main+xml"/>` +
  Array.from(
    { length: sheets },
    (_, at) =>
      `<Override PartName="/xl/worksheets/sheet${at + 1}.xml" ContentType="application/vnd.openxmlformats-officedocument.spreadsheetml.worksheet+xml"/>`,
  ).join('') +
  '<Override PartName="/xl/styles.xml" ContentType="application/vnd.openxmlformats-officedocument.spreadsheetml.styles+xml"/></Types>';

const relationsXml = (all: readonly (readonly [type: string, target: string])[]): string =>
  `${declaration}<Relationships xmlns="http://schemas.openxmlformats.org/package/2006/relationships">${all
    .map(([type, target], at) => `<Relationship Id="rId${at + 1}" Type="${relations}/${type}" Target="${target}"/>`)
    .join('')}</Relationships>`;
