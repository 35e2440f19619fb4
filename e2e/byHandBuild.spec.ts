// An administrator's first hour, from an empty house, through the interface alone: lists, ranges, what narrows what, and why.
import type { Locator, Page } from '@playwright/test';
import {
  cellAt,
  expect,
  makeList,
  makeSheet,
  makeSource,
  makeTable,
  openField,
  expectOptions,
  panel,
  rowsOf,
  takeFrom,
  test,
  typeAcross,
} from './nursery.js';

test('a range that stops short is found out from the cell, from the catalog and from the range, and cured in one act', async ({
  nursery: { page },
}) => {
  await makeSource(page, 'Growers');
  const list = await makeList(page, 'Growers', ['Alder', 'Birch', 'Cedar', 'Dogwood', 'Elm', 'Fir', 'Gorse', 'Hazel']);
  await cellAt(list, 0, 0).click();
  await cellAt(list, 6, 0).click({ modifiers: ['Shift'] });
  await page.getByText('Fixed', { exact: true }).click();
  await page.getByRole('button', { name: 'Name the range' }).click();
  // The range says so itself; a name that was just given is not offered for deletion as one that nothing uses.
  await expect(page.getByText('1 value stands past the end of Growers and is not offered.')).toBeVisible();
  await expect(page.getByText(/Nothing uses the name/)).toBeHidden();
  await page.getByRole('button', { name: 'Make a catalog of it' }).click();
  await expect(panel(page).getByRole('heading', { name: 'Use it for fields' })).toBeVisible();
  await page.getByRole('button', { name: 'Close' }).click();
  // So does the catalog.
  await expect(panel(page).getByRole('group', { name: 'Left out' })).toContainText('1 past the end');
  const grid = await makeSheet(page, 'Deliveries', [['Grower'], ['Plants']]);
  await takeFrom(page, 'Grower', 'Growers');
  await page.getByRole('button', { name: 'Close' }).click();
  // Whoever closes the panel types on in the sheet.
  await typeAcross(page, ['hazel'], 'Tab', 0);
  await expect(page.getByText('“hazel” is not in Growers.').first()).toBeVisible();
  await page.keyboard.press('Escape');
  await cellAt(grid, 0, 0).click();
  await page.getByRole('button', { name: 'Why?' }).click();
  await page.getByLabel('Value that is asked about').fill('Hazel');
  await page.keyboard.press('Enter');
  await expect(panel(page)).toContainText('It stands in row 8 under the range Growers, but it stands past the end of the range.');
  await panel(page).getByRole('button', { name: 'Take it in' }).click();
  await expect(panel(page)).toContainText('“Hazel” can be entered here.');
  await panel(page).getByRole('button', { name: 'Close' }).click();
  await typeAcross(page, ['hazel', '12'], 'Tab', 0);
  await expect.poll(async () => (await rowsOf(grid))[0]).toEqual(['Hazel', '12']);
});

test('lists under headings narrow a second field; a fifth list joins them in one act', async ({ nursery: { page } }) => {
  await makeSource(page, 'Beds');
  for (const [bed, plants] of [
    ['North bed', ['Iris', 'Fern']],
    ['South bed', ['Rose', 'Sage']],
    ['East bed', ['Mint']],
    ['West bed', ['Ivy']],
  ] as const)
    await makeList(page, bed, plants);
  await page.getByText('All 4 lists of this page together').click();
  await page.getByRole('button', { name: 'Make a catalog of it' }).click();
  await expect(panel(page).getByRole('heading', { name: 'Use it for fields' })).toBeVisible();
  const grid = await makeSheet(page, 'Plantings', [['Bed'], ['Plant'], ['Count', 'a number']]);
  await takeFrom(page, 'Bed', 'Beds');
  await takeFrom(page, 'Plant', 'Beds');
  await page.getByRole('button', { name: 'Close' }).click();
  // While the first is blank the second offers nothing, and says why, not as an error.
  await cellAt(grid, 0, 1).click();
  await page.keyboard.press('Alt+ArrowDown');
  await expect(page.getByText('Nothing is offered yet')).toBeVisible();
  await page.keyboard.press('Escape');
  await page.keyboard.press('Escape');
  await cellAt(grid, 0, 0).click();
  await typeAcross(page, ['south', 'rose', '3'], 'Tab', 0);
  await expect.poll(async () => (await rowsOf(grid))[0]).toEqual(['South bed', 'Rose', '3']);
  await cellAt(grid, 0, 0).click();
  await typeAcross(page, ['north bed'], 'Enter', 0);
  await expect(page.getByText('Rose was cleared from Plant.')).toBeVisible();
  // A fifth list beside them is offered to join, and its plants are there at once.
  await page.getByRole('link', { name: /^Sources/ }).click();
  await page.getByRole('main').getByRole('link', { name: /^Beds/ }).click();
  await makeList(page, 'Herb bed', ['Dill', 'Chive']);
  await page.getByRole('button', { name: 'Add Herb bed to Beds' }).click();
  await expect(panel(page)).toContainText('North bed, South bed, East bed, West bed, Herb bed');
  await page.getByRole('link', { name: 'Sheets', exact: true }).click();
  await page.getByRole('link', { name: /^Plantings/ }).click();
  await cellAt(grid, 0, 0).click();
  await typeAcross(page, ['herb'], 'Tab', 0);
  await page.keyboard.press('Alt+ArrowDown');
  await expectOptions(page, ['Dill', 'Chive']);
});

test('two tables are joined by a key: the name is shown, the account is stored, and people go when their department changes', async ({
  nursery: { page },
}) => {
  await makeSource(page, 'Departments');
  await makeTable(page, [
    ['Code', 'Department'],
    ['GH', 'Greenhouse'],
    ['SH', 'Shop floor'],
  ]);
  await page.getByRole('button', { name: 'Make a catalog of it' }).click();
  await expect(panel(page).getByRole('heading', { name: 'Use it for fields' })).toBeVisible();
  await makeSource(page, 'People');
  await makeTable(page, [
    ['Account', 'Name', 'Department'],
    ['avenn', 'Ada Venn', 'GH'],
    ['bhawk', 'Ben Hawk', 'SH'],
    ['cmoss', 'Cora Moss', 'GH'],
  ]);
  await expect(page.getByLabel('Its rows belong under')).toHaveValue(/.+/);
  await page.getByRole('button', { name: 'Make a catalog of it' }).click();
  await expect(panel(page).getByRole('heading', { name: 'Use it for fields' })).toBeVisible();
  const grid = await makeSheet(page, 'Shifts', [['Department'], ['Name'], ['Hours', 'a number']]);
  await page.getByRole('link', { name: 'Catalogs', exact: true }).click();
  await page
    .getByRole('main')
    .getByRole('link', { name: /^People/ })
    .click();
  await page.getByRole('button', { name: 'Open Greenhouse' }).click();
  await expect(page.getByRole('link', { name: 'row 1 of People' })).toBeVisible();
  await page.getByRole('button', { name: 'Use it for fields' }).click();
  // Both fields are chosen by their headings already.
  await page.getByRole('button', { name: 'Use it for 2 fields' }).click();
  await expect(page.getByText('Department, Name in 1 sheet')).toBeVisible();
  await page.getByRole('link', { name: 'Sheets', exact: true }).click();
  await page.getByRole('link', { name: /^Shifts/ }).click();
  await cellAt(grid, 0, 0).click();
  await typeAcross(page, ['greenhouse', 'cora', '8'], 'Tab', 0);
  await expect.poll(async () => (await rowsOf(grid))[0]).toEqual(['Greenhouse', 'Cora Moss', '8']);
  // The list is of this department; what is stored is the account, as the search line finds it.
  await cellAt(grid, 0, 1).click();
  await page.keyboard.press('Alt+ArrowDown');
  await expect
    .poll(async () => (await page.getByRole('option').allInnerTexts()).map((text) => text.split('\n')[0]))
    .toEqual(['Ada Venn', 'Cora Moss']);
  await page.keyboard.press('Escape');
  await page.getByRole('combobox', { name: 'Search', exact: true }).fill('cmoss');
  await expect(page.getByRole('option', { name: /“cmoss” in Name of Shifts 1 entry/ })).toBeVisible();
  await page.keyboard.press('Escape');
  await cellAt(grid, 0, 0).click();
  await typeAcross(page, ['SH'], 'Enter', 0);
  await expect(page.getByText('Cora Moss was cleared from Name.')).toBeVisible();
});

/** A panel closed and the next one opened before the first is off the screen, whether the first was opened here or came by its address. */
async function pressedInOneMoment(page: Page, grid: Locator): Promise<void> {
  const answer = grid.getByRole('columnheader', { name: /^Answer/ }).getByRole('button');
  const both = async () => {
    const close = panel(page).getByRole('button', { name: 'Close' });
    const buttons = [await close.elementHandle(), await answer.elementHandle()];
    await page.evaluate(async (pressed) => {
      for (const button of pressed) {
        (button as HTMLElement).click();
        await Promise.resolve();
      }
    }, buttons);
    await expect(panel(page).getByRole('heading', { level: 2, name: 'Answer' })).toBeVisible();
    await page.goBack();
    await expect(panel(page)).toBeHidden();
    await expect(page.getByRole('heading', { level: 1, name: 'Checks' })).toBeVisible();
  };
  await openField(page, 'Ended');
  const address = page.url();
  await both();
  await page.getByRole('link', { name: 'Sheets', exact: true }).click();
  await page.goto(address);
  await both();
}

test('choices, hints, days and own words are set, left half-made, tried, felt at the cell, and cleared', async ({
  nursery: { page, clerk },
}) => {
  const grid = await makeSheet(page, 'Checks', [['Answer'], ['Begun', 'a date'], ['Ended', 'a date'], ['Asked']]);
  await openField(page, 'Answer');
  await page.getByLabel('Choices', { exact: true }).fill('yes, no, perhaps');
  await page.getByRole('button', { name: 'Set these choices' }).click();
  await page.getByRole('button', { name: 'no hint' }).click();
  await page.getByPlaceholder('Title, if it wants one').fill('Take your time');
  await page.getByRole('textbox', { name: 'Hint shown on arrival' }).fill('Say perhaps where you do not know.\nNobody minds.');
  await page.getByRole('button', { name: 'Show this hint' }).click();
  await page.getByRole('button', { name: 'Dellum’s own words' }).click();
  await page.getByRole('textbox', { name: 'Said when a value is refused' }).fill('“{value}” is no answer.');
  await page.keyboard.press('Enter');
  // A rule that is left half-made is there when one comes back, also by the Back key of the browser.
  await openField(page, 'Ended');
  await expect(panel(page).getByText('Not set yet')).toBeHidden();
  await openField(page, 'Answer');
  await expect(panel(page).getByText('Not set yet')).toBeVisible();
  await page.getByRole('button', { name: 'Set this rule' }).click();
  await expect(page.getByText('The rule of Answer holds from now on.')).toBeVisible();
  await page.goBack();
  await expect(panel(page)).toBeHidden();
  await expect(page.getByRole('heading', { level: 1, name: 'Checks' })).toBeVisible();
  await pressedInOneMoment(page, grid);
  await openField(page, 'Ended');
  await page.getByRole('button', { name: 'a date within bounds' }).click();
  await page.getByRole('button', { name: 'of any day' }).click();
  await page.getByRole('combobox', { name: 'From' }).selectOption({ label: 'After Begun' });
  await page.getByRole('button', { name: 'Set the bounds' }).click();
  await expect(panel(page)).toContainText('Takes a date after Begun;');
  await page.getByRole('button', { name: 'Set this rule' }).click();
  // Names with commas in them are kept together by quotes, in the order in which they were typed.
  await openField(page, 'Asked');
  await page.getByLabel('Choices', { exact: true }).fill('"Reed, Ann"; "Moss, Ben"; Cora');
  await page.getByRole('button', { name: 'Set these choices' }).click();
  await expect(panel(page)).toContainText('Takes one value of “Reed, Ann”, “Moss, Ben”, Cora;');

  const other = await clerk();
  await other.getByRole('link', { name: /^Checks/ }).click();
  const theirs = other.getByRole('grid', { name: 'Checks' });
  await expect(other.getByRole('note')).toContainText('Take your time');
  await typeAcross(other, ['maybe'], 'Tab', 0);
  await expect(other.getByRole('alert')).toContainText('“maybe” is no answer.');
  await other.keyboard.press('Control+a');
  // Typed on over what was refused, as one does who looks at a paper: which text it was is said.
  await typeAcross(other, ['perhaps'], 'Tab', 0);
  await expect(other.getByText('“maybe” was not stored.')).toBeVisible();
  await typeAcross(other, ['5.11.2026', '5.11.2026'], 'Tab', 0);
  await expect(other.getByRole('alert')).toContainText('Ended must not be before 1 day after Begun (06.11.2026).');
  await other.keyboard.press('Control+a');
  await typeAcross(other, ['6.11.2026', 'reed'], 'Tab', 0);
  await expect.poll(async () => (await rowsOf(theirs))[0]).toEqual(['perhaps', '05.11.2026', '06.11.2026', 'Reed, Ann']);
  // Cleared, it takes what it holds.
  await openField(page, 'Ended');
  await page.getByRole('button', { name: 'Clear the rule' }).click();
  await expect(page.getByText('Ended takes any date again; its values stay as they are.')).toBeVisible();
  await expect.poll(async () => (await rowsOf(grid))[0]).toEqual(['perhaps', '05.11.2026', '06.11.2026', 'Reed, Ann']);
});

test('with a finger on a tablet lists and menus open, values are chosen, entries come and go', async ({ nursery: { page }, browser }) => {
  await makeSheet(page, 'Sales', [['Seller'], ['Day', 'a date']]);
  await openField(page, 'Seller');
  await page.getByLabel('Choices', { exact: true }).fill('Ada, Ben, Cora');
  await page.getByRole('button', { name: 'Make a list of them' }).click();
  await expect(page.getByText(/from now on\./).last()).toBeVisible();
  const context = await browser.newContext({
    baseURL: new URL(page.url()).origin,
    hasTouch: true,
    viewport: { width: 820, height: 1180 },
    reducedMotion: 'reduce',
  });
  const tablet = await context.newPage();
  await tablet.goto('/');
  await tablet.getByLabel('Sign-in name').fill('orla');
  await tablet.getByLabel('Password').fill('a-long-password');
  await tablet.getByRole('button', { name: 'Sign in' }).tap();
  await tablet.getByRole('link', { name: /^Sales/ }).tap();
  const grid = tablet.getByRole('grid', { name: 'Sales' });
  await cellAt(grid, 0, 0).tap();
  await cellAt(grid, 0, 0).getByRole('button', { name: 'Open the list of Seller' }).tap();
  await tablet.getByRole('option', { name: 'Ben' }).tap();
  await expect(cellAt(grid, 0, 0)).toHaveText('Ben');
  await cellAt(grid, 0, 1).tap();
  await cellAt(grid, 0, 1).getByRole('button', { name: 'Open the calendar of Day' }).tap();
  await tablet.getByRole('group', { name: 'Calendar of Day' }).getByRole('button', { name: /15/ }).first().tap();
  await expect(cellAt(grid, 0, 1)).toContainText(/^15\./);
  await cellAt(grid, 1, 0).tap();
  await cellAt(grid, 1, 0).getByRole('button', { name: 'Open the list of Seller' }).tap();
  await tablet.getByRole('option', { name: 'Cora' }).tap();
  await expect(tablet.getByText('2 entries.')).toBeVisible();
  await cellAt(grid, 1, 0).tap();
  await tablet.getByRole('button', { name: 'Delete row 2' }).tap();
  await tablet.getByRole('alertdialog').getByRole('button', { name: 'Delete the entry' }).tap();
  await expect(tablet.getByText('1 entry.')).toBeVisible();
  await tablet.getByRole('button', { name: 'Undo' }).tap();
  await expect(tablet.getByText('2 entries.')).toBeVisible();
  await context.close();
});
