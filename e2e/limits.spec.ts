// Sheets for some: groups are made, a sheet is shown to them alone, and whoever it goes away from loses nothing that was typed.
import { cellOf, expect, test, toSheet } from './house.js';

test('a sheet is shown to a group that looks, and is not there for others; what was typed in it is told', async ({ house }) => {
  const ines = await house.open('ines', '/people');
  const groups = ines.getByRole('region', { name: 'Groups' });
  await groups.getByRole('button', { name: 'New group' }).click();
  await ines.getByRole('button', { name: 'Make the group' }).click();
  await expect(ines.getByRole('alert')).toContainText('Give the group a name');
  await ines.getByLabel('Name of the group').fill('Front desk');
  await ines.getByText('Mara Fenn, clerk').click();
  await ines.getByRole('button', { name: 'Make the group' }).click();
  await expect(groups.getByText('Front desk: Mara Fenn')).toBeVisible();

  // What is opened takes the place of what stands open.
  await ines.getByRole('button', { name: 'Reset password of Olek Dray' }).click();
  await groups.getByRole('button', { name: 'Change the group Front desk' }).click();
  await expect(ines.getByRole('checkbox', { name: 'Mara Fenn, clerk' })).toBeChecked();

  const [mara, olek] = [await house.open('mara'), await house.open('olek')];
  const [looked, gone] = [await toSheet(mara, 'Berth visits'), await toSheet(olek, 'Berth visits')];
  // Both are in the middle of a word.
  const remark = (grid: typeof looked) => cellOf(grid, 1500, 'Remarks');
  for (const [grid, page] of [
    [looked, mara],
    [gone, olek],
  ] as const) {
    await remark(grid).click();
    await page.keyboard.type('half a word');
  }

  await toSheet(ines, 'Berth visits');
  await ines.getByRole('button', { name: 'More for Berth visits' }).click();
  await ines.getByRole('menuitem', { name: 'Who sees it' }).click();
  const dialog = ines.getByRole('dialog', { name: 'Who sees Berth visits' });
  await dialog.getByText('some groups only').click();
  await dialog.getByLabel('What Front desk may do').selectOption('looks at it');
  await dialog.getByRole('button', { name: 'Save' }).click();
  await expect(ines.getByText('Only Front desk, administrators see this sheet.').first()).toBeVisible();

  await expect(olek.getByText('This sheet is not there')).toBeVisible();
  await expect(olek.getByText(/half a word/)).toBeVisible();
  await olek.goto('/');
  await expect(olek.getByRole('main').getByRole('link', { name: 'Crane hours' })).toBeVisible();
  await expect(olek.getByRole('main').getByRole('link', { name: 'Berth visits' })).toHaveCount(0);

  await expect(mara.getByText('You may look at it; others enter data.')).toBeVisible();
  await mara.keyboard.press('Enter');
  await expect(mara.getByText('half a word').first()).toBeVisible();
  await expect(mara.getByRole('button', { name: /New entry/ })).toHaveCount(0);
  // What was typed is kept, with why it is not stored, also through a reload; and can be let go of.
  await mara.reload();
  await expect(remark(looked)).toContainText('half a word, refused: You may look at Berth visits');
  await mara.getByRole('button', { name: /refused/ }).click();
  await mara.getByRole('button', { name: 'Discard' }).first().click();
  await expect(remark(looked)).not.toContainText('half a word');
});
