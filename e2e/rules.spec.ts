// The administrator binds a field through the rule sentence, tries it, and clerks feel it at once.
import { cellOf, expect, test, toSheet, two } from './house.js';

test('a rule is written as a sentence, tried, and holds for everybody', { tag: '@main' }, async ({ house }) => {
  const clerk = await house.open('mara', undefined, two());
  const grid = await toSheet(clerk, 'Berth visits');
  const ines = await house.open('ines');
  const own = await toSheet(ines, 'Berth visits');
  await own
    .getByRole('columnheader', { name: /^Visit/ })
    .getByRole('button')
    .click();
  await ines.getByLabel('Take its values from').selectOption({ label: 'Pilots' });
  const slip = ines.getByRole('complementary', { name: 'Panel' });
  const part = async (words: string, choice: string | RegExp) => {
    await slip.getByRole('button', { name: words, exact: true }).click();
    await ines.getByRole('dialog').getByRole('button', { name: choice }).click();
  };
  await slip.getByRole('group', { name: 'More of the rule' }).waitFor();
  await part('Pilots', /^Services/);
  await part('may be blank', /must not be blank/);
  await slip.getByRole('button', { name: 'no hint' }).click();
  await ines.getByRole('textbox', { name: 'Hint shown on arrival' }).fill('What was done?');
  await ines.getByRole('button', { name: 'Show this hint' }).click();
  await slip.getByRole('button', { name: 'Dellum’s own words' }).click();
  await ines.getByRole('textbox', { name: 'Said when a value is refused' }).fill('Pick a service.');
  await ines.keyboard.press('Enter');
  await expect(slip).toContainText(
    'Takes one value from Services; must not be blank; any other value is refused, saying “Pick a service.” A new entry begins empty; on arrival it shows “What was done?”',
  );
  await expect(slip.getByRole('status').first()).toContainText('1,512 entries would be outside');

  // Trial entry behaves as the clerk's field and stores nothing.
  await slip.getByLabel('Try Visit').click();
  await slip.getByLabel('Try Visit').fill('nothing of the kind');
  await ines.keyboard.press('Enter');
  await expect(ines.getByRole('alert').filter({ hasText: 'Pick a service.' })).toBeVisible();
  await slip.getByLabel('Try Visit').fill('WATER');
  await ines.keyboard.press('Enter');
  await expect(slip).toContainText('“WATER” was taken as Water.');

  await slip.getByRole('button', { name: 'Set this rule' }).click();
  await expect(grid.getByRole('columnheader', { name: /^Visit/ })).toContainText('Services');
  await cellOf(grid, 1500, 'Visit').click();
  await expect(clerk.getByRole('note')).toHaveText('What was done?');
  await clerk.keyboard.press('Delete');
  await expect(clerk.getByText(/0 cells were taken, 1 refused/)).toBeVisible();
  await expect(cellOf(grid, 1501, 'Visit')).toContainText('outside');

  // Cleared again, nothing of it is outside.
  await slip.getByRole('button', { name: 'Clear the rule' }).click();
  await expect(grid.getByRole('columnheader', { name: /^Visit/ })).toContainText('any text');
  await expect(cellOf(grid, 1501, 'Visit')).not.toContainText('outside');
});

test('a field that only administrators change says so, refuses what a clerk types, and takes what an administrator types', async ({
  house,
}) => {
  const ines = await house.open('ines');
  const own = await toSheet(ines, 'Berth visits');
  await own
    .getByRole('columnheader', { name: /^Pilot/ })
    .getByRole('button')
    .click();
  const slip = ines.getByRole('complementary', { name: 'Panel' });
  await slip.getByRole('button', { name: 'Say more …' }).click();
  await slip.getByRole('button', { name: 'Who may change it …' }).click();
  await ines
    .getByRole('dialog')
    .getByRole('button', { name: /administrators only/ })
    .click();
  await expect(slip).toContainText('only administrators change it');
  await slip.getByRole('button', { name: 'Set this rule' }).click();
  await expect(ines.getByText('The rule of Pilot holds from now on.')).toBeVisible();

  const clerk = await house.open('mara');
  const grid = await toSheet(clerk, 'Berth visits');
  await expect(grid.getByRole('columnheader', { name: /^Pilot/ })).toContainText('read only');
  await cellOf(grid, 1500, 'Cargo').click();
  await clerk.keyboard.type('Grain');
  await clerk.keyboard.press('Enter');
  await expect(cellOf(grid, 1500, 'Cargo')).toHaveText('Grain');
  await cellOf(grid, 1500, 'Pilot').click();
  await clerk.keyboard.type('Rook Tansy');
  await clerk.keyboard.press('Enter');
  await expect(clerk.getByText('Only administrators change Pilot.')).toBeVisible();
  await clerk.keyboard.press('Escape');
  await clerk.keyboard.press('Escape');
  await expect(cellOf(grid, 1500, 'Pilot')).toHaveText('');

  await expect(own.getByRole('columnheader', { name: /^Pilot/ })).not.toContainText('read only');
  await cellOf(own, 1500, 'Pilot').click();
  await ines.keyboard.type('Rook Tansy');
  await ines.keyboard.press('Enter');
  await expect(cellOf(grid, 1500, 'Pilot')).toHaveText('Rook Tansy');
});

test('a clerk reads the sentence and changes nothing', async ({ house }) => {
  const page = await house.open('mara');
  const grid = await toSheet(page, 'Berth visits');
  await grid
    .getByRole('columnheader', { name: /^Pilot/ })
    .getByRole('button')
    .click();
  const slip = page.getByRole('complementary', { name: 'Panel' });
  await expect(slip).toContainText('Takes one value from Pilots; may be blank; any other value is refused');
  // What a clerk can do here is to look at the field otherwise, for oneself.
  await expect(slip.getByRole('button').filter({ hasNotText: /Sort|Show only|Hide/ })).toHaveCount(1);
  await page.goto('/catalogs');
  await expect(page.getByText('This page is the stewards’ and administrator’s')).toBeVisible();
  await page.goto('/bindings');
  await expect(page.getByText('This page is the administrator’s')).toBeVisible();
});
