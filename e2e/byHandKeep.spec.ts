// How lists are kept, from an empty house, through the interface alone: values come and go, others look on, nobody is surprised.
import { cellAt, expect, makeList, makeSheet, makeSource, openField, expectOptions, panel, rowsOf, test, typeAcross } from './nursery.js';

test('a list on a page feeds two sheets: a value comes, one that is held goes, the order and a colour are seen at once', async ({
  nursery: { page, clerk },
}) => {
  await makeSource(page, 'House lists');
  const list = await makeList(page, 'Sellers', ['Dan', 'Ada', 'Ben']);
  await page.getByRole('button', { name: 'Make a catalog of it' }).click();
  // There is no field yet: one makes a sheet first, and is brought back to what was begun.
  await page.getByRole('link', { name: 'Make a sheet with the fields that people fill in' }).click();
  const grid = await makeSheet(page, 'Sales', [['Day', 'a date'], ['Seller'], ['Amount', 'an amount of money']]);
  await page.getByRole('link', { name: 'Go on with it' }).click();
  await page.getByRole('button', { name: 'Use it for Seller' }).click();
  await expect(page.getByText('Seller takes its values from Sellers from now on.')).toBeVisible();
  await makeSheet(page, 'Call backs', [['Seller'], ['Note']]);
  await openField(page, 'Seller');
  await page.getByRole('button', { name: 'Take the values of Sellers' }).click();
  await page.getByRole('button', { name: 'Set this rule' }).click();
  await expect(page.getByText('The rule of Seller holds from now on.')).toBeVisible();
  await page.getByRole('button', { name: 'Close' }).click();
  await typeAcross(page, ['ben', 'on Monday'], 'Tab', 0);

  const other = await clerk();
  await other.getByRole('link', { name: /^Sales/ }).click();
  await expect(other.getByText('type to add')).toBeVisible();
  await typeAcross(other, ['1.11.2026', 'ben', '12.5', '2.11.2026', 'ada', '9', '3.11.2026', 'ben', '4'], 'Tab', 0);
  await expect(other.getByText('3 entries.')).toBeVisible();
  const theirs = other.getByRole('grid', { name: 'Sales' });
  await cellAt(theirs, 3, 1).click();
  await other.keyboard.press('Alt+ArrowDown');
  await expectOptions(other, ['Dan', 'Ada', 'Ben']);

  // A value typed under the list is offered in the clerk's open list.
  await page.getByRole('link', { name: /^Sources/ }).click();
  await page
    .getByRole('main')
    .getByRole('link', { name: /^House lists/ })
    .click();
  await list.getByText('type to add').click();
  await typeAcross(page, ['Cora'], 'Enter', 0);
  await expectOptions(other, ['Dan', 'Ada', 'Ben', 'Cora']);
  // One that entries hold is asked about, with the entries of both sheets.
  await list.getByRole('gridcell', { name: 'Ben' }).click();
  await page.keyboard.press('Control+Delete');
  const impact = page.getByRole('region', { name: 'Impact' });
  await expect(impact).toContainText(/3\s*entries hold it\s*2\s*fields\s*2\s*sheets/);
  await impact.getByText('Gone', { exact: true }).click();
  await impact.getByRole('button', { name: 'Take out, and mark 3 entries' }).click();
  await expectOptions(other, ['Dan', 'Ada', 'Cora']);
  await expect(other.getByRole('group', { name: 'Entries outside' })).toContainText('Seller: 2 outside');
  // The drop-down follows the order of the list.
  await page.getByRole('button', { name: 'More for Sellers' }).click();
  await page.getByRole('menuitem', { name: 'Sort A to Z' }).click();
  await expectOptions(other, ['Ada', 'Cora', 'Dan']);
  // The list is renamed from its menu, typed at once.
  await page.getByRole('button', { name: 'More for Sellers' }).click();
  await page.getByRole('menuitem', { name: 'Rename' }).click();
  await expect(page.getByLabel('Heading of the list')).toBeFocused();
  await typeAcross(page, ['All sellers'], 'Enter', 0);
  await expect(page.getByRole('grid', { name: 'All sellers' })).toBeVisible();
  // A colour is seen in the cells.
  await page.getByRole('link', { name: 'Catalogs', exact: true }).click();
  await page.getByRole('table').getByRole('link', { name: 'Sellers' }).click();
  await page.getByRole('button', { name: 'Ada', exact: true }).click();
  await panel(page).getByRole('radio', { name: 'teal' }).check({ force: true });
  await page.getByRole('button', { name: 'Save', exact: true }).click();
  await other.keyboard.press('Escape');
  await expect(cellAt(theirs, 1, 1).locator('.dl-text svg, .dl-mark svg').first()).toBeVisible();
  // What is outside is listed by one click.
  await other.getByRole('button', { name: 'Seller: 2 outside' }).click();
  await expect.poll(async () => (await rowsOf(theirs)).map(([, seller]) => seller)).toEqual(['Ben', 'Ben']);
  await expect(grid).toBeHidden();
});

test('codes of an exact length keep their zeros, a fixed list is extended and cannot be lost, and a clerk changes nothing of the build', async ({
  nursery: { page, clerk },
}) => {
  await makeSource(page, 'Codes');
  const codes = Array.from({ length: 12 }, (_, at) => `R${String(at + 1).padStart(2, '0')}`);
  const list = await makeList(page, 'Region codes', codes);
  await page.getByText('Fixed', { exact: true }).click();
  await page.getByRole('button', { name: 'Name the range' }).click();
  await expect(panel(page)).toContainText('12 values taken, none left out');
  await page.getByRole('button', { name: 'Make a catalog of it' }).click();
  const grid = await makeSheet(page, 'Addresses', [['Name'], ['Region code'], ['Area code'], ['Box']]);
  await openField(page, 'Region code');
  await page.getByRole('button', { name: 'Take the values of Region codes' }).click();
  await page.getByRole('button', { name: 'Set this rule' }).click();
  for (const [heading, length] of [
    ['Area code', '5'],
    ['Box', '4'],
  ] as const) {
    await openField(page, heading);
    await page.getByRole('button', { name: 'a text of a certain length' }).click();
    await page.getByRole('button', { name: 'any number of characters' }).click();
    await page.getByLabel('Characters at least').fill(length);
    await page.getByLabel('Characters at most').fill(length);
    await page.keyboard.press('Enter');
    await page.getByRole('button', { name: 'Set this rule' }).click();
    await expect(panel(page).getByText('Not set yet')).toBeHidden();
  }
  const other = await clerk();
  // The page of lists is the administrator's; shown, it can be looked at; nothing of the build can be changed.
  await expect(other.getByRole('link', { name: /^Lists/ })).toBeHidden();
  await other.getByRole('link', { name: /^Addresses/ }).click();
  const theirs = other.getByRole('grid', { name: 'Addresses' });
  await expect(other.getByText('type to add')).toBeVisible();
  await typeAcross(other, ['Mill', 'r07', '00420', '0012'], 'Tab', 0);
  await expect.poll(async () => (await rowsOf(theirs))[0]).toEqual(['Mill', 'R07', '00420', '0012']);
  await typeAcross(other, ['Quay', 'R13'], 'Tab', 0);
  await expect(other.getByRole('alert')).toContainText('“R13” is not in Region codes.');
  await other.keyboard.press('Control+a');
  await typeAcross(other, ['R12', '420'], 'Tab', 0);
  await expect(other.getByRole('alert')).toContainText('Area code has exactly 5 characters; “420” has 3.');
  await other.keyboard.press('Control+a');
  await typeAcross(other, ['00421', '00012'], 'Tab', 0);
  await expect(other.getByRole('alert')).toContainText('Box has exactly 4 characters; “00012” has 5.');
  await other.keyboard.press('Escape');
  await expect(other.getByRole('button', { name: 'New field' })).toBeHidden();

  // Extended past its fixed end: said by the range, taken in by one act, and right for the clerk.
  await page.getByRole('link', { name: /^Sources/ }).click();
  await page
    .getByRole('main')
    .getByRole('link', { name: /^Codes/ })
    .click();
  await list.getByText('type to add').click();
  await typeAcross(page, ['R13'], 'Enter', 0);
  await expect(page.getByText('1 value stands past the end of Region codes and is not offered.')).toBeVisible();
  await page.getByRole('button', { name: 'Take it in' }).click();
  await expect(panel(page)).toContainText('13 values taken, none left out');
  await cellAt(theirs, 1, 1).click();
  await typeAcross(other, ['r13'], 'Enter', 0);
  await expect.poll(async () => (await rowsOf(theirs))[1]).toEqual(['Quay', 'R13', '00421', '']);
  // Deleted: one is told what uses it, and it stays.
  await page.getByRole('button', { name: 'More for Region codes' }).click();
  await page.getByRole('menuitem', { name: 'Delete the list' }).click();
  await expect(page.getByText(/Region codes.*(?:range|catalog)/).last()).toBeVisible();
  await expect(list).toBeVisible();
  // Shown to clerks, and hidden again.
  for (const [act, words] of [
    ['Show it to clerks', 'Clerks and readers may look'],
    ['Hide it from clerks', 'the administrator’s alone'],
  ] as const) {
    await page.getByRole('button', { name: 'More for Codes' }).click();
    await page.getByRole('menuitem', { name: act }).click();
    await expect(page.getByText(words).last()).toBeVisible();
    if (act === 'Hide it from clerks') continue;
    await other.getByRole('link', { name: /^Lists/ }).click();
    await other
      .getByRole('main')
      .getByRole('link', { name: /^Codes/ })
      .click();
    await other.getByRole('gridcell', { name: 'R13' }).click();
    await other.keyboard.type('R99');
    await other.keyboard.press('Enter');
    await expect(other.getByRole('gridcell', { name: 'R99' })).toBeHidden();
  }
  await expect(other.getByRole('link', { name: /^Lists/ })).toBeHidden();
  await expect(grid).toBeHidden();
});
