// Who is signed in, and the way in and out.
import type { MakeHouseDto, Me, SignInDto, Threshold } from '@dellum/contract';
import { api } from '../../api/api.js';

export const sessionApi = api.injectEndpoints({
  endpoints: (build) => ({
    me: build.query<Me, void>({ query: () => '/session', providesTags: ['Me'] }),
    threshold: build.query<Threshold, string | undefined>({ query: (house) => `/houses/threshold${house ? `?house=${encodeURIComponent(house)}` : ''}` }),
    signIn: build.mutation<null, SignInDto>({ query: (body) => ({ path: '/session', method: 'POST', body }) }),
    signOut: build.mutation<null, void>({ query: () => ({ path: '/session', method: 'DELETE' }) }),
    makeHouse: build.mutation<null, MakeHouseDto>({ query: (body) => ({ path: '/houses', method: 'POST', body }) }),
  }),
});
export const { useMeQuery, useThresholdQuery, useSignInMutation, useSignOutMutation, useMakeHouseMutation } = sessionApi;
