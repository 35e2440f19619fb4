// Source sheets: independent lists, named ranges and the growth rail.
import type { Page } from '@playwright/test';
import { drawSlowly, expect, list, test, textsOf, toLists, typeUnder } from './house.js';

const marks = (page: Page, title: string) =>
  list(page, title)
    .locator('[data-rail]')
    .evaluateAll((rails) => rails.map((rail) => rail.getAttribute('data-rail')));

test('lists are independent; rows are moved by key and by button', async ({ house }) => {
  const page = await house.open('ines');
  await drawSlowly(page);
  await toLists(page);
  await list(page, 'Quays').getByRole('gridcell', { name: 'Heron Mole' }).click();
  await page.keyboard.press('Alt+Shift+ArrowUp');
  await expect.poll(() => textsOf(page, 'Quays')).toEqual(['Heron Mole', 'Lantern Basin', 'Salt Quay', 'Timber Pond']);
  // By the button, too, which keeps the focus while the row goes.
  const down = page.getByRole('button', { name: 'Move down' });
  await down.focus();
  for (let step = 0; step < 2; step++) await page.keyboard.press('Enter');
  await expect.poll(() => textsOf(page, 'Quays')).toEqual(['Lantern Basin', 'Salt Quay', 'Heron Mole', 'Timber Pond']);
  await expect(down).toBeFocused();
  await page.getByRole('button', { name: 'Move up' }).click();
  await expect.poll(() => textsOf(page, 'Quays')).toEqual(['Lantern Basin', 'Heron Mole', 'Salt Quay', 'Timber Pond']);
  // Moves as quick as keys come are all kept.
  await list(page, 'Quays').getByRole('gridcell', { name: 'Lantern Basin' }).click();
  for (let step = 0; step < 3; step++) await page.keyboard.press('Alt+Shift+ArrowDown');
  await expect.poll(() => textsOf(page, 'Quays')).toEqual(['Heron Mole', 'Salt Quay', 'Timber Pond', 'Lantern Basin']);
  await expect
    .poll(() => textsOf(page, 'Pilots'))
    .toEqual(['Tam Ossel', 'Bryn Calloway', 'Ilse Marchbank', 'Rook Tansy', 'Corin Vale', 'Wenna Hallet']);
  // One types the new name at once, however late the menu from which it was asked for is gone.
  await page.getByRole('button', { name: 'More for Quays' }).focus();
  await page.keyboard.press('Enter');
  await page.getByRole('menuitem', { name: 'Rename' }).click();
  await page.keyboard.type('Our quays', { delay: 90 });
  await page.keyboard.press('Enter');
  await expect.poll(() => textsOf(page, 'Our quays')).toHaveLength(4);
});

test('the rail shows what is taken, where it grows and what lies past a fixed end, with a cure', async ({ house }) => {
  const page = await house.open('ines');
  await toLists(page);
  await expect.poll(() => marks(page, 'Pilots')).toEqual(['taken', 'taken', 'taken', 'taken', 'taken', 'taken', 'grows']);
  await expect.poll(() => marks(page, 'Visit status')).toEqual(['taken', 'taken', 'taken', 'taken', 'missed', '']);
  await page
    .getByText('1 value stands past the end of Visit status and is not offered.')
    .locator('..')
    .getByRole('button', { name: 'Take it in' })
    .click();
  await expect(page.getByText('“Cancelled” is offered now in 1 field.')).toBeVisible();
  await expect.poll(() => marks(page, 'Visit status')).toEqual(['taken', 'taken', 'taken', 'taken', 'taken', '']);
  // Two ranges stacked in one list; the repeat is offered once and can be removed.
  await page.getByRole('button', { name: 'Remove the second' }).click();
  await expect.poll(() => textsOf(page, 'Services')).toEqual(['Water', 'Shore power', 'Waste', 'Lines', '', 'Crane 40 t', 'Crane 80 t']);
});

test('cells are selected and named; bad names are refused and kept', { tag: '@main' }, async ({ house }) => {
  const page = await house.open('ines');
  await toLists(page);
  await page.mouse.wheel(600, 0);
  const brokers = list(page, 'Ship brokers');
  await brokers.getByRole('gridcell', { name: 'Ashcombe & Lorne' }).click();
  await brokers.getByRole('gridcell', { name: 'Corrow Brothers' }).click({ modifiers: ['Shift'] });
  await page.getByRole('button', { name: 'Name another range here' }).click();
  await expect(page.getByText('Ship brokers, rows 1 to 3')).toBeVisible();
  const name = page.getByRole('textbox', { name: 'Name' });
  for (const [text, words] of [
    ['', 'Give the range a name'],
    [' PILOTS ', 'There is a range of this name already. It is written “Pilots”.'],
  ] as const) {
    await name.fill(text);
    await page.getByRole('button', { name: 'Name the range' }).click();
    await expect(page.getByRole('alert').filter({ hasText: words })).toBeVisible();
    await expect(name).toHaveValue(text);
  }
  await page.getByRole('radiogroup', { name: 'How the new range ends' }).getByText('Fixed').click();
  await name.fill('Brokers');
  await page.getByRole('button', { name: 'Name the range' }).click();
  await expect(page.getByRole('region', { name: 'Range Brokers' })).toContainText('3 values taken, left out: 3 past the end');
  // Both ranges over the list have a rail of their own.
  await expect
    .poll(() => marks(page, 'Ship brokers'))
    .toEqual(['taken taken', 'taken taken', 'taken taken', 'missed taken', 'missed taken', 'missed taken', 'grows']);

  // The end is changed by its card: what was past it is taken, and what is added grows it.
  await page.getByRole('radiogroup', { name: 'How Brokers ends' }).getByText('Grows to the last').click();
  await expect(page.getByRole('region', { name: 'Range Brokers' })).toContainText('6 values taken, none left out');
  await typeUnder(page, 'Ship brokers', 'Gantry & Sons');
  await expect(page.getByRole('region', { name: 'Range Brokers' })).toContainText('7 values taken');
});

test('what is in use is not deleted, and says by whom', async ({ house }) => {
  const page = await house.open('ines');
  await toLists(page);
  await page.getByRole('button', { name: 'More for Pilots' }).click();
  await page.getByRole('menuitem', { name: 'Delete the list' }).click();
  await expect(page.getByText('“Pilots” is used by range Pilots. Delete or clear that first.')).toBeVisible();
  await page.getByRole('button', { name: 'Delete the range' }).click();
  await expect(page.getByText('“Pilots” feeds catalog Pilots. Take it out there first.')).toBeVisible();
});

test('a text with a character that cannot be stored stays in the editor', async ({ house }) => {
  const page = await house.open('ines');
  await toLists(page);
  await list(page, 'Pilots').getByText('type to add').click();
  await page.keyboard.press('Enter');
  const editor = page.getByRole('textbox', { name: 'Pilots, row 7' });
  await editor.fill('Bad\u001Fname');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('alert')).toContainText('The text holds the character U+001F');
  await expect(editor).toHaveValue('Bad\u001Fname');
});
