// A sheet goes out as a file, by the mouse and by keys, as everybody sees it and as one has arranged it.
import { readFileSync } from 'node:fs';
import type { Page } from '@playwright/test';
import { closePanel, expect, giveChoices, makeSheet, panel, rowsOf, test, toPage, typeAcross } from './nursery.js';

async function fetched(page: Page, act: () => Promise<unknown>): Promise<{ name: string; text: string }> {
  const download = page.waitForEvent('download');
  await act();
  const file = await download;
  return { name: file.suggestedFilename(), text: readFileSync(await file.path(), 'latin1') };
}

test('a clerk downloads a sheet: with its drop-downs, as a table of what was arranged, again from what is kept', async ({
  nursery: { page, clerk },
}) => {
  const grid = await makeSheet(page, 'Orders', [['Item'], ['State'], ['Count', 'a number']]);
  await giveChoices(page, 'State', 'to do, doing, done', 'Make a list of them');
  await closePanel(page);
  await typeAcross(page, ['spade', 'to do', '3', '=rake', 'done', '12'], 'Tab', 0);
  await expect.poll(() => rowsOf(grid)).toContainEqual(['=rake', 'done', '12']);

  const other = await clerk();
  await other.getByRole('link', { name: /^Orders/ }).click();
  await other.getByRole('button', { name: 'Download', exact: true }).click();
  const slip = panel(other);
  await expect(slip.getByRole('heading', { name: 'Download Orders' })).toBeVisible();
  const download = slip.getByRole('button', { name: 'Download', exact: true });
  const book = await fetched(other, () => download.click());
  expect([book.name, book.text.slice(0, 2)]).toEqual(['Orders.xlsx', 'PK']);
  await expect(other.getByText('Orders.xlsx has 2 entries.')).toBeVisible();

  // By keys alone: the third format, texts that look like formulas guarded.
  await slip.getByRole('radio', { name: 'Workbook with its drop-downs' }).focus();
  for (const format of ['The same as OpenDocument', 'Table of plain values']) {
    await other.keyboard.press('ArrowDown');
    await expect(slip.getByRole('radio', { name: format })).toBeChecked();
  }
  await slip.getByRole('checkbox', { name: /looks like a formula/ }).focus();
  await other.keyboard.press('Space');
  await download.focus();
  const table = await fetched(other, () => other.keyboard.press('Enter'));
  expect(table).toEqual({ name: 'Orders.csv', text: 'Item,State,Count\r\nspade,to do,3\r\n"\'=rake",done,12\r\n' });

  // What is kept can be fetched again, and deleted.
  const kept = slip.getByRole('region', { name: 'Files of this sheet' });
  await expect(kept.getByRole('listitem')).toHaveCount(2);
  expect((await fetched(other, () => kept.getByRole('link', { name: 'Orders.csv' }).click())).text).toBe(table.text);
  await kept.getByRole('button', { name: /^Delete Orders.csv/ }).click();
  await expect(kept.getByRole('listitem')).toHaveCount(1);

  // Back closes it; as one has arranged the sheet is proposed where it is arranged.
  await other.goBack();
  await expect(slip).toBeHidden();
  await other.getByRole('button', { name: 'Arrange' }).click();
  await slip.getByRole('region', { name: 'Fields' }).getByText('Count', { exact: true }).click();
  await other.getByRole('button', { name: 'Download', exact: true }).first().click();
  await expect(slip.getByRole('radio', { name: 'As I have arranged them' })).toBeChecked();
  await slip.getByText('Table of plain values').click();
  expect((await fetched(other, () => download.click())).text).toBe('Item,State\r\nspade,to do\r\n=rake,done\r\n');
  await slip.getByText('All of them').click();
  await slip.getByText('An entry a line').click();
  const lines = (await fetched(other, () => download.click())).text.trimEnd().split('\n');
  expect(lines.map((line) => (JSON.parse(line) as { cells: unknown }).cells)).toEqual([
    { item: 'spade', state: 'to do', count: '3' },
    { item: '=rake', state: 'done', count: '12' },
  ]);

  // The list itself goes out, too, as a table and as concepts.
  await toPage(page, 'Catalogs', 'State');
  await page.getByRole('button', { name: 'Download', exact: true }).click();
  const list = panel(page).getByRole('button', { name: 'Download', exact: true });
  expect(
    (await fetched(page, () => list.click())).text
      .split('\r\n')
      .slice(1, 4)
      .map((line) => line.split(',')[0]),
  ).toEqual(['to do', 'doing', 'done']);
  await panel(page)
    .getByText(/^Concepts/)
    .click();
  const concepts = await fetched(page, () => list.click());
  expect([concepts.name, concepts.text]).toEqual(['State.ttl', expect.stringContaining('skos:notation "to do"')]);

  // The administrator sees all files of the sheet.
  await toPage(page, 'Sheets', /^Orders/);
  await page.getByRole('button', { name: 'Download', exact: true }).click();
  await expect(panel(page).getByRole('region', { name: 'Files of this sheet' }).getByText('by Pell Hawk').first()).toBeVisible();
});

test('records that were found go out as they stand there, by keys alone; Back closes the panel first', async ({ nursery: { page } }) => {
  await makeSheet(page, 'Orders', [['Item'], ['Count', 'a number']]);
  await typeAcross(page, ['spade', '3', 'rake', '12', 'long rake', '1'], 'Tab', 0);
  await page.getByRole('link', { name: 'Records', exact: true }).click();
  await page
    .getByRole('main')
    .getByRole('link', { name: /^Orders/ })
    .click();
  await page.getByLabel('Look for records').fill('RAKE');
  await expect(page.getByText('2 records found.')).toBeVisible();
  await page.getByLabel('Order', { exact: true }).selectOption({ label: 'by Count' });
  await page.getByRole('button', { name: 'Download', exact: true }).focus();
  await page.keyboard.press('Enter');
  const slip = panel(page);
  await expect(slip.getByRole('radio', { name: 'What I have found' })).toBeChecked();
  await slip.getByRole('radio', { name: 'Workbook with its drop-downs' }).focus();
  for (const key of ['ArrowDown', 'ArrowDown']) await page.keyboard.press(key);
  const download = slip.getByRole('button', { name: 'Download', exact: true });
  await download.focus();
  const file = await fetched(page, () => page.keyboard.press('Enter'));
  expect(file).toEqual({ name: 'Orders.csv', text: 'Item,Count\r\nlong rake,1\r\nrake,12\r\n' });
  await page.goBack();
  await expect(slip.getByRole('heading', { name: 'Download Orders' })).toBeHidden();
  await expect(page.getByLabel('Look for records')).toHaveValue('RAKE');
});

test('a sheet that stays in the house is downloaded by administrators alone, also from an address that somebody kept', async ({
  nursery: { page, clerk },
}) => {
  await makeSheet(page, 'Wages', [['Who']]);
  const other = await clerk();
  await other.getByRole('link', { name: /^Wages/ }).click();
  const theirs = other.getByRole('button', { name: 'Download', exact: true });
  await theirs.click();
  await expect(panel(other).getByRole('heading', { name: 'Download Wages' })).toBeVisible();
  // By keys alone.
  await page.getByRole('button', { name: 'More for Wages' }).focus();
  await page.keyboard.press('Enter');
  await expect(page.getByRole('menu')).toBeFocused();
  await page.keyboard.type('Who');
  await page.keyboard.press('Enter');
  const dialog = page.getByRole('dialog', { name: 'Who sees Wages' });
  await dialog.getByRole('checkbox', { name: 'Whoever sees it may download it' }).focus();
  await page.keyboard.press('Space');
  await page.keyboard.press('Enter');
  await expect(page.getByText('“Wages” is there for everybody. Only administrators download it.')).toBeVisible();
  await expect(panel(other).getByText('Only administrators download it. Ask one of them for the file.')).toBeVisible();
  await expect(panel(other).getByRole('button', { name: 'Download', exact: true })).toHaveCount(0);
  await closePanel(other);
  await expect(theirs).toHaveCount(0);
  await expect(page.getByRole('button', { name: 'Download', exact: true })).toBeVisible();
});

test('a program is given a token by keys alone: it has rows judged and stores them under everybody’s eyes, until it is ended', async ({
  nursery: { page, clerk },
}) => {
  const grid = await makeSheet(page, 'Orders', [['Item'], ['State']]);
  await giveChoices(page, 'State', 'to do, doing, done', 'Make a list of them');
  await closePanel(page);
  const other = await clerk();
  await other.getByRole('link', { name: /^Orders/ }).click();

  await page.getByRole('link', { name: 'In and out' }).click();
  await expect(page.getByText('No program has a token yet.')).toBeVisible();
  await page.getByRole('button', { name: 'New access token' }).focus();
  await page.keyboard.press('Enter');
  await expect(panel(page).getByLabel('Which program it is for')).toBeFocused();
  await page.keyboard.type('Scale in the yard');
  // Nothing is chosen yet: it says so, and what was typed stays.
  await page.keyboard.press('Enter');
  await expect(panel(page).getByRole('alert')).toHaveText('Choose at least one catalog or sheet.');
  // A day that is over is not exchanged for another one.
  await panel(page).getByRole('textbox', { name: 'Last day' }).fill('1.1.2020');
  await page.keyboard.press('Enter');
  await expect(panel(page).getByRole('alert').first()).toHaveText('Choose the last day on which it is good.');
  await panel(page).getByRole('textbox', { name: 'Last day' }).fill('29.11.2099');
  for (const choice of ['State', 'Orders', 'It enters data in these sheets, too']) {
    await panel(page).getByRole('checkbox', { name: choice, exact: true }).focus();
    await page.keyboard.press('Space');
  }
  await page.keyboard.press('Enter');
  await panel(page).getByRole('button', { name: 'Copy' }).click();
  const token = await page.evaluate(() => navigator.clipboard.readText());
  await panel(page).getByRole('button', { name: 'Done' }).click();
  await expect(panel(page)).toBeHidden();
  const programs = page.getByRole('region', { name: 'Other programs' });
  await expect(programs).toContainText('Reads State; enters data in Orders. Made by Orla Venn; not used yet.');
  // It is not in the page any more, nor by going back.
  await page.goBack();
  await expect(page.getByText(token)).toBeHidden();

  // The program is no browser: nothing but its token.
  const program = (path: string, init: RequestInit = {}) =>
    fetch(`${new URL(page.url()).origin}/api/v1/programs${path}`, {
      ...init,
      headers: { authorization: `Bearer ${token}`, 'content-type': 'application/json', 'idempotency-key': 'one' },
    });
  const [{ key }] = (await (await program('/registers')).json()) as [{ key: string }];
  const rows = JSON.stringify({
    rows: [
      { item: 'spade', state: 'doing' },
      { item: 'rake', state: 'lost' },
    ],
  });
  const store = () => program(`/registers/${key}/entries`, { method: 'POST', body: rows });
  expect(await (await store()).json()).toMatchObject({ taken: 1, refused: 1 });
  expect(await (await store()).json()).toMatchObject({ taken: 1, refused: 1 });
  await expect.poll(() => rowsOf(other.getByRole('grid', { name: 'Orders' }))).toContainEqual(['spade', 'doing']);
  await toPage(page, 'Sheets', /^Orders/);
  await expect.poll(async () => (await rowsOf(grid)).filter(([item]) => item === 'spade')).toHaveLength(1);

  await page.getByRole('link', { name: 'In and out' }).click();
  await expect(programs).toContainText('used last');
  await programs.getByRole('button', { name: 'End the token of Scale in the yard' }).click();
  await page.getByRole('alertdialog').getByRole('button', { name: 'End the token' }).click();
  await expect(programs).toContainText('Scale in the yard is over');
  expect((await store()).status).toBe(401);
  await page.getByRole('link', { name: 'Ledger' }).click();
  await expect(page.getByText('the program “Scale in the yard” entered data')).toBeVisible();
});

test('a program is told that something has changed, by a webhook made by keys alone; what it does not take is seen and sent again', async ({
  nursery: { page, clerk, receiver },
}) => {
  await makeSheet(page, 'Orders', [['Item'], ['State']]);
  await giveChoices(page, 'State', 'to do, doing, done', 'Make a list of them');
  await closePanel(page);
  await page.getByRole('link', { name: 'In and out' }).click();
  await page.getByRole('button', { name: 'New webhook' }).focus();
  await page.keyboard.press('Enter');
  await expect(panel(page).getByLabel('Which program it is for')).toBeFocused();
  // Sent too early: what is missing is said, and nothing is lost.
  await page.keyboard.press('Enter');
  await expect(panel(page).getByText('Say which program it is for')).toBeVisible();
  await page.keyboard.type('Yard board');
  await page.keyboard.press('Enter');
  await expect(panel(page).getByText('Choose at least one catalog or sheet.')).toBeVisible();
  // The only address is chosen already.
  await page.keyboard.press('Tab');
  await expect(panel(page).getByLabel('Address that is told')).toHaveValue('Board in the yard');
  for (const key of ['Tab', 'Space', 'Tab', 'Space', 'Enter']) await page.keyboard.press(key);
  const made = panel(page).getByRole('region', { name: 'The new webhook' });
  receiver.secret = await made.locator('code').innerText();
  await page.keyboard.press('Enter');
  const log = panel(page).getByRole('region', { name: 'Messages of Yard board' });
  await expect(log).toContainText('Nothing was sent yet.');
  const test = log.getByRole('button', { name: 'Send a test' });
  await test.focus();
  await page.keyboard.press('Enter');
  await expect(log.getByRole('listitem')).toContainText(['Testtaken']);
  await expect(test).toBeFocused();
  expect(receiver.messages).toMatchObject([{ type: 'webhook.test', signature: 'good' }]);

  const other = await clerk();
  await other.getByRole('link', { name: /^Orders/ }).click();
  const theirs = other.getByRole('grid', { name: 'Orders' });
  await theirs.getByText('type to add').click();
  await typeAcross(other, ['spade', 'to do'], 'Tab', 0);
  await expect.poll(() => rowsOf(theirs)).toContainEqual(['spade', 'to do']);
  await expect(log.getByRole('listitem').first()).toContainText('Something changedtaken');
  receiver.answer = (response) => void response.writeHead(503).end('closed for lunch');
  await typeAcross(other, ['rake', 'done'], 'Tab', 0);
  await expect(log.getByRole('listitem').first()).toContainText('Something changedwaits');
  await expect(page.getByRole('region', { name: 'Programs that are told' })).toContainText(/Not taken since .*: 503 closed for lunch/);
  await page.getByRole('navigation', { name: 'Main' }).getByRole('link', { name: 'Upkeep' }).click();
  const untold = page.getByRole('region', { name: 'Programs that take no message' });
  await expect(untold).toContainText('Yard board: 503 closed for lunch');
  await untold.getByRole('link', { name: 'Look at it' }).click();
  // Once it takes a message, what waited goes out, too.
  receiver.answer = (response) => void response.writeHead(200).end();
  await test.click();
  await expect(log.getByText('waits')).toHaveCount(0);
  await expect(log.getByText('sent 2 times')).toBeVisible();
  expect(receiver.messages.every(({ signature }) => signature === 'good')).toBe(true);
  expect(receiver.messages.filter(({ type, data }) => type === 'house.changed' && data['registers'] !== undefined).length).toBeGreaterThan(
    2,
  );
  expect(JSON.stringify(receiver.messages)).not.toMatch(/spade|rake|done/);
  await page.getByRole('button', { name: 'Remove the webhook Yard board' }).click();
  await page.getByRole('button', { name: 'Remove the webhook', exact: true }).click();
  await expect(page.getByText('No program is told yet.')).toBeVisible();
  await expect(log).toBeHidden();
});
