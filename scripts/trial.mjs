// npm run trial [-- SECONDS]: the campaign in full. People write while servers, database and connections are killed; then requests with
// what does not belong there, in every role. Prints a line of figures; ends with 1 where something was lost, doubled or broken.
import { spawnSync } from 'node:child_process';
import { ensureBuilt, ensureModules, root } from './lib/packages.mjs';
import { Stop, runScript, say } from './lib/say.mjs';

await runScript(() => {
  const [seconds = '300', ...more] = process.argv.slice(2);
  if (more.length > 0 || !/^[1-9]\d{0,4}$/u.test(seconds)) throw new Stop('Say for how many seconds: npm run trial -- 300');
  ensureModules();
  ensureBuilt();
  say(`The trial goes on for ${seconds} s, and then makes 15,000 requests.`);
  const { status } = spawnSync(
    'npx',
    ['vitest', 'run', '--project', 'server', 'apps/server/test/trial.test.ts', 'apps/server/test/fuzz.test.ts'],
    { cwd: root, stdio: 'inherit', env: { ...process.env, DELLUM_TRIAL: seconds, DELLUM_FUZZ: '15000' } },
  );
  process.exitCode = status ?? 1;
});
