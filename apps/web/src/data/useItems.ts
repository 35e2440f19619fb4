// The items of several catalogs, fetched while somebody needs them all: for seeking, and for finding which of them a table names.
import type { CatalogItems } from '@dellum/contract';
import { useEffect, useMemo } from 'react';
import { shallowEqual } from 'react-redux';
import { useAppDispatch, useAppSelector } from './store.js';
import { catalogsApi } from './catalogsApi.js';
import { unpacked } from './unpacked.js';

export interface ItemsOf {
  readonly id: string;
  readonly items: CatalogItems;
}

export function useItems(ids: readonly string[]): readonly ItemsOf[] {
  const dispatch = useAppDispatch();
  const wanted = ids.join(' ');
  useEffect(() => {
    const subscriptions = wanted
      .split(' ')
      .filter(Boolean)
      .map((id) => dispatch(catalogsApi.endpoints.catalogItems.initiate(id)));
    return () => subscriptions.forEach((subscription) => subscription.unsubscribe());
  }, [dispatch, wanted]);
  const found = useAppSelector((state) => ids.map((id) => catalogsApi.endpoints.catalogItems.select(id)(state).data), shallowEqual);
  return useMemo(
    () => found.flatMap((items, at) => (items ? [{ id: wanted.split(' ')[at]!, items: unpacked(items) }] : [])),
    [found, wanted],
  );
}
