// npm run bench: the performance promises, as ratios within one run; one JSON object a line.
import { spawnSync } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { thrifty } from './lib/memory.mjs';
import { chromiumPath, ensureBuilt, ensureChromium, ensureModules, root } from './lib/packages.mjs';
import { startCluster } from './lib/postgres.mjs';
import { runScript, Stop } from './lib/say.mjs';

await runScript(async () => {
  ensureModules();
  ensureChromium();
  ensureBuilt();
  spawnSync('npx', ['tsc', '-b', 'bench'], { cwd: root, stdio: ['ignore', 'ignore', 'inherit'] });
  const folder = mkdtempSync('/tmp/dellum-bench-');
  const cluster = await startCluster(folder, { max_wal_size: '4GB', shared_buffers: '1GB' });
  try {
    const { status } = spawnSync(process.execPath, [join(root, 'bench', 'dist', 'run.js'), ...process.argv.slice(2)], {
      cwd: root,
      stdio: ['ignore', 'inherit', 'inherit'],
      env: { ...thrifty, ...process.env, DATABASE_URL: cluster.url, DELLUM_CHROMIUM: chromiumPath() },
    });
    if (status !== 0) throw new Stop('Some lines failed, or the bench broke; the lines above say why.');
  } finally {
    cluster.stop();
    rmSync(folder, { recursive: true, force: true });
  }
});
