// The one RTK Query API; features inject their endpoints. Server data live in its cache and nowhere else.
import type { BuildView } from '@dellum/contract';
import type { ThunkDispatch, UnknownAction } from '@reduxjs/toolkit';
import { createApi, type BaseQueryFn } from '@reduxjs/toolkit/query/react';
import { actsTurn, turnsDone } from './inTurn.js';
import { isAway, type Away } from './away.js';
import { isProblem, passes, unreachable, type RequestProblem } from './problem.js';
import { withLanguages } from './ruleLanguages.js';

export interface ApiRequest {
  readonly path: string;
  readonly method?: 'GET' | 'POST' | 'PUT' | 'PATCH' | 'DELETE';
  readonly body?: unknown;
  /** Sent as it is. */
  readonly file?: Blob;
  /** The request changes the build: it is done when the build that it leads to is here. */
  readonly changesBuild?: true;
}

export async function ask(request: ApiRequest | string, signal: AbortSignal): Promise<{ data: unknown } | { error: RequestProblem }> {
  const { path, method = 'GET', body, file } = typeof request === 'string' ? { path: request } : request;
  const writes = method !== 'GET' && method !== 'DELETE';
  try {
    const response = await fetch(`/api/v1${path}`, {
      method,
      signal,
      headers: writes ? { 'Content-Type': file ? 'application/octet-stream' : 'application/json' } : {},
      ...(writes && { body: file ?? JSON.stringify(body ?? {}) }),
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
  /** When its answer was here: before anything is asked for because of it. */
  readonly answeredAt: number;
}

const awayBy: Partial<Record<RequestProblem['code'], Away>> = { unreachable: 'server', busy: 'busy', 'disk-full': 'disk' };

/** Every request goes through here; one that fails because the server or its database is away says so to the whole application. */
const askApi: BaseQueryFn<ApiRequest | string, unknown, RequestProblem, object, AskedMeta> = async (
  request,
  { signal, dispatch, type, endpoint },
) => {
  // What one does next sees the rows that one has typed: it waits until they are there.
  if (type === 'mutation' && endpoint !== 'act') await turnsDone(actsTurn());
  const askedAt = performance.now();
  const answer = await ask(request, signal);
  const meta = { askedAt, answeredAt: performance.now() };
  if ('error' in answer && passes(answer.error) && !signal.aborted) dispatch(isAway(awayBy[answer.error.code] ?? 'database'));
  if (typeof request === 'object' && request.changesBuild && !('error' in answer)) await dispatch(buildAnew());
  return { ...answer, meta };
};

/** Everything that is cached, by what makes it old. */
export const everyTag = [
  'Me',
  'Factor',
  'People',
  'Build',
  'Register',
  'Catalog',
  'Lineage',
  'Counts',
  'Slips',
  'Ranges',
  'Upkeep',
  'History',
  'Linked',
  'Arrangement',
  'Requests',
  'Form',
  'Figures',
  'Downloads',
  'Returned',
  'Tokens',
  'Intakes',
  'Webhooks',
  'Adoptions',
] as const;

const rulesIn = ({ sheets }: BuildView) =>
  sheets.flatMap(({ registers }) => registers.flatMap(({ fields }) => fields.map(({ rule }) => rule)));

export const api = createApi({
  reducerPath: 'api',
  baseQuery: askApi,
  tagTypes: everyTag,
  keepUnusedDataFor: 120,
  endpoints: (build) => ({
    /** What every page stands on: sheets, lists and fields with their rules, ranges, catalogs and forms. */
    build: build.query<BuildView, void>({
      query: () => '/build',
      transformResponse: (view: BuildView) => withLanguages(view, rulesIn(view)),
      providesTags: ['Build'],
    }),
  }),
});

/**
 * Reads the build again, past an answer under way, which may be of before. Until then whoever does two acts in a row would do the second on
 * what stood before the first.
 */
const buildAnew =
  () =>
  async (dispatch: ThunkDispatch<unknown, unknown, UnknownAction>): Promise<void> => {
    await dispatch(api.util.getRunningQueryThunk('build', undefined));
    await dispatch(api.endpoints.build.initiate(undefined, { forceRefetch: true, subscribe: false }));
  };
