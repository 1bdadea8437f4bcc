import 'reflect-metadata';
import { writeFileSync } from 'node:fs';
import { resolve } from 'node:path';
import { newLogger, readConfig } from '../platform/index.js';
import { createApp, openApi } from '../app.js';

const config = readConfig({ DATABASE_USER: 'nobody', DATABASE_PASSWORD: '', LOG_LEVEL: 'silent', VECTRUM_DEMO: '1' });
const app = await createApp(config, newLogger('silent'));
writeFileSync(resolve(import.meta.dirname, '../../openapi.json'), `${JSON.stringify(openApi(app), null, 2)}\n`);
process.exit(0);
