// How a server is started as a process of its own.
import { join } from 'node:path';
import { thrifty } from './memory.mjs';
import { root } from './packages.mjs';

/** Program, arguments and environment of a server over a database, at a port. */
export const serverCommand = (databaseUrl, port, env) => [
  process.execPath,
  [join(root, 'apps', 'server', 'dist', 'main.js')],
  {
    env: {
      ...thrifty,
      ...process.env,
      ...env,
      DATABASE_URL: databaseUrl,
      PORT: String(port),
      DELLUM_WEB: join(root, 'apps', 'web', 'dist'),
      DELLUM_TEMPLATES: join(root, 'demo', 'templates'),
    },
    stdio: ['ignore', 'pipe', 'inherit'],
    detached: true,
  },
];

/** Resolves when the server takes requests. */
export const serverReady = (server) =>
  new Promise((resolve) => server.stdout.on('data', (chunk) => String(chunk).startsWith('listening') && resolve()));
