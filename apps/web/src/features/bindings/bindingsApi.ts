// Rules of fields over the API.
import type { RuleDto, RuleTrial } from '@dellum/contract';
import { api } from '../../api/api.js';

export const bindingsApi = api.injectEndpoints({
  endpoints: (build) => ({
    ruleTrial: build.query<RuleTrial, { fieldId: string; rule: RuleDto }>({ query: ({ fieldId, rule }) => ({ path: `/fields/${fieldId}/rule/trial`, method: 'POST', body: rule }), providesTags: ['Counts', 'Catalog'] }),
    setRule: build.mutation<null, { fieldId: string; rule: RuleDto }>({ query: ({ fieldId, rule }) => ({ path: `/fields/${fieldId}/rule`, method: 'PUT', body: rule }), invalidatesTags: ['Build', 'Counts', 'Lineage'] }),
    clearRule: build.mutation<null, string>({ query: (fieldId) => ({ path: `/fields/${fieldId}/rule`, method: 'DELETE' }), invalidatesTags: ['Build', 'Counts', 'Lineage'] }),
  }),
});
export const { useRuleTrialQuery, useSetRuleMutation, useClearRuleMutation } = bindingsApi;
