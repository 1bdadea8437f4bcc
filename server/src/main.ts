import 'reflect-metadata';
import type { RequestListener } from 'node:http';
import { createServer } from 'node:https';
import { resolve } from 'node:path';
import type { NestExpressApplication } from '@nestjs/platform-express';
import { DataSource } from 'typeorm';
import { Timetables } from './books/index.js';
import { BackTests, Planner } from './planning/index.js';
import { DailyRuns } from './picking/index.js';
import { Nightly } from './company/index.js';
import { ChannelPolling, OrderFolder, StockPushing } from './connectors/index.js';
import { ImportJobs } from './exchange/index.js';
import {
  type Config,
  ConfigError,
  GoodEnding,
  Metrics,
  migrate,
  newLogger,
  Outbox,
  ownAddresses,
  readConfig,
  servingCertificate,
} from './platform/index.js';
import { TrackingPolling } from './tracking/index.js';
import { createApp } from './app.js';

/** Longer than proxies and browsers keep an idle connection, so that none is closed as it is used again. */
const KEEP_ALIVE_MS = 75_000;
const WEB_ROOT = resolve(import.meta.dirname, '../../web/dist');

/** The same house over HTTPS, for phones: their cameras and what works without a network want a secure page. */
async function serveSecurely(app: NestExpressApplication, config: Config): Promise<void> {
  if (config.VECTRUM_HTTPS_PORT === 0 || !config.VECTRUM_TLS_DIR) return;
  const { key, cert, authority } = await servingCertificate(config.VECTRUM_TLS_DIR, ownAddresses());
  const secure = createServer({ key, cert: `${cert}\n${authority}` }, app.getHttpAdapter().getInstance() as RequestListener);
  secure.keepAliveTimeout = KEEP_ALIVE_MS;
  secure.headersTimeout = KEEP_ALIVE_MS + 5_000;
  await new Promise<void>((done, fail) => secure.once('error', fail).listen(config.VECTRUM_HTTPS_PORT, config.VECTRUM_HOST, done));
  app.get(GoodEnding).watch(secure);
}

/** Whoever started us is gone, without a chance to end the database that they had started for us. */
function endOwnDatabase(): void {
  const pid = Number(process.env['OWN_DATABASE_PID']);
  if (!Number.isInteger(pid) || pid <= 1) return;
  try {
    process.kill(pid, 'SIGTERM');
  } catch {
    // It is gone already.
  }
}

/** Whatever holds it up, a server that was told to end has ended by then. */
const ENDED_MS = 14_000;

async function main(): Promise<void> {
  for (const signal of ['SIGTERM', 'SIGINT'] as const) process.once(signal, () => setTimeout(() => process.exit(1), ENDED_MS).unref());
  const config = readConfig(process.env);
  const log = newLogger(config.LOG_LEVEL);
  const app = await createApp(config, log, WEB_ROOT);
  const source = app.get(DataSource);
  await source.initialize();
  await migrate(source);
  // From here on modules answer for each other: what the demo does reaches the outside world like what anybody does.
  await app.init();
  if (config.VECTRUM_DEMO) await app.get((await import('./demo/index.js')).DemoLoader).loadOnce();
  app.get(Outbox).start();
  app.get(ChannelPolling).start();
  app.get(TrackingPolling).start();
  app.get(OrderFolder).start();
  app.get(StockPushing).start();
  app.get(ImportJobs).start();
  app.get(Nightly).start();
  app.get(DailyRuns).start();
  app.get(Timetables).start();
  app.get(Planner).start();
  app.get(BackTests).start();
  const http = app.getHttpServer();
  http.keepAliveTimeout = KEEP_ALIVE_MS;
  http.headersTimeout = KEEP_ALIVE_MS + 5_000;
  await app.listen(config.VECTRUM_PORT, config.VECTRUM_HOST);
  await serveSecurely(app, config);
  await app.get(Metrics).listen();
  log.info({ url: await app.getUrl() }, 'vectrum is open');
  process.send?.({ ready: true });
  process.on(
    'disconnect',
    () =>
      void app
        .close()
        .then(endOwnDatabase)
        .then(() => process.exit(0)),
  );
}

main().catch((thrown: unknown) => {
  if (thrown instanceof ConfigError) {
    process.stderr.write(`${thrown.message}\n`);
    process.exit(2);
  }
  process.stderr.write(`Vectrum could not start: ${thrown instanceof Error ? (thrown.stack ?? thrown.message) : String(thrown)}\n`);
  process.exit(1);
});
