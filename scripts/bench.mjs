// Measures what can be measured as ratios in one run, on a database of its own; with --size full, lists and files at the size
// that the house is designed for, with two years behind it; with --size faults, what is left after 200 kills of the server and 30 of the database.
import { rmSync } from 'node:fs';
import { join } from 'node:path';
import { faults } from './lib/faults.mjs';
import { startDatabase } from './lib/database.mjs';
import { ensureBuilt, ensureModules, ensurePrograms } from './lib/ensure.mjs';
import { fail, ROOT, run } from './lib/shell.mjs';

async function main() {
  await ensurePrograms({ mariadbd: 'mariadb-server' });
  await ensureModules();
  await ensureBuilt(['core', 'server']);
  const size = process.argv[process.argv.indexOf('--size') + 1];
  if (process.argv.includes('--size') && size === 'faults') return void (await faults());
  const dir = join(ROOT, '.cache/bench-db');
  rmSync(dir, { recursive: true, force: true });
  const database = await startDatabase({ dir });
  try {
    const full = process.argv.includes('--size') && size === 'full';
    await run('node', [full ? 'server/dist/tools/bench-full.js' : 'server/dist/tools/bench.js'], {
      env: { ...process.env, ...database.env, LOG_LEVEL: 'silent' },
    });
  } finally {
    await database.stop();
  }
}

main().catch(fail);
