// What the fields of a table likely are in a catalog of it: its levels, outermost first, what is shown for its values, and
// what comes along; and which catalog one of them names, under whose values the rows belong.
import { compileCatalog, lookUp, type Item } from '../catalogs/index.js';
import { clean } from '../text/index.js';
import type { Cells, FieldId, RegisterField } from '../registers/index.js';

/**
 * `level`: a level of the catalog, in the order of the fields; `label`: shown for the value; `along`: brought along with
 * it; `out`: left out.
 */
export type TableRole = 'level' | 'label' | 'along' | 'out';

const mostLevels = 4;

/** The text fields up to the first that tells every row from the others are levels; what follows comes along. */
export function tableRoles(fields: readonly RegisterField[], rows: readonly { readonly cells: Cells }[]): ReadonlyMap<FieldId, TableRole> {
  const roles = new Map<FieldId, TableRole>();
  let levels = 0;
  let told = false;
  for (const { key, kind } of fields) {
    const isLevel = kind === 'text' && !told && levels < mostLevels;
    roles.set(key, isLevel ? 'level' : 'along');
    if (!isLevel) continue;
    levels++;
    const filled = rows.flatMap(({ cells }) => cells[key] ?? []);
    told = new Set(filled).size === filled.length;
  }
  const [code] = [...roles]
    .filter(([, role]) => role === 'level')
    .map(([key]) => key)
    .slice(-1);
  const name =
    told && levels === 1
      ? fields.find(({ key, kind }) => kind === 'text' && roles.get(key) === 'along' && isNameOf(key, code!, rows))
      : undefined;
  if (name) roles.set(name.key, 'label');
  // A table of numbers or days alone has its first field as its values.
  if (levels === 0 && fields[0]) roles.set(fields[0].key, 'level');
  return roles;
}

/** Codes are written without blanks; their names differ from row to row, and most have blanks or are clearly longer. */
function isNameOf(name: FieldId, code: FieldId, rows: readonly { readonly cells: Cells }[]): boolean {
  const filled = (key: FieldId) => rows.flatMap(({ cells }) => cells[key] ?? []);
  const names = filled(name);
  const codes = filled(code);
  const spaced = (texts: readonly string[]) => texts.filter((text) => text.includes(' ')).length;
  const letters = (texts: readonly string[]) => texts.reduce((sum, text) => sum + text.length, 0);
  const tellsApart = names.length === rows.length && new Set(names).size === names.length;
  return tellsApart && spaced(codes) === 0 && (spaced(names) * 2 > names.length || letters(names) >= letters(codes) * 1.5);
}

/** A field of a table that names items of a catalog: by a companion of theirs, or by their value where `by` is null. */
export interface NamingField {
  readonly key: FieldId;
  readonly by: string | null;
  /** Of the different texts of the field, how many name an item; 0 to 1. */
  readonly share: number;
}

/** So many of the texts have to name an item. */
const leastShare = 0.6;

/** The field of a table that most likely names the items of a catalog; undefined where none does. */
export function namingField(
  fields: readonly RegisterField[],
  rows: readonly { readonly cells: Cells }[],
  items: readonly Item[],
  companions: readonly string[],
): NamingField | undefined {
  const catalog = compileCatalog('', '', items);
  const named = new Map(companions.map((by) => [by, new Set(items.map((item) => clean(item.companions?.[by] ?? '')))]));
  const candidates = fields
    .filter(({ kind }) => kind === 'text')
    .flatMap(({ key }): NamingField[] => {
      const texts = [...new Set(rows.flatMap(({ cells }) => cells[key] ?? []))];
      if (texts.length === 0) return [];
      const share = (names: (text: string) => boolean) => texts.filter(names).length / texts.length;
      return [
        { key, by: null, share: share((text) => lookUp(catalog, text).found === 'item') },
        ...[...named].map(([by, known]) => ({ key, by, share: share((text) => known.has(clean(text))) })),
      ];
    });
  const best = candidates.reduce<NamingField | undefined>((found, one) => (one.share > (found?.share ?? 0) ? one : found), undefined);
  return best && best.share >= leastShare ? best : undefined;
}
