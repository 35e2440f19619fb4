// The one RTK Query API; features inject their endpoints. Server data live in its cache and nowhere else.
import { createApi, type BaseQueryFn } from '@reduxjs/toolkit/query/react';
import { isAway } from '../live/liveSlice.js';
import { isProblem, passes, unreachable, type RequestProblem } from './problem.js';

export interface ApiRequest {
  readonly path: string;
  readonly method?: 'GET' | 'POST' | 'PUT' | 'PATCH' | 'DELETE';
  readonly body?: unknown;
}

async function ask(request: ApiRequest | string, signal: AbortSignal): Promise<{ data: unknown } | { error: RequestProblem }> {
  const { path, method = 'GET', body } = typeof request === 'string' ? { path: request } : request;
  const writes = method !== 'GET' && method !== 'DELETE';
  try {
    const response = await fetch(`/api/v1${path}`, {
      method,
      signal,
      headers: writes ? { 'Content-Type': 'application/json' } : {},
      ...(writes && { body: JSON.stringify(body ?? {}) }),
    });
    const text = await response.text();
    const data: unknown = text === '' ? null : JSON.parse(text);
    if (response.ok) return { data };
    return { error: isProblem(data) ? data : { ...unreachable, status: response.status } };
  } catch {
    return { error: unreachable };
  }
}

export interface AskedMeta {
  /** When the request was sent, in the time of `performance.now()`. */
  readonly askedAt: number;
}

/** Every request goes through here; one that fails because the server or its database is away says so to the whole application. */
const askApi: BaseQueryFn<ApiRequest | string, unknown, RequestProblem, object, AskedMeta> = async (request, { signal, dispatch }) => {
  const meta = { askedAt: performance.now() };
  const answer = await ask(request, signal);
  if ('error' in answer && passes(answer.error) && !signal.aborted) dispatch(isAway(answer.error.code === 'unreachable' ? 'server' : 'database'));
  return { ...answer, meta };
};

export const api = createApi({
  reducerPath: 'api',
  baseQuery: askApi,
  tagTypes: ['Me', 'People', 'Build', 'Register', 'Catalog', 'Lineage', 'Counts', 'Slips', 'Ranges', 'Upkeep', 'History', 'Linked', 'Arrangement', 'Requests', 'Form', 'Figures'],
  keepUnusedDataFor: 120,
  endpoints: () => ({}),
});
