// The demo business on this machine: installs what is missing, builds, starts MariaDB, the outside world and the server.
//   npm run demo             goes on where it was
//   npm run demo -- --fresh  begins anew
import { readdirSync, rmSync } from 'node:fs';
import { join, resolve } from 'node:path';
import { freePort, startDatabase } from './lib/database.mjs';
import { ensureBuilt, ensureModules, ensurePrograms } from './lib/ensure.mjs';
import { endLeftDatabase, holdDirectory, mustNotRunFromHere, noteRunning } from './lib/running.mjs';
import { startProgram, stopOnSignals } from './lib/serve.mjs';
import { fail, ROOT } from './lib/shell.mjs';

const DATA = resolve(process.env.VECTRUM_DEMO_DATA ?? join(ROOT, '.data/demo'));

async function main() {
  await ensurePrograms({ mariadbd: 'mariadb-server' });
  await ensureModules(mustNotRunFromHere);
  await ensureBuilt(undefined, mustNotRunFromHere);
  holdDirectory(DATA, Number(process.env.VECTRUM_PORT ?? 4600), 'VECTRUM_DEMO_DATA');
  noteRunning();
  if (process.argv.includes('--fresh')) await anew();
  const stops = [];
  const stopAll = stopOnSignals(stops);
  try {
    await open(stops);
  } catch (thrown) {
    await stopAll();
    throw thrown;
  }
}

/** All data but the mark of who holds them. A database that was left behind would write them once more. */
async function anew() {
  await endLeftDatabase(join(DATA, 'db'));
  for (const name of readdirSync(DATA)) if (name !== 'held-by') rmSync(join(DATA, name), { recursive: true, force: true });
}

async function open(stops) {
  const database = await startDatabase({ dir: join(DATA, 'db') });
  stops.unshift(() => database.stop());
  const port = await freePort(Number(process.env.VECTRUM_PORT ?? 4600));
  const ports = {
    OUTSIDE_PORT: await freePort(Number(process.env.OUTSIDE_PORT ?? 4700)),
    OUTSIDE_SMTP_PORT: await freePort(4725),
    OUTSIDE_PRINTER_PORT: await freePort(4791),
    OUTSIDE_SCALE_PORT: await freePort(4792),
  };
  const outsideUrl = `http://127.0.0.1:${ports.OUTSIDE_PORT}`;
  const outside = startProgram(
    'outside/dist/main.js',
    { ...asText(ports), OUTSIDE_DATA: join(DATA, 'outside'), VECTRUM_URL: `http://127.0.0.1:${port}` },
    'The outside world',
  );
  stops.unshift(() => outside.stop());
  await outside.ready;
  const host = process.env.VECTRUM_HOST ?? '0.0.0.0';
  const securePort = await freePort(Number(process.env.VECTRUM_HTTPS_PORT ?? 4643));
  const server = startProgram(
    'server/dist/main.js',
    {
      ...database.env,
      OWN_DATABASE_PID: String(database.pid),
      VECTRUM_DEMO: '1',
      VECTRUM_HOST: host,
      VECTRUM_PORT: String(port),
      VECTRUM_HTTPS_PORT: String(securePort),
      VECTRUM_TLS_DIR: process.env.VECTRUM_TLS_DIR ?? join(ROOT, '.data/tls'),
      ORDER_FOLDER: process.env.ORDER_FOLDER ?? join(DATA, 'orders-in'),
      VECTRUM_OUTSIDE_URL: outsideUrl,
      SMTP_URL: `smtp://127.0.0.1:${ports.OUTSIDE_SMTP_PORT}`,
      PRINTER: `127.0.0.1:${ports.OUTSIDE_PRINTER_PORT}`,
      SCALE: `127.0.0.1:${ports.OUTSIDE_SCALE_PORT}`,
      LOG_LEVEL: process.env.LOG_LEVEL ?? 'warn',
    },
    'The server',
  );
  stops.unshift(() => server.stop());
  await server.ready;
  server.child.on('exit', (code) => code && fail(`The server ended with ${code}`));
  await greet(port, outsideUrl, host);
}

const asText = (ports) => Object.fromEntries(Object.entries(ports).map(([k, v]) => [k, String(v)]));

async function greet(port, outsideUrl, host) {
  const page = await (await fetch(`http://127.0.0.1:${port}/api/sign-in-page`)).json();
  const phone = host === '0.0.0.0' ? page.phoneUrl : null;
  const rows = page.demo.map((p) => `  ${p.duty.padEnd(15)} ${p.email.padEnd(28)} badge ${p.badge}  PIN ${p.pin}`);
  process.stdout.write(
    [
      '',
      'Tarn & Thistle is open.',
      `  Office           http://127.0.0.1:${port}`,
      `  Floor            http://127.0.0.1:${port}/floor`,
      ...(phone ? [`  Floor on a phone ${phone}/floor (trust ${phone}/api/authority.crt once, for camera and offline work)`] : []),
      `  Packing table    http://127.0.0.1:${port}/bench`,
      `  Outside world    ${outsideUrl}`,
      '',
      `  Everybody's password: ${page.demo[0]?.password}`,
      ...rows,
      '',
      'Ctrl-C stops everything. The data stays; npm run demo -- --fresh begins anew.',
      '',
    ].join('\n'),
  );
}

main().catch(fail);
