// The names that the sentence of a catalog needs, from the build.
import type { CompanionField, PartNames } from '@dellum/core';
import type { BuildView } from '@dellum/contract';
import { written } from '../../frame/written.js';

export function partNames(build: BuildView): PartNames {
  const registers = build.sheets.flatMap((sheet) => sheet.registers);
  const register = (id: string) => registers.find((known) => known.id === id);
  return {
    range: (id) => build.ranges.find((range) => range.id === id)?.name ?? 'a range that is gone',
    register: (id) => register(id)?.title ?? 'a sheet that is gone',
    field: (id, key) => register(id)?.fields.find((field) => field.key === key)?.heading ?? key,
    value: (id, key, value) => written(register(id)?.fields.find((field) => field.key === key)?.kind ?? 'text', value),
    linked: (id) => build.linked.find((source) => source.id === id)?.name ?? 'a linked source that is gone',
    catalog: (id) => build.catalogs.find((catalog) => catalog.id === id)?.title ?? 'a catalog that is gone',
  };
}

const own: Readonly<Record<string, string>> = { value: 'the value', label: 'what is shown', note: 'the note' };

/** What a field of an item is called: a member of its own, or the heading of a companion. */
export const itemFieldName =
  (companions: readonly CompanionField[]) =>
  (key: string): string =>
    own[key] ?? companions.find((field) => field.key === key)?.heading ?? key;
