// Puts a house back as it was when a backup was made. The backup is proved first; nothing is touched before that.
import { existsSync } from 'node:fs';
import { resolve } from 'node:path';
import { asked, isPacked, load, prove, reach } from './lib/backup.mjs';
import { ensureBuilt, ensureModules, ensurePrograms } from './lib/ensure.mjs';
import { fail, say } from './lib/shell.mjs';

async function main() {
  const [given] = process.argv.slice(2).filter((a) => !a.startsWith('--'));
  if (!given) throw new Error('Name the file: npm run restore -- .data/house/backups/vectrum-….sql.gz');
  const file = resolve(given);
  if (!existsSync(file)) throw new Error(`There is no file ${file}`);
  if (!isPacked(file)) throw new Error(`${file} is no backup of a house. Name a file that npm run backup has written`);
  await ensurePrograms({ mariadbd: 'mariadb-server', 'mariadb-dump': 'mariadb-client' });
  await ensureModules();
  await ensureBuilt(['core', 'server']);
  const database = await reach();
  const { env } = database;
  try {
    const name = env.DATABASE_NAME;
    const [tables] = await asked(env, `SELECT COUNT(*) FROM information_schema.TABLES WHERE TABLE_SCHEMA = '${name}'`);
    if (Number(tables) > 0 && !process.argv.includes('--over'))
      throw new Error(`There is a house in the database ${name} already. Back it up, then say --over to put the backup in its place`);
    const [others] = await asked(env, `SELECT COUNT(*) FROM information_schema.PROCESSLIST WHERE DB = '${name}'`);
    if (Number(others) > 0) throw new Error('A server has the house open. Stop it first');
    say(await prove(env, file));
    await asked(env, `DROP DATABASE IF EXISTS \`${name}\`; CREATE DATABASE \`${name}\` CHARACTER SET utf8mb4 COLLATE utf8mb4_unicode_ci`);
    await load(env, file);
    say(`The house is as it was when ${file} was made. Start the server: it brings an older one up to date`);
  } finally {
    await database.stop();
  }
}

main().catch(fail);
