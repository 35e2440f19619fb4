// Records: looked for, opened, changed with their links and history; two people in one record.
import { cellOf, expect, test, toSheet, two, type House } from './house.js';
import type { Page } from '@playwright/test';

const fields = (page: Page) => page.getByRole('group', { name: 'Fields' });
const value = (page: Page, heading: string) => fields(page).getByRole('group', { name: heading, exact: true }).getByRole('button');

/** The record of a vessel, found by its name. */
async function openVessel(house: House, who: 'mara' | 'olek' | 'sela', name: string, server?: string): Promise<Page> {
  const page = await house.open(who, '/records', server);
  await page
    .getByRole('main')
    .getByRole('link', { name: /^Vessels/ })
    .click();
  await page.getByLabel('Look for records').fill(name);
  await expect(page.getByText('1 record found.')).toBeVisible();
  await page.getByRole('table', { name: 'Records of Vessels' }).getByRole('link').click();
  await expect(page.getByRole('heading', { level: 1 })).toContainText(name);
  return page;
}

test(
  'a record is found by words and values, changed by keys alone, and a change of it taken back from its history',
  { tag: '@main' },
  async ({ house }) => {
    const page = await openVessel(house, 'mara', 'Sallow Kestrel');
    await value(page, 'Broker').click();
    await expect(page.getByRole('listbox', { name: 'Ship brokers' })).toBeVisible();
    await page.keyboard.type('fath');
    await page.keyboard.press('Enter');
    await expect(value(page, 'Broker')).toHaveText('Fathom & Daughters');
    const history = page.getByRole('region', { name: 'History of the record' });
    await expect(history).toContainText('Mara Fenn');
    await expect(history).toContainText('→ “Fathom & Daughters”');

    // Tab goes from field to field; what is refused stays, with its reason.
    await value(page, 'Flag').click();
    await page.keyboard.type('no such land');
    await page.keyboard.press('Enter');
    await expect(page.getByRole('alert')).toContainText('“no such land”');
    await page.keyboard.press('Escape');
    await value(page, 'Flag').click();
    await page.keyboard.press('Tab');
    await expect(page.getByRole('textbox', { name: 'Length, m' })).toBeFocused();
    await page.keyboard.press('Control+a');
    await page.keyboard.type('77,5');
    await page.keyboard.press('Tab');
    await expect(page.getByText('“77,5” is not a number. Write it like 12.5.').first()).toBeVisible();
    await page.keyboard.press('Control+a');
    await page.keyboard.type('77.5');
    await page.keyboard.press('Tab');
    await expect(page.getByRole('combobox', { name: 'Broker' })).toBeFocused();
    await page.keyboard.press('Escape');
    await page.keyboard.press('Escape');
    await expect(value(page, 'Length, m')).toHaveText('77.5');

    await page.getByRole('button', { name: 'All fields' }).click();
    await history.getByText('Length, m: “65” → “77.5”').locator('xpath=..').getByRole('button', { name: 'Take it back' }).click();
    await expect(page.getByText(/Length, m is “65” again/)).toBeVisible();
    await expect(value(page, 'Length, m')).toHaveText('65');

    // Back at the search, it stands as it was; narrowed by a value, only such records are left.
    await page.getByRole('link', { name: 'Vessels', exact: true }).click();
    await expect(page.getByLabel('Look for records')).toHaveValue('Sallow Kestrel');
    await page.getByLabel('Look for records').fill('');
    await expect(page.getByText('240 records.')).toBeVisible();
    await page.getByRole('combobox', { name: 'Broker' }).selectOption('Corrow Brothers');
    await expect(page.getByText(/\d+ records found/)).toBeVisible();
    const shown = page.getByRole('table', { name: 'Records of Vessels' }).locator('tbody tr');
    await expect(shown.filter({ hasNotText: 'Corrow Brothers' })).toHaveCount(0);
    await page.getByLabel('Order').selectOption({ label: 'by Length, m, the greatest first' });
    await expect
      .poll(async () =>
        (await shown.evaluateAll((rows) => rows.map((row) => Number(row.children[5]!.textContent)))).every(
          (length, at, all) => at === 0 || length <= all[at - 1]!,
        ),
      )
      .toBe(true);
  },
);

test('records link both ways; one like another is made, deleted, and brought back; on paper there is the record alone', async ({
  house,
}) => {
  const page = await openVessel(house, 'mara', 'Sallow Kestrel');
  // Its fields stand in groups.
  await expect(page.getByRole('region', { name: 'Ashore' }).getByRole('group', { name: 'Broker' })).toBeVisible();
  await expect(page.getByRole('region', { name: 'Ship' }).getByRole('group')).toHaveCount(3);
  const crew = page.getByRole('region', { name: 'Crew contacts that name it in Vessel' });
  const contact = crew.getByRole('link').first();
  const name = (await contact.textContent())!;
  await contact.click();
  await expect(page.getByRole('heading', { level: 1 })).toContainText(name.split(' · ')[0]!);
  await expect(value(page, 'Vessel')).toHaveText('Sallow Kestrel');
  await page.emulateMedia({ media: 'print' });
  await expect(page.getByRole('navigation')).toBeHidden();
  await expect(page.getByRole('region', { name: 'History of the record' })).toBeHidden();
  await expect(value(page, 'Vessel')).toBeVisible();
  await page.emulateMedia({ media: 'screen' });
  await page.getByRole('link', { name: 'Open Sallow Kestrel' }).click();
  await expect(crew).toBeVisible();
  await contact.click();
  // The record of the contact is there, and no longer that of the vessel, which has the same buttons.
  await expect(value(page, 'Vessel')).toHaveText('Sallow Kestrel');

  // What is said of the new record never stands over the buttons of the one it was made of, however late it comes.
  let sent = () => {};
  const late = new Promise<void>((done) => (sent = done));
  await page.route('**/registers/*/records/*', async (route) => {
    await late;
    await route.continue();
  });
  await page.getByRole('button', { name: 'Another like it' }).click();
  await expect(page.getByText(/This is another record like/)).toBeVisible();
  await expect(page.getByRole('button', { name: 'Delete the record' })).toHaveCount(0);
  sent();
  await expect(value(page, 'Vessel')).toHaveText('Sallow Kestrel');
  await page.getByRole('button', { name: 'Delete the record' }).click();
  await page.getByRole('alertdialog').getByRole('button', { name: 'Delete the record' }).click();
  await expect(page.getByRole('heading', { level: 1, name: 'Crew contacts' })).toBeVisible();
  const total = async () => Number(/(\d+) records/.exec((await page.getByText(/\d+ records\./).textContent())!)![1]);
  const before = await total();
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect.poll(total).toBe(before + 1);
});

test('chosen records come on paper with all their fields', async ({ house }) => {
  const page = await house.open('sela', '/records');
  await page
    .getByRole('main')
    .getByRole('link', { name: /^Crew contacts/ })
    .click();
  const boxes = page.getByRole('table').getByRole('checkbox');
  await boxes.nth(0).check({ force: true });
  await boxes.nth(2).check({ force: true });
  await page.getByRole('button', { name: 'Print 2 chosen' }).click();
  const paper = page.getByRole('region', { name: 'On paper' });
  await expect(paper.locator('section')).toHaveCount(2);
  await expect(paper.locator('section').first()).toContainText('Launch fee');
  await page.emulateMedia({ media: 'print' });
  await expect(paper.getByRole('button', { name: 'Print these 2' })).toBeHidden();
  await expect(page.getByRole('navigation')).toBeHidden();
  await expect(paper.locator('section').last()).toBeVisible();
  await page.emulateMedia({ media: 'screen' });
  await page.getByRole('button', { name: 'Back to the list' }).click();
  await expect(page.getByRole('table')).toBeVisible();
});

test('two people in one record: each sees the other, different fields both win, the same field is told and chosen', async ({ house }) => {
  const mara = await openVessel(house, 'mara', 'Old Tern');
  const olek = await openVessel(house, 'olek', 'Old Tern', two());
  await value(olek, 'Class').click();
  await expect(fields(mara).getByRole('group', { name: 'Class' })).toContainText('OD is here');
  await olek.keyboard.press('Control+a');
  await olek.keyboard.type('tug');
  await olek.keyboard.press('Enter');
  await expect(value(mara, 'Class')).toHaveText('tug');

  // Mara types on what she saw: her edit names the version that the record had then.
  await mara.route('**/api/v1/registers/*/entries/*', async (route) => {
    const body = route.request().postDataJSON() as { version: number };
    await route.continue({ postData: JSON.stringify({ ...body, version: 1 }) });
  });
  await value(mara, 'Name').click();
  await mara.keyboard.press('Control+a');
  await mara.keyboard.type('Oldest Tern');
  await value(olek, 'Name').click();
  await olek.keyboard.press('Control+a');
  await olek.keyboard.type('Older Tern');
  const stored = olek.waitForResponse((response) => response.request().method() === 'PATCH');
  await olek.keyboard.press('Enter');
  expect((await stored).ok()).toBe(true);
  await mara.keyboard.press('Enter');
  await expect(fields(mara).getByRole('group', { name: 'Name', exact: true })).toContainText(
    'Olek Dray changed this Name a moment ago; it holds “Older Tern” now.',
  );
  await mara.unroute('**/api/v1/registers/*/entries/*');
  await mara.keyboard.press('Escape');
  await value(mara, 'Name').click();
  await mara.getByRole('button', { name: 'Take “Oldest Tern”' }).click();
  await expect(value(olek, 'Name')).toHaveText('Oldest Tern');
  // The sheet shows the same entry, changed.
  const reader = await house.open('sela', undefined, two());
  const grid = await toSheet(reader, 'Vessels');
  await grid.getByRole('gridcell').first().click();
  await reader.keyboard.press('Control+Home');
  await expect(cellOf(grid, 3, 'Name', ['Call sign', 'Name', 'Class', 'Flag', 'Length, m', 'Broker'])).toHaveText('Oldest Tern');
});

test('a sheet is made of a pasted table: kinds and lists are proposed, mended, and its rows are there', async ({ house }) => {
  const page = await house.open('ines', '/sheets');
  const from = page.getByRole('region', { name: 'From a table' });
  await page.evaluate(() =>
    navigator.clipboard.writeText(
      'Ship\tPilot\tDue\tNote\r\nTern\ttam ossel\t24.11.2026\tfirst\r\nGull\tRook Tansy\t25.11.2026\t\r\nWren\tNobody\tsoon\t',
    ),
  );
  await from.getByLabel('Headings and rows').click();
  await page.keyboard.press('Control+v');
  await expect(from).toContainText('4 fields, 3 rows.');
  await expect(from.getByLabel('List of field 2').locator('option:checked')).toHaveText('takes values from Pilots');
  await expect(from.getByLabel('Kind of field 3')).toHaveValue('text');
  await from.getByLabel('Kind of field 3').selectOption('date');
  await from.getByLabel('Heading of field 4').fill('Remark');
  await from.getByRole('button', { name: 'Create the sheet' }).click();
  await expect(from).toContainText('Give it a title');
  await from.getByLabel('Title of the sheet').fill('Arrivals');
  await from.getByRole('button', { name: 'Create the sheet' }).click();
  await expect(page.getByText('Arrivals is made, with 3 rows.')).toBeVisible();
  const grid = page.getByRole('grid', { name: 'Arrivals' });
  const headings = ['Ship', 'Pilot', 'Due', 'Remark'];
  await expect(cellOf(grid, 1, 'Pilot', headings)).toHaveText('Tam Ossel');
  await expect(cellOf(grid, 2, 'Due', headings)).toHaveText('25.11.2026');
  // What a field does not read, and what its catalog does not have, stays as it was written, and is seen.
  await expect(cellOf(grid, 3, 'Due', headings)).toContainText('soon');
  await expect(page.getByRole('button', { name: 'Pilot: 1' })).toBeVisible();
  await expect(page.getByRole('button', { name: 'Due: 1' })).toBeVisible();
});

test('another one like a record has all that the record has: rates, days and what comes from lists mean what they meant', async ({
  house,
}) => {
  const page = await house.open('mara', '/records');
  await page
    .getByRole('main')
    .getByRole('link', { name: /^Berth visits/ })
    .click();
  await page.getByLabel('Look for records').fill('QV-0616');
  await expect(page.getByText('1 record found.')).toBeVisible();
  await page.getByRole('table', { name: 'Records of Berth visits' }).getByRole('link').click();
  await expect(page.getByRole('heading', { level: 1 })).toContainText('QV-0616');
  const all = async () => Promise.all((await fields(page).getByRole('group').all()).map(async (group) => (await group.innerText()).trim()));
  await expect(value(page, 'Dues rate')).toHaveText(/\d %/);
  const before = await all();
  const address = page.url();
  await page.getByRole('button', { name: 'Another like it' }).click();
  await expect(page.getByText(/This is another record like/)).toBeVisible();
  expect(page.url()).not.toBe(address);
  await expect(value(page, 'Dues rate')).toHaveText(/\d %/);
  expect(await all()).toEqual(before);
});

test('what was pasted into a row is told field by field in its record, and one field is taken back without the other', async ({
  house,
}) => {
  const page = await house.open('mara');
  const grid = await toSheet(page, 'Berth visits');
  const visit = await cellOf(grid, 1500, 'Visit').textContent();
  await cellOf(grid, 1500, 'Status').click();
  await page.evaluate(() => navigator.clipboard.writeText('Shifted\tTam Ossel'));
  await page.keyboard.press('Control+v');
  await expect(cellOf(grid, 1500, 'Pilot')).toHaveText('Tam Ossel');
  await page.getByRole('link', { name: 'Records', exact: true }).click();
  await page
    .getByRole('main')
    .getByRole('link', { name: /^Berth visits/ })
    .click();
  await page.getByLabel('Look for records').fill(visit!);
  await page.getByRole('table', { name: 'Records of Berth visits' }).getByRole('link', { name: visit!, exact: true }).click();
  const history = page.getByRole('region', { name: 'History of the record' });
  const takeBack = (change: RegExp) => history.getByText(change).locator('xpath=..').getByRole('button', { name: 'Take it back' });
  await expect(takeBack(/^Status: .* → “Shifted”$/)).toBeVisible();
  await takeBack(/^Pilot: .* → “Tam Ossel”$/).click();
  await expect(page.getByText(/^Pilot is .* again\.$/)).toBeVisible();
  await expect(value(page, 'Pilot')).not.toHaveText('Tam Ossel');
  await expect(value(page, 'Status')).toHaveText('Shifted');
  await page.reload();
  await expect(takeBack(/^Status: .* → “Shifted”$/)).toBeVisible();
  await expect(history.getByText(/^Pilot: “Tam Ossel” → /)).toBeVisible();
});
