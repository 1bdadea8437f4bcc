// Measures what can be measured as ratios in one run, on a database of its own; with --size full, lists and files at the size
// that the house is designed for.
import { rmSync } from 'node:fs';
import { join } from 'node:path';
import { startDatabase } from './lib/database.mjs';
import { ensureBuilt, ensureModules, ensurePrograms } from './lib/ensure.mjs';
import { fail, ROOT, run } from './lib/shell.mjs';

async function main() {
  await ensurePrograms({ mariadbd: 'mariadb-server' });
  await ensureModules();
  await ensureBuilt(['core', 'server']);
  const dir = join(ROOT, '.cache/bench-db');
  rmSync(dir, { recursive: true, force: true });
  const database = await startDatabase({ dir });
  try {
    const full = process.argv.includes('--size') && process.argv.includes('full');
    await run('node', [full ? 'server/dist/tools/bench-full.js' : 'server/dist/tools/bench.js'], {
      env: { ...process.env, ...database.env, LOG_LEVEL: 'silent' },
    });
  } finally {
    await database.stop();
  }
}

main().catch(fail);
