// The last good values of a linked source.
import { clean } from '../../text/index.js';
import type { LinkedPart, PartItem, PartKind } from './models.js';

export const linkedPart: PartKind<LinkedPart> = {
  kind: 'linked',
  origin: ({ sourceId }) => sourceId,
  reads: ({ sourceId }) => ({ linked: [sourceId] }),
  items: ({ sourceId }, sources) =>
    sources.linked(sourceId).flatMap((row, ordinal): PartItem[] => {
      const value = clean(row.value);
      if (value === '') return [];
      const label = clean(row.label ?? '');
      return [
        {
          value,
          path: [],
          rows: [{ register: sourceId, entry: value, ordinal }],
          ...(label !== '' && label !== value && { label }),
          ...(row.companions && { companions: row.companions }),
        },
      ];
    }),
  companions: ({ sourceId }, sources) => {
    const keys = new Set(sources.linked(sourceId).flatMap(({ companions }) => Object.keys(companions ?? {})));
    return [...keys].map((key) => ({ key, heading: key, kind: 'text' }));
  },
  phrase: ({ sourceId }, names) => names.linked(sourceId),
};
