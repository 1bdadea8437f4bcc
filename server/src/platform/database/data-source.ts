import { type DataSource, type DataSourceOptions, MigrationExecutor } from 'typeorm';
import type { Config } from '../config.js';
import { underLock } from './named-lock.js';

/** A step that changes tables, as TypeORM runs it. */
export type Migrations = DataSourceOptions['migrations'];

export function dataSourceOptions(config: Config, migrations: Migrations): DataSourceOptions {
  return {
    type: 'mariadb',
    host: config.DATABASE_HOST,
    port: config.DATABASE_PORT,
    username: config.DATABASE_USER,
    password: config.DATABASE_PASSWORD,
    database: config.DATABASE_NAME,
    timezone: 'Z',
    charset: 'utf8mb4',
    supportBigNumbers: true,
    bigNumberStrings: true,
    dateStrings: ['DATE'],
    synchronize: false,
    migrationsTransactionMode: 'each',
    migrations,
    poolSize: config.DATABASE_CONNECTIONS,
  };
}

const MIGRATING = 'vectrum-migrate';
const WAIT_S = 120;

/**
 * Brings the schema up to date under a lock, so that servers starting together do not migrate twice. The lock is held by
 * the connection that migrates; throws where another server has had it for two minutes.
 */
export async function migrate(source: DataSource): Promise<void> {
  const runner = source.createQueryRunner();
  try {
    await underLock(runner, MIGRATING, WAIT_S, async () => {
      const executor = new MigrationExecutor(source, runner);
      executor.transaction = 'each';
      await executor.executePendingMigrations();
    });
  } finally {
    await runner.release();
  }
}
