// Answers come late, in any order, or not at all: what one has typed stays where it was typed, and no key lands elsewhere.
import type { Page } from '@playwright/test';
import {
  cellAt,
  closePanel,
  expect,
  expectOptions,
  giveChoices,
  makeNewTable,
  makeSheet,
  makeSource,
  openField,
  panel,
  rowsOf,
  test,
  toPage,
  typeAcross,
} from './nursery.js';

test('a new entry stays on screen while answers about other things are still coming, and a new one above it takes what is typed next', async ({
  nursery: { page },
}) => {
  const grid = await makeSheet(page, 'Orders', [['Item'], ['Count', 'a number']]);
  // What is counted beside the sheet takes its time.
  let counted = () => {};
  const late = new Promise<void>((done) => (counted = done));
  await page.route('**/counts', async (route) => {
    await late;
    await route.continue();
  });
  const stored = (method: string) =>
    page.waitForResponse((response) => response.request().method() === method && response.url().includes('/entries/'));
  await page.reload();
  await expect(grid.locator('.active')).toBeFocused();
  for (const item of ['spade', 'rake']) {
    const answered = stored('PATCH');
    await typeAcross(page, [item, '2'], 'Tab', 0);
    await answered;
  }
  await expect
    .poll(() => rowsOf(grid))
    .toEqual([
      ['spade', '2'],
      ['rake', '2'],
      ['type to add', ''],
    ]);
  await grid.getByText('spade').click();
  await page.keyboard.press('Alt+Insert');
  await typeAcross(page, ['hoe', '3'], 'Tab', 0);
  const all = [
    ['spade', '2'],
    ['hoe', '3'],
    ['rake', '2'],
    ['type to add', ''],
  ];
  await expect.poll(() => rowsOf(grid)).toEqual(all);
  counted();
  await expect(page.getByText('3 entries.')).toBeVisible();
  await page.reload();
  await expect.poll(() => rowsOf(grid)).toEqual(all);
});

test('what is typed into a table while the server is away stays in its cells, also through a reload, and is stored when it is back', async ({
  nursery: { page },
}) => {
  await makeSource(page, 'Lists');
  const pots = await makeNewTable(page, 'Pots', [['Size'], ['Price', 'an amount of money']]);
  await typeAcross(page, ['small', '1.20'], 'Tab', 0);
  await expect.poll(() => rowsOf(pots)).toContainEqual(['small', '1.20 EUR']);
  await page.route('**/api/**', (route) => route.abort());
  await typeAcross(page, ['large', '4', 'huge', '9.50'], 'Tab', 0);
  await pots.getByText('small').click();
  await typeAcross(page, ['tiny'], 'Tab', 0);
  await expect(page.getByRole('alert')).toContainText('5 cells are kept here');
  const kept = [
    ['tiny', '1.20 EUR'],
    ['large', '4'],
    ['huge', '9.50'],
    ['type to add', ''],
  ];
  await expect.poll(() => rowsOf(pots)).toEqual(kept);
  // Only what stores is away still: what was typed is there after a reload.
  await page.route('**/acts', (route) => route.abort());
  await page.unroute('**/api/**');
  await page.reload();
  await expect.poll(() => rowsOf(pots)).toEqual(kept);
  await page.unroute('**/acts');
  await expect
    .poll(() => rowsOf(pots))
    .toEqual([
      ['tiny', '1.20 EUR'],
      ['large', '4.00 EUR'],
      ['huge', '9.50 EUR'],
      ['type to add', ''],
    ]);
  await expect(page.getByRole('alert')).toBeHidden();
});

/** The server is not found to be back until one says so: what is said meanwhile stands still, however slow the machine is. */
async function heldAway(page: Page): Promise<() => void> {
  let back = () => {};
  const isBack = new Promise<void>((done) => (back = done));
  await page.route('**/health', async (route) => {
    await isBack;
    await route.continue();
  });
  return () => back();
}

test('a row one types in stays while those begun before it come to nothing', async ({ nursery: { page } }) => {
  await makeSource(page, 'Lists');
  const pots = await makeNewTable(page, 'Pots', [['Size'], ['Price', 'an amount of money']]);
  let lose = () => {};
  const held = new Promise<void>((done) => (lose = done));
  await page.route('**/acts', async (route) => {
    await held;
    await route.abort();
  });
  await typeAcross(page, ['small', '1.20', 'large', '4', 'huge'], 'Tab', 0);
  await page.keyboard.type('9.5');
  const beThere = await heldAway(page);
  lose();
  await expect(page.getByRole('alert')).toContainText('5 cells are kept here');
  // What waits is about to be stored, beginning with a look at the list, while the last cell comes to wait, too.
  let goOn = () => {};
  const looks = new Promise<void>((done) => (goOn = done));
  let looked = () => {};
  const isLooking = new Promise<void>((done) => (looked = done));
  await page.route('**/entries/packed?from=0', async (route) => {
    looked();
    await looks;
    await route.continue();
  });
  beThere();
  await isLooking;
  await typeAcross(page, ['0'], 'Tab', 0);
  await expect(page.getByRole('alert')).toContainText('6 cells are kept here');
  const tried = page.waitForEvent('requestfailed', (request) => request.url().endsWith('/acts'));
  goOn();
  await tried;
  await expect(page.getByRole('alert')).toContainText('6 cells are kept here');
  await page.unroute('**/acts');
  await expect
    .poll(() => rowsOf(pots))
    .toEqual([
      ['small', '1.20 EUR'],
      ['large', '4.00 EUR'],
      ['huge', '9.50 EUR'],
      ['type to add', ''],
    ]);
});

test('what could not be stored while that of before is being stored waits for its turn, and is stored then', async ({
  nursery: { page },
}) => {
  await makeSource(page, 'Lists');
  const pots = await makeNewTable(page, 'Pots', [['Size'], ['Price', 'an amount of money']]);
  let isAway = true;
  await page.route('**/acts', (route) => (isAway ? route.abort() : route.continue()));
  await typeAcross(page, ['small', '1.20'], 'Tab', 0);
  await expect(page.getByRole('alert')).toContainText('2 cells are kept here');
  // The server is back for a moment: what waits is about to be stored, and its answer takes a while.
  let goOn = () => {};
  const held = new Promise<void>((done) => (goOn = done));
  const looks = new Promise<void>((done) => {
    void page.route('**/entries/packed?from=0', async (route) => {
      done();
      await held;
      await route.continue();
    });
  });
  await looks;
  const beThere = await heldAway(page);
  await typeAcross(page, ['large', '4'], 'Tab', 0);
  await expect(page.getByRole('alert')).toContainText('4 cells are kept here');
  isAway = false;
  beThere();
  await expect(page.getByRole('alert')).toBeHidden();
  goOn();
  await expect
    .poll(() => rowsOf(pots))
    .toEqual([
      ['small', '1.20 EUR'],
      ['large', '4.00 EUR'],
      ['type to add', ''],
    ]);
});

test('in a sheet, too, what began to wait while that of before is on its way is stored after it', async ({ nursery: { page } }) => {
  const grid = await makeSheet(page, 'Orders', [['Item'], ['Count', 'a number']]);
  for (const item of ['spade', 'rake']) {
    const isStored = page.waitForResponse((response) => response.request().postData()?.includes('"text":"1"') ?? false);
    await typeAcross(page, [item, '1'], 'Tab', 0);
    await isStored;
  }
  let lost: 'all' | 'others' | 'none' = 'all';
  let goOn = () => {};
  const held = new Promise<void>((done) => (goOn = done));
  let caught = () => {};
  const isCaught = new Promise<void>((done) => (caught = done));
  await page.route('**/entries/*', async (route) => {
    const isFirst = route.request().postData()?.includes('"text":"2"') ?? false;
    if (lost === 'all' || (lost === 'others' && !isFirst)) return route.abort();
    if (isFirst) {
      caught();
      await held;
    }
    return route.continue();
  });
  await cellAt(grid, 0, 1).click();
  await page.keyboard.type('2');
  await page.keyboard.press('Tab');
  await expect(page.getByRole('alert')).toContainText('1 cell is kept here');
  lost = 'others';
  await isCaught;
  const beThere = await heldAway(page);
  await cellAt(grid, 1, 1).click();
  await page.keyboard.type('3');
  await page.keyboard.press('Tab');
  await expect(page.getByRole('alert')).toContainText('kept here');
  lost = 'none';
  beThere();
  await expect(page.getByRole('alert')).toBeHidden();
  goOn();
  const all = [
    ['spade', '2'],
    ['rake', '3'],
  ];
  await expect.poll(() => page.getByRole('gridcell', { name: 'waits to be stored' }).count()).toBe(0);
  await page.reload();
  await expect.poll(async () => (await rowsOf(grid)).slice(0, 2)).toEqual(all);
});

test('what is typed into a table is shown as it is stored once it is, also where nothing comes over the stream', async ({
  nursery: { page },
}) => {
  await makeSource(page, 'Lists');
  const pots = await makeNewTable(page, 'Pots', [['Size'], ['Price', 'an amount of money']]);
  await page.route('**/api/v1/live**', (route) => route.abort());
  await page.reload();
  await pots.getByText('type to add').click();
  await typeAcross(page, ['small', '1.20', 'large', '4'], 'Tab', 0);
  await expect
    .poll(() => rowsOf(pots))
    .toEqual([
      ['small', '1.20 EUR'],
      ['large', '4.00 EUR'],
      ['type to add', ''],
    ]);
});

test('what is typed into a row that somebody deletes at the same moment is kept below the others, and can be entered anew', async ({
  nursery: { page },
}) => {
  await makeSource(page, 'Lists');
  await page.getByLabel('Heading of the new list').fill('Growers');
  await page.keyboard.press('Enter');
  const growers = page.getByRole('grid', { name: 'Growers' });
  await expect(growers.locator('.active')).toBeFocused();
  await typeAcross(page, ['Fenn', 'Marsh', 'Holt'], 'Enter', 0);
  // They are stored when another browser sees them.
  const other = await page.context().newPage();
  await other.goto(page.url());
  const elsewhere = other.getByRole('grid', { name: 'Growers' });
  await expect.poll(() => rowsOf(elsewhere)).toEqual([['Fenn'], ['Marsh'], ['Holt'], ['type to add']]);
  let release = () => {};
  const held = new Promise<void>((done) => (release = done));
  await page.route('**/acts', async (route) => {
    await held;
    await route.continue();
  });
  await growers.getByText('Marsh').click();
  await typeAcross(page, ['Marshland'], 'Enter', 0);
  await typeAcross(page, ['Holt and Son'], 'Enter', 0);
  await elsewhere.getByText('Marsh').click();
  await other.keyboard.press('Control+Delete');
  await expect.poll(() => rowsOf(elsewhere)).toEqual([['Fenn'], ['Holt'], ['type to add']]);
  release();
  const kept = [['Fenn'], ['Holt and Son'], ['Marshland'], ['type to add']];
  await expect.poll(() => rowsOf(growers)).toEqual(kept);
  await expect.poll(() => rowsOf(elsewhere)).toEqual([['Fenn'], ['Holt and Son'], ['type to add']]);
  // Entered once more it becomes a row of its own.
  await growers.getByText('Marshland').dblclick();
  await page.keyboard.press('Enter');
  await expect.poll(() => rowsOf(elsewhere)).toEqual(kept);
  await expect.poll(() => rowsOf(growers)).toEqual(kept);
});

test('a sheet that is deleted while somebody types in it, and keeps a refused text in it, says what was not stored', async ({
  nursery: { page, clerk },
}) => {
  await makeSheet(page, 'Orders', [['Item'], ['Count', 'a number']]);
  const other = await clerk();
  await other.getByRole('link', { name: /^Orders/ }).click();
  await expect(other.getByText('type to add')).toBeVisible();
  await typeAcross(other, ['spade', 'many'], 'Tab', 0);
  const orders = other.getByRole('grid', { name: 'Orders' });
  await orders.getByText('spade').click();
  await other.keyboard.type('a spade with a long handle');
  await page.getByRole('button', { name: 'More for Orders' }).click();
  await page.getByRole('menuitem', { name: 'Delete the sheet' }).click();
  await page
    .getByRole('alertdialog')
    .getByRole('button', { name: /^Delete/ })
    .click();
  await expect(other.getByText(/Orders is not there any more; .*“many”/)).toBeVisible();
  await expect(other.getByText('“a spade with a long handle” was not stored.', { exact: false })).toBeVisible();
});

test('what others change is seen at once, also while one answer never comes, or one of before comes late', async ({
  nursery: { page, clerk },
}) => {
  const grid = await makeSheet(page, 'Orders', [['Item'], ['State']]);
  await giveChoices(page, 'State', 'to do, doing', 'Make a list of them');
  await closePanel(page);
  await typeAcross(page, ['spade', 'to do'], 'Tab', 0);
  await expect.poll(() => rowsOf(grid)).toContainEqual(['spade', 'to do']);
  const other = await clerk();
  // What is counted beside the sheet is never answered; the first answer about the list is of before, and late.
  await other.route('**/counts', () => {});
  let answer = () => {};
  const late = new Promise<void>((done) => (answer = done));
  let asked = () => {};
  const first = new Promise<void>((done) => (asked = done));
  await other.route(
    '**/catalogs/*/items/packed*',
    async (route) => {
      const response = await route.fetch();
      asked();
      await late;
      await route.fulfill({ response });
    },
    { times: 1 },
  );
  await other.getByRole('link', { name: /^Orders/ }).click();
  const theirs = other.getByRole('grid', { name: 'Orders' });
  await expect.poll(() => rowsOf(theirs)).toContainEqual(['spade', 'to do']);
  await first;
  await toPage(page, 'Catalogs', 'State');
  await page.getByRole('table').getByRole('button', { name: 'doing', exact: true }).click();
  await panel(page).getByRole('button', { name: 'Correct …' }).click();
  await page.keyboard.press('Control+a');
  await typeAcross(page, ['under way'], 'Enter', 0);
  await expect(page.getByRole('table').getByRole('button', { name: 'under way' })).toBeVisible();
  await toPage(page, 'Sheets', /^Orders/);
  await expect(grid.getByText('type to add')).toBeVisible();
  await typeAcross(page, ['rake'], 'Enter', 0);
  await expect.poll(() => rowsOf(theirs)).toContainEqual(['rake', '']);
  answer();
  await cellAt(theirs, 0, 1).dblclick();
  await expectOptions(other, ['to do', 'under way']);
});

test('what one has just typed counts for the next cell, also while its answer is late and the one before it has come', async ({
  nursery: { page },
}) => {
  const grid = await makeSheet(page, 'Checks', [['Answer'], ['Begun', 'a date'], ['Ended', 'a date']]);
  await openField(page, 'Ended');
  await page.getByRole('button', { name: 'a date within bounds' }).click();
  await page.getByRole('button', { name: 'of any day' }).click();
  await page.getByRole('combobox', { name: 'From' }).selectOption({ label: 'After Begun' });
  await page.getByRole('button', { name: 'Set the bounds' }).click();
  await page.getByRole('button', { name: 'Set this rule' }).click();
  await expect(page.getByText('The rule of Ended holds from now on.')).toBeVisible();
  let answer = () => {};
  const held = new Promise<void>((done) => (answer = done));
  await page.route('**/entries/*', async (route) => {
    if (route.request().method() === 'PATCH') await held;
    await route.continue();
  });
  const begun = page.waitForResponse((response) => response.request().method() === 'PUT');
  await grid.getByText('type to add').click();
  await typeAcross(page, ['perhaps', '5.11.2026'], 'Tab', 0);
  await begun;
  await expect.poll(async () => (await rowsOf(grid))[0]).toEqual(['perhaps', '05.11.2026', '']);
  await typeAcross(page, ['5.11.2026'], 'Tab', 0);
  await expect(page.getByRole('alert')).toContainText('Ended must not be before 1 day after Begun (06.11.2026).');
  answer();
  await page.keyboard.press('Control+a');
  await typeAcross(page, ['6.11.2026'], 'Tab', 0);
  await expect.poll(async () => (await rowsOf(grid))[0]).toEqual(['perhaps', '05.11.2026', '06.11.2026']);
});

for (const slow of [200, 400])
  test(`a new entry typed across stays one where the end lies on two pages, and the one from ${slow} on is answered late`, async ({
    nursery: { page },
  }) => {
    const lines = Array.from({ length: 425 }, (_, at) => `V${at}\t${at}\tremark ${at}\t${at}`);
    await page.getByRole('button', { name: /^Drop files here/ }).focus();
    await page.evaluate((text) => navigator.clipboard.writeText(text), ['Visit\tLength\tRemark\tPieces', ...lines].join('\n'));
    await page.keyboard.press('Control+v');
    await page.getByRole('button', { name: 'Apply the proposal' }).click();
    await page.getByRole('link', { name: 'Pasted table', exact: true }).click();
    const grid = page.getByRole('grid', { name: 'Pasted table' });
    await expect(grid.getByText('V424')).toBeVisible();
    await page.route(`**/entries?from=${slow}&**`, async (route) => {
      const response = await route.fetch();
      await new Promise((resolve) => setTimeout(resolve, 700));
      await route.fulfill({ response });
    });
    await grid.getByText('type to add').click();
    for (const visit of ['W1', 'W2']) {
      for (const text of [visit, '12', 'late', '7']) {
        await page.keyboard.type(text, { delay: 30 });
        await page.keyboard.press('Tab', { delay: 60 });
      }
    }
    await expect
      .poll(async () => (await rowsOf(grid)).slice(-3))
      .toEqual([
        ['W1', '12', 'late', '7'],
        ['W2', '12', 'late', '7'],
        ['type to add', '', '', ''],
      ]);
    await expect(page.getByText('427 entries.')).toBeVisible();
  });

test('a new list takes the cursor, also where others show it before the answer to whoever made it', async ({ nursery: { page } }) => {
  await makeSource(page, 'Lists');
  const [mine, theirs] = ['Beds', 'Pots'].map((name) => page.getByRole('grid', { name }));
  const other = await page.context().newPage();
  await other.goto(page.url());
  // Somebody else's list is asked for and comes late: with it comes one's own, before the answer that one waits for.
  let made = () => {};
  const isMade = new Promise<void>((done) => (made = done));
  let asked = 0;
  await page.route('**/build', async (route) => {
    asked += 1;
    if (asked === 1) await isMade;
    else await expect(mine!).toBeVisible();
    await route.continue();
  });
  await page.route('**/lists', async (route) => {
    const response = await route.fetch();
    made();
    await route.fulfill({ response });
  });
  await other.getByLabel('Heading of the new list').fill('Pots');
  await other.keyboard.press('Enter');
  await expect.poll(() => asked).toBe(1);
  await page.getByLabel('Heading of the new list').fill('Beds');
  await page.keyboard.press('Enter');
  await expect(theirs!).toBeVisible();
  await expect(mine!.locator('.active')).toBeFocused();
  await typeAcross(page, ['North', 'South'], 'Enter', 0);
  await expect.poll(() => rowsOf(mine!)).toEqual([['North'], ['South'], ['type to add']]);
});

test('what is typed while a new list is being made goes under its heading, also when it is made at the second try', async ({
  nursery: { page },
}) => {
  await makeSource(page, 'Lists');
  let typed = () => {};
  const isTyped = new Promise<void>((done) => (typed = done));
  await page.route('**/lists', async (route) => {
    await isTyped;
    await route.continue();
  });
  await page.getByLabel('Heading of the new list').click();
  await typeAcross(page, ['Beds', 'North', 'South'], 'Enter', 0);
  await page.keyboard.type('Ea');
  typed();
  const beds = page.getByRole('grid', { name: 'Beds' });
  // One goes on in the middle of a word.
  await expect(beds.getByRole('textbox')).toHaveValue('Ea');
  await typeAcross(page, ['st', 'West'], 'Enter', 0);
  await expect.poll(() => rowsOf(beds)).toEqual([['North'], ['South'], ['East'], ['West'], ['type to add']]);
  // A list that is refused keeps what was meant for it.
  await page.unroute('**/lists');
  let typedToo = () => {};
  const isTypedToo = new Promise<void>((done) => (typedToo = done));
  await page.route(
    '**/lists',
    async (route) => {
      await isTypedToo;
      await route.abort();
    },
    { times: 1 },
  );
  await page.getByLabel('Heading of the new list').click();
  await typeAcross(page, ['Pots', 'small'], 'Enter', 0);
  typedToo();
  await expect(page.getByLabel('Heading of the new list')).toHaveValue('Pots');
  await page.getByRole('region', { name: 'New list' }).getByRole('button', { name: 'Add' }).click();
  await expect.poll(() => rowsOf(page.getByRole('grid', { name: 'Pots' }))).toEqual([['small'], ['type to add']]);
});

test('a page, a menu and a calendar that cannot be fetched break nothing, and are there once they can', async ({ nursery: { page } }) => {
  await page.route(/\/assets\/(PersonMenu|Calendar)/u, (route) => route.abort());
  await page.route(/\/assets\/FormsPage/u, (route) => route.abort());
  const grid = await makeSheet(page, 'Orders', [['Day', 'a date']]);
  await cellAt(grid, 0, 0).hover();
  await cellAt(grid, 0, 0).getByRole('button', { name: 'Open the calendar of Day' }).click();
  await page.keyboard.type('3.11.2026');
  await page.keyboard.press('Enter');
  await expect.poll(() => rowsOf(grid)).toContainEqual(['03.11.2026']);
  await page.getByRole('button', { name: /^Orla Venn/ }).click();
  await expect(grid).toBeVisible();
  await page.unroute(/\/assets\/(PersonMenu|Calendar)/u);
  // What was asked for comes by itself.
  await expect(page.getByRole('menuitem', { name: 'My account' })).toBeVisible();
  await page.keyboard.press('Escape');
  await page.getByRole('link', { name: 'Forms' }).click();
  await expect(page.getByRole('alert')).toContainText('tried again');
  await page.unroute(/\/assets\/FormsPage/u);
  await expect(page.getByRole('heading', { level: 1, name: 'Forms' })).toBeVisible();
});
