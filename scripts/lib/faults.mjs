import { fork } from 'node:child_process';
import { randomUUID } from 'node:crypto';
import { rmSync } from 'node:fs';
import { join } from 'node:path';
import { asked } from './backup.mjs';
import { startDatabase } from './database.mjs';
import { capture, ROOT, say } from './shell.mjs';

const PORT = 4655;
const BASE = `http://127.0.0.1:${PORT}/api`;
const PASSWORD = 'thistle-and-tarn';
const PHONES = ['ruben', 'ines', 'joss', 'maren'];
const pause = (ms) => new Promise((done) => setTimeout(done, ms));

/** A server as the scripts start it; resolves when it is open. */
async function startServer(env) {
  const child = fork(join(ROOT, 'server/dist/main.js'), [], {
    env: { ...process.env, ...env, VECTRUM_DEMO: '1', VECTRUM_PORT: String(PORT), LOG_LEVEL: 'silent' },
    stdio: ['ignore', 'ignore', 'inherit', 'ipc'],
  });
  await new Promise((done, fail) => {
    child.once('message', done);
    child.once('exit', (code) => fail(new Error(`The server ended with ${code} before it was open`)));
  });
  return child;
}

async function signIn(who) {
  for (;;) {
    const answer = await fetch(`${BASE}/session`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ email: `${who}@tarnthistle.example`, password: PASSWORD }),
    }).catch(() => undefined);
    if (answer?.status === 204) return String(answer.headers.getSetCookie()[0]).split(';')[0];
    await pause(100);
  }
}

/** A phone that books one unit after another, and sends each again under its key until it is told what became of it. */
async function phone(who, { item, face, bin }, stop, told) {
  const cookie = await signIn(who);
  let me;
  while (!me) {
    me = await fetch(`${BASE}/session`, { headers: { cookie } })
      .then((answer) => answer.json())
      .catch(() => undefined);
    if (!me) await pause(100);
  }
  for (let n = 0; !stop.now; n++) {
    const id = randomUUID();
    const [fromPlaceId, toPlaceId] = n % 2 === 0 ? [face, bin] : [bin, face];
    const command = { kind: 'store', itemId: item, lotId: 0, units: 1, fromPlaceId, toPlaceId, how: 'scanned', id };
    const body = JSON.stringify({ command, madeAt: new Date().toISOString(), madeBy: me.id, late: false });
    for (;;) {
      const answer = await fetch(`${BASE}/floor/commands`, {
        method: 'POST',
        headers: { 'content-type': 'application/json', cookie, 'idempotency-key': id },
        body,
        signal: AbortSignal.timeout(10_000),
      }).catch(() => undefined);
      if (answer?.ok) {
        told.done.add(id);
        break;
      }
      if (answer && answer.status < 500) {
        told.refused.set(id, answer.status);
        break;
      }
      told.again++;
      await pause(40);
    }
  }
}

/**
 * Kills the server `servers` times and the database `databases` times with SIGKILL while phones book, starts them again, and
 * counts: what was acknowledged and is not there, what is there twice, what never came to an end.
 */
export async function faults({ servers = 200, databases = 30 } = {}) {
  const dir = join(ROOT, '.cache/faults-db');
  rmSync(dir, { recursive: true, force: true });
  let database = await startDatabase({ dir, bufferPool: '128M' });
  const { port, env } = database;
  let server = await startServer(env);
  const [row] = await asked(
    env,
    `USE ${env.DATABASE_NAME}; SELECT b.item_id, b.place_id, (SELECT id FROM place WHERE code = 'H-01-1') FROM balance b JOIN place p ON p.id = b.place_id WHERE p.kind = 'pick-face' AND p.site_id = 1 AND b.lot_id = 0 AND b.stock_condition = 'good' AND b.units >= 20 ORDER BY b.units DESC LIMIT 1`,
  );
  const [item, face, bin] = row.split('\t').map(Number);
  const stop = { now: false };
  const told = { done: new Set(), refused: new Map(), again: 0 };
  const phones = PHONES.map((who) => phone(who, { item, face, bin }, stop, told));
  const every = Math.max(1, Math.floor(servers / databases));
  let [killed, killedDatabases] = [0, 0];
  const begun = Date.now();
  while (killed < servers) {
    await pause(80 + Math.random() * 500);
    if (killed % every === every - 1 && killedDatabases < databases) {
      process.kill(database.pid, 'SIGKILL');
      await database.stop();
      killedDatabases++;
      await pause(Math.random() * 300);
      database = await startDatabase({ dir, port, bufferPool: '128M' });
      await pause(200);
    }
    const gone = new Promise((done) => server.once('exit', done));
    server.kill('SIGKILL');
    await gone;
    killed++;
    server = await startServer(env);
    if (killed % 20 === 0)
      say(`  ${killed} servers and ${killedDatabases} databases killed, ${told.done.size} acts acknowledged, ${told.again} sent again`);
  }
  await pause(1_000);
  stop.now = true;
  await Promise.all(phones);
  const counts = new Map(
    (
      await asked(
        env,
        `USE ${env.DATABASE_NAME}; SELECT command_id, COUNT(*) FROM movement WHERE task = 'store' AND command_id IS NOT NULL GROUP BY command_id`,
      )
    ).map((line) => line.split('\t')),
  );
  const lost = [...told.done].filter((id) => !counts.has(id)).length;
  const doubled = [...told.done].filter((id) => Number(counts.get(id)) > 1).length;
  const unfinished = (await asked(env, `USE ${env.DATABASE_NAME}; SELECT COUNT(*) FROM command WHERE done = 0`))[0];
  const { code, out } = await capture('node', ['server/dist/tools/check-ledger.js'], { env: { ...process.env, ...env } });
  const over = new Promise((done) => server.once('exit', done));
  server.kill('SIGTERM');
  await over;
  await database.stop();
  const figures = {
    servers: killed,
    databases: killedDatabases,
    acknowledged: told.done.size,
    refused: told.refused.size,
    again: told.again,
    lost,
    doubled,
    unfinished: Number(unfinished),
  };
  say(
    `${figures.servers} servers and ${figures.databases} databases were killed in ${Math.round((Date.now() - begun) / 1000)} s: ${figures.acknowledged} acts acknowledged, ${figures.again} sent again, ${figures.refused} refused; ${lost} lost, ${doubled} doubled, ${figures.unfinished} unfinished. ${out.trim()}`,
  );
  if (lost + doubled + figures.unfinished > 0 || code !== 0) throw new Error('Something was lost, doubled or left half done');
  return figures;
}
