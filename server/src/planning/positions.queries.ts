import { ordersIn } from '@vectrum/core/orders';
import { goesInto } from '@vectrum/core/replenish';
import { Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';
import { num, promisedSql, rows, sqlList } from '../platform/index.js';
import { ON_ROAD } from '../stock/index.js';
import { PlanInputs } from './plan-inputs.queries.js';

const LIVE = sqlList(ordersIn('live'));

/** An item at a site with its plan and what there is of it now. Units are base units. */
export interface Planned {
  itemId: number;
  sku: string;
  name: string;
  picture: string | null;
  class: string;
  kind: string;
  unit: string;
  unitPlural: string;
  method: string | null;
  plannedOn: string | null;
  weekMean: number;
  weekSd: number;
  pace: number | null;
  point: number | null;
  size: number;
  safety: number;
  fill: number;
  service: number;
  leadDays: number;
  reviewDays: number;
  unitCost: number;
  supplierId: number | null;
  onHand: number;
  held: number;
  reserved: number;
  /** Wanted by orders and within the house, and held for nobody yet. */
  owed: number;
  /** Placed with suppliers, on the road from other sites, or being built. */
  onOrder: number;
  /** Of it, what should have been here. */
  late: number;
  /** On orders that are not placed yet. */
  drafts: number;
  /** What lies in assemblies that are free, for parts. */
  within: number;
  /** As it stands at the item, where somebody has set it. */
  fixedPoint: number | null;
  fixedUpTo: number | null;
}

/** Good, not promised, and not wanted by anybody. */
export const freeOf = (p: Planned): number => p.onHand - p.held - p.reserved - p.owed;
/** What is free, with all that is on its way. */
export const positionOf = (p: Planned): number => freeOf(p) + p.onOrder + p.drafts + p.within;

/** Every item that is planned at a site, with what there is of it at this moment. */
@Injectable()
export class PositionsQueries {
  constructor(
    private readonly source: DataSource,
    private readonly inputs: PlanInputs,
  ) {}

  /**
   * The items that one is bought beside at a site: those of its supplier, itself, and the assemblies that any of them goes into, since
   * what lies in these counts.
   */
  async beside(siteId: number, itemId: number): Promise<number[]> {
    const found = await rows<{ id: number }>(
      this.source,
      'SELECT item_id AS id FROM item_plan WHERE site_id = ? AND (item_id = ? OR supplier_id = (SELECT supplier_id FROM item_plan WHERE site_id = ? AND item_id = ?)) ORDER BY item_id',
      [siteId, itemId, siteId, itemId],
    );
    const above = goesInto(await this.inputs.partUses());
    return [...new Set(found.flatMap(({ id }) => [id, ...(above.get(id)?.keys() ?? [])]))];
  }

  /** By SKU; all of a site, or some items. Reads the site's open documents once. */
  async at(siteId: number, today: string, itemIds?: readonly number[]): Promise<Planned[]> {
    const found = await rows<Record<string, unknown> & Pick<Planned, 'itemId' | 'kind'>>(
      this.source,
      `SELECT p.item_id AS itemId, i.sku, i.name, i.picture, i.class, i.kind, u.name AS unit, u.plural AS unitPlural, p.method, p.planned_on AS plannedOn, p.week_mean AS weekMean, p.week_sd AS weekSd, p.pace, p.point_units AS point, p.size_units AS size,
         p.safety_units AS safety, p.fill, p.service, p.lead_days AS leadDays, p.review_days AS reviewDays, COALESCE(p.unit_cost, 0) AS unitCost, p.supplier_id AS supplierId, x.reorder_point AS fixedPoint, x.order_up_to AS fixedUpTo,
         COALESCE(k.on_hand, 0) AS onHand, COALESCE(k.held, 0) AS held, COALESCE(k.reserved, 0) AS reserved, COALESCE(w.units, 0) + COALESCE(e.units, 0) AS owed,
         COALESCE(o.placed, 0) + COALESCE(t.units, 0) + COALESCE(b.units, 0) AS onOrder, COALESCE(o.late, 0) AS late, COALESCE(o.drafts, 0) AS drafts
       FROM item_plan p JOIN item i ON i.id = p.item_id JOIN pack_unit u ON u.item_id = i.id AND u.factor = 1 LEFT JOIN item_site x ON x.item_id = p.item_id AND x.site_id = p.site_id LEFT JOIN site_stock k ON k.site_id = p.site_id AND k.item_id = p.item_id
         LEFT JOIN (SELECT l.item_id, SUM(IF(d.state = 'draft', 0, l.open_units)) AS placed, SUM(IF(d.state = 'draft', l.packs * l.factor, 0)) AS drafts, SUM(IF(d.state <> 'draft' AND COALESCE(l.expected_on, d.expected_on) < ?, l.open_units, 0)) AS late
           FROM purchase_order d JOIN purchase_order_line l ON l.order_id = d.id WHERE d.site_id = ? AND d.state IN ('draft','placed','part-received') GROUP BY l.item_id) o ON o.item_id = p.item_id
         LEFT JOIN (SELECT g.item_id, SUM(g.units - g.received_units - g.lost_units) AS units FROM transfer q JOIN transfer_goods g ON g.transfer_id = q.id WHERE q.to_site_id = ? AND q.state IN ${ON_ROAD} GROUP BY g.item_id) t ON t.item_id = p.item_id
         LEFT JOIN (SELECT a.item_id, SUM(a.units) AS units FROM build a WHERE a.site_id = ? AND a.apart = 0 AND a.state IN ('planned','gathering') GROUP BY a.item_id) b ON b.item_id = p.item_id
         LEFT JOIN (SELECT m.site_id, m.item_id, SUM(m.wanted_units - m.units) AS units FROM earmark m WHERE m.site_id = ? AND m.wanted_units > m.units GROUP BY m.item_id) e ON e.item_id = p.item_id
         LEFT JOIN (SELECT l.item_id, SUM(GREATEST(0, CAST(l.units AS SIGNED) - ${promisedSql('l')})) AS units FROM sales_order s JOIN sales_order_line l ON l.order_id = s.id WHERE s.site_id = ? AND s.state IN ${LIVE} AND l.item_id IS NOT NULL GROUP BY l.item_id) w ON w.item_id = p.item_id
       WHERE p.site_id = ? ${itemIds === undefined ? '' : 'AND p.item_id IN (?)'} ORDER BY i.sku`,
      [today, siteId, siteId, siteId, siteId, siteId, siteId, ...(itemIds === undefined ? [] : [[0, ...itemIds]])],
    );
    const all = found.map(planned);
    await this.addWithin(all);
    return all;
  }

  /** Parts that lie in free assemblies count as there: nobody buys them again to build what is built. */
  private async addWithin(all: readonly Planned[]): Promise<void> {
    const uses = await this.inputs.partUses();
    if (uses.length === 0) return;
    const byId = new Map(all.map((p) => [p.itemId, p]));
    for (const [partId, above] of goesInto(uses)) {
      const part = byId.get(partId);
      if (!part) continue;
      for (const [itemId, units] of above) {
        const whole = byId.get(itemId);
        if (whole) part.within += units * (freeOf(whole) + whole.onOrder);
      }
    }
  }
}

const NUMBERS = ['weekMean', 'weekSd', 'size', 'safety', 'fill', 'service', 'leadDays', 'reviewDays', 'unitCost', 'onHand', 'held', 'reserved', 'owed', 'onOrder', 'late', 'drafts'] as const; // prettier-ignore
const MAYBE = ['pace', 'point', 'supplierId', 'fixedPoint', 'fixedUpTo'] as const;

function planned(row: Record<string, unknown>): Planned {
  const is = { ...row, within: 0 } as Record<string, unknown>;
  for (const key of NUMBERS) is[key] = Number(row[key]);
  for (const key of MAYBE) is[key] = row[key] === null ? null : num(row[key] as number);
  return is as unknown as Planned;
}
