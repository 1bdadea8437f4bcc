// Opens figures of a house to other programs: views, and an account that reads them and nothing else.
import { reach } from './lib/backup.mjs';
import { ensureBuilt, ensureModules, ensurePrograms } from './lib/ensure.mjs';
import { fail, run } from './lib/shell.mjs';

async function main() {
  await ensurePrograms({ mariadbd: 'mariadb-server' });
  await ensureModules();
  await ensureBuilt(['core', 'server']);
  const database = await reach();
  try {
    await run('node', ['server/dist/tools/open-figures.js', ...process.argv.slice(2)], { env: { ...process.env, ...database.env } });
  } finally {
    await database.stop();
  }
}

main().catch(fail);
