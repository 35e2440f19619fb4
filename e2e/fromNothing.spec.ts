// From an empty instance to a clerk who picks: the whole thread, by hand.
import { expect, list, test } from './house.js';

test('the first page makes the house; a list becomes a range, a catalog, a rule and a pick', { tag: '@main' }, async ({ browser }) => {
  const page = await (await browser.newContext({ baseURL: process.env['DELLUM_EMPTY']! })).newPage();
  await page.goto('/');
  await expect(page.getByRole('heading', { name: 'Make your house' })).toBeVisible();
  await page.getByLabel('Name of the house').fill('Little Wharf');
  await page.getByLabel('Your name').fill('Orla Venn');
  await page.getByLabel('Sign-in name').fill('orla');
  await page.getByLabel('Password').fill('short');
  await page.getByRole('button', { name: 'Make the house' }).click();
  await expect(page.getByText('at least 10 characters', { exact: false }).last()).toBeVisible();
  await page.getByLabel('Password').fill('a-long-password');
  await page.getByRole('button', { name: 'Make the house' }).click();
  await expect(page.getByText('Nothing here yet')).toBeVisible();

  await page.getByRole('link', { name: 'Sources' }).click();
  await expect(page.getByRole('heading', { level: 1, name: 'Sources' })).toBeVisible();
  await page.getByLabel('Title').fill('Wharf lists');
  await page.getByRole('button', { name: 'Create the sheet' }).click();
  await page.getByLabel('Heading of the new list').fill('Cats');
  await page.getByRole('button', { name: 'Add', exact: true }).click();
  await list(page, 'Cats').getByText('type to add').click();
  for (const cat of ['Soot', 'Marmalade', 'Tansy']) {
    await page.keyboard.type(cat);
    await page.keyboard.press('Enter');
    await expect(list(page, 'Cats').getByRole('gridcell', { name: cat })).toBeVisible();
  }
  await list(page, 'Cats').getByRole('gridcell', { name: 'Soot' }).click();
  await page.getByLabel('Name', { exact: true }).fill('Cats');
  await page.getByRole('button', { name: 'Name the range' }).click();
  await expect(page.getByRole('region', { name: 'Range Cats' })).toContainText('3 values taken');

  await page.getByRole('link', { name: 'Catalogs' }).click();
  await expect(page.getByRole('heading', { level: 1, name: 'Catalogs' })).toBeVisible();
  await page.getByLabel('Title').fill('Cats');
  await page.getByText('Cats, Wharf lists').click();
  await page.getByRole('button', { name: 'Make the catalog' }).click();
  await expect(page.getByRole('list', { name: 'Lineage' })).toContainText('3 offered');

  await page.getByRole('link', { name: 'Sheets' }).click();
  await expect(page.getByRole('heading', { level: 1, name: 'Sheets' })).toBeVisible();
  await page.getByLabel('Title', { exact: true }).fill('Mouse log');
  await page.getByRole('button', { name: 'Create the sheet' }).click();
  await page.getByRole('button', { name: 'New field' }).click();
  await page.getByLabel('Heading').fill('Caught by');
  await page.getByRole('button', { name: 'Add the field' }).click();
  const grid = page.getByRole('grid', { name: 'Mouse log' });
  await grid
    .getByRole('columnheader', { name: /Caught by/ })
    .getByRole('button')
    .click();
  await page.getByLabel('Take its values from').selectOption({ label: 'Cats' });
  await page.getByRole('button', { name: 'Set this rule' }).click();
  await expect(grid.getByRole('columnheader', { name: /Caught by/ })).toContainText('Cats');
  await grid.getByText('type to add').click();
  await page.keyboard.type('marm');
  await page.keyboard.press('Enter');
  await expect(grid.getByRole('gridcell', { name: 'Marmalade' })).toBeVisible();

  // The seek line goes to any value, by key.
  await page.keyboard.press('Control+.');
  await page.keyboard.type('soot');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { level: 1, name: 'Cats' })).toBeVisible();
});
