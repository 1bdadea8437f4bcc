import { Injectable } from '@nestjs/common';
import { type PutawayBin, type PutawayGoods, suggestAll } from '@vectrum/core/putaway';
import type { StandingGoods } from '@vectrum/core/scan';
import { kindsFor } from '@vectrum/core/places';
import { type PlanPoint, walkOn } from '@vectrum/core/walk';
import { spareSql } from '../allocation/index.js';
import { num, one, rows, sqlList, type Tx } from '../platform/index.js';
import { FloorQueries } from '../sites/index.js';

/** Empty bins looked at, nearest in walking order first; more would not be nearer. */
const MOST_EMPTY = 600;
/** Lots of goods brought into one walk; those beyond follow in the order in which they stand. */
const MOST_IN_WALK = 40;
const ON_SHELVES = `p.kind IN ${sqlList(kindsFor('shelf'))} AND p.blocked = 0`;

interface GoodsRow {
  itemId: number;
  lotId: number;
  lot: string | null;
  units: number;
  fromPlaceId: number;
  fromCode: string;
  storage: PutawayGoods['storage'];
  homeId: number | null;
  unitMl: string | null;
  unitG: number | null;
}
interface BinRow {
  id: number;
  code: string;
  kind: PutawayBin['kind'];
  rule: PutawayBin['rule'];
  x: string | null;
  y: string | null;
  holdsMl: number | null;
  holdsG: number | null;
}

/** What waits to be put away at a site, with bins for it and the walk past them. */
@Injectable()
export class PutawayQueries {
  constructor(private readonly floors: FloorQueries) {}

  async list(tx: Tx, siteId: number): Promise<{ goods: StandingGoods[]; metres: number }> {
    const found = await this.goods(tx, siteId);
    if (found.length === 0) return { goods: [], metres: 0 };
    const bins = await this.bins(tx, siteId, found);
    const suggestions = suggestAll(
      found.map((g) => ({ ...g, unitMl: g.unitMl === null ? null : num(g.unitMl) })),
      bins,
      await this.floors.start(tx, siteId),
    );
    const goods = found.map((g, i): StandingGoods & { at: PlanPoint | null } => {
      const [first, ...then] = suggestions[i] ?? [];
      return {
        itemId: g.itemId,
        lotId: g.lotId,
        lot: g.lot,
        units: g.units,
        fromPlaceId: g.fromPlaceId,
        fromCode: g.fromCode,
        suggestion: first ? { code: first.code, reason: first.reason, units: first.units } : null,
        then: then.map(({ code, units }) => ({ code, units })),
        at: bins.find((b) => b.id === first?.binId)?.at ?? null,
      };
    });
    return this.walked(tx, siteId, goods);
  }

  /** What stands at docks and on carts, and what lies in totes and parcels of orders that want it no longer. */
  private async goods(tx: Tx, siteId: number): Promise<GoodsRow[]> {
    const fields = (
      units: string,
    ) => `b.item_id AS itemId, b.lot_id AS lotId, l.code AS lot, ${units} AS units, p.id AS fromPlaceId, p.code AS fromCode, i.storage, x.home_place_id AS homeId,
         u.length_mm * u.width_mm * u.height_mm / 1000 AS unitMl, u.weight_g AS unitG`;
    const about = `JOIN item i ON i.id = b.item_id JOIN pack_unit u ON u.item_id = i.id AND u.factor = 1
         LEFT JOIN lot l ON l.id = b.lot_id LEFT JOIN item_site x ON x.item_id = i.id AND x.site_id = p.site_id`;
    const waiting = await rows<GoodsRow>(
      tx,
      `SELECT ${fields('b.units')} FROM balance b JOIN place p ON p.id = b.place_id ${about}
       WHERE p.site_id = ? AND p.kind IN ${sqlList(kindsFor('wait'))} AND b.units > 0 AND b.stock_condition = 'good' ORDER BY p.walk_order, i.name, l.code`,
      [siteId],
    );
    const spare = await rows<GoodsRow>(
      tx,
      `SELECT ${fields(spareSql('b'))} FROM (SELECT open_tote AS id FROM tote_use WHERE open_tote IS NOT NULL UNION SELECT place_id FROM parcel WHERE state IN ('open','void')) c
         JOIN place p ON p.id = c.id AND p.site_id = ? JOIN balance b ON b.place_id = p.id AND b.units > 0 AND b.stock_condition = 'good' ${about}
       HAVING units > 0 ORDER BY p.code, i.name, l.code`,
      [siteId],
    );
    return [...waiting, ...spare.map((g) => ({ ...g, units: num(g.units) }))];
  }

  /** The homes of the goods, the bins where some of them lie, and empty ones. */
  private async bins(tx: Tx, siteId: number, goods: readonly GoodsRow[]): Promise<PutawayBin[]> {
    const items = [0, ...goods.map((g) => g.itemId)];
    const homes = [0, ...goods.flatMap((g) => (g.homeId === null ? [] : [g.homeId]))];
    const found = await rows<BinRow>(
      tx,
      `SELECT p.id, p.code, p.kind, COALESCE(z.rule, 'none') AS rule, p.x_m AS x, p.y_m AS y, p.holds_ml AS holdsMl, p.holds_g AS holdsG
       FROM place p LEFT JOIN place z ON z.id = p.parent_id AND z.kind = 'zone'
       WHERE p.site_id = ? AND ${ON_SHELVES} AND (p.id IN (?) OR p.id IN (SELECT b.place_id FROM balance b WHERE b.item_id IN (?) AND b.units > 0)
         OR p.id IN (SELECT e.id FROM (SELECT p.id FROM place p WHERE p.site_id = ? AND ${ON_SHELVES} AND NOT EXISTS (SELECT 1 FROM balance b WHERE b.place_id = p.id AND b.units > 0) ORDER BY p.walk_order LIMIT ${MOST_EMPTY}) e)
         OR (z.rule <> 'none' AND NOT EXISTS (SELECT 1 FROM balance b WHERE b.place_id = p.id AND b.units > 0)))
       ORDER BY p.walk_order, p.id`,
      [siteId, homes, items, siteId],
    );
    const lying = await rows<{ placeId: number; itemId: number; lotId: number; ml: string | null; g: string | null }>(
      tx,
      `SELECT b.place_id AS placeId, b.item_id AS itemId, b.lot_id AS lotId, SUM(b.units * u.length_mm * u.width_mm * u.height_mm / 1000) AS ml, SUM(b.units * u.weight_g) AS g
       FROM balance b JOIN pack_unit u ON u.item_id = b.item_id AND u.factor = 1 WHERE b.place_id IN (?) AND b.units > 0 GROUP BY b.place_id, b.item_id, b.lot_id`,
      [[0, ...found.map((b) => b.id)]],
    );
    const at = byPlace(lying);
    return found.map(({ x, y, ...b }) => {
      const stock = at.get(b.id) ?? [];
      return {
        ...b,
        level: levelOf(b.code),
        at: x === null || y === null ? null : { x: num(x), y: num(y) },
        usedMl: stock.reduce((sum, s) => sum + num(s.ml), 0),
        usedG: stock.reduce((sum, s) => sum + num(s.g), 0),
        stock,
      };
    });
  }

  /** Brings goods into the order of a short walk past their bins, from the dock and back to it. */
  private async walked(
    tx: Tx,
    siteId: number,
    goods: readonly (StandingGoods & { at: PlanPoint | null })[],
  ): Promise<{ goods: StandingGoods[]; metres: number }> {
    const placed = goods.filter((g) => g.at !== null).slice(0, MOST_IN_WALK);
    const rest = goods.filter((g) => !placed.includes(g));
    const floor = await this.floors.floor(tx, siteId);
    const dock = await one<{ x: string | null; y: string | null }>(
      tx,
      `SELECT x_m AS x, y_m AS y FROM place WHERE site_id = ? AND kind = 'dock' ORDER BY walk_order, id LIMIT 1`,
      [siteId],
    );
    const start = { x: num(dock?.x), y: num(dock?.y) };
    const { order, metres } = walkOn(
      floor,
      placed.map((g) => g.at ?? start),
      start,
      start,
    );
    const inOrder = [...order.flatMap((i) => placed[i] ?? []), ...rest];
    return { goods: inOrder.map(({ at: _, ...g }) => g), metres: Math.round(metres) };
  }
}

function byPlace<T extends { placeId: number }>(list: readonly T[]): Map<number, T[]> {
  const map = new Map<number, T[]>();
  for (const one of list) map.set(one.placeId, [...(map.get(one.placeId) ?? []), one]);
  return map;
}

/** The level of a bin, as its code says it: "C-07-2" is on the second; the floor where it says none. */
const levelOf = (code: string): number => Number(/-(\d)$/.exec(code)?.[1] ?? 1);
