// What the fields of a table likely are in a catalog of it: its levels, outermost first, and what comes along.
import type { Cells, FieldId, RegisterField } from '../registers/index.js';

/** `level`: a level of the catalog, in the order of the fields; `along`: brought along with the value; `out`: left out. */
export type TableRole = 'level' | 'along' | 'out';

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
  // A table of numbers or days alone has its first field as its values.
  if (levels === 0 && fields[0]) roles.set(fields[0].key, 'level');
  return roles;
}
