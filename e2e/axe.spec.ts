// axe finds nothing on any main screen, light or dark.
import { AxeBuilder } from '@axe-core/playwright';
import type { Page } from '@playwright/test';
import { root } from '../scripts/lib/packages.mjs';
import { cellOf, expect, list, one, test, toCatalog, toLists, toSheet, writeOver, type House } from './house.js';

async function violationsOf(page: Page, where: string, rules: 'all' | 'colours', seen: string | undefined): Promise<string[]> {
  const axe = new AxeBuilder({ page });
  if (seen) axe.exclude(seen);
  // There are no frames to gather from: one run in the page is enough, without a blank page for each.
  axe.setLegacyMode(true).options({ resultTypes: ['violations'] });
  const { violations } = await (
    rules === 'colours'
      ? axe.withRules(['color-contrast'])
      : axe.withTags(['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa', 'best-practice'])
  ).analyze();
  return violations.map(({ id, nodes }) => `${where}: ${id} at ${nodes.map(({ html }) => html.slice(0, 160)).join(' | ')}`);
}

/** Colours that are still on their way, of a popover that opens or a page that turns dark, are nobody's. */
const settled = (page: Page) =>
  page.evaluate(() => Promise.allSettled(document.getAnimations().map(({ finished }) => finished)).then(() => undefined));

/**
 * Looks at a screen in the light with all rules, and on dark paper, which differs by its colours alone, with that of colours.
 * `seen`: what was looked at before and has not changed; a sheet of many cells takes most of the time.
 */
async function clean(page: Page, where: string, seen?: string): Promise<void> {
  await settled(page);
  expect(await violationsOf(page, where, 'all', seen)).toEqual([]);
  // A busy browser can miss a change that is taken for none: it is wished for again.
  await expect(async () => {
    for (const colorScheme of ['light', 'dark'] as const) await page.emulateMedia({ colorScheme, reducedMotion: 'reduce' });
    await expect.poll(() => page.evaluate(() => document.documentElement.classList.contains('dark')), { timeout: 4000 }).toBe(true);
  }).toPass();
  await settled(page);
  expect(await violationsOf(page, `${where}, dark`, 'colours', seen)).toEqual([]);
  await page.emulateMedia({ colorScheme: 'light', reducedMotion: 'reduce' });
}

/** The rows of a grid in which nothing is being edited. */
const restingRows = '.dl-row:not(:has(.editing))';

async function open(house: House, path: string): Promise<Page> {
  const page = await house.open('ines', path);
  // A sheet has the same parts however many rows of it are in view.
  await page.setViewportSize({ width: 1280, height: 520 });
  await page.emulateMedia({ colorScheme: 'light', reducedMotion: 'reduce' });
  return page;
}

test('the other screens', async ({ house, browser }) => {
  test.setTimeout(240_000);
  const outside = await (await browser.newContext({ baseURL: one() })).newPage();
  await outside.goto(`/sign-in?house=${house.key}`);
  await expect(outside.getByText('Demo accounts')).toBeVisible();
  await clean(outside, 'sign in');

  const page = await open(house, '/sheets');
  await expect(page.getByText('27 outside')).toBeVisible();
  await clean(page, 'sheets');
  await page.goto('/records');
  await expect(page.getByRole('link', { name: /^Crew contacts/ })).toBeVisible();
  await clean(page, 'records');
  await page
    .getByRole('main')
    .getByRole('link', { name: /^Vessels/ })
    .click();
  await expect(page.getByRole('table', { name: 'Records of Vessels' })).toBeVisible();
  await clean(page, 'record browser');
  await page.getByRole('table').getByRole('link').first().click();
  await page.getByRole('button', { name: /^Flag: / }).click();
  await expect(page.getByRole('listbox')).toBeVisible();
  await clean(page, 'record');
  await page.goto('/people');
  await expect(page.getByRole('cell', { name: 'Mara Fenn', exact: true })).toBeVisible();
  await page.getByRole('button', { name: 'New group' }).click();
  await clean(page, 'people');
  await toSheet(page, 'Crane hours');
  for (const [item, title] of [
    ['Who sees it', 'Who sees Crane hours'],
    ['When entries are closed', 'When entries of Crane hours are closed'],
  ] as const) {
    await page.getByRole('button', { name: 'More for Crane hours' }).click();
    await page.getByRole('menuitem', { name: item }).click();
    await expect(page.getByRole('dialog', { name: title })).toBeVisible();
    await clean(page, title);
    await page.keyboard.press('Escape');
  }
  await page.goto('/in-and-out');
  await page.getByRole('button', { name: 'New intake' }).click();
  await page.getByText('Look at a folder each minute').click();
  await expect(page.getByText('No folder is given to this house.', { exact: false })).toBeVisible();
  await clean(page, 'new intake');
  await page.getByLabel('What comes in').fill('Crane company');
  await page.getByLabel('Into the sheet').selectOption('Crane hours');
  await page.getByText('Look at a folder each minute').click();
  await page.getByRole('button', { name: 'Make the intake' }).click();
  await page
    .getByRole('region', { name: 'Files of Crane company' })
    .getByLabel('File', { exact: true })
    .setInputFiles({
      name: 'week.csv',
      mimeType: 'text/csv',
      buffer: Buffer.from('Day,Quay,Hours\n2026-11-30,Salt Quay,2\n2026-11-30,Sallt Quay,3\n'),
    });
  const waiting = page.getByRole('listitem').filter({ hasText: '1 row waits' });
  await expect(waiting).toBeVisible();
  await clean(page, 'intake');
  await waiting.getByRole('link').click();
  await expect(page.getByText('1 cell would be refused')).toBeVisible();
  await clean(page, 'what waits of an intake');
  await page.goto('/in-and-out');
  const old = ['old log 2025.csv', 'berths.xlsx', 'tugs.xlsx'].map((name) => `${root}/demo/old-files/${name}`);
  await page.getByLabel('Files of your office').setInputFiles(old);
  await expect(page.getByText('2 sheets with 480 entries and 4 catalogs', { exact: false })).toBeVisible();
  await page.getByRole('button', { name: /^ROOK TANSY/ }).click();
  await expect(page.getByRole('heading', { name: '“ROOK TANSY”' })).toBeVisible();
  await clean(page, 'proposal');
  await page.goto('/catalogs');
  await expect(page.getByText('How far a visit has come.')).toBeVisible();
  await clean(page, 'catalogs');
  await toCatalog(page, 'Pilots');
  await expect(page.getByText('Odd Fenwright')).toBeVisible();
  await clean(page, 'catalog');
  await toLists(page);
  await list(page, 'Pilots').getByRole('gridcell', { name: 'Rook Tansy' }).click();
  await clean(page, 'source sheet');
  await writeOver(page, 'Pilots', 'Rook Tansy', 'Rook Tansey');
  await expect(page.getByRole('region', { name: 'Impact' })).toBeVisible();
  await clean(page, 'impact slip');
});

test('catalogs and sources in full', async ({ house }) => {
  test.setTimeout(240_000);
  const page = await open(house, '/ranges');
  await expect(page.getByText('nothing').first()).toBeVisible();
  await clean(page, 'ranges');
  await page.goto('/upkeep');
  await expect(page.getByRole('region', { name: 'Ranges' })).toBeVisible();
  await clean(page, 'upkeep');
  await page.goto('/map');
  await expect(page.getByRole('main').getByRole('link', { name: 'Tugs' })).toBeVisible();
  await clean(page, 'map');
  await page.goto('/bindings');
  await page.getByLabel('Choose Visit of Berth visits').check({ force: true });
  await page.getByLabel('Bind them to a catalog').selectOption('Pilots');
  await expect(page.getByRole('region', { name: 'Impact' })).toContainText('would be outside');
  await clean(page, 'bindings');
  await page.goto('/linked');
  await expect(page.getByRole('row', { name: /Tariff documents/ })).toBeVisible();
  await clean(page, 'linked sources');
  await page.getByRole('link', { name: 'In and out' }).click();
  await page.getByRole('button', { name: 'New access token' }).click();
  await expect(page.getByRole('form', { name: 'New access token' })).toBeVisible();
  await clean(page, 'in and out');
  await page.getByRole('button', { name: 'Close', exact: true }).click();
  await page.getByRole('button', { name: 'Look at the template' }).click();
  await expect(page.getByRole('region', { name: 'Names that are taken' })).toBeVisible();
  await clean(page, 'a house archive');
  await page.goBack();
  const table = 'Item;Quay;Cause;Rubbish\nBollard;Heron Mole;Ice;x\nFender;Nowhere;Ice;y\n';
  await page.getByLabel('File', { exact: true }).setInputFiles({ name: 'damage.csv', mimeType: 'text/csv', buffer: Buffer.from(table) });
  await page.getByLabel('Sheet', { exact: true }).selectOption('Damage notes');
  await clean(page, 'columns of a file that came');
  await page.getByRole('button', { name: 'Compare', exact: true }).click();
  await expect(page.getByRole('region', { name: /would be refused$/ })).toBeVisible();
  await clean(page, 'a file that came');
  await toCatalog(page, 'Visit status');
  await page.getByRole('table').getByRole('button', { name: 'Shifted' }).click();
  await expect(page.getByRole('region', { name: 'Item Shifted' })).toBeVisible();
  await clean(page, 'item');
  await page.getByRole('button', { name: 'How it is composed', exact: true }).click();
  await expect(page.getByText('are offered')).toBeVisible();
  await clean(page, 'how a catalog is composed');
});

test('forms and figures', { tag: '@main' }, async ({ house }) => {
  test.setTimeout(240_000);
  const page = await open(house, '/forms');
  await expect(page.getByRole('link', { name: 'Fill Damage note' })).toBeVisible();
  await clean(page, 'forms');
  await page.getByRole('link', { name: 'Lay out Waste declaration' }).click();
  await page.getByRole('button', { name: 'Take Quay out' }).click();
  await expect(page.getByRole('region', { name: 'What wants mending' })).toBeVisible();
  await clean(page, 'form layout with faults');
  await page.goto('/forms');
  await page.getByRole('link', { name: 'Fill Damage note' }).click();
  await page.getByRole('button', { name: 'Send' }).click();
  await expect(page.getByText('answers are not taken yet')).toBeVisible();
  await clean(page, 'form with problems');
  await page.goto('/figures');
  await expect(page.getByRole('link', { name: /Waste by broker/ })).toBeVisible();
  await clean(page, 'figures');
  await page.getByRole('link', { name: /Waste by kind and month/ }).click();
  await expect(page.locator('.recharts-bar-rectangle').first()).toBeVisible();
  await clean(page, 'figure');
});

test('the sheet in work', async ({ house }) => {
  test.setTimeout(240_000);
  const page = await open(house, '/sheets');
  // Rows are alike: a small window with a few of them shows what there is to find.
  await page.setViewportSize({ width: 900, height: 440 });
  const grid = await toSheet(page, 'Berth visits');
  await clean(page, 'sheet');
  await grid
    .getByRole('columnheader', { name: /^Pilot/ })
    .getByRole('button')
    .click();
  await expect(page.getByText('holds', { exact: true })).toBeVisible();
  await clean(page, 'rule', '[role=grid]');
  await page.getByRole('complementary', { name: 'Panel' }).getByRole('button', { name: 'refused' }).click();
  await expect(page.getByRole('dialog')).toBeVisible();
  await clean(page, 'part of a rule', '[role=grid]');
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'Download', exact: true }).click();
  await expect(page.getByRole('region', { name: 'What is not done there' })).toBeVisible();
  await clean(page, 'download', '[role=grid]');
  await page.getByRole('button', { name: 'Why?' }).click();
  await expect(page.getByRole('region', { name: 'Why' })).toBeVisible();
  await clean(page, 'why', '[role=grid]');
  await grid
    .getByRole('columnheader', { name: /^Cargo/ })
    .getByRole('button')
    .click();
  await page.getByRole('button', { name: 'Make this column a list' }).click();
  await expect(page.getByRole('button', { name: 'Make the list' })).toBeVisible();
  await clean(page, 'make this column a list', '[role=grid]');
  await cellOf(grid, 1500, 'Departure').click();
  await page.keyboard.press('Alt+ArrowDown');
  await expect(page.getByRole('group', { name: 'Calendar of Departure' })).toBeVisible();
  await clean(page, 'calendar', restingRows);
  await page.keyboard.press('Escape');
  await page.keyboard.press('Escape');
  await cellOf(grid, 1500, 'Quay').click();
  await page.keyboard.type('lan');
  await expect(page.getByRole('listbox', { name: 'Quays' })).toBeVisible();
  await clean(page, 'picker', restingRows);
  await page.keyboard.type('zz');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('alert').first()).toBeVisible();
  await clean(page, 'refusal', restingRows);
});

test('the sheet in full', async ({ house }) => {
  test.setTimeout(240_000);
  const page = await open(house, '/requests');
  await expect(page.getByRole('region', { name: '“Fork lift” for Services' })).toBeVisible();
  await clean(page, 'requests');
  // Too low for its lines: what can only be read is scrolled by keys, too.
  await page.setViewportSize({ width: 1280, height: 250 });
  await page.goto('/ledger');
  await expect(page.getByRole('cell', { name: 'signed in from' })).toBeVisible();
  await clean(page, 'ledger');
  await page.setViewportSize({ width: 900, height: 440 });
  const grid = await toSheet(page, 'Berth visits');
  await page.getByRole('button', { name: 'Arrange' }).click();
  await page.getByLabel('Field to show by').selectOption({ label: 'Status' });
  await page.getByText(/^Alongside/).click();
  await page.getByLabel('Colour of whole entries').selectOption({ label: 'whole entries coloured by Status' });
  await page.getByLabel('Fields kept in view').selectOption('2');
  await expect(page.getByRole('button', { name: 'Refresh' })).toBeVisible();
  await expect(grid.locator('.tint-teal').first()).toBeVisible();
  await clean(page, 'arrangement');
  await page.getByRole('button', { name: 'As kept' }).click();
  await page.getByRole('button', { name: 'Find', exact: true }).click();
  await page.getByLabel('Find', { exact: true }).fill('ossel');
  await expect(page.getByText(/cells hold it/)).toBeVisible();
  await clean(page, 'find and replace', '[role=grid]');
  await cellOf(grid, 1500, 'Pilot').click();
  await page.keyboard.type('Nobody of them');
  await page.keyboard.press('Enter');
  await page.keyboard.press('Escape');
  await cellOf(grid, 1501, 'Pilot').click();
  await page.evaluate(() => navigator.clipboard.writeText('Nobody at all'));
  await page.keyboard.press('Control+v');
  await page.getByRole('button', { name: /refused, kept for you/ }).click();
  await expect(page.getByText('Refused, and kept for you')).toBeVisible();
  await clean(page, 'refused', '[role=grid]');
  await cellOf(grid, 1500, 'Services').click();
  await page.keyboard.type('wa');
  await expect(page.getByRole('option', { name: 'Waste' })).toBeVisible();
  await clean(page, 'several values', restingRows);
  await page.goto('/bindings');
  await page.getByRole('button', { name: 'History' }).click();
  await expect(page.getByText('No rule was set or cleared yet.')).toBeVisible();
  await clean(page, 'history of rules');
});
