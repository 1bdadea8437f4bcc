import 'reflect-metadata';
import { randomBytes } from 'node:crypto';
import { DataSource } from 'typeorm';
import { dataSourceOptions, readConfig } from '../platform/index.js';
import { FIGURES, openFigures } from './figures.js';

const [name = 'vectrum_reader'] = process.argv.slice(2).filter((a) => !a.startsWith('--'));
const config = readConfig(process.env);
const source = await new DataSource(dataSourceOptions(config, [])).initialize();
const password = randomBytes(24).toString('base64url');
try {
  const seesWorth = process.argv.includes('--worth');
  const db = await openFigures(source, config.DATABASE_NAME, { name, password, own: config.DATABASE_USER, seesWorth });
  const shown = Object.keys(FIGURES).filter((v) => seesWorth || v !== 'worth');
  process.stdout.write(
    `${name} reads ${shown.join(', ')} in the database ${db}${seesWorth ? '' : '; --worth adds what the goods cost'}.\nIts password, shown this once: ${password}\n`,
  );
} catch (thrown) {
  process.stderr.write(`${thrown instanceof Error ? thrown.message : String(thrown)}\n`);
  process.exitCode = 1;
} finally {
  await source.destroy();
}
