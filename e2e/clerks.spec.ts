// Two clerks in one entry, on two servers.
import { cellOf, craneHeadings, expect, test, toSheet, two } from './house.js';

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

test('the same cell: the second is told by whom, and chooses', { tag: '@main' }, async ({ house }) => {
  const mara = await house.open('mara');
  const olek = await house.open('olek', undefined, two());
  const [near, far] = [await toSheet(mara, 'Berth visits'), await toSheet(olek, 'Berth visits')];
  await cellOf(far, 1500, 'Pilot').click();
  await olek.keyboard.type('Corin Vale');
  await cellOf(near, 1500, 'Pilot').click();
  await mara.keyboard.type('Rook Tansy');
  // What is shown at once is stored a moment later.
  const stored = mara.waitForResponse((response) => response.request().method() === 'PATCH');
  await mara.keyboard.press('Enter');
  expect((await stored).ok()).toBe(true);
  await expect(cellOf(near, 1500, 'Pilot')).toContainText('Rook Tansy');
  // Olek's browser has heard of it: the cell beside shows what came after it.
  await cellOf(near, 1500, 'Remarks').click();
  await mara.keyboard.type('after it');
  await mara.keyboard.press('Enter');
  await expect(cellOf(far, 1500, 'Remarks')).toHaveText('after it');
  await olek.keyboard.press('Enter');
  const cell = cellOf(far, 1500, 'Pilot');
  await expect(cell).toContainText('Mara Fenn changed this Pilot a moment ago; it holds “Rook Tansy” now.');
  await expect(cell).toContainText('Corin Vale');
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

test('a menu that stands open acts on its own entry, also when somebody inserts one above meanwhile', async ({ house }) => {
  const mara = await house.open('mara');
  const olek = await house.open('olek', undefined, two());
  const [near, far] = [await toSheet(mara, 'Berth visits'), await toSheet(olek, 'Berth visits')];
  const [above, visit] = [(await cellOf(near, 1499, 'Visit').textContent())!, (await cellOf(near, 1500, 'Visit').textContent())!];
  await cellOf(near, 1500, 'Visit').click({ button: 'right' });
  await expect(mara.getByRole('menuitem', { name: /^Delete the entry/ })).toBeVisible();
  await cellOf(far, 1498, 'Visit').click();
  await olek.getByRole('button', { name: 'New entry above row 1498' }).click();
  await expect(cellOf(near, 1501, 'Visit')).toHaveText(visit);
  await mara.getByRole('menuitem', { name: /^Delete the entry/ }).click();
  await expect(mara.getByText('1 entry was deleted.', { exact: false })).toBeVisible();
  await expect(cellOf(near, 1500, 'Visit')).toHaveText(above);
  await expect(near.getByText(visit)).toBeHidden();
});

test('a field that is deleted, and one that comes before it, under somebody who types: the text goes where it belongs, or is told', async ({
  house,
}) => {
  const clerk = await house.open('olek', undefined, two());
  const grid = await toSheet(clerk, 'Crane hours');
  const designer = await house.open('ines');
  const designed = await toSheet(designer, 'Crane hours');
  const drop = async (heading: string) => {
    await designed
      .getByRole('columnheader', { name: new RegExp(`^${heading}`) })
      .getByRole('button')
      .click();
    await designer.getByRole('button', { name: 'Delete the field' }).click();
    await designer.getByRole('alertdialog').getByRole('button', { name: 'Delete the field' }).click();
    await expect(grid.getByRole('columnheader', { name: new RegExp(`^${heading}`) })).toHaveCount(0);
  };
  await cellOf(grid, 310, 'Hours', craneHeadings).click();
  await clerk.keyboard.type('7.');
  await drop('Day');
  await clerk.keyboard.type('25');
  await clerk.keyboard.press('Enter');
  const left = craneHeadings.slice(1);
  await expect(cellOf(grid, 310, 'Hours', left)).toHaveText('7.25');
  await cellOf(grid, 312, 'Hours', left).click();
  await clerk.keyboard.type('99');
  await drop('Hours');
  await expect(clerk.getByText('Hours is not there any more; “99” was not stored.')).toBeVisible();
  await clerk.keyboard.press('ArrowDown');
  await expect(grid.locator('[role=gridcell].active')).toBeFocused();
});
