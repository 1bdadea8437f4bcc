import 'reflect-metadata';
import { randomUUID } from 'node:crypto';
import type { AddressInfo } from 'node:net';
import type { PickTask } from '@vectrum/core/scan';
import { DataSource } from 'typeorm';
import { actAs, DEMO_PASSWORD, DemoLoader } from '../demo/index.js';
import { FloorTasks } from '../floor/index.js';
import { OrderIntake } from '../orders/index.js';
import { reserving } from './bench-reserving.js';
import { books } from './bench-books.js';
import { cartons } from './bench-cartons.js';
import { walks } from './bench-walks.js';
import { planning } from './bench-planning.js';
import { ReleaseService } from '../picking/index.js';
import { inTransaction, migrate, newLogger, one, readConfig, rows } from '../platform/index.js';
import { checkLedger, LedgerService } from '../stock/index.js';
import { createApp } from '../app.js';
import { crowd } from './bench-crowd.js';
import { manyPickers } from './bench-pickers.js';

const ROUNDS = 5;
const COMMITS = 400;
/** Units that lie where movements go, so that those of several hands may overtake each other. */
const AHEAD = 5;
const SCANS = 300;
const PICKS = 30;
const MANY_STOPS = 60;
const PEOPLE = 50;
const SECONDS = 20;
const PICKERS = 30;
const PICKER_ROUNDS = 60;
const ORDERS_A_ROUND = 3;

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
    `SELECT item_id, place_id, lot_id, units FROM balance WHERE bounded = 1 AND stock_condition = 'good' AND units >= 10 ORDER BY item_id LIMIT 40`,
  );
  const tote = (await one<{ id: number }>(source, `SELECT id FROM place WHERE code = 'T-39'`))?.id ?? 0;
  const move = async (i: number, isBack: boolean, units: number) => {
    const row = items[i % items.length];
    if (!row) return;
    const [fromPlaceId, toPlaceId] = isBack ? [tote, row.place_id] : [row.place_id, tote];
    const movement = { itemId: row.item_id, lotId: row.lot_id, condition: 'good' as const, fromPlaceId, toPlaceId, units };
    await inTransaction(source, (tx) => ledger.post(tx, { ...act, key: randomUUID() }, [movement], { task: 'store', document: 'BENCH' }));
  };
  // There with all of them, and back with all of them.
  const post = (i: number) => move(i, Math.floor(i / items.length) % 2 === 1, 1);
  // One hand may be behind the others: something lies there that can be brought back before it came.
  for (let i = 0; i < items.length; i++) await move(i, false, AHEAD);
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
  for (let i = 0; i < items.length; i++) await move(i, true, AHEAD);
  say(
    `posting, ${hands} at once: ${posts.toFixed(0)} movements/s against ${commits.toFixed(0)} bare commits/s; ratio ${median(ratios).toFixed(2)} (median of ${ROUNDS} turns)`,
  );
}

interface Phone {
  /** Sends a command as a phone does and returns how long its answer took, in milliseconds. */
  does: (command: object) => Promise<number>;
}

async function cookieOf(email: string): Promise<string> {
  const base = `http://127.0.0.1:${(app.getHttpServer().address() as AddressInfo).port}/api`;
  const signIn = await fetch(`${base}/session`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ email, password: DEMO_PASSWORD }),
  });
  return String(signIn.headers.getSetCookie()[0]).split(';')[0] ?? '';
}

async function phoneOf(email: string): Promise<Phone> {
  const base = `http://127.0.0.1:${(app.getHttpServer().address() as AddressInfo).port}/api`;
  const cookie = await cookieOf(email);
  const me = (await (await fetch(`${base}/session`, { headers: { cookie } })).json()) as { id: number };
  return {
    does: async (command) => {
      const id = randomUUID();
      const begun = performance.now();
      const answer = await fetch(`${base}/floor/commands`, {
        method: 'POST',
        headers: { 'content-type': 'application/json', cookie, 'idempotency-key': id },
        body: JSON.stringify({ command: { ...command, id }, madeAt: new Date().toISOString(), madeBy: me.id, late: false }),
      });
      const text = await answer.text();
      if (!answer.ok) throw new Error(`A command was answered with ${answer.status}: ${text}`);
      return performance.now() - begun;
    },
  };
}

/** A scan's command over HTTP, from the phone's point of view, against a bare commit's time. */
async function scanCommand(): Promise<void> {
  const phone = await phoneOf('ruben@tarnthistle.example');
  const goods = (await one<{ item_id: number; place_id: number }>(
    source,
    `SELECT b.item_id, b.place_id FROM balance b JOIN place p ON p.id = b.place_id WHERE p.kind = 'dock' AND b.units > 500 LIMIT 1`,
  )) ?? { item_id: 0, place_id: 0 };
  const bin = (await one<{ id: number }>(source, `SELECT id FROM place WHERE code = 'H-01-1'`))?.id ?? 0;
  const store = { kind: 'store', itemId: goods.item_id, lotId: 0, units: 1, fromPlaceId: goods.place_id, toPlaceId: bin, how: 'scanned' };
  const times: number[] = [];
  const commits: number[] = [];
  for (let i = 0; i < SCANS; i++) times.push(await phone.does(store));
  for (let i = 0; i < SCANS; i++) {
    const begun = performance.now();
    await source.query('UPDATE number_series SET next = next + 0 WHERE name = ?', ['H']);
    commits.push(performance.now() - begun);
  }
  say(
    `scan command, one phone: p50 ${percentile(times, 50).toFixed(1)} ms, p95 ${percentile(times, 95).toFixed(1)} ms over ${SCANS}; p95 is ${(percentile(times, 95) / percentile(commits, 95)).toFixed(1)} times that of one bare statement`,
  );
}

/** Picks of a round of few stops against those of one with many: a pick loads its own stop, so that the ratio stays near one. */
async function pickCommand(): Promise<void> {
  const phone = await phoneOf('maren@tarnthistle.example');
  const channel = await one<{ id: number; site_id: number }>(source, `SELECT id, site_id FROM channel WHERE code = 'PHONE'`);
  if (!channel) throw new Error('The demo has no phone channel');
  const goods = await rows<{ sku: string }>(
    source,
    `SELECT g.channel_sku AS sku FROM site_stock s JOIN item i ON i.id = s.item_id JOIN listing g ON g.item_id = i.id AND g.channel_id = ? AND g.factor = 1 JOIN balance b ON b.item_id = i.id AND b.stock_condition = 'good' JOIN place p ON p.id = b.place_id AND p.site_id = s.site_id AND p.pickable = 1
     WHERE s.site_id = ? AND s.on_hand - s.held - s.reserved >= 20 AND i.tracking <> 'serial' GROUP BY i.id, g.channel_sku HAVING SUM(b.units) >= 40 ORDER BY i.id LIMIT ${MANY_STOPS}`,
    [channel.id, channel.site_id],
  );
  const act = await actAs(source, 'Maren');
  const picks = async (skus: readonly string[], tote: string): Promise<{ stops: number; times: number[] }> => {
    const { code } = await app.get(OrderIntake).takeIn(channel, {
      ref: `B-${randomUUID().slice(0, 12)}`,
      placedAt: new Date().toISOString(),
      customer: `Bench ${tote}`,
      email: `bench-${tote.toLowerCase()}@mail.example`,
      address: { line: '1 Bench Row', city: 'Netherwick', postcode: 'NW8 2RE', country: 'GB' },
      lines: skus.map((sku) => ({ sku, quantity: 10, price: '0.10' })),
    });
    const order = await one<{ version: number }>(source, 'SELECT version FROM sales_order WHERE code = ?', [code]);
    const { round } = await app.get(ReleaseService).release({ ...act, key: randomUUID() }, code, order?.version ?? 1);
    const { task } = (await app.get(FloorTasks).read(act.person, 'pick', round, [])) as { task: PickTask };
    const totePlaceId = (await one<{ id: number }>(source, 'SELECT id FROM place WHERE code = ?', [tote]))?.id ?? 0;
    const times: number[] = [];
    for (let n = 0; times.length < PICKS; n++) {
      const stop = task.stops[n % task.stops.length];
      if (!stop || Math.floor(n / task.stops.length) >= stop.units) break;
      const { itemId, lotId, placeId: fromPlaceId } = stop;
      times.push(
        await phone.does({ kind: 'pick', round, stopId: stop.id, itemId, lotId, fromPlaceId, units: 1, totePlaceId, how: 'scanned' }),
      );
    }
    return { stops: task.stops.length, times };
  };
  const [few, many] = [
    await picks(
      goods.slice(0, 3).map((g) => g.sku),
      'T-38',
    ),
    await picks(
      goods.map((g) => g.sku),
      'T-37',
    ),
  ];
  say(
    `pick command: p50 ${median(few.times).toFixed(1)} ms on a round of ${few.stops} stops, ${median(many.times).toFixed(1)} ms on one of ${many.stops}; ratio ${(median(many.times) / median(few.times)).toFixed(2)}`,
  );
}

/** Fifty people, each with an act a second, while fifty screens listen and read Now as it changes. */
async function fifty(): Promise<void> {
  const cookies = await Promise.all(Array.from({ length: 4 }, () => cookieOf('maren@tarnthistle.example')));
  const address = `http://127.0.0.1:${(app.getHttpServer().address() as AddressInfo).port}/api`;
  const heaps = await rows<{ itemId: number; placeId: number }>(
    source,
    `SELECT b.item_id AS itemId, b.place_id AS placeId FROM balance b JOIN place p ON p.id = b.place_id AND p.site_id = 1 WHERE p.kind IN ('pick-face','reserve') AND p.code <> 'H-01-1' AND b.lot_id = 0 AND b.stock_condition = 'good' AND b.units >= 20 ORDER BY b.item_id LIMIT ${PEOPLE}`,
  );
  const binId = (await one<{ id: number }>(source, `SELECT id FROM place WHERE code = 'H-01-1'`))?.id ?? 0;
  const me = (await (await fetch(`${address}/session`, { headers: { cookie: cookies[0] ?? '' } })).json()) as { id: number };
  const theirs = Array.from({ length: heaps.length > 0 ? PEOPLE : 0 }, (_, i) => heaps[i % heaps.length] ?? { itemId: 0, placeId: 0 });
  const { commands, nows } = await crowd({ address, cookies, madeBy: me.id, heaps: theirs, binId, screens: PEOPLE, seconds: SECONDS });
  say(
    `${theirs.length} people, an act a second each, ${PEOPLE} screens listening: a command p50 ${percentile(commands, 50).toFixed(1)} ms, p95 ${percentile(commands, 95).toFixed(1)} ms over ${commands.length}; Now read ${nows.length} times, p95 ${percentile(nows, 95).toFixed(1)} ms`,
  );
}

/** Thirty pickers on sixty rounds of three orders, with all that goes wrong on a floor; then what is left. */
async function pickers(): Promise<void> {
  const address = `http://127.0.0.1:${(app.getHttpServer().address() as AddressInfo).port}/api`;
  const cookies = await Promise.all(['ines', 'joss', 'maren'].map((name) => cookieOf(`${name}@tarnthistle.example`)));
  const read = async <T>(path: string, cookie = cookies[2] ?? ''): Promise<T> =>
    (await (await fetch(`${address}/${path}`, { headers: { cookie } })).json()) as T;
  const people = await Promise.all(cookies.map(async (cookie) => ({ cookie, id: (await read<{ id: number }>('session', cookie)).id })));
  const channel = await one<{ id: number; site_id: number }>(source, `SELECT id, site_id FROM channel WHERE code = 'PHONE'`);
  const goods = await rows<{ sku: string }>(
    source,
    `SELECT g.channel_sku AS sku FROM site_stock s JOIN item i ON i.id = s.item_id JOIN listing g ON g.item_id = i.id AND g.channel_id = ? AND g.factor = 1 JOIN balance b ON b.item_id = i.id AND b.stock_condition = 'good' JOIN place p ON p.id = b.place_id AND p.site_id = 1 AND p.pickable = 1
     WHERE s.site_id = 1 AND s.on_hand - s.held - s.reserved >= 20 AND i.tracking <> 'serial' GROUP BY i.id, g.channel_sku HAVING SUM(b.units) >= 20 ORDER BY i.id`,
    [channel?.id ?? 0],
  );
  for (let i = 0; i < PICKER_ROUNDS * ORDERS_A_ROUND && channel; i++)
    await app.get(OrderIntake).takeIn(channel, {
      ref: `B-${randomUUID().slice(0, 12)}`,
      placedAt: new Date().toISOString(),
      customer: `Bench picker ${i}`,
      email: 'bench@mail.example',
      address: { line: '1 Bench Row', city: 'Netherwick', postcode: 'NW8 2RE', country: 'GB' },
      lines: [0, 1, 2].map((k) => ({ sku: goods[(i * 7 + k * 11) % goods.length]?.sku ?? '', quantity: 1 + ((i + k) % 3), price: '0.10' })),
    });
  const { orders } = await read<{ orders: { code: string; version: number; lacks: unknown[] }[] }>('sites/1/release-board');
  const ready = orders.filter((o) => o.lacks.length === 0).map(({ code, version }) => ({ code, version }));
  const rounds = Array.from({ length: PICKER_ROUNDS }, (_, i) => ready.slice(i * ORDERS_A_ROUND, (i + 1) * ORDERS_A_ROUND)).filter(
    (r) => r.length > 0,
  );
  const sent = await fetch(`${address}/rounds`, {
    method: 'POST',
    headers: { cookie: cookies[2] ?? '', 'content-type': 'application/json', 'idempotency-key': randomUUID() },
    body: JSON.stringify({ siteId: 1, rounds: rounds.map((own) => ({ orders: own, sentTo: null })) }),
  });
  if (!sent.ok) throw new Error(`Rounds were answered with ${sent.status}: ${await sent.text()}`);
  const totes = Array.from({ length: 20 * PICKERS }, (_, i) => `BENCH-${i}`);
  for (const code of totes)
    await source.query(
      `INSERT INTO place (code, kind, site_id, parent_id, pickable, walk_order) SELECT ?, 'tote', site_id, parent_id, 0, 0 FROM place WHERE code = 'T-01'`,
      [code],
    );
  const faults = { wrongScan: 0.05, short: 0.02, dropOut: 0.02, repeat: 0.05, offline: 0.03 };
  const r = await manyPickers({ address, people, siteId: 1, table: 'TABLE-1', totes, pickers: PICKERS, faults, step: 1_000 });
  const open = await one<{ n: string }>(source, `SELECT COUNT(*) AS n FROM \`round\` WHERE site_id = 1 AND state IN ('waiting','picking')`);
  const findings = await checkLedger(source);
  say(
    `${PICKERS} pickers on ${rounds.length} rounds and those of the demo, with wrong scans, shorts, drop-outs, repeats and spells without a network: ${r.picks} picks, ${r.shorts} short, ${r.refusedHere} refused on the phone, ${r.refusedThere} by the house; ${open?.n ?? '?'} rounds open, ledger ${findings.length === 0 ? 'clean' : findings.join('; ')}; a command p50 ${percentile(r.times, 50).toFixed(1)} ms, p95 ${percentile(r.times, 95).toFixed(1)} ms over ${r.times.length}`,
  );
}

/** Ten thousand open lines reserved again, and one new order beside them. */
async function reserveAll(): Promise<void> {
  const { lines, held, all, each } = await reserving(app, source);
  say(
    `${lines.toLocaleString('en-GB')} open lines reserved again in ${(all / 1000).toFixed(2)} s, ${held} of them hold something; a new order beside them is taken in and reserved in p50 ${percentile(each, 50).toFixed(1)} ms, p95 ${percentile(each, 95).toFixed(1)} ms`,
  );
}

await postingAgainstCommits(1);
await postingAgainstCommits(8);
await scanCommand();
await pickCommand();
await fifty();
await pickers();
await reserveAll();
await books(app, source, say);
await planning(app, source, say);
for (const line of walks()) say(line);
for (const line of cartons()) say(line);
await app.close();
process.exit(0);
