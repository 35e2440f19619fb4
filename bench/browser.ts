// What a clerk's browser does: scrolling through 1,000,000 entries, and a key in a picker over many items until it is painted.
import { chromium, type Browser, type CDPSession, type Page } from '@playwright/test';
import { loadHouse, type HouseBlueprint } from '@dellum/demo';
import type { BuildView } from '@dellum/contract';
import type { Database } from '@dellum/server';
import { percentile, print } from './measure.js';
import type { Million } from './million.js';
import { serve, signIn, type Caller } from './server.js';

const flags = [
  '--no-sandbox',
  '--disable-gpu',
  '--disable-quic',
  '--no-first-run',
  '--disable-background-networking',
  '--disable-component-update',
  '--disable-sync',
];
export const launch = (): Promise<Browser> => chromium.launch({ executablePath: process.env['DELLUM_CHROMIUM']!, args: flags });

/** A page of the application, signed in as the caller. */
export async function pageOf(browser: Browser, base: string, { cookie }: Caller, path: string): Promise<Page> {
  const context = await browser.newContext({ baseURL: base, viewport: { width: 1280, height: 800 } });
  const [name, value] = cookie.split('=') as [string, string];
  await context.addCookies([{ name, value, url: base }]);
  const page = await context.newPage();
  await page.goto(path);
  return page;
}

const screens = 60;

/** Main-thread milliseconds that a screen of rows costs, scrolled one after the other. */
async function perScreen(page: Page, scroller: string): Promise<number> {
  const session: CDPSession = await page.context().newCDPSession(page);
  await session.send('Performance.enable');
  const busy = async () => (await session.send('Performance.getMetrics')).metrics.find(({ name }) => name === 'TaskDuration')!.value * 1000;
  const before = await busy();
  await page.evaluate(
    async ([selector, count]) => {
      const box = document.querySelector(selector)!;
      for (let at = 0; at < count; at++) {
        box.scrollTop += box.clientHeight;
        await new Promise((resolve) => requestAnimationFrame(() => requestAnimationFrame(resolve)));
      }
    },
    [scroller, screens] as const,
  );
  return ((await busy()) - before) / screens;
}

/** A bare windowed list of as many rows and columns of plain cells. */
const bareList = `<div id="box" style="height:600px;overflow:auto"><div id="all" style="position:relative"></div></div><script>
  const box = document.getElementById('box'), all = document.getElementById('all'), height = 30, columns = 14, spare = 10;
  all.style.height = 1000000 * height + 'px';
  function draw() {
    const first = Math.max(0, Math.floor(box.scrollTop / height) - spare), count = Math.ceil(box.clientHeight / height) + 2 * spare;
    all.replaceChildren(...Array.from({ length: count }, (_, at) => {
      const row = document.createElement('div');
      row.style.cssText = 'position:absolute;display:flex;height:30px;transform:translateY(' + (first + at) * height + 'px)';
      for (let column = 0; column < columns; column++) {
        const cell = document.createElement('div');
        cell.style.cssText = 'width:100px;overflow:hidden;white-space:nowrap;border:1px solid #ddd';
        cell.textContent = 'text ' + (first + at) * column;
        row.append(cell);
      }
      return row;
    }));
  }
  box.addEventListener('scroll', draw); draw();
</script>`;

export async function sheetScroll(_database: Database, { server, administrator, register }: Million): Promise<void> {
  const browser = await launch();
  try {
    const page = await pageOf(browser, server.base, administrator, `/sheets/${register.sheetId}`);
    await page.getByRole('grid').getByRole('gridcell').first().waitFor();
    await page.evaluate(() => document.querySelector('[role=grid]')!.scrollTo(0, 3_003_000));
    // The active row, far away, may still be loading; the rows in view are not.
    await page.waitForFunction(
      () =>
        document.querySelectorAll('.dl-row').length > 20 &&
        [...document.querySelectorAll('.dl-row')].filter((row) => row.querySelector('.dl-loading')).length <= 1,
    );
    const ours = await perScreen(page, '[role=grid]');
    const bare = await (await browser.newContext({ viewport: { width: 1280, height: 800 } })).newPage();
    await bare.setContent(bareList);
    const plain = await perScreen(bare, '#box');
    print({
      name: 'sheet.scroll.1m',
      value: ours,
      unit: 'ms a screen',
      against: 'a bare windowed list of plain cells',
      ratio: plain / ours,
    });
  } finally {
    await browser.close();
  }
}

const sizes = [5_000, 100_000] as const;
const typed = 'item 4217 b';
const rounds = 8;

/** Milliseconds from a key until the frame that shows it, for each key of some texts typed into the focused element. */
async function perKey(page: Page, between: () => Promise<void>): Promise<number[]> {
  await page.evaluate(() => {
    const spent: number[] = [];
    Object.assign(window, { spent });
    window.addEventListener(
      'keydown',
      () => {
        const started = performance.now();
        requestAnimationFrame(() => {
          const { port1, port2 } = new MessageChannel();
          port1.onmessage = () => spent.push(performance.now() - started);
          port2.postMessage(0);
        });
      },
      true,
    );
  });
  for (let round = 0; round < rounds; round++) {
    for (const key of typed) await page.keyboard.press(key === ' ' ? 'Space' : key);
    await between();
  }
  return page.evaluate(() => (window as unknown as { spent: number[] }).spent);
}

function pickers(key: string): HouseBlueprint {
  const rule = (catalog: string) => ({ catalog, mayBeBlank: true, others: 'refuse' as const, hint: '', refusalText: '' });
  const lists = sizes.map((size) => ({
    heading: `List of ${size}`,
    texts: Array.from({ length: size }, (_, at) => `item ${at} ${'abcde'[at % 5]!}`),
    ranges: [{ name: `Of ${size}`, from: 0, ends: 'last' as const }],
  }));
  return {
    key,
    name: 'Pickers',
    demo: false,
    people: [{ name: 'Bench', signIn: 'bench', role: 'administrator', password: 'bench-password' }],
    sourceSheets: [{ title: 'Lists', note: '', lists }],
    catalogs: sizes.map((size) => ({ title: `Of ${size}`, note: '', ranges: [`Of ${size}`] })),
    entrySheets: [
      {
        title: 'Picked',
        note: '',
        fields: sizes.map((size) => ({
          key: `of_${size}`,
          heading: `Of ${size}`,
          kind: 'text' as const,
          width: 160,
          rule: rule(`Of ${size}`),
        })),
        entries: [{}],
      },
    ],
  };
}

export async function keyToPaint(database: Database, _bench: Million): Promise<void> {
  const key = `pickers-${process.pid}`;
  await loadHouse(database.kysely, pickers(key));
  const server = await serve(process.env['DATABASE_URL']!);
  const browser = await launch();
  try {
    const administrator = await signIn(server.base, key);
    const sheet = (await administrator.call<BuildView>('GET', '/build')).sheets.find(({ kind }) => kind === 'entry')!;
    const bare = await (await browser.newContext()).newPage();
    await bare.setContent('<input autofocus>');
    await bare.locator('input').focus();
    const plain = percentile(await perKey(bare, () => bare.locator('input').fill('')), 0.95);
    for (const [column, size] of sizes.entries()) {
      const page = await pageOf(browser, server.base, administrator, `/sheets/${sheet.id}`);
      const cell = page.locator(`[role=gridcell][data-row="0"][data-column="${column}"]:not(:has(.dl-loading))`);
      await cell.click();
      // The list is there once it answers; the first key of the measurement does not wait for it.
      await page.keyboard.press('Alt+ArrowDown');
      await page.getByRole('option').first().waitFor({ timeout: 60_000 });
      await page.keyboard.press('Escape');
      await page.keyboard.press('Escape');
      const spent = await perKey(page, async () => {
        await page.keyboard.press('Escape');
        await page.keyboard.press('Escape');
        await cell.click();
      });
      print({
        name: 'key.to.paint',
        value: percentile(spent, 0.95) - plain,
        unit: 'ms over a bare text field',
        against: `limit 16.7 ms, ${size.toLocaleString('en-GB')} items, 95th percentile of ${spent.length} keys`,
        ratio: null,
      });
      await page.close();
    }
  } finally {
    await browser.close();
    await server.stop();
  }
}
