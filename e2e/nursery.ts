// An empty house of one's own, on a server of its own, and the hands of a person in it: everything goes through the interface.
import { randomUUID } from 'node:crypto';
import { mkdtempSync, rmSync } from 'node:fs';
import { test as base, expect, type Browser, type BrowserContext, type Locator, type Page } from '@playwright/test';
import { startReceiver, type Receiver } from '../stand-ins/receiver.mjs';
import { newDatabase, serve } from './servers.js';
import { closeAll } from './closeAll.js';

export { expect };

const password = 'a-long-password';

export interface Nursery {
  /** The administrator, in a browser, on the first page of the house. */
  readonly page: Page;
  /** The folder whose files can be linked; it is empty. */
  readonly files: string;
  /** The program whose address may be told. */
  readonly receiver: Receiver;
  /** A clerk who was added by hand and signs in, in a browser of their own. */
  clerk(): Promise<Page>;
  /** The same with another role. */
  person(name: string, role: 'clerk' | 'steward' | 'reader'): Promise<Page>;
}

async function openNursery(browser: Browser, url: string): Promise<Nursery & { leave(): Promise<void> }> {
  const files = mkdtempSync('/tmp/dellum-files-');
  const receiver = await startReceiver();
  const database = await newDatabase(url, `hand_${randomUUID().replaceAll('-', '')}`);
  const serving = await serve(database, { house: 'marl-lane-nursery', files, told: `${receiver.base}/messages` });
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
  const person: Nursery['person'] = async (name, role) => {
    const here = page.url();
    const signIn = name.split(' ')[0]!.toLowerCase();
    await page.getByRole('navigation', { name: 'Main' }).getByRole('link', { name: 'People' }).click();
    await page.getByLabel('Name', { exact: true }).fill(name);
    await page.getByLabel('Sign-in name').fill(signIn);
    await page.getByLabel('Role', { exact: true }).selectOption(role);
    await page.getByLabel('First password').fill(password);
    await page.getByRole('button', { name: 'Add', exact: true }).click();
    await expect(page.getByRole('cell', { name, exact: true })).toBeVisible();
    await page.goto(here);
    const other = await open();
    await other.getByLabel('Sign-in name').fill(signIn);
    await other.getByLabel('Password').fill(password);
    await other.getByRole('button', { name: 'Sign in' }).click();
    await expect(other.getByRole('heading', { level: 1, name: 'Sheets' })).toBeVisible();
    return other;
  };
  const leave = async () => {
    await closeAll(contexts);
    await serving.stop();
    receiver.stop();
    rmSync(files, { recursive: true, force: true });
  };
  return { page, files, receiver, clerk: () => person('Pell Hawk', 'clerk'), person, leave };
}

export const test = base.extend<{ nursery: Nursery }>({
  nursery: async ({ browser }, use) => {
    const nursery = await openNursery(browser, process.env['DELLUM_DATABASE']!);
    await use(nursery);
    await nursery.leave();
  },
});

/**
 * Types texts, each followed by a key, without waiting for anything; `delay`: milliseconds between keys, 0 for as fast as they can come.
 */
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
  await expect(page.getByRole('heading', { level: 1, name: 'Sheets' })).toBeVisible();
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
export async function openField(page: Page, heading: string): Promise<void> {
  await page
    .getByRole('columnheader', { name: new RegExp(`^${heading}`) })
    .getByRole('button')
    .click();
  await expect(panel(page).getByRole('heading', { level: 2, name: heading })).toBeVisible();
}

/** Choices typed for a field: kept in its rule, or made a list. */
export async function giveChoices(
  page: Page,
  heading: string,
  choices: string,
  keep: 'Set these choices' | 'Make a list of them',
): Promise<void> {
  await openField(page, heading);
  await page.getByLabel('Choices', { exact: true }).fill(choices);
  await page.getByRole('button', { name: keep }).click();
  await expect(page.getByText(/from now on\./).last()).toBeVisible();
}

/** A table on the source sheet that is open, made by its form; the cursor is in its first cell. */
export async function makeNewTable(page: Page, title: string, fields: Wanted): Promise<Locator> {
  await page.getByRole('button', { name: 'A table instead' }).click();
  await page.getByLabel('Heading of the new table').fill(title);
  for (const [at, [heading, kind]] of fields.entries()) {
    if (at > 1) await page.getByRole('button', { name: 'One field more' }).click();
    await page.getByLabel(`Heading of field ${at + 1}`).fill(heading);
    if (kind) await page.getByLabel(`Kind of field ${at + 1}`).selectOption({ label: kind });
  }
  await page.getByRole('button', { name: 'Add', exact: true }).click();
  const table = page.getByRole('grid', { name: title });
  await expect(table.locator('.active')).toBeFocused();
  return table;
}

/** What the rows of a grid show, without their numbers; blank cells are empty texts. */
export async function rowsOf(grid: Locator): Promise<string[][]> {
  const rows = await grid
    .getByRole('row')
    .filter({ has: grid.page().getByRole('gridcell') })
    .all();
  return Promise.all(
    rows.map(async (row) =>
      row.getByRole('gridcell').evaluateAll((cells) => cells.map((cell) => cell.querySelector('.dl-text')?.textContent ?? '')),
    ),
  );
}

/** Puts a block on the clipboard, as if it had been copied elsewhere. */
export const copyBlock = (page: Page, rows: readonly (readonly string[])[]) =>
  page.evaluate((text) => navigator.clipboard.writeText(text), rows.map((row) => row.join('\t')).join('\n'));

/** A new list with its values, typed one under the other. */
export async function makeList(page: Page, heading: string, values: readonly string[]): Promise<Locator> {
  await page.getByLabel('Heading of the new list').fill(heading);
  await page.keyboard.press('Enter');
  const list = page.getByRole('grid', { name: heading });
  await expect(list.locator('[role=gridcell].active')).toBeFocused();
  for (const value of values) {
    await page.keyboard.type(value);
    await page.keyboard.press('Enter');
  }
  await expect(list.getByRole('gridcell')).toHaveCount(values.length + 1);
  return list;
}

/** A table of a pasted block. */
export async function makeTable(page: Page, rows: readonly (readonly string[])[]): Promise<void> {
  await page.getByLabel('Heading of the new list').click();
  await copyBlock(page, rows);
  await page.keyboard.press('Control+v');
  await page.getByRole('button', { name: 'Make a table of it' }).click();
  await expect(page.getByRole('button', { name: 'Make a catalog of it' })).toBeVisible();
}

/** The panel at the right. */
export const panel = (page: Page) => page.getByRole('complementary', { name: 'Panel' });
export const cellAt = (grid: Locator, row: number, column: number) =>
  grid.locator(`[role=gridcell][data-row="${row}"][data-column="${column}"]`);
export const expectOptions = (page: Page, options: readonly string[]) =>
  expect.poll(() => page.getByRole('option').allInnerTexts()).toEqual(options);

/** Takes the values of a catalog for a field, as its panel proposes. */
export async function takeFrom(page: Page, heading: string, catalog: string): Promise<void> {
  await openField(page, heading);
  await page.getByLabel('Take its values from').selectOption({ label: catalog });
  await page.getByRole('button', { name: 'Set this rule' }).click();
  await expect(panel(page).getByText('Not set yet')).toBeHidden();
}

/** To one of the pages behind a link at the left. */
export async function toPage(page: Page, rail: string, link: RegExp | string): Promise<void> {
  await page.getByRole('link', { name: rail, exact: true }).click();
  await page.getByRole('main').getByRole('link', { name: link }).last().click();
}

export const closePanel = (page: Page) => panel(page).getByRole('button', { name: 'Close' }).click();

/**
 * Chooses a file at a drop place, by keys alone. The browser is told to hand the chooser over before the key is pressed, or it shows its
 * own.
 */
export async function chooseFile(page: Page, drop: Locator, path: string): Promise<void> {
  const chooser = page.waitForEvent('filechooser');
  await drop.focus();
  await expect(drop).toBeFocused();
  await page.keyboard.press('Enter');
  await (await chooser).setFiles(path);
}
