// Keeps everything of a house in one file, while it is open, and proves it.
import { mkdirSync, renameSync, rmSync, statSync } from 'node:fs';
import { dirname, join, resolve } from 'node:path';
import { dump, prove, reach } from './lib/backup.mjs';
import { ensureBuilt, ensureModules, ensurePrograms } from './lib/ensure.mjs';
import { fail, ROOT, say } from './lib/shell.mjs';

const stamp = () => new Date().toISOString().slice(0, 19).replace(/[-:]/g, '').replace('T', '-');

async function main() {
  const [given] = process.argv.slice(2).filter((a) => !a.startsWith('--'));
  const file = resolve(given ?? join(process.env.VECTRUM_DATA ?? join(ROOT, '.data/house'), 'backups', `vectrum-${stamp()}.sql.gz`));
  await ensurePrograms({ mariadbd: 'mariadb-server', 'mariadb-dump': 'mariadb-client' });
  await ensureModules();
  await ensureBuilt(['core', 'server']);
  mkdirSync(dirname(file), { recursive: true });
  const database = await reach();
  try {
    // Under its name there is only ever a whole backup.
    const part = `${file}.part`;
    await dump(database.env, part);
    if (!process.argv.includes('--unproved'))
      say(
        await prove(database.env, part).catch((thrown) => {
          rmSync(part, { force: true });
          throw thrown;
        }),
      );
    renameSync(part, file);
    say(`Kept in ${file} (${(statSync(file).size / 1024 / 1024).toFixed(1)} MB). Take a copy to another place`);
  } finally {
    await database.stop();
  }
}

main().catch(fail);
