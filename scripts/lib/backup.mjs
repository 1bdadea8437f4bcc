import { spawn } from 'node:child_process';
import { randomBytes } from 'node:crypto';
import { once } from 'node:events';
import { createReadStream, createWriteStream, openSync, readSync, closeSync, fstatSync } from 'node:fs';
import { join } from 'node:path';
import { pipeline } from 'node:stream/promises';
import { createGunzip, createGzip } from 'node:zlib';
import { reachDatabase } from './database.mjs';
import { which } from './ensure.mjs';
import { capture, ROOT } from './shell.mjs';

/** How to reach the database that is meant: the one that the environment names, otherwise that of the house in `.data/house`. */
export async function reach() {
  const { env } = process;
  if (env.DATABASE_HOST) {
    const { DATABASE_HOST, DATABASE_PORT = '3306', DATABASE_USER, DATABASE_PASSWORD, DATABASE_NAME = 'vectrum' } = env;
    return { env: { DATABASE_HOST, DATABASE_PORT, DATABASE_USER, DATABASE_PASSWORD, DATABASE_NAME }, stop: async () => undefined };
  }
  return reachDatabase({ dir: join(env.VECTRUM_DATA ?? join(ROOT, '.data/house'), 'db') });
}

/** Runs a client of MariaDB; the password stands in its environment, not on its command line. */
function client(program, db, args, stdio) {
  const where = ['--no-defaults', '-h', db.DATABASE_HOST, '-P', db.DATABASE_PORT, '-u', db.DATABASE_USER];
  const child = spawn(which(program), [...where, ...args], { env: { ...process.env, MYSQL_PWD: db.DATABASE_PASSWORD }, stdio });
  const ended = once(child, 'exit').then(([code]) => {
    if (code !== 0) throw new Error(`${program} ended with ${code}`);
  });
  return { child, ended };
}

/** What a statement answers, a line for each row. */
export async function asked(db, sql) {
  const { child, ended } = client('mariadb', db, ['-N', '-B', '-e', sql], ['ignore', 'pipe', 'inherit']);
  const parts = [];
  child.stdout.on('data', (part) => parts.push(part));
  await ended;
  return Buffer.concat(parts).toString().trim().split('\n').filter(Boolean);
}

/**
 * Writes everything that a house keeps into one packed file: a picture of one moment, taken in a transaction, while people go
 * on working. Pictures and papers are kept in the database, and are in it.
 */
export async function dump(db, file) {
  const args = [
    '--single-transaction',
    '--quick',
    '--triggers',
    '--hex-blob',
    '--skip-lock-tables',
    '--default-character-set=utf8mb4',
    db.DATABASE_NAME,
  ];
  const { child, ended } = client('mariadb-dump', db, args, ['ignore', 'pipe', 'inherit']);
  await Promise.all([pipeline(child.stdout, createGzip(), createWriteStream(file, { mode: 0o600 })), ended]);
}

/** Reads a file that `dump` wrote into a database that is there and empty. */
export async function load(db, file) {
  const { child, ended } = client('mariadb', db, ['--default-character-set=utf8mb4', db.DATABASE_NAME], ['pipe', 'ignore', 'inherit']);
  await Promise.all([pipeline(createReadStream(file), createGunzip(), child.stdin), ended]);
}

/** Whether a file is one that `dump` may have written, by how it begins. */
export function isPacked(file) {
  const handle = openSync(file, 'r');
  const head = Buffer.alloc(2);
  const read = fstatSync(handle).size > 2 ? readSync(handle, head, 0, 2, 0) : 0;
  closeSync(handle);
  return read === 2 && head[0] === 0x1f && head[1] === 0x8b;
}

/**
 * Proves a backup: reads it into a database of its own beside the house's, has the ledger checked there, and drops it again.
 * Throws what is wrong. `more` is done with that database while it is there.
 */
export async function prove(db, file) {
  const name = `${db.DATABASE_NAME}_proof_${randomBytes(4).toString('hex')}`;
  await asked(db, `CREATE DATABASE \`${name}\` CHARACTER SET utf8mb4 COLLATE utf8mb4_unicode_ci`);
  try {
    const copy = { ...db, DATABASE_NAME: name };
    await load(copy, file);
    const tool = (name) => capture('node', [`server/dist/tools/${name}.js`], { env: { ...process.env, ...copy } });
    // One of an older version is brought up to date there first, as it would be when it is opened.
    const migrated = await tool('migrate');
    if (migrated.code !== 0) throw new Error(`${file} cannot be brought up to date:\n${migrated.err}`);
    const { code, out, err } = await tool('check-ledger');
    if (code !== 0) throw new Error(`The ledger in ${file} is not clean:\n${out}${err}`);
    return out.trim();
  } finally {
    await asked(db, `DROP DATABASE \`${name}\``);
  }
}
