// What people do first, from an empty house, through the interface alone: with the mouse, with the keys, at any speed.
import { copyBlock, expect, giveChoices, makeSheet, makeSource, makeNewTable, rowsOf, test, typeAcross } from './nursery.js';

const sales = Array.from({ length: 12 }, (_, at): [string, string, string, string, string] => [
  `${at + 1}.11.2026`,
  ['Ada', 'Ben', 'Cora'][at % 3]!,
  at % 2 === 0 ? 'cash' : 'card',
  `${10 + at}.50`,
  at % 4 === 0 ? 'open' : 'paid',
]);
const shown = sales.map(([, seller, paid, amount, state], at) => [
  `${String(at + 1).padStart(2, '0')}.11.2026`,
  seller,
  paid,
  `${amount} EUR`,
  state,
]);
const salesFields = [['Day', 'a date'], ['Seller'], ['Paid by'], ['Amount', 'an amount of money'], ['State']] as const;

/** How they come: by key, milliseconds between keys, entries. */
const hands = [
  { key: 'Tab', delay: 0, count: 12 },
  { key: 'Enter', delay: 0, count: 6 },
  { key: 'Tab', delay: 60, count: 6 },
] as const;

test('a clerk types twenty-four sales across, at the speed of a person and as fast as keys come, with Tab and with Enter', async ({
  nursery: { page, clerk },
}) => {
  test.setTimeout(600_000);
  await makeSheet(page, 'Sales', salesFields);
  await giveChoices(page, 'Seller', 'Ada, Ben, Cora', 'Make a list of them');
  await giveChoices(page, 'Paid by', 'cash, card', 'Set these choices');
  await page.getByRole('link', { name: 'Sheets', exact: true }).click();
  const other = await clerk();
  await other.getByRole('link', { name: /^Sales/ }).click();
  await expect(other.getByText('type to add')).toBeVisible();
  const grid = other.getByRole('grid', { name: 'Sales' });
  const typed: string[][] = [];
  for (const { key, delay, count } of hands) {
    await typeAcross(other, sales.slice(0, count).flat(), key, delay);
    typed.push(...shown.slice(0, count));
    await expect(other.getByText(`${typed.length} entries.`)).toBeVisible();
    await expect.poll(async () => (await rowsOf(grid)).slice(0, typed.length)).toEqual(typed);
    // One undo takes a whole new entry back.
    await typeAcross(other, ['13.11.2026', 'Ada', 'cash'], key, delay);
    await expect(other.getByText(`${typed.length + 1} entries.`)).toBeVisible();
    await other.keyboard.press('Control+z');
    await expect(other.getByText(`${typed.length} entries.`)).toBeVisible();
    // One types on under the last entry.
    await grid.getByText('type to add').click();
  }
  // What the other browser sees is what was typed, and it is all there after a reload.
  await page.getByRole('link', { name: /^Sales/ }).click();
  await expect(page.getByText(`${typed.length} entries.`)).toBeVisible();
  await expect.poll(async () => (await rowsOf(page.getByRole('grid', { name: 'Sales' }))).slice(0, 12)).toEqual(typed.slice(0, 12));
  await other.reload();
  await expect(other.getByText(`${typed.length} entries.`)).toBeVisible();
  await expect.poll(async () => (await rowsOf(grid)).slice(0, 12)).toEqual(typed.slice(0, 12));
});

test(
  'with the mouse alone a list and a calendar are opened, a value chosen, an entry put in and taken out',
  { tag: '@main' },
  async ({ nursery: { page } }) => {
    const grid = await makeSheet(page, 'Sales', salesFields);
    await giveChoices(page, 'Seller', 'Ada, Ben, Cora', 'Make a list of them');
    await page.getByRole('button', { name: 'Close', exact: true }).first().click();
    const cell = (row: number, column: number) => grid.locator(`[role=gridcell][data-row="${row}"][data-column="${column}"]`);
    // The mark of a cell opens its list by one click; a double click does, too.
    await cell(0, 1).hover();
    await cell(0, 1).getByRole('button', { name: 'Open the list of Seller' }).click();
    await page.getByRole('option', { name: 'Ben' }).click();
    await expect(cell(0, 1)).toHaveText('Ben');
    await cell(0, 0).hover();
    await cell(0, 0).getByRole('button', { name: 'Open the calendar of Day' }).click();
    await page.getByRole('group', { name: 'Calendar of Day' }).getByRole('button', { name: /15/ }).first().click();
    await expect(cell(0, 0)).toContainText(/^15\./);
    await cell(1, 1).dblclick();
    await page.getByRole('option', { name: 'Cora' }).click();
    await expect(page.getByText('2 entries.')).toBeVisible();
    // The menu of the right button names its keys.
    await cell(0, 1).click({ button: 'right' });
    await expect(page.getByRole('menuitem', { name: /^New entry below/ })).toContainText('Alt Insert');
    await page.getByRole('menuitem', { name: /^New entry below/ }).click();
    await expect(page.getByText('3 entries.')).toBeVisible();
    await expect(cell(1, 0)).toBeFocused();
    await cell(2, 1).click({ button: 'right' });
    await page.getByRole('menuitem', { name: /^Delete the entry/ }).click();
    await expect(page.getByText('2 entries.')).toBeVisible();
    // The row number chooses the whole entry.
    await grid.getByRole('rowheader', { name: '1', exact: true }).click();
    await expect(grid.locator('[role=gridcell][data-row="0"][aria-selected=true]')).toHaveCount(5);
    // Columns are moved by their headings and widened by their edges.
    await grid.getByRole('columnheader', { name: /^State/ }).hover();
    await page.mouse.down();
    const target = (await grid.getByRole('columnheader', { name: /^Paid by/ }).boundingBox())!;
    await page.mouse.move(target.x + target.width / 2, target.y + target.height / 2, { steps: 12 });
    await page.mouse.up();
    await expect(grid.getByRole('columnheader').nth(3)).toContainText('State');
  },
);

test('a list opened by its mark while another cell is being typed in: each text stays with its own entry', async ({
  nursery: { page },
}) => {
  const grid = await makeSheet(page, 'Sales', salesFields);
  await giveChoices(page, 'Seller', 'Ada, Ben, Cora', 'Make a list of them');
  await giveChoices(page, 'State', 'open, paid', 'Make a list of them');
  await page.getByRole('button', { name: 'Close', exact: true }).first().click();
  const cell = (row: number, heading: string) =>
    grid.locator(`[role=gridcell][data-row="${row}"][data-column="${salesFields.findIndex(([name]) => name === heading)}"]`);
  const openBy = async (row: number, heading: string) => {
    await cell(row, heading).hover();
    await cell(row, heading)
      .getByRole('button', { name: `Open the list of ${heading}` })
      .click();
  };
  for (const row of [0, 1, 2]) {
    await openBy(row, 'Seller');
    await page.getByRole('option', { name: 'Ada' }).click();
    await expect(cell(row, 'Seller')).toHaveText('Ada');
  }
  // A whole value, left for another field, another entry, and both: it is stored where it was typed, and the other list is open at once.
  for (const [row, heading] of [
    [2, 'State'],
    [1, 'Seller'],
    [0, 'State'],
  ] as const) {
    const typed = row === 1 ? 'Cora' : 'Ben';
    await cell(2, 'Seller').click();
    await page.keyboard.type(typed, { delay: 20 });
    await openBy(row, heading);
    await expect(page.getByRole('option')).toHaveCount(heading === 'State' ? 2 : 3);
    await expect(cell(2, 'Seller')).toHaveText(typed);
    await page.keyboard.press('Escape');
    await page.keyboard.press('Escape');
    await expect(page.getByRole('option')).toHaveCount(0);
  }
  expect(await Promise.all([0, 1].map((row) => cell(row, 'Seller').textContent()))).toEqual(['Ada', 'Ada']);
  // What is refused stays where it was typed, too.
  await cell(2, 'Seller').click();
  await page.keyboard.type('nobody', { delay: 20 });
  await openBy(1, 'Seller');
  await page.getByRole('option', { name: 'Cora' }).click();
  await expect(cell(1, 'Seller')).toHaveText('Cora');
  await expect(cell(2, 'Seller')).toContainText('nobody');
  await expect(page.getByText('1 refused, kept for you')).toBeVisible();
});

test('what is refused holds nobody up: by keys one goes on and comes back, in a new entry, too', async ({ nursery: { page } }) => {
  const grid = await makeSheet(page, 'Sales', salesFields);
  await giveChoices(page, 'Seller', 'Ada, Ben, Cora', 'Make a list of them');
  await page.getByRole('button', { name: 'Close', exact: true }).first().click();
  const cell = (row: number, column: number) => grid.locator(`[role=gridcell][data-row="${row}"][data-column="${column}"]`);
  await cell(0, 0).click();
  for (const text of ['soon', '', 'nobody', '', 'cash', '12', 'open']) {
    await page.keyboard.type(text, { delay: 20 });
    await page.keyboard.press('Tab');
    if (text === 'soon' || text === 'nobody') await expect(page.getByRole('alert')).toContainText('once more goes on');
  }
  // One entry came of it; the two refused texts stand in their cells.
  await expect(page.getByText('1 entry.')).toBeVisible();
  await expect(page.getByText('2 refused, kept for you')).toBeVisible();
  await expect
    .poll(async () => (await rowsOf(grid)).slice(0, 1))
    .toEqual([[expect.stringContaining('soon'), expect.stringContaining('nobody'), 'cash', '12.00 EUR', 'open']]);
  // And back, with the other keys: opened, looked at, left; then mended.
  await cell(0, 1).click();
  await page.keyboard.press('F2');
  await page.keyboard.press('Shift+Tab');
  await expect(cell(0, 0)).toBeFocused();
  await page.keyboard.type('3.4.2026');
  await page.keyboard.press('Tab');
  await page.keyboard.type('Ben');
  await page.keyboard.press('Enter');
  await expect.poll(async () => (await rowsOf(grid)).slice(0, 1)).toEqual([['03.04.2026', 'Ben', 'cash', '12.00 EUR', 'open']]);
  await expect(page.getByText(/refused, kept/u)).toBeHidden();
});

test('with the keys alone entries are put in, typed, left, found and taken out', { tag: '@main' }, async ({ nursery: { page } }) => {
  const grid = await makeSheet(page, 'Orders', [['Item'], ['Count', 'a number'], ['Note']]);
  const active = grid.locator('[role=gridcell].active');
  // The sheet has the focus when it opens.
  await page.reload();
  await expect(active).toBeFocused();
  await typeAcross(page, ['spade', '2', 'green', 'rake', '1', ''], 'Tab', 0);
  await expect(page.getByText('2 entries.')).toBeVisible();
  // A new entry above gets what is typed next; the old one keeps its own.
  await page.keyboard.press('Control+Home');
  await page.keyboard.press('Insert');
  await typeAcross(page, ['hoe', '7'], 'Tab', 0);
  await expect
    .poll(async () => (await rowsOf(grid)).slice(0, 3))
    .toEqual([
      ['hoe', '7', ''],
      ['spade', '2', 'green'],
      ['rake', '1', ''],
    ]);
  await page.keyboard.press('Control+z');
  await expect
    .poll(async () => (await rowsOf(grid)).slice(0, 2))
    .toEqual([
      ['spade', '2', 'green'],
      ['rake', '1', ''],
    ]);
  // An arrow at the end of what is typed over a cell stores and moves; Shift and Enter go up.
  await page.keyboard.press('Control+Home');
  await page.keyboard.type('fork');
  await page.keyboard.press('ArrowRight');
  await page.keyboard.type('9');
  await page.keyboard.press('ArrowDown');
  await expect(grid.locator('[data-row="1"][data-column="1"].active')).toBeVisible();
  await page.keyboard.press('Shift+Enter');
  await expect(grid.locator('[data-row="0"][data-column="1"].active')).toBeVisible();
  await expect.poll(async () => (await rowsOf(grid))[0]).toEqual(['fork', '9', 'green']);
  // Out of the grid and back; the help; the finding of texts.
  await page.keyboard.press('F6');
  await expect(active).not.toBeFocused();
  await page.keyboard.press('F6');
  await expect(active).toBeFocused();
  await page.keyboard.press('?');
  await expect(page.getByRole('dialog', { name: 'A sheet' })).toContainText('a new entry above');
  await page.keyboard.press('Escape');
  await expect(page.getByRole('dialog')).toBeHidden();
  await active.focus();
  await page.keyboard.press('Control+f');
  await expect(page.getByRole('complementary', { name: 'Panel' }).getByRole('heading', { name: /Find/ })).toBeVisible();
  await active.focus();
  await page.keyboard.press('Shift+F10');
  await expect(page.getByRole('menu')).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(active).toBeFocused();
  await page.keyboard.press('Shift+Space');
  await page.keyboard.press('Control+Delete');
  await expect(page.getByText('1 entry.')).toBeVisible();
  await page.keyboard.press('Control+z');
  await expect(page.getByText('2 entries.')).toBeVisible();
});

test('a slow answer takes no new entry off the screen, and what is typed in an entry that goes is no other one’s', async ({
  nursery: { page, clerk },
}) => {
  const grid = await makeSheet(page, 'Orders', [['Item'], ['Count', 'a number']]);
  await typeAcross(page, ['spade', '2', 'rake', '1'], 'Tab', 0);
  await expect(page.getByText('2 entries.')).toBeVisible();
  const other = await clerk();
  await other.getByRole('link', { name: /^Orders/ }).click();
  const theirs = other.getByRole('grid', { name: 'Orders' });
  await expect(theirs.getByRole('gridcell', { name: 'rake' })).toBeVisible();
  // Pages of entries come slowly here: one that was asked for before the new entry arrives after it.
  const held: (() => void)[] = [];
  let slow = true;
  await other.route(/\/entries\?/, async (route) => {
    const answer = await route.fetch();
    if (slow) await new Promise<void>((go) => held.push(go));
    await route.fulfill({ response: answer });
  });
  await page.bringToFront();
  await grid.locator('[data-row="2"][data-column="0"]').click();
  await typeAcross(page, ['fork', '3'], 'Tab', 0);
  await expect.poll(() => held.length).toBeGreaterThan(0);
  await theirs.locator('[data-row="0"][data-column="0"]').click();
  await other.keyboard.press('Insert');
  await other.keyboard.type('ho');
  held.splice(0).forEach((go) => go());
  await other.keyboard.type('e');
  await other.keyboard.press('Tab');
  await other.keyboard.type('7');
  slow = false;
  held.splice(0).forEach((go) => go());
  await other.keyboard.press('Tab');
  await expect
    .poll(async () => (await rowsOf(theirs)).slice(0, 4))
    .toEqual([
      ['hoe', '7'],
      ['spade', '2'],
      ['rake', '1'],
      ['fork', '3'],
    ]);
  // An entry is deleted elsewhere while somebody types in it.
  await theirs.locator('[data-row="1"][data-column="0"]').click();
  await other.keyboard.type('shovel');
  await grid.locator('[data-row="1"][data-column="0"]').click();
  await page.keyboard.press('Control+Delete');
  await expect(other.getByText('3 entries.')).toBeVisible();
  await other.keyboard.press('Enter');
  await expect(other.getByText('“shovel” was not stored')).toBeVisible();
  await expect
    .poll(async () => (await rowsOf(theirs)).slice(0, 3))
    .toEqual([
      ['hoe', '7'],
      ['rake', '1'],
      ['fork', '3'],
    ]);
});

test('a refused first value makes no entry for others to see, and is right by itself once the list has it', async ({
  nursery: { page, clerk },
}) => {
  await makeSheet(page, 'Sales', salesFields);
  await giveChoices(page, 'Seller', 'Ada, Ben', 'Make a list of them');
  const other = await clerk();
  await other.getByRole('link', { name: /^Sales/ }).click();
  await expect(other.getByText('type to add')).toBeVisible();
  await other.keyboard.press('Tab');
  await typeAcross(other, ['Cora'], 'Enter', 0);
  await expect(other.getByRole('alert')).toContainText('“Cora” is not in Seller.');
  // The list stands open beside what was refused.
  await expect(other.getByRole('option')).toHaveText(['Ada', 'Ben']);
  await other.keyboard.press('Escape');
  await expect(page.getByText('0 entries.')).toBeVisible();
  await other.keyboard.type('Dora');
  await other.keyboard.press('Enter');
  await expect(other.getByRole('alert')).toContainText('“Dora” is not in Seller.');
  await other.keyboard.press('Shift+Tab');
  await other.getByRole('columnheader', { name: /^State/ }).click();
  // The administrator adds the value; what was typed is taken without anybody touching it.
  await page.getByRole('link', { name: 'Catalogs' }).click();
  await page.getByRole('link', { name: 'Seller' }).click();
  await page.getByLabel('Add a value').fill('Dora');
  await page.keyboard.press('Enter');
  await expect(other.getByText('1 entry.')).toBeVisible();
  await expect(other.getByRole('grid').getByRole('gridcell', { name: 'Dora' })).toBeVisible();
});

test('twenty wrong cells of two hundred are mended in one place', { tag: '@main' }, async ({ nursery: { page } }) => {
  const grid = await makeSheet(page, 'Visits', [['Bed'], ['Note']]);
  await giveChoices(page, 'Bed', 'North bed, South bed, East bed, West bed', 'Make a list of them');
  await copyBlock(
    page,
    Array.from({ length: 200 }, (_, at) => [at % 10 === 3 ? 'Nroth bed' : 'West bed', `note ${at}`]),
  );
  await grid.getByText('type to add').click();
  await page.keyboard.press('Control+v');
  await expect(page.getByText('380 cells were taken, 20 refused and kept in their cells.')).toBeVisible();
  await page.getByRole('button', { name: '20 refused, kept for you' }).click();
  const panel = page.getByRole('complementary', { name: 'Panel' });
  await expect(panel.getByRole('button', { name: 'Bed, row 4', exact: true })).toBeVisible();
  await panel.getByRole('button', { name: 'Use all suggestions (20)' }).click();
  await expect(panel.getByText('All of them are settled.')).toBeVisible();
  await page.keyboard.press('Escape');
  await expect.poll(async () => (await rowsOf(grid)).filter(([bed]) => bed === 'Nroth bed').length).toBe(0);
});

test('a new entry is taken back as a whole; what is corrected in it afterwards, by itself', async ({ nursery: { page } }) => {
  const grid = await makeSheet(page, 'Loans', [['Item'], ['State'], ['Count', 'a number']]);
  await giveChoices(page, 'State', 'out, back, lost', 'Set these choices');
  await page.getByRole('complementary', { name: 'Panel' }).getByRole('button', { name: 'Close' }).click();
  await grid.getByText('type to add').click();
  await typeAcross(page, ['drill', 'out', '3'], 'Tab', 0);
  const first = async () => (await rowsOf(grid))[0];
  await expect.poll(first).toEqual(['drill', 'out', '3']);
  await expect(page.getByText('1 entry.', { exact: true })).toBeVisible();
  // One is still in the entry, by keys and by the mouse.
  await grid.locator('[data-row="0"][data-column="1"]').first().click();
  await page.keyboard.press('Alt+ArrowDown');
  await page.getByRole('option', { name: 'lost' }).click();
  await expect.poll(first).toEqual(['drill', 'lost', '3']);
  await page.keyboard.press('ArrowRight');
  await typeAcross(page, ['4'], 'Enter', 0);
  await expect.poll(first).toEqual(['drill', 'lost', '4']);
  for (const left of [
    ['drill', 'lost', '3'],
    ['drill', 'out', '3'],
    ['type to add', '', ''],
  ]) {
    await page.keyboard.press('Control+z');
    await expect.poll(first).toEqual(left);
  }
  for (const back of [
    ['drill', 'out', '3'],
    ['drill', 'lost', '3'],
    ['drill', 'lost', '4'],
  ]) {
    await page.keyboard.press('Control+y');
    await expect.poll(first).toEqual(back);
  }
});

test('percentages stay what they are however often the rule is set, also with a decimal comma', async ({ nursery: { page } }) => {
  const grid = await makeSheet(page, 'Rates', [['Item'], ['Rate', 'a percentage']]);
  await giveChoices(page, 'Rate', '5 %, 12.5 %, 100 %, 1 %', 'Set these choices');
  const panel = page.getByRole('complementary', { name: 'Panel' });
  for (let time = 0; time < 3; time++) {
    await panel.getByRole('button', { name: '5 %, 12.5 %, 100 %, 1 %', exact: true }).click();
    await page.getByRole('button', { name: 'Take these values' }).click();
    await panel.getByRole('button', { name: 'Set this rule' }).click();
    await expect(panel.getByRole('button', { name: 'Set this rule' })).toBeHidden();
  }
  await grid.locator('[data-row="0"][data-column="1"]').first().click();
  // 1 is one percent, and never the stored 1, which is a hundred; a choice is what it shows.
  await page.keyboard.type('1');
  await page.keyboard.press('Enter');
  await grid.locator('[data-row="1"][data-column="1"]').first().click();
  await page.keyboard.press('Alt+ArrowDown');
  await page.getByRole('option', { name: '100 %' }).click();
  await expect.poll(async () => (await rowsOf(grid)).map(([, rate]) => rate).slice(0, 2)).toEqual(['1 %', '100 %']);
  await page.getByRole('link', { name: 'House', exact: true }).click();
  await page.getByLabel('Decimal sign').selectOption({ label: 'comma: 12,5' });
  await page.getByRole('button', { name: 'Save the house' }).click();
  await expect(page.getByText('The house writes so from now on.', { exact: false })).toBeVisible();
  await page.getByRole('link', { name: 'Sheets', exact: true }).click();
  await page.getByRole('link', { name: /^Rates/ }).click();
  await expect(grid.getByRole('columnheader', { name: /^Rate/ })).toContainText('12,5 %');
  await expect(page.getByText('type to add')).toBeVisible();
  await page.keyboard.press('Tab');
  await typeAcross(page, ['12,5'], 'Enter', 0);
  await expect.poll(async () => (await rowsOf(grid)).map(([, rate]) => rate).slice(0, 3)).toEqual(['1 %', '100 %', '12,5 %']);
});

test('a pasted table of five thousand rows becomes three fields that narrow one another, with the price', async ({ nursery: { page } }) => {
  const grid = await makeSheet(page, 'Orders', [['Customer']]);
  await makeSource(page, 'Stock');
  await expect(page.getByLabel('Heading of the new list')).toBeVisible();
  await copyBlock(page, [
    ['Group', 'Sub-group', 'Article', 'Price'],
    ...Array.from({ length: 5000 }, (_, at) => [`Group ${at % 8}`, `Sub ${at % 40}`, `Article ${at}`, `${(at % 90) + 0.5}`]),
  ]);
  await page.keyboard.press('Control+v');
  await page.getByRole('button', { name: 'Make a table of it' }).click();
  await page.getByRole('button', { name: 'Make a catalog of it' }).click({ timeout: 60_000 });
  await page.getByRole('button', { name: 'Add Group, Sub-group, Article and Price to Orders' }).click({ timeout: 60_000 });
  await expect(page.getByText('Price comes along with Article.')).toBeVisible();
  await page.getByRole('button', { name: 'Use it for 3 fields' }).click();
  await expect(page.getByText('Group, Sub-group, Article take their values from Stock from now on.')).toBeVisible();
  await page.getByRole('link', { name: 'Sheets', exact: true }).click();
  await page.getByRole('link', { name: /^Orders/ }).click();
  await expect(page.getByText('type to add')).toBeVisible();
  // An article typed first fills its groups; a group chosen first narrows what follows.
  await typeAcross(page, ['Ada', '', '', 'Article 17', ''], 'Tab', 0);
  await expect.poll(async () => (await rowsOf(grid))[0]).toEqual(['Ada', 'Group 1', 'Sub 17', 'Article 17', '17.5']);
  await grid.locator('[data-row="0"][data-column="1"]').first().click();
  await typeAcross(page, ['Group 2'], 'Tab', 0);
  await expect.poll(async () => (await rowsOf(grid))[0]!.slice(0, 4)).toEqual(['Ada', 'Group 2', '', '']);
});

test('people leave and come back, change their password, and their entries stay', async ({ nursery: { page, clerk } }) => {
  await makeSheet(page, 'Notes', [['Text']]);
  const other = await clerk();
  await other.getByRole('link', { name: /^Notes/ }).click();
  await expect(other.getByText('type to add')).toBeVisible();
  await typeAcross(other, ['watered'], 'Enter', 0);
  await expect(other.getByText('1 entry.')).toBeVisible();
  await other.goto('/account');
  await other.getByLabel('Password you have now').fill('not-this-one');
  await other.getByLabel('New password').fill('another-long-one');
  await other.getByRole('button', { name: 'Change the password' }).click();
  await expect(other.getByText('This is not the password you have now.').first()).toBeVisible();
  await other.getByLabel('Password you have now').fill('a-long-password');
  await other.getByRole('button', { name: 'Change the password' }).click();
  await expect(other.getByText('Your password is changed.', { exact: false })).toBeVisible();
  await expect(other.getByText('This browser')).toBeVisible();
  await page.getByRole('link', { name: 'People' }).click();
  await page.getByRole('button', { name: 'Put Pell Hawk out of the house' }).click();
  await expect(page.getByText('Pell Hawk is put out of the house; entries and history stay.')).toBeVisible();
  await other.goto('/sheets');
  await other.getByLabel('Sign-in name').fill('pell');
  await other.getByLabel('Password').fill('another-long-one');
  await other.getByRole('button', { name: 'Sign in' }).click();
  await expect(other.getByText('You are not let into this house any more.', { exact: false })).toBeVisible();
  await page.getByRole('button', { name: 'Let Pell Hawk in again' }).click();
  await other.getByRole('button', { name: 'Sign in' }).click();
  await other.getByRole('link', { name: /^Notes/ }).click();
  await expect(other.getByText('watered')).toBeVisible();
});

test('rows of a list and of a table are typed across, and one undo takes a row back', async ({ nursery: { page } }) => {
  await makeSource(page, 'Lists');
  // Nobody waits for the list to appear under its heading.
  const growers = page.getByRole('grid', { name: 'Growers' });
  await page.getByLabel('Heading of the new list').click();
  await typeAcross(page, ['Growers', 'Fenn', 'Marsh', 'Holt'], 'Enter', 0);
  await expect.poll(() => rowsOf(growers)).toEqual([['Fenn'], ['Marsh'], ['Holt'], ['type to add']]);
  const pots = await makeNewTable(page, 'Pots', [['Size'], ['Price', 'an amount of money']]);
  await typeAcross(page, ['small', '1.20', 'large', '4'], 'Tab', 0);
  await expect
    .poll(() => rowsOf(pots))
    .toEqual([
      ['small', '1.20 EUR'],
      ['large', '4.00 EUR'],
      ['type to add', ''],
    ]);
  await page.keyboard.press('Control+z');
  await expect
    .poll(() => rowsOf(pots))
    .toEqual([
      ['small', '1.20 EUR'],
      ['type to add', ''],
    ]);
  // The list feeds a field in a few acts.
  await growers.getByRole('gridcell', { name: 'Fenn' }).click();
  await page.getByRole('button', { name: 'Make a catalog of it' }).click();
  await expect(page.getByText('There are no fields yet.', { exact: false })).toBeVisible();
});
