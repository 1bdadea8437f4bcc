import { createServer, type Server } from 'node:http';
import { Injectable, type OnApplicationShutdown } from '@nestjs/common';
import type { NextFunction, Request, Response } from 'express';
import { collectDefaultMetrics, Gauge, Histogram, openMetricsContentType, Registry } from 'prom-client';
import { DataSource } from 'typeorm';
import { Config } from './config.js';
import { num, rows } from './database/tx.js';

const BUCKETS_S = [0.005, 0.01, 0.02, 0.04, 0.08, 0.15, 0.3, 0.6, 1.2, 5, 20];

/** What somebody who looks after a server wants to see of it: requests, the event loop, memory, what waits to leave. */
@Injectable()
export class Metrics implements OnApplicationShutdown {
  private readonly registry = new Registry<typeof openMetricsContentType>();
  private readonly requests: Histogram;
  private server: Server | undefined;

  constructor(
    source: DataSource,
    private readonly config: Config,
  ) {
    this.registry.setContentType(openMetricsContentType);
    this.requests = new Histogram({
      name: 'vectrum_request_seconds',
      help: 'How long requests took, by method, route and status',
      labelNames: ['method', 'route', 'status'],
      buckets: BUCKETS_S,
      registers: [this.registry],
    });
    new Gauge({
      name: 'vectrum_outbox_messages',
      help: 'Messages that have not left yet, by state',
      labelNames: ['state'],
      registers: [this.registry],
      async collect() {
        this.reset();
        if (!source.isInitialized) return;
        const found = await rows<{ state: string; n: string }>(
          source,
          `SELECT state, COUNT(*) AS n FROM outbox WHERE state IN ('waiting', 'failing') GROUP BY state`,
        ).catch(() => []);
        for (const { state, n } of found) this.set({ state }, num(n));
      },
    });
  }

  /** Times every request. The route is the pattern, not what was asked for, so that there are only so many. */
  readonly timed = (request: Request, response: Response, next: NextFunction): void => {
    const end = this.requests.startTimer({ method: request.method });
    response.once('finish', () => {
      const route = (request as { route?: { path?: unknown } }).route?.path;
      end({ route: typeof route === 'string' ? route : 'none', status: String(response.statusCode) });
    });
    next();
  };

  text(): Promise<string> {
    return this.registry.metrics();
  }

  /** Answers `GET /metrics` on a port of its own, where one is set. */
  async listen(): Promise<void> {
    if (this.config.METRICS_PORT === 0) return;
    collectDefaultMetrics({ register: this.registry });
    const server = createServer((request, response) => {
      if (request.method !== 'GET' || request.url !== '/metrics') return void response.writeHead(404).end();
      this.text().then(
        (text) => response.writeHead(200, { 'content-type': openMetricsContentType }).end(text),
        () => response.writeHead(500).end(),
      );
    });
    this.server = server;
    await new Promise<void>((done, fail) => server.once('error', fail).listen(this.config.METRICS_PORT, this.config.METRICS_HOST, done));
  }

  onApplicationShutdown(): void {
    this.server?.closeAllConnections();
    this.server?.close();
  }
}
