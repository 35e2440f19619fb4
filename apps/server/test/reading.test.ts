// Files as they come: written by other libraries, by hand, and by those who mean harm.
import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { dayNumber, type CameBack } from '@dellum/core';
import { bytesInParts, openFile, UnreadableFile } from '@dellum/server';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { bookOfRows, openDocumentOf, unreadable } from './badFiles.js';

const folder = mkdtempSync('/tmp/dellum-reading-');
beforeAll(() => {
  execFileSync('/usr/bin/python3', [join(import.meta.dirname, 'makeBooks.py'), folder]);
});
afterAll(() => rmSync(folder, { recursive: true }));

interface Sheet {
  readonly title: string;
  readonly hidden: boolean;
  /** By number of the row. */
  readonly rows: Readonly<Record<number, readonly (string | number | undefined)[]>>;
}
const plain = (held: CameBack): string | number => {
  if (held.is === 'number') return held.number;
  return held.is === 'text' ? held.text : `day ${held.serial}`;
};
const day = (iso: string): string => `day ${dayNumber(iso) - dayNumber('1899-12-30')}`;

/** As it is kept: in parts, which begin and end anywhere. */
function inParts(bytes: Buffer) {
  const size = bytes.length > 10_000 ? 4099 : 7;
  const part = (number: number) => Promise.resolve(bytes.subarray(number * size, (number + 1) * size));
  return bytesInParts(bytes.length, null, part);
}

async function read(bytes: Buffer, name = 'file.csv') {
  const file = await openFile(inParts(bytes), name);
  const sheets: (Sheet & { rows: Record<number, (string | number | undefined)[]> })[] = [];
  for await (const piece of file.pieces()) {
    if (piece.piece === 'sheet') {
      sheets.push({ title: piece.title, hidden: piece.hidden, rows: {} });
      continue;
    }
    if (piece.piece !== 'rows') continue;
    for (const { number, cells } of piece.rows) {
      const row: (string | number | undefined)[] = [];
      for (const [at, held] of cells) row[at] = plain(held);
      sheets.at(-1)!.rows[number] = [...row];
    }
  }
  return { sheets, noticed: file.noticed };
}
const csv = (text: string, encoding: BufferEncoding = 'utf8') =>
  read(Buffer.from(text, encoding)).then(({ sheets }) => Object.values(sheets[0]!.rows));

describe('a workbook that another library wrote', () => {
  it.each([
    ['book.xlsx', day('1900-02-28')],
    ['book1904.xlsx', day('1904-01-02')],
  ])('is read cell by cell, each with what it is: %s', async (name, early) => {
    const { sheets } = await read(readFileSync(join(folder, name)), name);
    expect(sheets).toEqual([
      {
        title: 'Log & list',
        hidden: false,
        rows: {
          1: ['Text', 'Number', 'Day', 'Moment', 'Time', 'Percent', 'Yes'],
          2: ['00123 <a> ü', 0.3, day('2026-11-05'), '2026-11-05 13:30', '07:05', 0.125, 'TRUE'],
          5: ['two\nlines', -1e-7, early],
          7: ['merged'],
        },
      },
      { title: 'Hidden', hidden: true, rows: { 2: [undefined, 'there'] } },
    ]);
  });

  it('is read the same in the other standard', async () => {
    const { sheets, noticed } = await read(readFileSync(join(folder, 'book.ods')), 'book.ods');
    expect(sheets).toEqual([
      {
        title: 'Log & list',
        hidden: false,
        rows: {
          1: ['Text', 'Number', 'Day', 'Moment', 'Percent', 'Yes'],
          2: ['a   b <c>\nd\ne', 0.1 + 0.2, day('2026-11-05'), '2026-11-05 13:30:00', 0.125, 'TRUE'],
          5: ['same', 'same', undefined, 5],
          6: ['same', 'same', undefined, 5],
        },
      },
      { title: 'Hidden', hidden: true, rows: { 1: ['there'] } },
    ]);
    expect(noticed).toMatchObject({ formulas: 1, errors: 0 });
  });
});

describe('a workbook with what nobody expects', () => {
  it.each(unreadable)('is not read, and that is said in a sentence: %s', async (_what, name, file, says) => {
    const failed = await read(file(), name).catch((error: unknown) => error);
    expect(failed).toBeInstanceOf(UnreadableFile);
    expect((failed as Error).message).toMatch(says);
    expect((failed as Error).message).toMatch(/^[A-Z].*\.$/u);
  });

  it('takes the stored results of formulas and says how many; what has failed is a text', async () => {
    const rows =
      '<row><c><f>1+1</f><v>2</v></c><c t="str"><f>A1&amp;"x"</f><v>2x</v></c><c t="e"><f>1/0</f><v>#DIV/0!</v></c><c t="b"><v>0</v></c></row>';
    const { sheets, noticed } = await read(bookOfRows(rows, { 'xl/vbaProject.bin': 'x', 'xl/externalLinks/externalLink1.xml': '<a/>' }));
    expect(sheets[0]!.rows).toEqual({ 1: [2, '2x', '#DIV/0!', 'FALSE'] });
    expect(noticed).toEqual({ formulas: 3, errors: 1, beyond: 0, macros: true, links: true });
  });

  it('has texts of several parts, with what helps to read them, and signs that XML cannot hold', async () => {
    const shared =
      '<sst><si><r><t>bold </t></r><r><rPr><b/></rPr><t xml:space="preserve">words </t></r></si><si><t>a_x0007_b_x005F_x0041_</t></si><si><t>reading</t><rPh sb="0" eb="1"><t>help</t></rPh></si></sst>';
    const relation = `<Relationship Id="rId9" Type="http://schemas.openxmlformats.org/officeDocument/2006/relationships/sharedStrings" Target="sharedStrings.xml"/>`;
    const cells = [0, 1, 2, 7].map((at) => `<c t="s"><v>${at}</v></c>`).join('');
    const inline = '<c t="inlineStr"><is><r><t>a</t></r><r><t>b</t></r></is></c>';
    const { sheets } = await read(bookOfRows(`<row>${cells}${inline}</row>`, { 'xl/sharedStrings.xml': shared }, '', relation));
    expect(sheets[0]!.rows).toEqual({ 1: ['bold words ', 'a\u0007b_x0041_', 'reading', undefined, 'ab'] });
  });

  it('has a million rows that are only coloured, and a million columns', async () => {
    const empty = Array.from({ length: 1_048_575 }, (_, at) => `<row r="${at + 2}" s="1" customFormat="1"/>`).join('');
    const wide = '<dimension ref="A1:BDWGN1048576"/>';
    const { sheets, noticed } = await read(
      bookOfRows(`<row r="1"><c r="A1"><v>1</v></c><c r="BDWGN1"><v>2</v></c></row>${empty}`, {}, wide),
    );
    expect(sheets[0]!.rows).toEqual({ 1: [1] });
    expect(noticed.beyond).toBe(1);
  });

  it('stands for a million rows and columns in few words', async () => {
    const cell = '<t:table-cell o:value-type="string" t:number-columns-repeated="1000000"><x:p>a</x:p></t:table-cell>';
    const blank = '<t:table-row t:number-rows-repeated="999999999"><t:table-cell t:number-columns-repeated="999999999"/></t:table-row>';
    const { sheets, noticed } = await read(
      openDocumentOf(
        `<t:table t:name="One"><t:table-row>${cell}</t:table-row>${blank}<t:table-row><t:table-cell o:value-type="float" o:value="1"/></t:table-row></t:table>`,
      ),
    );
    expect(Object.keys(sheets[0]!.rows)).toEqual(['1']);
    expect(sheets[0]!.rows[1]).toHaveLength(1000);
    expect(noticed.beyond).toBe(999_000);
  });
});

describe('a table of texts', () => {
  it.each<[string, () => Promise<unknown[]>]>([
    ['commas', () => csv('a,b\r\n"1,5",ü\r\n')],
    ['semicolons', () => csv('a;b\n1,5;ü\n')],
    ['tabs', () => csv('a\tb\n1,5\tü')],
    ['bars and lone carriage returns', () => csv('a|b\r1,5|ü\r')],
    ['a mark in front', () => csv('\uFEFFa;b\n1,5;ü\n')],
    ['UTF-16', () => csv('\uFEFFa;b\n1,5;ü\n', 'utf16le')],
    ['UTF-16 without a mark', () => csv('a;b\n1,5;ü\n', 'utf16le')],
    ['an encoding of before', () => csv('a;b\n1,5;ü\n', 'latin1')],
    ['the name of a workbook', () => read(Buffer.from('a;b\n1,5;ü\n'), 'log.xlsx').then(({ sheets }) => Object.values(sheets[0]!.rows))],
  ])('is read with %s', async (_what, rows) => {
    expect(await rows()).toEqual([
      ['a', 'b'],
      ['1,5', 'ü'],
    ]);
  });

  it('is read as far as it goes where a quotation mark is not closed', async () => {
    expect(await csv('a,b\n"1,2\n3,4\n')).toEqual([['a', 'b'], ['1,2\n3,4\n']]);
  });

  it('has rows in pieces that begin in the middle of a cell, and no end of its time where it is long', async () => {
    const long = Array.from({ length: 60_000 }, (_, at) => `"row ${at}, with ""quotes""\r\nand a second line";${at}`);
    const rows = await csv(`text;number\r\n${long.join('\r\n')}\r\n`);
    expect(rows).toHaveLength(60_001);
    expect(rows.at(-1)).toEqual(['row 59999, with "quotes"\r\nand a second line', '59999']);
    expect(rows.every((row) => row.length === 2)).toBe(true);
  });

  it('is not read where a quotation mark is not closed in two million characters', async () => {
    const failed = await csv(`a,b\n"1,${'2\n'.repeat(1_000_000)}`).catch((error: unknown) => error);
    expect((failed as Error).message).toMatch(/^A quotation mark of the file is not closed/u);
  });

  it('takes what looks like a formula for a text', async () => {
    expect(await csv('a,b\n=1+1,@x\n')).toEqual([
      ['a', 'b'],
      ['=1+1', '@x'],
    ]);
  });
});

describe('JSON Lines', () => {
  it('that say what their objects are, are lines all the same', async () => {
    const { sheets } = await read(Buffer.from('{"@type":"Pilot","name":"Ossel"}\n{"@type":"Pilot","name":"Tansy"}\n'), 'pilots.jsonl');
    expect(sheets[0]!.rows).toEqual({ 1: ['@type', 'name'], 2: ['Pilot', 'Ossel'], 3: ['Pilot', 'Tansy'] });
  });

  const lines = (...objects: readonly (object | string)[]) =>
    csv(objects.map((one) => (typeof one === 'string' ? one : JSON.stringify(one))).join('\n'));

  it('are read with their members as columns, in the order in which they come up', async () => {
    expect(
      await lines({ ship: 'Marl', length: 12.5, flags: ['a', 'b, c'] }, '', {
        ship: '',
        crew: 3,
        plan: { day: 1 },
        away: true,
        home: null,
      }),
    ).toEqual([
      ['ship', 'length', 'flags', 'crew', 'plan', 'away', 'home'],
      ['Marl', 12.5, 'a, "b, c"'],
      [undefined, undefined, undefined, 3, '{"day":1}', 'TRUE'],
    ]);
  });

  it('that were downloaded here are read with the cells of their entries', async () => {
    expect(await lines({ id: 'x', version: 1, cells: { visit: 'V1', services: 'tug\u001Fcrane, small' } })).toEqual([
      ['visit', 'services'],
      ['V1', 'tug, "crane, small"'],
    ]);
  });

  it('are not read where a line is none, and that line is named', async () => {
    for (const broken of ['{"ship":', '[1]', '"ship"', '1']) {
      const failed = await lines({ ship: 'Marl' }, broken).catch((error: unknown) => error);
      expect(failed).toBeInstanceOf(UnreadableFile);
      expect((failed as Error).message).toMatch(/^Line 2 of the file is no JSON object/u);
    }
  });

  it('have no end of their time where they are long, and no line without an end', async () => {
    const long = Array.from({ length: 60_000 }, (_, at) => ({ text: `row ${at}`, number: at }));
    expect((await lines(...long)).at(-1)).toEqual(['row 59999', 59999]);
    const failed = await lines({ a: 1 }, `{"a":"${'b'.repeat(3_000_000)}`).catch((error: unknown) => error);
    expect((failed as Error).message).toMatch(/^Line 2 /u);
  });
});
