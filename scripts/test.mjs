// npm test: sets up what it needs and runs types, format, lint, unit and server tests, and each main path in the browser. Ends with
// `N passed, N failed`. `npm test -- --all` drives everything in the browser; continuous integration does.
import { execFile, spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { ensureBuilt, ensureChromium, ensureModules, ensureReaders, root } from './lib/packages.mjs';
import { startCluster } from './lib/postgres.mjs';
import { runScript, say } from './lib/say.mjs';

const counts = { passed: 0, failed: 0 };
/** What failed, said once more at the end: what stands far above is not read. */
const failures = [];

function run(name, command, args, env = {}) {
  say(`\n— ${name}`);
  const started = Date.now();
  const { status } = spawnSync(command, args, { cwd: root, stdio: ['ignore', 'inherit', 'inherit'], env: { ...process.env, ...env } });
  say(`  ${name}: ${status === 0 ? 'good' : 'FAILED'} after ${Math.round((Date.now() - started) / 1000)} s`);
  return status === 0;
}

/** Steps that pass or fail as a whole, side by side: each of them uses one core. What they say comes when they end. */
async function steps(all) {
  const step = ([name, command, ...args]) =>
    new Promise((resolve) => {
      const started = Date.now();
      execFile(command, args, { cwd: root, maxBuffer: 2 ** 26 }, (error, out, err) => {
        counts[error ? 'failed' : 'passed']++;
        if (error) {
          say(`${out}${err}`);
          failures.push({ name, words: `${out}${err}` });
        }
        say(`— ${name}: ${error ? 'FAILED' : 'good'} after ${Math.round((Date.now() - started) / 1000)} s`);
        resolve();
      });
    });
  const waiting = [...all];
  const worker = async () => {
    for (let next = waiting.shift(); next; next = waiting.shift()) await step(next);
  };
  await Promise.all([worker(), worker()]);
}

/** A step that counts its own tests into a JSON report; a run that fails without a failed test counts as one. */
function tests(name, command, args, env, read) {
  const good = run(name, command, args, env);
  let found = { passed: 0, failed: 0, failures: [] };
  try {
    found = read();
  } catch {
    // No report: the run broke before its tests; that is one failure.
  }
  counts.passed += found.passed;
  counts.failed += found.failed || (good ? 0 : 1);
  failures.push(...found.failures);
  if (!good && found.failures.length === 0)
    failures.push({ name, words: 'It broke before, or beside, its tests; the lines above say where.' });
}

/** The tests of a suite of the browser, and of those within it. */
const specsIn = ({ specs, suites = [] }) => [...specs, ...suites.flatMap(specsIn)];
/** So much is said of a failure at the end. */
const mostWords = 1500;

const readJson = (file) => JSON.parse(readFileSync(file, 'utf8'));

await runScript(async () => {
  ensureModules();
  ensureChromium();
  ensureReaders();
  const folder = mkdtempSync('/tmp/dellum-test-');
  // The tests' cluster is thrown away: nothing of it needs to outlive a crash.
  const cluster = await startCluster(folder, { fsync: 'off', synchronous_commit: 'off', full_page_writes: 'off' });
  try {
    ensureBuilt();
    await steps([
      ['lint', 'npx', 'eslint', '.', '--max-warnings', '0'],
      ['types', 'npx', 'tsc', '-b'],
      ['format', 'npx', 'prettier', '--check', '.', '--log-level', 'warn'],
    ]);
    const env = { DELLUM_TEST_DATABASE: cluster.url };
    const units = join(folder, 'units.json');
    tests(
      'unit and server tests',
      'npx',
      ['vitest', 'run', '--reporter=default', '--reporter=json', `--outputFile.json=${units}`],
      env,
      () => {
        const { numPassedTests, numFailedTests, numFailedTestSuites, testResults } = readJson(units);
        const broken = testResults.flatMap(({ name, message, assertionResults }) => [
          ...(message ? [{ name, words: message }] : []),
          ...assertionResults
            .filter(({ status }) => status === 'failed')
            .map(({ fullName, failureMessages }) => ({ name: `${name} › ${fullName}`, words: failureMessages.join('\n') })),
        ]);
        return { passed: numPassedTests, failed: numFailedTests || numFailedTestSuites, failures: broken };
      },
    );
    const browser = join(folder, 'browser.json');
    const which = process.argv.includes('--all') ? [] : ['--grep', '@main'];
    tests('browser tests', 'npx', ['playwright', 'test', '-c', 'e2e', ...which], { ...env, DELLUM_E2E_REPORT: browser }, () => {
      const { stats, suites } = readJson(browser);
      const broken = suites
        .flatMap(specsIn)
        .filter(({ ok }) => !ok)
        .map(({ file, title, tests: runs }) => ({
          name: `${file} › ${title}`,
          words: runs.flatMap(({ results }) => results.map(({ error }) => error?.message ?? '')).join('\n'),
        }));
      return { passed: stats.expected, failed: stats.unexpected + stats.flaky, failures: broken };
    });
  } finally {
    cluster.stop();
    rmSync(folder, { recursive: true, force: true });
  }
  for (const { name, words } of failures) say(`\nFAILED ${name.replace(`${root}/`, '')}\n${words.slice(0, mostWords)}`);
  say(`\n${counts.passed} passed, ${counts.failed} failed`);
  if (counts.failed > 0) process.exitCode = 1;
});
