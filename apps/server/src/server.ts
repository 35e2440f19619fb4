// Puts a server together: migrated database, application, API description.
import 'reflect-metadata';
import { Logger } from '@nestjs/common';
import { NestFactory } from '@nestjs/core';
import type { NestExpressApplication } from '@nestjs/platform-express';
import type { Express } from 'express';
import { compressed } from './api/compressed.js';
import { guardEdge } from './api/edge.js';
import { edgeFrom, type EdgeConfig } from './api/edgeConfig.js';
import { Metrics } from './metrics/metrics.js';
import { pages } from './api/pages.js';
import { Readiness } from './api/readiness.js';
import { requestLog } from './api/requestLog.js';
import { AppModule } from './app.module.js';
import { Database } from './database/database.js';
import { Standby } from './database/standby.js';
import { migrate } from './database/migrate.js';
import { mustBeLaidOut } from './database/schema.js';
import { reachableFrom, type ReachableConfig } from './linked/reachable.js';
import { ProblemFilter, validation } from './problems/index.js';

export interface ServerOptions {
  readonly databaseUrl: string;
  /** The same database past a pooler, for the one connection that listens; that of `databaseUrl` when it is left out. */
  readonly directUrl?: string;
  /** A database that follows the first one, for what takes long to read; there is none when it is left out. */
  readonly standbyUrl?: string;
  /** The built web application, served beside the API; without it the server is the API alone. */
  readonly webFolder?: string;
  /** The folder of templates for houses; there are none when it is left out. */
  readonly templates?: string;
  /** What linked sources may reach; nothing when it is left out. */
  readonly reachable?: ReachableConfig;
  /** Under which names it answers, and which proxies it believes; its own names and none when it is left out. */
  readonly edge?: EdgeConfig;
  /** The database was brought to its newest form by its owner; the server's role could not. */
  readonly migrated?: boolean;
  /** Requests are logged as JSON lines to standard error when this is set. */
  readonly logRequests?: boolean;
}

/** Makes the application; the caller listens and closes. */
export async function createServer({
  databaseUrl,
  directUrl = databaseUrl,
  standbyUrl,
  webFolder,
  templates,
  logRequests,
  migrated = false,
  edge = edgeFrom({}),
  reachable = reachableFrom({}),
}: ServerOptions): Promise<NestExpressApplication> {
  const database = new Database(databaseUrl, undefined, directUrl);
  if (!migrated) await migrate(database.kysely);
  await mustBeLaidOut(database.kysely, (words) => new Logger('database').warn(words));
  const app = await NestFactory.create<NestExpressApplication>(
    AppModule.with(database, new Standby(database, standbyUrl), reachable, templates),
    { bodyParser: false, logger: ['warn', 'error'] },
  );
  const express = app.getHttpAdapter().getInstance() as Express;
  if (logRequests) express.use(requestLog());
  express.use(app.get(Metrics).measure);
  express.get('/healthz', (_request, response) => void response.json({ ok: true }));
  express.get('/readyz', (_request, response) => {
    void app
      .get(Readiness)
      .isReady()
      .then((ready) => response.status(ready ? 200 : 503).json({ ready }));
  });
  guardEdge(express, edge);
  express.use(compressed());
  if (webFolder) express.use(pages(webFolder));
  app.setGlobalPrefix('api/v1');
  app.useGlobalPipes(validation());
  app.useGlobalFilters(new ProblemFilter());
  app.enableShutdownHooks([]);
  // Whoever asks for the description waits for it once; a server that starts does not.
  let description: Promise<object> | undefined;
  express.get('/api/openapi.json', (_request, response, next) => {
    description ??= import('./api/openApi.js').then(({ describeApi }) => describeApi(app));
    description.then((described) => response.json(described)).catch(next);
  });
  await app.init();
  return app;
}
