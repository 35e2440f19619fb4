// People: signing in, the demo's accounts, and what an administrator does with them.
import { cellOf, expect, one, test, toSheet } from './house.js';

test('the demo shows its accounts; a wrong password is refused', async ({ house, browser }) => {
  const page = await (await browser.newContext({ baseURL: one() })).newPage();
  await page.goto(`/sign-in?house=${house.key}`);
  await page.getByRole('textbox', { name: 'Sign-in name' }).fill('ines');
  await page.getByLabel('Password').fill('not this one');
  await page.getByRole('button', { name: 'Sign in' }).click();
  await expect(page.getByText('The sign-in name or the password is wrong. Try again.')).toBeVisible();
  await page.getByRole('button', { name: /Mara Fenn, clerk/ }).click();
  await expect(page.getByRole('heading', { name: 'Sheets' })).toBeVisible();
  await expect(page.getByRole('navigation').getByRole('link')).toHaveText(['Sheets', 'Forms', 'Records', 'Requests', 'Figures']);
  await page.getByRole('button', { name: 'Mara Fenn, clerk' }).click();
  await page.getByRole('menuitem', { name: 'Sign out' }).click();
  await expect(page.getByRole('heading', { name: 'Sign in' })).toBeVisible();
});

test('what is typed and not stored is asked about before one signs out, and shown to nobody who signs in after', async ({ house }) => {
  const page = await house.open('mara');
  const grid = await toSheet(page, 'Berth visits');
  await cellOf(grid, 1500, 'Pilot').click();
  await page.keyboard.type('Nobody At All');
  await page.keyboard.press('Tab');
  await page.getByRole('button', { name: 'Mara Fenn, clerk' }).click();
  await expect(cellOf(grid, 1500, 'Pilot')).toContainText('Nobody At All');
  await page.getByRole('menuitem', { name: 'Sign out' }).click();
  await expect(page.getByRole('alertdialog')).toContainText('1 text that you typed is not stored');
  await page.getByRole('alertdialog').getByRole('button', { name: 'Sign out without it' }).click();
  await page.getByRole('button', { name: /Mara Fenn, clerk/ }).click();
  await expect(page.getByRole('heading', { name: 'Sheets' })).toBeVisible();
  const again = await toSheet(page, 'Berth visits');
  await expect(cellOf(again, 1500, 'Pilot')).not.toContainText('Nobody At All');
  await cellOf(again, 1500, 'Pilot').click();
  await page.keyboard.type('Nobody At All');
  await page.keyboard.press('Tab');
  await cellOf(again, 1499, 'Pilot').click();
  // The session ends elsewhere; whoever signs in next sees nothing of it, and the one who typed would find it again.
  await page.context().clearCookies();
  await page.goto(`/sign-in?house=${house.key}`);
  await page.getByRole('button', { name: /^Olek .*clerk/ }).click();
  await expect(page.getByRole('heading', { name: 'Sheets' })).toBeVisible();
  const other = await toSheet(page, 'Berth visits');
  await expect(cellOf(other, 1500, 'Pilot')).not.toContainText('Nobody At All');
  await expect(page.getByText('refused', { exact: false })).toHaveCount(0);
});

test('someone is added, given a role, a new password, and signed out', { tag: '@main' }, async ({ house, browser }) => {
  const ines = await house.open('ines', '/people');
  await ines.getByRole('button', { name: 'Add', exact: true }).click();
  await expect(ines.getByRole('alert').first()).toContainText('Type a name');
  await ines.getByLabel('Name', { exact: true }).fill('Nell Farrow');
  await ines.getByLabel('Sign-in name').fill('nell');
  await ines.getByLabel('Role', { exact: true }).selectOption('reader');
  await ines.getByLabel('First password').fill('a-first-password');
  await ines.getByRole('button', { name: 'Add', exact: true }).click();
  await expect(ines.getByRole('row', { name: /Nell Farrow/ })).toBeVisible();

  const nell = await (await browser.newContext({ baseURL: one() })).newPage();
  await nell.goto(`/sign-in?house=${house.key}`);
  await nell.getByLabel('Sign-in name').fill('nell');
  await nell.getByLabel('Password').fill('a-first-password');
  await nell.keyboard.press('Enter');
  await expect(nell.getByRole('heading', { name: 'Sheets' })).toBeVisible();
  await toSheet(nell, 'Crane hours');
  await expect(nell.getByRole('button', { name: /New entry/ })).toHaveCount(0);

  await ines.getByLabel('Role of Nell Farrow').selectOption('clerk');
  await expect(nell.getByRole('button', { name: /New entry/ })).toBeVisible();
  await ines.getByRole('button', { name: 'Sign out Nell Farrow' }).click();
  await expect(nell.getByRole('heading', { name: 'Sign in' })).toBeVisible();
  await ines.getByRole('button', { name: 'Reset password of Nell Farrow' }).click();
  await ines.getByLabel('New password').fill('short');
  await ines.getByRole('button', { name: 'Set the password' }).click();
  await expect(ines.getByRole('alert')).toContainText('at least 10 characters');
  await ines.getByLabel('New password').fill('a-second-password');
  await ines.getByRole('button', { name: 'Set the password' }).click();
  await expect(ines.getByText('Nell Farrow has a new password')).toBeVisible();
  await ines.getByLabel('Role of Ines Quarrie').selectOption('clerk');
  await expect(ines.getByText('This is the only administrator.')).toBeVisible();
});
