// npm run ledger -- check [DIGEST]: reckons the seals of the ledger anew. --demo: of the demo. DIGEST: a seal that was noted elsewhere.
import { spawnSync } from 'node:child_process';
import { join } from 'node:path';
import { dataFolderOf, withDatabase } from './lib/dataFolder.mjs';
import { ensureBuilt, ensureModules, root } from './lib/packages.mjs';
import { Stop, runScript } from './lib/say.mjs';

await runScript(async () => {
  const [act, digest, ...more] = process.argv.slice(2).filter((option) => option !== '--demo');
  if (act !== 'check' || more.length > 0 || (digest !== undefined && !/^[0-9a-f]{64}$/u.test(digest)))
    throw new Stop('Say what is done: npm run ledger -- check, or with a seal that you noted: npm run ledger -- check DIGEST');
  ensureModules();
  ensureBuilt();
  await withDatabase(dataFolderOf(!process.argv.includes('--demo')), ({ url }) => {
    const { status } = spawnSync(
      process.execPath,
      [join(root, 'apps', 'server', 'dist', 'ledger', 'checkSeals.js'), ...(digest ? [digest] : [])],
      { env: { ...process.env, DATABASE_URL: url }, stdio: 'inherit' },
    );
    process.exitCode = status ?? 1;
  });
});
