// Who is signed in, and the way in and out.
import type {
  ChangeHouseDto,
  ChangePasswordDto,
  FactorCodeDto,
  FactorView,
  MakeHouseDto,
  Me,
  NewFactor,
  OwnPasswordDto,
  RecoveryCodes,
  SessionView,
  SignInDto,
  Threshold,
} from '@dellum/contract';
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
    myFactor: build.query<FactorView, void>({ query: () => '/session/factor', providesTags: ['Factor'] }),
    beginFactor: build.mutation<NewFactor, OwnPasswordDto>({ query: (body) => ({ path: '/session/factor/begin', method: 'POST', body }) }),
    confirmFactor: build.mutation<RecoveryCodes, FactorCodeDto>({
      query: (body) => ({ path: '/session/factor', method: 'POST', body }),
      invalidatesTags: ['Factor', 'People'],
    }),
    renewCodes: build.mutation<RecoveryCodes, OwnPasswordDto>({
      query: (body) => ({ path: '/session/factor/codes', method: 'POST', body }),
      invalidatesTags: ['Factor'],
    }),
    giveFactorUp: build.mutation<null, OwnPasswordDto>({
      query: (body) => ({ path: '/session/factor/given-up', method: 'POST', body }),
      invalidatesTags: ['Factor', 'People'],
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
  useMyFactorQuery,
  useBeginFactorMutation,
  useConfirmFactorMutation,
  useRenewCodesMutation,
  useGiveFactorUpMutation,
} = sessionApi;

let left = false;
/**
 * One signs out, and the application is loaded anew in a moment: a form that showed itself until then would lose what is typed or clicked
 * in it.
 */
export const leaving = { begin: (): void => void (left = true), isUnderWay: (): boolean => left };
