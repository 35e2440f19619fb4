// The judge table in the core; `apps/server/test/rules.test.ts` runs it by HTTP, `e2e/judge.spec.ts` in the browser.
import { judge } from '@dellum/core';
import { expect, it } from 'vitest';
import { judgeCases as cases, tableField } from './judgeTable.js';

const judged = (key: string, heading: string, text: string) => {
  const { field, context } = tableField(key);
  return judge({ ...field, heading }, text, context);
};

it('has at least 300 cases', () => expect(cases.length).toBeGreaterThanOrEqual(300));

it.each(cases)('$field: $text', ({ field, text, result }) => {
  const verdict = judged(field, field, text);
  expect(verdict.verdict === 'refused' ? verdict.code : `=${verdict.value}`).toEqual(result);
});

it('says the refusal text with what was typed and the heading in it', () => {
  expect(judged('own', 'Letter', 'b')).toMatchObject({ message: '“b” is no Letter.' });
});
