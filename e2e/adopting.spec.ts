// What an office has in its files becomes its house: looked at, mended, applied, entered in, and undone as one.
import { execFileSync } from 'node:child_process';
import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import type { Page } from '@playwright/test';
import { root } from '../scripts/lib/packages.mjs';
import { expect, expectOptions, rowsOf, test } from './nursery.js';

const beds: readonly (readonly [house: string, bed: string])[] = [
  ['Glass house', 'G1'],
  ['Glass house', 'G2'],
  ['Long tunnel', 'T1'],
  ['Long tunnel', 'T2'],
  ['Long tunnel', 'T3'],
  ['Open field', 'F1'],
];
const growers = ['Fenn Marsh', 'Ada Holt', 'Corin Vale'];
const plants = ['Lavender', 'Rosemary', 'Hornbeam', 'Dogwood'];
const states = ['sown', 'pricked out', 'sold'];

/**
 * A log as it was kept for years: a title, days as d.m.yyyy, decimal commas, slips of the finger, one bed under the wrong house, a total.
 */
const oldLog = (): Buffer => {
  const lines = Array.from({ length: 180 }, (_, at) => {
    const [house, bed] = beds[(at * 7) % beds.length]!;
    const grower = at === 11 ? 'Fen Marsh' : at === 31 ? 'ADA HOLT' : growers[at % 3]!;
    const plant = at === 17 ? 'Lavendar' : plants[(at * 5) % 4]!;
    return [
      `00${700 + at}`,
      `${(at % 28) + 1}.4.2026`,
      at === 42 ? 'Open field' : house,
      bed,
      plant,
      grower,
      states[(at * 11) % 3]!,
      `${at % 9},50`,
    ].join(';');
  });
  return Buffer.from(
    ['Log of the beds', '', 'No;Day;House;Bed;Plant;Grower;State;Paid', ...lines, 'Total;;;;;;;720,00'].join('\r\n'),
    'latin1',
  );
};
function book(path: string, title: string, rows: readonly (readonly (string | number)[])[]): string {
  execFileSync('/usr/bin/python3', [`${root}/apps/server/test/writeBook.py`], {
    input: JSON.stringify({ path, sheets: [{ title, rows }] }),
  });
  return path;
}

/** Counts what the hands do. */
function counting(page: Page) {
  let acts = 0;
  return {
    click: async (name: string | RegExp, role: 'button' | 'link' = 'button') => {
      acts++;
      await page.getByRole(role, { name }).click();
    },
    act: () => void acts++,
    sum: () => acts,
  };
}

test('an old log and two small workbooks become a house with five catalogs and a cascade, in few acts, and are gone again by one', async ({
  nursery,
}) => {
  const { page, files } = nursery;
  const log = join(files, 'old log.csv');
  writeFileSync(log, oldLog());
  const houses = book(join(files, 'beds.xlsx'), 'Beds', [
    ['House', 'Bed', 'Length, m'],
    ...beds.map(([house, bed], at) => [house, bed, 10 + at]),
  ]);
  const orders = book(join(files, 'orders.ods'), 'Orders', [
    ['Orders of the spring'],
    [''],
    ['Customer', 'Plant', 'Pots'],
    ...Array.from({ length: 40 }, (_, at) => [['Mill Inn', 'Old School', 'Ferry House'][at % 3]!, plants[at % 4]!, 1 + (at % 6)]),
    ['Total', '', 140],
  ]);
  const hands = counting(page);
  const chooser = page.waitForEvent('filechooser');
  await hands.click(/^Drop files here/);
  await (await chooser).setFiles([log, houses, orders]);
  hands.act();
  const tables = page.getByRole('region', { name: 'Tables' });
  await expect(tables.getByText(/^180 rows of old log\.csv, headings in row 3/)).toBeVisible();
  await expect(tables.getByText(/^40 rows of orders\.ods/)).toBeVisible();
  await expect(page.getByText('2 sheets with 220 entries and 5 catalogs of 19 values.')).toBeVisible();
  await expect(page.getByText('1 value will be outside', { exact: false })).toBeVisible();
  await expect(
    page.getByText(/T1 under Open field, in most under Long tunnel|G1 under Open field, in most under Glass house/),
  ).toBeVisible();

  // A spelling is looked at, and stays what it was taken for; a title is mended. Leaving keeps it.
  await hands.click('Lavendar (1)');
  await expect(page.getByRole('heading', { name: '“Lavendar”' })).toBeVisible();
  await hands.click('Close');
  const title = page.getByLabel('Title of the list Plant', { exact: true });
  await title.fill('Plants we grow');
  await page.keyboard.press('Enter');
  hands.act();
  await expect(page.getByRole('region', { name: 'List Plants we grow' })).toBeVisible();
  await page.reload();
  await expect(page.getByRole('region', { name: 'List Plants we grow' })).toBeVisible();
  // A field that is not there yet is tried as a clerk will use it: under what stands beside it, in the spellings that were found.
  await page.getByRole('button', { name: 'Try Bed of old log' }).click();
  await page.getByRole('textbox', { name: 'House', exact: true }).fill('Long tunnel');
  await page.getByLabel('Try Bed', { exact: true }).click();
  await page.keyboard.type('G1');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('alert')).toContainText('“G1” is not under Long tunnel');
  await page.keyboard.type('t2');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('status').filter({ hasText: 'T2' })).toBeVisible();
  await page.getByRole('button', { name: 'Try Plant of old log' }).click();
  await page.getByLabel('Try Plant', { exact: true }).click();
  await page.keyboard.type('lavendar');
  await page.keyboard.press('Enter');
  await expect(page.getByText('“lavendar” was taken as Lavender.')).toBeVisible();
  await page.getByRole('button', { name: 'Close', exact: true }).click();
  await page.getByRole('link', { name: 'Sheets', exact: true }).click();
  await expect(page.getByRole('region', { name: 'First steps' })).toBeVisible();
  await page.goBack();

  await hands.click('Apply the proposal');
  await expect(page.getByText(/^220 entries and \d+ rows of lists stored/)).toBeVisible();
  await hands.click('old log', 'link');
  const grid = page.getByRole('grid', { name: 'old log' });
  await expect(page.getByText('180 entries.')).toBeVisible();
  expect(hands.sum()).toBeLessThanOrEqual(25);
  await expect(page.getByText('1 outside', { exact: true })).toBeVisible();

  // It is entered in as in any other sheet: the bed offers those of its house, and what was a slip once is understood.
  await grid.getByText('type to add').click();
  await page.keyboard.type('00999');
  for (const text of ['2.5.2026', 'glass']) {
    await page.keyboard.press('Tab');
    await page.keyboard.type(text);
  }
  await page.keyboard.press('Tab');
  await page.keyboard.press('Alt+ArrowDown');
  await expectOptions(page, ['G1', 'G2']);
  await page.keyboard.press('Escape');
  for (const text of ['g2', 'lavendar', 'Fen Marsh', 'sold', '3']) {
    await page.keyboard.type(text);
    await page.keyboard.press('Tab');
  }
  await expect
    .poll(async () => (await rowsOf(grid)).find(([no]) => no === '00999'))
    .toEqual(['00999', '02.05.2026', 'Glass house', 'G2', 'Lavender', 'Fenn Marsh', 'sold', '3']);

  // Somebody else works in it meanwhile; the whole of it is gone by one act, after one was told what that takes.
  const other = await nursery.clerk();
  await other.getByRole('link', { name: /^old log/ }).click();
  await expect(other.getByText('181 entries.')).toBeVisible();
  await page.goBack();
  await page.getByRole('link', { name: 'In and out', exact: true }).click();
  await page.getByRole('link', { name: /^old log\.csv and 2 more/ }).click();
  await page.getByRole('button', { name: 'Undo the proposal' }).click();
  await expect(page.getByRole('alertdialog')).toContainText('At least 1 entry of them were added or changed since');
  await page.getByRole('alertdialog').getByRole('button', { name: 'Undo the proposal' }).click();
  await expect(page.getByRole('button', { name: 'Apply the proposal' })).toBeVisible();
  await expect(other.getByRole('heading', { name: 'This sheet is not there' })).toBeVisible();
  await page.getByRole('link', { name: 'Sheets', exact: true }).click();
  await expect(page.getByRole('region', { name: 'First steps' })).toBeVisible();
});

test(
  'a pasted table is proposed by keys alone; what cannot be read says so, and more files are added',
  { tag: '@main' },
  async ({ nursery: { page, files } }) => {
    const drop = page.getByRole('button', { name: /^Drop files here/ });
    await drop.focus();
    const pasted = ['Visit\tQuay', ...Array.from({ length: 24 }, (_, at) => `V${at}\t${at % 2 ? 'North' : 'South'}`)].join('\n');
    await page.evaluate((text) => navigator.clipboard.writeText(text), pasted);
    await page.keyboard.press('Control+v');
    await expect(page.getByText(/^24 rows of Pasted table\.csv/)).toBeVisible();
    const picture = join(files, 'picture.png');
    writeFileSync(picture, Buffer.from('89504E470D0A1A0A0000000D49484452000000', 'hex'));
    const chooser = page.waitForEvent('filechooser');
    await page.getByRole('button', { name: /^Drop more files here/ }).press('Enter');
    await (await chooser).setFiles(picture);
    await expect(page.getByRole('alert')).toContainText('“picture.png”: The file is neither a workbook nor a table of texts.');
    await expect(page.getByRole('button', { name: 'Apply the proposal' })).toBeHidden();
    await page.getByRole('button', { name: 'Discard the proposal' }).press('Enter');
    await page.getByRole('alertdialog').getByRole('button', { name: 'Discard the proposal' }).press('Enter');
    await expect(page.getByRole('heading', { level: 1, name: 'In and out' })).toBeVisible();
    await expect(page.getByRole('list', { name: 'Proposals' })).toBeHidden();
  },
);

test('two lists are made one and parted again, one is left out and wanted again by its column, and both stay through a reload', async ({
  nursery: { page },
}) => {
  const lines = Array.from({ length: 24 }, (_, at) => `V${at}\t${['North', 'South'][at % 2]}\t${['red', 'blue'][(at >> 1) % 2]}`);
  await page.getByRole('button', { name: /^Drop files here/ }).focus();
  await page.evaluate((text) => navigator.clipboard.writeText(text), ['Visit\tQuay\tFlag', ...lines].join('\n'));
  await page.keyboard.press('Control+v');
  const list = (name: string) => page.getByRole('region', { name: `List ${name}`, exact: true });
  await list('Flag').getByLabel('Flag and another list are one').selectOption({ label: 'one with Quay' });
  await expect(list('Quay').getByText('4 values', { exact: false })).toBeVisible();
  await expect(list('Flag')).toBeHidden();
  await page.reload();
  await list('Quay').getByRole('button', { name: 'Part Flag again' }).press('Enter');
  await expect(list('Flag').getByText('2 values', { exact: false })).toBeVisible();
  await list('Flag').getByRole('checkbox', { name: 'Make the list Flag' }).press('Space');
  await expect(page.getByText('1 sheet with 24 entries and 1 catalog of 2 values.')).toBeVisible();
  const columns = page.getByRole('table', { name: /^Columns of/ });
  const flag = columns.getByRole('row').filter({ has: page.getByLabel('Heading of Flag', { exact: true }) });
  await flag.getByRole('checkbox', { name: 'any text' }).press('Space');
  await expect(flag.getByRole('checkbox', { name: 'Flag', exact: true })).toBeChecked();
  await expect(page.getByText('1 sheet with 24 entries and 2 catalogs of 4 values.')).toBeVisible();
});
