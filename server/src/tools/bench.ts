import 'reflect-metadata';
import { randomUUID } from 'node:crypto';
import type { AddressInfo } from 'node:net';
import { DataSource } from 'typeorm';
import { createApp } from '../app.js';
import { actAs } from '../demo/morning.js';
import { DemoLoader } from '../demo/demo.loader.js';
import { DEMO_PASSWORD } from '../demo/people.js';
import { readConfig } from '../platform/config.js';
import { migrate } from '../platform/database/data-source.js';
import { inTransaction, one } from '../platform/database/tx.js';
import { newLogger } from '../platform/platform.module.js';
import { LedgerService } from '../stock/ledger.service.js';

const ROUNDS = 5;
const COMMITS = 400;
const SCANS = 300;

/** Runs work n times, `hands` at once, and returns how many were done in a second. */
async function perSecond(n: number, hands: number, work: (i: number) => Promise<unknown>): Promise<number> {
  let next = 0;
  const begun = performance.now();
  await Promise.all(
    Array.from({ length: hands }, async () => {
      while (next < n) await work(next++);
    }),
  );
  return (n * 1000) / (performance.now() - begun);
}

const median = (list: number[]) => [...list].sort((a, b) => a - b)[Math.floor(list.length / 2)] ?? 0;
const percentile = (list: number[], p: number) =>
  [...list].sort((a, b) => a - b)[Math.min(list.length - 1, Math.floor((list.length * p) / 100))] ?? 0;
const say = (text: string) => process.stdout.write(`${text}\n`);

const config = readConfig({ ...process.env, VECTRUM_DEMO: '1' });
const app = await createApp(config, newLogger('silent'));
const source = app.get(DataSource);
await source.initialize();
await migrate(source);
await app.get(DemoLoader).loadOnce();
await app.listen(0, '127.0.0.1');

/** Posting movements against bare commits of one small row, in turns, in one run. */
async function postingAgainstCommits(hands: number): Promise<void> {
  await source.query('CREATE TABLE IF NOT EXISTS bench_commit (id INT AUTO_INCREMENT PRIMARY KEY, note VARCHAR(500) NOT NULL)');
  const ledger = app.get(LedgerService);
  const act = await actAs(source, 'Ines');
  const items = await source.query<{ item_id: number; place_id: number; lot_id: number }[]>(
    'SELECT item_id, place_id, lot_id, units FROM balance WHERE bounded = 1 AND units >= 10 ORDER BY item_id LIMIT 40',
  );
  const tote = (await one<{ id: number }>(source, `SELECT id FROM place WHERE code = 'T-39'`))?.id ?? 0;
  const post = async (i: number) => {
    const row = items[i % items.length];
    if (!row) return;
    const there = {
      itemId: row.item_id,
      lotId: row.lot_id,
      condition: 'good' as const,
      fromPlaceId: row.place_id,
      toPlaceId: tote,
      units: 1,
    };
    const movement = i % 2 === 0 ? there : { ...there, fromPlaceId: tote, toPlaceId: row.place_id };
    await inTransaction(source, (tx) =>
      ledger.post(tx, { ...act, key: randomUUID() }, [movement], { task: 'store', document: 'BENCH' }),
    ).catch(() => undefined);
  };
  const ratios: number[] = [];
  let [commits, posts] = [0, 0];
  for (let round = 0; round < ROUNDS; round++) {
    commits = await perSecond(COMMITS, hands, () =>
      source.transaction((tx) => tx.query('INSERT INTO bench_commit (note) VALUES (?)', ['x'.repeat(400)])),
    );
    posts = await perSecond(COMMITS, hands, post);
    ratios.push(posts / commits);
  }
  await source.query('DROP TABLE bench_commit');
  say(
    `posting, ${hands} at once: ${posts.toFixed(0)} movements/s against ${commits.toFixed(0)} bare commits/s; ratio ${median(ratios).toFixed(2)} (median of ${ROUNDS} turns)`,
  );
}

/** A scan's command over HTTP, from the phone's point of view, against a bare commit's time. */
async function scanCommand(): Promise<void> {
  const base = `http://127.0.0.1:${(app.getHttpServer().address() as AddressInfo).port}/api`;
  const signIn = await fetch(`${base}/session`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ email: 'ruben@tarnthistle.example', password: DEMO_PASSWORD }),
  });
  const cookie = String(signIn.headers.getSetCookie()[0]).split(';')[0] ?? '';
  const goods = (await one<{ item_id: number; place_id: number }>(
    source,
    `SELECT b.item_id, b.place_id FROM balance b JOIN place p ON p.id = b.place_id WHERE p.kind = 'dock' AND b.units > 500 LIMIT 1`,
  )) ?? { item_id: 0, place_id: 0 };
  const bin = (await one<{ id: number }>(source, `SELECT id FROM place WHERE code = 'H-01-1'`))?.id ?? 0;
  const times: number[] = [];
  for (let i = 0; i < SCANS; i++) {
    const begun = performance.now();
    const answer = await fetch(`${base}/floor/store`, {
      method: 'POST',
      headers: { 'content-type': 'application/json', cookie, 'idempotency-key': randomUUID() },
      body: JSON.stringify({ itemId: goods.item_id, lotId: 0, units: 1, fromPlaceId: goods.place_id, toPlaceId: bin, how: 'scanned' }),
    });
    await answer.arrayBuffer();
    times.push(performance.now() - begun);
    if (!answer.ok) throw new Error(`A scan was answered with ${answer.status}`);
  }
  const commits: number[] = [];
  for (let i = 0; i < SCANS; i++) {
    const begun = performance.now();
    await source.query('UPDATE number_series SET next = next + 0 WHERE name = ?', ['H']);
    commits.push(performance.now() - begun);
  }
  say(
    `scan command, one phone: p50 ${percentile(times, 50).toFixed(1)} ms, p95 ${percentile(times, 95).toFixed(1)} ms over ${SCANS}; p95 is ${(percentile(times, 95) / percentile(commits, 95)).toFixed(1)} times that of one bare statement`,
  );
}

await postingAgainstCommits(1);
await postingAgainstCommits(8);
await scanCommand();
await app.close();
process.exit(0);
