import type { Coming } from '../inspection/index.js';
import { badState, marks, notFound, one, rows, type Tx } from '../platform/index.js';

/** What a phone opened to receive: an order, or an arrival with lines of several orders or of none. */
export interface Delivery {
  code: string;
  siteId: number;
  supplierId: number | null;
  supplier: string;
  /** The dock it comes to; null for whichever is free. */
  doorId: number | null;
  orders: { id: number; code: string }[];
  /** The arrival that it comes with; null until the first goods of an order are booked in. */
  arrival: { id: number; code: string; state: string; paper: string; doorId: number | null } | null;
}

/** The delivery as inspection sees it. */
export const comingWith = (d: Delivery): Coming => ({ siteId: d.siteId, supplierId: d.supplierId, arrivalId: d.arrival?.id ?? null });

const ARRIVAL = 'SELECT a.id, a.code, a.state, a.paper, a.door_id AS doorId';

/**
 * Finds the order or arrival behind a code. With `lock` its orders and its arrival are held until the transaction ends, orders
 * first and in the order of their numbers, so that two people never wait for each other.
 */
export async function deliveryOf(tx: Pick<Tx, 'query'>, code: string, lock: boolean): Promise<Delivery> {
  return (await ofOrder(tx, code, lock)) ?? (await ofArrival(tx, code, lock));
}

async function ofOrder(tx: Pick<Tx, 'query'>, code: string, lock: boolean): Promise<Delivery | undefined> {
  const order = await one<{
    id: number;
    code: string;
    siteId: number;
    state: string;
    supplierId: number;
    supplier: string;
    doorId: number | null;
  }>(
    tx,
    `SELECT o.id, o.code, o.site_id AS siteId, o.door_id AS doorId, o.state, s.id AS supplierId, s.name AS supplier FROM purchase_order o JOIN supplier s ON s.id = o.supplier_id WHERE o.code = ? ${lock ? 'FOR UPDATE' : ''}`,
    [code],
  );
  if (!order) return undefined;
  if (order.state === 'draft') throw notFound(`Purchase order ${code}`);
  if (order.state === 'cancelled' || order.state === 'closed')
    throw badState(`${code} is ${order.state}. Ring the office before taking these goods in`);
  const arrival = await one<NonNullable<Delivery['arrival']>>(
    tx,
    `${ARRIVAL} FROM arrival a JOIN arrival_order x ON x.arrival_id = a.id WHERE x.order_id = ? AND a.state <> 'closed' ORDER BY a.state = 'open' DESC, a.expected_on, a.id LIMIT 1 ${lock ? 'FOR UPDATE' : ''}`,
    [order.id],
  );
  const { siteId, supplierId, supplier } = order;
  const doorId = arrival ? arrival.doorId : order.doorId;
  return { code, siteId, supplierId, supplier, doorId, orders: [{ id: order.id, code }], arrival: arrival ?? null };
}

async function ofArrival(tx: Pick<Tx, 'query'>, code: string, lock: boolean): Promise<Delivery> {
  const found = await one<{ id: number; siteId: number; supplierId: number | null; supplier: string | null }>(
    tx,
    'SELECT a.id, a.site_id AS siteId, a.supplier_id AS supplierId, s.name AS supplier FROM arrival a LEFT JOIN supplier s ON s.id = a.supplier_id WHERE a.code = ?',
    [code],
  );
  if (!found) throw notFound(`Order or arrival ${code}`);
  const orders = await rows<{ id: number; code: string }>(
    tx,
    `SELECT o.id, o.code FROM purchase_order o JOIN arrival_order x ON x.order_id = o.id WHERE x.arrival_id = ? AND o.state NOT IN ('cancelled','closed') ORDER BY o.id ${lock ? 'FOR UPDATE' : ''}`,
    [found.id],
  );
  const arrival = await one<NonNullable<Delivery['arrival']>>(tx, `${ARRIVAL} FROM arrival a WHERE a.id = ? ${lock ? 'FOR UPDATE' : ''}`, [
    found.id,
  ]);
  if (arrival?.state === 'closed') throw badState(`${code} is closed. Open its order again to receive what came late`);
  return {
    code,
    siteId: found.siteId,
    supplierId: found.supplierId,
    supplier: found.supplier ?? 'No supplier',
    doorId: arrival?.doorId ?? null,
    orders,
    arrival: arrival ?? null,
  };
}

/** Every code under which acts on these goods are kept: the orders and the arrival. */
export async function codesOf(tx: Pick<Tx, 'query'>, delivery: Delivery): Promise<string[]> {
  const others = await rows<{ code: string }>(
    tx,
    `SELECT DISTINCT a.code FROM arrival a JOIN arrival_order x ON x.arrival_id = a.id WHERE x.order_id IN (${marks(delivery.orders)}) AND a.state <> 'closed'`,
    delivery.orders.map((o) => o.id),
  );
  return [...new Set([delivery.code, ...delivery.orders.map((o) => o.code), ...others.map((o) => o.code)])];
}
