// The ledger over the API: page by page, always asked for anew.
import type { LedgerPage, LedgerQueryDto } from '@dellum/contract';
import { api } from './api.js';

/** What the ledger is narrowed to; only what is said. */
export type LedgerNarrowed = { [Key in Exclude<keyof LedgerQueryDto, 'before'>]?: LedgerQueryDto[Key] | undefined };

/** The query as it stands in an address. */
export const ledgerSearch = (query: LedgerQueryDto): string =>
  new URLSearchParams(Object.entries(query).flatMap(([key, value]) => (value === undefined ? [] : [[key, String(value)]]))).toString();

export const ledgerApi = api.injectEndpoints({
  endpoints: (build) => ({
    ledger: build.query<LedgerPage, LedgerQueryDto>({ query: (query) => `/ledger?${ledgerSearch(query)}`, keepUnusedDataFor: 0 }),
  }),
});
export const { useLedgerQuery } = ledgerApi;
