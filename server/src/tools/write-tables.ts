import 'reflect-metadata';
import { writeFileSync } from 'node:fs';
import { resolve } from 'node:path';
import { format, resolveConfig } from 'prettier';
import { DataSource } from 'typeorm';
import { dataSourceOptions, migrate, readConfig } from '../platform/index.js';
import { migrations } from '../schema/index.js';
import { tablesText } from './tables-text.js';

const target = resolve(import.meta.dirname, '../../src/platform/database/tables.generated.ts');
const source = await new DataSource(dataSourceOptions(readConfig(process.env), migrations)).initialize();
await migrate(source);
const text = await tablesText(source);
await source.destroy();
writeFileSync(target, await format(text, { ...(await resolveConfig(target)), filepath: target }));
