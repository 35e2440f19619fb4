// The server as a process: everything it needs comes from the environment.
import type { AddressInfo } from 'node:net';
import { setFlagsFromString } from 'node:v8';
import { edgeFrom } from './api/edgeConfig.js';
import { Metrics } from './metrics/metrics.js';
import { reachableFrom } from './linked/reachable.js';
import { createServer } from './server.js';

// The heap may double until all of it is looked through again. By itself the engine lets it grow to four times what is used: writing a
// million entries took 200 MB, of which 60 were needed, and no less time.
setFlagsFromString('--heap-growing-percent=100');

const databaseUrl = process.env['DATABASE_URL'];
const directUrl = process.env['DELLUM_DATABASE_DIRECT'];
const standbyUrl = process.env['DELLUM_DATABASE_STANDBY'];
const port = Number(process.env['PORT'] ?? 4170);
const webFolder = process.env['DELLUM_WEB'];
const templates = process.env['DELLUM_TEMPLATES'];
const metricsPort = process.env['DELLUM_METRICS_PORT'];

// Where nobody can write the log any more, as on a full disk, the server goes on without one.
for (const stream of [process.stdout, process.stderr]) stream.on('error', () => undefined);

if (!databaseUrl) {
  process.stderr.write('DATABASE_URL is not set. Start Dellum with: npm start\n');
  process.exit(1);
}

const say = (words: string) => void process.stderr.write(`${words}\n`);

const app = await createServer({
  databaseUrl,
  ...(directUrl && { directUrl }),
  ...(standbyUrl && { standbyUrl }),
  reachable: reachableFrom(process.env, say),
  edge: edgeFrom(process.env),
  migrated: process.env['DELLUM_MIGRATED'] === 'yes',
  ...(webFolder && { webFolder }),
  ...(templates && { templates }),
  logRequests: process.env['DELLUM_LOG'] === 'requests',
}).catch((error: unknown) => {
  process.stderr.write(
    `The server cannot use the database of DATABASE_URL: ${error instanceof Error ? error.message || error.name : String(error)}\n`,
  );
  process.exit(1);
});

/** So long requests are waited for, and then what else there is to end; milliseconds. */
const finishWithin = 8000;
const stopWithin = 15_000;
let stopping = false;
async function stop(): Promise<void> {
  if (stopping) return;
  stopping = true;
  // Requests under way are finished; one that takes too long is not waited for.
  setTimeout(() => app.getHttpServer().closeAllConnections(), finishWithin).unref();
  setTimeout(() => process.exit(1), stopWithin).unref();
  await app.close();
  process.exit(0);
}
process.on('SIGINT', () => void stop());
process.on('SIGTERM', () => void stop());

try {
  // Longer than browsers and balancers keep a connection that nobody uses, so that none is closed under a request.
  app.getHttpServer().keepAliveTimeout = 75_000;
  await app.listen(port, process.env['HOST'] ?? '127.0.0.1');
  if (metricsPort !== undefined) await app.get(Metrics).serve(Number(metricsPort));
  process.stdout.write(`listening ${(app.getHttpServer().address() as AddressInfo).port}\n`);
} catch (error) {
  const taken = error instanceof Error && 'code' in error && error.code === 'EADDRINUSE';
  process.stderr.write(
    taken
      ? `Port ${port} is taken. Choose another: PORT=${port + 1} npm start\n`
      : `The server cannot listen on port ${port}: ${String(error)}\n`,
  );
  process.exit(1);
}
