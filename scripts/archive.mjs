// npm run archive -- out FILE: the house as an archive. --without-entries and --without-people make it a template. --house KEY: which one.
// npm run archive -- in FILE: a new house of it, or with --into KEY additions to one that is there. --demo: over the demo's database.
import { spawnSync } from 'node:child_process';
import { join, resolve } from 'node:path';
import { isOlder, migrationsBuilt } from './lib/backups.mjs';
import { dataFolderOf, withDatabase } from './lib/dataFolder.mjs';
import { ensureBuilt, ensureModules, root } from './lib/packages.mjs';
import { Stop, runScript } from './lib/say.mjs';

const flags = { out: ['--without-entries', '--without-people'], in: [] };
const named = { out: ['--house'], in: ['--into'] };

/** What was asked for: `[act, file, ...options]`. */
function asked(all) {
  const [act, file, ...options] = all;
  const usage = new Stop(
    'Say what is done: npm run archive -- out FILE (with --without-entries or --without-people), or npm run archive -- in FILE (with --into KEY).',
  );
  if (!(act in flags) || file === undefined || file.startsWith('--')) throw usage;
  for (let at = 0; at < options.length; at++) {
    if (named[act].includes(options[at]) && options[at + 1] !== undefined) at++;
    else if (!flags[act].includes(options[at])) throw usage;
  }
  return [act, resolve(file), ...options];
}

await runScript(async () => {
  const all = process.argv.slice(2);
  const args = asked(all.filter((option) => option !== '--demo'));
  ensureModules();
  ensureBuilt();
  await withDatabase(dataFolderOf(!all.includes('--demo')), ({ url }) => {
    if (isOlder(url, migrationsBuilt()))
      throw new Stop('This database is of an older form. Start Dellum once, which makes a backup of it; then do this again.');
    const { status } = spawnSync(process.execPath, [join(root, 'apps', 'server', 'dist', 'exchange', 'archiveFile.js'), ...args], {
      env: { ...process.env, DATABASE_URL: url },
      stdio: 'inherit',
    });
    process.exitCode = status ?? 1;
  });
});
