// A stopped database: the browser says so, keeps what is typed, and goes on when it is back.
import { mkdtempSync, rmSync } from 'node:fs';
import { Database, migrate } from '@dellum/server';
import { startCluster } from '../scripts/lib/postgres.mjs';
import { cellOf, enterHouse, expect, test, toSheet } from './house.js';
import { serve } from './servers.js';

test('typed text outlives a stopped database', async ({ browser }) => {
  test.setTimeout(240_000);
  const folder = mkdtempSync('/tmp/dellum-away-');
  let cluster = await startCluster(folder, { fsync: 'off' });
  const database = new Database(cluster.url, 1);
  await migrate(database.kysely);
  await database.kysely.destroy();
  const server = await serve(cluster.url);
  const house = await enterHouse(browser, cluster.url);
  try {
    const page = await house.open('mara', undefined, server.base);
    const grid = await toSheet(page, 'Berth visits');
    cluster.stop();
    await cellOf(grid, 1500, 'Pilot').click();
    await page.keyboard.type('Corin Vale');
    await page.keyboard.press('Enter');
    await expect(page.getByRole('alert')).toContainText('Dellum cannot reach its database');
    await page.keyboard.type('Rook Tansy');
    await page.keyboard.press('Enter');
    await expect(page.getByRole('alert')).toContainText('2 cells are kept here');
    await expect(cellOf(grid, 1501, 'Pilot')).toContainText('Rook Tansy');

    cluster = await startCluster(folder, { fsync: 'off', port: cluster.port });
    await expect(page.getByRole('alert')).toBeHidden({ timeout: 60_000 });
    await expect(cellOf(grid, 1500, 'Pilot')).toHaveText('Corin Vale');
    await expect(cellOf(grid, 1501, 'Pilot')).toHaveText('Rook Tansy');
    await page.reload();
    await expect(cellOf(grid, 1501, 'Pilot')).toHaveText('Rook Tansy');
    await expect(page.getByText('live', { exact: true })).toBeVisible();
  } finally {
    await house.leave();
    await server.stop();
    cluster.stop();
    rmSync(folder, { recursive: true, force: true });
  }
});
