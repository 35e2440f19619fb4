// Records, tables, figures, forms and linked lists, from an empty house, through the interface alone.
import { mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import type { Locator, Page } from '@playwright/test';
import {
  cellAt,
  closePanel,
  expect,
  expectOptions,
  giveChoices,
  makeList,
  makeSheet,
  makeSource,
  makeTable,
  openField,
  panel,
  rowsOf,
  takeFrom,
  test,
  toPage,
  typeAcross,
} from './nursery.js';

/** A sheet of orders in which the kind is one of two lists, and the plant stands in it. */
async function ordersOf(page: Page, lists: Readonly<Record<string, readonly string[]>>): Promise<Locator> {
  await makeSource(page, 'Plants');
  for (const [kind, plants] of Object.entries(lists)) await makeList(page, kind, plants);
  await page.getByText('Both lists of this page together').click();
  await page.getByRole('button', { name: 'Make a catalog of it' }).click();
  await expect(panel(page).getByRole('heading', { name: 'Use it for fields' })).toBeVisible();
  const grid = await makeSheet(page, 'Orders', [['Kind'], ['Plant'], ['Count', 'a number']]);
  await takeFrom(page, 'Kind', 'Plants');
  await takeFrom(page, 'Plant', 'Plants');
  await closePanel(page);
  return grid;
}

test('one of two lists is decided by the choice before it, and a rule is given to five other fields in four acts', async ({
  nursery: { page },
}) => {
  const grid = await ordersOf(page, { Tree: ['Ash', 'Beech'], Shrub: ['Box', 'Privet'] });
  await typeAcross(page, ['tree', 'bee', '3'], 'Tab', 0);
  await expect.poll(async () => (await rowsOf(grid))[0]).toEqual(['Tree', 'Beech', '3']);
  await cellAt(grid, 0, 0).click();
  await typeAcross(page, ['shrub'], 'Tab', 0);
  await expect(page.getByText('Beech was cleared from Plant.')).toBeVisible();
  // Values that are added later are there at once.
  await toPage(page, 'Sources', /^Plants/);
  await page.getByRole('grid', { name: 'Shrub' }).getByText('type to add').click();
  await typeAcross(page, ['Yew'], 'Enter', 0);
  await toPage(page, 'Sheets', /^Orders/);
  await cellAt(grid, 0, 1).click();
  await page.keyboard.press('Alt+ArrowDown');
  await expectOptions(page, ['Box', 'Privet', 'Yew']);
  await page.keyboard.press('Escape');

  // The rule of one field for five others, in two sheets: the first, the last with Shift, whose rule, set.
  await makeSheet(page, 'Calls', [['A'], ['B'], ['C']]);
  await makeSheet(page, 'Letters', [['D'], ['E']]);
  await openField(page, 'D');
  await page.getByLabel('Choices', { exact: true }).fill('low, middle, high');
  await page.getByRole('button', { name: 'Set these choices' }).click();
  await expect(page.getByText(/from now on\./).last()).toBeVisible();
  await makeSheet(page, 'Notes', [['F'], ['G']]);
  await page.getByRole('link', { name: 'Bindings' }).click();
  await page.getByRole('checkbox', { name: 'Choose A of Calls' }).check({ force: true });
  for (const one of ['B of Calls', 'C of Calls', 'E of Letters', 'F of Notes'])
    await page.getByRole('checkbox', { name: `Choose ${one}` }).check({ force: true });
  await panel(page).getByLabel('Copy a rule to them').selectOption({ label: 'D of Letters: one value of low, middle, high' });
  await panel(page)
    .getByRole('button', { name: /^Set the rule in 5 fields|^Set/ })
    .click();
  await expect(page.getByText('The rule holds in 5 fields from now on.')).toBeVisible();
  await toPage(page, 'Sheets', /^Calls/);
  await expect(page.getByText('type to add')).toBeVisible();
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('Alt+ArrowDown');
  await expectOptions(page, ['low', 'middle', 'high']);
});

test('records with a code, a name and a mark make a catalog of those still grown; measured things are offered in order, also after a reload', async ({
  nursery: { page, clerk },
}) => {
  await makeSheet(page, 'Plants', [['Code'], ['Name'], ['Still grown', 'yes or no'], ['Height', 'a number']]);
  await typeAcross(
    page,
    ['ELM', 'Elm', 'yes', '15', 'BOX', 'Box', 'no', '2', 'ASH', 'Ash', 'yes', '12.5', 'YEW', 'Yew', 'yes', '4'],
    'Tab',
    0,
  );
  await expect(page.getByText('4 entries.')).toBeVisible();
  await page.getByRole('link', { name: 'Catalogs' }).click();
  await page.getByLabel('Title', { exact: true }).fill('Still grown');
  await page.keyboard.press('Enter');
  await page.getByRole('button', { name: 'How it is composed', exact: true }).click();
  await page.getByRole('button', { name: 'entries of a sheet' }).click();
  await page.getByLabel('Shown instead of the value').selectOption({ label: 'shown as Name' });
  await page.getByRole('button', { name: 'Only those where …' }).first().click();
  await page.getByLabel('Field of condition 1').selectOption({ label: 'Still grown' });
  await expect(panel(page)).toContainText('3 would be offered');
  // What is half-made is there after a reload.
  await page.reload();
  await expect(panel(page)).toContainText('where Still grown is “yes”');
  await page.getByRole('button', { name: 'Save how it is composed' }).click();
  await expect(page.getByText('Still grown is composed so from now on.')).toBeVisible();
  await makeSheet(page, 'Beds', [['Bed'], ['Plant']]);
  await makeSheet(page, 'Orders', [['Customer'], ['Plant']]);
  await toPage(page, 'Catalogs', 'Still grown');
  await page.getByRole('button', { name: 'Use it for fields' }).click();
  for (const sheet of ['Beds', 'Orders']) await panel(page).getByRole('group', { name: sheet }).getByText('Plant', { exact: true }).click();
  await page.getByRole('button', { name: 'Use it for 2 fields' }).click();
  await expect(page.getByText('Plant in 2 sheets')).toBeVisible();

  const other = await clerk();
  await other.getByRole('link', { name: /^Beds/ }).click();
  const theirs = other.getByRole('grid', { name: 'Beds' });
  await expect(other.getByText('type to add')).toBeVisible();
  await typeAcross(other, ['North', 'ash', 'South', 'yew', 'East', 'box'], 'Tab', 0);
  await expect(other.getByText('“box” is not in Still grown.').first()).toBeVisible();
  await cellAt(theirs, 2, 1).dblclick();
  await expectNames(other, ['Elm', 'Ash', 'Yew']);
  await other.keyboard.press('Escape');
  await expect
    .poll(async () => (await rowsOf(theirs)).slice(0, 2))
    .toEqual([
      ['North', 'Ash'],
      ['South', 'Yew'],
    ]);

  // Ordered by a measure, never by chance.
  await page.getByRole('button', { name: 'How it is composed', exact: true }).click();
  await panel(page).getByRole('group', { name: 'Comes along' }).getByText('Height').click();
  await panel(page).getByLabel('Order').selectOption({ label: 'by Height' });
  await page.getByRole('button', { name: 'Save how it is composed' }).click();
  await expect(panel(page)).toContainText('Offers Code, shown as Name');
  await cellAt(theirs, 3, 1).click();
  for (const again of [false, true]) {
    if (again) {
      await other.reload();
      await cellAt(theirs, 3, 1).click();
    }
    await other.keyboard.press('Alt+ArrowDown');
    await expectNames(other, ['Yew', 'Ash', 'Elm']);
    await other.keyboard.press('Escape');
  }
  // A filter that takes values out which entries hold is asked about, with its numbers.
  await page.getByRole('button', { name: 'How it is composed', exact: true }).click();
  await page.getByRole('button', { name: 'One condition more' }).first().click();
  await page.getByLabel('Field of condition 2').selectOption({ label: 'Height' });
  await page.getByLabel('Comparison of condition 2').selectOption('at least');
  await page.getByLabel('Value of condition 2').fill('10');
  await page.getByRole('button', { name: 'Save how it is composed' }).click();
  const impact = page.getByRole('region', { name: 'Impact' });
  await expect(impact).toContainText(/1\s*entry holds it/);
  await impact.getByText('Gone', { exact: true }).click();
  await impact.getByRole('button', { name: 'Take out, and mark 1 entry' }).click();
  await expect(other.getByRole('group', { name: 'Entries outside' })).toContainText('Plant: 1 outside');
});

/** The first line of each option: what is shown beside it stands below. */
const expectNames = (page: Page, names: readonly string[]) =>
  expect.poll(async () => (await page.getByRole('option').allInnerTexts()).map((text) => text.split('\n')[0])).toEqual(names);

test('a steward keeps a list that nobody else adds to; its values are counted by month in a figure that is downloaded', async ({
  nursery: { page, person },
}) => {
  const grid = await makeSheet(page, 'Sales', [['Day', 'a date'], ['Kind'], ['Amount', 'an amount of money']]);
  await openField(page, 'Kind');
  await page.getByLabel('Choices', { exact: true }).fill('cash, card');
  await page.getByRole('button', { name: 'Make a list of them' }).click();
  await expect(page.getByText(/from now on\./).last()).toBeVisible();
  await closePanel(page);
  await typeAcross(page, ['1.9.2026', 'cash', '10', '2.10.2026', 'card', '20', '3.10.2026', 'cash', '5.5'], 'Tab', 0);
  await expect(page.getByText('3 entries.')).toBeVisible();
  const keeper = await person('Sorrel Vane', 'steward');
  await page.getByRole('navigation', { name: 'Main' }).getByRole('link', { name: 'People' }).click();
  await page.getByRole('button', { name: 'Catalogs of Sorrel Vane' }).click();
  await panel(page).getByText('Kind', { exact: true }).click();
  // The steward: the catalog, the value, Enter.
  await keeper.getByRole('link', { name: 'Catalogs' }).click();
  await keeper.getByRole('table').getByRole('link', { name: 'Kind' }).click();
  await keeper.getByLabel('Add a value').click();
  // Faster than the server answers.
  await typeAcross(keeper, ['voucher', 'account'], 'Enter', 0);
  await expect(keeper.getByRole('table').getByRole('button', { name: 'account' })).toBeVisible();
  await expect(keeper.getByRole('link', { name: 'Sources' })).toBeHidden();
  await toPage(page, 'Sheets', /^Sales/);
  await cellAt(grid, 3, 0).click();
  await typeAcross(page, ['4.10.2026', 'vou', '7'], 'Tab', 0);
  await expect.poll(async () => (await rowsOf(grid))[3]).toEqual(['04.10.2026', 'voucher', '7.00 EUR']);
  await cellAt(grid, 4, 0).click();
  await typeAcross(page, ['4.10.2026', 'cheque'], 'Tab', 0);
  await expect(page.getByRole('alert')).toContainText('“cheque” is not in Kind.');
  await page.keyboard.press('Escape');
  // The figure: by value and month, as a table and a picture.
  await page.getByRole('link', { name: 'Figures' }).click();
  await page.getByRole('link', { name: 'New figure' }).click();
  await panel(page).getByLabel('Measure').selectOption({ label: 'the sum of' });
  await panel(page).getByRole('combobox', { name: 'By', exact: true }).selectOption({ label: 'Kind' });
  await panel(page).getByLabel('Date').selectOption({ label: 'Day' });
  await panel(page).getByLabel('Step').selectOption({ label: 'by month' });
  await expect(page.getByRole('table').getByRole('rowheader', { name: 'cash' })).toBeVisible();
  const take = async (name: string) => {
    await page.getByRole('button', { name: 'Download' }).click();
    const [download] = await Promise.all([page.waitForEvent('download'), page.getByRole('menuitem', { name }).click()]);
    return readFileSync((await download.path())!);
  };
  const lines = (await take('The table, as CSV'))
    .toString('utf8')
    .replace(/^\uFEFF/u, '')
    .split('\r\n');
  expect(lines.find((line) => line.startsWith('cash'))).toBe('cash,10,5.5,15.5');
  expect(lines.find((line) => line.startsWith('voucher'))).toMatch(/^voucher,0?,7,7$/u);
  expect((await take('The chart, as PNG')).subarray(1, 4).toString()).toBe('PNG');
  expect((await take('The chart, as SVG')).toString('utf8')).toMatch(/^<svg/u);
});

test('the words of a state are changed, asked about only where entries hold them; a field takes several values, each found by itself', async ({
  nursery: { page, clerk },
}) => {
  const grid = await makeSheet(page, 'Tasks', [['Task'], ['State'], ['Needs', 'several values']]);
  for (const [heading, choices] of [
    ['State', 'to do, doing, done'],
    ['Needs', 'spade, rake, hoe'],
  ] as const) {
    await openField(page, heading);
    await page.getByLabel('Choices', { exact: true }).fill(choices);
    await page.getByRole('button', { name: 'Make a list of them' }).click();
    await expect(page.getByText(`${heading} takes its values from a list`)).toBeVisible();
  }
  await closePanel(page);
  // In several values Enter adds each, and on an empty text goes on.
  await typeAcross(page, ['dig', 'to do'], 'Tab', 0);
  await typeAcross(page, ['spade', 'rake', ''], 'Enter', 0);
  await cellAt(grid, 1, 0).click();
  await typeAcross(page, ['cut', 'doing'], 'Tab', 0);
  await typeAcross(page, ['rake', ''], 'Enter', 0);
  await expect
    .poll(async () => (await rowsOf(grid)).slice(0, 2))
    .toEqual([
      ['dig', 'to do', 'spade, rake'],
      ['cut', 'doing', 'rake'],
    ]);
  const other = await clerk();
  await other.getByRole('link', { name: /^Tasks/ }).click();
  const theirs = other.getByRole('grid', { name: 'Tasks' });
  await expect(other.getByText('2 entries.')).toBeVisible();

  await toPage(page, 'Catalogs', 'State');
  const correct = async (value: string, becomes: string) => {
    await page.getByRole('table').getByRole('button', { name: value, exact: true }).click();
    await panel(page).getByRole('button', { name: 'Correct …' }).click();
    await page.keyboard.press('Control+a');
    await typeAcross(page, [becomes], 'Enter', 0);
  };
  // Nobody holds it: done without a question. Held: said with its number before.
  await correct('done', 'finished');
  await expect(page.getByRole('table').getByRole('button', { name: 'finished' })).toBeVisible();
  await correct('doing', 'under way');
  await page.getByRole('button', { name: /^Rename in 1 entry/ }).click();
  await expect.poll(async () => (await rowsOf(theirs))[1]).toEqual(['cut', 'under way', 'rake']);
  await expect(other.getByRole('group', { name: 'Entries outside' })).toBeHidden();
  // Each value of several is counted and found by itself.
  await toPage(page, 'Catalogs', 'Needs');
  await page.getByRole('table').getByRole('button', { name: 'rake', exact: true }).click();
  await expect(panel(page)).toContainText('2 entries hold it');
  await panel(page).getByRole('link', { name: 'Needs of Tasks' }).click();
  await expect(page.getByText('2 entries shown.')).toBeVisible();
  await page.getByRole('button', { name: /show all entries again/ }).click();
  await expect(page.getByText('2 entries.', { exact: true })).toBeVisible();
  // All entries with one value, from the cell; the history of the field says who did what.
  await cellAt(grid, 0, 1).click();
  await page.getByRole('button', { name: 'Same value only' }).click();
  await expect(page.getByText('1 entry shown.')).toBeVisible();
  await openField(page, 'State');
  await panel(page).getByRole('button', { name: 'History' }).click();
  await expect(page.getByRole('region', { name: 'History of rules' })).toContainText('Orla Venn');
});

test('what is chosen in a form is what is stored: percentages and prices by buttons and a drop-down, several values by boxes', async ({
  nursery: { page, clerk },
}) => {
  const grid = await makeSheet(page, 'Offers', [
    ['Share', 'a percentage'],
    ['Price', 'an amount of money'],
    ['Extras', 'several values'],
  ]);
  await giveChoices(page, 'Share', '1 %, 12.5 %, 100 %', 'Set these choices');
  await giveChoices(page, 'Price', '1234.50, 7', 'Set these choices');
  await giveChoices(page, 'Extras', 'ribbon, card', 'Set these choices');
  await page.getByRole('link', { name: 'House', exact: true }).click();
  await page.getByLabel('Decimal sign').selectOption({ label: 'comma: 12,5' });
  await page.getByRole('button', { name: 'Save the house' }).click();
  await expect(page.getByText('The house writes so from now on.', { exact: false })).toBeVisible();
  await page.getByRole('link', { name: 'Forms' }).click();
  await panel(page).getByLabel('Title').fill('Offer');
  await panel(page).getByRole('button', { name: 'Lay it out' }).click();
  await page
    .getByRole('region', { name: 'A section without a heading' })
    .getByRole('button', { name: /^Price/ })
    .click();
  await panel(page).getByLabel('Asked by').selectOption({ label: 'drop-down' });
  await page.getByRole('button', { name: 'Publish' }).click();
  await expect(page.getByText('Version 1 is published and can be filled.')).toBeVisible();
  const other = await clerk();
  await other.getByRole('link', { name: 'Forms' }).click();
  await other.getByRole('link', { name: 'Fill Offer' }).click();
  const form = other.getByRole('form', { name: 'Offer' });
  const share = form.getByRole('radiogroup', { name: 'Share' });
  await share.getByText('12,5 %').click();
  await share.getByText('100 %').click();
  // By keys: emptied by Delete, chosen anew, and Tab goes on to the next field.
  await other.keyboard.press('Delete');
  await expect(share.getByRole('radio', { checked: true })).toHaveCount(0);
  await other.keyboard.press('Space');
  await expect(share.getByRole('radio', { name: '100 %' })).toBeChecked();
  await other.keyboard.press('Tab');
  await expect(form.getByLabel('Price')).toBeFocused();
  await form.getByLabel('Price').selectOption({ index: 1 });
  for (const extra of ['card', 'ribbon']) await form.getByRole('group', { name: 'Extras' }).getByText(extra).click();
  // What was chosen is kept by the browser, too.
  await other.reload();
  await expect(share.getByRole('radio', { name: '100 %' })).toBeChecked();
  await form.getByRole('button', { name: 'Send' }).click();
  await expect(other.getByText('It is stored.')).toBeVisible();
  await toPage(page, 'Sheets', /^Offers/);
  await expect.poll(async () => (await rowsOf(grid))[0]).toEqual(['100 %', '1234,50 EUR', 'card; ribbon']);
  // A value that the list has lost stays when another one is added, marked; it goes when it is taken out.
  await openField(page, 'Extras');
  await panel(page).getByRole('button', { name: 'ribbon, card', exact: true }).click();
  await page.getByRole('textbox', { name: 'The values' }).fill('ribbon, bow');
  await page.getByRole('button', { name: 'Take these values' }).click();
  await panel(page)
    .getByRole('button', { name: /^Set this rule/ })
    .click();
  await closePanel(page);
  await cellAt(grid, 0, 2).click();
  await page.keyboard.press('Enter');
  await typeAcross(page, ['bow', ''], 'Enter', 0);
  await expect.poll(async () => (await rowsOf(grid))[0]![2]).toBe('card; ribbon; bow');
  await expect(page.getByRole('group', { name: 'Entries outside' })).toBeVisible();
  await cellAt(grid, 0, 2).click();
  await page.keyboard.press('Enter');
  await page.getByRole('button', { name: 'Take out card' }).click();
  await page.keyboard.press('Enter');
  await expect.poll(async () => (await rowsOf(grid))[0]![2]).toBe('ribbon; bow');
  await expect(page.getByRole('group', { name: 'Entries outside' })).toBeHidden();
});

test('a form asks with buttons, an open list and a drop-down; lists come from typed items, a file, a folder and an expression, and a lost file leaves the last good values', async ({
  nursery: { page, clerk, files },
}) => {
  writeFileSync(join(files, 'growers.txt'), 'Alder\nBirch\nCedar\n');
  mkdirSync(join(files, 'leaflets'));
  for (const one of ['a', 'b']) writeFileSync(join(files, 'leaflets', `leaflet-${one}.pdf`), '');
  const link = async (name: string, kind: string, fill: () => Promise<unknown>, words: string) => {
    await page.getByRole('link', { name: 'Linked' }).click();
    await panel(page).getByLabel('Name', { exact: true }).fill(name);
    await panel(page).getByLabel('It gives').selectOption({ label: kind });
    await fill();
    await panel(page).getByRole('button', { name: 'Look at it' }).click();
    await expect(panel(page)).toContainText(words);
    await panel(page).getByRole('button', { name: 'Link it' }).click();
    await expect(page.getByRole('row', { name: new RegExp(name) })).toContainText('good');
    await page.getByRole('link', { name: 'Catalogs' }).click();
    await page.getByLabel('Title', { exact: true }).fill(name);
    await page.keyboard.press('Enter');
    await page.getByRole('button', { name: 'How it is composed', exact: true }).click();
    await panel(page).getByRole('button', { name: 'a linked source' }).click();
    await panel(page).getByLabel('Linked source of part 1').selectOption({ label: name });
    await page.getByRole('button', { name: 'Save how it is composed' }).click();
    await expect(page.getByText(`${name} is composed so from now on.`)).toBeVisible();
  };
  await link('Growers', 'a text file, one value a line', () => panel(page).getByLabel('File').selectOption('growers.txt'), '3 values');
  await link(
    'Leaflets',
    'the names in a folder',
    async () => {
      await panel(page).getByLabel('Folder').selectOption('leaflets');
      await panel(page).getByLabel('Names like').fill('leaflet-*.pdf');
    },
    '2 values',
  );
  await link(
    'Short names',
    'an expression over catalogs',
    async () => {
      await panel(page).getByRole('group', { name: 'Over the catalogs' }).getByText('Growers').click();
      await panel(page).getByLabel('Expression (CEL)').fill('growers.filter(g, g.value.size() < 6).map(g, g.value)');
    },
    '3 values',
  );
  await makeSheet(page, 'Requests for leaflets', [['Grower'], ['Leaflet'], ['Answer'], ['Short']]);
  await takeFrom(page, 'Grower', 'Growers');
  await takeFrom(page, 'Leaflet', 'Leaflets');
  await takeFrom(page, 'Short', 'Short names');
  await openField(page, 'Answer');
  await page.getByLabel('Choices', { exact: true }).fill('yes, no');
  await page.getByRole('button', { name: 'Set these choices' }).click();
  await expect(page.getByText('Answer offers 2 choices from now on.')).toBeVisible();
  await page.getByRole('link', { name: 'Forms' }).click();
  await panel(page).getByLabel('Title').fill('Leaflet request');
  await panel(page).getByRole('button', { name: 'Lay it out' }).click();
  for (const [field, control] of [
    ['Grower', 'open list'],
    ['Leaflet', 'drop-down'],
  ] as const) {
    await page
      .getByRole('region', { name: 'A section without a heading' })
      .getByRole('button', { name: new RegExp(`^${field}`) })
      .click();
    await panel(page).getByLabel('Asked by').selectOption({ label: control });
  }
  await page.getByRole('button', { name: 'Publish' }).click();
  await expect(page.getByText('Version 1 is published and can be filled.')).toBeVisible();
  const other = await clerk();
  await other.getByRole('link', { name: 'Forms' }).click();
  await other.getByRole('link', { name: 'Fill Leaflet request' }).click();
  const form = other.getByRole('form', { name: 'Leaflet request' });
  await form.getByRole('option', { name: 'Birch' }).click();
  await form.getByLabel('Leaflet').selectOption({ label: 'leaflet-b.pdf' });
  await form.getByRole('radiogroup', { name: 'Answer' }).getByText('yes').click();
  await form.getByRole('button', { name: 'Send' }).click();
  await expect(other.getByText('It is stored.')).toBeVisible();
  // The file changes, and is refreshed; then it is lost: the last good values stay, and Upkeep says so.
  writeFileSync(join(files, 'growers.txt'), 'Alder\nBirch\nCedar\nDogwood\n');
  await page.getByRole('link', { name: 'Linked' }).click();
  await page.getByRole('button', { name: 'Refresh Growers' }).click();
  // Its own cell: a moment may hold a 4, too.
  await expect(
    page
      .getByRole('row', { name: /Growers/ })
      .first()
      .getByRole('cell', { name: '4', exact: true }),
  ).toBeVisible();
  rmSync(join(files, 'growers.txt'));
  await page.getByRole('button', { name: 'Refresh Growers' }).click();
  await expect(page.getByRole('row', { name: /Growers/ }).first()).toContainText('stay');
  await page.getByRole('link', { name: /^Upkeep/ }).click();
  await expect(page.getByRole('main')).toContainText('Linked sources that cannot be read');
  await toPage(page, 'Sheets', /^Requests for leaflets/);
  const grid = page.getByRole('grid', { name: 'Requests for leaflets' });
  await expect.poll(async () => (await rowsOf(grid))[0]).toEqual(['Birch', 'leaflet-b.pdf', 'yes', '']);
  await cellAt(grid, 1, 0).click();
  await page.keyboard.press('Alt+ArrowDown');
  await expectOptions(page, ['Alder', 'Birch', 'Cedar', 'Dogwood']);
});

test('what stands outside is mended by choosing the value that is called so, by mouse and by keys', async ({ nursery: { page } }) => {
  await makeSource(page, 'Departments');
  await makeTable(page, [
    ['Code', 'Department'],
    ['GH', 'Greenhouse'],
    ['SH', 'Shop floor'],
  ]);
  const grid = await makeSheet(page, 'Shifts', [['Department'], ['Hours', 'a number']]);
  await typeAcross(page, ['Greenhouse', '8', 'Shop floor', '4'], 'Tab', 0);
  await expect(page.getByText('2 entries.')).toBeVisible();
  await toPage(page, 'Sources', 'Departments');
  await page.getByRole('button', { name: 'Make a catalog of it' }).click();
  // The field is chosen by its heading already.
  await page.getByRole('button', { name: 'Use it for Department' }).click();
  await expect(page.getByText('Department in 1 sheet')).toBeVisible();
  await toPage(page, 'Sheets', /^Shifts/);
  await expect(page.getByText('Department: 2 outside')).toBeVisible();
  await cellAt(grid, 0, 0).dblclick();
  await page.getByRole('option', { name: 'Greenhouse' }).click();
  await expect(page.getByText('Department: 1 outside')).toBeVisible();
  await cellAt(grid, 1, 0).click();
  await page.keyboard.press('Alt+ArrowDown');
  await expect(page.getByRole('option', { name: 'Shop floor' })).toBeVisible();
  await page.keyboard.press('Enter');
  await expect(page.getByText(/^Department: \d outside$/)).toBeHidden();
  await expect
    .poll(() => rowsOf(grid))
    .toEqual([
      ['Greenhouse', '8'],
      ['Shop floor', '4'],
      ['type to add', ''],
    ]);
  await page.getByRole('combobox', { name: 'Search', exact: true }).fill('SH');
  await expect(page.getByRole('option', { name: /“SH” in Department of Shifts 1 entry/ })).toBeVisible();
});

test('a list that is called as a value in it gets another name: what is chosen in it keeps its own, also when that is taken back', async ({
  nursery: { page, clerk },
}) => {
  const grid = await ordersOf(page, { Tree: ['Ash', 'Other'], Other: ['Moss', 'Other'] });
  await typeAcross(page, ['other', 'other', '3', 'tree', 'other', '4', 'other', 'moss', '5'], 'Tab', 0);
  const rows = async (of = grid) => (await rowsOf(of)).slice(0, 3);
  const before = [
    ['Other', 'Other', '3'],
    ['Tree', 'Other', '4'],
    ['Other', 'Moss', '5'],
  ];
  await expect.poll(rows).toEqual(before);
  const other = await clerk();
  await other.getByRole('link', { name: /^Orders/ }).click();
  const theirs = other.getByRole('grid', { name: 'Orders' });
  await expect.poll(() => rows(theirs)).toEqual(before);

  await page.bringToFront();
  await toPage(page, 'Sources', /^Plants/);
  await page.getByRole('button', { name: 'More for Other' }).click();
  await page.getByRole('menuitem', { name: 'Rename' }).click();
  await page.keyboard.press('ControlOrMeta+a');
  await page.keyboard.type('Sundry');
  await page.keyboard.press('Enter');
  const impact = page.getByRole('region', { name: 'Impact' });
  await expect(impact.getByRole('heading', { name: 'Other becomes Sundry' })).toBeVisible();
  await expect(impact).toContainText('2entries hold it');
  await impact.getByText('Corrected', { exact: true }).click();
  await impact.getByRole('button', { name: 'Rename in 2 entries' }).click();
  await expect(impact).toBeHidden();
  await toPage(page, 'Sheets', /^Orders/);
  const after = before.map(([kind, ...rest]) => [kind === 'Other' ? 'Sundry' : kind!, ...rest]);
  await expect.poll(rows).toEqual(after);
  await expect.poll(() => rows(theirs)).toEqual(after);
  await expect(page.getByText('outside', { exact: false })).toBeHidden();

  await toPage(page, 'Sources', /^Plants/);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(impact.getByRole('heading', { name: 'Sundry becomes Other' })).toBeVisible();
  await impact.getByRole('button', { name: 'Rename in 2 entries' }).click();
  await expect(impact).toBeHidden();
  await page.reload();
  await toPage(page, 'Sheets', /^Orders/);
  await expect.poll(rows).toEqual(before);
  await expect.poll(() => rows(theirs)).toEqual(before);
});
