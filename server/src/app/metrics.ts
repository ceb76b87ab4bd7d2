import cluster from 'node:cluster';
import { createServer } from 'node:http';
import type { Server } from 'node:http';
import type { NextFunction, Request, Response } from 'express';
import { AggregatorRegistry, collectDefaultMetrics, Gauge, Histogram, register } from 'prom-client';
import { DataSource } from 'typeorm';
import { Streams } from '../live/index.js';
import type { INestApplication } from '@nestjs/common';

const took = new Histogram({
  name: 'jigsaw_request_seconds',
  help: 'How long requests took, by operation and outcome; streams are left out',
  labelNames: ['method', 'route', 'status'],
  buckets: [0.005, 0.02, 0.05, 0.1, 0.25, 1, 5, 20],
});

/** Measures every request under the pattern of its address, so that no figure tells who or what it was about. */
export function measureRequests(request: Request, response: Response, next: NextFunction): void {
  const end = took.startTimer();
  response.on('finish', () => {
    if (String(response.getHeader('Content-Type')).startsWith('text/event-stream')) return;
    const route = (request.route as { path?: unknown } | undefined)?.path;
    end({
      method: request.method,
      route: typeof route === 'string' ? route : 'none',
      status: response.statusCode,
    });
  });
  next();
}

/** Adds what this process is made of: event loop, memory, connections to the database, open streams. Once a process. */
export function measureProcess(app: INestApplication): void {
  collectDefaultMetrics();
  const streams = app.get(Streams, { strict: false });
  const { driver } = app.get(DataSource, { strict: false });
  const { master: pool } = driver as unknown as { master: Pool };
  const figures: readonly [name: string, help: string, of: () => number][] = [
    ['jigsaw_streams', 'Open streams of live changes', () => streams.count],
    ['jigsaw_database_connections', 'Connections to the database', () => pool.totalCount],
    ['jigsaw_database_waiting', 'Requests that wait for a connection', () => pool.waitingCount],
  ];
  for (const [name, help, of] of figures)
    new Gauge({
      name,
      help,
      collect() {
        this.set(of());
      },
    });
  if (cluster.isWorker) new AggregatorRegistry(); // answers the process above when it asks
}
interface Pool {
  readonly totalCount: number;
  readonly waitingCount: number;
}

/** Serves the figures to this machine alone: of this process, or added up over all of them by the one above. */
export function serveMetrics(port: number): Promise<Server> {
  const isAbove = cluster.isPrimary && Object.keys(cluster.workers ?? {}).length > 0;
  const aggregator = isAbove ? new AggregatorRegistry() : null;
  const server = createServer((request, response) => {
    if (request.url !== '/metrics') {
      response.writeHead(404).end();
      return;
    }
    const text = aggregator ? aggregator.clusterMetrics() : register.metrics();
    void text.then(
      (body) => response.writeHead(200, { 'Content-Type': register.contentType }).end(body),
      () => response.writeHead(503).end(),
    );
  });
  return new Promise((resolve, reject) => {
    server.once('error', reject);
    server.listen(port, '127.0.0.1', () => resolve(server.unref()));
  });
}
