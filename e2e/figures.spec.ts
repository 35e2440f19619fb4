// Figures through the interface: looked at, changed, kept, live, taken along; a number leads to its entries.
import { readFileSync } from 'node:fs';
import type { Page } from '@playwright/test';
import { cellOf, expect, test, toSheet, two } from './house.js';

const slip = (page: Page) => page.getByRole('complementary', { name: 'Panel' });
const table = (page: Page) => page.getByRole('table');
const numbers = async (page: Page, row: string) =>
  (
    await table(page)
      .getByRole('row')
      .filter({ has: page.getByRole('rowheader', { name: row }) })
      .getByRole('cell')
      .allTextContents()
  ).map((text) => text.trim());

test('a figure is made, kept under a name, followed live, and leads to its entries', { tag: '@main' }, async ({ house }) => {
  const page = await house.open('ines', '/figures');
  await expect(page.getByRole('link', { name: /Waste by kind and month/ })).toContainText(
    'The sum of Volume, m³ by Kind of waste, by month of Day',
  );
  await page.getByRole('link', { name: 'New figure' }).click();
  await slip(page).getByRole('combobox', { name: 'By', exact: true }).selectOption({ label: 'Quay' });
  await slip(page).getByLabel('And by').selectOption({ label: 'Status' });
  await slip(page).getByLabel('Chart').selectOption({ label: 'bars on one another' });
  await expect(page.getByText('Entries of Berth visits by Quay and Status. 1,512 entries looked through.')).toBeVisible();
  // In the order of the catalog, what is outside after it and said so.
  await expect(table(page).getByRole('rowheader')).toHaveText([
    /Lantern Basin/,
    /Heron Mole/,
    /Salt Quay/,
    /Timber Pond/,
    /Lantern Bsn, outside/,
    /North Basin, outside/,
    /Salt Quai, outside/,
    'All',
  ]);
  await expect(table(page).getByRole('columnheader')).toHaveText(['Quay', 'Expected', 'Alongside', 'Shifted', 'Departed', 'Entries']);
  await expect(page.getByRole('img', { name: 'Chart: Entries of Berth visits by Quay and Status' })).toBeVisible();
  const before = await numbers(page, 'Heron Mole');
  // Somebody on another server enters one; the figure follows.
  const other = await house.open('mara', undefined, two());
  const grid = await toSheet(other, 'Berth visits');
  await cellOf(grid, 1513, 'Quay').click();
  await other.keyboard.type('heron');
  await other.keyboard.press('Enter');
  await expect(cellOf(grid, 1513, 'Quay')).toHaveText('Heron Mole');
  await expect.poll(async () => (await numbers(page, 'Heron Mole')).at(-1)).toBe(String(Number(before.at(-1)) + 1));
  // Its address holds the figure; a reload shows the same.
  await page.reload();
  await expect(table(page).getByRole('columnheader', { name: 'Alongside' })).toBeVisible();
  await page.getByRole('button', { name: 'Save the figure' }).click();
  await page.getByLabel('Name of the figure').fill('Visits by quay and status');
  await page.getByRole('button', { name: 'Save', exact: true }).click();
  await expect(page.getByRole('heading', { name: 'Visits by quay and status', level: 1 })).toBeVisible();
  await slip(page).getByLabel('Date').selectOption({ label: 'Arrival' });
  await slip(page).getByLabel('Step').selectOption({ label: 'by year' });
  await page.getByRole('button', { name: 'Save the change' }).click();
  await expect(page.getByText('Visits by quay and status is saved.').last()).toBeVisible();
  await page.getByRole('button', { name: 'Open Salt Quay' }).click();
  await expect(table(page).getByRole('rowheader', { name: 'Departed' })).toBeVisible();
  const [year] = (await table(page).getByRole('columnheader').allTextContents()).slice(1);
  const [count] = await numbers(page, 'Salt Quay');
  await table(page)
    .getByRole('button', { name: `${count}: entries of Salt Quay, ${year}` })
    .click();
  await expect(page.getByRole('table', { name: 'Records of Berth visits' })).toBeVisible();
  await expect(page.getByText(`${count} records found.`)).toBeVisible();
  await expect(page.getByRole('group', { name: 'Further conditions' }).getByRole('button')).toHaveText([/Quay is Salt Quay/, /Arrival/]);
  await page.goBack();
  await page.getByRole('button', { name: 'Delete' }).click();
  await page.getByRole('alertdialog').getByRole('button', { name: 'Delete the figure' }).click();
  await expect(page.getByRole('link', { name: /Visits by quay and status/ })).toHaveCount(0);
});

test('a figure that takes long says how far it is, and is stopped and counted again', async ({ house }) => {
  const page = await house.open('ines');
  let held = true;
  await page.route('**/figures/counted', async (route) => {
    if (held) await new Promise((resolve) => page.once('requestfailed', resolve));
    else await route.continue();
  });
  await page.goto('/figures');
  await page.getByRole('link', { name: /Visits by quay/ }).click();
  await expect(page.getByText('Counting …')).toBeVisible();
  await page.getByRole('button', { name: 'Stop' }).click();
  await expect(page.getByText('The counting was stopped.')).toBeVisible();
  held = false;
  await page.getByRole('button', { name: 'Count', exact: true }).click();
  await expect(table(page).getByRole('rowheader', { name: 'Salt Quay' })).toBeVisible();
});

test('a figure through a link is drawn, its bars lead to entries, and it is taken along as CSV, PNG and SVG', async ({ house }) => {
  const page = await house.open('sela', '/figures');
  await page.getByRole('link', { name: /Waste by broker/ }).click();
  await expect(table(page).getByRole('columnheader')).toHaveText([
    'Broker of Vessel',
    /oily water/,
    /household waste/,
    /sewage/,
    /cargo residue/,
    /batteries and paint/,
    'All',
  ]);
  const shown = await numbers(page, 'Corrow Brothers');
  const take = async (name: string): Promise<{ name: string; content: Buffer }> => {
    await page.getByRole('button', { name: 'Download' }).click();
    const [download] = await Promise.all([page.waitForEvent('download'), page.getByRole('menuitem', { name }).click()]);
    return { name: download.suggestedFilename(), content: readFileSync((await download.path())!) };
  };
  const csv = await take('The table, as CSV');
  expect(csv.name).toBe('Waste by broker.csv');
  const lines = csv.content
    .toString('utf8')
    .replace(/^\uFEFF/u, '')
    .split('\r\n');
  expect(lines[0]).toBe('Broker of Vessel,oily water,household waste,sewage,cargo residue,batteries and paint,all');
  expect(lines.find((line) => line.startsWith('Corrow'))).toBe(['Corrow Brothers', ...shown].join(','));
  const svg = (await take('The chart, as SVG')).content.toString('utf8');
  expect(svg).toMatch(/^<svg[^>]*xmlns="http:\/\/www.w3.org\/2000\/svg"/u);
  expect(svg).not.toContain('var(--');
  expect((await take('The chart, as PNG')).content.subarray(1, 4).toString()).toBe('PNG');
  await page.locator('.recharts-bar-rectangle').first().click();
  await expect(page.getByRole('group', { name: 'Further conditions' })).toContainText('Vessel is');
  // A reader keeps no figures.
  await page.goBack();
  await expect(page.getByRole('button', { name: /^Save/ })).toHaveCount(0);
  await page.goto('/figures/new?d=%7Bbroken');
  await expect(page.getByText(/^Entries of Berth visits by/)).toBeVisible();
});
