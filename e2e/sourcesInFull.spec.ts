// Source sheets in full: tables, pasted blocks with a look first, series, taking back, what clerks may look at.
import { answerSlip, expect, list, test, textsOf, toLists } from './house.js';

test('a pasted block is looked at before it comes in, and taken back as one act', async ({ house }) => {
  const page = await house.open('ines');
  await toLists(page);
  await page.evaluate(() => navigator.clipboard.writeText('Pilots\r\nNell Farrow\r\n\r\nTam Osel\r\nAda Brisk\r\nAda Brisk'));
  await list(page, 'Pilots').getByText('type to add').click();
  await page.keyboard.press('Control+v');
  const look = page.getByRole('region', { name: 'Pasted block' });
  await expect(look.getByRole('heading')).toHaveText('4 rows for Pilots');
  await expect(look).toContainText('1 repeats a value');
  await expect(look).toContainText('“Tam Ossel” and “Tam Osel”');
  await look.getByRole('button', { name: /^Add [\d,]+ rows?$/ }).click();
  await expect
    .poll(() => textsOf(page, 'Pilots'))
    .toEqual([
      'Tam Ossel',
      'Bryn Calloway',
      'Ilse Marchbank',
      'Rook Tansy',
      'Corin Vale',
      'Wenna Hallet',
      'Nell Farrow',
      'Tam Osel',
      'Ada Brisk',
      'Ada Brisk',
    ]);
  await list(page, 'Pilots').getByRole('gridcell', { name: 'Tam Ossel' }).click();
  await page.keyboard.press('Control+z');
  await expect.poll(() => textsOf(page, 'Pilots')).toHaveLength(6);
  await page.keyboard.press('Control+y');
  await expect.poll(() => textsOf(page, 'Pilots')).toHaveLength(10);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect.poll(() => textsOf(page, 'Pilots')).toHaveLength(6);
});

test('a large block of four columns is shown at once, stored part by part, and taken back as one', async ({ house }) => {
  const page = await house.open('ines');
  await page.goto('/sources');
  await page.getByLabel('Title').fill('Stores');
  await page.getByRole('button', { name: 'Create the sheet' }).click();
  await page.getByRole('button', { name: 'A table instead' }).click();
  await page.getByLabel('Heading of the new table').fill('Parts');
  for (const [at, heading] of ['Part', 'Shelf', 'Unit', 'Weight'].entries()) {
    if (at > 1) await page.getByRole('button', { name: 'One field more' }).click();
    await page.getByLabel(`Heading of field ${at + 1}`).fill(heading);
  }
  await page.getByLabel('Kind of field 4').selectOption('number');
  await page.getByRole('button', { name: 'Add', exact: true }).click();
  const table = list(page, 'Parts');
  await table.getByText('type to add').click();
  await page.evaluate(() =>
    navigator.clipboard.writeText(Array.from({ length: 12_000 }, (_, at) => `Part ${at}\tShelf ${at % 40}\tpiece\t${at / 2}`).join('\r\n')),
  );
  await page.keyboard.press('Control+v');
  await expect(page.getByRole('heading', { name: '12,000 rows for Parts' })).toBeVisible();
  await page.getByRole('button', { name: /^Add [\d,]+ rows?$/ }).click();
  await expect(page.getByText(/5,000 of 12,000 rows stored/)).toBeVisible();
  await expect(page.getByRole('region', { name: 'Pasted block' })).toBeHidden({ timeout: 60_000 });
  await expect(table).toHaveAttribute('aria-rowcount', '12002');
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(table).toHaveAttribute('aria-rowcount', '2', { timeout: 60_000 });
  await page.getByRole('button', { name: 'Redo' }).click();
  await expect(table).toHaveAttribute('aria-rowcount', '12002', { timeout: 60_000 });

  // Three fields of it become a range with levels.
  await table.locator('[data-row="0"][data-column="0"]').click();
  await table.locator('[data-row="0"][data-column="1"]').click({ modifiers: ['Shift'] });
  await page.getByRole('textbox', { name: 'Name' }).fill('Parts and shelves');
  await expect(page.getByLabel('How it is read')).toHaveValue('levels');
  await page.getByRole('button', { name: 'Name the range' }).click();
  await expect(page.getByRole('region', { name: 'Range Parts and shelves' })).toContainText('24,000 values taken');
});

test('a range is laid over other cells after a look at what comes in, goes out and is spelled otherwise', async ({ house }) => {
  const page = await house.open('ines');
  await toLists(page);
  await list(page, 'Pilots').getByRole('gridcell', { name: 'Bryn Calloway' }).click();
  await list(page, 'Pilots')
    .getByRole('gridcell', { name: 'Rook Tansy' })
    .click({ modifiers: ['Shift'] });
  await page.getByRole('button', { name: 'Lay it over the selected cells' }).click();
  const look = page.getByRole('region', { name: 'Change of Pilots' });
  await expect(look).toContainText('Pilots would take 5 values');
  await expect(look).toContainText('1 goes out: “Tam Ossel”');
  await expect(look).toContainText(/\d+ entries hold what goes; you are asked what becomes of them/);
  await look.getByRole('button', { name: 'Cancel' }).click();
  await expect(look).toBeHidden();
  await expect(page.getByRole('region', { name: 'Range Pilots' })).toContainText('6 values taken');
  await page.getByRole('button', { name: 'Lay it over the selected cells' }).click();
  await look.getByRole('button', { name: 'Change the range' }).click();
  await answerSlip(page, 'Retired');
  await expect(page.getByRole('region', { name: 'Range Pilots' })).toContainText('5 values taken');
});

test('a series carries on; fields are renamed where they stand', async ({ house }) => {
  const page = await house.open('ines');
  await page.goto('/sources');
  await page.getByRole('main').getByRole('link', { name: 'Berths by quay' }).click();
  const salt = list(page, 'Salt Quay');
  await salt.getByRole('gridcell', { name: 'Salt 1' }).click();
  await salt.getByRole('gridcell', { name: 'Salt 2' }).click({ modifiers: ['Shift'] });
  await page.getByLabel('Rows to carry on').fill('3');
  await expect(page.getByText('Salt 3, Salt 4, Salt 5')).toBeVisible();
  await page.getByRole('button', { name: 'Carry on for' }).click();
  await expect.poll(() => textsOf(page, 'Salt Quay')).toEqual(['Salt 1', 'Salt 2', 'Salt 3', 'Salt 4', 'Salt 5']);

  await page.goto('/sources');
  await page.getByRole('main').getByRole('link', { name: 'Berth details' }).click();
  await page
    .getByRole('columnheader', { name: /Draught/ })
    .getByRole('button')
    .click();
  await page.getByRole('button', { name: 'Rename the field' }).click();
  await page.getByRole('textbox', { name: 'Heading', exact: true }).fill('Depth, m');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('columnheader', { name: /Depth, m/ })).toBeVisible();
});

test('a sheet that is shown to clerks is looked at by them, and changed by nobody but administrators', async ({ house }) => {
  const ines = await house.open('ines');
  await toLists(ines);
  await ines.getByRole('button', { name: 'More for Harbour lists' }).click();
  await ines.getByRole('menuitem', { name: 'Show it to clerks' }).click();
  await expect(ines.getByText('Clerks and readers may look at this sheet.')).toBeVisible();
  const clerk = await house.open('mara', '/');
  await clerk.getByRole('navigation').getByRole('link', { name: 'Lists' }).click();
  await clerk.getByRole('main').getByRole('link', { name: 'Harbour lists' }).click();
  await expect(list(clerk, 'Pilots').getByRole('gridcell', { name: 'Rook Tansy' })).toBeVisible();
  await expect(clerk.getByText('type to add')).toHaveCount(0);
  await expect(clerk.getByRole('button', { name: 'Undo' })).toHaveCount(0);
});

test('the Ranges page says what each range takes and what it misses, and goes to its cells', async ({ house }) => {
  const page = await house.open('ines', '/ranges');
  const row = (name: string) => page.getByRole('row').filter({ has: page.getByRole('link', { name, exact: true }) });
  await expect(row('Cargo').first()).toContainText('1,300');
  await expect(row('Visit status').first()).toContainText('1 past the end');
  await row('Visit status').first().getByRole('button', { name: 'Take it in' }).click();
  await expect(row('Visit status').first()).toContainText('nothing');
  await page.getByRole('link', { name: 'Berths by quay', exact: true }).click();
  await expect(page.getByRole('region', { name: 'Range Berths by quay' })).toContainText(
    'The headings Lantern Basin, Heron Mole, Salt Quay, Timber Pond and what stands under each',
  );
});
