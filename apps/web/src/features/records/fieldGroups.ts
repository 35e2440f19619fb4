// The fields of a record in their groups.
import { grouped } from '@dellum/core';
import type { FieldView } from '@dellum/contract';

export interface FieldGroup {
  /** '' for fields that stand under no heading. */
  readonly heading: string;
  readonly fields: readonly FieldView[];
}

/** Groups in the order of their first fields; what stands under no heading comes first. */
export const fieldGroups = (fields: readonly FieldView[]): FieldGroup[] =>
  [...grouped(fields, ({ group }) => group)]
    .map(([heading, own]) => ({ heading, fields: own }))
    .sort((a, b) => Number(a.heading !== '') - Number(b.heading !== ''));
