// Catalogs in full: composed, searched, changed from their own page, looked back at; and what wants upkeep.
import { randomUUID } from 'node:crypto';
import { Database, migrate } from '@dellum/server';
import { answerSlip, cellOf, enterHouse, expect, list, test, toCatalog, toLists, toSheet, two, typeUnder } from './house.js';
import { newDatabase, serve } from './servers.js';

test('a catalog is composed of parts, tried at once, and set', { tag: '@main' }, async ({ house }) => {
  const page = await house.open('ines');
  await toCatalog(page, 'Tugs');
  const slip = page.getByRole('complementary', { name: 'Panel' });
  await expect(slip).toContainText(
    'Offers Call sign, shown as Name, of Vessels where Class is “tug”, in alphabetical order; repeats stand once.',
  );
  await page.getByRole('button', { name: 'How it is composed', exact: true }).click();
  const compose = page.getByRole('region', { name: 'How it is composed' });
  await expect(compose.getByRole('status')).toContainText('are offered');
  await compose.getByRole('button', { name: 'One condition more' }).click();
  await compose.getByLabel('Field of condition 2').selectOption({ label: 'Length, m' });
  await compose.getByLabel('Comparison of condition 2').selectOption('at least');
  await compose.getByLabel('Value of condition 2').fill('10000');
  await expect(compose.getByRole('status')).toContainText('Nothing would be offered.');
  await compose.getByLabel('Value of condition 2').fill('100');
  await expect(compose.getByRole('status')).toContainText('would be offered');
  await compose.getByRole('button', { name: 'typed values' }).click();
  await compose.getByLabel('Values of part 2').fill('QZZ001, "QZZ002, spare"; QZZ001');
  await expect(compose).toContainText('2 values; 1 repeat left out');
  await compose.getByRole('button', { name: 'Save how it is composed' }).click();
  await expect(page.getByText('Tugs is composed so from now on.')).toBeVisible();
  await page.getByLabel('Find a value').fill('spare');
  await expect(page.getByRole('row', { name: /QZZ002, spare/ })).toContainText('typed');

  // Entries stand under the values of another catalog by a field that names them.
  await toCatalog(page, 'Works without cranes');
  await page.getByRole('button', { name: 'How it is composed', exact: true }).click();
  await compose.getByRole('button', { name: 'entries under a catalog' }).click();
  await compose.getByLabel(/^Parents of part/).selectOption({ label: 'under the values of Quays' });
  await compose
    .getByLabel(/^Sheet of part/)
    .last()
    .selectOption({ label: 'Berth visits' });
  await compose
    .getByLabel(/^Value of part/)
    .last()
    .selectOption({ label: 'value: Vessel' });
  await compose.getByLabel(/^Field that names the parent/).selectOption({ label: 'named in Quay' });
  await expect(compose).toContainText('Vessel of Berth visits under Quays, by Quay');
  await expect(compose.getByRole('status')).toContainText('in 2 levels');
  await compose.getByRole('button', { name: 'ranges named by a catalog' }).click();
  await expect(compose).toContainText('the ranges named by');

  // A catalog cannot feed itself.
  await toCatalog(page, 'Services');
  await page.getByRole('button', { name: 'How it is composed', exact: true }).click();
  await compose.getByRole('group', { name: 'Add a part' }).getByRole('button', { name: 'another catalog' }).click();
  await compose.getByLabel('Catalog of part 3').selectOption({ label: 'the catalog Works without cranes' });
  await expect(compose.getByRole('status')).toContainText(
    'The catalog would feed itself: Services takes from Works without cranes takes from Services.',
  );
  await expect(compose.getByRole('button', { name: 'Save how it is composed' })).toBeDisabled();
});

test('a tree opens group by group; a value is added under its group', async ({ house }) => {
  const page = await house.open('ines');
  await toCatalog(page, 'Berths');
  const table = page.getByRole('table', { name: 'Values of Berths' });
  await expect(table.getByRole('row')).toHaveCount(5);
  await table.getByRole('button', { name: 'Open Heron Mole' }).click();
  await expect(table.getByRole('button', { name: 'Heron 3' })).toBeVisible();
  await table.getByRole('button', { name: 'Heron Mole', exact: true }).last().click();
  await page.getByLabel('Add a value under Heron Mole').fill('Heron 4');
  await page.keyboard.press('Enter');
  await expect(table.getByRole('button', { name: 'Heron 4' })).toBeVisible();
  await page.getByLabel('Find a value').fill('pond');
  await expect(table.getByRole('row')).toHaveCount(4);
});

test('values are added, corrected, coloured, merged and retired from the page; clerks feel it', async ({ house }) => {
  const clerk = await house.open('mara', undefined, two());
  const grid = await toSheet(clerk, 'Berth visits');
  const page = await house.open('ines');
  await toCatalog(page, 'Visit status');
  // The range ends at a fixed row: it asks.
  await page.getByLabel('Add a value').fill('Turned away');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('alert')).toContainText('“Visit status” ends at a fixed row.');
  await page.getByRole('alert').getByRole('button', { name: 'Take it in' }).click();
  await expect(page.getByText('“Turned away” is offered now in 1 field.')).toBeVisible();

  const item = (name: string) => page.getByRole('region', { name: `Item ${name}` });
  await page.getByRole('table').getByRole('button', { name: 'Turned away' }).click();
  await item('Turned away').getByRole('radio', { name: 'brick' }).check({ force: true });
  await item('Turned away').getByLabel('Other names, one a line').fill('TA\nsent off');
  const heard = clerk.waitForResponse((response) => response.url().includes('/items/packed'));
  await item('Turned away').getByRole('button', { name: 'Save' }).click();
  await expect(page.getByText('Turned away is saved.')).toBeVisible();
  await heard;
  await cellOf(grid, 1500, 'Status').click();
  await clerk.keyboard.type('sent off');
  await clerk.keyboard.press('Enter');
  await expect(cellOf(grid, 1500, 'Status')).toHaveText('Turned away');

  await item('Turned away').getByRole('button', { name: 'Correct …' }).click();
  await item('Turned away').getByLabel('Write it right').fill('Turned back');
  await item('Turned away').getByRole('button', { name: 'Correct', exact: true }).click();
  await answerSlip(page, 'Corrected');
  await expect(cellOf(grid, 1500, 'Status')).toHaveText('Turned back');

  await page.getByRole('table').getByRole('button', { name: 'Turned back' }).click();
  await item('Turned back').getByRole('button', { name: 'Merge into …' }).click();
  await item('Turned back').getByLabel('It is the same as').selectOption({ label: 'Shifted' });
  await item('Turned back').getByRole('button', { name: 'Merge into', exact: true }).click();
  await expect(page.getByRole('region', { name: 'Impact' }).getByRole('heading')).toHaveText('Turned back becomes Shifted');
  await answerSlip(page, 'Corrected');
  await expect(cellOf(grid, 1500, 'Status')).toHaveText('Shifted');

  await page.getByRole('table').getByRole('button', { name: 'Expected' }).click();
  await item('Expected').getByRole('button', { name: 'Retire' }).click();
  await expect(page.getByRole('row', { name: /Expected/ })).toContainText('retired');
  await cellOf(grid, 1501, 'Status').click();
  await clerk.keyboard.press('Alt+ArrowDown');
  await expect(clerk.getByRole('option')).toContainText(['Alongside', 'Shifted', 'Departed']);
  await expect(clerk.getByRole('option')).toHaveCount(3);
});

test('history says who changed what, and one change is taken back', async ({ house }) => {
  const page = await house.open('ines');
  await toLists(page);
  await typeUnder(page, 'Pilots', 'Nell Farrow');
  await expect(page.getByText('“Nell Farrow” is offered now in 2 fields.')).toBeVisible();
  await toCatalog(page, 'Pilots');
  await page.getByRole('button', { name: 'History' }).click();
  const history = page.getByRole('region', { name: 'History' });
  await expect(history).toContainText('Ines Quarrie');
  await expect(history).toContainText('Nell Farrow came in');
  const yesterday = new Date(Date.now() - 86_400_000).toISOString().slice(0, 10);
  // A day is typed and shown as the house writes days.
  await history.getByRole('textbox', { name: 'As it stood on' }).fill(yesterday.split('-').reverse().join('.'));
  await expect(page.getByText(`As it stood on ${yesterday.split('-').reverse().join('.')}.`)).toBeVisible();
  await expect(page.getByRole('columnheader', { name: 'In entries today' })).toBeVisible();
  await expect(page.getByRole('table').getByRole('button', { name: 'Nell Farrow' })).toHaveCount(0);
  await history.getByRole('button', { name: 'Back to now' }).click();
  await history.getByRole('button', { name: 'Take it back' }).click();
  await expect(history).toContainText('Nell Farrow went out');
  await expect(page.getByRole('list', { name: 'Lineage' })).toContainText('6 offered');
});

test('upkeep lists what wants mending, and mends it in one step', async ({ house }) => {
  const page = await house.open('ines');
  await toLists(page);
  await typeUnder(page, 'Ship brokers', 'Corow Brothers');
  await expect(list(page, 'Ship brokers').getByRole('gridcell', { name: 'Corow Brothers' })).toBeVisible();
  await page
    .getByRole('navigation')
    .getByRole('link', { name: /Upkeep/ })
    .click();
  const alike = page.getByRole('region', { name: 'Look-alikes' });
  await expect(alike).toContainText('“Corow Brothers” (0) looks like “Corrow Brothers”');
  await alike.getByRole('button', { name: 'Merge into “Corrow Brothers”' }).click();
  await expect(alike).toHaveCount(0);
  const ranges = page.getByRole('region', { name: 'Ranges' });
  await expect(ranges).toContainText('Take it in: “Cancelled” comes in.');
  await ranges.getByRole('button', { name: 'Take it in' }).click();
  await expect(ranges.getByRole('button', { name: 'Take it in' })).toHaveCount(0);
  await page.getByRole('link', { name: 'List them' }).first().click();
  await expect(page.getByText(/entries outside shown/)).toBeVisible();
});

test('what somebody else has changed meanwhile is said where one is half-way through it, and one goes on from it', async ({ house }) => {
  const [one, other] = [await house.open('ines'), await house.open('ines')];
  for (const page of [one, other]) {
    await toCatalog(page, 'Pilots');
    await page.getByRole('button', { name: 'How it is composed', exact: true }).click();
  }
  const slip = (page: typeof one) => page.getByRole('region', { name: 'How it is composed' });
  await slip(other).getByLabel('What counts as a repeat').selectOption({ label: 'spellings of one value stand once' });
  await slip(one).getByLabel('Order').selectOption({ label: 'in alphabetical order' });
  await slip(one).getByRole('button', { name: 'Save how it is composed' }).click();
  await expect(one.getByText('Pilots is composed so from now on.')).toBeVisible();
  const said = slip(other).getByRole('alert');
  await expect(said).toContainText('Somebody else has composed Pilots anew since you began.');
  await expect(slip(other).getByLabel('What counts as a repeat')).toHaveValue('spelling');
  await expect(slip(other).getByRole('button', { name: 'Save how it is composed' })).toBeDisabled();
  await said.getByRole('button', { name: 'Start from theirs' }).click();
  await expect(slip(other).getByLabel('Order')).toHaveValue('alphabetical');
  await slip(other).getByLabel('What counts as a repeat').selectOption({ label: 'spellings of one value stand once' });
  await slip(other).getByRole('button', { name: 'Save how it is composed' }).click();
  await expect(other.getByText('Pilots is composed so from now on.')).toBeVisible();
});

test('two values that look alike are said to be two things once, and are found again when one asks for it', async ({ house }) => {
  const page = await house.open('ines');
  await toLists(page);
  await typeUnder(page, 'Ship brokers', 'Corow Brothers');
  const brokers = page.getByRole('region', { name: 'Ship brokers' });
  await expect(brokers.getByRole('note')).toContainText('“Corow Brothers” looks like “Corrow Brothers”.');
  await brokers.getByRole('button', { name: 'They are two things' }).click();
  await expect(brokers.getByRole('note')).toHaveCount(0);
  await page
    .getByRole('navigation')
    .getByRole('link', { name: /Upkeep/ })
    .click();
  const pairs = page.getByRole('region', { name: 'Look alike and are two things' });
  await expect(pairs).toContainText('“Corow Brothers” and “Corrow Brothers”');
  await page.reload();
  await expect(pairs).toBeVisible();
  const alike = page.getByRole('region', { name: 'Look-alikes' });
  await expect(alike).toHaveCount(0);
  await pairs.getByRole('button', { name: 'Look for them again' }).click();
  await expect(alike).toContainText('“Corow Brothers” (0) looks like “Corrow Brothers”');
  await expect(pairs).toHaveCount(0);
  await alike.getByRole('button', { name: 'They are two things' }).click();
  await expect(alike).toHaveCount(0);
});

test('the map shows what feeds what, and one walks in it', async ({ house }) => {
  const page = await house.open('ines');
  await toCatalog(page, 'Pilots');
  await page.getByRole('link', { name: 'See the map' }).click();
  await expect(page.getByText('What feeds Pilots, and what takes its values from it.')).toBeVisible();
  await expect(page.getByRole('link', { name: 'Pilot on board' })).toBeVisible();
  await expect(page.getByRole('link', { name: 'Quays' })).toHaveCount(0);
  await page.getByRole('button', { name: 'Show everything' }).click();
  // The map moves until all of it is in view; a link that is on its way can be missed.
  const quays = page.getByRole('main').getByRole('link', { name: 'Quays' }).last();
  await expect(async () => {
    await quays.click();
    await expect(page.getByRole('heading', { level: 1 })).toHaveText(/Quays|Harbour lists/, { timeout: 2000 });
  }).toPass();
});

test('a text file is linked, looked at, and feeds a catalog; a wrong expression says where', async ({ browser }) => {
  // A database and a server of its own: files are given to a house by name where a server is started.
  const url = await newDatabase(process.env['DELLUM_DATABASE']!, `linked_${randomUUID().replaceAll('-', '')}`);
  const database = new Database(url, 1);
  await migrate(database.kysely);
  await database.kysely.destroy();
  const house = await enterHouse(browser, url);
  const server = await serve(url, { house: house.key });
  const page = await house.open('ines', '/linked', server.base);
  const slip = page.getByRole('complementary', { name: 'Panel' });
  await slip.getByLabel('Name').fill('Terminals');
  await slip.getByLabel('It gives').selectOption({ label: 'columns of a CSV file' });
  await slip.getByLabel('File').selectOption('terminals.csv');
  await slip.getByRole('button', { name: 'Look at it' }).click();
  await slip.getByLabel('Column of the value').selectOption('code');
  await slip.getByLabel('Column that is shown').selectOption('name');
  await slip.getByRole('button', { name: 'Look at it' }).click();
  await expect(slip).toContainText('3 values');
  await slip.getByRole('button', { name: 'Link it' }).click();
  await page.getByRole('button', { name: 'Refresh Terminals' }).click();
  await expect(page.getByRole('row', { name: /Terminals/ })).toContainText('good');

  await page.goto('/linked');
  await slip.getByLabel('It gives').selectOption({ label: 'an expression over catalogs' });
  await slip.getByRole('group', { name: 'Over the catalogs' }).getByText('Pilots').click();
  await slip.getByLabel('Expression (CEL)').fill('pilots.map(p, ');
  await slip.getByRole('button', { name: 'Look at it' }).click();
  await expect(slip.getByRole('alert')).toContainText('1 | pilots.map(p,');
  await house.leave();
  await server.stop();
});
