// Compiled catalogs in the browser: the same index that the server judges with, kept by version.
import { compileCatalog, type Catalog } from '@dellum/core';
import type { CatalogItems } from '@dellum/contract';
import { useEffect, useMemo } from 'react';
import { shallowEqual } from 'react-redux';
import { useAppDispatch, useAppSelector } from './store.js';
import { catalogsApi } from './catalogsApi.js';
import { unpacked } from './unpacked.js';

const compiled = new WeakMap<CatalogItems, Catalog>();

function compiledOf(items: CatalogItems): Catalog {
  const catalog = compiled.get(items) ?? compileCatalog(items.id, items.title, items.items, items.companions);
  compiled.set(items, catalog);
  return catalog;
}

/**
 * The catalogs of these ids as far as they are loaded; they stay true while the component lives. `token`: of the link by which somebody without an account looks at them.
 */
export function useCatalogs(ids: readonly string[], token?: string): ReadonlyMap<string, Catalog> {
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
  return useMemo(() => new Map(loaded.flatMap((items) => (items ? [[items.id, compiledOf(unpacked(items))] as const] : []))), [loaded]);
}
