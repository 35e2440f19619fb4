// The judge table: fields with their rules, and what is typed into them with what comes of it.
import { readFileSync } from 'node:fs';
import {
  compileCatalog,
  houseLocale,
  newRule,
  type FieldKind,
  type Item,
  type JudgeContext,
  type JudgedField,
  type Rule,
} from '@dellum/core';

interface JudgeTable {
  readonly fields: Readonly<
    Record<string, { readonly kind: FieldKind; readonly rule: (Partial<Rule> & { readonly kind: Rule['kind'] }) | null }>
  >;
  readonly cases: Readonly<Record<string, Readonly<Record<string, string>>>>;
}
/** The table as it is kept. */
export const judgeTable = JSON.parse(readFileSync(new URL('judge-table.json', import.meta.url), 'utf8')) as JudgeTable;
const pilots = ['Tam Ossel', 'Bryn Calloway', 'Rook Tansy'].map((value): Item => ({
  value,
  path: [],
  label: value,
  otherNames: [],
  state: 'offered',
  from: [],
}));
const catalogs = new Map([['pilots', compileCatalog('pilots', 'Pilots', pilots)]]);

/** Each case: what is typed, and `=` with the value that is stored or the code of the refusal. */
export const judgeCases = Object.entries(judgeTable.cases).flatMap(([field, texts]) =>
  Object.entries(texts).map(([text, result]) => ({ field, text, result })),
);

/** A field of the table, and what it is judged in. */
export function tableField(key: string): { field: JudgedField; context: JudgeContext & { readonly today: string } } {
  const { kind, rule } = judgeTable.fields[key]!;
  return {
    field: { heading: key, kind, rule: rule && ({ ...newRule(rule.kind), ...rule } as Rule) },
    context: { locale: houseLocale, catalogs, today: '2026-11-25' },
  };
}
