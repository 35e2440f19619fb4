// The judge table in the core; `apps/server/test/rules.test.ts` runs it by HTTP, `e2e/judge.spec.ts` in the browser.
import { readFileSync } from 'node:fs';
import { compileCatalog, houseLocale, judge, newRule, type FieldKind, type Item, type Rule } from '@dellum/core';
import { expect, it } from 'vitest';

interface JudgeTable {
  readonly fields: Readonly<Record<string, { readonly kind: FieldKind; readonly rule: (Partial<Rule> & { readonly kind: Rule['kind'] }) | null }>>;
  readonly cases: Readonly<Record<string, Readonly<Record<string, string>>>>;
}
const table = JSON.parse(readFileSync(new URL('judge-table.json', import.meta.url), 'utf8')) as JudgeTable;
const pilots = ['Tam Ossel', 'Bryn Calloway', 'Rook Tansy'].map((value): Item => ({ value, path: [], label: value, otherNames: [], state: 'offered', from: [] }));
const catalogs = new Map([['pilots', compileCatalog('pilots', 'Pilots', pilots)]]);
const cases = Object.entries(table.cases).flatMap(([field, texts]) => Object.entries(texts).map(([text, result]) => ({ field, text, result })));

const judged = (field: string, heading: string, text: string) => {
  const { kind, rule } = table.fields[field]!;
  const whole = rule && ({ ...newRule(rule.kind), ...rule } as Rule);
  return judge({ heading, kind, rule: whole }, text, { locale: houseLocale, catalogs, today: '2026-11-25' });
};

it('has at least 300 cases', () => expect(cases.length).toBeGreaterThanOrEqual(300));

it.each(cases)('$field: $text', ({ field, text, result }) => {
  const verdict = judged(field, field, text);
  expect(verdict.verdict === 'refused' ? verdict.code : `=${verdict.value}`).toEqual(result);
});

it('says the refusal text with what was typed and the heading in it', () => {
  expect(judged('own', 'Letter', 'b')).toMatchObject({ message: '“b” is no Letter.' });
});
