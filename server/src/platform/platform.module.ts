import { type DynamicModule, Global, Module, type OnApplicationShutdown } from '@nestjs/common';
import { pino, type Logger } from 'pino';
import { DataSource } from 'typeorm';
import { CommandLog } from './command-log.js';
import { Config } from './config.js';
import { dataSourceOptions, limited, type Migrations } from './database/data-source.js';
import { GoodEnding } from './good-ending.js';
import { Mailer } from './mailer.js';
import { Metrics } from './metrics.js';
import { Outbox } from './outbox.js';
import { clearByAge, clearWhere, Retention } from './retention.js';
import { LOGGER } from './tokens.js';
import { Work } from './work.js';
import { within } from './worker.js';

const REDACTED = ['req.headers.cookie', 'req.headers.authorization', 'req.headers["x-signature"]', 'res.headers["set-cookie"]'];

export function newLogger(level: string): Logger {
  return pino({ level, redact: REDACTED });
}

/** No page waits longer for the database, and no statement keeps it busy longer. Tools that read everything have no such limit. */
const STATEMENT_MS = 20_000;
/** A database that does not answer holds up no server that ends. */
const ENDING_MS = 2_000;

/** What every domain stands on: configuration, database, command log, outbox, mail. */
@Global()
@Module({})
export class PlatformModule implements OnApplicationShutdown {
  constructor(
    private readonly source: DataSource,
    retention: Retention,
  ) {
    retention.register(
      {
        what: 'deliveries',
        keptFor: 'keepDeliveries',
        clear: (s, before) => clearByAge(s, 'outbox', 'created_at', before, `state = 'done'`),
      },
      { what: 'commands', keptFor: 'keepCommands', clear: (s, before) => clearWhere(s, 'command', 'server_at < ?', [before]) },
    );
  }

  async onApplicationShutdown(): Promise<void> {
    if (this.source.isInitialized) await within(ENDING_MS, this.source.destroy(), 'The database does not answer').catch(() => undefined);
  }

  static with(config: Config, log: Logger, migrations: Migrations): DynamicModule {
    return {
      module: PlatformModule,
      providers: [
        { provide: Config, useValue: config },
        { provide: LOGGER, useValue: log },
        { provide: DataSource, useFactory: () => limited(new DataSource(dataSourceOptions(config, migrations, STATEMENT_MS))) },
        CommandLog,
        Outbox,
        Mailer,
        GoodEnding,
        Work,
        Retention,
        Metrics,
      ],
      exports: [Config, LOGGER, DataSource, CommandLog, Outbox, Mailer, GoodEnding, Work, Retention, Metrics],
    };
  }
}
