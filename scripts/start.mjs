// The server without demo data. The database comes from the environment; where none is named, one is started on loopback.
import { join } from 'node:path';
import { startDatabase } from './lib/database.mjs';
import { ensureBuilt, ensureModules, ensurePrograms } from './lib/ensure.mjs';
import { startProgram, stopOnSignals } from './lib/serve.mjs';
import { fail, ROOT, say } from './lib/shell.mjs';

async function main() {
  const stops = [];
  const stopAll = stopOnSignals(stops);
  const own = !process.env.DATABASE_HOST;
  if (own) await ensurePrograms({ mariadbd: 'mariadb-server' });
  await ensureModules();
  await ensureBuilt(['core', 'server', 'web']);
  let env = {};
  if (own) {
    const database = await startDatabase({ dir: process.env.VECTRUM_DATA ?? join(ROOT, '.data/house/db') });
    stops.unshift(() => database.stop());
    env = database.env;
  }
  // Phones want a secure page for the camera and for work without a network; behind a proxy that has one, say 0.
  const secure = process.env.VECTRUM_HTTPS_PORT ?? '4643';
  const tls = process.env.VECTRUM_TLS_DIR ?? join(ROOT, '.data/house/tls');
  const orders = process.env.ORDER_FOLDER ?? join(ROOT, '.data/house/orders-in');
  const server = startProgram(
    'server/dist/main.js',
    { ...env, VECTRUM_DEMO: '0', VECTRUM_HTTPS_PORT: secure, VECTRUM_TLS_DIR: tls, ORDER_FOLDER: orders },
    'The server',
  );
  stops.unshift(() => server.stop());
  server.child.on('exit', (code) => void stopAll().then(() => process.exit(code ?? 0)));
  await server.ready;
  const host = process.env.VECTRUM_HOST ?? '127.0.0.1';
  say(`Vectrum is open at http://${host}:${process.env.VECTRUM_PORT ?? 4600}`);
  if (secure !== '0') say(`For phones: https on port ${secure}. Set VECTRUM_HOST=0.0.0.0 so that they reach it; see docs/operating.md`);
}

main().catch(fail);
