import {
  promisedFor,
  projectionOf,
  type Projection,
  promisableAt,
  type SendingSite,
  type SiteCalendar,
  type Way,
  waysToSend,
  withOwn,
} from '@vectrum/core/promise';
import { decimalText, micro, type Micro } from '@vectrum/core/money';
import { ordersIn } from '@vectrum/core/orders';
import { Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';
import { CalendarQueries } from '../company/index.js';
import { notFound, num, one, rows } from '../platform/index.js';
import { type Coming, ComingQueries } from './coming.js';
import type { OrderWayDto } from './ways.dto.js';

const DAY_MS = 86_400_000;

interface Wanted {
  itemId: number;
  units: number;
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
    private readonly known: ComingQueries,
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
    const coming = await this.known.comingTo(sites, items, now);
    const sending = await this.sending(now, order.id, sites, items, coming);
    const road = await this.known.roadDays(sites.map((s) => s.id));
    const nameOf = (siteId: number) => sites.find((x) => x.id === siteId)?.name ?? '';
    // Goods are fetched to the site that the order is with.
    const found = waysToSend(now, wanted, sending, (from, to) => (to === order.siteId ? road(from, to) * DAY_MS : null));
    const costs = await this.carriage(sites);
    return found.map((way) => {
      const left = wanted.map((w) => ({ ...w }));
      return {
        kind: way.kind,
        wholeAt: new Date(way.wholeAt),
        late: way.wholeAt > order.promisedAt.getTime(),
        atOrdersSite: way.sendings.every((s) => s.siteId === order.siteId),
        sendings: way.sendings.map((s) => ({
          siteId: s.siteId,
          lines: linesOf(left, s.lines),
          site: nameOf(s.siteId),
          leavesAt: new Date(s.leavesAt),
          pieces: s.lines.reduce((n, l) => n + l.units, 0),
        })),
        fetches: way.fetches.map((f) => ({
          siteId: f.from,
          site: nameOf(f.from),
          itemId: f.itemId,
          pieces: f.units,
          at: new Date(f.freeAt),
        })),
        carriage: carriageOf(way, costs),
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

  /** What a parcel from each site has cost to send of late: the mean of the last hundred; none where none was paid for. */
  private async carriage(sites: readonly Site[]): Promise<ReadonlyMap<number, Micro>> {
    const means = new Map<number, Micro>();
    for (const { id } of sites) {
      const found = await one<{ mean: string | null }>(
        this.source,
        `SELECT AVG(x.price) AS mean FROM (SELECT p.price FROM parcel p JOIN sales_order o ON o.id = p.order_id WHERE o.site_id = ? AND p.price IS NOT NULL ORDER BY p.id DESC LIMIT 100) x`,
        [id],
      );
      if (found?.mean) means.set(id, micro(Number(found.mean).toFixed(2)));
    }
    return means;
  }

  private async sending(
    now: number,
    orderId: number,
    sites: readonly Site[],
    items: readonly number[],
    coming: readonly Coming[],
  ): Promise<SendingSite[]> {
    const ids = sites.map((s) => s.id);
    const free = await this.known.freeAt(ids, items);
    // What others hold is no longer there to be promised, and what the order holds is its own; the rest waits in turn.
    const own = await rows<{ itemId: number; siteId: number; units: string }>(
      this.source,
      'SELECT v.item_id AS itemId, v.site_id AS siteId, SUM(v.units) AS units FROM reservation v JOIN sales_order_line l ON l.id = v.order_line_id WHERE l.order_id = ? GROUP BY v.item_id, v.site_id',
      [orderId],
    );
    const going = (await this.known.goingFrom(ids, items, now)).filter((g) => g.orderId !== orderId);
    return Promise.all(
      sites.map(async (site) => {
        const calendar = await this.calendars.of(this.source, site.id);
        const at = <T extends { siteId: number; itemId: number }>(list: readonly T[], itemId: number) =>
          list.filter((x) => x.siteId === site.id && x.itemId === itemId);
        const projection = (itemId: number): Projection => {
          const come = at(coming, itemId);
          // What comes for an order is its own, and as much less of what it waits for.
          const others = at(going, itemId).map((g) => ({
            at: g.due.getTime(),
            units: Math.max(0, g.units - sum(come.filter((c) => c.forOrderId !== null && c.forOrderId === g.orderId))),
          }));
          return withOwn(
            projectionOf(
              now,
              free(site.id, itemId),
              come.filter((c) => c.forOrderId === null),
              others,
            ),
            num(at(own, itemId)[0]?.units),
            come.filter((c) => c.forOrderId === orderId),
          );
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

/** What a way costs to send, by what parcels from its sites have cost of late; null where that is not known of all. */
function carriageOf(way: Way, means: ReadonlyMap<number, Micro>): string | null {
  const each = way.sendings.map((s) => means.get(s.siteId));
  return each.some((c) => c === undefined) ? null : decimalText(each.reduce<Micro>((sum, c) => sum + (c ?? 0n), 0n));
}

/** The documents without which a way could not be gone: of what is not free now, those that come in time for it. */
function waitsFor(now: number, way: Way, sites: readonly SendingSite[], coming: readonly Coming[]): OrderWayDto['waitsFor'] {
  const awaited = way.sendings.flatMap((s) => {
    const site = sites.find((x) => x.id === s.siteId);
    return s.lines
      .filter((l) => promisableAt(site?.projections.get(l.itemId) ?? { steps: [] }, now) < l.units)
      .flatMap((l) => coming.filter((c) => c.siteId === s.siteId && c.itemId === l.itemId && c.at <= s.leavesAt));
  });
  const named = new Map([...awaited].sort((a, b) => a.at - b.at).map((c) => [c.document, { code: c.document, kind: c.kind }]));
  return [...named.values()];
}

const sum = (list: readonly { units: number }[]) => list.reduce((n, { units }) => n + units, 0);
