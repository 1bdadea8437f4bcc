// The server without demo data. The database comes from the environment; where none is named, one is started on loopback.
import { join } from 'node:path';
import { startDatabase } from './lib/database.mjs';
import { ensureBuilt, ensureModules, ensurePrograms } from './lib/ensure.mjs';
import { holdDirectory, mustBeFree, mustNotRunFromHere, noteRunning } from './lib/running.mjs';
import { startProgram, stopOnSignals } from './lib/serve.mjs';
import { fail, ROOT, say } from './lib/shell.mjs';

async function main() {
  const dir = process.env.VECTRUM_DATA ?? join(ROOT, '.data/house/db');
  const port = Number(process.env.VECTRUM_PORT ?? 4600);
  // Phones want a secure page for the camera and for work without a network; behind a proxy that has one, say 0.
  const secure = Number(process.env.VECTRUM_HTTPS_PORT ?? 4643);
  const own = !process.env.DATABASE_HOST;
  // What cannot work is said before anything is installed, built or started.
  if (own) holdDirectory(dir, port, 'VECTRUM_DATA');
  await mustBeFree(port, 'VECTRUM_PORT');
  await mustBeFree(secure, 'VECTRUM_HTTPS_PORT');
  if (own) await ensurePrograms({ mariadbd: 'mariadb-server' });
  await ensureModules(mustNotRunFromHere);
  await ensureBuilt(['core', 'server', 'web'], mustNotRunFromHere);
  noteRunning();
  const stops = [];
  const stopAll = stopOnSignals(stops);
  try {
    await open(stops, stopAll, { dir, own, secure });
  } catch (thrown) {
    await stopAll();
    throw thrown;
  }
}

async function open(stops, stopAll, { dir, own, secure }) {
  let env = {};
  if (own) {
    const database = await startDatabase({ dir });
    stops.unshift(() => database.stop());
    env = { ...database.env, OWN_DATABASE_PID: String(database.pid) };
  }
  const tls = process.env.VECTRUM_TLS_DIR ?? join(ROOT, '.data/house/tls');
  const orders = process.env.ORDER_FOLDER ?? join(ROOT, '.data/house/orders-in');
  const server = startProgram(
    'server/dist/main.js',
    { ...env, VECTRUM_DEMO: '0', VECTRUM_HTTPS_PORT: String(secure), VECTRUM_TLS_DIR: tls, ORDER_FOLDER: orders },
    'The server',
  );
  stops.unshift(() => server.stop());
  await server.ready;
  server.child.on('exit', (code) => void stopAll().then(() => process.exit(code ?? 0)));
  const host = process.env.VECTRUM_HOST ?? '127.0.0.1';
  say(`Vectrum is open at http://${host}:${process.env.VECTRUM_PORT ?? 4600}`);
  if (secure !== 0) say(`For phones: https on port ${secure}. Set VECTRUM_HOST=0.0.0.0 so that they reach it; see docs/operating.md`);
}

main().catch(fail);
