// Reads a workbook of ISO/IEC 29500 (OOXML).
import { posix } from 'node:path';
import {
  areasOf,
  columnOf,
  countsIn,
  daysRead,
  storable,
  unescaped,
  type CameBack,
  type CheckType,
  type Counts,
  type FileCheck,
  type FileName,
} from '@dellum/core';
import type { Archive } from './archive.js';
import {
  mostChecks,
  mostColumns,
  mostText,
  countAnew,
  nothingNoticed,
  UnreadableFile,
  type Noticed,
  type OpenedFile,
  type Piece,
  type ReadRow,
} from './models.js';
import { heardWhole, localName, parsed, tags, type Heard, type Tag } from './xmlParts.js';

const root = '_rels/.rels';

/** What all sheets of a workbook share. */
interface Shared {
  readonly texts: readonly string[];
  /** What numbers count, by the place of a style. */
  readonly counts: readonly Counts[];
  readonly from1904: boolean;
}
interface SheetPart {
  readonly title: string;
  readonly hidden: boolean;
  readonly part: string;
}

export async function openWorkbook(archive: Archive): Promise<OpenedFile> {
  const noticed = nothingNoticed();
  noticed.macros = archive.names.some((name) => /vbaProject\.bin$/iu.test(name));
  noticed.links = archive.names.some((name) => /externalLinks\//iu.test(name));
  const book = (await relations(archive, root)).find(({ type }) => type.endsWith('/officeDocument'))?.target ?? 'xl/workbook.xml';
  const parts = await relations(archive, relationsOf(book));
  const sheets = await sheetsOf(archive, book, parts);
  const targetOf = (type: string) => parts.find((part) => part.type.endsWith(`/${type}`))?.target;
  const shared: Shared = {
    texts: await textsOf(archive, targetOf('sharedStrings')),
    counts: await countsOf(archive, targetOf('styles')),
    from1904: sheets.from1904,
  };
  return {
    noticed,
    names: await heardWhole(archive.part(book), namesHeard()),
    async *pieces(): AsyncIterable<Piece> {
      countAnew(noticed);
      for (const { title, hidden, part } of sheets.all) {
        yield { piece: 'sheet', title, hidden };
        const checks: FileCheck[] = [];
        for await (const rows of parsed(archive.part(part), rowsHeard(shared, noticed, checks))) yield { piece: 'rows', rows };
        if (checks.length > 0) yield { piece: 'checks', checks };
      }
    },
  };
}

const relationsOf = (part: string): string => posix.join(posix.dirname(part), '_rels', `${posix.basename(part)}.rels`);

async function relations(archive: Archive, part: string): Promise<{ id: string; type: string; target: string }[]> {
  if (!archive.has(part)) return [];
  const base = part === root ? '' : posix.join(posix.dirname(part), '..');
  return heardWhole(
    archive.part(part),
    tags(({ attributes }, name) => {
      const { Id: id, Type: type, Target: target, TargetMode: mode } = attributes;
      // What lies outside is never followed.
      if (name !== 'Relationship' || id === undefined || type === undefined || target === undefined || mode === 'External')
        return undefined;
      return { id, type, target: target.startsWith('/') ? target.slice(1) : posix.join(base, target) };
    }),
  );
}

async function sheetsOf(archive: Archive, book: string, parts: readonly { id: string; target: string; type: string }[]) {
  let from1904 = false;
  const all = await heardWhole(
    archive.part(book),
    tags(({ attributes }, name): SheetPart | undefined => {
      if (name === 'workbookPr') from1904 = /^(?:1|true)$/u.test(attributes['date1904'] ?? '');
      if (name !== 'sheet') return undefined;
      const [, id] = Object.entries(attributes).find(([key]) => localName(key) === 'id') ?? [];
      // A sheet of a chart alone has no cells.
      const part = parts.find((known) => known.id === id && known.type.endsWith('/worksheet'))?.target;
      return part === undefined
        ? undefined
        : { title: attributes['name'] ?? '', hidden: (attributes['state'] ?? 'visible') !== 'visible', part };
    }),
  );
  if (all.length === 0) throw new UnreadableFile('The file has no sheet. Choose another file.');
  return { all, from1904 };
}

/** Names of cells, as they are defined. */
function namesHeard(): Heard<FileName> {
  let found: FileName[] = [];
  let name: string | undefined;
  let formula = '';
  return {
    open(tag) {
      if (localName(tag.name) !== 'definedName') return;
      [name, formula] = [tag.attributes['name'], ''];
    },
    text(text) {
      if (name !== undefined) formula += text;
    },
    close(tagName) {
      if (localName(tagName) !== 'definedName' || name === undefined) return;
      found.push({ name, formula });
      name = undefined;
    },
    taken() {
      const all = found;
      found = [];
      return all;
    },
  };
}

const checkTypes: readonly CheckType[] = ['list', 'whole', 'decimal', 'date', 'textLength'];
const strict = { stop: 'refuse', warning: 'confirm', information: 'accept' } as const;

/** A check as it is being read (18.3.1.32; in extensions its formulas and cells stand in elements of their own). */
interface CheckRead {
  readonly attributes: Readonly<Record<string, string>>;
  first: string;
  second: string;
  cells: string;
}

function checkOf({ attributes, first, second, cells }: CheckRead): FileCheck | undefined {
  const type = checkTypes.find((known) => known === attributes['type']);
  const areas = areasOf(attributes['sqref'] ?? cells).slice(0, mostChecks);
  if (!type || areas.length === 0) return undefined;
  const isOn = (name: string) => /^(?:1|true)$/u.test(attributes[name] ?? '');
  const style = attributes['errorStyle'];
  const words = (name: string, shown: string) => (isOn(shown) ? storable(unescaped(attributes[name] ?? '')).slice(0, 400) : '');
  return {
    areas,
    type,
    operator: attributes['operator'] ?? 'between',
    first: first.trim(),
    second: second.trim(),
    mayBeBlank: isOn('allowBlank'),
    others: isOn('showErrorMessage') ? strict[style === 'warning' || style === 'information' ? style : 'stop'] : 'accept',
    hintTitle: words('promptTitle', 'showInputMessage').slice(0, 60),
    hint: words('prompt', 'showInputMessage'),
    refusalText: words('error', 'showErrorMessage'),
  };
}

/** Texts in the elements `si`; what is written above them to help reading is left out. */
function textsHeard(): Heard<string> {
  let found: string[] = [];
  let [held, total, inText, above] = ['', 0, false, 0];
  return {
    open({ name }) {
      const local = localName(name);
      if (local === 'si') held = '';
      if (local === 'rPh') above += 1;
      inText = local === 't' && above === 0;
    },
    text(text) {
      if (inText) held += text;
    },
    close(name) {
      const local = localName(name);
      if (local === 'rPh') above -= 1;
      if (local === 't') inText = false;
      if (local !== 'si') return;
      total += held.length;
      if (total > mostText)
        throw new UnreadableFile(`The file holds more than ${mostText.toLocaleString('en-GB')} characters of text. Bring it in parts.`);
      found.push(unescaped(held));
    },
    taken() {
      const all = found;
      found = [];
      return all;
    },
  };
}

const textsOf = async (archive: Archive, part: string | undefined): Promise<string[]> =>
  part === undefined || !archive.has(part) ? [] : heardWhole(archive.part(part), textsHeard());

async function countsOf(archive: Archive, part: string | undefined): Promise<readonly Counts[]> {
  if (part === undefined || !archive.has(part)) return [];
  const written = new Map<number, string>();
  let inCells = false;
  return heardWhole(
    archive.part(part),
    tags(({ attributes }, name) => {
      if (name === 'numFmt') written.set(Number(attributes['numFmtId']), attributes['formatCode'] ?? '');
      if (name === 'cellXfs') inCells = true;
      if (name === 'cellStyles' || name === 'dxfs') inCells = false;
      if (name !== 'xf' || !inCells) return undefined;
      const id = Number(attributes['numFmtId'] ?? 0);
      return countsIn(id, written.get(id));
    }),
  );
}

/** Rows of a sheet; what its cells are checked against is added to `checks`. */
function rowsHeard(shared: Shared, noticed: Noticed, checks: FileCheck[]): Heard<ReadRow> {
  let found: ReadRow[] = [];
  let [row, column] = [0, -1];
  let cells = new Map<number, CameBack>();
  let [type, style] = ['n', 0];
  let [value, inline, hasInline] = ['', '', false];
  let into: 'value' | 'inline' | undefined;
  let above = 0;
  let check: CheckRead | undefined;
  let part: 'first' | 'second' | 'cells' | undefined;

  const begun = ({ attributes }: Tag) => {
    column = columnOf(attributes['r'] ?? '') ?? column + 1;
    [type, style] = [attributes['t'] ?? 'n', Number(attributes['s'] ?? 0)];
    [value, inline, hasInline] = ['', '', false];
  };
  const ended = () => {
    const held = cellOf(shared, noticed, { type, style, text: hasInline ? inline : value });
    if (!held) return;
    if (column >= mostColumns) noticed.beyond += 1;
    else cells.set(column, held);
  };
  return {
    open(tag) {
      const name = localName(tag.name);
      switch (name) {
        case 'row':
          row = tag.attributes['r'] === undefined ? row + 1 : Number(tag.attributes['r']);
          column = -1;
          cells = new Map();
          break;
        case 'c':
          begun(tag);
          break;
        case 'f':
          if (!check) noticed.formulas += 1;
          break;
        case 'dataValidation':
          check = { attributes: tag.attributes, first: '', second: '', cells: '' };
          break;
        case 'formula1':
        case 'formula2':
          part = check && (name === 'formula1' ? 'first' : 'second');
          break;
        case 'sqref':
          part = check && 'cells';
          break;
        case 'v':
          into = 'value';
          break;
        case 'is':
          hasInline = true;
          break;
        case 'rPh':
          above += 1;
          break;
        case 't':
          into = hasInline && above === 0 ? 'inline' : undefined;
      }
    },
    text(text) {
      if (into === 'value') value += text;
      if (into === 'inline') inline += text;
      if (check && part) check[part] += text;
    },
    close(tagName) {
      const name = localName(tagName);
      if (name === 'formula1' || name === 'formula2' || name === 'sqref') part = undefined;
      if (name === 'dataValidation' && check) {
        const read = checks.length < mostChecks ? checkOf(check) : undefined;
        if (read) checks.push(read);
        check = undefined;
      }
      if (name === 'v' || name === 't') into = undefined;
      if (name === 'rPh') above -= 1;
      if (name === 'c') ended();
      if (name === 'row' && cells.size > 0) found.push({ number: row, cells });
    },
    taken() {
      const all = found;
      found = [];
      return all;
    },
  };
}

function cellOf(
  { texts, counts, from1904 }: Shared,
  noticed: Noticed,
  cell: { type: string; style: number; text: string },
): CameBack | undefined {
  const { type, style, text } = cell;
  if (text === '') return undefined;
  switch (type) {
    case 's': {
      const shared = texts[Number(text)] ?? '';
      return shared === '' ? undefined : { is: 'text', text: shared };
    }
    case 'b':
      return { is: 'text', text: text === '1' || text === 'true' ? 'TRUE' : 'FALSE' };
    case 'e':
      noticed.errors += 1;
      return { is: 'text', text };
    case 'str':
    case 'inlineStr':
      return { is: 'text', text: unescaped(text) };
    case 'd':
      return { is: 'text', text: text.replace(/T00:00(?::00)?(?:\.0+)?Z?$/u, '') };
    default: {
      const number = Number(text);
      if (!Number.isFinite(number)) return { is: 'text', text };
      const counted = counts[style] ?? 'number';
      return counted === 'number' ? { is: 'number', number } : daysRead(number, counted, from1904);
    }
  }
}
