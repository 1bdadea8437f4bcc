// Everything that must hold: lint, types, unit, integration and browser tests. Ends with one line of counts.
import { mkdirSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { check } from './check.mjs';
import { startDatabase } from './lib/database.mjs';
import { ensureBuilt, ensureModules, ensurePrograms } from './lib/ensure.mjs';
import { jestCounts, playwrightCounts } from './lib/jest-count.mjs';
import { fail, ROOT, run, say } from './lib/shell.mjs';

const REPORTS = join(ROOT, '.cache/reports');
const ESM = { NODE_OPTIONS: '--experimental-vm-modules --no-warnings' };

async function jest(part, env) {
  say(`Tests, ${part} …`);
  const report = join(REPORTS, `${part}.json`);
  await run('npx', ['jest', '--config', `${part}/jest.config.js`, '--json', `--outputFile=${report}`, '--silent', '--maxWorkers=2'], {
    env: { ...process.env, ...env },
    stdio: ['ignore', 'ignore', 'inherit'],
  }).catch(() => undefined);
  return jestCounts(report);
}

async function journeys() {
  say('Journeys in the browser …');
  const report = join(REPORTS, 'e2e.json');
  await run('npx', ['playwright', 'test', '--config', 'e2e/playwright.config.ts'], {
    env: { ...process.env, PLAYWRIGHT_JSON_OUTPUT_NAME: report },
  }).catch(() => undefined);
  return playwrightCounts(report);
}

async function main() {
  await ensurePrograms({ mariadbd: 'mariadb-server', chromium: 'chromium', pdftoppm: 'poppler-utils' });
  await ensureModules();
  rmSync(REPORTS, { recursive: true, force: true });
  mkdirSync(REPORTS, { recursive: true });
  const checks = await check();
  await ensureBuilt();
  const counts = [{ passed: checks.total - checks.failed.length, failed: checks.failed.length }];
  for (const part of ['core', 'web', 'outside']) counts.push(await jest(part, part === 'core' || part === 'outside' ? ESM : {}));
  const dir = join(ROOT, '.cache/test-db');
  rmSync(dir, { recursive: true, force: true });
  const database = await startDatabase({ dir });
  try {
    counts.push(await jest('server', database.env));
  } finally {
    await database.stop();
  }
  counts.push(await journeys());
  const sum = (key) => counts.reduce((n, c) => n + c[key], 0);
  if (checks.failed.length > 0) say(`Checks that failed: ${checks.failed.join(', ')}`);
  process.stdout.write(`${sum('passed')} passed, ${sum('failed')} failed\n`);
  process.exit(sum('failed') === 0 ? 0 : 1);
}

main().catch(fail);
