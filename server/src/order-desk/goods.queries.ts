import { Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';
import { notFound, num, one, rows } from '../platform/index.js';
import type { GoodsFactsDto, GoodsPriceDto } from './order-desk.dto.js';

/** How many of a kit the parts at each site allow. */
const KIT_FREE = `SELECT s.id AS siteId, s.name AS site, COALESCE(MIN(FLOOR(GREATEST(0, CAST(COALESCE(t.on_hand, 0) AS SIGNED) - COALESCE(t.held, 0) - COALESCE(t.reserved, 0)) / p.units)), 0) AS free
  FROM site s JOIN item_part p ON p.item_id = ? LEFT JOIN site_stock t ON t.site_id = s.id AND t.item_id = p.part_item_id WHERE s.id IN (?) GROUP BY s.id ORDER BY s.id`;

/** What somebody who keys an order must know of goods: what is free here and elsewhere, when more comes, what they cost this customer. */
@Injectable()
export class GoodsQueries {
  constructor(private readonly source: DataSource) {}

  async facts(
    sku: string,
    asked: { siteId: number; account: string; channel: string },
    siteIds: readonly number[],
  ): Promise<GoodsFactsDto> {
    const item = await one<{ id: number; sku: string; name: string; picture: string; kind: string }>(
      this.source,
      'SELECT id, sku, name, picture, kind FROM item WHERE sku = ?',
      [sku],
    );
    if (!item) throw notFound(`Item ${sku}`);
    const [packs, stock, coming, prices] = await Promise.all([
      rows<{ factor: number; name: string; plural: string }>(
        this.source,
        'SELECT factor, name, plural FROM pack_unit WHERE item_id = ? ORDER BY factor',
        [item.id],
      ),
      rows<{ siteId: number; site: string; free: string | number }>(
        this.source,
        item.kind === 'kit'
          ? KIT_FREE
          : 'SELECT s.id AS siteId, s.name AS site, COALESCE(CAST(t.on_hand AS SIGNED) - t.held - t.reserved, 0) AS free FROM site s LEFT JOIN site_stock t ON t.site_id = s.id AND t.item_id = ? WHERE s.id IN (?) ORDER BY s.id',
        [item.id, [0, ...siteIds]],
      ),
      one<{ on: string | null; units: string | null }>(
        this.source,
        `SELECT o.expected_on AS \`on\`, SUM(l.open_units) AS units FROM purchase_order_line l JOIN purchase_order o ON o.id = l.order_id
         WHERE l.item_id = ? AND o.site_id = ? AND o.state IN ('placed','part-received') AND l.open_units > 0 AND o.expected_on IS NOT NULL GROUP BY o.expected_on ORDER BY o.expected_on LIMIT 1`,
        [item.id, siteIds.includes(asked.siteId) ? asked.siteId : 0],
      ),
      this.prices(item.id, asked),
    ]);
    return {
      sku: item.sku,
      name: item.name,
      picture: item.picture,
      packs,
      free: num(stock.find((s) => s.siteId === asked.siteId)?.free),
      elsewhere: stock.filter((s) => s.siteId !== asked.siteId && num(s.free) > 0).map((s) => ({ site: s.site, free: num(s.free) })),
      moreOn: coming?.on ?? null,
      more: coming ? num(coming.units) : null,
      prices,
    };
  }

  /** The customer's own prices come first, then what they paid the last time, then what the channel asks. */
  private async prices(itemId: number, { account, channel }: { account: string; channel: string }): Promise<GoodsPriceDto[]> {
    const own = await rows<{ factor: number; price: string }>(
      this.source,
      'SELECT p.factor, p.price FROM customer_price p JOIN customer c ON c.id = p.customer_id WHERE c.code = ? AND p.item_id = ? ORDER BY p.factor',
      [account, itemId],
    );
    const last = await rows<{ factor: number; price: string }>(
      this.source,
      'SELECT l.factor, l.price FROM sales_order o JOIN customer c ON c.id = o.customer_id JOIN sales_order_line l ON l.order_id = o.id WHERE c.code = ? AND l.item_id = ? AND l.quantity > 0 ORDER BY o.id DESC LIMIT 1',
      [account, itemId],
    );
    const asks = await rows<{ factor: number; price: string }>(
      this.source,
      'SELECT l.factor, l.price FROM listing l JOIN channel c ON c.id = l.channel_id WHERE l.item_id = ? ORDER BY c.code = ? DESC, l.factor, l.id LIMIT 3',
      [itemId, channel],
    );
    return [
      ...own.map((p) => ({ ...p, from: 'own' as const })),
      ...last.map((p) => ({ ...p, from: 'last' as const })),
      ...asks.map((p) => ({ ...p, from: 'channel' as const })),
    ];
  }
}
