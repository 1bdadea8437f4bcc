import { DataSource, type DataSourceOptions } from 'typeorm';
import type { Config } from '../config.js';
import { migrations } from '../migrations/index.js';
import { entities } from './entities.js';

export function dataSourceOptions(config: Config): DataSourceOptions {
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
    entities,
    migrations,
    poolSize: config.DATABASE_CONNECTIONS,
  };
}

/** Brings the schema up to date under a lock, so that servers starting together do not migrate twice. */
export async function migrate(source: DataSource): Promise<void> {
  const runner = source.createQueryRunner();
  try {
    await runner.query(`SELECT GET_LOCK('vectrum-migrate', 120)`);
    await source.runMigrations();
  } finally {
    await runner.query(`SELECT RELEASE_LOCK('vectrum-migrate')`);
    await runner.release();
  }
}
