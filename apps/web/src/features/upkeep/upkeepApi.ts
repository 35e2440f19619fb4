// Upkeep over the API.
import type { ColumnProfile, GatherDto, Upkeep } from '@dellum/contract';
import { api } from '../../api/api.js';
import { sourceTags } from '../sources/sourcesApi.js';

export const upkeepApi = api.injectEndpoints({
  endpoints: (build) => ({
    upkeep: build.query<Upkeep, void>({ query: () => '/upkeep', providesTags: ['Upkeep'] }),
    profile: build.query<ColumnProfile, string>({ query: (fieldId) => `/fields/${fieldId}/profile`, providesTags: ['Counts', 'Build'] }),
    gather: build.mutation<{ catalogId: string }, { fieldId: string; list: GatherDto }>({ query: ({ fieldId, list }) => ({ path: `/fields/${fieldId}/list`, method: 'POST', body: list }), invalidatesTags: [...sourceTags] }),
  }),
});
export const { useUpkeepQuery, useProfileQuery, useGatherMutation } = upkeepApi;

/** How many things want mending. */
export const upkeepCount = ({ findings, alikes, between, empty, outside }: Upkeep): number => findings.length + alikes.reduce((sum, { groups }) => sum + groups.length, 0) + between.length + empty.length + outside.length;
