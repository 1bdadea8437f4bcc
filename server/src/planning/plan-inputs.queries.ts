import { createHash } from 'node:crypto';
import { ANY_DAY, longestWait } from '@vectrum/core/buying';
import {
  goesInto,
  gradesOf,
  type Mark,
  type PartUse,
  seasonOfClass,
  seriesOf,
  type ToPlan,
  weekOfDate,
  weekText,
  type Worth,
} from '@vectrum/core/replenish';
import { Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';
import { num, rows } from '../platform/index.js';
import { SettingsService } from '../settings/index.js';
import { type BuyingRule, BuyingRules } from './buying-rules.js';
import { LeadTimes } from './lead-times.queries.js';
import { SourcesQueries } from './sources.queries.js';

/** Three years say enough of a year's course. */
export const MOST_WEEKS = 157;
/** So many goods of a class say what its seasons are. */
const MOST_OF_CLASS = 400;
/** Per cent that may be asked for: all of it would take endless stock. */
const [LEAST_SERVICE, MOST_SERVICE] = [50, 99.9];
/** Building takes a day or two, and it is begun whenever something is due. */
const BUILD_DAYS = { mean: 2, sd: 1 };

/** An item with all that its plan is made from. */
export interface PlanInput {
  itemId: number;
  supplierId: number | null;
  rule: BuyingRule;
  item: ToPlan;
  /** Tells apart what a plan was made from. */
  hash: string;
}

interface ItemRow {
  id: number;
  class: string;
  kind: string;
  cost: string | null;
}
type WeekRow = { itemId: number; week: number; units: number };

/** What plans are made from: what was asked for, from whom it comes and how soon, and what somebody has said about it. */
@Injectable()
export class PlanInputs {
  private readonly seasons = new Map<string, Promise<number[] | null>>();
  private readonly worths = new Map<number, Promise<ReadonlyMap<number, Worth>>>();

  constructor(
    private readonly source: DataSource,
    private readonly settings: SettingsService,
    private readonly rules: BuyingRules,
    private readonly leads: LeadTimes,
    private readonly sources: SourcesQueries,
  ) {}

  async of(siteId: number, itemIds: readonly number[], today: string): Promise<PlanInput[]> {
    const now = weekOfDate(today);
    const above = goesInto(await this.partUses());
    const [items, sources, ruleFor, marks, orderCost, holding, serviceFor] = await Promise.all([
      rows<ItemRow>(
        this.source,
        `SELECT i.id, i.class, i.kind, COALESCE(CAST(k.value / NULLIF(k.units, 0) AS DECIMAL(18,6)), i.cost) AS cost FROM item i LEFT JOIN cost_pool k ON k.item_id = i.id AND k.units > 0 WHERE i.id IN (?) ORDER BY i.id`,
        [[0, ...itemIds]],
      ),
      this.sources.of(itemIds),
      this.rules.all(siteId),
      this.marks(siteId),
      this.settings.get(this.source, 'orderCost'),
      this.settings.get(this.source, 'holdingPercent'),
      this.serviceAt(siteId),
    ]);
    const leads = await this.leads.of([...new Set([...sources.values()].flatMap((s) => s.map((x) => x.supplierId)))]);
    const likes = items.flatMap((i) => ruleFor(i.id, i.class).likeItemId ?? []);
    const related = new Set([...itemIds, ...likes, ...itemIds.flatMap((id) => [...(above.get(id)?.keys() ?? [])])]);
    const weeks = await this.weeks(siteId, [...related], now);
    return Promise.all(
      items.map(async (i): Promise<PlanInput> => {
        const rule = ruleFor(i.id, i.class);
        const source = (sources.get(i.id) ?? []).find((s) => rule.supplierId === null || s.supplierId === rule.supplierId) ?? null;
        const own = added([[weeks.get(i.id), 1], ...[...(above.get(i.id) ?? [])].map(([id, units]) => [weeks.get(id), units] as const)]);
        const history = rule.likeItemId === null ? own : begunLike(own, weeks.get(rule.likeItemId), (rule.likePercent ?? 100) / 100);
        const isBuilt = i.kind === 'assembly';
        const lead = isBuilt ? BUILD_DAYS : (leads.get(source?.supplierId ?? 0) ?? { mean: 14, sd: 4 });
        const cost = Number(i.cost ?? source?.priceEach ?? 0);
        const item: ToPlan = {
          history: [...history].map(([week, units]) => ({ week: weekText(week), units })),
          leadTimeDays: lead,
          reviewDays: isBuilt ? 1 : (rule.reviewDays ?? chances(source?.orderDays)),
          serviceLevel: serviceFor(i.id, rule) / 100,
          minimumUnits: isBuilt ? 1 : (source?.factor ?? 1),
          multipleUnits: isBuilt ? 1 : (source?.factor ?? 1),
          unitCost: cost,
          orderCost: isBuilt ? orderCost / 4 : orderCost,
          holdingRate: holding / 100,
          classSeason: await this.season(siteId, i.class, today),
          marks: marks.filter((m) => (m.itemId ?? i.id) === i.id && (m.class ?? i.class) === i.class),
        };
        const hash = createHash('sha1')
          .update(JSON.stringify([now, item, source?.supplierId, rule.isDropped]))
          .digest('hex');
        return { itemId: i.id, supplierId: isBuilt ? null : (source?.supplierId ?? null), rule, item, hash };
      }),
    );
  }

  /** Units asked for by item and week, the oldest first; what somebody has given stands instead of what was ordered here. */
  async weeks(siteId: number, itemIds: readonly number[], now: number): Promise<Map<number, Map<number, number>>> {
    const found = await rows<WeekRow>(
      this.source,
      'SELECT item_id AS itemId, week, COALESCE(given_units, ordered_units) AS units FROM demand_week WHERE site_id = ? AND item_id IN (?) AND week >= ? ORDER BY item_id, week',
      [siteId, [0, ...itemIds], now - MOST_WEEKS],
    );
    const all = new Map<number, Map<number, number>>();
    for (const { itemId, week, units } of found) all.set(itemId, (all.get(itemId) ?? new Map<number, number>()).set(week, units));
    return all;
  }

  partUses(): Promise<PartUse[]> {
    return rows<PartUse>(
      this.source,
      `SELECT p.item_id AS itemId, p.part_item_id AS partId, p.units FROM item_part p JOIN item i ON i.id = p.item_id AND i.kind = 'assembly' ORDER BY p.item_id, p.part_item_id`,
    );
  }

  private async marks(siteId: number): Promise<(Mark & { itemId: number | null; class: string | null })[]> {
    const found = await rows<{ name: string; itemId: number | null; class: string | null; from: number; to: number; lift: number | null }>(
      this.source,
      'SELECT name, item_id AS itemId, class, from_week AS `from`, to_week AS `to`, lift_percent AS lift FROM demand_mark WHERE site_id IS NULL OR site_id = ? ORDER BY id',
      [siteId],
    );
    return found.map((m) => ({ ...m, from: weekText(m.from), to: weekText(m.to), lift: m.lift === null ? null : num(m.lift) / 100 }));
  }

  /** Per cent to be met: as a rule says of the item or its class; else as is usual, more of what is worth much and less of what is not. */
  private async serviceAt(siteId: number): Promise<(itemId: number, rule: BuyingRule) => number> {
    const { servicePercent, serviceMoreForA, serviceLessForC } = await this.settings.several(this.source, [
      'servicePercent',
      'serviceMoreForA',
      'serviceLessForC',
    ]);
    const worths = serviceMoreForA > 0 || serviceLessForC > 0 ? await this.worthsAt(siteId) : null;
    const points = { A: serviceMoreForA, B: 0, C: -serviceLessForC };
    return (itemId, rule) => {
      const usual = rule.servicePercent ?? servicePercent;
      // What was never planned is worth nothing yet, and is not to be out of stock for that.
      const own = rule.isServiceOwn ? 0 : points[worths?.get(itemId) ?? 'B'];
      return Math.min(MOST_SERVICE, Math.max(LEAST_SERVICE, usual + own));
    };
  }

  /** What goods are worth at a site, by their plans; found once for each reading of history. */
  private worthsAt(siteId: number): Promise<ReadonlyMap<number, Worth>> {
    const known = this.worths.get(siteId) ?? this.readWorths(siteId);
    this.worths.set(siteId, known);
    // What could not be read is read again by whoever asks next.
    known.catch(() => this.worths.delete(siteId));
    return known;
  }

  private async readWorths(siteId: number): Promise<ReadonlyMap<number, Worth>> {
    const found = await rows<{ itemId: number; yearValue: string }>(
      this.source,
      'SELECT item_id AS itemId, week_mean * 52 * unit_cost AS yearValue FROM item_plan WHERE site_id = ? AND week_mean > 0 ORDER BY item_id',
      [siteId],
    );
    const graded = gradesOf(found.map((f) => ({ itemId: f.itemId, yearValue: Number(f.yearValue) })));
    return new Map([...graded].map(([{ itemId }, worth]) => [itemId, worth]));
  }

  /** The seasons of a class at a site, found once a week. */
  private season(siteId: number, className: string, today: string): Promise<number[] | null> {
    if (className === '') return Promise.resolve(null);
    const now = weekOfDate(today);
    const key = `${siteId}/${now}/${className}`;
    const known = this.seasons.get(key) ?? this.readSeason(siteId, className, today);
    if (!this.seasons.has(key) && this.seasons.size > 2_000) this.seasons.clear();
    this.seasons.set(key, known);
    known.catch(() => this.seasons.delete(key));
    return known;
  }

  /** What was known of seasons and worth is read anew: history has been taken in. */
  forgetSeasons(): void {
    this.seasons.clear();
    this.worths.clear();
  }

  private async readSeason(siteId: number, className: string, today: string): Promise<number[] | null> {
    const goods = await rows<{ id: number }>(this.source, `SELECT id FROM item WHERE class = ? ORDER BY id LIMIT ${MOST_OF_CLASS}`, [
      className,
    ]);
    const ids = goods.map((g) => g.id);
    const weeks = await this.weeks(siteId, ids, weekOfDate(today));
    return seasonOfClass(
      [...weeks.values()].map((w) =>
        seriesOf(
          [...w].map(([week, units]) => ({ week: weekText(week), units })),
          today,
        ),
      ),
    );
  }
}

/** Days from one chance to order to the next: once a week, or as the supplier takes orders. */
const chances = (orderDays: string = ANY_DAY): number => (orderDays === ANY_DAY ? 7 : longestWait(orderDays));

type Weeks = ReadonlyMap<number, number>;

/** What several were asked for together, each so many times. */
function added(all: readonly (readonly [Weeks | undefined, number])[]): Weeks {
  const sum = new Map<number, number>();
  for (const [weeks, times] of all) for (const [week, units] of weeks ?? []) sum.set(week, (sum.get(week) ?? 0) + units * times);
  return new Map([...sum].sort(([a], [b]) => a - b));
}

/** A new item's history, with what another was asked for before it came, as a share of that. */
function begunLike(own: Weeks, other: Weeks | undefined, share: number): Weeks {
  const first = Math.min(...own.keys());
  const before = [...(other ?? [])].filter(([week]) => week < first).map(([week, units]) => [week, Math.round(units * share)] as const);
  return new Map([...before, ...own]);
}
