// Judging cells with the core, and what a verdict makes of an entry.
import { carried, judge, withTexts, type Carry, type Catalog, type Cells, type Locale, type Verdict } from '@dellum/core';
import type { FieldBuild, HouseBuild, RegisterBuild } from '../build/build.store.js';

export interface Judged {
  readonly field: FieldBuild;
  readonly verdict: Verdict;
}

export interface Judgement {
  readonly locale: Locale;
  readonly catalogs: ReadonlyMap<string, Catalog>;
  readonly carries: readonly Carry[];
  readonly suggest: boolean;
  readonly today: string;
}

/** The corrections under way in a register. */
export const carriesOf = (build: HouseBuild, register: RegisterBuild): readonly Carry[] => build.carries.filter(({ registerId }) => registerId === register.id);

/** Judges what was typed against what the cell holds as everybody sees it. */
export function judgeCell(field: FieldBuild, text: string, cells: Cells, judgement: Judgement): Judged {
  const held = cells[field.key] ?? '';
  const verdict = judge(field, text, { ...judgement, held });
  if (verdict.verdict !== 'taken') return { field, verdict };
  // While a correction is under way its old spelling cannot be used anew.
  const followed = carried({ [field.key]: verdict.value }, judgement.carries)[field.key] ?? '';
  return { field, verdict: followed === verdict.value ? verdict : { ...verdict, value: followed, corrected: `“${text}” was taken as ${followed}.` } };
}

/** The cells after the verdicts: what was taken is set, what was refused stays as it was. */
export function afterVerdicts(cells: Cells, judged: readonly Judged[]): Cells {
  return withTexts(cells, judged.flatMap(({ field, verdict }) => (verdict.verdict === 'taken' ? [[field.key, verdict.value] as const] : [])));
}
