// Figures about the running server, in the text format of Prometheus, on a port of their own: nobody who uses Dellum sees them.
import { createServer, type Server } from 'node:http';
import { Injectable } from '@nestjs/common';
import type { NextFunction, Request, Response } from 'express';
import { collectDefaultMetrics, Gauge, Histogram, Registry } from 'prom-client';
import { Database } from '../database/database.js';
import { LiveController } from '../live/live.controller.js';

/** Upper ends of the classes of durations; seconds. */
const classes = [0.005, 0.02, 0.1, 0.5, 2, 10];

/** The route as it is declared: one line a route, not one an entry. */
function routeOf(request: Request): string {
  const { route } = request as { route?: { path?: unknown } };
  return typeof route?.path === 'string' ? route.path : 'none';
}

@Injectable()
export class Metrics {
  private readonly registry = new Registry();
  private readonly requests: Histogram;

  constructor(database: Database, live: LiveController) {
    const registers = [this.registry];
    collectDefaultMetrics({ register: this.registry });
    this.requests = new Histogram({
      name: 'dellum_request_seconds',
      help: 'How long requests took, by route and answer',
      labelNames: ['method', 'route', 'status'],
      buckets: classes,
      registers,
    });
    new Gauge({
      name: 'dellum_live_streams',
      help: 'Open live streams',
      registers,
      collect() {
        this.set(live.streams);
      },
    });
    new Gauge({
      name: 'dellum_database_connections',
      help: 'Connections to the database, by what they do; waiting: requests that wait for one',
      labelNames: ['state'],
      registers,
      collect() {
        for (const [state, count] of Object.entries(database.connections)) this.set({ state }, count);
      },
    });
  }

  readonly measure = (request: Request, response: Response, next: NextFunction): void => {
    const began = performance.now();
    response.once('finish', () =>
      this.requests.observe(
        { method: request.method, route: routeOf(request), status: response.statusCode },
        (performance.now() - began) / 1000,
      ),
    );
    next();
  };

  text(): Promise<string> {
    return this.registry.metrics();
  }

  /** Serves them on loopback; whoever collects them comes from there, or through a proxy of its own. */
  serve(port: number): Promise<Server> {
    const server = createServer((request, response) => {
      if (request.url !== '/metrics') return void response.writeHead(404).end();
      void this.text().then((text) => response.writeHead(200, { 'Content-Type': this.registry.contentType }).end(text));
    });
    return new Promise((resolve, reject) => {
      server.once('error', reject);
      server.listen(port, '127.0.0.1', () => resolve(server));
    });
  }
}
