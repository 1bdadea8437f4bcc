import { Injectable } from '@nestjs/common';
import { type PutawayGoods, suggestAll } from '@vectrum/core/putaway';
import type { StandingGoods } from '@vectrum/core/scan';
import { kindsFor } from '@vectrum/core/places';
import type { PlanPoint } from '@vectrum/core/walk';
import { spareSql } from '../allocation/index.js';
import { num, one, rows, sqlList, type Tx } from '../platform/index.js';
import { FloorQueries } from '../sites/index.js';
import { BinsQueries } from './bins.queries.js';
import { walkPast } from './walk-past.js';

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
/** What waits to be put away at a site, with bins for it and the walk past them. */
@Injectable()
export class PutawayQueries {
  constructor(
    private readonly floors: FloorQueries,
    private readonly bins: BinsQueries,
  ) {}

  async list(tx: Tx, siteId: number): Promise<{ goods: StandingGoods[]; metres: number }> {
    const found = await this.goods(tx, siteId);
    if (found.length === 0) return { goods: [], metres: 0 };
    const bins = await this.bins.around(tx, siteId, found);
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
    const dock = await one<{ x: string | null; y: string | null }>(
      tx,
      `SELECT x_m AS x, y_m AS y FROM place WHERE site_id = ? AND kind = 'dock' ORDER BY walk_order, id LIMIT 1`,
      [siteId],
    );
    return walkPast(await this.floors.floor(tx, siteId), goods, { x: num(dock?.x), y: num(dock?.y) });
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
}
