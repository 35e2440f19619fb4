// Values typed right into the catalog.
import type { PartKind, TypedPart } from './models.js';

export const typedPart: PartKind<TypedPart> = {
  kind: 'typed',
  origin: () => '',
  reads: () => ({}),
  items: ({ values }) => values.map((value) => ({ value, path: [], rows: [] })),
  companions: () => [],
  phrase: ({ values }) => (values.length <= 3 ? values.join(', ') : `${values.length} typed values`),
};
