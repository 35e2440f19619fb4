// Figures over the API: those that are kept, the counting with its progress, and the entries behind a group.
import type { FigureDefinition, FigureGroup } from '@dellum/core';
import type { FigureEntries, FigureLineView, FigureView } from '@dellum/contract';
import { api } from './api.js';
import { isProblem, unreachable, type RequestProblem } from './problem.js';
import { progressed } from './progressSlice.js';

export interface CountedView {
  readonly groups: readonly FigureGroup[];
  readonly entries: number;
  /** Milliseconds on the server. */
  readonly took: number;
}
interface Kept {
  readonly title: string;
  readonly definition: FigureDefinition;
}
/** A figure that takes longer than this is not counted anew by itself with every change (milliseconds). */
const liveWithin = 1500;

/** A figure as the key of its progress. */
export const figureKey = (definition: FigureDefinition): string => JSON.stringify(definition);

/** The lines of a stream, as they come. */
async function* linesOf(body: ReadableStream<Uint8Array>): AsyncGenerator<FigureLineView> {
  const reader = body.getReader();
  const decoder = new TextDecoder();
  let rest = '';
  for (;;) {
    const { value, done } = await reader.read();
    const lines = (rest + decoder.decode(value, { stream: !done })).split('\n');
    rest = done ? '' : (lines.pop() ?? '');
    for (const line of lines) if (line.trim() !== '') yield JSON.parse(line) as FigureLineView;
    if (done) return;
  }
}

async function count(
  definition: FigureDefinition,
  signal: AbortSignal,
  progress: (done: number, total: number) => void,
): Promise<{ data: CountedView } | { error: RequestProblem }> {
  try {
    const response = await fetch('/api/v1/figures/counted', {
      method: 'POST',
      signal,
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify(definition),
    });
    if (!response.ok || !response.body) {
      const problem: unknown = await response.json();
      return { error: isProblem(problem) ? problem : unreachable };
    }
    for await (const line of linesOf(response.body)) {
      if ('problem' in line) return { error: line.problem };
      if ('groups' in line) return { data: line };
      progress(line.done, line.total);
    }
  } catch {
    return { error: signal.aborted ? { ...unreachable, detail: 'The counting was stopped.' } : unreachable };
  }
  return { error: unreachable };
}

export const figuresApi = api.injectEndpoints({
  endpoints: (build) => ({
    figures: build.query<FigureView[], void>({ query: () => '/figures', providesTags: ['Figures'] }),
    keepFigure: build.mutation<{ id: string }, { id?: string; figure: Kept }>({
      query: ({ id, figure }) => ({ path: id ? `/figures/${id}` : '/figures', method: id ? 'PUT' : 'POST', body: figure }),
      invalidatesTags: ['Figures'],
    }),
    deleteFigure: build.mutation<null, string>({
      query: (id) => ({ path: `/figures/${id}`, method: 'DELETE' }),
      invalidatesTags: ['Figures'],
    }),
    counted: build.query<CountedView, FigureDefinition>({
      queryFn: (definition, { signal, dispatch }) =>
        count(definition, signal, (done, total) => dispatch(progressed({ key: figureKey(definition), done, total }))),
      providesTags: (counted) => (counted && counted.took <= liveWithin ? ['Counts'] : []),
      keepUnusedDataFor: 0,
    }),
    figureEntries: build.mutation<FigureEntries, { definition: FigureDefinition; values: readonly string[]; time?: string }>({
      query: (body) => ({ path: '/figures/entries', method: 'POST', body }),
    }),
  }),
});
export const { useFiguresQuery, useKeepFigureMutation, useDeleteFigureMutation, useCountedQuery, useFigureEntriesMutation } = figuresApi;
