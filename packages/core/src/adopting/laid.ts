// A proposal as what is laid into a house: sheets, lists with ranges that grow and catalogs over them, rules, and how each row of a file is
// read.
import {
  noParts,
  type HouseParts,
  type PartsCatalog,
  type PartsField,
  type PartsRegister,
  type PartsSheet,
} from '../exchange/houseParts.js';
import type { CameBack } from '../exchange/comparing.js';
import { compileCatalog, type Catalog, type Item, type KeptItem } from '../catalogs/index.js';
import type { SourceRange } from '../ranges/index.js';
import type { Cells } from '../registers/index.js';
import {
  kindOf,
  newRule,
  type CatalogRule,
  type DateRule,
  type DayBound,
  type LengthRule,
  type NumberBound,
  type NumberRule,
  type Rule,
  type RuleBase,
} from '../rules/index.js';
import { addressKey, clean, freeAmong, freeFieldKey, freeKeyAmong, longestName, matchKey } from '../text/index.js';
import { tableRoles } from '../upkeep/index.js';
import { isNumeric, type FieldKind, type Locale } from '../values/index.js';
import { valuesInRule, type FoundCheck, type Taken } from './checks.js';
import { heldOf, readHeld, type Writing } from './held.js';
import type { HouseProposal, ProposedColumn, ProposedList, ProposedTable } from './proposal.js';
import type { AdoptedTable } from './found.js';
import type { SheetRow } from './tables.js';

interface LaidColumn {
  readonly at: number;
  readonly key: string;
  readonly kind: FieldKind;
  readonly writing: Writing;
  /** In a list, the value that a text becomes; one that is not here stays as it is. Null for a column that is in none. */
  readonly becomes: ReadonlyMap<string, string> | null;
}
/** A table of a file, and the register into which its rows come. */
export interface LaidTable {
  readonly table: string;
  readonly registerId: string;
  readonly columns: readonly LaidColumn[];
}
export interface LaidHouse {
  readonly parts: HouseParts;
  readonly tables: readonly LaidTable[];
  /** Lists that are made of columns, with their rows. */
  readonly lists: readonly { readonly registerId: string; readonly rows: readonly Cells[] }[];
}

const width = 140;
const listsTitle = 'Lists';

/** So many texts of a column are remembered with what they are read as. */
const mostRemembered = 10_000;

/** What the rows of a file are as entries, one after another; a cell that its kind does not read stays as the text that it is. */
export function rowReader({ columns }: LaidTable, house: Locale): (row: SheetRow) => Cells {
  const readers = columns.map((column) => ({ ...column, read: cellReader(column, house) }));
  return ({ cells: from }) => {
    const held: [string, string][] = [];
    for (const { at, key, read } of readers) {
      const cell = from.get(at);
      const value = cell && read(cell);
      if (value !== undefined) held.push([key, value]);
    }
    return Object.fromEntries(held);
  };
}

function cellReader({ kind, writing, becomes }: LaidColumn, house: Locale): (cell: CameBack) => string | undefined {
  const locale = { ...house, ...writing };
  const read = (cell: CameBack) => {
    const held = heldOf(cell);
    if (!held) return undefined;
    const { value } = readHeld(kind, held, locale);
    return becomes ? (becomes.get(clean(value)) ?? clean(value)) : value;
  };
  const known = new Map<string, string | undefined>();
  return (cell) => {
    if (cell.is !== 'text') return read(cell);
    if (known.has(cell.text)) return known.get(cell.text);
    const value = read(cell);
    if (known.size < mostRemembered) known.set(cell.text, value);
    return value;
  };
}

/** Fields of a table, each with a name and a key that no other of it has. */
function fieldsOf(columns: readonly { readonly heading: string; readonly kind: FieldKind }[]): PartsField[] {
  return columns.reduce<PartsField[]>((fields, { heading, kind }, at) => {
    const name = freeAmong(
      heading.slice(0, longestName) || `Field ${at + 1}`,
      fields.map((field) => field.heading),
    );
    const key = freeFieldKey(
      name,
      fields.map((field) => field.key),
    );
    return [...fields, { key, heading: name, kind, width, group: '', rule: null }];
  }, []);
}

interface LaidList {
  readonly list: ProposedList;
  readonly register: PartsRegister;
  readonly range: SourceRange;
  readonly catalog: PartsCatalog;
  readonly rows: readonly Cells[] | undefined;
}

/** `found`: the tables that the proposal is of. `newId` makes ids. */
export function laidParts({ tables, lists }: HouseProposal, found: readonly AdoptedTable[], newId: () => string): LaidHouse {
  const wanted = lists.filter((list) => list.wanted && list.catalog === null);
  const titles: string[] = [];
  const keys = new Set<string>();
  const laid = wanted.map((list): LaidList => {
    const title = freeAmong(list.title.slice(0, longestName) || listsTitle, titles);
    titles.push(title);
    const key = freeKeyAmong(addressKey(title, 'list'), keys);
    keys.add(key);
    const home = tables.find(({ id }) => id === list.home);
    return home ? ofTable(list, home, found, { title, key, newId }) : ofColumns(list, { title, key, newId });
  });
  const offered: OfferedList[] = [...laid, ...ofTheHouse(lists)];
  const entered = tables.filter((table) => table.wanted && table.use === 'entries');
  const sheetTitles: string[] = [];
  const sheets = entered.map((table) => {
    const title = freeAmong(table.title.slice(0, longestName) || 'Entries', sheetTitles);
    sheetTitles.push(title);
    return { table, register: enteredRegister(table, title, offered, newId()) };
  });
  const registers = laid.map(({ register }) => register);
  const source: PartsSheet[] = registers.length === 0 ? [] : [sheetOf(newId(), 'source', freeAmong(listsTitle, sheetTitles), registers)];
  return {
    parts: {
      ...noParts,
      sheets: [...sheets.map(({ register }) => sheetOf(newId(), 'entry', register.title, [register])), ...source],
      ranges: laid.map(({ range }) => range),
      catalogs: laid.map(({ catalog }) => catalog),
    },
    tables: [
      ...sheets.map(({ table, register }) => laidTable(table, register, offered)),
      ...laid.flatMap(({ list, register }) => tables.filter(({ id }) => id === list.home).map((table) => laidTable(table, register, []))),
    ],
    lists: laid.flatMap(({ register, rows }) => (rows ? [{ registerId: register.id, rows }] : [])),
  };
}

const sheetOf = (id: string, kind: PartsSheet['kind'], title: string, registers: readonly PartsRegister[]): PartsSheet => ({
  ...{ id, kind, title, note: '', shown: false, limited: false, downloads: true, groups: [] },
  registers,
});

interface ComingIn {
  readonly column: ProposedColumn;
  readonly field: PartsField;
}

/** The columns of a table that come in, with their fields, in their order. */
const comingIn = (table: ProposedTable, { fields }: PartsRegister): ComingIn[] =>
  table.columns.filter(({ wanted }) => wanted).map((column, place) => ({ column, field: fields[place]! }));

function laidTable(table: ProposedTable, register: PartsRegister, laid: readonly OfferedList[]): LaidTable {
  return {
    table: table.id,
    registerId: register.id,
    columns: comingIn(table, register).map(({ column, field }) => {
      const bound = laid.find(({ list }) => list.id === column.list?.id)?.list.levels[column.list!.level];
      const becomes = bound
        ? new Map(bound.values.flatMap(({ value, spellings }) => spellings.map((one) => [one.value, value] as const)))
        : null;
      return { at: column.at, key: field.key, kind: column.kind, writing: column.writing, becomes };
    }),
  };
}

/** A list, and the catalog that it becomes. */
interface OfferedList {
  readonly list: ProposedList;
  readonly catalog: { readonly id: string };
}

const ofTheHouse = (lists: readonly ProposedList[]): OfferedList[] =>
  lists.flatMap((list) => (list.wanted && list.catalog !== null ? [{ list, catalog: { id: list.catalog } }] : []));

/** The fields that a table becomes, in the order of its columns that come in, with their rules; catalogs bear the ids of their lists. */
export function fieldsToBe(
  table: ProposedTable,
  { lists }: Pick<HouseProposal, 'lists'>,
): { readonly at: number; readonly field: PartsField }[] {
  const offered = lists.filter(({ wanted }) => wanted).map((list) => ({ list, catalog: { id: list.id } }));
  const register = enteredRegister(table, table.title, offered, table.id);
  return comingIn(table, register).map(({ column, field }) => ({ at: column.at, field }));
}

/** The catalog that a list becomes. */
export const catalogToBe = ({ id, title, levels }: ProposedList): Catalog =>
  compileCatalog(
    id,
    title,
    levels
      .at(-1)!
      .values.map(({ value, path, label = value, spellings }): Item => ({
        ...{ value, path, label, state: 'offered', from: [] },
        otherNames: spellings.map((one) => one.value),
      })),
  );

function enteredRegister(table: ProposedTable, title: string, laid: readonly OfferedList[], id: string): PartsRegister {
  const plain: PartsRegister = { id, title, closing: null, fields: fieldsOf(table.columns.filter(({ wanted }) => wanted)) };
  const own = comingIn(table, plain);
  const fieldAt = (listId: string, level: number) =>
    own.find(({ column }) => column.list?.id === listId && column.list.level === level)?.field.key;
  return {
    ...plain,
    fields: own.map(({ column, field }) => {
      const bound = laid.find(({ list }) => list.id === column.list?.id);
      if (!bound) return { ...field, rule: ruleOfFile(column, own) };
      const { level } = column.list!;
      const parents = Array.from({ length: level }, (_, above) => fieldAt(bound.list.id, above));
      const rule: CatalogRule = {
        ...newRule('catalog'),
        ...wordsOf(column.check),
        catalogId: bound.catalog.id,
        level: bound.list.levels.length > 1 ? level : null,
        parents: parents.every((key) => key !== undefined) ? parents : [],
      };
      return { ...field, rule };
    }),
  };
}

/** What the check of a file says to whoever types. */
function wordsOf(check: FoundCheck | undefined): Partial<RuleBase> {
  if (!check) return {};
  const { mayBeBlank, others, hintTitle, hint, refusalText } = check;
  return { mayBeBlank, others, hint, refusalText, ...(hintTitle !== '' && { hintTitle }) };
}

/** The bounds of a check as a rule; null where it has none. A bound that is of a field names a column by where it stands. */
export function boundsRule(taken: Taken): NumberRule | DateRule | LengthRule | null {
  switch (taken.takes) {
    case 'number':
      return { ...newRule('number'), least: taken.least, most: taken.most, decimals: taken.whole ? 0 : null };
    case 'date':
      return { ...newRule('date'), from: taken.from, until: taken.until };
    case 'length':
      return { ...newRule('length'), least: taken.least, most: taken.most };
    default:
      return null;
  }
}

/** The rule of a column that is in no list, as the check of its file has it; null where it has none that says something. */
function ruleOfFile({ at, check, kind }: ProposedColumn, beside: readonly ComingIn[]): Rule | null {
  if (!check) return null;
  const [words, { taken }] = [wordsOf(check), check];
  /** A bound that is another column which does not come in, or holds something else, bounds nothing. */
  const here = <Bound extends NumberBound | DayBound>(bound: Bound | null): Bound | null => {
    if (bound?.of !== 'field') return bound;
    const other = beside.find(({ column }) => column.at !== at && String(column.at) === bound.field);
    return other && (other.column.kind === kind || (isNumeric(other.column.kind) && isNumeric(kind)))
      ? { ...bound, field: other.field.key }
      : null;
  };
  const bounded: Taken | null =
    taken?.takes === 'number'
      ? { ...taken, least: here(taken.least), most: here(taken.most) }
      : taken?.takes === 'date'
        ? { ...taken, from: here(taken.from), until: here(taken.until) }
        : taken;
  const values = valuesInRule(check, kind);
  if (values) return { ...newRule('typed'), values, ...words };
  const rule = bounded && boundsRule(bounded);
  if (rule && kindOf(rule.kind).fits.includes(kind)) return { ...rule, ...words };
  return check.hint === '' ? null : { ...newRule('plain'), ...words, others: 'refuse' };
}

interface Naming {
  readonly title: string;
  readonly key: string;
  readonly newId: () => string;
}

function over(list: ProposedList, register: PartsRegister, fields: readonly string[], along: Along, { title, key, newId }: Naming) {
  const range: SourceRange = {
    id: newId(),
    name: title,
    shape: fields.length > 1 ? 'levels' : 'list',
    inherits: false,
    stretches: [{ registerId: register.id, fields, start: { at: 'top' }, end: { ends: 'last' } }],
  };
  const catalog: PartsCatalog = {
    ...{ id: newId(), key, title, note: '', stewards: [] },
    definition: {
      parts: [{ join: 'or', kind: 'range', rangeId: range.id, ...along }],
      filter: null,
      distinct: 'value',
      order: { by: 'kept' },
    },
    kept: list.levels.flatMap(({ values }) => values.flatMap(keptOf)),
  };
  return { list, register, range, catalog };
}
/** What comes along with the values of a list. */
interface Along {
  readonly label: string | null;
  readonly companions: readonly string[];
}

/** The spellings that a value was found by are its other names from now on: the next file of that kind is understood. */
function keptOf({ value, path, spellings }: ProposedList['levels'][number]['values'][number]): KeptItem[] {
  const others = new Map(spellings.map((one) => [matchKey(one.value), one.value]));
  others.delete(matchKey(value));
  return others.size === 0 ? [] : [{ value, path, retired: false, otherNames: [...others.values()] }];
}

function ofColumns(list: ProposedList, naming: Naming): LaidList {
  const headings = list.levels.map(({ heading }) => ({ heading, kind: 'text' as const }));
  const fields =
    headings.length === 1 ? [{ ...fieldsOf([{ heading: naming.title, kind: 'text' }])[0]!, key: 'value' }] : fieldsOf(headings);
  const register: PartsRegister = { id: naming.newId(), title: naming.title, closing: null, fields };
  const keys = fields.map(({ key }) => key);
  const rows = list.levels
    .at(-1)!
    .values.map(({ value, path }) => Object.fromEntries([...path, value].map((text, level) => [keys[level]!, text])));
  return { ...over(list, register, keys, { label: null, companions: [] }, naming), rows };
}

function ofTable(list: ProposedList, table: ProposedTable, found: readonly AdoptedTable[], naming: Naming): LaidList {
  const wanted = table.columns.filter((column) => column.wanted);
  const isList = wanted.length === 1;
  const fields = isList ? [{ ...fieldsOf([{ heading: naming.title, kind: wanted[0]!.kind }])[0]!, key: 'value' }] : fieldsOf(wanted);
  const register: PartsRegister = { id: naming.newId(), title: naming.title, closing: null, fields };
  const listed =
    found.find(({ file, sheet, table: number }) => file === table.file && sheet === table.sheet && number === table.table)!.listed ?? [];
  const places = wanted.map((column) => table.columns.indexOf(column));
  const rows = listed.map(({ texts }) => ({
    cells: Object.fromEntries(places.flatMap((place, at) => (texts[place] === '' ? [] : [[fields[at]!.key, texts[place]!]]))),
  }));
  const roles = tableRoles(fields, rows);
  const of = (role: string) => fields.flatMap(({ key }) => (roles.get(key) === role ? [key] : []));
  return { ...over(list, register, of('level'), { label: of('label')[0] ?? null, companions: of('along') }, naming), rows: undefined };
}
