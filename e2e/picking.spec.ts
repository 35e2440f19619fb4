// A clerk's day: picking, typing, being refused, pasting.
import { cellOf, expect, test, toSheet } from './house.js';

test('a clerk picks by part of a word, by arrows, and by Alt+Down', { tag: '@main' }, async ({ house }) => {
  const page = await house.open('mara');
  const grid = await toSheet(page, 'Berth visits');
  const pilot = (row: number) => cellOf(grid, row, 'Pilot');

  await pilot(1500).click();
  await page.keyboard.type('tans');
  await expect(page.getByRole('option', { name: 'Rook Tansy' })).toHaveAttribute('aria-selected', 'true');
  await page.keyboard.press('Enter');
  await expect(pilot(1500)).toHaveText('Rook Tansy');

  // Enter went down one row; the list opens by Alt+Down, arrows choose.
  await expect(pilot(1501)).toBeFocused();
  await page.keyboard.press('Alt+ArrowDown');
  await expect(page.getByRole('listbox', { name: 'Pilots' }).getByRole('option')).toHaveText([
    'Tam Ossel',
    'Bryn Calloway',
    'Ilse Marchbank',
    'Rook Tansy',
    'Corin Vale',
    'Wenna Hallet',
  ]);
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('Enter');
  await expect(pilot(1501)).toHaveText('Bryn Calloway');

  // A value picked by the pointer stays with its cell.
  await pilot(1502).dblclick();
  await page.keyboard.press('Alt+ArrowDown');
  await page.getByRole('option', { name: 'Corin Vale' }).click();
  await expect(pilot(1502)).toHaveText('Corin Vale');
  // A list that is asked for before it is there opens when it comes.
  let come: () => void = () => undefined;
  const coming = new Promise<void>((resolve) => (come = resolve));
  await page.route('**/items/packed*', async (route) => {
    await coming;
    await route.continue();
  });
  await page.reload();
  await expect(pilot(1500)).toHaveText('Rook Tansy');
  await pilot(1500).click();
  await page.keyboard.press('Alt+ArrowDown');
  await expect(page.getByRole('textbox', { name: /^Pilot, row/ })).toBeFocused();
  await expect(page.getByRole('listbox')).toBeHidden();
  come();
  await expect(page.getByRole('listbox', { name: 'Pilots' }).getByRole('option')).toHaveCount(6);
});

test('another spelling is taken and said; what is not in the catalog is refused and kept', async ({ house }) => {
  const page = await house.open('mara');
  const grid = await toSheet(page, 'Berth visits');
  await cellOf(grid, 1500, 'Quay').click();
  await page.keyboard.type(' lantern  BASIN ');
  await page.keyboard.press('Enter');
  await expect(cellOf(grid, 1500, 'Quay')).toHaveText('Lantern Basin');
  await expect(page.getByText('“ lantern BASIN ” was taken as Lantern Basin.')).toBeVisible();

  const quay = cellOf(grid, 1501, 'Quay');
  const before = await quay.textContent();
  await quay.click();
  await page.keyboard.type('Hreon Mole');
  await page.keyboard.press('Enter');
  const refusal = page.getByRole('alert');
  await expect(refusal).toContainText('“Hreon Mole” is not in Quays. Did you mean Heron Mole?');
  await expect(page.getByRole('textbox').or(page.getByRole('combobox', { name: 'Quay, row 1501' }))).toBeFocused();

  // Leaving by the pointer keeps what was typed, marked; a reload keeps it, too.
  await cellOf(grid, 1503, 'Vessel').click();
  await expect(quay).toContainText('Hreon Mole, refused');
  await page.reload();
  await expect(quay).toContainText('Hreon Mole, refused');

  // The suggestion is one key away.
  await quay.click();
  await page.keyboard.press('F2');
  await expect(refusal).toBeVisible();
  await page.keyboard.press('Enter');
  await expect(quay).toHaveText('Heron Mole');
  expect(before).toBeTruthy();
});

test('Escape leaves the cell as it was and says what was not stored', async ({ house }) => {
  const page = await house.open('mara');
  const grid = await toSheet(page, 'Berth visits');
  const visit = cellOf(grid, 1500, 'Visit');
  const before = (await visit.textContent())!;
  await visit.click();
  await page.keyboard.type('Wrong cell');
  await page.keyboard.press('Escape');
  await expect(visit).toHaveText(before);
  await expect(page.getByText('“Wrong cell” was not stored')).toBeVisible();
  await expect(visit).toBeFocused();
});

test('a long text has room, takes several lines, and keeps them', async ({ house }) => {
  const page = await house.open('mara');
  const grid = await toSheet(page, 'Berth visits');
  const remarks = cellOf(grid, 1500, 'Remarks');
  await remarks.click();
  await page.keyboard.type('Moored with two extra lines.');
  await page.keyboard.press('Alt+Enter');
  await page.keyboard.type('Ask the pilot.');
  const editor = page.getByRole('textbox', { name: 'Remarks, row 1500' });
  await expect(editor).toHaveValue('Moored with two extra lines.\nAsk the pilot.');
  const [room, cell] = [(await editor.boundingBox())!, (await remarks.boundingBox())!];
  expect(room.height).toBeGreaterThan(cell.height);
  expect(room.x + room.width).toBeLessThanOrEqual(1280);
  await page.keyboard.press('Enter');
  await expect(cellOf(grid, 1501, 'Remarks')).toBeFocused();
  await remarks.click();
  await page.keyboard.press('F2');
  await expect(editor).toHaveValue('Moored with two extra lines.\nAsk the pilot.');
  await page.keyboard.press('Control+End');
  await page.keyboard.type(' Tonight.');
  await page.keyboard.press('Tab');
  await expect(remarks).toHaveText('Moored with two extra lines. Ask the pilot. Tonight.', { useInnerText: true });
});

test('a block is copied and pasted; refused cells keep their text', { tag: '@main' }, async ({ house }) => {
  const page = await house.open('mara');
  const grid = await toSheet(page, 'Berth visits');
  await cellOf(grid, 1500, 'Quay').click();
  await page.keyboard.press('Shift+ArrowDown');
  await page.keyboard.press('Shift+ArrowRight');
  await expect(page.getByText('2 × 2 cells')).toBeVisible();
  const copied = await Promise.all([cellOf(grid, 1500, 'Quay'), cellOf(grid, 1501, 'Berth')].map((cell) => cell.textContent()));
  await page.keyboard.press('Control+c');
  await cellOf(grid, 1505, 'Quay').click();
  await page.keyboard.press('Control+v');
  await expect(page.getByText('4 cells were taken.')).toBeVisible();
  await expect(cellOf(grid, 1505, 'Quay')).toHaveText(copied[0]!);
  await expect(cellOf(grid, 1506, 'Berth')).toHaveText(copied[1]!);

  await page.evaluate(() => navigator.clipboard.writeText('SALT QUAY\tSalt 1\r\nNo such quay\tSalt 2'));
  await cellOf(grid, 1512, 'Quay').click();
  await page.keyboard.press('Control+v');
  await expect(page.getByText('2 cells were taken, 1 under another spelling, 2 refused and kept in their cells.')).toBeVisible();
  await expect(cellOf(grid, 1512, 'Quay')).toHaveText('Salt Quay');
  await expect(cellOf(grid, 1513, 'Quay')).toContainText('No such quay, refused');
  // Nothing is above the berth, so it waits for its quay; nothing typed is lost.
  await expect(cellOf(grid, 1513, 'Berth')).toContainText('Salt 2, refused: Quay is blank.');

  // A block that is cleared is one act.
  await cellOf(grid, 1505, 'Quay').click();
  await page.keyboard.press('Shift+ArrowDown');
  await page.keyboard.press('Delete');
  await expect(cellOf(grid, 1506, 'Quay')).toHaveText('');
});

test('keys move as the grid pattern says, and F6 leaves the grid', async ({ house }) => {
  const page = await house.open('sela');
  const grid = await toSheet(page, 'Berth visits');
  await cellOf(grid, 1500, 'Visit').click();
  await page.keyboard.press('End');
  await expect(cellOf(grid, 1500, 'Remarks')).toBeFocused();
  await page.keyboard.press('Tab');
  await expect(cellOf(grid, 1501, 'Visit')).toBeFocused();
  await page.keyboard.press('Control+Home');
  await expect(cellOf(grid, 1, 'Visit')).toBeFocused();
  await page.keyboard.press('PageDown');
  await page.keyboard.press('Control+End');
  await expect(cellOf(grid, 1512, 'Remarks')).toBeFocused();
  // A reader looks only: typing edits nothing.
  await page.keyboard.type('x');
  await expect(page.getByRole('textbox', { name: /row 1512/ })).toHaveCount(0);
  await page.keyboard.press('F6');
  await expect(grid.locator(':focus')).toHaveCount(0);
});

test('an entry is added under the last one, inserted and deleted', async ({ house }) => {
  const page = await house.open('mara');
  const grid = await toSheet(page, 'Berth visits');
  await grid.getByText('type to add').click();
  await page.keyboard.type('QV-9999');
  await page.keyboard.press('Enter');
  await expect(page.getByText('1,513 entries')).toBeVisible();
  await expect(cellOf(grid, 1513, 'Visit')).toHaveText('QV-9999');
  await cellOf(grid, 1513, 'Visit').click();
  await page.getByRole('button', { name: 'New entry above row 1513' }).click();
  await expect(cellOf(grid, 1514, 'Visit')).toHaveText('QV-9999');
  await cellOf(grid, 1514, 'Visit').click();
  await page.getByRole('button', { name: 'Delete row 1514' }).click();
  await page.getByRole('alertdialog').getByRole('button', { name: 'Delete the entry' }).click();
  await expect(page.getByText('1,513 entries')).toBeVisible();
  await expect(cellOf(grid, 1513, 'Visit')).toHaveText('');
});
