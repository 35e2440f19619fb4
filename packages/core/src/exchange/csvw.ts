// What a table of plain values is about, as Tabular Data on the Web describes it (CSVW, W3C 2015): what its columns hold, and in which
// other tables their values are listed.
import type { FieldKind } from '../values/index.js';
import { joinedMark } from '../values/index.js';
import type { BookList, BookSheet, Check, Column } from './models.js';

/** A member of the description; plain JSON. */
export type Described = string | number | boolean | readonly Described[] | { readonly [name: string]: Described };

export interface TablesAbout {
  /** What the file of the sheet is called. */
  readonly file: string;
  /** What the file of a list is called. */
  fileOf(list: BookList): string;
  readonly language: string;
}

/** The columns of the file of a list: what a value stands under, outermost first, and the value. */
export const listColumns = ({ levels }: Pick<BookList, 'levels'>): readonly string[] => [
  ...Array.from({ length: levels }, (_, at) => `under ${at + 1}`),
  'value',
];

/** The description of a sheet and the lists that its columns take values from. */
export function tablesDescription({ title, columns }: BookSheet, lists: readonly BookList[], about: TablesAbout): Described {
  return {
    '@context': ['http://www.w3.org/ns/csvw', { '@language': about.language }],
    tables: [
      {
        url: about.file,
        'dc:title': title,
        tableSchema: {
          columns: columns.map(columnDescription),
          ...presentIf(
            'foreignKeys',
            columns.flatMap((column) => listKey(column, lists, about)),
          ),
        },
      },
      ...lists.map((list) => ({
        url: about.fileOf(list),
        'dc:title': list.title,
        tableSchema: {
          columns: listColumns(list).map((name) => ({
            name: nameOf(name),
            titles: name,
            datatype: name === 'value' ? datatypeOf(list.kind) : 'string',
            required: true,
          })),
          primaryKey: listColumns(list).map(nameOf),
        },
      })),
    ],
  };
}

const presentIf = (name: string, all: readonly Described[]): { readonly [name: string]: Described } =>
  all.length > 0 ? { [name]: all } : {};

/** Names are parts of addresses there (URI templates): letters, digits, points and underscores. */
const nameOf = (name: string): string => name.replaceAll(/[^\w.]/gu, '_');

function columnDescription({ key, heading, kind, check, mayBeBlank, hint }: Column): Described {
  return {
    name: nameOf(key),
    titles: heading,
    datatype: bounded(kind, check),
    ...(!mayBeBlank && { required: true }),
    ...(kind === 'several values' && { separator: joinedMark }),
    ...(hint !== '' && { 'dc:description': hint }),
  };
}

function datatypeOf(kind: FieldKind): string {
  switch (kind) {
    case 'number':
    case 'percent':
    case 'amount':
      return 'decimal';
    case 'date':
      return 'date';
    default:
      return 'string';
  }
}

const patternSigns = /[.*+?^${}()|[\]\\/]/gu;

/** The kind of a column with what its rule says of single values. Bounds by other columns are not said there. */
function bounded(kind: FieldKind, check: Check | null): Described {
  const base = datatypeOf(kind);
  if (kind === 'yes/no') return { base: 'boolean', format: 'yes|no' };
  switch (check?.check) {
    case 'day':
    case 'number':
    case 'whole number':
      return {
        base: check.check === 'whole number' ? 'integer' : base,
        ...(check.from?.of === 'value' && { minimum: check.from.value }),
        ...(check.until?.of === 'value' && { maximum: check.until.value }),
      };
    case 'length':
      return { base, ...(check.least !== null && { minLength: check.least }), ...(check.most !== null && { maxLength: check.most }) };
    case 'values':
      return { base, format: check.values.map((value) => value.replaceAll(patternSigns, String.raw`\$&`)).join('|') };
    default:
      return base;
  }
}

/** In which list the values of a column stand, with the columns that they stand under. */
function listKey({ key, check }: Column, lists: readonly BookList[], about: TablesAbout): Described[] {
  if (check?.check !== 'list' && check?.check !== 'list under') return [];
  const list = lists.find(({ name }) => name === check.list)!;
  const parents = check.check === 'list under' ? check.parents : [];
  return [
    {
      columnReference: [...parents, key].map(nameOf),
      reference: { resource: about.fileOf(list), columnReference: listColumns(list).map(nameOf) },
    },
  ];
}
