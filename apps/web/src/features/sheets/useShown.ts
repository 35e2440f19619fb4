// What the address says of a sheet: which entries are shown, and which slip stands open.
import type { FieldView, RegisterView } from '@dellum/contract';
import { useMemo } from 'react';
import { useSearchParams } from 'react-router';
import type { Wanted } from '../entries/useEntryWindow.js';

export interface Shown {
  /** A field's key or `*`: only entries that are outside there. */
  readonly outside: string | undefined;
  /** Only entries that hold `value` in this field. */
  readonly alike: FieldView | undefined;
  readonly value: string;
  /** The field whose slip stands open. */
  readonly chosen: string | undefined;
  readonly slip: string | undefined;
  readonly adding: boolean;
  /** Which entries are asked for; nothing for all. */
  readonly wanted: Wanted;
  change(next: Readonly<Record<string, string | undefined>>): void;
}

export function useShown(register: RegisterView): Shown {
  const [search, setSearch] = useSearchParams();
  const outside = search.get('outside') ?? undefined;
  const alike = register.fields.find(({ key }) => key === search.get('holds'));
  const value = search.get('value') ?? '';
  const key = alike?.key;
  const wanted = useMemo((): Wanted => (outside ? { outside } : key !== undefined ? { field: key, value } : {}), [outside, key, value]);
  const change = (next: Readonly<Record<string, string | undefined>>) => {
    const params = new URLSearchParams(search);
    for (const [name, own] of Object.entries(next)) {
      if (own === undefined) params.delete(name);
      else params.set(name, own);
    }
    setSearch(params, { replace: true });
  };
  return { outside, alike, value, chosen: search.get('field') ?? undefined, slip: search.get('slip') ?? undefined, adding: search.has('new-field'), wanted, change };
}
