import { Injectable } from '@nestjs/common';
import type { BinStock } from '@vectrum/core/allocation';
import { kindsFor } from '@vectrum/core/places';
import { type PutawayBin, type PutawayGoods, roomFor, suggestAll } from '@vectrum/core/putaway';
import { type Refill, refillsOf, type Wanting } from '@vectrum/core/refill';
import type { RefillGoods, RefillTask } from '@vectrum/core/scan';
import type { PlanPoint } from '@vectrum/core/walk';
import { spareSql } from '../allocation/index.js';
import { CalendarQueries } from '../company/index.js';
import { pickable, WaitingQueries } from '../picking/index.js';
import { marks, num, rows, sqlList, type Tx } from '../platform/index.js';
import { SettingsService } from '../settings/index.js';
import { FloorQueries } from '../sites/index.js';
import { BinsQueries } from './bins.queries.js';
import { walkPast } from './walk-past.js';

/** Goods to bring that are listed at once, the most urgent first; those behind them follow as these are brought. */
const MOST_GOODS = 100;
const SHELVES = sqlList(kindsFor('shelf'));
const DEMAND_DAYS = 28;
const DEMAND_KEPT_MS = 600_000;

interface ItemRow {
  id: number;
  rotation: 'fifo' | 'fefo';
  storage: PutawayGoods['storage'];
  homeId: number | null;
  /** Whether pickers go to its home. */
  isOpen: number | null;
  below: number | null;
  upTo: number | null;
  packs: string;
  unitMl: string | null;
  unitG: number | null;
}
type Lying = BinStock & { itemId: number; lot: string | null; code: string; x: string | null; y: string | null };
type Brought = Refill & { item: ItemRow; lying: Lying };

/** What lies in reserve and is wanted where pickers go, raised by what waits and by pick faces that run low; worked out anew each time. */
@Injectable()
export class RefillQueries {
  constructor(
    private readonly waiting: WaitingQueries,
    private readonly calendars: CalendarQueries,
    private readonly bins: BinsQueries,
    private readonly floors: FloorQueries,
    private readonly settings: SettingsService,
  ) {}

  /** What was asked for at each site, reckoned again now and then: a day more or less changes little. */
  private readonly demand = new Map<number, { at: number; days: number; units: ReadonlyMap<number, number> }>();

  async task(tx: Tx, siteId: number): Promise<RefillTask> {
    const wants = await this.wants(tx, siteId);
    const asked = await this.asked(tx, siteId);
    const found = await this.items(tx, siteId, [...new Set([...wants.keys(), ...(await this.low(tx, siteId)), ...asked.keys()])]);
    const items = found.map((i) => withDemand(i, asked.get(i.id) ?? 0));
    const lying = await this.reserve(tx, siteId, items);
    const inReserve = items.filter((i) => lying.some((l) => l.itemId === i.id));
    if (inReserve.length === 0) return { siteId, goods: [], metres: 0, more: 0 };
    const bins = await this.bins.around(
      tx,
      siteId,
      inReserve.map((i) => ({ itemId: i.id, homeId: i.homeId })),
      'picked',
    );
    const brought = await this.brought(tx, siteId, inReserve, lying, bins, wants);
    const goods = await this.placed(tx, siteId, brought.slice(0, MOST_GOODS), bins);
    return { siteId, ...(await this.walked(tx, siteId, goods)), more: Math.max(0, brought.length - MOST_GOODS) };
  }

  /** What waits to be sent to picking, by item, in the order in which orders are served. */
  private async wants(tx: Tx, siteId: number): Promise<Map<number, Wanting[]>> {
    const orders = await this.waiting.orders(tx, siteId, null);
    const board = (await this.calendars.boards([siteId])).get(siteId);
    const leaving = new Map(
      orders.map((o) => [o.id, { order: o.code, leavesAt: (board?.toCatch(o.promisedAt) ?? o.promisedAt).toISOString() }]),
    );
    const lines = await this.waiting.lines(tx, siteId, [...leaving.keys()]);
    const wants = new Map<number, Wanting[]>();
    for (const { orderId, itemId, units } of lines) {
      const order = leaving.get(orderId);
      if (order) wants.set(itemId, [...(wants.get(itemId) ?? []), { ...order, units }]);
    }
    return wants;
  }

  /** Items whose pick face may run low: more than what they are refilled below would be left only if nothing were held for orders. */
  private async low(tx: Tx, siteId: number): Promise<number[]> {
    const found = await rows<{ id: number }>(
      tx,
      `SELECT x.item_id AS id FROM item_site x JOIN place h ON h.id = x.home_place_id AND h.pickable = 1 AND h.blocked = 0 JOIN site_stock s ON s.item_id = x.item_id AND s.site_id = x.site_id
       WHERE x.site_id = ? AND x.refill_below IS NOT NULL AND s.on_hand > 0
         AND (SELECT COALESCE(SUM(b.units), 0) FROM balance b JOIN place p ON p.id = b.place_id AND p.site_id = ? AND p.pickable = 1 AND p.blocked = 0
              WHERE b.item_id = x.item_id AND b.stock_condition = 'good' AND b.bounded = 1 AND b.units > 0) < x.refill_below + s.reserved`,
      [siteId, siteId],
    );
    return found.map((f) => f.id);
  }

  /** What orders of the last weeks wanted of goods with a pick face that say no level of their own: for as many days as a face is to last. */
  private async asked(tx: Tx, siteId: number): Promise<ReadonlyMap<number, number>> {
    const days = await this.settings.get(tx, 'refillDays');
    if (days === 0) return new Map();
    const known = this.demand.get(siteId);
    if (known && known.days === days && Date.now() - known.at < DEMAND_KEPT_MS) return known.units;
    const found = await rows<{ id: number; units: string }>(
      tx,
      `SELECT l.item_id AS id, SUM(l.units) AS units FROM sales_order o JOIN sales_order_line l ON l.order_id = o.id
         JOIN item_site x ON x.item_id = l.item_id AND x.site_id = o.site_id AND x.home_place_id IS NOT NULL AND x.refill_below IS NULL
       WHERE o.site_id = ? AND o.placed_at >= UTC_TIMESTAMP() - INTERVAL ${DEMAND_DAYS} DAY AND o.state NOT IN ('quote','cancelled') GROUP BY l.item_id`,
      [siteId],
    );
    const units = new Map(found.map((f) => [f.id, Math.ceil((num(f.units) / DEMAND_DAYS) * days)]));
    this.demand.set(siteId, { at: Date.now(), days, units });
    return units;
  }

  private items(tx: Tx, siteId: number, ids: readonly number[]): Promise<ItemRow[]> {
    return rows<ItemRow>(
      tx,
      `SELECT i.id, i.rotation, i.storage, x.home_place_id AS homeId, h.pickable = 1 AND h.blocked = 0 AS isOpen, IF(h.pickable = 1 AND h.blocked = 0, x.refill_below, NULL) AS below, x.refill_up_to AS upTo,
         (SELECT GROUP_CONCAT(k.factor) FROM pack_unit k WHERE k.item_id = i.id) AS packs, u.length_mm * u.width_mm * u.height_mm / 1000 AS unitMl, u.weight_g AS unitG
       FROM item i JOIN pack_unit u ON u.item_id = i.id AND u.factor = 1 LEFT JOIN item_site x ON x.item_id = i.id AND x.site_id = ? LEFT JOIN place h ON h.id = x.home_place_id
       WHERE i.id IN (${marks(ids)}) ORDER BY i.id`,
      [siteId, ...ids],
    );
  }

  /** What lies on shelves where no picker goes, held for nobody there. */
  private async reserve(tx: Tx, siteId: number, items: readonly ItemRow[]): Promise<Lying[]> {
    const found = await rows<Lying>(
      tx,
      `SELECT b.item_id AS itemId, b.lot_id AS lotId, l.code AS lot, l.expires_on AS expires, l.first_received_on AS received, p.id AS placeId, p.code, p.walk_order AS walkOrder, p.x_m AS x, p.y_m AS y, ${spareSql('b')} AS units
       FROM balance b JOIN place p ON p.id = b.place_id LEFT JOIN lot l ON l.id = b.lot_id
       WHERE b.item_id IN (${marks(items)}) AND b.stock_condition = 'good' AND b.bounded = 1 AND b.units > 0 AND p.site_id = ? AND p.kind IN ${SHELVES} AND p.pickable = 0 AND p.blocked = 0 ORDER BY b.item_id, p.walk_order`,
      [...items.map((i) => i.id), siteId],
    );
    return found.map((l) => ({ ...l, units: num(l.units) })).filter((l) => l.units > 0);
  }

  /** What stands at docks and on carts, by item. */
  private async coming(tx: Tx, siteId: number, items: readonly ItemRow[]): Promise<Map<number, number>> {
    const found = await rows<{ itemId: number; units: string }>(
      tx,
      `SELECT b.item_id AS itemId, SUM(b.units) AS units FROM balance b JOIN place p ON p.id = b.place_id
       WHERE b.item_id IN (${marks(items)}) AND b.stock_condition = 'good' AND b.units > 0 AND p.site_id = ? AND p.kind IN ${sqlList(kindsFor('wait'))} GROUP BY b.item_id`,
      [...items.map((i) => i.id), siteId],
    );
    return new Map(found.map((f) => [f.itemId, num(f.units)]));
  }

  /** All that has to be brought, what holds up the soonest departure first. */
  private async brought(
    tx: Tx,
    siteId: number,
    items: readonly ItemRow[],
    lying: readonly Lying[],
    bins: readonly PutawayBin[],
    wants: ReadonlyMap<number, Wanting[]>,
  ): Promise<Brought[]> {
    const free = await pickable(
      tx,
      siteId,
      items.map((i) => i.id),
      'seen',
    );
    const coming = await this.coming(tx, siteId, items);
    const found = items.flatMap((item) => {
      const reserve = lying.filter((l) => l.itemId === item.id);
      const home = bins.find((b) => b.id === item.homeId);
      const refills = refillsOf({
        rotation: item.rotation,
        packs: item.packs.split(',').map(Number),
        free: (free.get(item.id) ?? []).reduce((sum, b) => sum + Math.max(0, b.units), 0),
        coming: coming.get(item.id) ?? 0,
        reserve,
        wants: wants.get(item.id) ?? [],
        below: item.below,
        upTo: item.upTo,
        room: home ? roomFor(sizeOf(item), home) : 0,
      });
      return refills.flatMap((r) =>
        reserve.filter((l) => l.placeId === r.placeId && l.lotId === r.lotId).map((l) => ({ ...r, item, lying: l })),
      );
    });
    const last = (r: Brought) => r.leavesAt ?? '9999';
    return found.sort(
      (a, b) => last(a).localeCompare(last(b)) || b.orders.length - a.orders.length || a.lying.walkOrder - b.lying.walkOrder,
    );
  }

  /** Where they go: the pick face, where more of them lies, the nearest empty bin that is open to picking. */
  private async placed(
    tx: Tx,
    siteId: number,
    brought: readonly Brought[],
    bins: readonly PutawayBin[],
  ): Promise<(RefillGoods & { at: PlanPoint | null })[]> {
    const suggestions = suggestAll(
      brought.map((r) => ({
        itemId: r.item.id,
        lotId: r.lotId,
        units: r.units,
        storage: r.item.storage,
        homeId: r.item.homeId,
        ...sizeOf(r.item),
      })),
      bins,
      await this.floors.start(tx, siteId),
    );
    return brought.map((r, i) => {
      const [first, ...then] = suggestions[i] ?? [];
      const { x, y } = r.lying;
      return {
        itemId: r.item.id,
        lotId: r.lotId,
        lot: r.lying.lot,
        units: r.units,
        there: r.lying.units,
        fromPlaceId: r.placeId,
        fromCode: r.lying.code,
        suggestion: first ? { code: first.code, reason: first.reason, units: first.units } : null,
        then: then.map(({ code, units }) => ({ code, units })),
        orders: r.orders.length,
        leavesAt: r.leavesAt,
        at: x === null || y === null ? null : { x: num(x), y: num(y) },
      };
    });
  }

  /** Goods for one departure are walked together, the soonest departure first. */
  private async walked(
    tx: Tx,
    siteId: number,
    goods: readonly (RefillGoods & { at: PlanPoint | null })[],
  ): Promise<{ goods: RefillGoods[]; metres: number }> {
    const floor = await this.floors.floor(tx, siteId);
    const start = await this.floors.start(tx, siteId);
    const walks = [...new Set(goods.map((g) => g.leavesAt))].map((at) =>
      walkPast(
        floor,
        goods.filter((g) => g.leavesAt === at),
        start,
      ),
    );
    return { goods: walks.flatMap((w) => w.goods), metres: walks.reduce((sum, w) => sum + w.metres, 0) };
  }
}

const sizeOf = (item: ItemRow): Pick<PutawayGoods, 'unitMl' | 'unitG'> => ({
  unitMl: item.unitMl === null ? null : num(item.unitMl),
  unitG: item.unitG,
});

/** Goods that say no level of their own are refilled below what is asked of them in some days, up to twice as much. */
const withDemand = (item: ItemRow, units: number): ItemRow =>
  item.below === null && units > 0 && num(item.isOpen) === 1 ? { ...item, below: units, upTo: units * 2 } : item;
