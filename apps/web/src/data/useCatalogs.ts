// Compiled catalogs in the browser: the same index that the server judges with, kept by version.
import { compileCatalog, searchIndex, type Catalog, type SearchIndex } from '@dellum/core';
import type { CatalogItems } from '@dellum/contract';
import { useEffect, useMemo } from 'react';
import { shallowEqual } from 'react-redux';
import { useAppDispatch, useAppSelector } from './store.js';
import { catalogsApi } from './catalogsApi.js';
import { unpacked } from './unpacked.js';

export interface ReadyCatalog {
  readonly catalog: Catalog;
  readonly search: SearchIndex;
}

const compiled = new WeakMap<CatalogItems, { readonly day: string; readonly ready: ReadyCatalog }>();

function ready(items: CatalogItems, day: string): ReadyCatalog {
  const known = compiled.get(items);
  if (known?.day === day) return known.ready;
  const catalog = compileCatalog(items.id, items.title, items.items, items.companions);
  const made = { catalog, search: searchIndex(catalog, day) };
  compiled.set(items, { day, ready: made });
  return made;
}

/**
 * The catalogs of these ids as far as they are loaded, as they stand on the house's day; they stay true while the component
 * lives. `token`: of the link by which somebody without an account looks at them.
 */
export function useCatalogs(ids: readonly string[], day: string, token?: string): ReadonlyMap<string, ReadyCatalog> {
  const dispatch = useAppDispatch();
  const wanted = [...new Set(ids)].sort().join(' ');
  useEffect(() => {
    const subscriptions = wanted
      .split(' ')
      .filter(Boolean)
      .map((id) =>
        token === undefined
          ? dispatch(catalogsApi.endpoints.catalogItems.initiate(id))
          : dispatch(catalogsApi.endpoints.openCatalogItems.initiate({ token, id })),
      );
    return () => subscriptions.forEach((subscription) => subscription.unsubscribe());
  }, [dispatch, wanted, token]);
  const loaded = useAppSelector(
    (state) =>
      wanted
        .split(' ')
        .filter(Boolean)
        .map(
          (id) =>
            (token === undefined
              ? catalogsApi.endpoints.catalogItems.select(id)(state)
              : catalogsApi.endpoints.openCatalogItems.select({ token, id })(state)
            ).data,
        ),
    shallowEqual,
  );
  return useMemo(
    () => new Map(loaded.flatMap((items) => (items ? [[items.id, ready(unpacked(items), day)] as const] : []))),
    [loaded, day],
  );
}
