import {
  promisedFor,
  projectionOf,
  type Projection,
  promisableAt,
  type SendingSite,
  type SiteCalendar,
  type Way,
  waysToSend,
} from '@vectrum/core/promise';
import { ordersIn } from '@vectrum/core/orders';
import { Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';
import { CalendarQueries } from '../company/index.js';
import { addDays, dayIn, daySpan, notFound, num, one, promisedSql, rows, sqlList } from '../platform/index.js';
import type { OrderWayDto } from './ways.dto.js';

const LIVE = sqlList(ordersIn('live'));
/** What is to come on a day is counted on from the middle of it, and what is to come today not before two hours from now. */
const HALF_DAY_MS = 12 * 3_600_000;
const SOON_MS = 2 * 3_600_000;

interface Wanted {
  itemId: number;
  units: number;
}
interface Coming extends Wanted {
  siteId: number;
  order: string;
  on: string;
}
interface Going extends Wanted {
  siteId: number;
  due: Date;
}
interface Site {
  id: number;
  name: string;
  timeZone: string;
}

/** When an order that waits could go whole, by what is there, what is on order, and all that is promised to others. */
@Injectable()
export class WaysQueries {
  constructor(
    private readonly source: DataSource,
    private readonly calendars: CalendarQueries,
  ) {}

  /** The ways in which an open order could go, the soonest first; none for one that somebody has work with. */
  async ways(code: string, siteIds: readonly number[]): Promise<OrderWayDto[]> {
    const order = await one<{ id: number; siteId: number; promisedAt: Date; state: string }>(
      this.source,
      'SELECT id, site_id AS siteId, promised_at AS promisedAt, state FROM sales_order WHERE code = ? AND site_id IN (?)',
      [code, [0, ...siteIds]],
    );
    if (!order) throw notFound(`Order ${code}`);
    const wanted = ordersIn('promisable').some((s) => s === order.state) ? await this.wanted(order.id) : [];
    if (wanted.length === 0) return [];
    const now = Date.now();
    const sites = await this.sites(order.siteId, siteIds);
    const items = [...new Set(wanted.map((w) => w.itemId))];
    const coming = await this.coming(now, sites, items);
    const sending = await this.sending(now, order.id, sites, items, coming);
    return waysToSend(now, wanted, sending, () => null).map((way) => {
      const left = wanted.map((w) => ({ ...w }));
      return {
        kind: way.kind,
        wholeAt: new Date(way.wholeAt),
        late: way.wholeAt > order.promisedAt.getTime(),
        atOrdersSite: way.sendings.every((s) => s.siteId === order.siteId),
        sendings: way.sendings.map((s) => ({
          siteId: s.siteId,
          lines: linesOf(left, s.lines),
          site: sites.find((x) => x.id === s.siteId)?.name ?? '',
          leavesAt: new Date(s.leavesAt),
          pieces: s.lines.reduce((n, l) => n + l.units, 0),
        })),
        waitsFor: waitsFor(now, way, sending, coming),
      };
    });
  }

  /** What must still go, without the trifles that never hold an order up. */
  private async wanted(orderId: number): Promise<(Wanted & { line: number })[]> {
    const found = await rows<{ line: number; itemId: number; units: string | number }>(
      this.source,
      `SELECT l.line, l.item_id AS itemId, l.units - l.shipped_units AS units FROM sales_order_line l JOIN item i ON i.id = l.item_id
       WHERE l.order_id = ? AND l.units > l.shipped_units AND i.never_holds_up = 0 ORDER BY l.line`,
      [orderId],
    );
    return found.map((l) => ({ line: l.line, itemId: l.itemId, units: num(l.units) }));
  }

  /** The order's own site first. */
  private sites(own: number, siteIds: readonly number[]): Promise<Site[]> {
    return rows<Site>(this.source, 'SELECT id, name, time_zone AS timeZone FROM site WHERE id IN (?) ORDER BY id = ? DESC, id', [
      [0, ...siteIds],
      own,
    ]);
  }

  private async coming(now: number, sites: readonly Site[], items: readonly number[]): Promise<(Coming & { at: number })[]> {
    const found = await rows<Omit<Coming, 'units'> & { units: string }>(
      this.source,
      `SELECT l.item_id AS itemId, o.site_id AS siteId, o.code AS \`order\`, o.expected_on AS \`on\`, SUM(l.open_units) AS units FROM purchase_order_line l JOIN purchase_order o ON o.id = l.order_id
       WHERE l.item_id IN (?) AND o.site_id IN (?) AND o.state IN ('placed','part-received') AND l.open_units > 0 AND o.expected_on IS NOT NULL GROUP BY o.id, l.item_id`,
      [items, sites.map((s) => s.id)],
    );
    return found.map((c) => {
      const zone = sites.find((s) => s.id === c.siteId)?.timeZone ?? 'UTC';
      const today = dayIn(zone, new Date());
      // What should have been here is not: it is counted on for tomorrow, not for now.
      const day = c.on < today ? addDays(today, 1) : c.on;
      return { ...c, units: num(c.units), at: Math.max(daySpan(zone, day).from.getTime() + HALF_DAY_MS, now + SOON_MS) };
    });
  }

  private async sending(
    now: number,
    orderId: number,
    sites: readonly Site[],
    items: readonly number[],
    coming: readonly (Coming & { at: number })[],
  ): Promise<SendingSite[]> {
    const ids = sites.map((s) => s.id);
    const stock = await rows<{ itemId: number; siteId: number; units: string | number }>(
      this.source,
      'SELECT site_id AS siteId, item_id AS itemId, CAST(on_hand AS SIGNED) - held - reserved AS units FROM site_stock WHERE site_id IN (?) AND item_id IN (?)',
      [ids, items],
    );
    // What others hold is no longer there to be promised, and what the order holds is its own; the rest waits in turn.
    const own = await rows<{ itemId: number; siteId: number; units: string }>(
      this.source,
      'SELECT v.item_id AS itemId, v.site_id AS siteId, SUM(v.units) AS units FROM reservation v JOIN sales_order_line l ON l.id = v.order_line_id WHERE l.order_id = ? GROUP BY v.item_id, v.site_id',
      [orderId],
    );
    const going = await rows<Omit<Going, 'units'> & { units: string }>(
      this.source,
      `SELECT o.site_id AS siteId, l.item_id AS itemId, o.promised_at AS due, SUM(l.units - ${promisedSql('l')}) AS units FROM sales_order_line l JOIN sales_order o ON o.id = l.order_id
       WHERE l.item_id IN (?) AND o.site_id IN (?) AND o.state IN ${LIVE} AND o.id <> ? AND ${promisedSql('l')} < l.units GROUP BY o.site_id, l.item_id, o.promised_at`,
      [items, ids, orderId],
    );
    return Promise.all(
      sites.map(async (site) => {
        const calendar = await this.calendars.of(this.source, site.id);
        const at = <T extends { siteId: number; itemId: number }>(list: readonly T[], itemId: number) =>
          list.filter((x) => x.siteId === site.id && x.itemId === itemId);
        const projection = (itemId: number): Projection => {
          const held = num(at(own, itemId)[0]?.units);
          const { steps } = projectionOf(
            now,
            num(at(stock, itemId)[0]?.units),
            at(coming, itemId),
            at(going, itemId).map((g) => ({ at: g.due.getTime(), units: num(g.units) })),
          );
          return { steps: steps.map((step) => ({ at: step.at, units: Math.max(0, step.units) + held })) };
        };
        return {
          id: site.id,
          projections: new Map(items.map((itemId) => [itemId, projection(itemId)])),
          workMs: 0,
          // A van's closing time has the work of picking and packing in it.
          leavesAfter: (ready: number) => vanAfter(ready, calendar),
        };
      }),
    );
  }
}

/** Which lines the goods of a van are for: first those that stand first. What is given is taken from `left`. */
function linesOf(left: (Wanted & { line: number })[], goods: readonly Wanted[]): { line: number; units: number }[] {
  const lines: { line: number; units: number }[] = [];
  for (const { itemId, units } of goods) {
    let need = units;
    for (const w of left.filter((x) => x.itemId === itemId)) {
      const part = Math.min(need, w.units);
      if (part > 0) lines.push({ line: w.line, units: part });
      w.units -= part;
      need -= part;
    }
  }
  return lines;
}

/** The first van that goods are in time for; null where the site's calendar has none. */
function vanAfter(ready: number, calendar: SiteCalendar): number | null {
  try {
    return promisedFor(new Date(ready), calendar).getTime();
  } catch (thrown) {
    if (thrown instanceof RangeError) return null;
    throw thrown;
  }
}

/** The purchase orders without which a way could not be gone: of what is not free now, those that come in time for it. */
function waitsFor(now: number, way: Way, sites: readonly SendingSite[], coming: readonly (Coming & { at: number })[]): string[] {
  const orders = way.sendings.flatMap((s) => {
    const site = sites.find((x) => x.id === s.siteId);
    return s.lines
      .filter((l) => promisableAt(site?.projections.get(l.itemId) ?? { steps: [] }, now) < l.units)
      .flatMap((l) => coming.filter((c) => c.siteId === s.siteId && c.itemId === l.itemId && c.at <= s.leavesAt));
  });
  return [...new Set([...orders].sort((a, b) => a.at - b.at).map((c) => c.order))];
}
