import { spawn } from 'node:child_process';
import { randomBytes } from 'node:crypto';
import { existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { createServer, connect } from 'node:net';
import { join } from 'node:path';
import { which } from './ensure.mjs';
import { endLeftDatabase } from './running.mjs';
import { run } from './shell.mjs';

const START_TIMEOUT_MS = 60_000;

/** A free port on loopback. */
export function freePort(preferred = 0) {
  return new Promise((done, fail) => {
    const server = createServer();
    server.once('error', (thrown) => (preferred ? freePort().then(done, fail) : fail(thrown)));
    server.listen(preferred, '127.0.0.1', () => {
      const { port } = server.address();
      server.close(() => done(port));
    });
  });
}

function answers(port) {
  return new Promise((done) => {
    const socket = connect({ host: '127.0.0.1', port }, () => {
      socket.destroy();
      done(true);
    });
    socket.on('error', () => done(false));
  });
}

function passwordIn(dir) {
  const path = join(dir, 'password');
  if (!existsSync(path)) writeFileSync(path, randomBytes(24).toString('base64url'), { mode: 0o600 });
  return readFileSync(path, 'utf8');
}

/** Sets passwords before the port opens; harmless to repeat. */
function writeInit(dir, password, database) {
  const path = join(dir, 'init.sql');
  writeFileSync(
    path,
    [
      `ALTER USER 'root'@'localhost' IDENTIFIED BY '${password}';`,
      `DROP USER IF EXISTS ''@'localhost';`,
      `CREATE DATABASE IF NOT EXISTS \`${database}\` CHARACTER SET utf8mb4 COLLATE utf8mb4_unicode_ci;`,
      `CREATE USER IF NOT EXISTS 'vectrum'@'127.0.0.1' IDENTIFIED BY '${password}';`,
      `ALTER USER 'vectrum'@'127.0.0.1' IDENTIFIED BY '${password}';`,
      // Also to give: it opens figures to accounts that read nothing else.
      `GRANT ALL ON *.* TO 'vectrum'@'127.0.0.1' WITH GRANT OPTION;`,
      '',
    ].join('\n'),
    { mode: 0o600 },
  );
  return path;
}

/**
 * Starts MariaDB on loopback with a data directory and a password of its own; makes the directory first where there is
 * none. Returns how to reach it and how to stop it.
 */
export async function startDatabase({ dir, database = 'vectrum', port: preferred = 0, bufferPool = '512M' }) {
  mkdirSync(dir, { recursive: true });
  await endLeftDatabase(dir);
  const data = join(dir, 'data');
  // A database that starts clears away tables that it takes for its own left ones: none may share this place.
  const tmp = join(dir, 'tmp');
  mkdirSync(tmp, { recursive: true });
  const asRoot = process.getuid?.() === 0 ? ['--user=root'] : [];
  if (!existsSync(join(data, 'mysql'))) {
    await run(
      which('mariadb-install-db'),
      ['--no-defaults', ...asRoot, `--datadir=${data}`, '--auth-root-authentication-method=normal', '--skip-test-db'],
      { stdio: ['ignore', 'ignore', 'inherit'] },
    );
  }
  const password = passwordIn(dir);
  const port = await freePort(preferred);
  const child = spawn(
    which('mariadbd'),
    [
      '--no-defaults',
      ...asRoot,
      `--datadir=${data}`,
      `--tmpdir=${tmp}`,
      `--socket=${join(dir, 'db.sock')}`,
      `--pid-file=${join(dir, 'db.pid')}`,
      `--log-error=${join(dir, 'db.err')}`,
      `--init-file=${writeInit(dir, password, database)}`,
      '--bind-address=127.0.0.1',
      `--port=${port}`,
      '--skip-name-resolve',
      '--character-set-server=utf8mb4',
      '--collation-server=utf8mb4_unicode_ci',
      `--innodb-buffer-pool-size=${bufferPool}`,
      '--innodb-log-file-size=256M',
      '--innodb-flush-log-at-trx-commit=1',
      '--innodb-lock-wait-timeout=8',
      '--transaction-isolation=READ-COMMITTED',
      '--default-time-zone=+00:00',
      '--max-connections=400',
    ],
    { stdio: 'ignore', detached: true },
  );
  let ended = false;
  const exited = new Promise((done) =>
    child.on('exit', () => {
      ended = true;
      done();
    }),
  );
  const until = Date.now() + START_TIMEOUT_MS;
  while (!(await answers(port))) {
    if (ended || Date.now() > until) throw new Error(`MariaDB did not start. Its log is ${join(dir, 'db.err')}`);
    await new Promise((done) => setTimeout(done, 50));
  }
  writeFileSync(join(dir, 'port'), String(port));
  return {
    port,
    pid: child.pid,
    env: {
      DATABASE_HOST: '127.0.0.1',
      DATABASE_PORT: String(port),
      DATABASE_USER: 'vectrum',
      DATABASE_PASSWORD: password,
      DATABASE_NAME: database,
    },
    async stop() {
      if (!ended) child.kill('SIGTERM');
      await exited;
    },
  };
}

/** The database of a directory: the one that runs, or one started for as long as it is needed. */
export async function reachDatabase({ dir, database = 'vectrum' }) {
  const port = existsSync(join(dir, 'port')) ? Number(readFileSync(join(dir, 'port'), 'utf8')) : 0;
  if (!port || !(await answers(port))) return startDatabase({ dir, database });
  return {
    port,
    env: {
      DATABASE_HOST: '127.0.0.1',
      DATABASE_PORT: String(port),
      DATABASE_USER: 'vectrum',
      DATABASE_PASSWORD: passwordIn(dir),
      DATABASE_NAME: database,
    },
    stop: async () => undefined,
  };
}
