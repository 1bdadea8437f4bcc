import { Injectable } from '@nestjs/common';
import { reserve, type WaitingOrder } from '@vectrum/core/allocation';
import { available } from '@vectrum/core/ledger';
import { ordersIn } from '@vectrum/core/orders';
import { marks, num, promisedSql, rows, sqlList, type Tx } from '../platform/index.js';
import type { SiteChange } from '../stock/index.js';
import { Earmarks } from './earmarks.service.js';
import { Reservations } from './reservations.service.js';

/** What is picked or packed may wait for more, too: it goes after, or with it. */
const LIVE = sqlList(ordersIn('live'));
const PROMISABLE = sqlList(ordersIn('promisable'));

interface SiteStockRow {
  item_id: number;
  on_hand: number;
  held: number;
  reserved: number;
}
interface LineRow {
  id: number;
  item_id: number;
  lacks: number | string;
  order_id: number;
  priority: number;
  promised_at: Date;
  placed_at: Date;
  whole: number | string;
  blocked: number | string;
}

type Settled = (tx: Tx, siteId: number, itemIds: readonly number[]) => Promise<void>;

/**
 * The first kind of reservation: order lines hold units at a site, so that they cannot be sold twice. Called after every
 * change of what is available; the site's rows stay locked until the transaction ends.
 */
@Injectable()
export class AllocationService {
  private readonly listeners: Settled[] = [];

  constructor(
    private readonly reservations: Reservations,
    private readonly earmarks: Earmarks,
  ) {}

  /** Whoever must know what became free or was taken, in the transaction in which it happens. */
  whenSettled(listener: Settled): void {
    this.listeners.push(listener);
  }

  /** Gives what is free to those who wait, takes back what is no longer there, and tells whoever listens. */
  async settle(tx: Tx, changes: readonly SiteChange[]): Promise<void> {
    const sites = [...new Set(changes.map((c) => c.siteId))].sort((a, b) => a - b);
    for (const siteId of sites) {
      const items = [...new Set(changes.filter((c) => c.siteId === siteId).map((c) => c.itemId))].sort((a, b) => a - b);
      await this.settleSite(tx, siteId, items);
    }
  }

  /** Settles all goods that an order asks for, after what it may hold has changed. */
  async settleOrder(tx: Tx, order: { id: number; site_id: number }): Promise<void> {
    const goods = await rows<{ item_id: number }>(
      tx,
      'SELECT DISTINCT item_id FROM sales_order_line WHERE order_id = ? AND item_id IS NOT NULL ORDER BY item_id',
      [order.id],
    );
    await this.settle(
      tx,
      goods.map((g) => ({ siteId: order.site_id, itemId: g.item_id })),
    );
  }

  /** Goods that have come for an order are promised to it before anybody else, as far as they are free and it still lacks them. */
  async giveTo(tx: Tx, orderId: number, goods: { siteId: number; itemId: number; units: number }): Promise<void> {
    const { siteId, itemId } = goods;
    const [stock] = await rows<SiteStockRow>(
      tx,
      'SELECT item_id, on_hand, held, reserved FROM site_stock WHERE site_id = ? AND item_id = ? FOR UPDATE',
      [siteId, itemId],
    );
    let left = stock ? Math.min(goods.units, available({ onHand: stock.on_hand, held: stock.held, reserved: stock.reserved })) : 0;
    const lines = await rows<{ id: number; lacks: string }>(
      tx,
      `SELECT l.id, l.units - ${promisedSql('l')} AS lacks FROM sales_order_line l JOIN sales_order o ON o.id = l.order_id
       WHERE o.id = ? AND o.site_id = ? AND o.state IN ${LIVE} AND l.item_id = ? AND ${promisedSql('l')} < l.units ORDER BY l.line`,
      [orderId, siteId, itemId],
    );
    for (const line of lines) {
      const part = Math.min(left, num(line.lacks));
      if (part <= 0) break;
      await this.reservations.hold(tx, { lineId: line.id, itemId, siteId }, part);
      left -= part;
    }
  }

  private async settleSite(tx: Tx, siteId: number, itemIds: readonly number[]): Promise<void> {
    const concerned = await this.withWholeOrders(tx, siteId, itemIds);
    const stock = await rows<SiteStockRow>(
      tx,
      `SELECT item_id, on_hand, held, reserved FROM site_stock WHERE site_id = ? AND item_id IN (${marks(concerned)}) ORDER BY item_id FOR UPDATE`,
      [siteId, ...concerned],
    );
    const free = new Map(concerned.map((itemId) => [itemId, 0]));
    for (const s of stock) free.set(s.item_id, available({ onHand: s.on_hand, held: s.held, reserved: s.reserved }));
    let isTaken = false;
    for (const [itemId, units] of free)
      if (units < 0) {
        // What is wanted within the house gives way to what customers were promised.
        const marked = await this.earmarks.takeBack(tx, siteId, itemId, -units);
        const lacks = -units - marked;
        free.set(itemId, units + marked + (lacks > 0 ? await this.takeBack(tx, siteId, itemId, lacks) : 0));
        if (lacks > 0) isTaken = true;
      }
    if (isTaken && concerned.length > itemIds.length) await this.letWholeOrdersGo(tx, siteId, free);
    if ([...free.values()].some((units) => units > 0)) {
      const within = await this.earmarks.waiting(tx, siteId, concerned);
      await this.grant(tx, siteId, free);
      await this.earmarks.grant(tx, within, free);
    }
    for (const listener of this.listeners) await listener(tx, siteId, concerned);
  }

  /** The items and, where an order that goes only whole wants one of them, all that this order wants: it is given together. */
  private async withWholeOrders(tx: Tx, siteId: number, itemIds: readonly number[]): Promise<number[]> {
    const also = await rows<{ itemId: number }>(
      tx,
      `SELECT DISTINCT k.item_id AS itemId FROM sales_order o JOIN sales_order_line l ON l.order_id = o.id AND l.item_id IN (${marks(itemIds)})
       JOIN sales_order_line k ON k.order_id = o.id AND k.item_id IS NOT NULL
       WHERE o.whole_only = 1 AND o.site_id = ? AND o.state IN ${PROMISABLE}`,
      [...itemIds, siteId],
    );
    return [...new Set([...itemIds, ...also.map((a) => a.itemId)])].sort((a, b) => a - b);
  }

  /** Something was taken back: what an order that goes only whole holds besides is of no use to it until the rest is there again. */
  private async letWholeOrdersGo(tx: Tx, siteId: number, free: Map<number, number>): Promise<void> {
    const held = await rows<{ lineId: number; itemId: number; units: number }>(
      tx,
      `SELECT v.order_line_id AS lineId, v.item_id AS itemId, v.units FROM sales_order o JOIN sales_order_line l ON l.order_id = o.id JOIN reservation v ON v.order_line_id = l.id AND v.place_id IS NULL
       WHERE o.whole_only = 1 AND o.site_id = ? AND o.state IN ${PROMISABLE} AND v.site_id = o.site_id AND v.item_id IN (${marks([...free])})
         AND EXISTS (SELECT 1 FROM sales_order_line k WHERE k.order_id = o.id AND k.item_id IS NOT NULL AND ${promisedSql('k')} < k.units) ORDER BY v.item_id, v.order_line_id`,
      [siteId, ...free.keys()],
    );
    for (const { lineId, itemId, units } of held) {
      await this.reservations.free(tx, { lineId, itemId, siteId }, null, units);
      free.set(itemId, (free.get(itemId) ?? 0) + units);
    }
  }

  /**
   * Gives what is free to the orders that wait, and takes it from `free`. The site's figures are locked, and whoever makes an order
   * wait or not changes them too: its own rows need no lock.
   */
  private async grant(tx: Tx, siteId: number, free: Map<number, number>): Promise<void> {
    const items = [...free.keys()];
    const lines = await rows<LineRow>(
      tx,
      `SELECT l.id, l.item_id, l.units - ${promisedSql('l')} AS lacks, o.id AS order_id, o.priority, o.promised_at, o.placed_at, o.whole_only AS whole,
         (o.whole_only = 1 AND EXISTS (SELECT 1 FROM sales_order_line z WHERE z.order_id = o.id AND z.item_id IS NULL)) AS blocked
       FROM sales_order_line l JOIN sales_order o ON o.id = l.order_id
       WHERE l.item_id IN (${marks(items)}) AND o.site_id = ? AND o.state IN ${LIVE} AND ${promisedSql('l')} < l.units ORDER BY o.id, l.line`,
      [...items, siteId],
    );
    const waiting = new Map<number, WaitingOrder>();
    for (const l of lines) {
      if (num(l.blocked) === 1) continue;
      const order = waiting.get(l.order_id) ?? {
        orderId: l.order_id,
        priority: l.priority,
        promised: l.promised_at.toISOString(),
        placed: l.placed_at.toISOString(),
        wholeOnly: num(l.whole) === 1,
        lines: [],
      };
      order.lines.push({ lineId: l.id, itemId: l.item_id, short: num(l.lacks) });
      waiting.set(l.order_id, order);
    }
    const grants = reserve([...waiting.values()], free);
    await this.reservations.holdAll(tx, siteId, grants);
    for (const { itemId, units } of grants) free.set(itemId, (free.get(itemId) ?? 0) - units);
  }

  /**
   * Frees promises that nothing stands behind, last promised first, never those that a round already goes for. Returns the
   * units freed.
   */
  private async takeBack(tx: Tx, siteId: number, itemId: number, units: number): Promise<number> {
    // A round may take hold of them at this moment, so that their rows are locked; their orders are not, which are documents.
    await rows(tx, 'SELECT units FROM reservation WHERE item_id = ? AND site_id = ? AND place_id IS NULL ORDER BY id FOR UPDATE', [
      itemId,
      siteId,
    ]);
    const held = await rows<{ lineId: number; spare: number }>(
      tx,
      `SELECT v.order_line_id AS lineId, v.units AS spare FROM reservation v JOIN sales_order_line l ON l.id = v.order_line_id JOIN sales_order o ON o.id = l.order_id
       WHERE v.item_id = ? AND v.site_id = ? AND v.place_id IS NULL AND o.state IN ${LIVE} ORDER BY o.priority, o.promised_at DESC, o.id DESC`,
      [itemId, siteId],
    );
    let freed = 0;
    for (const { lineId, spare } of held) {
      const part = Math.min(spare, units - freed);
      if (part <= 0) break;
      await this.reservations.free(tx, { lineId, itemId, siteId }, null, part);
      freed += part;
    }
    return freed;
  }
}
