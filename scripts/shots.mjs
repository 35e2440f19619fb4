// npm run shots: remakes the pictures of docs/screenshots from the demo data.
import { spawn, spawnSync } from 'node:child_process';
import { mkdirSync, mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { createInterface } from 'node:readline';
import { join } from 'node:path';
import { strFromU8, strToU8, unzipSync, zipSync } from 'fflate';
import pg from 'pg';
import { chromiumPath, ensureBuilt, ensureChromium, ensureModules, root } from './lib/packages.mjs';
import { freePort, startCluster } from './lib/postgres.mjs';
import { runScript } from './lib/say.mjs';
import { standIns } from './lib/standIns.mjs';

const folder = join(root, 'docs', 'screenshots');

async function serve(url, sources) {
  const port = await freePort();
  const server = spawn(process.execPath, [join(root, 'apps/server/dist/main.js')], {
    env: {
      ...process.env,
      ...sources,
      DATABASE_URL: url,
      PORT: String(port),
      DELLUM_WEB: join(root, 'apps/web/dist'),
      DELLUM_TEMPLATES: join(root, 'demo/templates'),
    },
    stdio: ['ignore', 'pipe', 'inherit'],
  });
  for await (const line of createInterface({ input: server.stdout })) if (line.startsWith('listening')) break;
  return { base: `http://127.0.0.1:${port}`, stop: () => server.kill('SIGTERM') };
}

const cell = (page, row, column) => page.locator(`[role=gridcell][data-row="${row - 1}"][data-column="${column}"]`);

/** Upkeep, the ledger, and the records of a register. */
async function shootSources(page, follow, save) {
  await page.goto('/upkeep');
  await page.getByRole('region', { name: 'Ranges' }).waitFor();
  await save(page, 'upkeep');
  await page.goto('/ledger');
  await page
    .getByRole('row', { name: /is offered by/ })
    .first()
    .waitFor();
  await save(page, 'ledger');
  await follow(page, '/records', /^Vessels/);
  await page.getByLabel('Look for records').fill('tern');
  await page.getByText('14 records found.').waitFor();
  await save(page, 'record-browser');
}

const sheetPart = 'xl/worksheets/sheet1.xml';

/** A workbook that was filled in comes back, with a cell that was changed here, too. */
async function shootReturned(clerk, save) {
  await clerk.getByText('It is filled in and brought back').click();
  const download = clerk.waitForEvent('download');
  await clerk.getByRole('complementary', { name: 'Panel' }).getByRole('button', { name: 'Download', exact: true }).click();
  const parts = unzipSync(readFileSync(await (await download).path()));
  const changed = strFromU8(parts[sheetPart])
    .replace(/(r="O5"[^>]*><v>)[^<]*/u, '$1420')
    .replace(/(r="D4".*?preserve">)[^<]*/u, '$1Salt Quay')
    .replace(/(r="D6".*?preserve">)[^<]*/u, '$1Slat Key')
    .replace(/<row r="9">.*?<\/row>/u, '');
  await clerk.evaluate(async () => {
    const { sheets } = await (await fetch('/api/v1/build')).json();
    const { id, fields } = sheets.find(({ title }) => title === 'Berth visits').registers[0];
    const { entries } = await (await fetch(`/api/v1/registers/${id}/entries?from=3&count=1`)).json();
    const field = fields.find(({ heading }) => heading === 'Quantity, t').key;
    const body = JSON.stringify({ field, text: '380', version: entries[0].version });
    await fetch(`/api/v1/registers/${id}/entries/${entries[0].id}`, {
      method: 'PATCH',
      headers: { 'content-type': 'application/json' },
      body,
    });
  });
  await clerk.getByRole('button', { name: 'Bring in' }).click();
  const buffer = Buffer.from(zipSync({ ...parts, [sheetPart]: strToU8(changed) }));
  await clerk
    .getByLabel('File', { exact: true })
    .setInputFiles({ name: 'From the pilots.xlsx', mimeType: 'application/octet-stream', buffer });
  await clerk.getByRole('region', { name: /changed in both places/ }).waitFor();
  await clerk
    .getByRole('region', { name: /did not come back/ })
    .getByRole('row')
    .first()
    .waitFor();
  await save(clerk, 'came-back');
}

/** A form laid out with a fault, on a phone, and filled with problems; a figure. */
async function shootForms(page, save) {
  const open = async (name) => {
    await page.goto('/forms');
    await page.getByRole('link', { name }).click();
  };
  await open('Lay out Waste declaration');
  await page.getByRole('button', { name: 'Take Quay out' }).click();
  await page.getByRole('button', { name: 'Take Remarks out' }).click();
  await page.getByRole('region', { name: 'What wants mending' }).waitFor();
  await save(page, 'form-layout');
  await page.getByRole('button', { name: 'Undo' }).click();
  await page.getByRole('button', { name: 'Undo' }).click();
  await open('Fill Waste declaration');
  await page.getByText('Lantern Basin').click();
  await page.getByText('oily water').click();
  await page.getByRole('radiogroup', { name: 'Hazardous' }).getByText('yes').click();
  await page.getByLabel('Volume, m³').fill('900');
  await page.getByLabel('Vessel').click();
  await page.keyboard.type('Grey Bel');
  await page.keyboard.press('Alt+ArrowUp');
  await page.keyboard.press('Enter');
  await page.getByRole('button', { name: 'Send' }).click();
  await page.getByText('answers are not taken yet').waitFor();
  await save(page, 'form-fill');
  await page.goto('/figures');
  await page.getByRole('link', { name: /Waste by kind and month/ }).click();
  await page.locator('.recharts-bar-rectangle').first().waitFor();
  await save(page, 'figure');
}

/** An empty house, with its first steps. */
async function shootFirstSteps(browser, base) {
  const page = await (
    await browser.newContext({ baseURL: base, viewport: { width: 1280, height: 800 }, reducedMotion: 'reduce' })
  ).newPage();
  await page.goto('/');
  await page.getByLabel('Name of the house').fill('Marl Lane Nursery');
  await page.getByLabel('Your name').fill('Orla Venn');
  await page.getByLabel('Sign-in name').fill('orla');
  await page.getByLabel('Password').fill('a-long-password');
  await page.getByRole('button', { name: 'Make the house' }).click();
  await page.getByRole('region', { name: 'First steps' }).waitFor();
  await page.evaluate(() => document.fonts.ready);
  await page.screenshot({ path: join(folder, 'first-steps.png') });
  const old = join(root, 'demo/old-files');
  await page
    .getByLabel('Files of your office')
    .setInputFiles(['old log 2025.csv', 'berths.xlsx', 'tugs.xlsx'].map((name) => join(old, name)));
  await page.getByRole('region', { name: 'List Pilot' }).scrollIntoViewIfNeeded();
  await page.getByRole('button', { name: /^ROOK TANSY/ }).click();
  await page.getByRole('heading', { name: '“ROOK TANSY”' }).waitFor();
  // From its first step to its last one.
  const height = await page
    .getByRole('main')
    .evaluate((main) => Math.max(...[main, ...main.querySelectorAll('*')].map((part) => part.scrollHeight)));
  await page.setViewportSize({ width: 1280, height: height + 200 });
  await page.screenshot({ path: join(folder, 'proposal.png') });
}

/** A second database in the cluster, without anything in it. */
async function emptyDatabase(url) {
  const client = new pg.Client({ connectionString: url });
  await client.connect();
  await client.query('create database first_steps');
  await client.end();
  const own = new URL(url);
  own.pathname = '/first_steps';
  return own.href;
}

async function shoot(browser, base) {
  const context = (options = {}) =>
    browser.newContext({
      baseURL: base,
      permissions: ['clipboard-read', 'clipboard-write'],
      viewport: { width: 1280, height: 800 },
      reducedMotion: 'reduce',
      ...options,
    });
  const enter = async (name, password, options) => {
    const own = await context(options);
    await own.request.post('/api/v1/session', { data: { signIn: name, password } });
    return own.newPage();
  };
  const save = async (page, name) => {
    await page.evaluate(() => document.fonts.ready);
    await page.evaluate(() => Promise.allSettled(document.getAnimations().map(({ finished }) => finished)));
    await page.screenshot({ path: join(folder, `${name}.png`) });
  };
  const follow = async (page, path, words) => {
    await page.goto(path);
    await page.getByRole('main').getByRole('link', { name: words }).first().click();
  };

  const clerk = await enter('mara', 'heron-mole');
  await follow(clerk, '/sheets', 'Berth visits');
  await clerk.getByText('type to add').waitFor();
  await cell(clerk, 1502, 8).click();
  await clerk.keyboard.type('al');
  await clerk.getByRole('option', { name: 'Bryn Calloway' }).waitFor();
  await save(clerk, 'sheet-picker');

  await clerk.keyboard.press('Escape');
  await clerk.keyboard.press('Escape');
  await clerk.getByRole('button', { name: 'Download', exact: true }).click();
  await clerk.getByRole('region', { name: 'What is not done there' }).waitFor();
  await save(clerk, 'download');
  await shootReturned(clerk, save);

  const ines = await enter('ines', 'lantern-basin');
  await follow(ines, '/sheets', 'Berth visits');
  await ines
    .getByRole('columnheader', { name: /^Berth/ })
    .getByRole('button')
    .click();
  await ines.getByText('holds', { exact: true }).waitFor();
  await ines.getByText(/entries hold a value/).waitFor();
  await save(ines, 'rule-sentence');
  await cell(ines, 1509, 7).click();
  await ines.getByRole('button', { name: 'Why?' }).click();
  const asked = ines.getByLabel('Value that is asked about');
  await asked.fill('Cancelled');
  await asked.press('Enter');
  await ines.getByText(/past the end of the range/).waitFor();
  await save(ines, 'why');

  await ines.goto('/in-and-out');
  await ines.getByRole('button', { name: 'New access token' }).click();
  await ines.getByLabel('Which program it is for').fill('Crane log');
  await ines.getByRole('checkbox', { name: 'Quays' }).focus();
  await ines.keyboard.press('Space');
  await ines.getByRole('checkbox', { name: 'Crane hours' }).focus();
  await ines.keyboard.press('Space');
  await ines.keyboard.press('Enter');
  await ines.getByRole('button', { name: 'Done' }).click();
  await ines.getByText('not used yet').waitFor();
  await ines.getByRole('button', { name: 'New webhook' }).click();
  await ines.getByLabel('Which program it is for').fill('Board at the quay');
  await ines.getByRole('checkbox', { name: 'Quays' }).focus();
  await ines.keyboard.press('Space');
  await ines.keyboard.press('Enter');
  await ines.getByRole('button', { name: 'Go on to its messages' }).click();
  await ines.getByRole('button', { name: 'Send a test' }).click();
  await ines.getByText('taken', { exact: true }).waitFor();
  await save(ines, 'in-and-out');
  await ines.goto('/catalogs');
  await ines.getByRole('link', { name: 'Pilots', exact: true }).click();
  await ines.getByText('Odd Fenwright').waitFor();
  await ines.getByRole('list', { name: 'Lineage' }).waitFor();
  await save(ines, 'catalog');
  await follow(ines, '/sources', 'Harbour lists');
  await ines.getByRole('gridcell', { name: 'Rook Tansy' }).click();
  await ines.getByText('Row 4 of Pilots').waitFor();
  await save(ines, 'source-sheet');
  await ines.getByRole('gridcell', { name: 'Tam Ossel' }).click();
  await ines.keyboard.type('Tamsin Ossel');
  await ines.keyboard.press('Enter');
  await ines.getByRole('region', { name: 'Impact' }).getByText('Corrected', { exact: true }).click();
  await save(ines, 'impact-slip');
  await shootSources(ines, follow, save);
  await shootForms(await enter('ines', 'lantern-basin'), save);
  const tobin = await enter('tobin', 'ebb-and-flood');
  await tobin.goto('/requests');
  await tobin.getByText('Fork lift').first().waitFor();
  await save(tobin, 'requests');

  const dark = await enter('mara', 'heron-mole', { colorScheme: 'dark' });
  await follow(dark, '/records', /^Vessels/);
  await dark.getByRole('table').getByRole('link').nth(1).click();
  for (const [field, text] of [
    ['Broker', 'fath'],
    ['Class', 'ferry'],
  ]) {
    await dark.getByRole('button', { name: new RegExp(`^${field}: `) }).click();
    await dark.keyboard.press('Control+a');
    await dark.keyboard.type(text);
    await dark.keyboard.press('Enter');
    await dark.getByText(`→ “`).first().waitFor();
  }
  await dark.keyboard.press('Escape');
  await dark.keyboard.press('Escape');
  await dark.getByRole('button', { name: 'All fields' }).click();
  await save(dark, 'record-dark');
}

await runScript(async () => {
  ensureModules();
  ensureChromium();
  ensureBuilt();
  const { chromium } = await import('@playwright/test');
  const data = mkdtempSync('/tmp/dellum-shots-');
  const cluster = await startCluster(data, { fsync: 'off' });
  mkdirSync(folder, { recursive: true });
  try {
    spawnSync(process.execPath, [join(root, 'demo/dist/load.js')], {
      env: { ...process.env, DATABASE_URL: cluster.url },
      stdio: 'inherit',
    });
    const sources = await standIns(cluster.url);
    const server = await serve(cluster.url, sources.env);
    const browser = await chromium.launch({
      executablePath: chromiumPath(),
      args: [
        '--no-sandbox',
        '--disable-gpu',
        '--disable-quic',
        '--no-first-run',
        '--disable-background-networking',
        '--disable-component-update',
        '--disable-sync',
      ],
    });
    try {
      await shoot(browser, server.base);
      const empty = await serve(await emptyDatabase(cluster.url), sources.env);
      await shootFirstSteps(browser, empty.base);
      empty.stop();
    } finally {
      await browser.close();
      server.stop();
      sources.stop();
    }
  } finally {
    cluster.stop();
    rmSync(data, { recursive: true, force: true });
  }
});
