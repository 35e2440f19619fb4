// What is old is asked for anew at once. RTK Query holds every invalidation back for as long as any query at all is under way: one answer that
// never comes would stop a tab from hearing anything. So what is idle is asked for now, and what is being asked for, once its answer is here:
// that may be of before.
import type { Middleware, ThunkAction, ThunkDispatch, UnknownAction } from '@reduxjs/toolkit';
import { api, type everyTag } from './api.js';
import type { RootState } from './store.js';

type CacheTag = (typeof everyTag)[number];
type Old = readonly (CacheTag | { type: CacheTag; id?: string | number } | null | undefined)[];

type Dispatch = ThunkDispatch<RootState, unknown, UnknownAction>;
type Ask = (arg: unknown, options: { subscribe: false; forceRefetch: true }) => ThunkAction<unknown, RootState, unknown, UnknownAction>;
/** The endpoints that features inject are known by their names alone here. */
type Endpoints = Readonly<Record<string, { readonly initiate: Ask }>>;
type QueryCacheKey = Parameters<typeof api.internalActions.removeQueryResult>[0]['queryCacheKey'];

/** Takes the place of the invalidation by tags that is built in; what mutations make old is left to that. */
export const newsMiddleware: Middleware<object, RootState, Dispatch> = ({ dispatch, getState }) => {
  /** What became old while the answer of a query was under way, by the query's key. */
  const meanwhile = new Map<string, Map<string, Old[number]>>();

  const askAnew = (old: Old, which: (key: string) => boolean): void => {
    const { getSubscriptionCount } = dispatch(api.internalActions.internal_getRTKQSubscriptions()) as unknown as {
      getSubscriptionCount(key: string): number;
    };
    const endpoints = api.endpoints as unknown as Endpoints;
    for (const { endpointName, originalArgs, queryCacheKey } of api.util.selectInvalidatedBy(getState(), old)) {
      if (!which(queryCacheKey)) continue;
      if (getSubscriptionCount(queryCacheKey) > 0)
        dispatch(endpoints[endpointName]!.initiate(originalArgs, { subscribe: false, forceRefetch: true }));
      else dispatch(api.internalActions.removeQueryResult({ queryCacheKey: queryCacheKey as QueryCacheKey }));
    }
  };

  return (next) => (action) => {
    if (api.util.invalidateTags.match(action)) {
      const old = action.payload as Old;
      for (const [key, query] of Object.entries(getState().api.queries)) {
        if (query?.status !== 'pending') continue;
        const known = meanwhile.get(key) ?? new Map<string, Old[number]>();
        for (const tag of old) known.set(JSON.stringify(tag), tag);
        meanwhile.set(key, known);
      }
      askAnew(old, (key) => !meanwhile.has(key));
      return action;
    }
    const result = next(action);
    for (const [key, old] of meanwhile) {
      if (getState().api.queries[key]?.status === 'pending') continue;
      meanwhile.delete(key);
      askAnew([...old.values()], (invalid) => invalid === key);
    }
    return result;
  };
};
