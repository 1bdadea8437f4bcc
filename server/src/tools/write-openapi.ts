import 'reflect-metadata';
import { writeFileSync } from 'node:fs';
import { resolve } from 'node:path';
import { createApp, openApi } from '../app.js';
import { readConfig } from '../platform/config.js';
import { newLogger } from '../platform/platform.module.js';

const config = readConfig({ DATABASE_USER: 'nobody', DATABASE_PASSWORD: '', LOG_LEVEL: 'silent' });
const app = await createApp(config, newLogger('silent'));
writeFileSync(resolve(import.meta.dirname, '../../openapi.json'), `${JSON.stringify(openApi(app), null, 2)}\n`);
process.exit(0);
