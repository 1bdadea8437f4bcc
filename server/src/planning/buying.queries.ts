import { dueDay, orderDay } from '@vectrum/core/buying';
import { type Forecast, projected, type Projection } from '@vectrum/core/replenish';
import { Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';
import { ComingQueries } from '../orders/index.js';
import { addDays, dayIn, num, one, type Person, rows, siteDay } from '../platform/index.js';
import type { BuyingDto, BuyingExceptionDto, BuyingLineDto, BuyingSupplierDto, SpareGoodsDto, PutOffDto } from './planning.dto.js';
import { freeOf, type Planned, positionOf } from './positions.queries.js';
import { fromToday, type Proposed, ProposalsQueries } from './proposals.queries.js';
import { SourcesQueries } from './sources.queries.js';

/** As far ahead as it is looked for when something runs out. */
const DAYS_AHEAD = 182;
/** Lines that are looked through for what happens without them; more are listed without. */
const MOST_LOOKED = 400;
const MOST_EXCEPTIONS = 12;
/** Demand is another when it is twice or half of what it was. */
const FASTER = 2;
const SLOWER = 0.5;

/** The morning's buying: what is due, from whom, and what happens without it. */
@Injectable()
export class BuyingQueries {
  constructor(
    private readonly source: DataSource,
    private readonly proposals: ProposalsQueries,
    private readonly sources: SourcesQueries,
    private readonly coming: ComingQueries,
  ) {}

  async at(person: Person, siteId: number): Promise<BuyingDto> {
    const { today } = await siteDay(this.source, siteId);
    const last = await one<{ id: number | null }>(this.source, 'SELECT MAX(id) AS id FROM buying_choice WHERE site_id = ?', [siteId]);
    const { all, baskets, built, unsourced } = await this.proposals.at(siteId, today);
    const lines = [...baskets.flatMap((b) => b.lines), ...built, ...unsourced];
    const ids = lines.slice(0, MOST_LOOKED).map((l) => l.planned.itemId);
    const [site, planning, without, yesterday, elsewhere, sources, suppliers, putOff] = await Promise.all([
      one<{ name: string }>(this.source, 'SELECT name FROM site WHERE id = ?', [siteId]),
      one<{ n: string }>(this.source, 'SELECT COUNT(*) AS n FROM item_plan WHERE site_id = ? AND due_at IS NOT NULL', [siteId]),
      this.without(siteId, today, ids),
      this.yesterday(siteId, addDays(today, -1)),
      this.elsewhere(person, siteId, lines),
      this.sources.of(lines.map((l) => l.planned.itemId)),
      this.suppliers(baskets.map((b) => b.supplierId)),
      this.putOff(siteId, today),
    ]);
    const shown = (l: Proposed): BuyingLineDto => ({
      ...lineOf(l, person.seesCosts),
      ...ahead(today, without.get(l.planned.itemId)),
      yesterday: yesterday === null ? null : (yesterday.get(l.planned.itemId) ?? null),
      elsewhere: elsewhere.get(l.planned.itemId) ?? null,
      others: Math.max(0, (sources.get(l.planned.itemId)?.length ?? 0) - 1),
    });
    return {
      siteId,
      site: site?.name ?? '',
      today,
      asOf: num(last?.id ?? 0),
      items: all.length,
      planning: num(planning?.n),
      knowsYesterday: yesterday !== null,
      suppliers: baskets.flatMap((b): BuyingSupplierDto[] => {
        const s = suppliers.get(b.supplierId);
        if (!s) return [];
        const { leadDays, works, orderDays, leastValue, ...of } = s;
        const orderOn = orderDay(today, orderDays);
        return [
          {
            ...of,
            ...(person.seesCosts ? { leastValue } : {}),
            orderOn,
            hereOn: dueDay(orderOn, leadDays, works),
            isEnough: b.isEnough,
            lines: b.lines.map(shown).sort(bySoonest),
          },
        ];
      }),
      built: built.map(shown).sort(bySoonest),
      unsourced: unsourced.map(shown).sort(bySoonest),
      exceptions: exceptionsOf(all),
      putOff,
    };
  }

  /** What is to come of stock and what is promised of it, day by day, if nothing is ordered. */
  async without(siteId: number, today: string, itemIds: readonly number[]): Promise<Map<number, Projection>> {
    if (itemIds.length === 0) return new Map();
    const [site] = await rows<{ id: number; timeZone: string }>(this.source, 'SELECT id, time_zone AS timeZone FROM site WHERE id = ?', [
      siteId,
    ]);
    if (!site) return new Map();
    const now = Date.now();
    const [forecasts, coming, going, stock] = await Promise.all([
      this.proposals.forecasts(siteId, itemIds),
      this.coming.comingTo([site], itemIds, now),
      this.coming.goingFrom([siteId], itemIds, now),
      this.stock(siteId, itemIds),
    ]);
    const day = (at: Date | number) => dayIn(site.timeZone, new Date(at));
    return new Map(
      itemIds.map((id) => {
        const forecast: Pick<Forecast, 'weeks'> = fromToday(forecasts.get(id) ?? { weeks: [] }, today);
        const of = <T extends { itemId: number }>(list: readonly T[]) => list.filter((x) => x.itemId === id);
        const promised = of(going).map((g) => ({ units: g.units, due: day(g.due) }));
        const arrivals = of(coming).map((c) => ({ units: c.units, due: day(c.at) }));
        return [id, projected({ today, onHand: stock.get(id) ?? 0, promised, arrivals, forecast }, DAYS_AHEAD)];
      }),
    );
  }

  /** What is free at a site: what is reserved has left it in all but the walk. */
  private async stock(siteId: number, itemIds: readonly number[]): Promise<Map<number, number>> {
    const free = await this.coming.freeAt([siteId], itemIds);
    return new Map(itemIds.map((id) => [id, Math.max(0, free(siteId, id))]));
  }

  /** What was proposed on a day; null where nothing of that day was kept. */
  private async yesterday(siteId: number, day: string): Promise<Map<number, number> | null> {
    const found = await rows<{ itemId: number; units: number }>(
      this.source,
      'SELECT item_id AS itemId, units FROM buying_day WHERE site_id = ? AND day = ?',
      [siteId, day],
    );
    return found.length === 0 ? null : new Map(found.map((f) => [f.itemId, f.units]));
  }

  /** Goods that another of the person's sites has beyond what it keeps itself: they come sooner and cost less than an order. */
  private async elsewhere(person: Person, siteId: number, lines: readonly Proposed[]): Promise<Map<number, SpareGoodsDto>> {
    const others = person.siteIds.filter((id) => id !== siteId);
    if (others.length === 0 || lines.length === 0) return new Map();
    const found = await rows<SpareGoodsDto & { itemId: number; units: string }>(
      this.source,
      `SELECT k.item_id AS itemId, s.id AS siteId, s.name AS site, CAST(k.on_hand AS SIGNED) - k.held - k.reserved - COALESCE(p.point_units + p.size_units, 0) AS units
       FROM site_stock k JOIN site s ON s.id = k.site_id LEFT JOIN item_plan p ON p.site_id = k.site_id AND p.item_id = k.item_id WHERE k.site_id IN (?) AND k.item_id IN (?) HAVING units > 0 ORDER BY units`,
      [others, lines.map((l) => l.planned.itemId)],
    );
    return new Map(found.map(({ itemId, ...f }) => [itemId, { ...f, units: num(f.units) }]));
  }

  private async suppliers(ids: readonly number[]) {
    const found = await rows<
      Pick<BuyingSupplierDto, 'code' | 'name' | 'currency' | 'leastUnits' | 'leastPallets'> & {
        id: number;
        leadDays: number;
        works: string;
        orderDays: string;
        leastValue: string | null;
      }
    >(
      this.source,
      'SELECT id, code, name, currency, lead_days AS leadDays, working_days AS works, order_days AS orderDays, least_value AS leastValue, least_units AS leastUnits, least_pallets AS leastPallets FROM supplier WHERE id IN (?)',
      [[0, ...ids]],
    );
    return new Map(found.map(({ id, ...s }) => [id, s]));
  }

  private putOff(siteId: number, today: string): Promise<PutOffDto[]> {
    return rows<PutOffDto>(
      this.source,
      `SELECT i.sku, i.name, c.until_on AS until, c.why, p.name AS \`by\` FROM buying_choice c JOIN item i ON i.id = c.item_id JOIN person p ON p.id = c.person_id
       WHERE c.site_id = ? AND c.is_over = 0 AND c.says IN ('later','enough') AND c.until_on > ? AND c.id = (SELECT MAX(d.id) FROM buying_choice d WHERE d.site_id = c.site_id AND d.item_id = c.item_id AND d.is_over = 0 AND d.says IN ('later','enough')) ORDER BY c.until_on, i.sku`,
      [siteId, today],
    );
  }
}

const bySoonest = (a: BuyingLineDto, b: BuyingLineDto): number =>
  Number(b.isDue) - Number(a.isDue) || (a.runsOutOn ?? '9').localeCompare(b.runsOutOn ?? '9') || a.sku.localeCompare(b.sku);

type Shown = Omit<BuyingLineDto, 'runsOutOn' | 'missed' | 'broken' | 'yesterday' | 'elsewhere' | 'others'>;

function lineOf({ planned: p, source, units, because, due }: Proposed, seesCosts: boolean): Shown {
  return {
    sku: p.sku,
    name: p.name,
    picture: p.picture,
    class: p.class,
    unit: p.unit,
    unitPlural: p.unitPlural,
    units,
    factor: source?.factor ?? 1,
    pack: source?.pack ?? p.unit,
    packPlural: source?.packPlural ?? p.unitPlural,
    ...(seesCosts ? { unitCost: String(p.unitCost), ...(source ? { price: source.price } : {}) } : {}),
    free: freeOf(p),
    onOrder: positionOf(p) - freeOf(p),
    point: p.point ?? p.fixedPoint ?? 0,
    weekMean: Math.round(p.weekMean * 10) / 10,
    method: p.method ?? 'nothing known',
    leadDays: Math.round(p.leadDays),
    because,
    isDue: due > 0,
    late: p.late,
  };
}

/** What happens without an order: until one that is placed today could be here it cannot be helped, and is told apart by the day. */
function ahead(today: string, projection: Projection | undefined): Pick<BuyingLineDto, 'runsOutOn' | 'missed' | 'broken'> {
  if (!projection) return { runsOutOn: null, missed: 0, broken: 0 };
  return {
    runsOutOn: projection.runsOut === null ? null : addDays(today, projection.runsOut),
    missed: Math.round(projection.missed),
    broken: Math.round(projection.broken),
  };
}

/** What does not go as it was planned, the dearest first: late suppliers, demand that is another, goods that nobody wants any more. */
function exceptionsOf(all: readonly Planned[]): BuyingExceptionDto[] {
  const worth = (p: Planned) => p.weekMean * p.unitCost;
  const found = all.flatMap((p): { worth: number; says: BuyingExceptionDto }[] => {
    const of = (what: BuyingExceptionDto['what'], says: string, rank: number) => [
      { worth: rank * 1e9 + worth(p) + p.onHand * p.unitCost, says: { sku: p.sku, name: p.name, what, says } },
    ];
    const units = (n: number) => `${n} ${n === 1 ? p.unit : p.unitPlural}`;
    if (p.late > 0 && p.point !== null && freeOf(p) <= p.point)
      return of('late', `${units(p.late)} should have been here, and it is at its point to order`, 3);
    if (p.pace !== null && p.pace >= FASTER && p.weekMean * p.unitCost > 1)
      return of('faster', `sold ${Math.round(p.pace * 10) / 10} times as fast in the last four weeks`, 2);
    if (p.method === 'discontinued' && p.onHand > 0) return of('gone', `nobody asks for it any more; ${units(p.onHand)} left`, 1);
    if (p.pace !== null && p.pace <= SLOWER && p.onOrder > 0)
      return of(
        'slower',
        `sells ${p.pace <= 0.01 ? 'nothing' : `${Math.round(p.pace * 100)} % of what it did`} in the last four weeks, and ${units(p.onOrder)} are on order`,
        1,
      );
    return [];
  });
  return found
    .sort((a, b) => b.worth - a.worth)
    .slice(0, MOST_EXCEPTIONS)
    .map((f) => f.says);
}
