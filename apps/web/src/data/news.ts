// What is old is asked for anew. RTK Query holds every invalidation back for as long as any query at all is under way: one answer that
// never comes would stop a tab from hearing anything. Here it waits for one's own changes only, since until they are answered one's screen
// is ahead of the server; what is idle is asked for then, and what is being asked for, once its answer is here: that may be of before.
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

/** Both together, each once: one who waits for long does not gather the same again and again. */
const both = (known: Old = [], more: Old): Old => [...new Map([...known, ...more].map((tag) => [JSON.stringify(tag), tag])).values()];

const isChanging = (state: RootState): boolean => Object.values(state.api.mutations).some((mutation) => mutation?.status === 'pending');

/** Takes the place of the invalidation by tags that is built in; what mutations make old is left to that. */
export const newsMiddleware: Middleware<object, RootState, Dispatch> = ({ dispatch, getState }) => {
  /** What became old while the answer of a query was under way, by the query's key. */
  const meanwhile = new Map<string, Old>();
  /** What became old while changes of one's own were under way. */
  let held: Old = [];

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

  const tell = (): void => {
    if (held.length === 0 || isChanging(getState())) return;
    const old = held;
    held = [];
    for (const [key, query] of Object.entries(getState().api.queries))
      if (query?.status === 'pending') meanwhile.set(key, both(meanwhile.get(key), old));
    askAnew(old, (key) => !meanwhile.has(key));
  };

  return (next) => (action) => {
    if (api.util.invalidateTags.match(action)) {
      held = both(held, action.payload as Old);
      tell();
      return action;
    }
    const result = next(action);
    for (const [key, old] of meanwhile) {
      if (getState().api.queries[key]?.status === 'pending') continue;
      meanwhile.delete(key);
      askAnew(old, (invalid) => invalid === key);
    }
    tell();
    return result;
  };
};
