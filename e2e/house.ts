// The Quillhaven house, loaded anew for each test, and people who work in it in browsers of their own.
import { randomUUID } from 'node:crypto';
import { test as base, expect, type Browser, type BrowserContext, type Locator, type Page } from '@playwright/test';
import { demoAccounts, Database } from '@dellum/server';
import { loadHouse, quillhaven } from '@dellum/demo';
import type { BuildView } from '@dellum/contract';
import { closeAll } from './closeAll.js';

export { expect };

export const one = (): string => process.env['DELLUM_ONE']!;
export const two = (): string => process.env['DELLUM_TWO']!;

type Name = 'ines' | 'tobin' | 'mara' | 'olek' | 'sela';

export interface House {
  readonly key: string;
  readonly id: string;
  /** Somebody signed in, in a browser of their own, on the given server; at a page where a path is given. */
  open(name: Name, path?: string, server?: string): Promise<Page>;
  /** Closes all browsers of the house, and with them their live streams. */
  leave(): Promise<void>;
}

/** A house in a database, and how to enter it. */
export async function enterHouse(browser: Browser, databaseUrl: string): Promise<House> {
  const database = new Database(databaseUrl, 2);
  const key = `house-${randomUUID()}`;
  const id = await loadHouse(database.kysely, quillhaven(new Date(), key));
  await database.kysely.destroy();
  const contexts: BrowserContext[] = [];
  const open = async (name: Name, path?: string, server = one()): Promise<Page> => {
    const context = await browser.newContext({ baseURL: server, reducedMotion: 'reduce' });
    contexts.push(context);
    const { signIn, password } = demoAccounts.find((account) => account.signIn === name)!;
    const answer = await context.request.post('/api/v1/session', { data: { house: key, signIn, password } });
    expect(answer.status()).toBe(204);
    const page = await context.newPage();
    if (path !== undefined) await page.goto(path);
    return page;
  };
  const leave = async () => {
    await closeAll(contexts);
  };
  return { key, id, open, leave };
}

export const test = base.extend<{ house: House }>({
  house: async ({ browser }, use) => {
    const house = await enterHouse(browser, process.env['DELLUM_DATABASE']!);
    await use(house);
    await house.leave();
  },
});

/** The browser draws two pictures a second from now on, as a busy one does: several keys come before the next picture. */
export const drawSlowly = (page: Page): Promise<unknown> =>
  page.addInitScript(() => {
    window.requestAnimationFrame = (draw) => window.setTimeout(() => draw(performance.now()), 500);
  });

async function buildOf(page: Page): Promise<BuildView> {
  return (await (await page.request.get('/api/v1/build')).json()) as BuildView;
}

/** Opens a sheet by its address; it is there when its first cells are. */
export async function toSheet(page: Page, title: string): Promise<Locator> {
  await page.goto(`/sheets/${(await buildOf(page)).sheets.find((sheet) => sheet.title === title)!.id}`);
  const grid = page.getByRole('grid', { name: title });
  await expect(grid.getByRole('gridcell').first()).not.toHaveText('…');
  return grid;
}

export async function toLists(page: Page): Promise<void> {
  await page.goto(`/sources/${(await buildOf(page)).sheets.find(({ title }) => title === 'Harbour lists')!.id}`);
  await expect(list(page, 'Pilots').getByRole('gridcell', { name: 'Rook Tansy' })).toBeVisible();
}

export async function toCatalog(page: Page, title: string): Promise<void> {
  await page.goto(`/catalogs/${(await buildOf(page)).catalogs.find((catalog) => catalog.title === title)!.id}`);
  await expect(page.getByRole('heading', { level: 1, name: title })).toBeVisible();
}

export const list = (page: Page, title: string): Locator => page.getByRole('grid', { name: title, exact: true });

/** The texts of a list, top to bottom, without the cell to type in. */
export async function textsOf(page: Page, title: string): Promise<string[]> {
  const cells = await list(page, title).getByRole('gridcell').locator('.dl-text').allTextContents();
  return cells.slice(0, -1);
}

/** The cell of an entry sheet under a heading, by the row's number; of Berth visits where no other headings are given. */
export function cellOf(grid: Locator, row: number, heading: string, headings: readonly string[] = visitHeadings): Locator {
  const page = grid.page();
  const line = grid.getByRole('row').filter({ has: page.getByRole('rowheader', { name: String(row), exact: true }) });
  return line.locator(`[data-column="${headings.indexOf(heading)}"]`);
}
const visitHeadings = [
  'Visit',
  'Vessel',
  'Length, m',
  'Quay',
  'Berth',
  'Arrival',
  'Departure',
  'Status',
  'Pilot',
  'Cargo',
  'Goods group',
  'Sub-group',
  'Goods',
  'Unit',
  'Quantity, t',
  'Dues rate',
  'Plan code',
  'Shore power',
  'Services',
  'Comes from',
  'Tariff',
  'Remarks',
];
export const craneHeadings = ['Day', 'Quay', 'Service', 'Hours', 'Pilot on board'];

/** Types a value into the first free cell of a list. */
export async function typeUnder(page: Page, title: string, text: string): Promise<void> {
  await list(page, title).getByText('type to add').click();
  await page.keyboard.type(text);
  await page.keyboard.press('Enter');
}

/** Writes over a cell of a list. */
export async function writeOver(page: Page, title: string, before: string, text: string): Promise<void> {
  await list(page, title).getByRole('gridcell', { name: before, exact: true }).click();
  await page.keyboard.type(text);
  await page.keyboard.press('Enter');
}

export async function answerSlip(page: Page, answer: string): Promise<void> {
  const slip = page.getByRole('region', { name: 'Impact' });
  await slip.getByText(answer, { exact: true }).click();
  await slip.getByRole('button', { name: /^(Rename in|Replace|Retire|Take out|Apply)/ }).click();
  await expect(slip).toBeHidden();
}
