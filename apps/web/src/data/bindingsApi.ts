// Rules of fields over the API.
import type {
  FieldCount,
  NewListDto,
  RuleChange,
  RuleDto,
  RuleImpact,
  RulesTakenBack,
  RuleTrial,
  SetRulesDto,
  Why,
  WhyDto,
} from '@dellum/contract';
import { api } from './api.js';

export const bindingsApi = api.injectEndpoints({
  endpoints: (build) => ({
    ruleTrial: build.query<RuleTrial, { fieldId: string; rule: RuleDto }>({
      query: ({ fieldId, rule }) => ({ path: `/fields/${fieldId}/rule/trial`, method: 'POST', body: rule }),
      providesTags: ['Counts', 'Catalog'],
    }),
    why: build.query<Why, WhyDto & { fieldId: string }>({
      query: ({ fieldId, ...body }) => ({ path: `/fields/${fieldId}/rule/why`, method: 'POST', body }),
      providesTags: ['Counts', 'Catalog', 'Build', 'Register'],
    }),
    bindings: build.query<FieldCount[], void>({ query: () => '/bindings', providesTags: ['Counts', 'Build', 'Catalog'] }),
    rulesTrial: build.query<RuleImpact[], SetRulesDto>({
      query: (body) => ({ path: '/bindings/trial', method: 'POST', body }),
      providesTags: ['Counts', 'Build', 'Catalog'],
    }),
    setRules: build.mutation<{ set: number }, SetRulesDto>({
      query: (body) => ({ path: '/bindings', method: 'PUT', changesBuild: true, body }),
      invalidatesTags: ['Build', 'Counts', 'Lineage', 'Upkeep'],
    }),
    ruleHistory: build.query<RuleChange[], string | undefined>({
      query: (fieldId) => `/bindings/history${fieldId ? `?field=${fieldId}` : ''}`,
      providesTags: ['Build'],
    }),
    takeBackRules: build.mutation<RulesTakenBack, number>({
      query: (change) => ({ path: '/bindings/taken-back', method: 'POST', changesBuild: true, body: { change } }),
      invalidatesTags: ['Build', 'Counts', 'Lineage', 'Upkeep'],
    }),
    /** The same trial, asked for once before an act. */
    tryRule: build.mutation<RuleTrial, { fieldId: string; rule: RuleDto }>({
      query: ({ fieldId, rule }) => ({ path: `/fields/${fieldId}/rule/trial`, method: 'POST', body: rule }),
    }),
    makeListForField: build.mutation<{ catalogId: string }, { fieldId: string; list: NewListDto }>({
      query: ({ fieldId, list }) => ({ path: `/fields/${fieldId}/rule/list`, method: 'POST', changesBuild: true, body: list }),
      invalidatesTags: ['Build', 'Counts', 'Lineage', 'Ranges', 'Upkeep'],
    }),
    setRule: build.mutation<null, { fieldId: string; rule: RuleDto }>({
      query: ({ fieldId, rule }) => ({ path: `/fields/${fieldId}/rule`, method: 'PUT', changesBuild: true, body: rule }),
      invalidatesTags: ['Build', 'Counts', 'Lineage'],
    }),
    clearRule: build.mutation<null, string>({
      query: (fieldId) => ({ path: `/fields/${fieldId}/rule`, method: 'DELETE', changesBuild: true }),
      invalidatesTags: ['Build', 'Counts', 'Lineage'],
    }),
  }),
});
export const {
  useRuleTrialQuery,
  useWhyQuery,
  useBindingsQuery,
  useRulesTrialQuery,
  useSetRulesMutation,
  useRuleHistoryQuery,
  useTakeBackRulesMutation,
  useSetRuleMutation,
  useTryRuleMutation,
  useMakeListForFieldMutation,
  useClearRuleMutation,
} = bindingsApi;
