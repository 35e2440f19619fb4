// The first visit of a sheet over an office's line: from the address to the first letter in a cell, with nothing kept from before.
import type { Page } from '@playwright/test';
import type { Database } from '@dellum/server';
import { launch, pageOf } from './browser.js';
import { median, print } from './measure.js';
import type { Million } from './million.js';

/** Bits a second, and milliseconds from one end to the other and back. */
const line = { rate: 10_000_000, delay: 40 };
const rounds = 5;
/** The aim: bytes of scripts as they come over the line. */
const mostScripts = 250_000;

interface Fetched {
  readonly all: number;
  readonly scripts: number;
}

/** Counts what comes over the line from now on. */
async function overTheLine(page: Page): Promise<() => Fetched> {
  const session = await page.context().newCDPSession(page);
  await session.send('Network.enable');
  await session.send('Network.emulateNetworkConditions', {
    offline: false,
    latency: line.delay,
    downloadThroughput: line.rate / 8,
    uploadThroughput: line.rate / 8,
  });
  const kinds = new Map<string, string>();
  const fetched = { all: 0, scripts: 0 };
  session.on('Network.responseReceived', ({ requestId, type }) => kinds.set(requestId, type));
  session.on('Network.loadingFinished', ({ requestId, encodedDataLength }) => {
    fetched.all += encodedDataLength;
    if (kinds.get(requestId) === 'Script') fetched.scripts += encodedDataLength;
  });
  return () => ({ ...fetched });
}

export async function firstVisit(_database: Database, { server, administrator, register }: Million): Promise<void> {
  const spent: number[] = [];
  let fetched: Fetched = { all: 0, scripts: 0 };
  for (let round = 0; round < rounds; round++) {
    const browser = await launch();
    try {
      const page = await pageOf(browser, server.base, administrator, 'about:blank');
      const soFar = await overTheLine(page);
      const started = performance.now();
      await page.goto(`/sheets/${register.sheetId}`, { waitUntil: 'commit' });
      await page.locator('[role=gridcell].active:focus').waitFor();
      fetched = soFar();
      await page.keyboard.press('a');
      await page.locator('[role=gridcell] :is(input, textarea)').waitFor();
      spent.push(performance.now() - started);
    } finally {
      await browser.close();
    }
  }
  const ours = median(spent);
  const ideal = (fetched.all * 8 * 1000) / line.rate + 2 * line.delay;
  print({
    name: 'first.visit',
    value: ours,
    unit: 'ms',
    against: `the same ${Math.round(fetched.all / 1000)} kB over a line of 10 Mbit/s and 40 ms, and nothing else`,
    ratio: ideal / ours,
  });
  print({
    name: 'first.visit.scripts',
    value: fetched.scripts / 1000,
    unit: 'kB',
    against: `limit ${mostScripts / 1000} kB`,
    ratio: mostScripts / fetched.scripts,
  });
}
