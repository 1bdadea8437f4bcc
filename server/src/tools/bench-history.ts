import type { DataSource } from 'typeorm';

/** Two years of a busy house, written in bulk so that it stands in minutes; the ledger and the orders are as clean as if they had been lived. */
export interface Size {
  orders: number;
  movements: number;
  tape: number;
  outbox: number;
  purchases: number;
}
export const FULL: Size = { orders: 1_000_000, movements: 10_000_000, tape: 1_000_000, outbox: 400_000, purchases: 8_000 };
/** Orders that are not over, the newest of all. */
export const LIVE = 3_000;
const CUSTOMERS = 20_000;
const MINUTES = 2 * 365 * 24 * 60;
/** Rows written by one statement: enough to be quick, few enough that none holds everything up. */
const AT_ONCE = 50_000;

const NAMES = `ELT(1 + seq % 12, 'Larkholm', 'Wick Hill', 'Tamsin', 'Beacon', 'Ferncote', 'Old Mill', 'Harrow', 'Bright', 'Stone', 'Meadow', 'Cobb', 'Orchard')`;

/** Runs `sql` over the numbers from 1 to `most`, some at a time; `{n}` stands for where they come from. */
async function over(source: DataSource, most: number, sql: (seq: string) => string): Promise<void> {
  for (let from = 1; from <= most; from += AT_ONCE) await source.query(sql(`seq_${from}_to_${Math.min(most, from + AT_ONCE - 1)}`));
}

/** Fills a house that has items in bins at five sites, and its first owner. */
export async function history(source: DataSource, size: Size, say: (text: string) => void): Promise<void> {
  const begun = performance.now();
  const told = (what: string) => say(`  ${what} (${((performance.now() - begun) / 1000).toFixed(0)} s)`);
  const items = Number((await source.query<{ n: string }[]>('SELECT MAX(id) AS n FROM item'))[0]?.n ?? 0);
  await source.query('SET GLOBAL innodb_flush_log_at_trx_commit = 2').catch(() => undefined);
  // Only for rows that are made here, whose references are right by how they are made.
  const write = async (sql: string): Promise<void> => {
    await source.query(sql);
  };

  await write(
    `INSERT INTO channel (code, name, kind, site_id) SELECT CONCAT('CH', id), CONCAT('Channel of ', name), 'phone', id FROM site`,
  );
  await over(
    source,
    CUSTOMERS,
    (seq) =>
      `INSERT INTO customer (code, name, email, city) SELECT CONCAT('C-', seq), CONCAT(${NAMES}, ' ', seq), CONCAT('c', seq, '@mail.example'), 'Netherwick' FROM ${seq}`,
  );
  await over(
    source,
    size.orders,
    (seq) =>
      `INSERT INTO sales_order (code, channel_id, channel_ref, site_id, state, customer, email, city, placed_at, promised_at, shipped_at)
       SELECT CONCAT('S-', 100000 + seq), (SELECT MIN(id) FROM channel WHERE site_id = 1 + seq % 5), CONCAT('REF-', seq), 1 + seq % 5, IF(seq <= ${size.orders - LIVE}, 'shipped', 'open'),
         CONCAT(${NAMES}, ' ', seq % ${CUSTOMERS}), CONCAT('c', seq % ${CUSTOMERS}, '@mail.example'), 'Netherwick',
         UTC_TIMESTAMP() - INTERVAL ROUND((${size.orders} - seq) * ${MINUTES} / ${size.orders}) MINUTE, UTC_TIMESTAMP() - INTERVAL ROUND((${size.orders} - seq) * ${MINUTES} / ${size.orders}) - 2880 MINUTE,
         IF(seq <= ${size.orders - LIVE}, UTC_TIMESTAMP() - INTERVAL ROUND((${size.orders} - seq) * ${MINUTES} / ${size.orders}) - 1440 MINUTE, NULL) FROM ${seq}`,
  );
  for (const line of [1, 2])
    await over(
      source,
      size.orders,
      (seq) =>
        `INSERT INTO sales_order_line (order_id, line, channel_sku, item_id, quantity, units, price, picked_units, packed_units, shipped_units)
         SELECT o.id, ${line}, CONCAT('I-', 1 + (seq * ${line * 7}) % ${items}), 1 + (seq * ${line * 7}) % ${items}, 1, 1, 4.5,
           IF(seq <= ${size.orders - LIVE}, 1, 0), IF(seq <= ${size.orders - LIVE}, 1, 0), IF(seq <= ${size.orders - LIVE}, 1, 0) FROM ${seq} JOIN sales_order o ON o.code = CONCAT('S-', 100000 + seq) ${line === 2 ? 'WHERE seq % 2 = 0' : ''}`,
    );
  told(`${size.orders.toLocaleString('en-GB')} orders, of which ${LIVE.toLocaleString('en-GB')} are not over`);

  // Every unit that comes in goes out again: what lies in the bins stays as it is.
  await write(
    `CREATE TABLE bench_bin AS SELECT b.item_id, MIN(b.place_id) AS place_id FROM balance b WHERE b.bounded = 1 AND b.units > 0 GROUP BY b.item_id`,
  );
  await write('ALTER TABLE bench_bin ADD PRIMARY KEY (item_id)');
  const outside = `(SELECT id FROM place WHERE code = 'COUNT-DIFFERENCE')`;
  for (const [from, to, task] of [
    [outside, 'b.place_id', 'receive'],
    ['b.place_id', outside, 'hand-over'],
  ] as const)
    await over(
      source,
      size.movements / 2,
      (seq) =>
        `INSERT INTO movement (item_id, from_place_id, to_place_id, units, task, document, person_id, server_at)
         SELECT b.item_id, ${from}, ${to}, 1, '${task}', CONCAT('S-', 100000 + seq % ${size.orders}), 1, UTC_TIMESTAMP() - INTERVAL ROUND((${size.movements / 2} - seq) * ${MINUTES} / ${size.movements / 2}) MINUTE
         FROM ${seq} JOIN bench_bin b ON b.item_id = 1 + seq % ${items}`,
    );
  await write('DROP TABLE bench_bin');
  told(`${size.movements.toLocaleString('en-GB')} movements`);

  await over(
    source,
    size.tape,
    (seq) =>
      `INSERT INTO activity (at, person_id, site_id, kind, glyph, title, detail, document)
       SELECT UTC_TIMESTAMP() - INTERVAL ROUND((${size.tape} - seq) * ${MINUTES} / ${size.tape}) MINUTE, 1, 1 + seq % 5, ELT(1 + seq % 4, 'pick', 'pack', 'receive', 'store'), 'full', CONCAT('1 piece of I-', 1 + seq % ${items}), 'A-01-1', CONCAT('S-', 100000 + seq) FROM ${seq}`,
  );
  await over(
    source,
    size.outbox,
    (seq) =>
      `INSERT INTO outbox (receiver, kind, payload, document, site_id, state, attempts, created_at, done_at)
       SELECT CONCAT('mail:c', seq % ${CUSTOMERS}, '@mail.example'), 'mail.shipment', '{}', CONCAT('S-', 100000 + seq), 1 + seq % 5, 'done', 1, UTC_TIMESTAMP() - INTERVAL ${size.outbox} - seq MINUTE, UTC_TIMESTAMP() FROM ${seq}`,
  );
  told(`${size.tape.toLocaleString('en-GB')} lines of tape, ${size.outbox.toLocaleString('en-GB')} messages that have left`);

  await write(
    `INSERT INTO supplier (code, name, currency, lead_days) SELECT CONCAT('SUP', seq), CONCAT(${NAMES}, ' Supplies ', seq), 'GBP', 7 FROM seq_1_to_60`,
  );
  const supplier = `(SELECT id FROM supplier WHERE code = CONCAT('SUP', 1 + seq % 60))`;
  const over7500 = Math.floor(size.purchases * 0.95);
  await write(
    `INSERT INTO purchase_order (code, supplier_id, site_id, state, created_by, placed_by, placed_at, expected_on, first_received_at)
     SELECT CONCAT('P-', 100000 + seq), ${supplier}, 1 + seq % 5, IF(seq <= ${over7500}, 'closed', 'placed'), 1, 1, UTC_TIMESTAMP() - INTERVAL (${size.purchases} - seq) * 2 HOUR, UTC_DATE() + INTERVAL CAST(seq % 30 AS SIGNED) - 5 DAY, IF(seq <= ${over7500}, UTC_TIMESTAMP() - INTERVAL (${size.purchases} - seq) HOUR, NULL) FROM seq_1_to_${size.purchases}`,
  );
  for (const line of [1, 2, 3, 4])
    await write(
      `INSERT INTO purchase_order_line (order_id, line, item_id, pack_unit_id, packs, factor, price, received_units)
       SELECT o.id, ${line}, u.item_id, u.id, 10, u.factor, 2.5, IF(o.state = 'closed', 10, 0) FROM purchase_order o JOIN pack_unit u ON u.item_id = 1 + (o.id * ${line * 13}) % ${items} AND u.factor = 1`,
    );
  await write(
    `INSERT INTO arrival (code, site_id, supplier_id, state, paper, opened_at, opened_by, closed_at, closed_by)
     SELECT CONCAT('A-', 100000 + o.id), o.site_id, o.supplier_id, 'closed', CONCAT('N-', o.id), o.first_received_at, 1, o.first_received_at, 1 FROM purchase_order o WHERE o.state = 'closed'`,
  );
  await write(
    `INSERT INTO arrival_order (arrival_id, order_id) SELECT a.id, o.id FROM arrival a JOIN purchase_order o ON a.code = CONCAT('A-', 100000 + o.id)`,
  );
  await write(
    `INSERT INTO bill (code, supplier_id, ref, state, billed_on, currency, rate, entered_by, posted_by, posted_at)
     SELECT CONCAT('B-', 100000 + id), supplier_id, CONCAT('INV-', id), 'posted', DATE(first_received_at), 'GBP', 1, 1, 1, UTC_TIMESTAMP() FROM purchase_order WHERE state = 'closed' AND id % 2 = 0`,
  );
  await write(
    `INSERT INTO bill_line (bill_id, line, order_line_id, units, amount) SELECT b.id, l.line, l.id, 10, 25 FROM bill b JOIN purchase_order o ON b.code = CONCAT('B-', 100000 + o.id) JOIN purchase_order_line l ON l.order_id = o.id`,
  );
  told(`${size.purchases.toLocaleString('en-GB')} purchase orders with their arrivals and bills`);
  await write('SET GLOBAL innodb_flush_log_at_trx_commit = 1').catch(() => undefined);
  for (const table of [
    'sales_order',
    'sales_order_line',
    'movement',
    'activity',
    'outbox',
    'purchase_order',
    'purchase_order_line',
    'arrival',
    'bill',
    'bill_line',
  ])
    await source.query(`ANALYZE TABLE ${table}`);
  told('figures of the tables are current');
}
