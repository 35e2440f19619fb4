// What is looked for among the records of a register, kept in the address: words, values of fields, the order.
import { onlyKinds, type Only } from '@dellum/core';
import type { RegisterView } from '@dellum/contract';
import { useSearchParams } from 'react-router';
import type { RecordsArg } from '../../data/entriesApi.js';

const valuePrefix = 'is.';
const pageSize = 50;
/** Records that are shown at once; more are looked for more narrowly. */
export const mostShown = 500;

/** Conditions as the address holds them; none where they cannot be read. */
function onlyIn(text: string | null): Only[] {
  try {
    const read: unknown = JSON.parse(text ?? '[]');
    return Array.isArray(read)
      ? (read as Only[]).filter(
          (one) => typeof one === 'object' && one !== null && typeof one.field === 'string' && onlyKinds.includes(one.only),
        )
      : [];
  } catch {
    return [];
  }
}

export interface Looking {
  readonly search: string;
  /** The value that each narrowed field must hold; '' for blank. */
  readonly values: ReadonlyMap<string, string>;
  /** Further conditions, as a figure leads here with them. */
  readonly more: readonly Only[];
  /** "arrival down", or '' for the order of the register. */
  readonly sort: string;
  readonly shown: number;
  readonly arg: RecordsArg;
  change(next: {
    more?: readonly Only[];
    search?: string;
    sort?: string;
    shown?: number;
    value?: readonly [field: string, value: string | undefined];
  }): void;
  /** The address of the search, for coming back to it. */
  readonly query: string;
}

export function useLooking(register: RegisterView): Looking {
  const [params, setParams] = useSearchParams();
  const search = params.get('q') ?? '';
  const sort = params.get('sort') ?? '';
  const shown = Math.min(mostShown, Math.max(pageSize, Number(params.get('shown')) || pageSize));
  const known = (key: string) => register.fields.some((field) => field.key === key);
  const values = new Map(
    [...params].flatMap(([name, value]) =>
      name.startsWith(valuePrefix) && known(name.slice(valuePrefix.length)) ? [[name.slice(valuePrefix.length), value] as const] : [],
    ),
  );
  const more = onlyIn(params.get('only')).filter((only) => known(only.field));
  const [field, direction] = sort.split(' ');
  const arg: RecordsArg = {
    registerId: register.id,
    search,
    only: [...[...values].map(([key, value]) => ({ only: 'values' as const, field: key, values: [value] })), ...more],
    sort: field && known(field) ? [{ field, direction: direction === 'down' ? 'down' : 'up' }] : [],
    from: 0,
    count: shown,
  };
  const change: Looking['change'] = (next) => {
    // What was changed a moment ago is in the address before it is on the page.
    const changed = new URLSearchParams(window.location.search);
    const set = (name: string, value: string | undefined) => (value === undefined ? changed.delete(name) : changed.set(name, value));
    if (next.search !== undefined) set('q', next.search || undefined);
    if (next.sort !== undefined) set('sort', next.sort || undefined);
    if (next.value) set(`${valuePrefix}${next.value[0]}`, next.value[1]);
    if (next.more) set('only', next.more.length === 0 ? undefined : JSON.stringify(next.more));
    set('shown', next.shown === undefined ? undefined : String(next.shown));
    setParams(changed, { replace: true });
  };
  return { search, values, more, sort, shown, arg, change, query: params.toString() };
}
