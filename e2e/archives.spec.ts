// A house begins with a template, goes out as an archive, and comes in once more beside itself.
import { readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import type { Locator, Page } from '@playwright/test';
import { cellAt, chooseFile, closePanel, expect, panel, rowsOf, test } from './nursery.js';

const press = async (page: Page, place: Locator, key = 'Enter') => {
  await place.focus();
  await page.keyboard.press(key);
};
const choose = (page: Page, path: string) => chooseFile(page, page.getByRole('button', { name: /^Drop a house archive here/ }), path);

test(
  'an empty house begins with a template by keys alone, is taken out, and comes in again beside itself as it is chosen',
  { tag: '@main' },
  async ({ nursery }) => {
    const { page, files } = nursery;
    await press(page, page.getByRole('link', { name: /^begin with a template/ }));
    const whole = page.getByRole('region', { name: 'The whole house' });
    await press(page, whole.getByRole('button', { name: 'Look at the template' }));
    await expect(page.getByText('Its entry sheets come without entries.')).toBeVisible();
    // What one looks at is still there after a reload, and nothing of it is stored until one says so.
    await page.reload();
    await expect(page.getByText(/^It brings 6 sheets, 13 lists/)).toBeVisible();
    await page.getByRole('link', { name: 'Sheets', exact: true }).click();
    await expect(page.getByRole('region', { name: 'First steps' })).toBeVisible();
    await page.goBack();
    await press(page, page.getByRole('button', { name: 'Bring in the archive' }));
    await expect(page.getByRole('status').filter({ hasText: 'is in: 6 sheets' })).toBeVisible();

    // It is ready to be entered in: the lists offer their values.
    await press(page, page.getByRole('link', { name: /^Crew contacts/ }));
    const grid = page.getByRole('grid', { name: 'Crew contacts' });
    await expect(cellAt(grid, 0, 0)).toBeVisible();
    await cellAt(grid, 0, 0).click();
    await page.keyboard.type('Mole Heron');
    await page.keyboard.press('Tab');
    await expect.poll(async () => (await rowsOf(grid)).flat()).toContain('Mole Heron');

    await page.getByRole('link', { name: 'In and out', exact: true }).click();
    await press(page, whole.getByRole('button', { name: 'Take the house out' }));
    const download = page.waitForEvent('download');
    await press(page, panel(page).getByRole('button', { name: 'Download', exact: true }));
    const path = join(files, 'house.zip');
    await (await download).saveAs(path);
    expect((await download).suggestedFilename()).toBe('marl-lane-nursery.zip');
    expect(readFileSync(path).subarray(0, 2).toString()).toBe('PK');
    await closePanel(page);

    // A file that is none is told in a sentence, and one is where one was.
    const none = join(files, 'none.zip');
    writeFileSync(none, 'Pilots;Tam Ossel');
    await choose(page, none);
    await expect(page.getByText('The file is damaged: its contents cannot be found.')).toBeVisible();

    await choose(page, path);
    const taken = page.getByRole('region', { name: 'Names that are taken' });
    await taken.getByLabel('All catalogs', { exact: true }).selectOption({ label: 'all: bring it in as another name' });
    const catalogs = taken.getByRole('region', { name: 'Catalogs' });
    await expect(catalogs.getByLabel('Pilots', { exact: true })).toHaveValue('beside');
    await catalogs.getByLabel('Tugs', { exact: true }).selectOption('here');
    await taken.getByRole('region', { name: 'Forms' }).getByLabel('Damage note', { exact: true }).selectOption('left out');
    await press(page, page.getByRole('button', { name: 'Bring in the archive' }));
    await expect(page.getByRole('status').filter({ hasText: 'is in: 6 sheets, 1 entry' })).toBeVisible();

    await page.getByRole('link', { name: /^Crew contacts 2/ }).click();
    const second = page.getByRole('grid', { name: 'Crew contacts 2' });
    await expect.poll(async () => (await rowsOf(second)).flat()).toContain('Mole Heron');
    await page.getByRole('link', { name: 'Catalogs', exact: true }).click();
    await expect(page.getByRole('link', { name: /^Pilots 2/ })).toBeVisible();
    await expect(page.getByRole('link', { name: /^Tugs 2/ })).toHaveCount(0);
    await page.getByRole('link', { name: 'Forms', exact: true }).click();
    await expect(page.getByText('Waste declaration 2')).toBeVisible();
    await expect(page.getByText('Damage note 2')).toHaveCount(0);
    await page.getByRole('link', { name: 'Ledger', exact: true }).click();
    await expect(page.getByText('took the house out as an archive')).toBeVisible();
    await expect(page.getByText(/brought in the archive .*Marl Lane Nursery/)).toBeVisible();
  },
);

const berths = `@prefix skos: <http://www.w3.org/2004/02/skos/core#> .
@prefix owl: <http://www.w3.org/2002/07/owl#> .
<https://harbour.invalid/berths> a skos:ConceptScheme ; skos:prefLabel "Berths"@en .
<https://harbour.invalid/north> a skos:Concept ; skos:prefLabel "North"@en, "Nord"@de ; skos:topConceptOf <https://harbour.invalid/berths> .
<https://harbour.invalid/n1> a skos:Concept ; skos:notation "N1" ; skos:broader <https://harbour.invalid/north> ; skos:altLabel "Old pier" .
<https://harbour.invalid/n2> a skos:Concept ; skos:notation "N2" ; skos:broader <https://harbour.invalid/north> ; owl:deprecated true .
`;

const stay = {
  $schema: 'https://json-schema.org/draft/2020-12/schema',
  title: 'Stays',
  type: 'object',
  properties: {
    guest: { title: 'Guest', type: 'string', minLength: 2 },
    wing: { title: 'Wing', enum: ['East', 'West'] },
    room: { title: 'Room', type: 'string' },
    nights: { title: 'Nights', type: 'integer', minimum: 1, maximum: 30 },
    board: {
      title: 'Board',
      oneOf: [
        { const: 'N', title: 'none' },
        { const: 'B', title: 'breakfast' },
      ],
    },
    address: { title: 'Address', type: 'object' },
  },
  required: ['guest', 'room'],
  allOf: Object.entries({ East: ['E1', 'E2'], West: ['W1'] }).map(([wing, rooms]) => ({
    if: { properties: { wing: { const: wing } } },
    then: { properties: { room: { enum: rooms } } },
  })),
};

test('what entries must be, said by somebody else, becomes a sheet that asks it', async ({ nursery }) => {
  const { page, files } = nursery;
  await page.getByRole('link', { name: 'In and out', exact: true }).click();
  const broken = join(files, 'broken.json');
  writeFileSync(broken, JSON.stringify(stay).slice(0, -5));
  await choose(page, broken);
  await expect(page.getByText('The schema is no JSON.')).toBeVisible();
  const whole = join(files, 'stay.json');
  writeFileSync(whole, JSON.stringify(stay, null, 2));
  await choose(page, whole);
  await expect(page.getByText('“Address” is made of several members there; it is kept as a text.')).toBeVisible();
  await page.goBack();
  await page.goForward();
  await press(page, page.getByRole('button', { name: 'Bring in the sheet' }));
  await page.getByRole('link', { name: /^Stays/ }).click();
  const grid = page.getByRole('grid', { name: 'Stays' });
  await expect(grid.getByText('type to add')).toBeVisible();
  const type = async (text: string) => {
    await page.keyboard.type(text);
    await page.keyboard.press('Tab');
  };
  for (const text of ['Odo Renner', 'East', 'W1']) await type(text);
  await expect(page.getByText(/“W1” is not under East/u)).toBeVisible();
  for (const text of ['E2', '31']) await type(text);
  await expect(page.getByText('Nights must be at most 30.')).toBeVisible();
  // What is called breakfast is its code.
  for (const text of ['3', 'break']) await type(text);
  await expect.poll(() => rowsOf(grid)).toContainEqual(['Odo Renner', 'East', 'E2', '3', 'breakfast', '']);
});

test('a list of concepts from elsewhere becomes a catalog that grows; what is no such list is told', async ({ nursery }) => {
  const { page, files } = nursery;
  await page.getByRole('link', { name: 'In and out', exact: true }).click();
  const broken = join(files, 'broken.ttl');
  writeFileSync(broken, berths.slice(0, -20));
  await choose(page, broken);
  await expect(page.getByText(/cannot be read as Turtle/u)).toBeVisible();
  const whole = join(files, 'berths.ttl');
  writeFileSync(whole, berths);
  await choose(page, whole);
  await expect(page.getByRole('heading', { name: 'Berths', exact: true })).toBeVisible();
  await expect(page.getByText('A list of concepts. Nothing of it is stored yet.')).toBeVisible();
  await press(page, page.getByRole('button', { name: 'Bring in the concepts' }));
  await expect(page.getByRole('status').filter({ hasText: 'Berths is in' })).toBeVisible();

  await page.getByRole('link', { name: /^Berths/ }).click();
  await page.getByPlaceholder('Find a value').fill('Old pier');
  await expect(page.getByRole('main')).toContainText('N1');
  // It is over a list as any other.
  await page.getByRole('link', { name: 'Sources', exact: true }).click();
  await page.getByRole('link', { name: /^Berths/ }).click();
  await expect.poll(() => rowsOf(page.getByRole('grid', { name: 'Berths' }))).toContainEqual(['North', 'N1']);

  // Once more, it comes in beside itself unless one says otherwise.
  await page.getByRole('link', { name: 'In and out', exact: true }).click();
  await choose(page, whole);
  await press(page, page.getByRole('button', { name: 'Bring in the concepts' }));
  await expect(page.getByRole('link', { name: /^Berths 2/ })).toBeVisible();
});
