// The judge table in the core; `apps/server/test/rules.test.ts` runs it by HTTP, `e2e/judge.spec.ts` in the browser.
import { judge, judgeForm, settle, type FormLayout, type Verdict } from '@dellum/core';
import { expect, it } from 'vitest';
import { judgeCases as cases, tableField } from './judgeTable.js';

const judged = (key: string, heading: string, text: string) => {
  const { field, context } = tableField(key);
  return judge({ ...field, heading }, { typed: text }, context);
};

it('has at least 555 cases', () => expect(cases.length).toBeGreaterThanOrEqual(555));

const resultOf = (verdict: Verdict) => (verdict.verdict === 'refused' ? verdict.code : `=${verdict.value}`);

it.each(cases)('$field: $text', ({ field, text, result }) => {
  expect(resultOf(judged(field, field, text))).toEqual(result);
});

it('says the same in a block, in the cell of an entry that is there, and in a form', () => {
  for (const { field: key, text, result } of cases) {
    const { field, context } = tableField(key);
    const own = { ...field, key };
    const [alone, beside] = [
      { entry: 'e', field: key, typed: text },
      { entry: 'f', field: key, typed: text },
    ];
    const { verdicts } = settle(
      [own],
      new Map([
        ['e', {}],
        ['f', {}],
      ]),
      [alone, beside],
      context,
    );
    expect([key, text, ...verdicts.map(resultOf)]).toEqual([key, text, result, result]);
    // A form takes what is left blank as an answer, and a cell that is there never had one.
    if (result === '=') continue;
    const layout: FormLayout = {
      intro: '',
      thanks: '',
      sections: [
        {
          id: 's',
          heading: '',
          help: '',
          columns: 1,
          where: null,
          fields: [{ field: key, control: null, help: '', begins: null, wide: false, where: null }],
        },
      ],
    };
    const form = judgeForm(
      layout,
      [own],
      { given: { [key]: { typed: text } }, confirmed: new Set() },
      { locale: context.locale, catalogs: context.catalogs, today: context.today, begins: {} },
    );
    expect([key, text, resultOf(form.verdicts.get(key)!)]).toEqual([key, text, result]);
  }
});

it('says the refusal text with what was typed and the heading in it', () => {
  expect(judged('own', 'Letter', 'b')).toMatchObject({ message: '“b” is no Letter.' });
});
