// Writes server/src/platform/database/tables.generated.ts anew: the types of the tables that the migrations make.
import { rmSync } from 'node:fs';
import { join } from 'node:path';
import { startDatabase } from './lib/database.mjs';
import { ensureBuilt, ensureModules, ensurePrograms } from './lib/ensure.mjs';
import { fail, ROOT, run } from './lib/shell.mjs';

async function main() {
  await ensurePrograms({ mariadbd: 'mariadb-server' });
  await ensureModules();
  await ensureBuilt(['core', 'server']);
  const dir = join(ROOT, '.cache/tables-db');
  rmSync(dir, { recursive: true, force: true });
  const database = await startDatabase({ dir });
  try {
    await run('node', ['server/dist/tools/write-tables.js'], { env: { ...process.env, ...database.env } });
  } finally {
    await database.stop();
    rmSync(dir, { recursive: true, force: true });
  }
}

main().catch(fail);
