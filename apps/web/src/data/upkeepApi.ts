// Upkeep over the API.
import type { ColumnView, Gathered, GatherDto, GatherTakenBack, MakeFromRowsDto, ProposedFieldView, Upkeep } from '@dellum/contract';
import { api } from './api.js';
import { sourceTags } from './sourcesApi.js';

export const upkeepApi = api.injectEndpoints({
  endpoints: (build) => ({
    upkeep: build.query<Upkeep, void>({ query: () => '/upkeep', providesTags: ['Upkeep'] }),
    profile: build.query<ColumnView, string>({ query: (fieldId) => `/fields/${fieldId}/profile`, providesTags: ['Counts', 'Build'] }),
    /** The fields that a pasted table could have. */
    proposeFields: build.mutation<ProposedFieldView[], string[][]>({
      query: (rows) => ({ path: '/sheets/from-rows/proposals', method: 'POST', body: { rows } }),
    }),
    makeFromRows: build.mutation<{ id: string }, MakeFromRowsDto>({
      query: (body) => ({ path: '/sheets/from-rows', method: 'POST', changesBuild: true, body }),
      invalidatesTags: ['Build', 'Counts', 'Lineage', 'Upkeep'],
    }),
    gathered: build.query<Gathered | null, string>({ query: (fieldId) => `/fields/${fieldId}/list`, providesTags: ['Counts', 'Build'] }),
    ungather: build.mutation<GatherTakenBack, string>({
      query: (fieldId) => ({ path: `/fields/${fieldId}/list`, method: 'DELETE' }),
      invalidatesTags: [...sourceTags],
    }),
    gather: build.mutation<{ catalogId: string }, { fieldId: string; list: GatherDto }>({
      query: ({ fieldId, list }) => ({ path: `/fields/${fieldId}/list`, method: 'POST', body: list }),
      invalidatesTags: [...sourceTags],
    }),
  }),
});
export const {
  useUpkeepQuery,
  useProfileQuery,
  useGatheredQuery,
  useGatherMutation,
  useMakeFromRowsMutation,
  useProposeFieldsMutation,
  useUngatherMutation,
} = upkeepApi;

/** How many things want mending. */
export const upkeepCount = ({
  findings,
  parents,
  orphans,
  failing,
  untold,
  intakes,
  faulty,
  alikes,
  between,
  empty,
  outside,
}: Upkeep): number =>
  findings.filter(({ kind }) => kind !== 'unused').length +
  parents.length +
  orphans.length +
  failing.length +
  untold.length +
  intakes.length +
  faulty.length +
  alikes.reduce((sum, { groups }) => sum + groups.length, 0) +
  between.length +
  empty.length +
  outside.length;
