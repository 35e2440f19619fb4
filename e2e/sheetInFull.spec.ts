// The shared sheet in full: everybody's own arrangement, blocks, finding, several values, requests, and who is where.
import type { Locator, Page } from '@playwright/test';
import { cellOf, craneHeadings, expect, test, toSheet, two } from './house.js';

const slip = (page: Page): Locator => page.getByRole('complementary', { name: 'Panel' });
const strip = (page: Page) => page.getByRole('group', { name: 'My arrangement' });

/** Puts something on the clipboard as another program does: as text, as HTML, or as both. */
const copied = (page: Page, text: string, html?: string) =>
  page.evaluate(
    async ([plain, table]) => {
      const blob = (type: string, data: string) => new Blob([data], { type });
      await navigator.clipboard.write([
        new ClipboardItem({
          'text/plain': blob('text/plain', plain!),
          ...(table !== undefined && { 'text/html': blob('text/html', table) }),
        }),
      ]);
    },
    [text, html] as const,
  );
/** Selects so many cells downwards from one. */
async function selectDown(page: Page, cell: Locator, count: number): Promise<void> {
  await cell.click();
  for (let at = 1; at < count; at++) await page.keyboard.press('Shift+ArrowDown');
}

test('a sheet is arranged for oneself: sorted, narrowed, with fields hidden and kept in view; nobody else sees it', async ({ house }) => {
  const page = await house.open('mara');
  const grid = await toSheet(page, 'Berth visits');
  await page.getByRole('button', { name: 'Arrange' }).click();
  await slip(page).getByLabel('Field to show by').selectOption({ label: 'Status' });
  await slip(page)
    .getByText(/^Alongside/)
    .click();
  await slip(page)
    .getByText(/^Shifted/)
    .click();
  await slip(page).getByLabel('Order by one more field').selectOption({ label: 'Arrival' });
  await slip(page).getByLabel('Direction 1').selectOption({ label: 'latest first' });
  await expect(strip(page)).toContainText('Arranged by you: only where Status is Alongside or Shifted; by Arrival, the last first');
  await expect(cellOf(grid, 1, 'Status')).toHaveText(/Alongside|Shifted/);
  const arrivals = async () =>
    (await grid.locator('[role=gridcell][data-column="5"]').allTextContents()).map((text) => text.split('.').reverse().join(''));
  await expect
    .poll(async () => {
      const days = await arrivals();
      return days.length > 2 && days.every((day, at) => at === 0 || day <= days[at - 1]!);
    })
    .toBe(true);
  // What is changed stays where it is until one arranges anew.
  await cellOf(grid, 1, 'Status').click();
  await page.keyboard.type('Departed');
  await page.keyboard.press('Enter');
  await expect(cellOf(grid, 1, 'Status')).toHaveText('Departed');
  const shown = await grid.getAttribute('aria-rowcount');
  await page.getByRole('button', { name: 'Refresh' }).click();
  await expect(grid).toHaveAttribute('aria-rowcount', String(Number(shown) - 1));
  await slip(page).getByLabel('Fields kept in view').selectOption('1');
  await slip(page).getByRole('checkbox', { name: 'Vessel' }).locator('..').click();
  await expect(grid.getByRole('columnheader', { name: /^Vessel/ })).toHaveCount(0);
  await page.reload();
  await expect(strip(page)).toBeVisible();
  await expect(grid.getByRole('columnheader', { name: /^Vessel/ })).toHaveCount(0);
  const other = await house.open('olek', undefined, two());
  const theirs = await toSheet(other, 'Berth visits');
  await expect(theirs.getByRole('columnheader', { name: /^Vessel/ })).toBeVisible();
  await expect(other.getByText('1,512 entries.')).toBeVisible();
  await page.getByRole('button', { name: 'As kept' }).click();
  await expect(page.getByText('1,512 entries.')).toBeVisible();
});

test('values and series are carried down, tables from elsewhere are pasted, and what is refused is mended in one place', async ({
  house,
}) => {
  const page = await house.open('mara');
  const grid = await toSheet(page, 'Berth visits');
  await cellOf(grid, 1500, 'Remarks').click();
  await page.keyboard.type('Gate 1');
  await page.keyboard.press('Enter');
  await page.keyboard.type('Gate 3');
  await page.keyboard.press('Enter');
  await selectDown(page, cellOf(grid, 1500, 'Remarks'), 5);
  await page.keyboard.press('Shift+F8');
  await expect(cellOf(grid, 1504, 'Remarks')).toHaveText('Gate 9');
  await selectDown(page, cellOf(grid, 1504, 'Remarks'), 3);
  await page.keyboard.press('F8');
  await expect(cellOf(grid, 1506, 'Remarks')).toHaveText('Gate 9');
  await page.keyboard.press('Control+z');
  await expect(cellOf(grid, 1506, 'Remarks')).not.toHaveText('Gate 9');

  await cellOf(grid, 1500, 'Status').click();
  await copied(
    page,
    'Shifted Tam Ossel Alongsid Nobody',
    '<table><tr><td>Shifted<script>document.title = "run"</script></td><td>Tam Ossel</td></tr><tr><td>Alongsid</td><td>Nobody</td></tr></table>',
  );
  await page.keyboard.press('Control+v');
  await expect(page.getByText('2 cells were taken, 2 refused and kept in their cells.')).toBeVisible();
  await expect(cellOf(grid, 1500, 'Pilot')).toHaveText('Tam Ossel');
  await expect(cellOf(grid, 1501, 'Pilot')).toContainText('Nobody');
  await expect(page).not.toHaveTitle('run');
  await page.getByRole('button', { name: '2 refused, kept for you' }).click();
  await slip(page).getByRole('button', { name: 'Alongside', exact: true }).click();
  await slip(page).getByLabel('Pilot, row 1,501, “Nobody”').fill('Rook Tansy');
  await slip(page).getByRole('button', { name: 'Try it again' }).click();
  await expect(slip(page).getByText('All of them are settled.')).toBeVisible();
  await expect(cellOf(grid, 1501, 'Status')).toHaveText('Alongside');
  await expect(cellOf(grid, 1501, 'Pilot')).toHaveText('Rook Tansy');
});

test('a block longer than the screen is one act: new rows come with it, and go with it', async ({ house }) => {
  test.setTimeout(180_000);
  const page = await house.open('mara');
  const grid = await toSheet(page, 'Crane hours');
  await page.keyboard.press('Control+End');
  await cellOf(grid, 321, 'Hours', craneHeadings).click();
  await copied(page, Array.from({ length: 1200 }, (_, at) => (at === 5 ? 'many' : String(at + 1))).join('\r\n'));
  await page.keyboard.press('Control+v');
  await expect(page.getByText('1,199 cells were taken, 1 refused and kept in its cell.')).toBeVisible({ timeout: 60_000 });
  await expect(page.getByText('1,520 entries.')).toBeVisible();
  // The sum of the whole column is computed where the rows are.
  await page.keyboard.press('Control+End');
  await expect(cellOf(grid, 1520, 'Hours', craneHeadings)).toHaveText('1200');
  await selectDown(page, cellOf(grid, 1517, 'Hours', craneHeadings), 4);
  await expect(page.getByText('4 filled · sum 4794 · mean 1198.5')).toBeVisible();
  await page.keyboard.press('Control+z');
  await expect(page.getByText('320 entries.')).toBeVisible({ timeout: 60_000 });
});

test('a text is found from row to row and replaced, judged, and taken back as one', async ({ house }) => {
  const page = await house.open('mara');
  const grid = await toSheet(page, 'Berth visits');
  await page.getByRole('button', { name: 'Find', exact: true }).click();
  await slip(page).getByLabel('Find', { exact: true }).fill('tam ossel');
  await slip(page).getByLabel('Find in').selectOption({ label: 'in Pilot' });
  await expect(slip(page).getByText(/cells hold it/)).toBeVisible();
  await slip(page).getByRole('button', { name: 'Go to the first one' }).click();
  await expect(grid.locator('.dl-cell.active')).toHaveText('Tam Ossel');
  await slip(page).getByLabel('Replace by').fill('Nobody');
  await slip(page).getByRole('button', { name: 'Replace this one' }).click();
  await expect(page.getByRole('button', { name: '1 refused, kept for you' })).toBeVisible();
  await slip(page).getByLabel('Replace by').fill('Rook Tansy');
  await slip(page)
    .getByRole('button', { name: /^Replace all/ })
    .click();
  await expect(page.getByText(/cells were taken\.$/)).toBeVisible({ timeout: 60_000 });
  await expect(slip(page).getByText('Nothing holds this.')).toBeVisible();
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(slip(page).getByText(/cells hold it/)).toBeVisible({ timeout: 60_000 });
});

test('several values are picked as tokens, by keys alone', async ({ house }) => {
  const page = await house.open('mara');
  const grid = await toSheet(page, 'Berth visits');
  const cell = cellOf(grid, 1500, 'Services');
  await cell.click();
  await page.keyboard.press('Delete');
  await expect(cell).toHaveText('');
  await page.keyboard.type('wa');
  await expect(page.getByRole('option')).toHaveText(['Water', 'Waste']);
  await page.keyboard.press('Enter');
  await page.keyboard.type('40');
  await page.keyboard.press('Enter');
  await page.keyboard.type('nothing of it');
  await page.keyboard.press('Escape');
  // The first Enter adds what is typed, the second goes on.
  await page.keyboard.press('Enter');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('alert')).toContainText('“nothing of it” is not in Services.');
  await page.keyboard.press('Backspace');
  await page.keyboard.press('Tab');
  await expect(cell).toHaveText('Water, Crane 40 t');
});

test('a clerk asks for a value, the steward answers, and the entry comes right or says why not', async ({ house }) => {
  const clerk = await house.open('mara');
  const grid = await toSheet(clerk, 'Crane hours');
  const steward = await house.open('tobin', '/requests', two());
  await expect(steward.getByText('3 requests; 5 entries wait for an answer.')).toBeVisible();
  await cellOf(grid, 318, 'Service', craneHeadings).click();
  await clerk.keyboard.type('Pump');
  await expect(clerk.getByRole('option', { name: 'Ask for “Pump”' })).toBeVisible();
  await clerk.keyboard.press('Enter');
  await expect(cellOf(grid, 318, 'Service', craneHeadings)).toContainText('asked for');
  const request = steward.getByRole('region', { name: '“Pump” for Services' });
  await expect(request).toContainText('asked for by Mara Fenn');
  await expect(steward.getByRole('navigation').getByRole('link', { name: /Requests/ })).toContainText('6');
  await request.getByLabel('Spelled right').fill('Pumping');
  await request.getByRole('button', { name: 'Accept' }).click();
  await expect(cellOf(grid, 318, 'Service', craneHeadings)).toHaveText('Pumping');
  const declined = steward.getByRole('region', { name: '“Fork lift” for Services' });
  await declined.getByLabel('A word').fill('Ask the quay.');
  await declined.getByRole('button', { name: 'Decline' }).click();
  await expect(cellOf(grid, 316, 'Service', craneHeadings)).toContainText('declined by Tobin Ash: “Ask the quay.”');
  // The steward keeps the catalog on its own page, and designs nothing.
  await steward.goto('/catalogs');
  await expect(steward.getByRole('main').getByRole('link')).toHaveText(['Pilots', 'Services']);
  await steward.getByRole('link', { name: 'Services', exact: true }).click();
  await steward.getByLabel('Add a value').fill('Diver');
  await steward.keyboard.press('Enter');
  await steward.getByRole('button', { name: 'Take it in' }).click();
  await expect(steward.getByRole('table').getByRole('button', { name: 'Diver' })).toBeVisible();
  await expect(steward.getByRole('button', { name: 'How it is composed' })).toHaveCount(0);
  await steward.goto('/bindings');
  await expect(steward.getByText('This page is the administrator’s')).toBeVisible();
});

test('one sees who else is on the sheet, and where', async ({ house }) => {
  const mara = await house.open('mara');
  const near = await toSheet(mara, 'Berth visits');
  const olek = await house.open('olek', undefined, two());
  const far = await toSheet(olek, 'Berth visits');
  await cellOf(near, 1500, 'Pilot').click();
  await expect(cellOf(far, 1500, 'Pilot')).toContainText('MF is here');
  await expect(olek.getByText('Mara Fenn is here too')).toBeVisible();
  await mara.keyboard.press('ArrowDown');
  await expect(cellOf(far, 1501, 'Pilot')).toContainText('MF is here');
  await mara.goto('/sheets');
  await expect(olek.getByText('Mara Fenn is here too')).toHaveCount(0);
});

test('a rule is an expression over the entry; fields become a chain; the history takes both back', async ({ house }) => {
  const page = await house.open('ines');
  const grid = await toSheet(page, 'Berth visits');
  await grid
    .getByRole('columnheader', { name: /^Quantity/ })
    .getByRole('button')
    .click();
  await slip(page).getByRole('button', { name: 'a number' }).click();
  await page.getByRole('button', { name: 'what an expression says' }).click();
  await slip(page).getByRole('button', { name: 'an expression', exact: true }).click();
  await page.getByLabel('Expression', { exact: true }).fill('value >');
  await expect(page.getByText(/^The expression cannot be read/)).toBeVisible();
  await page.getByLabel('Expression', { exact: true }).fill('value < 3000 || entry.cargo == "Gravel"');
  await page.getByLabel('Said where it is not true').fill('Only gravel comes in such loads.');
  await page.getByRole('button', { name: 'Take this expression' }).click();
  await slip(page).getByRole('button', { name: 'Set this rule' }).click();
  await expect(page.getByText('The rule of Quantity, t holds from now on.')).toBeVisible();
  await cellOf(grid, 1500, 'Cargo').click();
  await page.keyboard.type('Grain');
  await page.keyboard.press('Enter');
  await cellOf(grid, 1500, 'Quantity, t').click();
  await page.keyboard.type('5000');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('alert').filter({ hasText: 'Only gravel comes in such loads.' })).toBeVisible();
  await page.keyboard.press('Escape');
  await page.keyboard.press('Escape');
  await slip(page).getByRole('button', { name: 'History' }).click();
  await slip(page).getByRole('region', { name: 'History of rules' }).getByRole('button', { name: 'Take it back' }).click();
  await expect(slip(page)).toContainText('Takes a number');

  await page.goto('/bindings?words=Berth visits');
  for (const field of ['Visit', 'Cargo', 'Remarks'])
    await page
      .getByRole('checkbox', { name: `Choose ${field} of Berth visits` })
      .locator('..')
      .click();
  await page.getByLabel('Bind them as a chain').selectOption({ label: 'to the levels of Cargo' });
  await page.getByRole('button', { name: /^Set the rules? of/ }).click();
  await expect(page.getByText('The rule holds in 3 fields from now on.')).toBeVisible();
  await expect(page.getByRole('row', { name: /Remarks Berth visits/ })).toContainText(
    'one item from Cargo under the entry’s Visit › Cargo',
  );
  await page.getByRole('button', { name: 'History' }).click();
  await page.getByRole('region', { name: 'History of rules' }).getByRole('button', { name: 'Take it back' }).first().click();
  await expect(page.getByText('The rule is as it was before in 3 fields.')).toBeVisible();
  await expect(page.getByRole('row', { name: /Remarks Berth visits/ })).toContainText('any text');
});
