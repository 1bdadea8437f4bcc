import { Injectable } from '@nestjs/common';
import { type LineProgress, orderState, type OrderState } from '@vectrum/core/orders';
import { kindsFor } from '@vectrum/core/places';
import { onShelfSql } from '../allocation/index.js';
import { marks, more, NEXT, NOW, num, rows, sqlList, type Tx, update } from '../platform/index.js';

interface OrderRow {
  id: number;
  state: OrderState;
  cancelled: number | string;
  quoted: number | string;
  held: number | string;
  begun: number | string;
}
type LineRow = { orderId: number } & { [K in keyof LineProgress]: number | string };

const IS_PICKED = `p.kind IN ${sqlList(kindsFor('picked'))}`;
// What several orders share is on its way until it is sorted.
const IS_DOWN = '(u.set_down_at IS NOT NULL AND u.order_id IS NOT NULL)';

const ON_SHELF = onShelfSql('v', 'p');

/** Where the goods of each line lie, by the places that its reservations follow them to. */
const PROGRESS = `SELECT v.order_line_id AS lineId,
    SUM(IF(p.kind <> 'parcel' AND NOT ${IS_PICKED} AND NOT ${ON_SHELF}, v.units, 0)) AS toPick,
    SUM(IF(${IS_PICKED} AND NOT ${IS_DOWN}, v.units, 0)) AS walking,
    SUM(IF((${IS_PICKED} AND ${IS_DOWN}) OR ${ON_SHELF}, v.units, 0)) AS setDown,
    SUM(IF(p.kind = 'parcel' AND c.state = 'open', v.units, 0)) AS inOpenParcel,
    SUM(IF(p.kind = 'parcel' AND c.state <> 'open', v.units, 0)) AS inClosedParcel
  FROM reservation v JOIN place p ON p.id = v.place_id LEFT JOIN tote_use u ON u.open_tote = v.place_id LEFT JOIN parcel c ON c.place_id = v.place_id`;

/** Reads the states of orders as they follow from their lines, and whose goods lie where. */
export async function statesOf(
  tx: Pick<Tx, 'query'>,
  orderIds: readonly number[],
): Promise<Map<number, { kept: OrderState; state: OrderState }>> {
  const orders = await rows<OrderRow>(
    tx,
    `SELECT o.id, o.state, o.cancelled_at IS NOT NULL AS cancelled, o.quoted, o.hold_reason IS NOT NULL AS held,
       EXISTS (SELECT 1 FROM round_order x JOIN \`round\` r ON r.id = x.round_id WHERE x.order_id = o.id AND r.state = 'picking') AS begun
     FROM sales_order o WHERE o.id IN (${marks(orderIds)})`,
    [...orderIds],
  );
  const lines = await rows<LineRow>(
    tx,
    `SELECT l.order_id AS orderId, l.units, COALESCE(i.never_holds_up, 0) = 0 AS waits, l.shipped_units AS shipped, g.toPick, g.walking, g.setDown, g.inOpenParcel, g.inClosedParcel
     FROM sales_order_line l LEFT JOIN item i ON i.id = l.item_id LEFT JOIN (${PROGRESS} JOIN sales_order_line k ON k.id = v.order_line_id WHERE k.order_id IN (${marks(orderIds)}) GROUP BY v.order_line_id) g ON g.lineId = l.id
     WHERE l.order_id IN (${marks(orderIds)})`,
    [...orderIds, ...orderIds],
  );
  return new Map(
    orders.map((o) => [
      o.id,
      {
        kept: o.state,
        state: orderState({
          cancelled: num(o.cancelled) === 1,
          quoted: num(o.quoted) === 1,
          held: num(o.held) === 1,
          begun: num(o.begun) === 1,
          lines: lines.filter((l) => l.orderId === o.id).map(progressOf),
        }),
      },
    ]),
  );
}

const progressOf = (row: LineRow): LineProgress => ({
  units: num(row.units),
  waits: num(row.waits) === 1,
  toPick: num(row.toPick),
  walking: num(row.walking),
  setDown: num(row.setDown),
  inOpenParcel: num(row.inOpenParcel),
  inClosedParcel: num(row.inClosedParcel),
  shipped: num(row.shipped),
});

/** Keeps the state of orders in step with their lines. Whoever moves goods of an order calls this, in the same transaction. */
@Injectable()
export class OrderStates {
  /** Takes hold of orders in the order of their numbers: before any goods of theirs are touched. Returns them in that order. */
  async lock(tx: Tx, orderIds: readonly number[]): Promise<number[]> {
    const ids = [...new Set(orderIds)].sort((a, b) => a - b);
    for (const id of ids) await tx.query('SELECT id FROM sales_order WHERE id = ? FOR UPDATE', [id]);
    return ids;
  }

  async refresh(tx: Tx, orderIds: readonly number[]): Promise<void> {
    const ids = await this.lock(tx, orderIds);
    for (const [id, { kept, state }] of await statesOf(tx, ids))
      if (state !== kept) await update(tx, 'sales_order', { id }, { state, version: NEXT });
  }

  /** Goods of a line went a step further, or back where the number is below nought. */
  async progress(tx: Tx, lineId: number, by: { picked?: number; packed?: number; shipped?: number }): Promise<void> {
    const step = (units: number | undefined) => (units === undefined ? undefined : more(units));
    await update(
      tx,
      'sales_order_line',
      { id: lineId },
      { picked_units: step(by.picked), packed_units: step(by.packed), shipped_units: step(by.shipped) },
    );
  }

  /** The packer has read the note; whoever was first stays named. */
  async noteSeen(tx: Tx, orderId: number, personId: number): Promise<void> {
    await update(tx, 'sales_order', { id: orderId, note_seen_by: null }, { note_seen_by: personId });
  }

  /** The order waits at the packing table, and why; null ends that. */
  async park(tx: Tx, orderId: number, why: string | null): Promise<void> {
    await update(tx, 'sales_order', { id: orderId }, { parked_at: why === null ? null : NOW, parked_why: why });
  }

  /** Goods of an order have left the house. What is packed of it later is another parcel, whose packer reads the note again. */
  async left(tx: Tx, orderId: number): Promise<void> {
    await update(tx, 'sales_order', { id: orderId }, { shipped_at: NOW, version: NEXT });
    await this.refresh(tx, [orderId]);
    await update(tx, 'sales_order', { id: orderId, state: 'open' }, { note_seen_by: null });
  }
}
