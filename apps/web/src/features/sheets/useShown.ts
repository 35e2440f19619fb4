// What the address says of a sheet: which entries are shown, and which slip stands open.
import type { FieldView, RegisterView } from '@dellum/contract';
import { useMemo } from 'react';
import { usePanel } from '../../frame/usePanel.js';
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

const hasPanel = (params: URLSearchParams) => ['field', 'slip', 'new-field'].some((name) => params.has(name));

export function useShown(register: RegisterView): Shown {
  const [search, change] = usePanel(hasPanel);
  const outside = search.get('outside') ?? undefined;
  const alike = register.fields.find(({ key }) => key === search.get('holds'));
  const value = search.get('value') ?? '';
  const key = alike?.key;
  const wanted = useMemo((): Wanted => (outside ? { outside } : key !== undefined ? { field: key, value } : {}), [outside, key, value]);
  return {
    outside,
    alike,
    value,
    chosen: search.get('field') ?? undefined,
    slip: search.get('slip') ?? undefined,
    adding: search.has('new-field'),
    wanted,
    change,
  };
}

/** The cell whose value is asked about. */
export interface Asked {
  readonly fieldKey: string;
  readonly entry: { readonly id: string; readonly row: number } | undefined;
  readonly text: string;
}

/** Whether any slip stands open. */
export const slipIsOpen = ({ slip, chosen, adding }: Shown, why: Asked | undefined, designs: boolean): boolean =>
  why !== undefined || (adding && designs) || chosen !== undefined || (slip !== undefined && slip !== 'gather');
