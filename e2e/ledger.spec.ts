// The ledger: who changed what, narrowed, followed to its entry, and back.
import { cellOf, expect, test, toSheet } from './house.js';

test('a change is found in the ledger by person, sheet, field and value, leads to its entry, and Back comes back', async ({ house }) => {
  const clerk = await house.open('mara');
  const grid = await toSheet(clerk, 'Berth visits');
  await cellOf(grid, 1500, 'Pilot').click();
  await expect(cellOf(grid, 1500, 'Pilot')).toHaveText('');
  await clerk.keyboard.type('tam os');
  await clerk.keyboard.press('Enter');
  await expect(cellOf(grid, 1500, 'Pilot')).toHaveText('Tam Ossel');

  const page = await house.open('ines', '/sheets');
  await page.getByRole('navigation').getByRole('link', { name: 'Ledger' }).click();
  const table = page.getByRole('table');
  const changed = 'Pilot: blank → “Tam Ossel”';
  await expect(table.getByRole('row').filter({ hasText: changed })).toContainText('Mara');
  const lines = table.locator('tbody tr');
  const all = await lines.count();
  await page.getByLabel('Who', { exact: true }).selectOption({ label: 'Ines Quarrie' });
  await expect(table).not.toContainText(changed);
  await page.getByLabel('Who', { exact: true }).selectOption({ label: 'everybody' });
  await page.getByLabel('What', { exact: true }).selectOption({ label: 'Entries' });
  await page.getByLabel('Where', { exact: true }).selectOption({ label: 'Berth visits' });
  await page.getByLabel('Field', { exact: true }).selectOption({ label: 'Pilot' });
  await page.getByLabel('A value').fill('Tam Ossel');
  await page.keyboard.press('Enter');
  await expect(lines).toHaveCount(1);
  await expect(lines).toContainText(changed);
  // What it is narrowed to stands in the address.
  await page.reload();
  await expect(lines).toHaveCount(1);
  const file = page.waitForEvent('download');
  await page.getByRole('link', { name: 'Download as CSV' }).click();
  expect((await file).suggestedFilename()).toBe('ledger.csv');
  await lines.getByRole('link', { name: 'the entry in Berth visits' }).click();
  await expect(page.getByRole('region', { name: 'History of the record' })).toContainText('Tam Ossel');
  await page.goBack();
  await expect(lines).toHaveCount(1);
  await page.getByLabel('A value').fill('nobody');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { name: 'Nothing of this kind was done' })).toBeVisible();
  await page.getByRole('button', { name: 'Show all' }).click();
  await expect.poll(() => lines.count()).toBeGreaterThanOrEqual(all);

  await clerk.goto('/ledger');
  await expect(clerk.getByRole('heading', { name: /This page is/ })).toBeVisible();
});
