// The register that the address names, with what its records are shown and judged by.
import { catalogIdOf } from '@dellum/core';
import type { BuildView, Me, RegisterView } from '@dellum/contract';
import { useCatalogs } from '../../data/useCatalogs.js';
import { useSheetCells } from './useSheetCells.js';

/** The registers of the entry sheets, in their order. */
export const entryRegisters = (build: BuildView): readonly RegisterView[] =>
  build.sheets.filter(({ kind }) => kind === 'entry').flatMap(({ registers }) => registers);

/** What the fields of a register show, and what becomes of what is typed into them. */
export function useRecordCells(register: RegisterView, me: Me) {
  const catalogs = useCatalogs(register.fields.flatMap(({ rule }) => catalogIdOf(rule) ?? []));
  return useSheetCells(register, catalogs, me);
}
export type RecordCells = ReturnType<typeof useRecordCells>;
