// From registers, their rules and catalogs to the table model.
import { isOffered, itemKey, type Catalog, type Item } from '../catalogs/index.js';
import { catalogAtLevel } from '../cascades/index.js';
import type { Cells, FieldId } from '../registers/index.js';
import { checkableOf, type DayBound, type NumberBound, type OtherValues, type Rule } from '../rules/index.js';
import { format, joinedValues, valuesIn, writeSeveral, type FieldKind, type Locale } from '../values/index.js';
import type { Book, BookList, Check, Column, Edge, Lost, Strictness } from './models.js';
import { freeNameIn } from './names.js';

export interface BookField {
  readonly key: FieldId;
  readonly heading: string;
  readonly kind: FieldKind;
  /** In pixels, as on screen. */
  readonly width: number;
  readonly rule: Rule | null;
}
export interface BookTable {
  readonly title: string;
  /** What stands above the column by which its rows are known when they come back; without it, there is none. */
  readonly mark?: string | undefined;
  readonly fields: readonly BookField[];
}
export interface BookContext {
  /** The catalogs that the rules name, compiled, by id. */
  readonly catalogs: ReadonlyMap<string, Catalog>;
  readonly locale: Locale;
  /** The house's day (ISO 8601): what is offered on it. */
  readonly today: string;
  /** Whether labels are shown, or the values that are stored. */
  readonly labels: boolean;
}

const pixelsOfCharacter = 7;
/**
 * Typed choices stand in the rule itself up to so many characters (ISO/IEC 29500: a formula of a validation); longer ones become a list.
 */
const longestChoices = 255;

const strictnessOf: { readonly [Others in OtherValues]: Strictness } = {
  refuse: 'refuse',
  confirm: 'confirm',
  request: 'confirm',
  add: 'confirm',
  accept: 'accept',
};

/** The model of some registers. `lost` says what programs that open it cannot do as Dellum does. */
export function bookOf(tables: readonly BookTable[], context: BookContext): Book {
  const lists = new ListsOfBook(context);
  const sheets = tables.map(({ title, fields, mark }) => ({
    title,
    mark,
    columns: fields.map((field) => columnOf(field, checkOf(field, fields, lists), context)),
  }));
  const lost = tables.flatMap(({ fields }) =>
    fields.flatMap((field) => lostOf(field, fields).map((what): Lost => ({ heading: field.heading, what }))),
  );
  return { sheets, lists: lists.made, lost };
}

function columnOf({ key, heading, kind, width, rule }: BookField, check: Check | null, { catalogs, labels }: BookContext): Column {
  const source = checkableOf(rule && { ...rule, where: null }).check;
  const catalog = source?.of === 'list' ? catalogs.get(source.catalogId) : undefined;
  const under = source?.of === 'list' ? source.parents : [];
  const level =
    catalog &&
    source?.of === 'list' &&
    (under.length > 0 ? itemsUnder(catalog, under.length) : catalogAtLevel(catalog, source.level).items);
  // Numbers and days stay numbers and days, also where a list writes them in a way of its own.
  const shows = labels && (kind === 'text' || kind === 'several values');
  const named = shows ? (level || []).filter(({ label, value }) => label !== value) : [];
  return {
    key,
    heading,
    kind,
    width: Math.max(4, Math.round(width / pixelsOfCharacter)),
    check,
    mayBeBlank: rule?.mayBeBlank ?? true,
    strictness: strictnessOf[rule?.others ?? 'refuse'],
    hint: rule?.hint ?? '',
    hintTitle: rule?.hintTitle ?? '',
    refusalText: rule?.refusalText ?? '',
    labels: named.length > 0 ? new Map(named.map((item) => [labelKey(under.length > 0 ? item.path : [], item.value), item.label])) : null,
    colours: kind === 'text' ? coloursOf(level || [], shows) : [],
    under,
  };
}

/** So many values of a column are coloured. */
const mostColoured = 200;

function coloursOf(items: readonly Item[], labels: boolean): Column['colours'] {
  const found = new Map<string, Item['colour']>();
  for (const { value, label, colour } of items) {
    const shown = labels ? label : value;
    found.set(shown, found.has(shown) && found.get(shown) !== colour ? undefined : colour);
  }
  return [...found].flatMap(([shown, colour]) => (colour ? [[shown, colour] as const] : [])).slice(0, mostColoured);
}

const itemsUnder = (catalog: Catalog, depth: number): readonly Item[] => catalog.all.filter(({ path }) => path.length === depth);
const labelKey = (path: readonly string[], value: string): string => itemKey({ path, value });

/** What it takes to know what the cells of a column show. */
export type ShownColumn = Pick<Column, 'key' | 'kind' | 'labels' | 'under'>;

const labelIn = ({ labels, under }: ShownColumn, cells: Cells, value: string): string | undefined =>
  labels?.get(
    labelKey(
      under.map((parent) => cells[parent] ?? ''),
      value,
    ),
  );

/** What a cell shows: the label of its value, or the value in the way of the house. */
export function shownInColumn(column: ShownColumn, cells: Cells, locale: Locale): string {
  const value = cells[column.key] ?? '';
  if (value === '') return '';
  if (column.kind === 'several values') return format(column.kind, joinedValues(severalIn(column, cells)), locale);
  return labelIn(column, cells, value) ?? format(column.kind, value, locale);
}

/** The labels of the values of a cell of several, or the values. */
const severalIn = (column: ShownColumn, cells: Cells): readonly string[] =>
  valuesIn(cells[column.key] ?? '').map((one) => labelIn(column, cells, one) ?? one);

/**
 * The label of the value of a cell, or the value as it is stored: plain numbers, days of ISO 8601; several as a list that is typed, or
 * `joined` in another way.
 */
export function exactInColumn(column: Column, cells: Cells, joined: (values: readonly string[]) => string = writeSeveral): string {
  if (column.kind === 'several values') return joined(severalIn(column, cells));
  const value = cells[column.key] ?? '';
  return labelIn(column, cells, value) ?? value;
}

/** What a field and its rule say that programs which open the file do not do; each is read after the heading. */
export function lostOf({ kind, rule }: BookField, fields: readonly BookField[]): readonly string[] {
  const { check, lost } = checkableOf(rule);
  if (!check || (check.of !== 'list' && check.of !== 'values')) return lost;
  if (kind === 'several values') return [...lost, 'takes several values, and has no list there'];
  return [
    ...lost,
    ...(check.of === 'list' && !dependsOnTexts(check.parents, fields)
      ? ['offers its whole list there, whatever stands in the fields it depends on']
      : []),
    ...(rule?.others === 'request' || rule?.others === 'add' ? ['takes other values there after a warning'] : []),
  ];
}

/** A list is found by what its parents show, which is the same everywhere for texts only. */
const dependsOnTexts = (parents: readonly FieldId[], fields: readonly BookField[]): boolean =>
  parents.every((key) => fields.find((field) => field.key === key)?.kind === 'text');

function checkOf(field: BookField, fields: readonly BookField[], lists: ListsOfBook): Check | null {
  const { check } = checkableOf(field.rule);
  switch (check?.of) {
    case undefined:
      return null;
    case 'list':
      if (field.kind === 'several values') return null;
      return check.parents.length > 0 && dependsOnTexts(check.parents, fields)
        ? lists.under(field, check, fields)
        : lists.flat(field, check);
    case 'values':
      return field.kind === 'several values' ? null : lists.typed(field, check.values);
    case 'days':
      return { check: 'day', from: dayEdge(check.from), until: dayEdge(check.until) };
    case 'numbers':
      return { check: check.whole ? 'whole number' : 'number', from: numberEdge(check.least), until: numberEdge(check.most) };
    case 'length':
      return { check: 'length', least: check.least, most: check.most };
    case 'pattern':
      return null;
  }
}

const showsLabelsOf = (catalogId: string, field: BookField | undefined): boolean => {
  const { check } = checkableOf(field?.rule ? { ...field.rule, where: null } : null);
  return check?.of === 'list' && check.catalogId === catalogId;
};

const dayEdge = (bound: DayBound | null): Edge | null => {
  if (!bound) return null;
  if (bound.of === 'day') return { of: 'value', value: bound.day };
  return bound.of === 'today' ? { of: 'today', plus: bound.plus } : { of: 'column', key: bound.field, plus: bound.plus };
};
const numberEdge = (bound: NumberBound | null): Edge | null =>
  bound && (bound.of === 'number' ? { of: 'value', value: bound.number } : { of: 'column', key: bound.field, plus: 0 });

/** The lists of a book: each once, whichever columns point at it. */
class ListsOfBook {
  private readonly known = new Map<string, BookList>();

  constructor(private readonly context: BookContext) {}

  get made(): readonly BookList[] {
    return [...this.known.values()];
  }

  /** The values of one level, each once. */
  flat({ kind }: BookField, { catalogId, level }: { readonly catalogId: string; readonly level: number | null }): Check {
    const catalog = this.context.catalogs.get(catalogId)!;
    const list = this.once(`${catalogId}/${level}/${kind}`, catalog.title, kind, 0, () =>
      this.offered(catalogAtLevel(catalog, level).items).map((item) => ({ under: [], value: this.textOf(item, kind) })),
    );
    return { check: 'list', list: list.name };
  }

  /** The values of one level under all that stand above them; rows of the same parents together. */
  under(
    { kind }: BookField,
    { catalogId, parents }: { readonly catalogId: string; readonly parents: readonly FieldId[] },
    fields: readonly BookField[],
  ): Check {
    const catalog = this.context.catalogs.get(catalogId)!;
    // A parent stands in the key as its own column shows it.
    const labelled = parents.map(
      (key) =>
        this.context.labels &&
        showsLabelsOf(
          catalogId,
          fields.find((field) => field.key === key),
        ),
    );
    const list = this.once(`${catalogId}/under ${labelled.join()}/${kind}`, catalog.title, kind, parents.length, () => {
      const labels = new Map(catalog.all.map((item) => [itemKey(item), item.label]));
      const parentIn = (path: readonly string[], at: number) =>
        (labelled[at] && labels.get(itemKey({ path: path.slice(0, at), value: path[at]! }))) || path[at]!;
      return this.offered(itemsUnder(catalog, parents.length))
        .map((item) => ({ under: item.path.map((_parent, at) => parentIn(item.path, at)), value: this.textOf(item, kind) }))
        .map((row, at) => ({ row, at, key: row.under.join('\u001F') }))
        .sort((a, b) => (a.key < b.key ? -1 : a.key > b.key ? 1 : a.at - b.at))
        .map(({ row }) => row);
    });
    return { check: 'list under', list: list.name, parents };
  }

  typed({ heading, kind }: BookField, values: readonly string[]): Check {
    const texts = values.map((value) => (kind === 'text' ? value : format(kind, value, this.context.locale)));
    const fit =
      kind === 'text' && texts.every((text) => !/[,"]/u.test(text) && text.trim() === text) && texts.join(',').length <= longestChoices - 2;
    if (fit) return { check: 'values', values: texts };
    const list = this.once(`typed/${heading}/${kind}/${texts.join('\u001F')}`, heading, kind, 0, () =>
      values.map((value) => ({ under: [], value })),
    );
    return { check: 'list', list: list.name };
  }

  private offered = (items: readonly Item[]): readonly Item[] => items.filter((item) => isOffered(item, this.context.today));

  /** What the list shows: the label for texts; numbers and dates are written as such. */
  private textOf = ({ value, label }: Item, kind: FieldKind): string => (this.context.labels && kind === 'text' ? label : value);

  private once(key: string, title: string, kind: FieldKind, levels: number, rows: () => BookList['rows']): BookList {
    const known = this.known.get(key);
    if (known) return known;
    const name = freeNameIn(
      title,
      this.made.map((list) => list.name),
    );
    const list = { name, title, kind, levels, rows: rows() };
    this.known.set(key, list);
    return list;
  }
}
