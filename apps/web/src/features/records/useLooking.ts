// What is looked for among the records of a register, kept in the address: words, values of fields, the order.
import type { RegisterView } from '@dellum/contract';
import { useSearchParams } from 'react-router';
import type { RecordsArg } from '../entries/entriesApi.js';

const valuePrefix = 'is.';
const pageSize = 50;
/** Records that are shown at once; more are looked for more narrowly. */
export const mostShown = 500;

export interface Looking {
  readonly search: string;
  /** The value that each narrowed field must hold; '' for blank. */
  readonly values: ReadonlyMap<string, string>;
  /** "arrival down", or '' for the order of the register. */
  readonly sort: string;
  readonly shown: number;
  readonly arg: RecordsArg;
  change(next: { search?: string; sort?: string; shown?: number; value?: readonly [field: string, value: string | undefined] }): void;
  /** The address of the search, for coming back to it. */
  readonly query: string;
}

export function useLooking(register: RegisterView): Looking {
  const [params, setParams] = useSearchParams();
  const search = params.get('q') ?? '';
  const sort = params.get('sort') ?? '';
  const shown = Math.min(mostShown, Math.max(pageSize, Number(params.get('shown')) || pageSize));
  const known = (key: string) => register.fields.some((field) => field.key === key);
  const values = new Map([...params].flatMap(([name, value]) => (name.startsWith(valuePrefix) && known(name.slice(valuePrefix.length)) ? [[name.slice(valuePrefix.length), value] as const] : [])));
  const [field, direction] = sort.split(' ');
  const arg: RecordsArg = {
    registerId: register.id,
    search,
    only: [...values].map(([key, value]) => ({ only: 'values', field: key, values: [value] })),
    sort: field && known(field) ? [{ field, direction: direction === 'down' ? 'down' : 'up' }] : [],
    from: 0,
    count: shown,
  };
  const change: Looking['change'] = (next) => {
    const changed = new URLSearchParams(params);
    const set = (name: string, value: string | undefined) => (value === undefined ? changed.delete(name) : changed.set(name, value));
    if (next.search !== undefined) set('q', next.search || undefined);
    if (next.sort !== undefined) set('sort', next.sort || undefined);
    if (next.value) set(`${valuePrefix}${next.value[0]}`, next.value[1]);
    set('shown', next.shown === undefined ? undefined : String(next.shown));
    setParams(changed, { replace: true });
  };
  return { search, values, sort, shown, arg, change, query: params.toString() };
}
