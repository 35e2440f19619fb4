// Entries of any register that pass a filter: one field gives the value, others the label and the companions.
import { clean } from '../../text/index.js';
import { isOfKind } from '../../values/index.js';
import { filterClause, passes } from '../filter.js';
import { alongWith, companionFields } from './along.js';
import type { PartItem, PartKind, QueryPart } from './models.js';

export const queryPart: PartKind<QueryPart> = {
  kind: 'query',
  origin: ({ registerId }) => registerId,
  reads: ({ registerId, value, label, companions, filter }) => ({
    registers: [registerId],
    fields: {
      registerId,
      value,
      others: [...(label ? [label] : []), ...companions, ...(filter?.conditions.map(({ field }) => field) ?? [])],
    },
  }),

  items({ registerId, value: key, label, companions, filter }, sources) {
    const register = sources.register(registerId);
    if (!register) return [];
    const kind = register.fields.find((field) => field.key === key)?.kind ?? 'text';
    const found = new Map<string, PartItem & { rows: PartItem['rows'][number][] }>();
    register.entries.forEach((entry, ordinal) => {
      const value = clean(entry.cells[key] ?? '');
      if (value === '' || !isOfKind(kind, value) || !passes(filter, (field) => entry.cells[field] ?? '')) return;
      const row = { register: registerId, entry: entry.id, ordinal };
      const known = found.get(value);
      if (known) known.rows.push(row);
      else
        found.set(value, {
          value,
          path: [],
          rows: [row],
          ...alongWith(entry, register, { key, text: value }, label, companions, sources.locale),
        });
    });
    return [...found.values()];
  },

  companions: ({ registerId, companions }, sources) => companionFields(sources.register(registerId), companions),

  phrase({ registerId, value, label, filter }, names) {
    const shown = label ? `, shown as ${names.field(registerId, label)},` : '';
    const where =
      filter && filter.conditions.length > 0
        ? ` where ${filterClause(
            filter,
            (field) => names.field(registerId, field),
            (field, value) => names.value?.(registerId, field, value) ?? value,
          )}`
        : '';
    return `${names.field(registerId, value)}${shown} of ${names.register(registerId)}${where}`;
  },
};
