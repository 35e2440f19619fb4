// Forms through the interface: laid out by keys, checked while they are laid out, tried, published, filled, and opened by a link.
import type { Page } from '@playwright/test';
import { expect, test } from './house.js';

const slip = (page: Page) => page.getByRole('complementary', { name: 'Panel' });

test('a form is laid out by keys and buttons, its faults are named, and it is published and closed', async ({ house }) => {
  const page = await house.open('ines', '/forms');
  await slip(page).getByLabel('Title').fill('Visit notice');
  await slip(page).getByLabel('Its entries go to').selectOption({ label: 'Berth visits' });
  await slip(page).getByRole('button', { name: 'Lay it out' }).click();
  await expect(page.getByRole('heading', { name: 'Visit notice', level: 1 })).toBeVisible();
  // All fields are asked at first; a child is taken before its parent by keys alone, and that is a fault.
  await expect(page.getByRole('region', { name: 'Not asked' }).getByText('Every field of Berth visits is asked.')).toBeVisible();
  const first = page.getByRole('region', { name: 'A section without a heading' });
  await expect(first.getByRole('button', { name: /^Move (?!A section)/ }).nth(4)).toHaveAccessibleName('Move Berth');
  await page.getByRole('button', { name: 'Move Berth' }).focus();
  await page.keyboard.press('Space');
  await expect(page.getByText(/^Berth is picked up/)).toBeAttached();
  await page.keyboard.press('ArrowUp');
  await expect(page.getByText('Berth is over Length, m.')).toBeAttached();
  await page.keyboard.press('Space');
  await expect(slip(page).getByText('Berth is asked before Quay, which decides what it offers. Put Quay first.')).toBeVisible();
  await page.getByRole('button', { name: 'Publish' }).click();
  await expect(page.getByText(/^Berth is asked before Quay/).last()).toBeVisible();
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(slip(page).getByText(/^Berth is asked before Quay/)).toHaveCount(0);
  // A condition that nothing can meet is named with its reason, and mended.
  await page.getByRole('button', { name: 'Take Plan code out' }).click();
  await expect(page.getByRole('region', { name: 'Not asked' }).getByText('Plan code')).toBeVisible();
  await first.getByRole('button', { name: /^Pilot/ }).click();
  await slip(page).getByRole('button', { name: 'Only those where …' }).click();
  await slip(page).getByLabel('Field of condition 1').selectOption({ label: 'Status' });
  await slip(page).getByLabel('Value of condition 1').fill('Sunk');
  await expect(slip(page).getByText('Pilot is shown only where Status is “Sunk”, which can never be.')).toBeVisible();
  await slip(page).getByLabel('Value of condition 1').fill('Alongside');
  await expect(slip(page).getByRole('region', { name: 'What wants mending' })).toHaveCount(0);
  await expect(slip(page).getByLabel('Asked by')).toContainText('drop-down, as it follows from the rule');
  // Tried at once, as a clerk, storing nothing.
  await page.getByText('On a phone').click();
  await expect(page.getByLabel('Pilot', { exact: true })).toHaveCount(0);
  await page.getByRole('radiogroup', { name: 'Status' }).getByText('Alongside').click();
  await expect(page.getByLabel('Pilot', { exact: true })).toBeVisible();
  await page.getByRole('button', { name: 'Try to send' }).click();
  await expect(page.getByText('This would be stored.')).toBeVisible();
  await page.getByRole('button', { name: 'Publish' }).click();
  await expect(page.getByText(/version 1 is filled now/)).toBeVisible();
  await page.reload();
  await expect(page.getByText(/version 1 is filled now/)).toBeVisible();
  // What the rule's own page says of it.
  await page.goto('/forms');
  await expect(page.getByRole('article', { name: 'Visit notice' }).getByRole('link', { name: 'Fill Visit notice' })).toBeVisible();
  await page.getByRole('link', { name: 'Lay out Visit notice' }).click();
  await page.getByRole('button', { name: 'Close the form' }).click();
  await page.getByRole('alertdialog').getByRole('button', { name: 'Close the form' }).click();
  await expect(page.getByText(/not published yet/).first()).toBeVisible();
});

test(
  'a clerk fills a form by keys alone; problems are listed, what was typed stays, and the entry arrives marked in the sheet',
  { tag: '@main' },
  async ({ house }) => {
    const watcher = await house.open('olek', '/sheets');
    await watcher
      .getByRole('main')
      .getByRole('link', { name: /Waste declarations/ })
      .click();
    await expect(watcher.getByText('290 entries.')).toBeVisible();
    const page = await house.open('mara', '/forms');
    await page.getByRole('link', { name: 'Fill Waste declaration' }).click();
    const form = page.getByRole('form', { name: 'Waste declaration' });
    await form.getByRole('button', { name: 'Send' }).click();
    await expect(form.getByRole('alert').first()).toContainText('5 answers are not taken yet');
    // A heading over several buttons belongs to none of them: pointing at it chooses nothing.
    for (const heading of ['Quay', 'Hazardous']) await form.getByText(heading, { exact: true }).click();
    await expect(form.getByRole('radio', { checked: true })).toHaveCount(0);
    await form.getByRole('button', { name: 'Vessel must not be blank. Pick a value.' }).click();
    await page.keyboard.type('grey bell');
    await page.keyboard.press('Tab');
    await expect(form.getByLabel('Day')).toBeFocused();
    await page.keyboard.press('Tab');
    await page.keyboard.press('Space');
    await page.keyboard.press('ArrowRight');
    await expect(form.getByRole('radio', { name: 'Heron Mole' })).toBeChecked();
    await page.keyboard.press('Tab');
    await expect(form.getByLabel('Berth')).toBeFocused();
    await form.getByLabel('Berth').selectOption('Heron 2');
    // Another quay clears the berth and says so.
    await form.getByText('Lantern Basin').click();
    await expect(form.getByRole('status')).toHaveText('Heron 2 was cleared from Berth.');
    await form.getByLabel('Berth').selectOption('Lantern 4');
    await form.getByText('oily water').click();
    await form.getByLabel('Volume, m³').fill('900');
    await page.keyboard.press('Enter');
    await expect(form.getByText('Volume, m³ must be at most 500.').last()).toBeVisible();
    // What is hidden is not asked; what was typed stays over a reload.
    await expect(form.getByLabel('Danger code')).toHaveCount(0);
    await form.getByRole('radiogroup', { name: 'Hazardous' }).getByText('yes').click();
    await form.getByLabel('Danger code').fill('QW21');
    await form.getByLabel('Remarks').fill('Barge at noon\nMind the hose');
    await page.reload();
    await expect(form.getByText('What you typed last time is here.')).toBeVisible();
    await expect(form.getByLabel('Vessel')).toHaveValue('Grey Bell');
    await expect(form.getByLabel('Remarks')).toHaveValue('Barge at noon\nMind the hose');
    await form.getByLabel('Volume, m³').fill('9.5');
    // Pressed twice, and the connection breaks after the first: it is stored once.
    await page.route(
      '**/entries',
      async (route) => {
        await route.fetch();
        await route.abort();
      },
      { times: 1 },
    );
    await form.getByRole('button', { name: 'Send' }).click();
    await expect(form.getByText(/What you typed is kept/)).toBeVisible();
    await form.getByRole('button', { name: 'Send' }).click();
    await expect(page.getByRole('heading', { name: 'The declaration has reached the harbour office.' })).toBeFocused();
    await expect(page.getByText('It had been sent before, and is stored once.')).toBeVisible();
    await expect(page.getByRole('definition').filter({ hasText: 'Grey Bell' })).toBeVisible();
    await expect(watcher.getByText('291 entries.')).toBeVisible();
    await watcher.getByRole('grid').focus();
    await expect(watcher.getByRole('rowheader', { name: '291 came through Waste declaration, version 1' })).toBeVisible();
    await page.getByRole('link', { name: 'Look at the entry' }).click();
    await expect(page.getByText(/came through Waste declaration, version 1/)).toBeVisible();
    await page.goBack();
    await expect(form.getByLabel('Vessel')).toHaveValue('');
  },
);

test('a form opens while its list is still coming; what was typed is judged when it is there', async ({ house }) => {
  const page = await house.open('mara');
  let let_through: () => void = () => undefined;
  const held = new Promise<void>((resolve) => {
    let_through = resolve;
  });
  await page.route('**/items/packed*', async (route) => {
    await held;
    await route.continue();
  });
  await page.goto('/forms');
  await page.getByRole('link', { name: 'Fill Waste declaration' }).click();
  const form = page.getByRole('form', { name: 'Waste declaration' });
  await form.getByLabel('Vessel').click();
  await page.keyboard.type('grey bel');
  await page.keyboard.press('Tab');
  await expect(form.getByText('The list is coming …').first()).toBeVisible();
  await form.getByLabel('Volume, m³').fill('2');
  let_through();
  await expect(form.getByText(/“grey bel” is not in Vessels/).last()).toBeVisible();
  await form.getByRole('button', { name: 'Grey Bell' }).click();
  await expect(form.getByLabel('Vessel')).toHaveValue('Grey Bell');
  await expect(form.getByRole('radio', { name: 'Salt Quay' })).toBeVisible();
});

test('people without an account fill a form by its link, and see nothing else', async ({ house, browser }) => {
  const page = await house.open('ines', '/forms');
  await page.getByRole('link', { name: 'Lay out Damage note' }).click();
  await slip(page).getByRole('textbox', { name: 'Works until' }).fill('31.12.2099');
  await slip(page).getByLabel('Entries an hour').fill('1');
  await slip(page).getByRole('button', { name: 'Make a link' }).click();
  const address = (await slip(page).getByRole('region', { name: 'Links' }).locator('code').textContent())!;
  const context = await browser.newContext();
  const stranger = await context.newPage();
  await stranger.goto(address);
  const form = stranger.getByRole('form', { name: 'Damage note' });
  await expect(stranger.getByRole('navigation')).toHaveCount(0);
  const fill = async (note: string) => {
    await form.getByLabel('Quay', { exact: true }).selectOption('Salt Quay');
    await form.getByText('ladder').click();
    await form.getByText('serious').click();
    await form.getByLabel('Note').fill(note);
    await form.getByRole('button', { name: 'Send' }).click();
  };
  await fill('Two rungs are gone');
  await expect(stranger.getByText('Thank you. Somebody will look at it.')).toBeVisible();
  await stranger.getByRole('button', { name: 'Another' }).click();
  await fill('And a third');
  await expect(form.getByText(/Too many entries came by this link within an hour/)).toBeVisible();
  await expect(form.getByLabel('Note')).toHaveValue('And a third');
  await slip(page).getByRole('button', { name: 'Close', exact: true }).click();
  await page.getByRole('alertdialog').getByRole('button', { name: 'Close the link' }).click();
  await expect(slip(page).getByText(/1 entry so far/)).toBeVisible();
  await stranger.reload();
  await expect(stranger.getByText(/This link does not work any more/)).toBeVisible();
  await context.close();
});
