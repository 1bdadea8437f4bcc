import { type DynamicModule, Global, Module, type OnApplicationShutdown } from '@nestjs/common';
import { pino, type Logger } from 'pino';
import { DataSource } from 'typeorm';
import { CommandLog } from './command-log.js';
import { Config } from './config.js';
import { dataSourceOptions, type Migrations } from './database/data-source.js';
import { Mailer } from './mailer.js';
import { Outbox } from './outbox.js';
import { LOGGER } from './tokens.js';

const REDACTED = ['req.headers.cookie', 'req.headers.authorization', 'req.headers["x-signature"]', 'res.headers["set-cookie"]'];

export function newLogger(level: string): Logger {
  return pino({ level, redact: REDACTED });
}

/** What every domain stands on: configuration, database, command log, outbox, mail. */
@Global()
@Module({})
export class PlatformModule implements OnApplicationShutdown {
  constructor(private readonly source: DataSource) {}

  async onApplicationShutdown(): Promise<void> {
    if (this.source.isInitialized) await this.source.destroy();
  }

  static with(config: Config, log: Logger, migrations: Migrations): DynamicModule {
    return {
      module: PlatformModule,
      providers: [
        { provide: Config, useValue: config },
        { provide: LOGGER, useValue: log },
        { provide: DataSource, useFactory: () => new DataSource(dataSourceOptions(config, migrations)) },
        CommandLog,
        Outbox,
        Mailer,
      ],
      exports: [Config, LOGGER, DataSource, CommandLog, Outbox, Mailer],
    };
  }
}
