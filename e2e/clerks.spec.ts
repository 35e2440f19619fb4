// Two clerks in one entry, on two servers.
import { cellOf, expect, test, toSheet, two } from './house.js';

test('different cells: both win, and each sees the other', async ({ house }) => {
  const mara = await house.open('mara');
  const olek = await house.open('olek', undefined, two());
  const [near, far] = [await toSheet(mara, 'Berth visits'), await toSheet(olek, 'Berth visits')];
  await cellOf(near, 1500, 'Remarks').click();
  await cellOf(far, 1500, 'Cargo').click();
  await mara.keyboard.type('Lantern 9');
  await olek.keyboard.type('Tide tables');
  await mara.keyboard.press('Enter');
  await olek.keyboard.press('Enter');
  for (const grid of [near, far]) {
    await expect(cellOf(grid, 1500, 'Remarks')).toHaveText('Lantern 9');
    await expect(cellOf(grid, 1500, 'Cargo')).toHaveText('Tide tables');
  }
});

test('the same cell: the second is told by whom, and chooses', async ({ house }) => {
  const mara = await house.open('mara');
  const olek = await house.open('olek', undefined, two());
  const [near, far] = [await toSheet(mara, 'Berth visits'), await toSheet(olek, 'Berth visits')];
  // Olek's browser hears nothing while he types, so that he works on what he saw.
  await olek.route('**/api/v1/registers/*/entries/*', async (route) => {
    const body = route.request().postDataJSON() as { version: number };
    await route.continue({ postData: JSON.stringify({ ...body, version: Math.min(body.version, 1) }) });
  });
  await cellOf(far, 1500, 'Pilot').click();
  await olek.keyboard.type('Corin Vale');
  await cellOf(near, 1500, 'Pilot').click();
  await mara.keyboard.type('Rook Tansy');
  // What is shown at once is stored a moment later.
  const stored = mara.waitForResponse((response) => response.request().method() === 'PATCH');
  await mara.keyboard.press('Enter');
  expect((await stored).ok()).toBe(true);
  await expect(cellOf(near, 1500, 'Pilot')).toContainText('Rook Tansy');
  await olek.keyboard.press('Enter');
  const cell = cellOf(far, 1500, 'Pilot');
  await expect(cell).toContainText('Mara Fenn changed this Pilot a moment ago; it holds “Rook Tansy” now.');
  await expect(cell).toContainText('Corin Vale');
  await olek.unroute('**/api/v1/registers/*/entries/*');
  await cell.click();
  await olek.keyboard.press('F2');
  await expect(olek.getByRole('button', { name: 'Keep “Rook Tansy”' })).toBeVisible();
  await olek.getByRole('button', { name: 'Take “Corin Vale”' }).click();
  await expect(cellOf(near, 1500, 'Pilot')).toContainText('Corin Vale');
  await expect(cell).toContainText('Corin Vale');
  await expect(cell).not.toContainText('changed this Pilot');
});

test('an entry that somebody inserts above moves nobody off the entry being typed in', async ({ house }) => {
  const mara = await house.open('mara');
  const olek = await house.open('olek', undefined, two());
  const [near, far] = [await toSheet(mara, 'Berth visits'), await toSheet(olek, 'Berth visits')];
  const visit = (await cellOf(near, 1500, 'Visit').textContent())!;
  await cellOf(near, 1500, 'Remarks').click();
  await mara.keyboard.type('Half a ber');
  await cellOf(far, 1498, 'Visit').click();
  await olek.getByRole('button', { name: 'New entry above row 1498' }).click();
  await expect(cellOf(near, 1501, 'Visit')).toHaveText(visit);
  await mara.keyboard.type('th');
  await mara.keyboard.press('Enter');
  await expect(cellOf(near, 1501, 'Remarks')).toHaveText('Half a berth');
  await expect(cellOf(far, 1501, 'Remarks')).toHaveText('Half a berth');
});
