import { ordersIn } from '@vectrum/core/orders';
import { Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';
import { addDays, daySpan, dayIn, num, promisedSql, rows, sqlList } from '../platform/index.js';
import { SettingsService } from '../settings/index.js';

const LIVE = sqlList(ordersIn('live'));
const DAY_MS = 86_400_000;
/** What is to come on a day is counted on from the middle of it, and what is to come today not before two hours from now. */
const HALF_DAY_MS = DAY_MS / 2;
const SOON_MS = 2 * 3_600_000;
/** So many of the last transfers between two sites say how long one takes; fewer than three say nothing. */
const LAST_TRIPS = 10;
const LEAST_TRIPS = 3;

/** Goods that are to come to a site: with a purchase order, or from another site. */
export interface Coming {
  siteId: number;
  itemId: number;
  units: number;
  kind: 'order' | 'transfer';
  document: string;
  /** The supplier, or the other site. */
  who: string;
  /** The day for which they are expected; null where nobody has said. */
  on: string | null;
  /** The instant from which they are counted on, in milliseconds. */
  at: number;
  /** The sales order that they come for, and nobody else; null where they are whoever's is next. */
  forOrderId: number | null;
}
/** Goods that are still to go from a site, and are held for nobody yet. */
export interface Going {
  siteId: number;
  itemId: number;
  units: number;
  document: string;
  who: string;
  due: Date;
  placed: Date;
  priority: number;
  /** The sales order that wants them; null where a transfer or an assembly does. */
  orderId: number | null;
}

/** What may be counted on at sites: what is free, what is to come, and what is still to go. */
@Injectable()
export class ComingQueries {
  constructor(
    private readonly source: DataSource,
    private readonly settings: SettingsService,
  ) {}

  /**
   * All that is known to come of some items to some sites. What was asked of another site counts as far as goods are held for it
   * there. What should have been here is not: it is counted on for tomorrow.
   */
  async comingTo(sites: readonly { id: number; timeZone: string }[], items: readonly number[], now: number): Promise<Coming[]> {
    const [ids, goods] = [
      [0, ...sites.map((s) => s.id)],
      [0, ...items],
    ];
    const orders = await rows<Omit<Coming, 'at' | 'kind'> & { units: string }>(
      this.source,
      `SELECT l.item_id AS itemId, o.site_id AS siteId, o.code AS document, s.name AS who, o.expected_on AS \`on\`, SUM(l.open_units) AS units
       FROM purchase_order_line l JOIN purchase_order o ON o.id = l.order_id JOIN supplier s ON s.id = o.supplier_id
       WHERE l.item_id IN (?) AND o.site_id IN (?) AND o.state IN ('placed','part-received') AND l.open_units > 0 GROUP BY o.id, l.item_id`,
      [goods, ids],
    );
    const transfers = await rows<Omit<Coming, 'at' | 'kind'> & { units: string; fromSiteId: number; begun: Date }>(
      this.source,
      `SELECT x.itemId, t.to_site_id AS siteId, t.from_site_id AS fromSiteId, t.code AS document, t.order_id AS forOrderId, f.name AS who, t.expected_on AS \`on\`, COALESCE(t.sent_at, t.made_at) AS begun, SUM(x.units) AS units
       FROM (SELECT g.transfer_id, g.item_id AS itemId, g.units - g.received_units - g.lost_units AS units FROM transfer_goods g WHERE g.item_id IN (?)
             UNION ALL SELECT l.transfer_id, l.item_id, l.gathered_units + COALESCE((SELECT e.units FROM earmark e JOIN transfer q ON q.code = e.document WHERE q.id = l.transfer_id AND e.line_id = l.id), 0)
               FROM transfer_line l JOIN transfer w ON w.id = l.transfer_id AND w.state IN ('requested','gathering') WHERE l.item_id IN (?)) x
         JOIN transfer t ON t.id = x.transfer_id AND t.to_site_id IN (?) AND t.state IN ('requested','gathering','on-the-road','arriving') JOIN site f ON f.id = t.from_site_id
       GROUP BY t.id, x.itemId HAVING units > 0`,
      [goods, goods, ids],
    );
    const road = transfers.length > 0 ? await this.roadDays(ids) : null;
    const zoneOf = (siteId: number) => sites.find((s) => s.id === siteId)?.timeZone ?? 'UTC';
    const instant = (siteId: number, on: string) => {
      const today = dayIn(zoneOf(siteId), new Date(now));
      const day = on < today ? addDays(today, 1) : on;
      return Math.max(daySpan(zoneOf(siteId), day).from.getTime() + HALF_DAY_MS, now + SOON_MS);
    };
    return [
      ...orders.flatMap((o): Coming[] =>
        o.on === null ? [] : [{ ...o, kind: 'order', forOrderId: null, units: num(o.units), at: instant(o.siteId, o.on) }],
      ),
      ...transfers.map(({ fromSiteId, begun, ...t }): Coming => {
        const on = t.on ?? dayIn(zoneOf(t.siteId), new Date(begun.getTime() + (road?.(fromSiteId, t.siteId) ?? 0) * DAY_MS));
        return { ...t, on, kind: 'transfer', units: num(t.units), at: instant(t.siteId, on) };
      }),
    ];
  }

  /** All that is promised of some items at some sites and held by nobody yet: to customers when it is due, within the house at once. */
  async goingFrom(siteIds: readonly number[], items: readonly number[], now: number): Promise<Going[]> {
    const params = [
      [0, ...items],
      [0, ...siteIds],
    ];
    const orders = await rows<Going & { units: string }>(
      this.source,
      `SELECT o.id AS orderId, o.site_id AS siteId, l.item_id AS itemId, o.code AS document, o.customer AS who, o.promised_at AS due, o.placed_at AS placed, o.priority, SUM(l.units - ${promisedSql('l')}) AS units
       FROM sales_order_line l JOIN sales_order o ON o.id = l.order_id WHERE l.item_id IN (?) AND o.site_id IN (?) AND o.state IN ${LIVE} AND ${promisedSql('l')} < l.units GROUP BY o.id, l.item_id`,
      params,
    );
    const within = await rows<Pick<Going, 'siteId' | 'itemId' | 'document'> & { units: string }>(
      this.source,
      `SELECT site_id AS siteId, item_id AS itemId, document, SUM(wanted_units - units) AS units FROM earmark WHERE item_id IN (?) AND site_id IN (?) AND wanted_units > units GROUP BY document, site_id, item_id`,
      params,
    );
    const at = new Date(now);
    return [
      ...orders.map((o) => ({ ...o, units: num(o.units) })),
      ...within.map((w): Going => ({
        ...w,
        units: num(w.units),
        who: 'within the house',
        due: at,
        placed: at,
        priority: 0,
        orderId: null,
      })),
    ];
  }

  /** What is free at sites by now: what others hold is not there to be promised, and what lacks is counted when it is due. */
  async freeAt(siteIds: readonly number[], items: readonly number[]) {
    const found = await rows<{ siteId: number; itemId: number; units: string | number }>(
      this.source,
      'SELECT site_id AS siteId, item_id AS itemId, CAST(on_hand AS SIGNED) - held - reserved AS units FROM site_stock WHERE site_id IN (?) AND item_id IN (?)',
      [
        [0, ...siteIds],
        [0, ...items],
      ],
    );
    const free = new Map(found.map((f) => [`${f.siteId}/${f.itemId}`, num(f.units)]));
    return (siteId: number, itemId: number): number => free.get(`${siteId}/${itemId}`) ?? 0;
  }

  /** How many days goods take from one site to another, by the last that went; as the company says where too few did. */
  async roadDays(siteIds: readonly number[]): Promise<(from: number, to: number) => number> {
    const trips = await rows<{ fromId: number; toId: number; n: string; days: string }>(
      this.source,
      `SELECT x.fromId, x.toId, COUNT(*) AS n, AVG(x.days) AS days FROM
         (SELECT from_site_id AS fromId, to_site_id AS toId, TIMESTAMPDIFF(SECOND, made_at, received_at) / 86400 AS days, ROW_NUMBER() OVER (PARTITION BY from_site_id, to_site_id ORDER BY id DESC) AS nth
          FROM transfer WHERE state = 'received' AND received_at IS NOT NULL AND to_site_id IN (?)) x WHERE x.nth <= ${LAST_TRIPS} GROUP BY x.fromId, x.toId`,
      [siteIds],
    );
    const usual = await this.settings.get(this.source, 'transferDays');
    const known = new Map(trips.filter((t) => num(t.n) >= LEAST_TRIPS).map((t) => [`${t.fromId}/${t.toId}`, num(t.days)]));
    return (from, to) => Math.ceil(known.get(`${from}/${to}`) ?? usual);
  }
}
