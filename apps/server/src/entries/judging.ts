// What the cells of a register are judged by.
import { catalogIdOf, readsOf, type Carry, type Catalog, type EditContext, type Locale } from '@dellum/core';
import type { FieldBuild, HouseBuild, RegisterBuild } from '../structure/structure.store.js';

/** What edits of a register are settled by. */
export interface Judgement extends EditContext {
  readonly locale: Locale;
  readonly catalogs: ReadonlyMap<string, Catalog>;
  readonly carries: readonly Carry[];
  readonly suggest: boolean;
}

/** The corrections under way in a register. */
export const carriesOf = (build: HouseBuild, register: RegisterBuild): readonly Carry[] =>
  build.carries.filter(({ registerId }) => registerId === register.id);

/** The field with all whose rules depend on it, directly or through others: their catalogs are needed to judge a change of it. */
export function withFollowers(register: RegisterBuild, field: FieldBuild): FieldBuild[] {
  const found = new Set([field]);
  for (const one of found) for (const other of register.fields) if (readsOf(other.rule).includes(one.key)) found.add(other);
  return [...found];
}

/** The catalogs that the rules of some fields name. */
export const catalogsOf = (fields: readonly FieldBuild[]): string[] => fields.flatMap(({ rule }) => catalogIdOf(rule) ?? []);
