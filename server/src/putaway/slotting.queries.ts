import { kindsFor } from '@vectrum/core/places';
import { roomFor } from '@vectrum/core/putaway';
import { zoneRefusal } from '@vectrum/core/scan';
import { Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';
import { num, rows, sqlList, task, Work } from '../platform/index.js';
import { FloorQueries } from '../sites/index.js';
import { levelOf } from './bins.queries.js';
import type { OffHomeDto, SlottingDto } from './slotting.dto.js';
import type { slotsOf } from './slots.js';

const SLOTS = task<typeof slotsOf>('putaway/slotsOf', 60_000, 'These are more pick faces than can be compared at once');
const SHELVES = sqlList(kindsFor('shelf'));
const DAYS = 56;
const MOST_ORDERS = 1_500;
const MOST_FACES = 1_200;
/** Goods that weigh more in all are never sent higher up. */
const HEAVY_G = 15_000;

interface FaceRow {
  id: number;
  code: string;
  rule: 'none' | 'cold' | 'restricted';
  x: string;
  y: string;
  holdsMl: number | null;
  holdsG: number | null;
  /** Whether goods lie there whose face it is not. */
  isTaken: number;
}
interface GoodsRow {
  id: number;
  sku: string;
  name: string;
  picture: string | null;
  storage: 'any' | 'cold' | 'restricted';
  homeId: number;
  upTo: number | null;
  unitMl: string | null;
  unitG: number | null;
  units: string;
}

/** Where goods should stand so that pickers walk less: what is asked for often near, what leaves together side by side. */
@Injectable()
export class SlottingQueries {
  constructor(
    private readonly source: DataSource,
    private readonly floors: FloorQueries,
    private readonly work: Work,
  ) {}

  async at(siteId: number): Promise<SlottingDto> {
    const faces = await this.faces(siteId);
    const indexOf = new Map(faces.map((f, i) => [f.id, i]));
    const goods = (await this.goods(siteId)).filter((g) => indexOf.has(g.homeId));
    const orders = await this.orders(siteId, goods);
    const segments = (await this.floors.shapes(this.source, siteId)).filter((s) => s.kind !== 'wall');
    const asked = {
      segments: segments.map((s) => ({ id: s.id, x: num(s.x), y: num(s.y), toX: num(s.toX), toY: num(s.toY) })),
      table: await this.floors.start(this.source, siteId),
      faces: faces.map((f) => ({ x: num(f.x), y: num(f.y) })),
      faceOf: goods.map((g) => indexOf.get(g.homeId) ?? 0),
      orders: orders.goods,
      weeks: orders.weeks,
      fits: goods.map((g) => faces.flatMap((f, i) => (fits(g, f, faces[indexOf.get(g.homeId) ?? 0]) ? [i] : []))),
    };
    const advice = orders.goods.length > 0 ? await this.work.run(SLOTS, asked) : { moves: [], before: 0, after: 0 };
    const times = (of: number) => orders.goods.filter((o) => o.includes(of)).length / orders.weeks;
    return {
      orders: orders.goods.length,
      weeks: Math.round(orders.weeks * 10) / 10,
      goods: goods.length,
      metresAWeek: Math.round(advice.before),
      metresAfter: Math.round(advice.after),
      moves: advice.moves.flatMap((m) => {
        const [one, other] = [goods[m.goods], m.change === null ? undefined : goods[m.change]];
        if (!one) return [];
        return [
          {
            sku: one.sku,
            item: one.name,
            picture: one.picture,
            from: faces[m.from]?.code ?? '',
            to: faces[m.to]?.code ?? '',
            units: num(one.units),
            ordersAWeek: Math.round(times(m.goods) * 10) / 10,
            changeSku: other?.sku ?? null,
            changeItem: other?.name ?? null,
            changeUnits: num(other?.units),
            metresAWeek: Math.round(m.metresAWeek),
          },
        ];
      }),
      offHome: await this.offHome(siteId),
    };
  }

  /** Bins open to picking that stand on the plan: faces of goods, and empty ones. */
  private faces(siteId: number): Promise<FaceRow[]> {
    return rows<FaceRow>(
      this.source,
      `SELECT p.id, p.code, COALESCE(z.rule, 'none') AS rule, p.x_m AS x, p.y_m AS y, p.holds_ml AS holdsMl, p.holds_g AS holdsG,
         EXISTS (SELECT 1 FROM balance b LEFT JOIN item_site h ON h.item_id = b.item_id AND h.site_id = p.site_id WHERE b.place_id = p.id AND b.units > 0 AND NOT (h.home_place_id <=> p.id)) AS isTaken
       FROM place p LEFT JOIN place z ON z.id = p.parent_id AND z.kind = 'zone'
       WHERE p.site_id = ? AND p.kind IN ${SHELVES} AND p.pickable = 1 AND p.blocked = 0 AND p.x_m IS NOT NULL ORDER BY p.walk_order, p.id LIMIT ${MOST_FACES}`,
      [siteId],
    );
  }

  private goods(siteId: number): Promise<GoodsRow[]> {
    return rows<GoodsRow>(
      this.source,
      `SELECT i.id, i.sku, i.name, i.picture, i.storage, x.home_place_id AS homeId, x.refill_up_to AS upTo, u.length_mm * u.width_mm * u.height_mm / 1000 AS unitMl, u.weight_g AS unitG,
         COALESCE((SELECT SUM(b.units) FROM balance b WHERE b.item_id = i.id AND b.place_id = x.home_place_id AND b.units > 0), 0) AS units
       FROM item_site x JOIN item i ON i.id = x.item_id JOIN pack_unit u ON u.item_id = i.id AND u.factor = 1 WHERE x.site_id = ? AND x.home_place_id IS NOT NULL ORDER BY i.id`,
      [siteId],
    );
  }

  /** What the newest orders of the last weeks wanted, each as indices of goods. */
  private async orders(siteId: number, goods: readonly GoodsRow[]): Promise<{ goods: number[][]; weeks: number }> {
    const found = await rows<{ orderId: number; itemId: number; placedAt: Date }>(
      this.source,
      `SELECT o.id AS orderId, l.item_id AS itemId, o.placed_at AS placedAt FROM
         (SELECT id, placed_at FROM sales_order WHERE site_id = ? AND state NOT IN ('quote','cancelled') AND placed_at >= UTC_TIMESTAMP() - INTERVAL ${DAYS} DAY ORDER BY id DESC LIMIT ${MOST_ORDERS}) o
         JOIN sales_order_line l ON l.order_id = o.id AND l.units > 0 AND l.item_id IS NOT NULL ORDER BY o.id`,
      [siteId],
    );
    const indexOf = new Map(goods.map((g, i) => [g.id, i]));
    const byOrder = new Map<number, Set<number>>();
    for (const { orderId, itemId } of found) {
      const index = indexOf.get(itemId);
      if (index !== undefined) byOrder.set(orderId, (byOrder.get(orderId) ?? new Set()).add(index));
    }
    const oldest = Math.min(Date.now(), ...found.map((f) => f.placedAt.getTime()));
    return { goods: [...byOrder.values()].map((s) => [...s]), weeks: Math.max(1, (Date.now() - oldest) / (7 * 86_400_000)) };
  }

  /** What lies at a face that is another's, though it has one of its own. */
  private async offHome(siteId: number): Promise<OffHomeDto[]> {
    const found = await rows<OffHomeDto & { units: string }>(
      this.source,
      `SELECT i.sku, i.name AS item, SUM(b.units) AS units, p.code AS \`from\`, h.code AS \`to\` FROM item_site x JOIN place h ON h.id = x.home_place_id
         JOIN balance b ON b.item_id = x.item_id AND b.units > 0 AND b.stock_condition = 'good' AND b.place_id <> x.home_place_id
         JOIN place p ON p.id = b.place_id AND p.site_id = x.site_id AND p.pickable = 1 AND p.kind IN ${SHELVES} JOIN item i ON i.id = x.item_id
       WHERE x.site_id = ? AND EXISTS (SELECT 1 FROM item_site y WHERE y.home_place_id = p.id AND y.item_id <> x.item_id) GROUP BY i.id, p.id, h.id ORDER BY p.walk_order LIMIT 200`,
      [siteId],
    );
    return found.map((f) => ({ ...f, units: num(f.units) }));
  }
}

/** Whether goods may stand at a face, and what is to stand there has room: what lies at theirs now, or all that it is filled up to. */
function fits(goods: GoodsRow, face: FaceRow, own: FaceRow | undefined): boolean {
  if (face.id === goods.homeId) return true;
  if (num(face.isTaken) === 1) return false;
  if (zoneRefusal({ name: '', storage: goods.storage }, { code: face.code, rule: face.rule }) !== null) return false;
  const wanted = Math.max(num(goods.units), goods.upTo ?? 0);
  const isHeavy = goods.unitG !== null && goods.unitG * Math.max(1, wanted) >= HEAVY_G;
  if (isHeavy && own && levelOf(face.code) > levelOf(own.code)) return false;
  const size = { unitMl: goods.unitMl === null ? null : num(goods.unitMl), unitG: goods.unitG };
  return roomFor(size, { holdsMl: face.holdsMl, holdsG: face.holdsG, usedMl: 0, usedG: 0 }) >= wanted;
}
