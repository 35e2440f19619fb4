// Installs what is missing: Debian packages and the project's own modules.
import { execFileSync, spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { Stop, say } from './say.mjs';

export const root = new URL('../../', import.meta.url).pathname.replace(/\/$/, '');

function asRoot(args, what) {
  const command = process.getuid() === 0 ? args : ['sudo', '-n', ...args];
  const done = spawnSync(command[0], command.slice(1), {
    stdio: ['ignore', 'ignore', 'pipe'],
    env: { ...process.env, DEBIAN_FRONTEND: 'noninteractive' },
  });
  if (done.status !== 0) {
    const why = done.error?.message ?? done.stderr?.toString().trim().split('\n').at(-1) ?? '';
    throw new Stop(`${what} is missing and could not be installed (${why}). Install it with: apt-get install ${args.at(-1)}`);
  }
}

/** Installs a Debian package unless `isThere` finds what it brings. */
export function debianPackage(name, what, isThere) {
  if (isThere()) return;
  say(`Installing ${what} (Debian package ${name}) …`);
  asRoot(['apt-get', 'update', '-qq'], what);
  asRoot(['apt-get', 'install', '-y', '-qq', '--no-install-recommends', name], what);
  if (!isThere()) throw new Stop(`${what} was installed but is not where it was expected. Look at: dpkg -L ${name}`);
}

// Chromium without a window starts, loads and ends faster than the whole browser, which does as well.
const shell = '/usr/bin/chromium-headless-shell';
const whole = '/usr/bin/chromium';
/** The Chromium that is there. */
export const chromiumPath = () => (existsSync(shell) ? shell : whole);

export function ensureChromium() {
  try {
    debianPackage('chromium-headless-shell', 'Chromium without a window', () => existsSync(shell));
  } catch {
    debianPackage('chromium', 'Chromium', () => existsSync(whole));
  }
}

/** Debian's own Python, whose packages read files independently of Dellum. */
export const python = '/usr/bin/python3';

/** What the tests read written files with. */
export function ensureReaders() {
  const has = (module) => () => spawnSync(python, ['-c', `import ${module}`], { stdio: 'ignore' }).status === 0;
  debianPackage('python3-openpyxl', 'a reader of workbooks', has('openpyxl'));
  debianPackage('python3-odf', 'a reader of OpenDocument', has('odf'));
  debianPackage('python3-rdflib', 'a reader of RDF', has('rdflib'));
  debianPackage('curl', 'a client for HTTP', () => existsSync('/usr/bin/curl'));
}

/** Installs the node modules when they are missing or the lock file has changed since. */
export function ensureModules() {
  const lock = readFileSync(join(root, 'package-lock.json'));
  const stamp = createHash('sha256').update(lock).digest('hex');
  const stampFile = join(root, 'node_modules', '.dellum-lock');
  if (existsSync(stampFile) && readFileSync(stampFile, 'utf8') === stamp) return;
  say('Installing the modules of the project …');
  const done = spawnSync('npm', ['ci', '--no-audit', '--no-fund', '--loglevel=error'], {
    cwd: root,
    stdio: ['ignore', 'ignore', 'inherit'],
  });
  if (done.status !== 0) throw new Stop('The modules could not be installed. Check the connection to the npm registry and start again.');
  writeFileSync(stampFile, stamp);
}

const watched = ['package-lock.json', 'tsconfig.base.json', 'packages', 'apps', 'demo'];

function stampOfSources() {
  const files = execFileSync(
    'find',
    [
      ...watched,
      '-type',
      'f',
      '-not',
      '-path',
      '*/node_modules/*',
      '-not',
      '-path',
      '*/dist/*',
      '-not',
      '-path',
      '*/dist-*/*',
      '-not',
      '-name',
      '*.tsbuildinfo',
      '-printf',
      '%p %T@ %s\n',
    ],
    { cwd: root },
  );
  return createHash('sha256').update(files.toString().split('\n').sort().join('\n')).digest('hex');
}

/** Builds server and web application when a source is newer than the last build. */
export function ensureBuilt() {
  const stamp = stampOfSources();
  const stampFile = join(root, 'apps', 'web', 'dist', '.dellum-build');
  if (existsSync(stampFile) && readFileSync(stampFile, 'utf8') === stamp) return;
  say('Building …');
  for (const [command, args, cwd] of [
    ['npx', ['tsc', '-b', 'demo', 'apps/web'], root],
    ['npx', ['vite', 'build', '--logLevel', 'warn'], join(root, 'apps', 'web')],
  ]) {
    // Whoever asks, a test among them, gets what is shipped: React built to look closer is larger and much slower.
    const env = { ...process.env, NODE_ENV: 'production' };
    const done = spawnSync(command, args, { cwd, stdio: ['ignore', 'inherit', 'inherit'], env });
    if (done.status !== 0) throw new Stop('The build failed; the lines above say where.');
  }
  mkdirSync(join(root, 'apps', 'web', 'dist'), { recursive: true });
  writeFileSync(stampFile, stamp);
}
