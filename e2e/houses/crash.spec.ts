import { type ChildProcess, fork } from 'node:child_process';
import { randomUUID } from 'node:crypto';
import { rmSync } from 'node:fs';
import { resolve } from 'node:path';
import { expect, test } from '@playwright/test';

const ROOT = resolve(import.meta.dirname, '../..');
const PORT = 4630;
const BASE = `http://127.0.0.1:${PORT}`;

interface Database {
  pid: number;
  port: number;
  env: Record<string, string>;
  stop: () => Promise<void>;
}
const { startDatabase } = (await import(`${ROOT}/scripts/lib/database.mjs`)) as { startDatabase: (o: object) => Promise<Database> };
const dir = `${ROOT}/.cache/crash-db`;

let database: Database;
let server: ChildProcess;
let cookie = '';

function startServer(): Promise<ChildProcess> {
  const child = fork(`${ROOT}/server/dist/main.js`, [], {
    env: { ...process.env, ...database.env, VECTRUM_DEMO: '1', VECTRUM_PORT: String(PORT), LOG_LEVEL: 'silent' },
    stdio: ['ignore', 'ignore', 'inherit', 'ipc'],
  });
  return new Promise((done, fail) => {
    child.on('message', () => done(child));
    child.on('exit', (code) => fail(new Error(`server ended with ${code}`)));
  });
}

const call = (path: string, body: object, key: string, timeout = 2_000) =>
  fetch(`${BASE}/api/${path}`, {
    method: 'POST',
    headers: { 'content-type': 'application/json', cookie, 'idempotency-key': key },
    body: JSON.stringify(body),
    signal: AbortSignal.timeout(timeout),
  });
const read = async <T>(path: string) => (await (await fetch(`${BASE}/api/${path}`, { headers: { cookie } })).json()) as T;

/** Sends one command again and again under one key until it is answered. */
async function until(path: string, body: object, key: string): Promise<{ status: number; text: string }> {
  for (let i = 0; i < 60; i++) {
    try {
      const answer = await call(path, body, key);
      if (answer.status < 500) return { status: answer.status, text: await answer.text() };
    } catch {
      // nobody there yet
    }
    await new Promise((done) => setTimeout(done, 250));
  }
  throw new Error('never answered');
}

test.describe('what was acknowledged survives kill -9', () => {
  test.beforeAll(async () => {
    rmSync(dir, { recursive: true, force: true });
    database = await startDatabase({ dir, bufferPool: '64M' });
    server = await startServer();
    const answer = await fetch(`${BASE}/api/session`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ email: 'maren@tarnthistle.example', password: 'thistle-and-tarn' }),
    });
    cookie = String(answer.headers.getSetCookie()[0]).split(';')[0]!;
  });
  test.afterAll(async () => {
    server.kill('SIGKILL');
    await database.stop();
  });

  interface Task {
    dock: { id: number };
    lines: { lineId: number; itemId: number; ordered: number; received: number }[];
  }

  test('server and database are killed between and during scans; every unit is there once', async () => {
    const due = await read<{ code: string; lines: number }[]>('floor/receive');
    const code = due.find((o) => o.lines === 3)!.code;
    const { task } = await read<{ task: Task }>(`floor/tasks/receive/${code}`);
    const me = await read<{ id: number }>('session');
    const line = task.lines.find((l) => l.received === 0 && l.ordered >= 24)!;
    const goods = { kind: 'receive', document: code, lineId: line.lineId, itemId: line.itemId, units: 1, toPlaceId: task.dock.id };
    const facts = { lot: null, expires: null, how: 'scanned', as: 'ordered', condition: 'good', reason: null };
    const madeAt = new Date().toISOString();
    const one = (id: string) => ({ command: { ...goods, ...facts, id }, madeAt, madeBy: me.id, late: false });
    let acknowledged = 0;
    let last = { key: '', text: '' };
    for (let n = 1; n <= 18; n++) {
      const key = randomUUID();
      const sent = until('floor/commands', one(key), key);
      if (n === 6 || n === 12) {
        server.removeAllListeners('exit');
        server.kill('SIGKILL');
        server = await startServer();
      }
      if (n === 9) {
        process.kill(database.pid, 'SIGKILL');
        await new Promise((done) => setTimeout(done, 300));
        database = await startDatabase({ dir, port: database.port, bufferPool: '64M' });
      }
      const answer = await sent;
      expect(answer.status).toBe(200);
      acknowledged++;
      last = { key, text: answer.text };
    }
    const again = await call('floor/commands', one(last.key), last.key, 10_000);
    expect(await again.text()).toBe(last.text);
    const after = await read<{ task: Task }>(`floor/tasks/receive/${code}`);
    expect(after.task.lines.find((l) => l.lineId === line.lineId)!.received).toBe(acknowledged);
  });

  test('invoices and credit notes that are posted meanwhile have no gap in their numbers, and nothing is on two', async () => {
    const { rows } = await read<{ rows: { code: string }[] }>('invoices/open');
    const order = rows[0]!.code;
    for (let n = 1; n <= 6; n++) {
      const sent = until('invoices', { orders: [order] }, randomUUID());
      if (n === 2) {
        server.removeAllListeners('exit');
        server.kill('SIGKILL');
        server = await startServer();
      }
      if (n === 4) {
        process.kill(database.pid, 'SIGKILL');
        await new Promise((done) => setTimeout(done, 300));
        database = await startDatabase({ dir, port: database.port, bufferPool: '64M' });
      }
      const answer = await sent;
      expect(answer.status).toBe(201);
      const { code } = JSON.parse(answer.text) as { code: string };
      const { lines } = await read<{ lines: { line: number; units: number }[] }>(`invoices/${code}`);
      const all = lines.map(({ line, units }) => ({ line, units }));
      expect((await until(`invoices/${code}/credit`, { reason: 'Once more', again: true, lines: all }, randomUUID())).status).toBe(201);
    }
    const documents = (await read<{ rows: { code: string }[] }>('invoices?limit=500')).rows.map((v) => v.code);
    for (const series of ['I', 'C']) {
      const numbers = documents.filter((c) => c.startsWith(series)).map((c) => Number(c.slice(2))).sort((a, b) => a - b); // prettier-ignore
      expect(numbers).toEqual(numbers.map((_, i) => i + 1));
    }
  });

  test('the ledger is clean afterwards', async () => {
    const { capture } = (await import(`${ROOT}/scripts/lib/shell.mjs`)) as {
      capture: (c: string, a: string[], o: object) => Promise<{ code: number; out: string }>;
    };
    const { code, out } = await capture('node', ['server/dist/tools/check-ledger.js'], { env: { ...process.env, ...database.env } });
    expect(out).toContain('The ledger is clean');
    expect(code).toBe(0);
  });
});
