import type { ItemId, LineId } from '../ids/index.js';

/** An order waiting for stock at one site, as the queue sees it. */
export interface WaitingOrder {
  orderId: number;
  priority: number;
  /** ISO instants. */
  promised: string;
  placed: string;
  /** All that it lacks or nothing of it: what it cannot use yet is left to others. */
  wholeOnly?: boolean;
  lines: { lineId: LineId; itemId: ItemId; short: number }[];
}

export interface Grant {
  lineId: LineId;
  itemId: ItemId;
  units: number;
}

/**
 * Shares what is available among waiting orders: higher priority first, then earlier promise, then earlier placing,
 * then id. A line takes what there is, up to what it lacks; nothing is granted twice. An order that goes only whole takes all that
 * it lacks or nothing. `available` is left as it was. O(n log n) in orders.
 */
export function reserve(orders: readonly WaitingOrder[], available: ReadonlyMap<number, number>): Grant[] {
  const free = new Map(available);
  const grants: Grant[] = [];
  const inTurn = [...orders].sort(
    (a, b) =>
      b.priority - a.priority ||
      Date.parse(a.promised) - Date.parse(b.promised) ||
      Date.parse(a.placed) - Date.parse(b.placed) ||
      a.orderId - b.orderId,
  );
  for (const order of inTurn) {
    if (order.wholeOnly && !coversAll(order, free)) continue;
    for (const line of order.lines) {
      const units = Math.min(line.short, free.get(line.itemId) ?? 0);
      if (units <= 0) continue;
      free.set(line.itemId, (free.get(line.itemId) ?? 0) - units);
      grants.push({ lineId: line.lineId, itemId: line.itemId, units });
    }
  }
  return grants;
}

/** Whether all that an order lacks is free, its lines of one item taken together. */
function coversAll(order: WaitingOrder, free: ReadonlyMap<number, number>): boolean {
  const wanted = new Map<number, number>();
  for (const { itemId, short } of order.lines) wanted.set(itemId, (wanted.get(itemId) ?? 0) + short);
  return [...wanted].every(([itemId, units]) => (free.get(itemId) ?? 0) >= units);
}
