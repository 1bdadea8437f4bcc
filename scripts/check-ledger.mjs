// Proves the ledger's promises over the database that the environment names, or the demo's.
import { join } from 'node:path';
import { reachDatabase } from './lib/database.mjs';
import { ensureBuilt, ensureModules, ensurePrograms } from './lib/ensure.mjs';
import { capture, fail, ROOT } from './lib/shell.mjs';

async function main() {
  const named = process.env.DATABASE_HOST;
  if (!named) await ensurePrograms({ mariadbd: 'mariadb-server' });
  await ensureModules();
  await ensureBuilt(['core', 'server']);
  const database = named
    ? { env: {}, stop: async () => undefined }
    : await reachDatabase({ dir: join(process.env.VECTRUM_DEMO_DATA ?? join(ROOT, '.data/demo'), 'db') });
  const { code, out, err } = await capture('node', ['server/dist/tools/check-ledger.js'], {
    env: { ...process.env, ...database.env },
  });
  await database.stop();
  process.stdout.write(out);
  process.stderr.write(err);
  process.exit(code ?? 1);
}

main().catch(fail);
