import { coverOf, type Evenness, evennessOf, excessOf, gradesOf, type Worth } from '@vectrum/core/replenish';
import { Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';
import { marks, num, type Person, rows, siteDay } from '../platform/index.js';
import type { BackToDto, CoverageDto, CoverRowDto, ExcessDto, ExcessRowDto, KitOfDto } from './coverage.dto.js';
import { freeOf, type Planned, positionOf, PositionsQueries } from './positions.queries.js';
import { fromToday, ProposalsQueries } from './proposals.queries.js';

const GRADES: readonly Worth[] = ['A', 'B', 'C'];
const EVEN: readonly Evenness[] = ['X', 'Y', 'Z'];
const CHUNK = 500;
/** What came in so lately may still be sent back within usual terms. */
const BACK_DAYS = 60;

/** How long stock lasts over the whole range, and what there is too much of. */
@Injectable()
export class CoverageQueries {
  constructor(
    private readonly source: DataSource,
    private readonly positions: PositionsQueries,
    private readonly proposals: ProposalsQueries,
  ) {}

  /** Every item that is planned at a site by its worth and evenness; with the rows of one field where one is asked for. */
  async coverage(person: Person, siteId: number, field: string): Promise<CoverageDto> {
    const { today } = await siteDay(this.source, siteId);
    const all = await this.positions.at(siteId, today);
    const graded = gradesOf(all.map((p) => ({ p, yearValue: p.weekMean * 52 * p.unitCost })));
    const found = [...graded].map(([{ p, yearValue }, worth]) => ({ p, yearValue, worth, even: evennessOf(p.weekMean, p.weekSd) }));
    const fields = GRADES.flatMap((worth) =>
      EVEN.map((even) => {
        const of = found.filter((f) => f.worth === worth && f.even === even);
        const units = of.reduce((n, f) => n + f.p.weekMean * f.p.unitCost, 0);
        const stock = of.reduce((n, f) => n + Math.max(0, freeOf(f.p)) * f.p.unitCost, 0);
        return {
          field: `${worth}${even}`,
          items: of.length,
          out: of.filter((f) => f.p.weekMean > 0 && freeOf(f.p) <= 0).length,
          weeks: units > 0 ? Math.round((stock / units) * 10) / 10 : null,
          ...(person.seesCosts ? { yearValue: of.reduce((n, f) => n + f.yearValue, 0).toFixed(2), stockValue: stock.toFixed(2) } : {}),
        };
      }),
    );
    const rowsOf = found.filter((f) => `${f.worth}${f.even}` === field);
    return {
      siteId,
      today,
      items: all.length,
      fields,
      rows: await this.rows(
        person,
        siteId,
        today,
        rowsOf.map((f) => f.p),
      ),
    };
  }

  private async rows(person: Person, siteId: number, today: string, list: readonly Planned[]): Promise<CoverRowDto[]> {
    const forecasts = await this.forecasts(siteId, list);
    return list
      .map((p): CoverRowDto => {
        const forecast = forecasts.get(p.itemId);
        return {
          sku: p.sku,
          name: p.name,
          picture: p.picture,
          unit: p.unit,
          unitPlural: p.unitPlural,
          weekMean: Math.round(p.weekMean * 10) / 10,
          weekSd: Math.round(p.weekSd * 10) / 10,
          method: p.method ?? '',
          free: freeOf(p),
          onOrder: positionOf(p) - freeOf(p),
          point: p.point,
          coverDays: forecast ? coverOf(forecast, Math.max(0, freeOf(p)), today) : null,
          ...(person.seesCosts ? { stockValue: (Math.max(0, freeOf(p)) * p.unitCost).toFixed(2) } : {}),
        };
      })
      .sort((a, b) => (a.coverDays ?? 1e9) - (b.coverDays ?? 1e9) || a.sku.localeCompare(b.sku));
  }

  /** What there is more of than half a year will take, what it ties up, how old it is, and what could be done about it. */
  async excess(person: Person, siteId: number): Promise<ExcessDto> {
    const { today } = await siteDay(this.source, siteId);
    const all = (await this.positions.at(siteId, today)).filter((p) => freeOf(p) > 0);
    const forecasts = await this.forecasts(siteId, all);
    const much = all.flatMap((p) => {
      const forecast = forecasts.get(p.itemId);
      const { units, coverDays } = forecast
        ? excessOf({ forecast, point: p.point, size: p.size }, freeOf(p), today)
        : { units: freeOf(p), coverDays: null };
      return units > 0 ? [{ p, units, coverDays, value: units * p.unitCost }] : [];
    });
    const ids = much.map((m) => m.p.itemId);
    const [ages, wanted, back, kits, expiring] = await Promise.all([
      this.ages(ids),
      this.wantedElsewhere(person, siteId, ids),
      this.canGoBack(siteId, ids),
      this.inKits(ids),
      this.expiring(siteId, ids),
    ]);
    const list = much
      .sort((a, b) => b.value - a.value || a.p.sku.localeCompare(b.p.sku))
      .map(({ p, units, coverDays, value }): ExcessRowDto => ({
        sku: p.sku,
        name: p.name,
        picture: p.picture,
        unit: p.unit,
        unitPlural: p.unitPlural,
        free: freeOf(p),
        units,
        coverDays,
        ageDays: ages.get(p.itemId) ?? null,
        expiresOn: expiring.get(p.itemId) ?? null,
        ...(person.seesCosts ? { value: value.toFixed(2) } : {}),
        wantedAt: wanted.get(p.itemId) ?? null,
        backTo: back.get(p.itemId) ?? null,
        inKits: kits.get(p.itemId) ?? [],
      }));
    return { siteId, today, rows: list, ...(person.seesCosts ? { value: much.reduce((n, m) => n + m.value, 0).toFixed(2) } : {}) };
  }

  private async forecasts(siteId: number, list: readonly Planned[]) {
    const { today } = await siteDay(this.source, siteId);
    const all: Awaited<ReturnType<ProposalsQueries['forecasts']>> = new Map();
    for (let i = 0; i < list.length; i += CHUNK) {
      const some = await this.proposals.forecasts(
        siteId,
        list.slice(i, i + CHUNK).map((p) => p.itemId),
      );
      for (const [id, forecast] of some) all.set(id, fromToday(forecast, today));
    }
    return all;
  }

  /** Days since what is still there came in, the mean over its units, by the layers that it is worth. */
  private async ages(ids: readonly number[]): Promise<Map<number, number>> {
    const found = await rows<{ itemId: number; days: string }>(
      this.source,
      `SELECT item_id AS itemId, SUM(units_left * DATEDIFF(UTC_DATE(), at)) / SUM(units_left) AS days FROM cost_layer WHERE units_left > 0 AND item_id IN (${marks(ids)}) GROUP BY item_id`,
      [...ids],
    );
    return new Map(found.map((f) => [f.itemId, Math.round(num(f.days))]));
  }

  private async wantedElsewhere(person: Person, siteId: number, ids: readonly number[]) {
    const others = person.siteIds.filter((id) => id !== siteId);
    if (others.length === 0 || ids.length === 0) return new Map<number, { siteId: number; site: string; units: number }>();
    const found = await rows<{ itemId: number; siteId: number; site: string; units: string }>(
      this.source,
      `SELECT p.item_id AS itemId, s.id AS siteId, s.name AS site, CAST(p.point_units + p.size_units AS SIGNED) - (CAST(COALESCE(k.on_hand, 0) AS SIGNED) - COALESCE(k.held, 0) - COALESCE(k.reserved, 0)) AS units
       FROM item_plan p JOIN site s ON s.id = p.site_id LEFT JOIN site_stock k ON k.site_id = p.site_id AND k.item_id = p.item_id WHERE p.site_id IN (?) AND p.item_id IN (?) AND p.point_units IS NOT NULL HAVING units > 0 ORDER BY units`,
      [others, ids],
    );
    return new Map(found.map(({ itemId, ...f }) => [itemId, { ...f, units: num(f.units) }]));
  }

  /** Arrivals of not long ago that goods can be sent back from. */
  private async canGoBack(siteId: number, ids: readonly number[]): Promise<Map<number, BackToDto>> {
    const found = await rows<BackToDto & { itemId: number }>(
      this.source,
      `SELECT DISTINCT l.item_id AS itemId, s.name AS supplier, a.code AS arrival FROM receipt r JOIN arrival a ON a.id = r.arrival_id AND a.site_id = ? JOIN purchase_order_line l ON l.id = r.order_line_id JOIN purchase_order o ON o.id = l.order_id JOIN supplier s ON s.id = o.supplier_id
       WHERE r.undone_at IS NULL AND r.at >= UTC_TIMESTAMP() - INTERVAL ${BACK_DAYS} DAY AND r.item_id IN (${marks(ids)}) ORDER BY a.id`,
      [siteId, ...ids],
    );
    return new Map(found.map(({ itemId, ...b }) => [itemId, b]));
  }

  private async inKits(ids: readonly number[]): Promise<Map<number, KitOfDto[]>> {
    const found = await rows<KitOfDto & { itemId: number }>(
      this.source,
      `SELECT p.part_item_id AS itemId, i.sku, i.name FROM item_part p JOIN item i ON i.id = p.item_id WHERE p.part_item_id IN (${marks(ids)}) ORDER BY i.name`,
      [...ids],
    );
    const all = new Map<number, KitOfDto[]>();
    for (const { itemId, ...kit } of found) all.set(itemId, [...(all.get(itemId) ?? []), kit]);
    return all;
  }

  private async expiring(siteId: number, ids: readonly number[]): Promise<Map<number, string>> {
    const found = await rows<{ itemId: number; on: string }>(
      this.source,
      `SELECT b.item_id AS itemId, MIN(l.expires_on) AS \`on\` FROM balance b JOIN lot l ON l.id = b.lot_id AND l.expires_on IS NOT NULL JOIN place p ON p.id = b.place_id AND p.site_id = ? WHERE b.units > 0 AND b.item_id IN (${marks(ids)}) GROUP BY b.item_id`,
      [siteId, ...ids],
    );
    return new Map(found.map((f) => [f.itemId, f.on]));
  }
}
