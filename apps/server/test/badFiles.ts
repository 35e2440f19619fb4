// Files that do harm, or hold what nobody expects: made here, not stored.
import { strToU8, zipSync, type Zippable } from 'fflate';

const main = 'xmlns="http://schemas.openxmlformats.org/spreadsheetml/2006/main"';
const relations = 'http://schemas.openxmlformats.org/officeDocument/2006/relationships';
const packageRelations = 'xmlns="http://schemas.openxmlformats.org/package/2006/relationships"';

export const zipOf = (parts: Zippable): Buffer => Buffer.from(zipSync(parts));
const texts = (parts: Readonly<Record<string, string>>): Zippable =>
  Object.fromEntries(Object.entries(parts).map(([name, text]) => [name, strToU8(text)]));

const fixed = (more = ''): Readonly<Record<string, string>> => ({
  '[Content_Types].xml': '<Types xmlns="http://schemas.openxmlformats.org/package/2006/content-types"/>',
  '_rels/.rels': `<Relationships ${packageRelations}><Relationship Id="a" Type="${relations}/officeDocument" Target="xl/workbook.xml"/></Relationships>`,
  'xl/workbook.xml': `<workbook ${main} xmlns:r="${relations}"><sheets><sheet name="One" sheetId="1" r:id="rId1"/></sheets></workbook>`,
  'xl/_rels/workbook.xml.rels': `<Relationships ${packageRelations}><Relationship Id="rId1" Type="${relations}/worksheet" Target="worksheets/sheet1.xml"/>${more}</Relationships>`,
});
const sheet = (rows: string, before = ''): string => `<worksheet ${main}>${before}<sheetData>${rows}</sheetData></worksheet>`;
/** A workbook of one sheet with these rows as XML, and with more parts. */
export const bookOfRows = (rows: string, more: Readonly<Record<string, string>> = {}, before = '', relation = ''): Buffer =>
  zipOf(texts({ ...fixed(relation), 'xl/worksheets/sheet1.xml': sheet(rows, before), ...more }));
export const openDocumentOf = (body: string, more: Readonly<Record<string, string>> = {}): Buffer =>
  zipOf(
    texts({
      mimetype: 'application/vnd.oasis.opendocument.spreadsheet',
      'content.xml':
        '<o:document-content xmlns:o="urn:oasis:names:tc:opendocument:xmlns:office:1.0" xmlns:t="urn:oasis:names:tc:opendocument:xmlns:table:1.0" xmlns:x="urn:oasis:names:tc:opendocument:xmlns:text:1.0">' +
        `<o:body><o:spreadsheet>${body}</o:spreadsheet></o:body></o:document-content>`,
      ...more,
    }),
  );

const word = '<row r="1"><c r="A1" t="inlineStr"><is><t>Word</t></is></c></row>';
/** The same bytes in another place: what the end of an archive points at is not there. */
const displaced = (book: Buffer): Buffer => {
  const end = book.lastIndexOf(Buffer.from([0x50, 0x4b, 5, 6]));
  const made = Buffer.from(book);
  made.writeUInt32LE(7, end + 16);
  return made;
};
const compound = (...holds: readonly string[]): Buffer =>
  Buffer.concat([Buffer.from('D0CF11E0A1B11AE1', 'hex'), Buffer.alloc(504), ...holds.map((name) => Buffer.from(name, 'utf16le'))]);
const document = '<!DOCTYPE a [<!ENTITY b "cccccccccc"><!ENTITY d "&b;&b;&b;&b;&b;">]>';

/** Files that are not read, each with what is said of it. */
export const unreadable: readonly (readonly [what: string, name: string, file: () => Buffer, says: RegExp])[] = [
  ['nothing', 'a.xlsx', () => Buffer.alloc(0), /is empty/u],
  ['a password', 'a.xlsx', () => compound('EncryptedPackage'), /password/u],
  ['an older kind', 'a.xls', () => compound('Workbook'), /older kind/u],
  ['a picture', 'a.xlsx', () => Buffer.from('89504E470D0A1A0A0000000D49484452000000', 'hex'), /neither a workbook nor/u],
  ['what its end points at is elsewhere', 'a.xlsx', () => displaced(bookOfRows(word)), /damaged/u],
  ['half of it', 'a.xlsx', () => bookOfRows(word).subarray(0, 400), /damaged/u],
  ['a path out of the archive', 'a.xlsx', () => zipOf({ ...texts(fixed()), '../../out.xml': strToU8('x') }), /damaged/u],
  ['an archive in an archive', 'a.zip', () => zipOf({ 'inner.zip': bookOfRows(word) }), /without a workbook/u],
  ['a sheet that is missing', 'a.xlsx', () => zipOf(texts(fixed())), /missing/u],
  ['no sheet', 'a.xlsx', () => zipOf(texts({ ...fixed(), 'xl/workbook.xml': `<workbook ${main}><sheets/></workbook>` })), /no sheet/u],
  [
    'entities of its own',
    'a.xlsx',
    () => zipOf(texts({ ...fixed(), 'xl/worksheets/sheet1.xml': `${document}<a>&d;</a>` })),
    /document type/u,
  ],
  ['an entity nobody knows', 'a.xlsx', () => bookOfRows('<row r="1"><c r="A1"><v>&d;</v></c></row>'), /not well-formed/u],
  [
    'a part that breaks off',
    'a.xlsx',
    () => zipOf(texts({ ...fixed(), 'xl/worksheets/sheet1.xml': `<worksheet ${main}><sheetData>${word}` })),
    /breaks off/u,
  ],
  [
    'a part that becomes a thousand times larger',
    'a.xlsx',
    () => zipOf({ ...texts(fixed()), 'xl/worksheets/sheet1.xml': new Uint8Array(25_000_000).fill(32) }),
    /far larger/u,
  ],
  [
    'one cell of three million characters',
    'a.xlsx',
    () => bookOfRows(`<row r="1"><c r="A1" t="inlineStr"><is><t>${'ab c'.repeat(750_000)}</t></is></c></row>`),
    /characters/u,
  ],
  [
    'a document with a password',
    'a.ods',
    () =>
      openDocumentOf('', {
        'META-INF/manifest.xml': '<m:manifest xmlns:m="m"><m:file-entry><m:encryption-data/></m:file-entry></m:manifest>',
      }),
    /password/u,
  ],
  ['a document without contents', 'a.ods', () => zipOf(texts({ 'META-INF/manifest.xml': '<m/>' })), /no contents/u],
  ['entities in a document', 'a.ods', () => zipOf(texts({ 'content.xml': `${document}<a>&d;</a>` })), /document type/u],
];
