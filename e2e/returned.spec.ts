// A workbook goes out to be filled in, is changed by another program, and comes back; and a table comes from outside.
import { execFileSync } from 'node:child_process';
import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import type { Page } from '@playwright/test';
import {
  cellAt,
  chooseFile,
  closePanel,
  expect,
  giveChoices,
  makeSheet,
  panel,
  rowsOf,
  test,
  typeAcross,
  type Nursery,
} from './nursery.js';

const editor = join(import.meta.dirname, '..', 'apps', 'server', 'test', 'editBook.py');

/** Downloads the open sheet to be filled in, and changes the file as somebody would in another program. */
async function changedOutside(page: Page, { files }: Nursery, name: string, edits: object): Promise<string> {
  await page.getByRole('button', { name: 'Download', exact: true }).click();
  await panel(page).getByText('It is filled in and brought back').click();
  const download = page.waitForEvent('download');
  await panel(page).getByRole('button', { name: 'Download', exact: true }).click();
  const path = join(files, name);
  await (await download).saveAs(path);
  await closePanel(page);
  execFileSync('/usr/bin/python3', [editor, path, JSON.stringify(edits)]);
  return path;
}

/** Chooses a file by keys alone. */
async function bringByKeys(page: Page, path: string): Promise<void> {
  await page.getByRole('button', { name: 'Bring in' }).focus();
  await page.keyboard.press('Enter');
  const drop = panel(page).getByRole('button', { name: /^Drop a file here/ });
  await expect(drop).toBeVisible();
  await chooseFile(page, drop, path);
  await expect(page).toHaveURL(/came-back/);
}

test(
  'a workbook that was filled in comes back by keys alone: what was changed in both places is asked, what is refused mended, all taken back as one',
  { tag: '@main' },
  async ({ nursery }) => {
    const { page } = nursery;
    const made = await makeSheet(page, 'Orders', [['Item'], ['State'], ['Count', 'a number'], ['Due', 'a date']]);
    await giveChoices(page, 'State', 'to do, doing, done', 'Make a list of them');
    await closePanel(page);
    await typeAcross(page, ['spade', 'to do', '3', '5/11/2026', 'rake', 'done', '12', '', 'hose', 'to do', '7', '6/11/2026'], 'Tab', 0);
    await expect.poll(() => rowsOf(made)).toContainEqual(['hose', 'to do', '7', '06.11.2026']);

    const clerk = await nursery.clerk();
    await clerk.getByRole('link', { name: /^Orders/ }).click();
    const grid = clerk.getByRole('grid', { name: 'Orders' });
    await expect.poll(() => rowsOf(grid)).toContainEqual(['hose', 'to do', '7', '06.11.2026']);
    const path = await changedOutside(clerk, nursery, 'from outside.xlsx', {
      set: { A2: 'a good spade', B3: 'nearly', C3: 20, C4: 8 },
      append: [['wheelbarrow', 'doing', 1, { day: '2026-12-24' }]],
      sort: 0,
    });
    // Meanwhile one of the cells is changed here.
    await cellAt(grid, 0, 0).click();
    await clerk.keyboard.type('our spade');
    await clerk.keyboard.press('Enter');
    await expect.poll(() => rowsOf(grid)).toContainEqual(['our spade', 'to do', '3', '05.11.2026']);

    await bringByKeys(clerk, path);
    const asked = clerk.getByRole('region', { name: '1 cell was changed in both places' });
    const refused = clerk.getByRole('region', { name: '1 cell would be refused' });
    await expect(clerk.getByRole('region', { name: '2 cells changed in 2 rows' }).getByRole('row')).toHaveText(
      [/Count 12 → 20/, /Count 7 → 8/],
      { useInnerText: true },
    );
    await expect(clerk.getByRole('region', { name: '1 row is new' })).toContainText('Item: wheelbarrow · State: doing · Count: 1');
    await expect(asked.getByRole('radio', { name: 'our spade' })).toBeChecked();
    await asked.getByRole('radio', { name: 'our spade' }).focus();
    await clerk.keyboard.press('ArrowRight');
    await expect(asked.getByRole('radio', { name: 'a good spade' })).toBeChecked();
    await expect(asked.getByText('What came is taken of 1.')).toBeVisible();

    const word = refused.getByRole('textbox', { name: /^State, row \d, “nearly”$/ });
    await word.focus();
    await clerk.keyboard.press('Control+a');
    await clerk.keyboard.type('almost');
    await clerk.keyboard.press('Enter');
    await expect(refused.getByText('“almost” is not in State.')).toBeVisible();
    await expect(refused.getByRole('textbox')).toBeFocused();
    await clerk.keyboard.press('Control+a');
    await clerk.keyboard.type('doing');
    await clerk.keyboard.press('Enter');
    await expect(refused).toBeHidden();
    // What was decided is kept, in another browser of the same person, too.
    await clerk.reload();
    await expect(asked.getByRole('radio', { name: 'a good spade' })).toBeChecked();
    await clerk.getByRole('button', { name: 'Store the changes' }).focus();
    await clerk.keyboard.press('Enter');
    await expect(clerk.getByText('8 cells were taken.')).toBeVisible();
    const after = [
      ['a good spade', 'to do', '3', '05.11.2026'],
      ['rake', 'doing', '20', ''],
      ['hose', 'to do', '8', '06.11.2026'],
      ['wheelbarrow', 'doing', '1', '24.12.2026'],
    ];
    await expect.poll(async () => (await rowsOf(grid)).slice(0, 4)).toEqual(after);
    await expect.poll(async () => (await rowsOf(made)).slice(0, 4)).toEqual(after);

    // The same file again changes nothing but what was mended here.
    await bringByKeys(clerk, path);
    await expect(clerk.getByText('1 new row was stored when the file was brought before; it is not stored again.')).toBeVisible();
    await expect(clerk.getByRole('region', { name: '1 row is new' })).toBeHidden();
    await clerk.goBack();
    await grid.focus();
    await clerk.keyboard.press('Control+z');
    await expect
      .poll(async () => (await rowsOf(grid)).slice(0, 3))
      .toEqual([
        ['our spade', 'to do', '3', '05.11.2026'],
        ['rake', 'done', '12', ''],
        ['hose', 'to do', '7', '06.11.2026'],
      ]);
    await expect.poll(async () => (await rowsOf(grid)).flat()).not.toContain('wheelbarrow');
  },
);

test('a table from outside is dropped: its columns are said once, rows that did not come back are chosen, a file that is none is told', async ({
  nursery,
}) => {
  const { page, files } = nursery;
  const grid = await makeSheet(page, 'Orders', [['Item'], ['Count', 'a number']]);
  await typeAcross(page, ['spade', '3', 'rake', '12'], 'Tab', 0);
  await expect.poll(() => rowsOf(grid)).toContainEqual(['rake', '12']);
  const table = join(files, 'table.csv');
  writeFileSync(table, 'Thing;Item;How many\nx;hose;7\ny;wheelbarrow;many\nz;bucket;about ten\nz;bowl;about ten\n');
  const drop = async (path: string) => {
    const chooser = page.waitForEvent('filechooser');
    await page.getByText('Drop a file here, or choose one').click();
    await (await chooser).setFiles(path);
    await expect(page).toHaveURL(/came-back/);
  };

  // By an administrator, where it is not said of which sheet the file is.
  await page.getByRole('link', { name: 'In and out' }).click();
  await drop(table);
  await page.getByLabel('Sheet', { exact: true }).selectOption('Orders');
  await expect(page.getByLabel('Field for Item')).toHaveValue('item');
  await page.getByLabel('Field for How many').selectOption('Count');
  await page.getByRole('button', { name: 'Compare', exact: true }).click();
  await expect(page.getByRole('region', { name: '4 rows are new' })).toContainText('Item: hose · Count: 7');
  // What came twice is mended once.
  const refused = page.getByRole('region', { name: /would be refused$/ });
  await expect(refused).toHaveAccessibleName('3 cells would be refused');
  await refused.getByText('All 2 cells with “about ten” in Count').first().click();
  await refused
    .getByRole('textbox', { name: /“about ten”$/ })
    .first()
    .fill('10');
  await refused.getByRole('button', { name: 'Try “10” for Count, row 4' }).click();
  await expect(refused).toHaveAccessibleName('1 cell would be refused');
  await expect(page.getByText('“Thing” is no field of the sheet, and not read.')).toBeVisible();
  await page.getByRole('button', { name: 'Store the changes' }).click();
  await expect(page.getByText('7 cells were taken, 1 refused and kept in its cell.')).toBeVisible();
  await expect
    .poll(async () => (await rowsOf(grid)).slice(2, 6))
    .toEqual([
      ['hose', '7'],
      ['wheelbarrow', 'many'],
      ['bucket', '10'],
      ['bowl', '10'],
    ]);

  // Files with these headings are known from now on; this one was brought already.
  await page.getByRole('button', { name: 'Bring in' }).click();
  await drop(table);
  await expect(page.getByText('There is nothing to store.')).toBeVisible();
  await page.getByRole('link', { name: 'Orders', exact: true }).click();

  const shorter = await changedOutside(page, nursery, 'shorter.xlsx', { remove: [2, 4] });
  await page.getByRole('button', { name: 'Bring in' }).click();
  await drop(shorter);
  const missing = page.getByRole('region', { name: '2 rows did not come back' });
  await expect(page.getByRole('button', { name: 'Store the changes' })).toBeHidden();
  await missing.getByText('Delete spade, 3').click();
  await expect(missing.getByText(/1 entry so far/)).toBeVisible();
  await page.getByRole('button', { name: 'Store the changes' }).click();
  await expect.poll(async () => (await rowsOf(grid)).map(([item]) => item).slice(0, 3)).toEqual(['rake', 'hose', 'wheelbarrow']);

  const none = join(files, 'picture.xlsx');
  writeFileSync(none, Buffer.from('89504E470D0A1A0A0000000D49484452', 'hex'));
  await page.getByRole('button', { name: 'Bring in' }).click();
  await drop(none);
  await expect(page.getByRole('alert')).toContainText('The file is neither a workbook nor a table of texts.');
  await page.getByRole('button', { name: 'Forget the file' }).click();
  await expect(grid).toBeVisible();
});
