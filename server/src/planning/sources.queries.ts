import { Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';
import { num, rows } from '../platform/index.js';

/** From whom an item can be bought, in which pack and for how much. */
export interface Source {
  itemId: number;
  supplierId: number;
  /** Units in the pack that the price is for. */
  factor: number;
  pack: string;
  packPlural: string;
  /** Of a pack, in the supplier's currency. */
  price: string;
  /** Of a base unit. */
  priceEach: number;
  currency: string;
  /** The days on which the supplier takes orders, from Monday on. */
  orderDays: string;
  breaks: { from: number; price: number }[];
}

/** Suppliers of items with their prices: the one that was ordered from last first, then the cheapest. */
@Injectable()
export class SourcesQueries {
  constructor(private readonly source: DataSource) {}

  async of(itemIds: readonly number[]): Promise<Map<number, Source[]>> {
    const ids = [0, ...itemIds];
    const found = await rows<Omit<Source, 'priceEach' | 'breaks'> & { last: number | null }>(
      this.source,
      `SELECT si.item_id AS itemId, si.supplier_id AS supplierId, u.factor, u.name AS pack, u.plural AS packPlural, si.price, s.currency, s.order_days AS orderDays,
         (SELECT MAX(o.id) FROM purchase_order_line l JOIN purchase_order o ON o.id = l.order_id AND o.state <> 'cancelled' WHERE l.item_id = si.item_id AND o.supplier_id = si.supplier_id) AS last
       FROM supplier_item si JOIN supplier s ON s.id = si.supplier_id JOIN pack_unit u ON u.id = si.pack_unit_id WHERE si.item_id IN (?) ORDER BY si.item_id, last DESC, si.price / u.factor, si.supplier_id`,
      [ids],
    );
    const breaks = await rows<{ itemId: number; supplierId: number; from: number; price: string }>(
      this.source,
      'SELECT item_id AS itemId, supplier_id AS supplierId, from_packs AS `from`, price FROM supplier_price_break WHERE item_id IN (?) ORDER BY item_id, supplier_id, from_packs',
      [ids],
    );
    const all = new Map<number, Source[]>();
    for (const { last: _last, ...f } of found) {
      const steps = breaks.filter((b) => b.itemId === f.itemId && b.supplierId === f.supplierId);
      const source = {
        ...f,
        factor: num(f.factor),
        priceEach: Number(f.price) / Math.max(1, num(f.factor)),
        breaks: steps.map((b) => ({ from: num(b.from), price: Number(b.price) })),
      };
      all.set(f.itemId, [...(all.get(f.itemId) ?? []), source]);
    }
    return all;
  }
}
