// Files of one kind come in by themselves: out of a folder and by hand; what is new waits, is mended once, and is known from then on.
import { utimesSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import type { Page } from '@playwright/test';
import { chooseFile, closePanel, expect, giveChoices, makeSheet, panel, rowsOf, test } from './nursery.js';

const heading = 'Load;Quay;Weight\n';
const outcome = (page: Page, words: string) =>
  panel(page).getByRole('list', { name: 'Files' }).getByRole('listitem').filter({ hasText: words });

test('an intake stores what fits of each file, and what waited is mended once for all that follow', async ({
  nursery: { page, files, clerk },
}, info) => {
  const grid = await makeSheet(page, 'Loads', [['Load'], ['Quay'], ['Weight', 'a number']]);
  await giveChoices(page, 'Quay', 'North, South, Old pier', 'Make a list of them');
  await closePanel(page);
  const longAgo = new Date(Date.now() - 60_000);
  writeFileSync(join(files, 'monday.csv'), `${heading}gravel;North;6,5\nsand;Nroth;7\nsalt;Nroth;1,25\ncoal;;2\n`);
  utimesSync(join(files, 'monday.csv'), longAgo, longAgo);

  // By keys alone.
  await page.getByRole('link', { name: 'In and out' }).click();
  await page.getByRole('button', { name: 'New intake' }).focus();
  await page.keyboard.press('Enter');
  await expect(page.getByLabel('What comes in')).toBeFocused();
  await page.keyboard.press('Enter');
  await expect(panel(page).getByText('Say what comes in', { exact: false })).toBeVisible();
  await page.keyboard.type('Weighbridge');
  await page.getByRole('checkbox', { name: 'Look at a folder each minute' }).focus();
  await page.keyboard.press('Space');
  await page.keyboard.press('Tab');
  await expect(page.getByLabel('Folder', { exact: true })).toBeFocused();
  await page.keyboard.press('Tab');
  await page.keyboard.type('*.csv');
  await page.keyboard.press('Enter');
  await expect(outcome(page, '2 rows stored')).toBeVisible();
  await expect(outcome(page, '2 rows wait')).toContainText('out of the folder');

  // Whoever looks after the house sees it; it is mended by the mouse, and once for both.
  await page.getByRole('link', { name: 'Upkeep' }).click();
  await page.getByRole('region', { name: 'Files that came by themselves' }).getByRole('link').click();
  await outcome(page, '2 rows wait').getByRole('link').click();
  await expect(page.getByText('“Weight” is read as the file writes: with a decimal comma.')).toBeVisible();
  await page.getByText('All 2 cells with “Nroth” in Quay').first().click();
  await page.getByRole('button', { name: 'North', exact: true }).first().click();
  await expect(page.getByText('“Nroth” is another name of North from now on.')).toBeVisible();
  await expect(page.getByText('would be refused')).toBeHidden();
  await page.getByRole('button', { name: 'Store the changes' }).click();
  await expect
    .poll(() => rowsOf(grid))
    .toEqual([
      ['gravel', 'North', '6.5'],
      ['coal', '', '2'],
      ['sand', 'North', '7'],
      ['salt', 'North', '1.25'],
      ['type to add', '', ''],
    ]);

  // The next one comes in whole; a clerk has it at once.
  const other = await clerk();
  await other.getByRole('link', { name: /^Loads/ }).click();
  const next = info.outputPath('tuesday.csv');
  writeFileSync(next, `${heading}slate;Nroth;3\n`);
  await page.getByRole('link', { name: 'In and out' }).click();
  await page.getByRole('button', { name: 'Files of Weighbridge' }).click();
  await chooseFile(page, panel(page).getByRole('button', { name: /Drop a file here/ }), next);
  await expect(outcome(page, '1 row stored')).toContainText('tuesday.csv');
  await expect.poll(() => rowsOf(other.getByRole('grid', { name: 'Loads' }))).toContainEqual(['slate', 'North', '3']);

  // What was stored is taken back as one; nothing else goes with it.
  await page.getByRole('button', { name: 'Undo what tuesday.csv brought' }).click();
  await page.getByRole('button', { name: 'Cancel' }).click();
  await page.getByRole('button', { name: 'Undo what tuesday.csv brought' }).click();
  await page.getByRole('button', { name: 'Undo it' }).click();
  await expect(outcome(page, 'undone')).toContainText('tuesday.csv');
  await expect.poll(async () => (await rowsOf(other.getByRole('grid', { name: 'Loads' }))).length).toBe(5);

  // Back closes it, and so does its removal; its files are listed among those that came.
  await page.goBack();
  await expect(panel(page)).toBeHidden();
  await page.getByRole('button', { name: 'Files of Weighbridge' }).click();
  await page.getByRole('button', { name: 'Remove the intake Weighbridge' }).click();
  await page.getByRole('alertdialog').getByRole('button', { name: 'Remove the intake' }).click();
  await expect(page.getByText('There is no intake yet.')).toBeVisible();
  await expect(page.getByRole('region', { name: 'Files that came', exact: true }).getByRole('listitem')).toHaveCount(3);
});

test('columns of other headings are said once, and a file that cannot be read is said at once', async ({ nursery: { page } }, info) => {
  // In the wrong order: there is nothing yet that it could fill.
  await page.getByRole('link', { name: 'In and out' }).click();
  await page.getByRole('button', { name: 'New intake' }).click();
  await panel(page).getByRole('link', { name: 'Make a sheet' }).click();
  const grid = await makeSheet(page, 'Loads', [['Load'], ['Weight', 'a number']]);
  await page.getByRole('link', { name: 'In and out' }).click();
  await page.getByRole('button', { name: 'New intake' }).click();
  await page.keyboard.type('Weighbridge');
  await page.keyboard.press('Enter');
  const drop = panel(page).getByRole('button', { name: /Drop a file here/ });
  const put = async (name: string, text: string) => {
    writeFileSync(info.outputPath(name), text);
    await chooseFile(page, drop, info.outputPath(name));
  };
  await put('empty.csv', '');
  await expect(outcome(page, 'could not be read')).toContainText('The file is empty.');
  await put('one.csv', 'Goods,Tonnes\nsand,7\n');
  await outcome(page, 'which column is which?').getByRole('link').click();
  await page.getByLabel('Field for Goods').selectOption('Load');
  await page.getByLabel('Field for Tonnes').selectOption('Weight');
  await page.getByRole('button', { name: 'Take it in' }).click();
  await expect(page.getByText('What it brought is stored.')).toBeVisible();
  await page.getByRole('link', { name: 'Weighbridge' }).click();
  await put('two.csv', 'Goods,Tonnes\nsalt,8\n');
  await expect(outcome(page, '1 row stored')).toHaveCount(2);
  await page.reload();
  await expect(outcome(page, '1 row stored')).toHaveCount(2);
  await page.getByRole('link', { name: 'Sheets', exact: true }).click();
  await page
    .getByRole('main')
    .getByRole('link', { name: /^Loads/ })
    .click();
  await expect
    .poll(() => rowsOf(grid))
    .toEqual([
      ['sand', '7'],
      ['salt', '8'],
      ['type to add', ''],
    ]);
});
