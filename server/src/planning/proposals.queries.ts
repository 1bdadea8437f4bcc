import {
  atBreaks,
  type BasketLine,
  demandBetween,
  filledUp,
  type Forecast,
  orderUnits,
  readWeek,
  weekOfDate,
  weekText,
} from '@vectrum/core/replenish';
import { Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';
import { num, parsed, rows } from '../platform/index.js';
import { SettingsService } from '../settings/index.js';
import { type BuyingRule, BuyingRules } from './buying-rules.js';
import { type Planned, positionOf, PositionsQueries } from './positions.queries.js';
import { type Source, SourcesQueries } from './sources.queries.js';

/** Nobody keeps more than this of anything on purpose. */
const MOST_DAYS = 364;
/** What a supplier might be asked for too, the soonest wanted first. */
const MOST_ALONG = 60;

/** What should be bought, or built, of an item now. */
export interface Proposed {
  planned: Planned;
  /** Nought where nothing is due, and it is only taken along. */
  due: number;
  /** With what is added for a price break or the supplier's least order. */
  units: number;
  source: Source | null;
  /** Days until it would be due by itself; nought or less where it is. */
  daysLeft: number;
  /** More than that would pass its date, or last longer than a year. */
  most: number;
  /** Why it is more or less than what is due, in words; '' where it is neither. */
  because: string;
}

/** What is due before it is known where it comes from. */
type Due = Omit<Proposed, 'source' | 'most' | 'because'> & Pick<BuyingRule, 'roomUnits'>;

/** Proposals for one supplier. */
export interface Basket {
  supplierId: number;
  lines: Proposed[];
  /** Whether they come to what the supplier takes at the least. */
  isEnough: boolean;
  least: { value: number | null; units: number | null; pallets: number | null };
}

interface WeeksKept {
  from: string;
  means: number[];
  sds: number[];
}

/** What to buy at a site at this moment: of the plans as they were made this week, and of what there is now. */
@Injectable()
export class ProposalsQueries {
  constructor(
    private readonly source: DataSource,
    private readonly positions: PositionsQueries,
    private readonly sources: SourcesQueries,
    private readonly rules: BuyingRules,
    private readonly settings: SettingsService,
  ) {}

  /**
   * All that is due and not put off, by supplier; what is built here, and what nobody sells yet, has none. `beside`: of these items
   * alone, which are whole suppliers' (`PositionsQueries.beside`).
   */
  async at(
    siteId: number,
    today: string,
    beside?: readonly number[],
  ): Promise<{ all: Planned[]; baskets: Basket[]; built: Proposed[]; unsourced: Proposed[] }> {
    const [all, ruleFor, off, settings] = await Promise.all([
      this.positions.at(siteId, today, beside),
      this.rules.all(siteId),
      this.putOff(siteId, today),
      this.costs(),
    ]);
    const bought = all.filter((p) => !ruleFor(p.itemId, p.class).isDropped && !off.has(p.itemId));
    const own = bought.flatMap((p) => this.own(p, ruleFor(p.itemId, p.class)) ?? []);
    const due = own.filter((o) => o.due > 0);
    const suppliers = new Set(due.map((d) => d.planned.supplierId));
    const near = own
      .filter((o) => o.due === 0 && o.planned.supplierId !== null && suppliers.has(o.planned.supplierId))
      .sort((a, b) => a.daysLeft - b.daysLeft);
    const along = [...suppliers].flatMap((id) => (id === null ? [] : near.filter((o) => o.planned.supplierId === id).slice(0, MOST_ALONG)));
    const ids = [...due, ...along].map((o) => o.planned.itemId);
    const [sources, forecasts, lives] = await Promise.all([this.sources.of(ids), this.forecasts(siteId, ids), this.lives(ids)]);
    const sized = [...due, ...along].map((o) =>
      this.sized(o, sources.get(o.planned.itemId) ?? [], forecasts.get(o.planned.itemId), lives.get(o.planned.itemId), today, settings),
    );
    const built = sized.filter((s) => s.planned.kind === 'assembly' && s.units > 0);
    const rest = sized.filter((s) => s.planned.kind !== 'assembly');
    return {
      all,
      built,
      unsourced: rest.filter((s) => s.source === null && s.units > 0),
      baskets: await this.baskets(rest.filter((s) => s.source !== null)),
    };
  }

  /** What is due of an item by its plan, or by the point that somebody has set; null where nothing is ever to be bought. */
  private own(p: Planned, { isFixed, roomUnits }: BuyingRule): Due | null {
    const fixed = isFixed || p.point === null ? p.fixedPoint : null;
    const point = fixed ?? p.point;
    if (point === null) return null;
    const position = positionOf(p);
    const upTo = fixed === null ? point + p.size : Math.max(p.fixedUpTo ?? 0, point + 1);
    const due = position <= point ? Math.max(0, upTo - position) : 0;
    const daysLeft = p.weekMean > 0 ? ((position - point) / p.weekMean) * 7 : due > 0 ? 0 : MOST_DAYS;
    return { planned: p, due: Math.ceil(due), units: 0, daysLeft, roomUnits };
  }

  private sized(
    { roomUnits, ...own }: Due,
    sources: readonly Source[],
    forecast: Forecast | undefined,
    lifeDays: number | undefined,
    today: string,
    { orderCost, holdingRate }: { orderCost: number; holdingRate: number },
  ): Proposed {
    const { planned: p, due } = own;
    const source = p.kind === 'assembly' ? null : (sources.find((s) => s.supplierId === p.supplierId) ?? sources[0] ?? null);
    const multiple = source?.factor ?? 1;
    const expected = (days: number) => (forecast ? demandBetween(forecast, today, 0, days) : (p.weekMean * days) / 7);
    // What comes in a lead time from now must be sold before its date.
    const lasting = expected(p.leadDays + Math.min(MOST_DAYS, lifeDays ?? MOST_DAYS)) - Math.max(0, positionOf(p));
    const packed = (units: number) => Math.max(0, Math.floor(units / multiple) * multiple);
    const sold = p.weekMean > 0 ? packed(lasting) : Infinity;
    const room = roomUnits === null ? Infinity : packed(roomUnits - Math.max(0, positionOf(p)));
    const most = Math.min(sold, room);
    const wanted = orderUnits(due, { minimum: multiple, multiple });
    const base = { ...own, source, most };
    if (wanted === 0) return { ...base, units: 0, because: '' };
    // What lasts longer than a year is only kept from passing its date; room holds for all.
    if (wanted > room && (room <= sold || lifeDays === undefined))
      return {
        ...base,
        units: room,
        because:
          room > 0
            ? `less than ${wanted}: there is room for ${roomUnits} in all`
            : `no pack more has room: there is room for ${roomUnits} in all`,
      };
    if (lifeDays !== undefined && wanted > sold)
      return {
        ...base,
        units: sold,
        because: sold > 0 ? `less than ${wanted}, which would pass its date` : 'a whole pack would pass its date before it is sold',
      };
    if (!source) return { ...base, units: wanted, because: '' };
    const packs = atBreaks(wanted / multiple, source.breaks, {
      price: Number(source.price),
      packUnits: multiple,
      weekMean: p.weekMean,
      orderCost,
      holdingRate,
      mostPacks: most / multiple,
    });
    const because = packs * multiple > wanted ? `${packs} instead of ${wanted / multiple}: the lower price is worth it` : '';
    return { ...base, units: packs * multiple, because };
  }

  private async baskets(lines: readonly Proposed[]): Promise<Basket[]> {
    // What is due and cannot be bought is told too.
    const ids = [...new Set(lines.filter((l) => l.units > 0 || l.due > 0).map((l) => l.source?.supplierId ?? 0))];
    const least = await rows<{ id: number; value: string | null; units: number | null; pallets: number | null }>(
      this.source,
      'SELECT id, least_value AS value, least_units AS units, least_pallets AS pallets FROM supplier WHERE id IN (?) ORDER BY name',
      [[0, ...ids]],
    );
    const pallets = await rows<{ itemId: number; factor: number }>(
      this.source,
      "SELECT item_id AS itemId, MAX(factor) AS factor FROM pack_unit WHERE name = 'pallet' AND item_id IN (?) GROUP BY item_id",
      [[0, ...lines.map((l) => l.planned.itemId)]],
    );
    const palletOf = new Map(pallets.map((p) => [p.itemId, num(p.factor)]));
    return least.map((s) => {
      const of = lines.filter((l) => l.source?.supplierId === s.id);
      const asked: BasketLine[] = of.map((l) => ({
        id: l.planned.itemId,
        units: l.units,
        weekMean: l.planned.weekMean,
        daysLeft: l.daysLeft,
        multiple: l.source?.factor ?? 1,
        minimum: l.source?.factor ?? 1,
        unitPrice: l.source?.priceEach ?? 0,
        most: l.most,
        palletUnits: palletOf.get(l.planned.itemId) ?? null,
      }));
      const need = { value: s.value === null ? null : Number(s.value), units: s.units, pallets: s.pallets };
      const filled = asked.some((a) => a.units > 0) ? filledUp(asked, need) : { lines: asked, isEnough: true };
      const byId = new Map(filled.lines.map((l) => [l.id, l.units]));
      const known = of.map((l) => {
        const units = byId.get(l.planned.itemId) ?? l.units;
        return units > l.units
          ? { ...l, units, because: l.units > 0 ? 'more, to reach the least order' : 'taken along, to reach the least order' }
          : l;
      });
      return { supplierId: s.id, least: need, isEnough: filled.isEnough, lines: known.filter((l) => l.units > 0 || l.due > 0) };
    });
  }

  /** Items that somebody has put off for a while, with until when. */
  private async putOff(siteId: number, today: string): Promise<Map<number, string>> {
    const found = await rows<{ itemId: number; until: string }>(
      this.source,
      "SELECT item_id AS itemId, MAX(until_on) AS until FROM buying_choice WHERE site_id = ? AND is_over = 0 AND says IN ('later','enough') AND until_on > ? GROUP BY item_id",
      [siteId, today],
    );
    return new Map(found.map((f) => [f.itemId, f.until]));
  }

  private async costs(): Promise<{ orderCost: number; holdingRate: number }> {
    const [orderCost, holding] = await Promise.all([
      this.settings.get(this.source, 'orderCost'),
      this.settings.get(this.source, 'holdingPercent'),
    ]);
    return { orderCost, holdingRate: holding / 100 };
  }

  /** How long goods that have a date usually last from the day they come in, in days. */
  private async lives(itemIds: readonly number[]): Promise<Map<number, number>> {
    const found = await rows<{ itemId: number; days: string }>(
      this.source,
      'SELECT item_id AS itemId, AVG(DATEDIFF(expires_on, first_received_on)) AS days FROM lot WHERE item_id IN (?) AND expires_on IS NOT NULL AND first_received_on IS NOT NULL GROUP BY item_id HAVING days > 0',
      [[0, ...itemIds]],
    );
    return new Map(found.map((f) => [f.itemId, num(f.days)]));
  }

  /** What is forecast for some items, as it was when they were planned. */
  async forecasts(siteId: number, itemIds: readonly number[]): Promise<Map<number, Forecast>> {
    const found = await rows<{ itemId: number; weeks: unknown; method: string; sd: number }>(
      this.source,
      'SELECT item_id AS itemId, weeks, method, week_sd AS sd FROM item_plan WHERE site_id = ? AND item_id IN (?) AND weeks IS NOT NULL',
      [siteId, [0, ...itemIds]],
    );
    return new Map(
      found.map((f) => {
        const { from, means, sds } = parsed<WeeksKept>(f.weeks);
        const first = readWeek(from);
        const weeks = means.map((mean, k) => ({ week: weekText(first + k), mean, sd: sds[k] ?? 0 }));
        return [f.itemId, { method: f.method as Forecast['method'], weeks, sd: num(f.sd), busy: 1 }];
      }),
    );
  }

  /** Keeps what was proposed at the end of a day, so that the next morning shows what is new. */
  async keepDay(siteId: number, day: string): Promise<void> {
    const { baskets, built } = await this.at(siteId, day);
    const lines = [...baskets.flatMap((b) => b.lines), ...built].filter((l) => l.units > 0);
    if (lines.length === 0) return;
    await this.source.query(
      `INSERT IGNORE INTO buying_day (site_id, day, item_id, units) VALUES ${lines.map(() => '(?, ?, ?, ?)').join(', ')}`,
      lines.flatMap((l) => [siteId, day, l.planned.itemId, l.units]),
    );
  }
}

/** A forecast that was made some weeks ago, from the week of today on. */
export function fromToday<F extends Pick<Forecast, 'weeks'>>(forecast: F, today: string): F {
  const now = weekOfDate(today);
  const first = forecast.weeks[0] ? readWeek(forecast.weeks[0].week) : now;
  return { ...forecast, weeks: forecast.weeks.slice(Math.max(0, now - first)) };
}
