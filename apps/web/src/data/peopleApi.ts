// People over the API.
import type { AddPersonDto, ChangePersonDto, FactorRolesDto, GroupDto, Person } from '@dellum/contract';
import { api } from './api.js';

export const peopleApi = api.injectEndpoints({
  endpoints: (build) => ({
    people: build.query<Person[], void>({ query: () => '/people', providesTags: ['People'] }),
    addPerson: build.mutation<{ id: string }, AddPersonDto>({
      query: (body) => ({ path: '/people', method: 'POST', body }),
      invalidatesTags: ['People'],
    }),
    changePerson: build.mutation<null, { id: string; change: ChangePersonDto }>({
      query: ({ id, change }) => ({ path: `/people/${id}`, method: 'PATCH', body: change }),
      invalidatesTags: ['People'],
    }),
    resetPassword: build.mutation<null, { id: string; password: string }>({
      query: ({ id, password }) => ({ path: `/people/${id}/password`, method: 'POST', body: { password } }),
      invalidatesTags: ['People'],
    }),
    admitPerson: build.mutation<null, { id: string; admitted: boolean }>({
      query: ({ id, admitted }) => ({ path: `/people/${id}/admitted`, method: 'PUT', body: { admitted } }),
      invalidatesTags: ['People'],
    }),
    factorRoles: build.query<FactorRolesDto, void>({ query: () => '/people/factor', providesTags: ['People'] }),
    requireFactor: build.mutation<null, FactorRolesDto>({
      query: (body) => ({ path: '/people/factor', method: 'PUT', body }),
      invalidatesTags: ['People', 'Me', 'Factor'],
    }),
    resetFactor: build.mutation<null, string>({
      query: (id) => ({ path: `/people/${id}/factor`, method: 'DELETE' }),
      invalidatesTags: ['People'],
    }),
    makeGroup: build.mutation<{ id: string }, GroupDto>({
      query: (body) => ({ path: '/groups', method: 'POST', changesBuild: true, body }),
      invalidatesTags: ['Build'],
    }),
    changeGroup: build.mutation<{ id: string }, { id: string; group: GroupDto }>({
      query: ({ id, group }) => ({ path: `/groups/${id}`, method: 'PUT', changesBuild: true, body: group }),
      invalidatesTags: ['Build'],
    }),
    deleteGroup: build.mutation<{ id: string }, string>({
      query: (id) => ({ path: `/groups/${id}`, method: 'DELETE', changesBuild: true }),
      invalidatesTags: ['Build'],
    }),
    signOutPerson: build.mutation<null, string>({
      query: (id) => ({ path: `/people/${id}/sessions`, method: 'DELETE' }),
      invalidatesTags: ['People'],
    }),
  }),
});
export const {
  usePeopleQuery,
  useAddPersonMutation,
  useChangePersonMutation,
  useResetPasswordMutation,
  useMakeGroupMutation,
  useChangeGroupMutation,
  useDeleteGroupMutation,
  useSignOutPersonMutation,
  useFactorRolesQuery,
  useRequireFactorMutation,
  useResetFactorMutation,
  useAdmitPersonMutation,
} = peopleApi;
