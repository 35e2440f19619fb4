// The overlay of a carry: until every row is rewritten, readers see the new spelling in place of the old one.
import { joinedValues, valuesIn } from '../values/index.js';
import type { Cells, FieldId } from '../registers/index.js';

export interface Carry {
  readonly field: FieldId;
  readonly from: string;
  readonly to: string;
}

/** The cells as everybody sees them while carries are under way. The same object when nothing is carried. */
export function carried(cells: Cells, carries: readonly Carry[]): Cells {
  let seen: Record<string, string> | undefined;
  for (const { field, from, to } of carries) {
    const held = (seen ?? cells)[field];
    if (held === undefined || (held !== from && !valuesIn(held).includes(from))) continue;
    seen ??= { ...cells };
    seen[field] = joinedValues(valuesIn(held).map((value) => (value === from ? to : value)));
  }
  return seen ?? cells;
}
