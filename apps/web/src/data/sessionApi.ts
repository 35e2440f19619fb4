// Who is signed in, and the way in and out.
import type { ChangeHouseDto, ChangePasswordDto, MakeHouseDto, Me, SessionView, SignInDto, Threshold } from '@dellum/contract';
import { api } from './api.js';

export const sessionApi = api.injectEndpoints({
  endpoints: (build) => ({
    me: build.query<Me, void>({ query: () => '/session', providesTags: ['Me'] }),
    threshold: build.query<Threshold, string | undefined>({
      query: (house) => `/houses/threshold${house ? `?house=${encodeURIComponent(house)}` : ''}`,
    }),
    signIn: build.mutation<null, SignInDto>({ query: (body) => ({ path: '/session', method: 'POST', body }) }),
    signOut: build.mutation<null, void>({ query: () => ({ path: '/session', method: 'DELETE' }) }),
    /** How the house is called and how it writes. */
    changeHouse: build.mutation<null, ChangeHouseDto>({
      query: (body) => ({ path: '/house', method: 'PATCH', changesBuild: true, body }),
      invalidatesTags: ['Me', 'Build', 'Register', 'Catalog', 'Lineage', 'Counts', 'Form', 'Figures'],
    }),
    mySessions: build.query<SessionView[], void>({ query: () => '/session/all', providesTags: ['People'] }),
    changePassword: build.mutation<null, ChangePasswordDto>({
      query: (body) => ({ path: '/session/password', method: 'PUT', body }),
      invalidatesTags: ['People'],
    }),
    endOtherSessions: build.mutation<null, void>({
      query: () => ({ path: '/session/others', method: 'DELETE' }),
      invalidatesTags: ['People'],
    }),
    makeHouse: build.mutation<null, MakeHouseDto>({ query: (body) => ({ path: '/houses', method: 'POST', body }) }),
  }),
});
export const {
  useMeQuery,
  useThresholdQuery,
  useSignInMutation,
  useSignOutMutation,
  useMakeHouseMutation,
  useChangeHouseMutation,
  useMySessionsQuery,
  useChangePasswordMutation,
  useEndOtherSessionsMutation,
} = sessionApi;
