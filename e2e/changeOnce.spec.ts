// Change a list in one place: every field offers it at once, and nothing is lost. Two browsers on two servers.
import { answerSlip, cellOf, expect, list, test, textsOf, toCatalog, toLists, toSheet, two, typeUnder, writeOver } from './house.js';
import { serve } from './servers.js';

test('a value typed under the range is offered in the open picker of another browser', { tag: '@main' }, async ({ house }) => {
  const clerk = await house.open('mara', undefined, two());
  const grid = await toSheet(clerk, 'Berth visits');
  await cellOf(grid, 1500, 'Pilot').click();
  await clerk.keyboard.press('Alt+ArrowDown');
  await expect(clerk.getByRole('option')).toHaveCount(6);

  const ines = await house.open('ines');
  await toLists(ines);
  await typeUnder(ines, 'Pilots', 'Nell Farrow');
  // The notice goes by itself; it is looked for while it is there.
  await expect(ines.getByText('“Nell Farrow” is offered now in 2 fields.')).toBeVisible();
  await expect(clerk.getByRole('option', { name: 'Nell Farrow' })).toBeVisible();
  await clerk.keyboard.type('nell');
  await clerk.keyboard.press('Enter');
  await expect(cellOf(grid, 1500, 'Pilot')).toHaveText('Nell Farrow');
});

test('a corrected value: asked once, then every reader sees it at once and entries follow', { tag: '@main' }, async ({ house }) => {
  const clerk = await house.open('mara', undefined, two());
  const grid = await toSheet(clerk, 'Berth visits');
  const ines = await house.open('ines');
  await toLists(ines);
  await writeOver(ines, 'Pilots', 'Ilse Marchbank', 'Ilsa Marchbank');
  const slip = ines.getByRole('region', { name: 'Impact' });
  await expect(slip.getByRole('heading')).toHaveText('Ilse Marchbank becomes Ilsa Marchbank');
  await expect(list(ines, 'Pilots').getByRole('gridcell', { name: /waits for an answer/ })).toBeVisible();
  // Nothing is live until it is answered.
  await expect(grid.getByText('Ilse Marchbank', { exact: true }).first()).toBeVisible();
  await answerSlip(ines, 'Corrected');
  await expect(grid.getByText('Ilsa Marchbank', { exact: true }).first()).toBeVisible();
  await expect(grid.getByText('Ilse Marchbank', { exact: true })).toHaveCount(0);
  await toCatalog(ines, 'Pilots');
  await expect(ines.getByRole('row', { name: /Ilsa Marchbank/ })).toContainText('Ilse Marchbank');
  // The old spelling is understood from now on.
  await cellOf(grid, 1500, 'Pilot').click();
  await clerk.keyboard.type('ilse marchbank');
  await clerk.keyboard.press('Enter');
  await expect(cellOf(grid, 1500, 'Pilot')).toHaveText('Ilsa Marchbank');
});

test('an entry that is a value elsewhere asks its question where it was typed over', async ({ house }) => {
  const clerk = await house.open('mara', undefined, two());
  const visits = await toSheet(clerk, 'Berth visits');
  const ines = await house.open('ines');
  const vessels = await toSheet(ines, 'Vessels');
  await ines.keyboard.press('Control+Home');
  const sign = vessels.locator('[data-row="0"][data-column="0"]');
  const before = (await sign.textContent())!;
  await ines.keyboard.type('ZZ 900');
  await ines.keyboard.press('Enter');
  const slip = ines.getByRole('region', { name: 'Impact' });
  await expect(slip.getByRole('heading')).toHaveText(`${before} becomes ZZ 900`);
  await expect(slip).toContainText('entries hold it');
  // Answered, the cell holds it, and entries of other sheets follow; nothing is kept as refused.
  await answerSlip(ines, 'Corrected');
  await expect(sign).toHaveText('ZZ 900');
  await expect(ines.getByText(/refused, kept for you/)).toHaveCount(0);
  await expect(visits.getByText('Marrowind', { exact: true }).first()).toBeVisible();
  await expect(clerk.getByText('27 outside')).toBeVisible();
});

test('a removed value, gone: its entries are outside everywhere, counted and listed', { tag: '@main' }, async ({ house }) => {
  const reader = await house.open('sela', undefined, two());
  const grid = await toSheet(reader, 'Berth visits');
  const ines = await house.open('ines');
  await toLists(ines);
  await list(ines, 'Pilots').getByRole('gridcell', { name: 'Corin Vale' }).click();
  await ines.getByRole('button', { name: 'Delete', exact: true }).click();
  const slip = ines.getByRole('region', { name: 'Impact' });
  await expect(slip.getByRole('heading')).toHaveText('Corin Vale is taken out');
  const entries = Number(await slip.getByText(/^\d+$/).first().textContent());
  expect(entries).toBeGreaterThan(0);
  await answerSlip(ines, 'Gone');
  const strip = ines.getByRole('list', { name: 'Lineage' });
  await expect(strip).toContainText('5 offered');
  await reader.getByRole('button', { name: /^Pilot: \d+/ }).click();
  await expect(grid.getByText('Corin Vale').first()).toBeVisible();
  await expect(grid.getByRole('gridcell', { name: /Corin Vale ?, outside/ }).first()).toBeVisible();
  await expect(strip).toContainText(`${entries + 10} outside`);

  // Typed again under the range it is offered, and its entries come inside.
  await typeUnder(ines, 'Pilots', 'Corin Vale');
  await expect(strip).toContainText('6 offered');
  await expect(grid.getByRole('gridcell', { name: /Corin Vale ?, outside/ })).toHaveCount(0);
});

test('a removed value, retired: entries stay right and nobody can choose it', async ({ house }) => {
  const ines = await house.open('ines');
  await toLists(ines);
  await list(ines, 'Pilots').getByRole('gridcell', { name: 'Rook Tansy' }).click();
  await ines.getByRole('button', { name: 'Delete', exact: true }).click();
  await answerSlip(ines, 'Retired');
  await expect(ines.getByRole('list', { name: 'Lineage' })).toContainText('5 offered, 2 retired');
  const clerk = await house.open('olek', undefined, two());
  const grid = await toSheet(clerk, 'Berth visits');
  await cellOf(grid, 1500, 'Pilot').click();
  await clerk.keyboard.type('Rook Tansy');
  await clerk.keyboard.press('Enter');
  await expect(clerk.getByRole('alert')).toContainText('Rook Tansy is retired in Pilots');
});

test('a berth that becomes shorter says how many ships no longer fit, before and after', async ({ house }) => {
  const page = await house.open('ines', '/sources');
  await page.getByRole('link', { name: /^Berth details/ }).click();
  const length = page.getByRole('grid', { name: 'Berth details' }).locator('[data-row="2"][data-column="1"]');
  await expect(length).toHaveText('80');
  await length.click();
  await page.keyboard.type('60');
  await page.keyboard.press('Enter');
  const slip = page.getByRole('region', { name: 'Impact' });
  await expect(slip).toContainText(/[0-9]+ entries would be outside in Berth of Berth visits/);
  const told = /([0-9]+) entries would be/.exec(await slip.innerText())![1]!;
  await slip.getByRole('button', { name: `Change it, and mark ${told} entries` }).click();
  await expect(slip).toBeHidden();
  await page.goto('/upkeep');
  await expect(page.getByRole('main')).toContainText(new RegExp(`Berth[^0-9]*${told}`));
});

test('a change can be left as it was', async ({ house }) => {
  const ines = await house.open('ines');
  await toLists(ines);
  await writeOver(ines, 'Quays', 'Salt Quay', 'Pepper Quay');
  await ines.getByRole('button', { name: 'Cancel' }).click();
  await expect(ines.getByRole('region', { name: 'Impact' })).toBeHidden();
  expect(await textsOf(ines, 'Quays')).toEqual(['Lantern Basin', 'Heron Mole', 'Salt Quay', 'Timber Pond']);
});

test('insert, sort and delete above and inside the range while two browsers on two servers watch, one reconnecting', async ({ house }) => {
  const near = await house.open('mara');
  // The far browser's server will be killed and come back at the same address.
  let server = await serve(process.env['DELLUM_DATABASE']!);
  const far = await house.open('olek', undefined, server.base);
  const pages = [near, far];
  for (const page of pages) {
    const grid = await toSheet(page, 'Berth visits');
    await cellOf(grid, 1500, 'Pilot').click();
    await page.keyboard.press('Alt+ArrowDown');
    await expect(page.getByRole('option')).toHaveCount(6);
  }
  const ines = await house.open('ines');
  await toLists(ines);
  const pilots = list(ines, 'Pilots');
  const bothSee = async (values: string[]) => {
    for (const page of pages) await expect(page.getByRole('option')).toHaveText(values);
  };
  // Above: the first row is inserted under the heading and counts.
  await pilots.getByRole('gridcell', { name: 'Tam Ossel' }).click();
  await ines.getByRole('button', { name: 'Insert above' }).click();
  await expect.poll(() => textsOf(ines, 'Pilots')).toHaveLength(7);
  await pilots.locator('[data-row="0"][data-column="0"]').click();
  await ines.keyboard.type('Ada Brisk');
  await ines.keyboard.press('Enter');
  await bothSee(['Ada Brisk', 'Tam Ossel', 'Bryn Calloway', 'Ilse Marchbank', 'Rook Tansy', 'Corin Vale', 'Wenna Hallet']);

  // One browser loses its connection; meanwhile the list is sorted and one value goes.
  await server.stop('SIGKILL');
  await expect(far.getByText('not live')).toBeVisible();
  await ines.getByRole('button', { name: 'More for Pilots' }).click();
  await ines.getByRole('menuitem', { name: 'Sort A to Z' }).click();
  await expect
    .poll(() => textsOf(ines, 'Pilots'))
    .toEqual(['Ada Brisk', 'Bryn Calloway', 'Corin Vale', 'Ilse Marchbank', 'Rook Tansy', 'Tam Ossel', 'Wenna Hallet']);
  await pilots.getByRole('gridcell', { name: 'Wenna Hallet' }).click();
  await ines.getByRole('button', { name: 'Delete', exact: true }).click();
  await expect(near.getByRole('option')).toHaveText([
    'Ada Brisk',
    'Bryn Calloway',
    'Corin Vale',
    'Ilse Marchbank',
    'Rook Tansy',
    'Tam Ossel',
  ]);
  server = await serve(process.env['DELLUM_DATABASE']!, { given: server.base });
  await expect(far.getByText('live', { exact: true })).toBeVisible();
  await bothSee(['Ada Brisk', 'Bryn Calloway', 'Corin Vale', 'Ilse Marchbank', 'Rook Tansy', 'Tam Ossel']);

  await server.stop();

  // The neighbours were not disturbed.
  expect(await textsOf(ines, 'Quays')).toEqual(['Lantern Basin', 'Heron Mole', 'Salt Quay', 'Timber Pond']);
});
