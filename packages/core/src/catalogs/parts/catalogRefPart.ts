// What another catalog offers, with all that its items bring along.
import type { CatalogRefPart, PartKind } from './models.js';

export const catalogRefPart: PartKind<CatalogRefPart> = {
  kind: 'catalog',
  origin: ({ catalogId }) => catalogId,
  reads: ({ catalogId }) => ({ catalogs: [catalogId] }),
  items: ({ catalogId }, sources) =>
    sources
      .items(catalogId)
      .filter(({ state }) => state === 'offered')
      .map((item) => ({
        value: item.value,
        path: item.path,
        label: item.label,
        rows: item.from.flatMap(({ rows }) => rows),
        item,
        ...(item.companions && { companions: item.companions }),
      })),
  companions: ({ catalogId }, _sources, ofCatalog) => ofCatalog(catalogId),
  phrase: ({ catalogId }, names) => `the catalog ${names.catalog(catalogId)}`,
};
