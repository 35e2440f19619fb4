// The judge table in the browser: cases of each sort typed into the trial entry of a field, as a clerk would.
import { askedBeforeNew, compileCatalog, format, houseLocale, judge, newRule, type Item, type Rule, type Verdict } from '@dellum/core';
import type { BuildView } from '@dellum/contract';
import type { Page } from '@playwright/test';
import { judgeTable as table } from '../packages/core/test/judgeTable.js';
import { expect, test } from './house.js';

const values = ['Tam Ossel', 'Bryn Calloway', 'Rook Tansy'];
const today = new Date().toISOString().slice(0, 10);
/** A line of text holds no line ends, and no half of a character comes out of a keyboard. */
const canBeTyped = (text: string) => !/[\n\r\p{Surrogate}]/u.test(text);

/** A sheet whose fields have the rules of the table; fields without a rule get a plain one, so that they can be tried. */
async function lay(
  page: Page,
): Promise<{ sheetId: string; rules: Map<string, Rule>; catalogs: Map<string, ReturnType<typeof compileCatalog>> }> {
  const post = async <T>(path: string, data: unknown): Promise<T> =>
    (await page.request.post(`/api/v1${path}`, { data })).json() as Promise<T>;
  const definition = { parts: [{ kind: 'typed', join: 'or', values }], filter: null, distinct: 'value', order: { by: 'kept' } };
  const catalog = await post<{ id: string }>('/catalogs', { title: 'Judged', note: '', definition });
  const sheet = await post<{ id: string }>('/sheets', { kind: 'entry', title: 'Judged' });
  const registerOf = async () =>
    ((await (await page.request.get('/api/v1/build')).json()) as BuildView).sheets.find(({ id }) => id === sheet.id)!.registers[0]!;
  const { id } = await registerOf();
  for (const [heading, { kind }] of Object.entries(table.fields)) await post(`/registers/${id}/fields`, { heading, kind });
  const { fields } = await registerOf();
  const rules = new Map<string, Rule>();
  for (const { key, id: fieldId } of fields) {
    const given = table.fields[key]!.rule ?? { kind: 'plain' as const };
    const rule = { ...newRule(given.kind), ...given, ...(given.kind === 'catalog' && { catalogId: catalog.id }) } as Rule;
    rules.set(key, rule);
    expect((await page.request.put(`/api/v1/fields/${fieldId}/rule`, { data: rule })).status()).toBe(204);
  }
  const items = values.map((value): Item => ({ value, path: [], label: value, otherNames: [], state: 'offered', from: [] }));
  return { sheetId: sheet.id, rules, catalogs: new Map([[catalog.id, compileCatalog(catalog.id, 'Judged', items)]]) };
}

/**
 * Of rules of a kind one, and of texts that come out alike one, is tried here: the core, a block, a form and the server take the whole
 * table.
 */
const sortOf = (verdict: Verdict, held: string): string =>
  [
    verdict.verdict,
    'code' in verdict ? verdict.code : verdict.value === '' ? 'blank' : verdict.value === held ? 'as it was' : '',
    verdict.verdict === 'taken' && verdict.corrected !== undefined,
  ].join(' ');

test('the trial entry says of each sort of fields and cases of the judge table what the core says', async ({ house }) => {
  test.setTimeout(240_000);
  const page = await house.open('ines');
  const { sheetId, rules, catalogs } = await lay(page);
  const rulesSeen = new Set<string>();
  for (const [field, texts] of Object.entries(table.cases)) {
    const { kind: ruleKind, others } = rules.get(field)!;
    const sortOfField = [table.fields[field]!.kind, ruleKind, others].join(' ');
    if (rulesSeen.has(sortOfField)) continue;
    rulesSeen.add(sortOfField);
    const { kind } = table.fields[field]!;
    const rule = rules.get(field)!;
    await page.goto(`/sheets/${sheetId}?field=${field}`);
    const input = page.getByLabel(`Try ${field}`);
    await input.click();
    let held = '';
    const seen = new Set<string>();
    for (const text of Object.keys(texts).filter(canBeTyped)) {
      const verdict = judge({ heading: field, kind, rule }, { typed: text }, { locale: houseLocale, catalogs, held, suggest: true, today });
      const sort = sortOf(verdict, held);
      if (seen.has(sort)) continue;
      seen.add(sort);
      await input.fill(text);
      // With the list closed it is the text itself that is taken, and not the first match of a search.
      if (rule.kind === 'catalog' || rule.kind === 'typed') await input.press('Alt+ArrowUp');
      await input.press('Enter');
      if (verdict.verdict === 'refused') {
        await expect(page.getByRole('alert'), `${field}: ${text}`).toContainText(verdict.message);
        continue;
      }
      // What is near a standing value is asked about before it becomes a new one.
      const asked = askedBeforeNew(verdict, text);
      if (asked) {
        await expect(page.getByRole('alert'), `${field}: ${text}`).toContainText(asked.message);
        await input.press('Control+Enter');
      }
      held = verdict.value;
      const shown = format(kind, held, houseLocale);
      const said =
        {
          taken: undefined,
          marked: `${shown} would be stored, marked as outside.`,
          requested: `${shown} would be stored, marked, and asked for.`,
          added: `${shown} would be added to the catalog and taken.`,
        }[verdict.verdict] ?? (verdict.verdict === 'taken' ? verdict.corrected : undefined);
      await expect(page.getByRole('complementary', { name: 'Panel' }).getByRole('status'), `${field}: ${text}`).toContainText(
        said ?? (held === '' ? 'Blank is taken.' : `${shown} is taken.`),
      );
    }
  }
});
