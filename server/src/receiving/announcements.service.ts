import { Injectable } from '@nestjs/common';
import { ActivityService } from '../activity/index.js';
import { type Act, badForm, badState, insert, marks, mustBeAt, nextCode, rows, type Tx } from '../platform/index.js';
import type { UblDespatchAdvice, UblDespatchLine } from '../ubl/index.js';

/** More units than this on one line are a slip. */
const MOST_UNITS = 100_000_000;

interface OrderRow {
  id: number;
  code: string;
  state: string;
  supplierId: number;
  siteId: number;
  expectedOn: string | null;
}
interface LineRow {
  id: number;
  orderId: number;
  line: number;
  itemId: number;
  sku: string;
  factor: number;
  tracking: string;
}

/** Makes an expected arrival of a supplier's despatch advice, with its lots and pallets, so that one scan receives a pallet. */
@Injectable()
export class AnnouncementsService {
  constructor(private readonly activity: ActivityService) {}

  async take(tx: Tx, act: Act | null, advice: UblDespatchAdvice): Promise<{ supplierId: number; code: string; says: string }> {
    if (advice.lines.length === 0) throw badForm({ document: 'The advice has no lines' });
    const orders = await this.orders(tx, act, advice);
    const lines = await this.lines(tx, orders);
    const goods = advice.lines.filter((l) => l.packs > 0).map((l) => this.matched(l, orders, lines));
    await this.newPallets(tx, advice);
    const [first] = orders;
    if (!first) throw badForm({ document: 'The advice names no order' });
    const code = await nextCode(tx, 'A');
    const made = await tx.query<{ insertId: number }>(
      `INSERT INTO arrival (code, site_id, supplier_id, state, expected_on, advice, door_id) VALUES (?, ?, ?, 'announced', ?, ?, (SELECT door_id FROM purchase_order WHERE id = ?))`,
      [code, first.siteId, first.supplierId, advice.arrivesOn ?? first.expectedOn, advice.id.slice(0, 60), first.id],
    );
    for (const order of orders) await insert(tx, 'arrival_order', { arrival_id: made.insertId, order_id: order.id });
    for (const g of goods)
      await insert(tx, 'announced_goods', {
        arrival_id: made.insertId,
        sscc: g.sscc,
        order_line_id: g.lineId,
        item_id: g.itemId,
        lot_code: g.lot,
        expires_on: g.expires,
        units: g.units,
      });
    const pallets = new Set(goods.flatMap((g) => g.sscc ?? [])).size;
    const says = `${code} is announced${pallets > 0 ? `, ${pallets === 1 ? '1 pallet' : `${pallets} pallets`}` : ''}`;
    await this.activity.record(tx, act, {
      kind: 'arrival',
      glyph: 'empty',
      title: says,
      detail: `${advice.supplier}, ${orders.map((o) => o.code).join(', ')}`,
      document: code,
      siteId: first.siteId,
    });
    return { supplierId: first.supplierId, code, says };
  }

  private async orders(tx: Tx, act: Act | null, advice: UblDespatchAdvice): Promise<OrderRow[]> {
    const codes = [...new Set(advice.lines.map((l) => l.order))];
    const found = await rows<OrderRow>(
      tx,
      `SELECT id, code, state, supplier_id AS supplierId, site_id AS siteId, expected_on AS expectedOn FROM purchase_order WHERE code IN (${marks(codes)}) AND state <> 'draft' ORDER BY id FOR UPDATE`,
      codes,
    );
    const missing = codes.find((c) => !found.some((o) => o.code === c));
    if (missing !== undefined) throw badForm({ document: missing === '' ? 'A line names no order' : `There is no order ${missing}` });
    const shut = found.find((o) => o.state !== 'placed' && o.state !== 'part-received');
    if (shut) throw badState(`${shut.code} is ${shut.state}. Ring the supplier: nothing more of it is waited for`);
    if (new Set(found.map((o) => `${o.supplierId}/${o.siteId}`)).size > 1)
      throw badForm({ document: 'The orders are of different suppliers or sites. Each needs an advice of its own' });
    if (act) for (const order of found) mustBeAt(act.person, order.siteId);
    return found;
  }

  private lines(tx: Tx, orders: readonly OrderRow[]): Promise<LineRow[]> {
    return rows<LineRow>(
      tx,
      `SELECT l.id, l.order_id AS orderId, l.line, l.item_id AS itemId, i.sku, l.factor, i.tracking FROM purchase_order_line l JOIN item i ON i.id = l.item_id WHERE l.order_id IN (${marks(orders)})`,
      orders.map((o) => o.id),
    );
  }

  private matched(l: UblDespatchLine, orders: readonly OrderRow[], lines: readonly LineRow[]) {
    const order = orders.find((o) => o.code === l.order);
    const line = lines.find((x) => x.orderId === order?.id && x.line === l.orderLine);
    const at = `Line ${l.line} of the advice`;
    if (!line) throw badForm({ document: `${at}: ${l.order} has no line ${l.orderLine}` });
    if (l.sku !== '' && l.sku.toUpperCase() !== line.sku)
      throw badForm({ document: `${at}: it says ${l.sku}, but line ${l.orderLine} of ${l.order} is ${line.sku}` });
    const units = l.packs * (l.factor ?? line.factor);
    if (units > MOST_UNITS) throw badForm({ document: `${at}: ${units} units are more than can be` });
    if (line.tracking === 'serial' && units !== 1)
      throw badForm({ document: `${at}: each ${line.sku} has a number of its own. It needs a line for each piece` });
    const traced = line.tracking !== 'none';
    return {
      sscc: l.sscc,
      lineId: line.id,
      itemId: line.itemId,
      lot: traced ? (l.lot?.slice(0, 20) ?? null) : null,
      expires: line.tracking === 'lot-expiry' ? l.expires : null,
      units,
    };
  }

  /** A pallet code is used once, unless it never came: the same twice would book goods in twice. */
  private async newPallets(tx: Tx, advice: UblDespatchAdvice): Promise<void> {
    const codes = [...new Set(advice.lines.flatMap((l) => l.sscc ?? []))];
    const [known] = await rows<{ sscc: string; code: string }>(
      tx,
      `SELECT g.sscc, a.code FROM announced_goods g JOIN arrival a ON a.id = g.arrival_id WHERE g.sscc IN (${marks(codes)}) AND NOT (a.state = 'closed' AND a.opened_at IS NULL) LIMIT 1`,
      codes,
    );
    if (known) throw badForm({ document: `Pallet ${known.sscc} was announced before, with ${known.code}` });
  }
}
