// Sheets for some: groups are made, a sheet is shown to them alone, and whoever it goes away from loses nothing that was typed.
import { cellOf, expect, test, toSheet } from './house.js';

test(
  'a sheet is shown to a group that looks, and is not there for others; what was typed in it is told',
  { tag: '@main' },
  async ({ house }) => {
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

    // And somebody types in one of its records.
    const other = await house.open('olek', '/records');
    await other
      .getByRole('main')
      .getByRole('link', { name: /^Berth visits/ })
      .click();
    await other.getByRole('table', { name: 'Records of Berth visits' }).getByRole('link').first().click();
    await other.getByRole('button', { name: /^Remarks: / }).click();
    await other.keyboard.type('also half');

    await toSheet(ines, 'Berth visits');
    await ines.getByRole('button', { name: 'More for Berth visits' }).click();
    await ines.getByRole('menuitem', { name: 'Who sees it' }).click();
    const dialog = ines.getByRole('dialog', { name: 'Who sees Berth visits' });
    await dialog.getByText('some groups only').click();
    await dialog.getByLabel('What Front desk may do').selectOption('looks at it');
    await dialog.getByRole('button', { name: 'Save' }).click();
    await expect(ines.getByText('Only Front desk, administrators see this sheet.').first()).toBeVisible();

    await expect(olek.getByText('This sheet is not there')).toBeVisible();
    await expect(other.getByText('This sheet is not there any more')).toBeVisible();
    await expect(other.getByText(/Berth visits is not there any more; .*“also half”/)).toBeVisible();
    await expect(olek.getByText('Berth visits is not there any more; “half a word” was not stored.')).toBeVisible();
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
  },
);

test('entries are closed by what they hold; whoever has closed one by a slip takes it back, and nobody else changes it', async ({
  house,
}) => {
  const ines = await house.open('ines');
  await toSheet(ines, 'Berth visits');
  await ines.getByRole('button', { name: 'More for Berth visits' }).click();
  await ines.getByRole('menuitem', { name: 'When entries are closed' }).click();
  const dialog = ines.getByRole('dialog', { name: 'When entries of Berth visits are closed' });
  await dialog.getByRole('button', { name: 'Only those where' }).click();
  await expect(dialog.getByLabel('Field of condition 1')).toBeFocused();
  await dialog.getByLabel('Field of condition 1').selectOption('Status');
  await dialog.getByLabel('Value of condition 1').fill('Departed');
  await dialog.getByLabel('The day from which is counted').selectOption('Arrival');
  await dialog.getByLabel('Days after it').fill('many');
  await expect(dialog.getByRole('alert')).toContainText('Type a whole number of days');
  await dialog.getByLabel('Days after it').fill('400');
  await expect(dialog.getByRole('status')).toContainText(/[\d,]+ of 1,512 entries would be closed today/);
  await dialog.getByLabel('The day from which is counted').selectOption('no day');
  await dialog.getByRole('button', { name: 'Save' }).click();
  await expect(ines.getByText('An entry is closed where Status is “Departed”.').first()).toBeVisible();

  // Mara departs a visit by a slip of the hand, sees the lock, and takes it back; Olek cannot change it meanwhile.
  const [mara, olek] = [await house.open('mara'), await house.open('olek')];
  const [near, far] = [await toSheet(mara, 'Berth visits'), await toSheet(olek, 'Berth visits')];
  const head = (grid: typeof near) => grid.getByRole('rowheader', { name: /^1500/ });
  const visit = (grid: typeof near) => grid.locator('[data-row="1499"][data-column="0"]');
  await cellOf(near, 1500, 'Status').click();
  await mara.keyboard.type('Departed');
  await mara.keyboard.press('Enter');
  await expect(head(far)).toHaveAttribute('title', /This entry is closed, since Status is “Departed”/);
  await expect(head(far)).toHaveAccessibleName('1500 closed');
  await visit(far).click();
  await olek.keyboard.type('QV-9999');
  await olek.keyboard.press('Enter');
  await expect(visit(far)).toContainText('QV-9999, refused: This entry is closed, since Status is “Departed”.');
  await mara.keyboard.press('Control+z');
  await expect(cellOf(near, 1500, 'Status')).toHaveText('Expected');
  await expect(head(far)).toHaveText('1500');
  // What was refused is there still, and is stored now that the entry is open.
  await visit(far).click();
  await olek.keyboard.press('F2');
  await olek.keyboard.press('Enter');
  await expect(visit(near)).toHaveText('QV-9999');
});
