// Answers come late, in any order, or not at all: what one has typed stays where it was typed, and no key lands elsewhere.
import { expect, makeSheet, rowsOf, test, typeAcross } from './nursery.js';

test('a new entry stays on screen while answers about other things are still coming, and a new one above it takes what is typed next', async ({
  nursery: { page },
}) => {
  const grid = await makeSheet(page, 'Orders', [['Item'], ['Count', 'a number']]);
  // What is counted beside the sheet takes its time.
  let counted = () => {};
  const late = new Promise<void>((done) => (counted = done));
  await page.route('**/counts', async (route) => {
    await late;
    await route.continue();
  });
  const stored = (method: string) =>
    page.waitForResponse((response) => response.request().method() === method && response.url().includes('/entries/'));
  await page.reload();
  await expect(grid.locator('.active')).toBeFocused();
  for (const item of ['spade', 'rake']) {
    const answered = stored('PATCH');
    await typeAcross(page, [item, '2'], 'Tab', 0);
    await answered;
  }
  await expect
    .poll(() => rowsOf(grid))
    .toEqual([
      ['spade', '2'],
      ['rake', '2'],
      ['type to add', ''],
    ]);
  await grid.getByText('spade').click();
  await page.keyboard.press('Alt+Insert');
  await typeAcross(page, ['hoe', '3'], 'Tab', 0);
  const all = [
    ['spade', '2'],
    ['hoe', '3'],
    ['rake', '2'],
    ['type to add', ''],
  ];
  await expect.poll(() => rowsOf(grid)).toEqual(all);
  counted();
  await expect(page.getByText('3 entries.')).toBeVisible();
  await page.reload();
  await expect.poll(() => rowsOf(grid)).toEqual(all);
});
