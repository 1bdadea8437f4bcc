import { leftAtExpiry } from '@vectrum/core/expiry';
import { decimalText, dividedBy, micro, times } from '@vectrum/core/money';
import { Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';
import { addDays, dayIn, num, type Person, rows } from '../platform/index.js';
import type { ExpiringDto, ExpiringLotDto } from './tracing.dto.js';

const DEMAND_DAYS = 56;
const MOST_LOTS = 1_000;
const DAY_MS = 86_400_000;

interface LotRow {
  itemId: number;
  sku: string;
  item: string;
  picture: string | null;
  lot: string;
  expiresOn: string;
  siteId: number;
  site: string;
  units: string;
  held: string;
  value: string | null;
  pool: number | null;
  cost: string | null;
}

/** What passes its date soon, what of it will be left by then as it is asked for, and what may be done about it. */
@Injectable()
export class ExpiringQueries {
  constructor(private readonly source: DataSource) {}

  /** Lots at the person's sites that pass their date within some days, or have. What dates later counts for the order in which it is sold. */
  async within(person: Person, days: number): Promise<ExpiringDto> {
    const until = addDays(new Date().toISOString().slice(0, 10), days);
    const sites = [0, ...person.siteIds];
    const found = await rows<LotRow>(
      this.source,
      `SELECT i.id AS itemId, i.sku, i.name AS item, i.picture, l.code AS lot, l.expires_on AS expiresOn, s.id AS siteId, s.name AS site, SUM(b.units) AS units, SUM(IF(b.stock_condition = 'good', 0, b.units)) AS held,
         v.value, v.units AS pool, i.cost
       FROM lot l JOIN balance b ON b.lot_id = l.id AND b.item_id = l.item_id AND b.bounded = 1 AND b.units > 0 AND b.stock_condition <> 'apart' JOIN place p ON p.id = b.place_id JOIN site s ON s.id = p.site_id AND s.id IN (?)
         JOIN item i ON i.id = l.item_id LEFT JOIN cost_pool v ON v.item_id = i.id
       WHERE l.expires_on IS NOT NULL AND l.expires_on <= ? GROUP BY l.id, s.id ORDER BY l.expires_on, i.name, s.id LIMIT ${MOST_LOTS}`,
      [sites, until],
    );
    const demand = await this.demand(sites, [...new Set(found.map((f) => f.itemId))]);
    const known = await rows<{ id: number; name: string; zone: string }>(
      this.source,
      'SELECT id, name, time_zone AS zone FROM site WHERE id IN (?)',
      [sites],
    );
    const siteOf = new Map(known.map((s) => [s.id, { name: s.name, today: dayIn(s.zone, new Date()) }]));
    const lots = found.map((f): ExpiringLotDto & { itemId: number; good: number } => {
      const day = siteOf.get(f.siteId)?.today ?? new Date().toISOString().slice(0, 10);
      const units = num(f.units);
      const each = num(f.pool) > 0 ? dividedBy(times(micro(f.value ?? '0'), 1), num(f.pool)) : micro(f.cost ?? '0');
      return {
        itemId: f.itemId,
        good: units - num(f.held),
        sku: f.sku,
        item: f.item,
        picture: f.picture,
        lot: f.lot,
        expiresOn: f.expiresOn,
        days: Math.round((Date.parse(f.expiresOn) - Date.parse(day)) / DAY_MS),
        siteId: f.siteId,
        site: f.site,
        units,
        held: num(f.held),
        value: person.seesCosts ? decimalText(times(each, units)) : null,
        aWeek: Math.round((demand.get(`${f.itemId}/${f.siteId}`) ?? 0) * 70) / 10,
        left: 0,
        leftValue: null,
        todo: 'sells',
        elsewhere: null,
      };
    });
    for (const group of groupsOf(lots)) {
      const aDay = demand.get(`${group[0]?.itemId ?? 0}/${group[0]?.siteId ?? 0}`) ?? 0;
      const left = leftAtExpiry(
        group.map((l) => ({ units: l.good, days: l.days })),
        aDay,
      );
      group.forEach((l, i) => {
        l.left = (left[i] ?? 0) + l.held;
        l.leftValue = l.value === null || l.units === 0 ? null : decimalText(dividedBy(times(micro(l.value), l.left), l.units));
        const other = person.siteIds
          .filter((s) => s !== l.siteId)
          .map((s) => ({ s, aDay: demand.get(`${l.itemId}/${s}`) ?? 0 }))
          .sort((a, b) => b.aDay - a.aDay)[0];
        const goesThere = other !== undefined && other.aDay > aDay && l.days > 0;
        l.todo = l.days < 0 ? 'take-out' : l.left === 0 ? 'sells' : goesThere ? 'transfer' : 'mark-down';
        l.elsewhere = l.todo === 'transfer' ? (siteOf.get(other?.s ?? 0)?.name ?? null) : null;
      });
    }
    return { days, lots: lots.map(({ itemId: _, good: __, ...l }) => l) };
  }

  /** Units that orders of the last weeks wanted, a day, by item and site. */
  private async demand(sites: readonly number[], items: readonly number[]): Promise<ReadonlyMap<string, number>> {
    const found = await rows<{ itemId: number; siteId: number; units: string }>(
      this.source,
      `SELECT l.item_id AS itemId, o.site_id AS siteId, SUM(l.units) AS units FROM sales_order o JOIN sales_order_line l ON l.order_id = o.id
       WHERE o.site_id IN (?) AND o.placed_at >= UTC_TIMESTAMP() - INTERVAL ${DEMAND_DAYS} DAY AND o.state NOT IN ('quote','cancelled') AND l.item_id IN (?) GROUP BY l.item_id, o.site_id`,
      [sites, [0, ...items]],
    );
    return new Map(found.map((f) => [`${f.itemId}/${f.siteId}`, num(f.units) / DEMAND_DAYS]));
  }
}

/** Lots of the same goods at the same site. */
function groupsOf<T extends { itemId: number; siteId: number }>(lots: readonly T[]): T[][] {
  const groups = new Map<string, T[]>();
  for (const lot of lots) groups.set(`${lot.itemId}/${lot.siteId}`, [...(groups.get(`${lot.itemId}/${lot.siteId}`) ?? []), lot]);
  return [...groups.values()];
}
