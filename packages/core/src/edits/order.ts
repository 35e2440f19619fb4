// In which order the edits of one entry are settled: what is read comes before what reads it.
import { bringsOf, readsOf, type CascadeField } from '../rules/index.js';

/** The fields that bring something into a field along with their own value. */
const bringersOf = (key: string, fields: readonly CascadeField[]): string[] =>
  fields.filter(({ rule }) => bringsOf(rule).some(({ field }) => field === key)).map((field) => field.key);

/**
 * Each field after those that its rule reads (parents, bounds, conditions, expressions, the day) and those that bring
 * something into it, so that what is typed there stays. Where they go round, as they stand.
 */
export function inReadingOrder<Field extends CascadeField>(fields: readonly Field[]): readonly Field[] {
  const turns = new Set<Field>();
  const met = new Set<Field>();
  const visit = (field: Field) => {
    if (met.has(field)) return;
    met.add(field);
    for (const key of [...readsOf(field.rule), ...bringersOf(field.key, fields)]) {
      const other = fields.find((known) => known.key === key);
      if (other) visit(other);
    }
    turns.add(field);
  };
  fields.forEach(visit);
  return [...turns];
}
