// Upkeep over the API.
import type { Upkeep } from '@dellum/contract';
import { api } from '../../api/api.js';

export const upkeepApi = api.injectEndpoints({
  endpoints: (build) => ({
    upkeep: build.query<Upkeep, void>({ query: () => '/upkeep', providesTags: ['Upkeep'] }),
  }),
});
export const { useUpkeepQuery } = upkeepApi;

/** How many things want mending. */
export const upkeepCount = ({ findings, alikes, between, empty, outside }: Upkeep): number => findings.length + alikes.reduce((sum, { groups }) => sum + groups.length, 0) + between.length + empty.length + outside.length;
