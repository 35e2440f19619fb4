// An empty house of one's own, on a server of its own, and the hands of a person in it: everything goes through the interface.
import { randomUUID } from 'node:crypto';
import { test as base, expect, type Browser, type BrowserContext, type Locator, type Page } from '@playwright/test';
import { newDatabase, serve } from './servers.js';

export { expect };

const password = 'a-long-password';

export interface Nursery {
  /** The administrator, in a browser, on the first page of the house. */
  readonly page: Page;
  /** A clerk who was added by hand and signs in, in a browser of their own. */
  clerk(): Promise<Page>;
}

async function openNursery(browser: Browser, url: string): Promise<Nursery & { leave(): Promise<void> }> {
  const serving = await serve(await newDatabase(url, `hand_${randomUUID().replaceAll('-', '')}`));
  const contexts: BrowserContext[] = [];
  const open = async () => {
    const context = await browser.newContext({ baseURL: serving.base, reducedMotion: 'reduce' });
    contexts.push(context);
    const page = await context.newPage();
    await page.goto('/');
    return page;
  };
  const page = await open();
  await page.getByLabel('Name of the house').fill('Marl Lane Nursery');
  await page.getByLabel('Your name').fill('Orla Venn');
  await page.getByLabel('Sign-in name').fill('orla');
  await page.getByLabel('Password').fill(password);
  await page.getByRole('button', { name: 'Make the house' }).click();
  await expect(page.getByRole('region', { name: 'First steps' })).toBeVisible();
  const clerk = async () => {
    const here = page.url();
    await page.getByRole('link', { name: 'People' }).click();
    await page.getByLabel('Name', { exact: true }).fill('Pell Hawk');
    await page.getByLabel('Sign-in name').fill('pell');
    await page.getByLabel('First password').fill(password);
    await page.getByRole('button', { name: 'Add', exact: true }).click();
    await expect(page.getByRole('cell', { name: 'Pell Hawk', exact: true })).toBeVisible();
    await page.goto(here);
    const other = await open();
    await other.getByLabel('Sign-in name').fill('pell');
    await other.getByLabel('Password').fill(password);
    await other.getByRole('button', { name: 'Sign in' }).click();
    await expect(other.getByRole('heading', { level: 1, name: 'Sheets' })).toBeVisible();
    return other;
  };
  const leave = async () => {
    for (const context of contexts) await context.close();
    await serving.stop();
  };
  return { page, clerk, leave };
}

export const test = base.extend<{ nursery: Nursery }>({
  nursery: async ({ browser }, use) => {
    const nursery = await openNursery(browser, process.env['DELLUM_DATABASE']!);
    await use(nursery);
    await nursery.leave();
  },
});

/** How fast somebody types: as fast as keys can come, or like a person. */
export const speeds = [
  { speed: 'as fast as keys come', delay: 0, keys: ['Tab', 'Enter'] },
  { speed: 'at the speed of a person', delay: 60, keys: ['Tab'] },
] as const;

/** Types texts, each followed by a key, without waiting for anything. */
export async function typeAcross(page: Page, texts: readonly string[], key: 'Tab' | 'Enter', delay: number): Promise<void> {
  for (const text of texts) {
    await page.keyboard.type(text, { delay });
    await page.keyboard.press(key, { delay });
  }
}

export type Wanted = readonly (readonly [heading: string, kind?: string])[];

/** A new sheet with its fields, made by its first steps or the form at the right. */
export async function makeSheet(page: Page, title: string, fields: Wanted): Promise<Locator> {
  await page.getByRole('link', { name: 'Sheets', exact: true }).click();
  await page.getByLabel('Title', { exact: true }).fill(title);
  await page.getByRole('button', { name: 'Create the sheet' }).click();
  const grid = page.getByRole('grid', { name: title });
  for (const [heading, kind] of fields) {
    await page.getByLabel('Heading', { exact: true }).fill(heading);
    if (kind) await page.getByLabel('It holds').selectOption({ label: kind });
    await page.keyboard.press('Enter');
    await expect(grid.getByRole('columnheader', { name: new RegExp(`^${heading}`) })).toBeVisible();
  }
  await page.getByRole('button', { name: 'Done' }).click();
  return grid;
}

/** A new page of lists. */
export async function makeSource(page: Page, title: string): Promise<void> {
  await page.getByRole('link', { name: /^Sources/ }).click();
  await expect(page.getByRole('heading', { level: 1, name: 'Sources' })).toBeVisible();
  await page.getByLabel('Title', { exact: true }).fill(title);
  await page.getByRole('button', { name: 'Create the sheet' }).click();
  await expect(page.getByRole('heading', { level: 1, name: title })).toBeVisible();
}

/** Opens the panel of a field by its heading. */
export const openField = (page: Page, heading: string) => page.getByRole('columnheader', { name: new RegExp(`^${heading}`) }).getByRole('button').click();

/** Choices typed for a field: kept in its rule, or made a list. */
export async function giveChoices(page: Page, heading: string, choices: string, keep: 'Set these choices' | 'Make a list of them'): Promise<void> {
  await openField(page, heading);
  await page.getByLabel('Choices', { exact: true }).fill(choices);
  await page.getByRole('button', { name: keep }).click();
  await expect(page.getByText(/from now on\./).last()).toBeVisible();
}

/** What the rows of a grid show, without their numbers; blank cells are empty texts. */
export async function rowsOf(grid: Locator): Promise<string[][]> {
  const rows = await grid.getByRole('row').filter({ has: grid.page().getByRole('gridcell') }).all();
  return Promise.all(rows.map(async (row) => row.getByRole('gridcell').evaluateAll((cells) => cells.map((cell) => cell.querySelector('.dl-text')?.textContent ?? ''))));
}

/** Puts a block on the clipboard, as if it had been copied elsewhere. */
export const copyBlock = (page: Page, rows: readonly (readonly string[])[]) => page.evaluate((text) => navigator.clipboard.writeText(text), rows.map((row) => row.join('\t')).join('\n'));
