// Compiled catalogs in the browser: the same index that the server judges with, kept by version.
import { compileCatalog, searchIndex, type Catalog, type SearchIndex } from '@dellum/core';
import type { CatalogItems } from '@dellum/contract';
import { useEffect, useMemo } from 'react';
import { shallowEqual } from 'react-redux';
import { useAppDispatch, useAppSelector } from '../../store.js';
import { catalogsApi } from './catalogsApi.js';

export interface ReadyCatalog {
  readonly catalog: Catalog;
  readonly search: SearchIndex;
}

const compiled = new WeakMap<CatalogItems, ReadyCatalog>();

function ready(items: CatalogItems): ReadyCatalog {
  const known = compiled.get(items);
  if (known) return known;
  const catalog = compileCatalog(items.id, items.title, items.items);
  const made = { catalog, search: searchIndex(catalog) };
  compiled.set(items, made);
  return made;
}

/** The catalogs of these ids as far as they are loaded; they stay true while the component lives. */
export function useCatalogs(ids: readonly string[]): ReadonlyMap<string, ReadyCatalog> {
  const dispatch = useAppDispatch();
  const wanted = [...new Set(ids)].sort().join(' ');
  useEffect(() => {
    const subscriptions = wanted.split(' ').filter(Boolean).map((id) => dispatch(catalogsApi.endpoints.catalogItems.initiate(id)));
    return () => subscriptions.forEach((subscription) => subscription.unsubscribe());
  }, [dispatch, wanted]);
  const loaded = useAppSelector((state) => wanted.split(' ').filter(Boolean).map((id) => catalogsApi.endpoints.catalogItems.select(id)(state).data), shallowEqual);
  return useMemo(() => new Map(loaded.flatMap((items) => (items ? [[items.id, ready(items)] as const] : []))), [loaded]);
}
