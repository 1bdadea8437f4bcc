import 'reflect-metadata';
import { resolve } from 'node:path';
import { DataSource } from 'typeorm';
import { createApp } from './app.js';
import { IntakeService } from './channels/intake.service.js';
import { DemoLoader } from './demo/demo.loader.js';
import { ConfigError, readConfig } from './platform/config.js';
import { ImportJobs } from './exchange/import-jobs.js';
import { migrate } from './platform/database/data-source.js';
import { Outbox } from './platform/outbox.js';
import { newLogger } from './platform/platform.module.js';

/** Longer than proxies and browsers keep an idle connection, so that none is closed as it is used again. */
const KEEP_ALIVE_MS = 75_000;
const WEB_ROOT = resolve(import.meta.dirname, '../../web/dist');

async function main(): Promise<void> {
  const config = readConfig(process.env);
  const log = newLogger(config.LOG_LEVEL);
  const app = await createApp(config, log, WEB_ROOT);
  const source = app.get(DataSource);
  await source.initialize();
  await migrate(source);
  if (config.VECTRUM_DEMO) await app.get(DemoLoader).loadOnce();
  app.get(Outbox).start();
  app.get(IntakeService).start();
  app.get(ImportJobs).start();
  const http = app.getHttpServer();
  http.keepAliveTimeout = KEEP_ALIVE_MS;
  http.headersTimeout = KEEP_ALIVE_MS + 5_000;
  await app.listen(config.VECTRUM_PORT, config.VECTRUM_HOST);
  log.info({ url: await app.getUrl() }, 'vectrum is open');
  process.send?.({ ready: true });
  process.on('disconnect', () => void app.close().then(() => process.exit(0)));
}

main().catch((thrown: unknown) => {
  if (thrown instanceof ConfigError) {
    process.stderr.write(`${thrown.message}\n`);
    process.exit(2);
  }
  process.stderr.write(`Vectrum could not start: ${thrown instanceof Error ? (thrown.stack ?? thrown.message) : String(thrown)}\n`);
  process.exit(1);
});
