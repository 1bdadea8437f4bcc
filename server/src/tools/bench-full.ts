import 'reflect-metadata';
import { randomUUID } from 'node:crypto';
import type { AddressInfo } from 'node:net';
import { gzipSync } from 'node:zlib';
import { checkDigit } from '@vectrum/core/barcode';
import { DataSource } from 'typeorm';
import { seeded } from '@vectrum/core/random';
import { ImportJobs } from '../exchange/index.js';
import { FoundingService } from '../company/index.js';
import { dataSourceOptions, migrate, newLogger, readConfig } from '../platform/index.js';
import { checkOrders } from '../orders/index.js';
import { checkLedger } from '../stock/index.js';
import { createApp } from '../app.js';
import { control } from './bench-control.js';
import { FULL, history, type Size } from './bench-history.js';

/** The size that the house is designed for. */
const ITEMS = 50_000;
const SITES = 5;
const AISLES_A_SITE = 20;
const BAYS = 50;
const LEVELS = 4;
const ASKED = 60;
const PASSWORD = 'a-long-bench-password';
const WORDS = ['round', 'hex', 'mini', 'gold', 'black', 'deep', 'shallow', 'large', 'small', 'wire', 'oak', 'pine'];
const CLASSES = ['Jars', 'Lids', 'Frames', 'Wax', 'Tools', 'Feeding', 'Clothing', 'Books'];

const say = (text: string) => process.stdout.write(`${text}\n`);
const percentile = (list: number[], p: number) =>
  [...list].sort((a, b) => a - b)[Math.min(list.length - 1, Math.floor((list.length * p) / 100))] ?? 0;
const random = seeded(11);
const pick = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)] as T;
const seconds = (ms: number) => `${(ms / 1000).toFixed(1)} s`;

const config = readConfig(process.env);
const app = await createApp(config, newLogger('silent'));
const source = app.get(DataSource);
await source.initialize();
await migrate(source);
if (!process.env['BENCH_AGAIN'])
  await app
    .get(FoundingService)
    .found({ name: 'Bench', email: 'bench@example.org', password: PASSWORD, siteName: 'Site 1', siteCode: 'S1' });
await app.listen(0, '127.0.0.1');
app.get(ImportJobs).start();
const base = `http://127.0.0.1:${(app.getHttpServer().address() as AddressInfo).port}/api`;
let cookie = '';

async function call(method: string, path: string, body?: object | string, headers: Record<string, string> = {}): Promise<Response> {
  const text = typeof body === 'string';
  const answer = await fetch(`${base}/${path}`, {
    method,
    headers: {
      cookie,
      'idempotency-key': randomUUID(),
      'content-type': text ? 'application/octet-stream' : 'application/json',
      ...headers,
    },
    ...(body === undefined ? {} : { body: text ? body : JSON.stringify(body) }),
  });
  if (!answer.ok) throw new Error(`${method} ${path}: ${answer.status} ${await answer.text()}`);
  return answer;
}

async function signIn(): Promise<void> {
  const answer = await call('POST', 'session', { email: 'bench@example.org', password: PASSWORD });
  cookie = String(answer.headers.getSetCookie()[0]).split(';')[0] ?? '';
}

/** 20,000 bins over five sites, built by rule. */
async function bins(): Promise<void> {
  for (let s = 2; s <= SITES; s++) await call('POST', 'company/sites', { code: `S${s}`, name: `Site ${s}` });
  const begun = performance.now();
  for (let s = 1; s <= SITES; s++) {
    const letter = s === 1 ? '' : String.fromCharCode(64 + s);
    const rule = {
      siteId: s,
      from: `${letter}A`,
      to: `${letter}${String.fromCharCode(64 + AISLES_A_SITE)}`,
      bays: BAYS,
      levels: LEVELS,
      pickLevels: 2,
      bayM: 2,
      x: 6,
      y: 2,
      gapM: 4,
      preview: false,
    };
    await call('POST', 'places/aisles', rule);
  }
  say(
    `${(SITES * AISLES_A_SITE * BAYS * LEVELS).toLocaleString('en-GB')} bins built by rule, with positions and walking order: ${seconds(performance.now() - begun)}`,
  );
}

const gtinOf = (n: number) => {
  const body = `952${String(n).padStart(9, '0')}`;
  return `${body}${checkDigit(body)}`;
};

/** 50,000 items from a file, step by step as a person would; how long each step takes and how much memory the server comes to. */
async function items(): Promise<void> {
  const rows = ['SKU,Name,Class,Tags,Unit,Units,Barcodes,"Weight, g","Length, mm","Width, mm","Height, mm",Cost'];
  for (let n = 1; n <= ITEMS; n++) {
    const tags = n % 9 === 0 ? 'fragile' : n % 50 === 0 ? 'spring; heavy' : '';
    const size = n % 20 === 0 ? ',,,' : `${100 + (n % 900)},80,60,40`;
    rows.push(
      `I-${String(n).padStart(6, '0')},"${pick(CLASSES)} ${pick(WORDS)} ${pick(WORDS)} no. ${n}",${pick(CLASSES)},${tags},piece,pieces,${n % 30 === 0 ? '' : gtinOf(n)},${size},${((n % 97) / 10 + 0.1).toFixed(2)}`,
    );
  }
  const before = process.memoryUsage().rss;
  let most = before;
  const watch = setInterval(() => (most = Math.max(most, process.memoryUsage().rss)), 50);
  const wait = async (id: string, until: string) => {
    for (;;) {
      const run = (await (await call('GET', `imports/${id}`)).json()) as {
        state: string;
        faulty: number;
        problem: string | null;
        columns: { field: string | null }[];
      };
      if (run.state === until) return run;
      if (run.state === 'failed' || run.problem) throw new Error(`The import is ${run.state}: ${run.problem ?? ''}`);
      await new Promise((done) => setTimeout(done, 100));
    }
  };
  const times = [performance.now()];
  const { id } = (await (await call('POST', 'imports?name=items.csv', rows.join('\n'))).json()) as { id: string };
  times.push(performance.now());
  const run = await wait(id, 'read');
  await call('PUT', `imports/${id}/columns`, { kind: 'items', fields: run.columns.map((c) => c.field ?? '') });
  const checked = await wait(id, 'checked');
  if (checked.faulty > 0) throw new Error(`${checked.faulty} rows are faulty`);
  times.push(performance.now());
  await call('POST', `imports/${id}/apply`, { goodRowsOnly: false });
  await wait(id, 'applied');
  times.push(performance.now());
  clearInterval(watch);
  const [t0 = 0, t1 = 0, t2 = 0, t3 = 0] = times;
  say(
    `${ITEMS.toLocaleString('en-GB')} items from a file: read ${seconds(t1 - t0)}, checked ${seconds(t2 - t1)}, taken in ${seconds(t3 - t2)}; all ${seconds(t3 - t0)}, server's memory at most ${Math.round(most / 1e6)} MB (${Math.round((most - before) / 1e6)} MB more than before, with the bench's own copy of the file)`,
  );
}

/** A heap of every item in some bin, written as double entries in a few statements. */
async function stock(): Promise<void> {
  await source.query(`INSERT IGNORE INTO place (code, kind) VALUES ('COUNT-DIFFERENCE', 'count-difference')`);
  await source.query(`SET @from = (SELECT id FROM place WHERE code = 'COUNT-DIFFERENCE')`);
  await source.query(`CREATE TABLE bench_heap AS SELECT i.id AS item_id, p.id AS place_id, p.site_id, 1 + i.id % 97 AS units
    FROM item i JOIN (SELECT id, site_id, ROW_NUMBER() OVER (ORDER BY id) AS n FROM place WHERE aisle_id IS NOT NULL) p ON p.n = 1 + i.id * 7 % 20000`);
  const from = (await source.query<{ id: number }[]>(`SELECT id FROM place WHERE code = 'COUNT-DIFFERENCE'`))[0]?.id;
  await source.query(
    `INSERT INTO movement (item_id, from_place_id, to_place_id, units, task, document) SELECT item_id, ?, place_id, units, 'open', 'OPENING' FROM bench_heap`,
    [from],
  );
  await source.query(
    'INSERT INTO balance (item_id, place_id, units, bounded, site_id) SELECT item_id, place_id, units, 1, site_id FROM bench_heap',
  );
  await source.query('INSERT INTO balance (item_id, place_id, units, bounded) SELECT item_id, ?, -units, 0 FROM bench_heap', [from]);
  await source.query('INSERT INTO site_stock (site_id, item_id, on_hand) SELECT site_id, item_id, units FROM bench_heap');
  await source.query('DROP TABLE bench_heap');
  await source.query(
    `INSERT INTO cost_pool (item_id, units, value) SELECT b.item_id, SUM(b.units), SUM(b.units) * COALESCE(i.cost, 0) FROM balance b JOIN item i ON i.id = b.item_id WHERE b.bounded = 1 GROUP BY b.item_id`,
  );
  await source.query(
    `INSERT INTO cost_layer (item_id, document, units, units_left, value, value_left) SELECT item_id, 'OPENING', units, units, value, value FROM cost_pool`,
  );
  await source.query(
    `INSERT INTO value_entry (item_id, layer_id, document, debit, credit, amount) SELECT item_id, id, document, 'stock', 'opening', value FROM cost_layer`,
  );
}

/** What was written in bulk is proved like everything else. */
async function ledger(): Promise<void> {
  const begun = performance.now();
  // A tool that reads everything has no limit of time.
  const patient = await new DataSource(dataSourceOptions(config, [])).initialize();
  const findings = [...(await checkLedger(patient)), ...(await checkOrders(patient))];
  await patient.destroy();
  if (findings.length > 0) throw new Error(`The ledger is not clean:\n${findings.join('\n')}`);
  say(`the ledger is clean, as are the orders: proved in ${seconds(performance.now() - begun)}`);
}

/** Lists and look-ups as people ask for them, with other figures each time. */
async function reads(): Promise<void> {
  const sku = () => `I-${String(1 + Math.floor(random() * ITEMS)).padStart(6, '0')}`;
  const order = () => `S-${100_001 + Math.floor(random() * (size.orders - 1))}`;
  const window = (most: number) => Math.floor((random() * most) / 100) * 100;
  const bin = () =>
    `${pick([...'ABCDEFGHIJKLMNOPQRST'])}-${String(1 + Math.floor(random() * BAYS)).padStart(2, '0')}-${1 + Math.floor(random() * LEVELS)}`;
  const asked: readonly (readonly [name: string, path: () => string, restMs?: number])[] = [
    ['items, any window', () => `items?limit=100&from=${window(ITEMS)}`],
    ['items, sorted by SKU, any window', () => `items?sort=sku&limit=100&from=${window(ITEMS)}`],
    ['items, sorted by available', () => `items?sort=-available&limit=100&from=${window(2_000)}`],
    ['items with two words', () => `items?limit=100&search=${pick(WORDS)}%20${pick(CLASSES)}`],
    ['items of a class', () => `items?limit=100&className=${pick(CLASSES)}&from=${window(4_000)}`],
    ['items with a tag', () => `items?limit=100&tag=fragile&from=${window(4_000)}`],
    ['items of a site', () => `items?limit=100&site=${1 + Math.floor(random() * SITES)}&from=${window(5_000)}`],
    ['items that are incomplete', () => `items?limit=100&state=incomplete&from=${window(3_000)}`],
    ['items of which none is free', () => 'items?limit=100&state=short'],
    ['counts of each state', () => 'items/counts'],
    ['an item', () => `items/${sku()}`],
    ['stock of an item', () => `items/${sku()}/stock`],
    ['movements of an item', () => `items/${sku()}/movements`],
    ['a barcode in the any-field', () => `find?q=${gtinOf(1 + Math.floor(random() * ITEMS))}`],
    ['a word in the any-field', () => `find?q=${pick(WORDS)}`],
    ['a barcode on the phone', () => `look?code=${gtinOf(1 + Math.floor(random() * ITEMS))}`],
    ['a bin on the phone', () => `look?code=${bin()}`],
    // What all screens share is read again no sooner than a fifth of a second after it was: these are asked for as one screen does.
    ['Now', () => 'now', 250],
    ['the line', () => 'line', 250],
    ['orders', () => 'orders'],
    ['orders that are short', () => 'orders?show=short'],
    ['orders that have gone', () => `orders?show=gone&from=${window(2_000)}`],
    ['an order by its number', () => `orders/${order()}`],
    ['an order in the any-field', () => `find?q=${order()}`],
    ['a channel’s number in the any-field', () => `find?q=REF-${1 + Math.floor(random() * size.orders)}`],
    ['a customer in the any-field', () => `find?q=${pick(['Larkholm', 'Tamsin', 'Ferncote'])}%20${Math.floor(random() * 20_000)}`],
    ['an order on the phone', () => `look?code=${order()}`],
    ['rounds', () => 'rounds'],
    ['to pack', () => 'bench/queue'],
    ['lanes', () => 'dispatch/lanes'],
    ['customers', () => `customers?from=${window(8_000)}`],
    ['customers by a word', () => `customers?search=${pick(['Larkholm', 'Stone', 'Cobb'])}`],
    ['a customer', () => `customers/C-${1 + Math.floor(random() * 20_000)}`],
    ['purchase orders', () => 'purchase-orders'],
    ['a purchase order', () => `purchase-orders/P-${100_001 + Math.floor(random() * size.purchases)}`],
    ['arrivals', () => 'arrivals'],
    ['an arrival', () => `arrivals/A-${100_001 + Math.floor(random() * size.purchases * 0.9)}`],
    ['what is due at the dock', () => 'floor/receive?site=1'],
    ['bills', () => 'bills'],
    ['open to bill', () => `bills/open?supplier=SUP${1 + Math.floor(random() * 60)}`],
    ['suppliers', () => 'suppliers'],
    ['a supplier', () => `suppliers/SUP${1 + Math.floor(random() * 60)}`],
    ['inspections', () => 'inspections'],
    ['returns to suppliers', () => 'supplier-returns'],
    ['the tape', () => 'tape?limit=60'],
    ['the tape of an order', () => `tape?document=${order()}`],
    ['the tape of a person', () => 'tape?person=1&limit=40'],
    ['people', () => 'people'],
    ['devices', () => 'devices'],
    ['the outbox', () => 'outbox'],
    ['the tray of printers', () => 'labels/tray'],
    ['channels', () => 'channels'],
    ['messages that cannot be read', () => 'parked-messages'],
    ['the plan of a site', () => `plans/${1 + Math.floor(random() * SITES)}`],
    ['goods to put away', () => 'floor/tasks/store/1'],
    ['places, any window', () => `places?limit=100&from=${window(20_000)}`],
    ['places by a beginning', () => `places?limit=100&search=${bin().slice(0, 4)}`],
    ['a place', () => `places/${bin()}`],
  ];
  say(`lists and look-ups over HTTP, ${ASKED} times each, one after the other:`);
  let worst = 0;
  for (const [name, path, restMs = 0] of asked) {
    const times: number[] = [];
    for (let i = 0; i < ASKED; i++) {
      const begun = performance.now();
      await (await call('GET', path())).arrayBuffer();
      times.push(performance.now() - begun);
      if (restMs > 0) await new Promise((rested) => setTimeout(rested, restMs));
    }
    worst = Math.max(worst, percentile(times, 95));
    say(
      `  ${name.padEnd(36)} p50 ${percentile(times, 50).toFixed(0).padStart(4)} ms   p95 ${percentile(times, 95).toFixed(0).padStart(4)} ms`,
    );
  }
  say(`  the slowest p95 is ${worst.toFixed(0)} ms; the house is designed for 150 ms`);
}

/** The codes of a site as a phone fetches them: all the first time, then what has changed. */
async function book(): Promise<void> {
  interface Part {
    version: number;
    next: string | null;
    items: unknown[];
  }
  const fetched = async (since: number) => {
    const begun = performance.now();
    let [bytes, slowest, parts, items] = [0, 0, 0, 0];
    let version: number;
    for (let on = ''; ; parts++) {
      const asked = performance.now();
      const answer = await call('GET', `floor/book?site=1&since=${since}${on}`, undefined, { 'accept-encoding': 'identity' });
      const text = await answer.text();
      slowest = Math.max(slowest, performance.now() - asked);
      bytes += text.length;
      sent += gzipSync(text, { level: 6 }).length;
      const part = JSON.parse(text) as Part;
      items += part.items.length;
      version = part.version;
      if (part.next === null) break;
      on = `&until=${part.version}&after=${part.next}`;
    }
    const ms = performance.now() - begun;
    return { bytes, ms, slowest, parts: parts + 1, items, version };
  };
  let sent = 0;
  const first = await fetched(0);
  const packed = sent;
  const again = await fetched(first.version);
  await source.query(`UPDATE item SET name = CONCAT(name, ' !') WHERE id IN (SELECT * FROM (SELECT id FROM item LIMIT 20) AS some)`);
  const changed = await fetched(first.version);
  const size = (b: number) => `${(b / 1e6).toFixed(2)} MB`;
  say(
    `codes of a site, first: ${first.items.toLocaleString('en-GB')} items in ${first.parts} parts, ${size(first.bytes)} (${size(packed)} over the wire), ${seconds(first.ms)}, the slowest part ${first.slowest.toFixed(0)} ms; again: ${again.bytes} bytes, ${again.ms.toFixed(0)} ms; after 20 items changed: ${changed.items} items, ${changed.bytes.toLocaleString('en-GB')} bytes, ${changed.ms.toFixed(0)} ms`,
  );
}

const scale = Number(process.env['BENCH_SCALE'] ?? 1);
const size: Size = {
  orders: FULL.orders * scale,
  movements: FULL.movements * scale,
  tape: FULL.tape * scale,
  outbox: FULL.outbox * scale,
  purchases: FULL.purchases * scale,
};
await signIn();
// A house that was filled before can be measured again.
if (!process.env['BENCH_AGAIN']) {
  await bins();
  await signIn();
  await items();
  await stock();
  say('two years of history:');
  await history(source, size, say);
  await ledger();
}
await reads();
if (!process.env['BENCH_AGAIN']) await control(source, call, say);
await book();
await app.close();
process.exit(0);
