// Judging cells with the core, and what a verdict makes of an entry and of what depends on the cell.
import { blockJudge, carried, catalogIdOf, judge, planCascade, readsOf, withTexts, type Carry, type CascadePlan, type Catalog, type CellJudge, type Cells, type Locale, type RegisterField, type Verdict } from '@dellum/core';
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
  readonly fields: readonly RegisterField[];
}

/** How a cell was typed, beyond its text. */
export interface Typed {
  readonly text: string;
  readonly confirmed?: boolean | undefined;
  readonly repeats?: ((value: string) => boolean) | undefined;
}

/** The corrections under way in a register. */
export const carriesOf = (build: HouseBuild, register: RegisterBuild): readonly Carry[] => build.carries.filter(({ registerId }) => registerId === register.id);

/** The field with all whose rules depend on it, directly or through others: their catalogs are needed to judge a change of it. */
export function withFollowers(register: RegisterBuild, field: FieldBuild): FieldBuild[] {
  const found = new Set([field]);
  for (const one of found) for (const other of register.fields) if (readsOf(other.rule).includes(one.key)) found.add(other);
  return [...found];
}

/** Judges what was typed against what the cell holds as everybody sees it. */
export function judgeCell(field: FieldBuild, { text, confirmed, repeats }: Typed, cells: Cells, judgement: Judgement): Judged {
  const held = cells[field.key] ?? '';
  return followed(field, text, judge(field, text, { ...judgement, held, entry: cells, ...(confirmed && { confirmed }), ...(repeats && { repeats }) }), judgement);
}

/** Judges the cells of a block: what each distinct text means is found once a field. */
export function cellJudges(judgement: Judgement): (field: FieldBuild, typed: Typed, cells: Cells) => Judged {
  const judges = new Map<FieldBuild, CellJudge>();
  return (field, typed, cells) => {
    if (field.rule?.noRepeats) return judgeCell(field, typed, cells, judgement);
    const own = judges.get(field) ?? blockJudge(field, judgement);
    judges.set(field, own);
    return followed(field, typed.text, own(typed.text, cells, cells[field.key] ?? ''), judgement);
  };
}

function followed(field: FieldBuild, text: string, verdict: Verdict, judgement: Judgement): Judged {
  if (verdict.verdict === 'refused') return { field, verdict };
  // While a correction is under way its old spelling cannot be used anew.
  const value = carried({ [field.key]: verdict.value }, judgement.carries)[field.key] ?? '';
  if (value === verdict.value || verdict.verdict !== 'taken') return { field, verdict };
  return { field, verdict: { ...verdict, value, corrected: `“${text}” was taken as ${value}.` } };
}

/** The entry after a verdict, and what follows from it in other fields; undefined when nothing is stored. */
export function afterVerdict(register: RegisterBuild, cells: Cells, { field, verdict }: Judged, judgement: Judgement): CascadePlan | undefined {
  if (verdict.verdict === 'refused') return undefined;
  const fills = verdict.verdict === 'taken' ? Object.entries(verdict.fills ?? {}) : [];
  const after = withTexts(cells, [[field.key, verdict.value], ...fills]);
  if ((after[field.key] ?? '') === (cells[field.key] ?? '') && fills.length === 0) return undefined;
  const plan = planCascade(register.fields, after, [field.key, ...fills.map(([key]) => key)], judgement);
  return { ...plan, filled: [...fills.map(([key, value]) => ({ field: key, value })), ...plan.filled] };
}

/** The catalogs that the rules of some fields name. */
export const catalogsOf = (fields: readonly FieldBuild[]): string[] => fields.flatMap(({ rule }) => catalogIdOf(rule) ?? []);

/** How deep a field lies in a cascade: parents are judged before their children. */
export const depthIn = ({ rule }: FieldBuild): number => (rule?.kind === 'catalog' ? rule.parents.length : 0);
