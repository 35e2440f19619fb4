// A second factor: set up with an app, asked for at the sign-in, required of a role, lost and taken away.
import { demoAccounts } from '@dellum/server';
import type { Page } from '@playwright/test';
import { codeAt } from '../stand-ins/authenticator.mjs';
import { expect, one, test } from './house.js';

const passwordOf = (name: string) => demoAccounts.find(({ signIn }) => signIn === name)!.password;

/** Sets it up by what the page says; returns the secret and the codes on paper. */
async function setUp(page: Page, name: string): Promise<{ secret: string; codes: string[] }> {
  const factor = page.getByRole('region', { name: 'Second factor' });
  await factor.getByRole('button', { name: 'Set up a second factor' }).click();
  await page.keyboard.type(passwordOf(name));
  await page.keyboard.press('Enter');
  await expect(factor.getByRole('img', { name: 'The secret, as a picture for the app' })).toBeVisible();
  const secret = (await factor.locator('code').textContent())!;
  await expect(factor.getByLabel('Six digits that the app shows now')).toBeFocused();
  await page.keyboard.type('000000');
  await page.keyboard.press('Enter');
  await expect(factor.getByRole('alert')).toContainText('This is not the code that your app shows now.');
  // The step before this one, so that the code of now is left for the sign-in.
  await factor.getByLabel('Six digits that the app shows now').fill(codeAt(secret, Date.now() / 1000 - 30));
  await page.keyboard.press('Enter');
  const paper = factor.getByRole('region', { name: 'Codes for paper' });
  await expect(paper.locator('code')).toHaveCount(10);
  const codes = await paper.locator('code').allTextContents();
  await paper.getByRole('button', { name: 'I have kept them' }).click();
  return { secret, codes };
}

async function signIn(page: Page, houseKey: string, name: string): Promise<void> {
  await page.goto(`/sign-in?house=${houseKey}`);
  await page.getByLabel('Sign-in name').fill(name);
  await page.getByLabel('Password').fill(passwordOf(name));
  await page.keyboard.press('Enter');
}

test('a person sets up a second factor, signs in with it, and with a code on paper; an administrator takes it away', async ({
  house,
  browser,
}) => {
  const mara = await house.open('mara', '/account');
  const { secret, codes } = await setUp(mara, 'mara');
  await expect(mara.getByRole('region', { name: 'Second factor' })).toContainText('10 on paper are left');

  const elsewhere = await (await browser.newContext({ baseURL: one() })).newPage();
  await signIn(elsewhere, house.key, 'mara');
  await expect(elsewhere.getByText('Type the six digits that your app shows')).toBeVisible();
  await elsewhere.keyboard.type('123456');
  await elsewhere.keyboard.press('Enter');
  await expect(elsewhere.getByText('This code is not right')).toBeVisible();
  await elsewhere.getByLabel('Code').fill(codeAt(secret));
  await elsewhere.keyboard.press('Enter');
  await expect(elsewhere.getByRole('heading', { level: 1, name: 'Sheets' })).toBeVisible();

  const again = await (await browser.newContext({ baseURL: one() })).newPage();
  await signIn(again, house.key, 'mara');
  await again.getByLabel('Code').fill(codes[0]!.toLowerCase());
  await again.keyboard.press('Enter');
  await expect(again.getByRole('heading', { level: 1, name: 'Sheets' })).toBeVisible();

  const ines = await house.open('ines', '/people');
  await ines.getByRole('button', { name: /Reset password of Mara/ }).click();
  await ines.getByRole('button', { name: 'Take the second factor away' }).click();
  await expect(ines.getByText(/signs in with the password alone now/)).toBeVisible();
  await signIn(again, house.key, 'mara');
  await expect(again.getByRole('heading', { level: 1, name: 'Sheets' })).toBeVisible();
});

test('a role that needs a second factor sets it up before anything else, and stays inside then', async ({ house }) => {
  const mara = await house.open('mara', '/sheets');
  await expect(mara.getByRole('heading', { level: 1, name: 'Sheets' })).toBeVisible();
  const ines = await house.open('ines', '/people');
  await ines.getByLabel('every clerk').check({ force: true });
  // At once, wherever one is.
  await expect(mara.getByRole('heading', { name: 'One more step' })).toBeVisible();
  await mara.goto('/figures');
  await expect(mara.getByRole('heading', { name: 'One more step' })).toBeVisible();
  await setUp(mara, 'mara');
  await expect(mara.getByRole('heading', { level: 1, name: 'Figures' })).toBeVisible();
  await mara.goto('/account');
  await expect(mara.getByText('The house asks you for it.')).toBeVisible();
  await expect(mara.getByRole('button', { name: 'Remove it' })).toHaveCount(0);
});
