// What the cells of a new entry hold at first.
import type { Cells, FieldId } from '../registers/index.js';
import { ruleHere } from './judge.js';
import type { JudgedField } from './models.js';

/** The cells of a new entry. `above`: the entry under which it is put; undefined for none. */
export function cellsOfNew(fields: readonly (JudgedField & { readonly key: FieldId })[], above: Cells | undefined, today: string): Cells {
  const cells: Record<FieldId, string> = {};
  for (const field of fields) {
    const begins = ruleHere(field, { entry: cells })?.begins;
    const value =
      begins?.with === 'value'
        ? begins.value
        : begins?.with === 'today' && field.kind === 'date'
          ? today
          : begins?.with === 'above'
            ? (above?.[field.key] ?? '')
            : '';
    if (value !== '') cells[field.key] = value;
  }
  return cells;
}
