import { randomUUID } from 'node:crypto';
import type { INestApplicationContext } from '@nestjs/common';
import type { DataSource } from 'typeorm';
import { AllocationService } from '../allocation/index.js';
import { OrderIntake } from '../orders/index.js';
import { inTransaction, one, rows } from '../platform/index.js';

const ORDERS = 2_500;
const LINES = 4;
const NEW_ORDERS = 60;

export interface ReservingTimes {
  lines: number;
  /** How many of them hold something afterwards. */
  held: number;
  /** All of them reserved again, in milliseconds. */
  all: number;
  /** One new order each, beside them. */
  each: number[];
}

/** Reserves ten thousand open lines again, all at once, and then new orders one by one beside them. */
export async function reserving(app: INestApplicationContext, source: DataSource): Promise<ReservingTimes> {
  const channel = await one<{ id: number; site_id: number }>(source, `SELECT id, site_id FROM channel WHERE code = 'PHONE'`);
  if (!channel) throw new Error('The demo has no phone channel');
  const items = await rows<{ id: number; sku: string }>(
    source,
    `SELECT i.id, l.channel_sku AS sku FROM item i JOIN listing l ON l.item_id = i.id AND l.channel_id = ? WHERE i.kind = 'single' ORDER BY i.id LIMIT 40`,
    [channel.id],
  );
  await source.query(
    `INSERT INTO sales_order (code, channel_id, channel_ref, site_id, customer, address_line, postcode, placed_at, promised_at)
     SELECT CONCAT('SB-', seq), ?, CONCAT('SB-', seq), ?, CONCAT('Bench ', seq), '1 Bench Row', 'NW8 2RE', UTC_TIMESTAMP(), UTC_TIMESTAMP() + INTERVAL seq MINUTE FROM seq_1_to_${ORDERS}`,
    [channel.id, channel.site_id],
  );
  for (let line = 1; line <= LINES; line++)
    await source.query(
      `INSERT INTO sales_order_line (order_id, line, channel_sku, item_id, quantity, units, price)
       SELECT o.id, ?, i.sku, i.id, 1, 1, 1 FROM sales_order o JOIN item i ON i.id = ELT(1 + (o.id * 7 + ?) % ${items.length}, ${items.map((i) => i.id).join(',')}) WHERE o.code LIKE 'SB-%'`,
      [line, line * 11],
    );
  const changes = items.map((i) => ({ siteId: channel.site_id, itemId: i.id }));
  const begun = performance.now();
  await inTransaction(source, (tx) => app.get(AllocationService).settle(tx, changes));
  const all = performance.now() - begun;
  const held = await one<{ n: string }>(
    source,
    `SELECT COUNT(*) AS n FROM reservation v JOIN sales_order_line l ON l.id = v.order_line_id JOIN sales_order o ON o.id = l.order_id WHERE o.code LIKE 'SB-%'`,
  );
  const each: number[] = [];
  for (let n = 0; n < NEW_ORDERS; n++) {
    const lines = [items[n % items.length], items[(n + 7) % items.length]].flatMap((i) =>
      i ? [{ sku: i.sku, quantity: 1, price: '1' }] : [],
    );
    const from = performance.now();
    await app.get(OrderIntake).takeIn(channel, {
      ref: `BN-${randomUUID().slice(0, 12)}`,
      placedAt: new Date().toISOString(),
      customer: 'Bench',
      address: { line: '1 Bench Row', city: 'Netherwick', postcode: 'NW8 2RE', country: 'GB' },
      lines,
    });
    each.push(performance.now() - from);
  }
  return { lines: ORDERS * LINES, held: Number(held?.n ?? 0), all, each };
}
