import 'reflect-metadata';
import { DataSource } from 'typeorm';
import { dataSourceOptions, migrate, readConfig } from '../platform/index.js';
import { migrations } from '../schema/index.js';

/** Brings the database that the environment names up to date, as a start of the server does. */
const source = new DataSource(dataSourceOptions(readConfig(process.env), migrations));
try {
  await migrate(source);
} catch (thrown) {
  process.stderr.write(`${thrown instanceof Error ? thrown.message : String(thrown)}\n`);
  process.exit(1);
}
