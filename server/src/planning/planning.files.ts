import { weekOfDate, weekText } from '@vectrum/core/replenish';
import { Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';
import { listTable, Lists, Shapes, windows } from '../exchange/index.js';
import { mustBeAt, type Person, rows, siteDay, wholeOf } from '../platform/index.js';
import { BuyingQueries } from './buying.queries.js';
import { CoverageQueries } from './coverage.queries.js';
import { mondayOf } from './demand-reading.service.js';
import { demandShape } from './demand.shape.js';
import { PlanInputs } from './plan-inputs.queries.js';
import type { BuyingLineDto } from './planning.dto.js';
import { RulesService } from './rules.service.js';
import { buyingRulesShape } from './rules.shape.js';

interface DemandRow {
  site: string;
  sku: string;
  week: number;
  ordered: number;
  given: number | null;
}
interface PlanRow {
  site: string;
  sku: string;
  name: string;
  method: string | null;
  plannedOn: string | null;
  weekMean: number;
  weekSd: number;
  point: number | null;
  size: number;
  safety: number;
  leadDays: number;
}

const ITEMS_AT_ONCE = 100;

const siteOf = (person: Person, query: Readonly<Record<string, string>>): number => {
  const asked = Number(query['site'] ?? person.siteIds[0] ?? 0);
  mustBeAt(person, asked);
  return asked;
};

/** Files of demand and plans, in and out. */
@Injectable()
export class PlanningFiles {
  constructor(
    private readonly source: DataSource,
    shapes: Shapes,
    lists: Lists,
    buying: BuyingQueries,
    coverage: CoverageQueries,
    inputs: PlanInputs,
    rules: RulesService,
  ) {
    shapes.register(
      demandShape(() => inputs.forgetSeasons()),
      buyingRulesShape,
    );
    lists.register(
      'buying',
      async (person, query) => {
        const { suppliers, built, unsourced } = await buying.at(person, siteOf(person, query));
        const lines: (BuyingLineDto & { supplier: string; currency: string })[] = [
          ...suppliers.flatMap((s) => s.lines.map((l) => ({ ...l, supplier: s.code, currency: s.currency }))),
          ...[...built, ...unsourced].map((l) => ({ ...l, supplier: '', currency: '' })),
        ];
        return listTable('buying', lines, [
          ['Supplier', (l) => l.supplier],
          ['SKU', (l) => l.sku],
          ['Item', (l) => l.name],
          ['Units', (l) => l.units],
          ['Packs', (l) => l.units / l.factor],
          ['Holds', (l) => l.factor],
          ...(person.seesCosts
            ? ([
                ['Price of a pack', (l: BuyingLineDto) => (l.price === undefined ? '' : Number(l.price))],
                ['Currency', (l: BuyingLineDto & { currency: string }) => l.currency],
              ] as const)
            : []),
          ['Free', (l) => l.free],
          ['On order', (l) => l.onOrder],
          ['Point to order', (l) => l.point],
          ['A week', (l) => l.weekMean],
          ['Runs out', (l) => l.runsOutOn],
        ]);
      },
      'buy',
      { daily: 'site' },
    );
    lists.register(
      'excess',
      async (person, query) => {
        const { rows: found } = await coverage.excess(person, siteOf(person, query));
        return listTable('excess', found, [
          ['SKU', (r) => r.sku],
          ['Item', (r) => r.name],
          ['Free', (r) => r.free],
          ['Too many', (r) => r.units],
          ['Lasts, days', (r) => r.coverDays],
          ['Last came in, days ago', (r) => r.ageDays],
          ['Expires', (r) => r.expiresOn],
          ...(person.seesCosts ? ([['Worth', (r: { value?: string }) => Number(r.value ?? 0)]] as const) : []),
        ]);
      },
      'buy',
      { daily: 'site' },
    );
    lists.register(
      'buying-rules',
      async (person) =>
        listTable('buying-rules', await rules.list(person), [
          ['Class', (r) => r.className],
          ['SKU', (r) => r.sku],
          ['Site', (r) => r.site],
          ['Met from the shelf, per cent', (r) => (r.servicePercent === null ? '' : Number(r.servicePercent))],
          ['Ordered every, days', (r) => r.reviewDays],
          ['Supplier', (r) => r.supplier],
          ['Sells like', (r) => r.likeSku],
          ['Per cent of it', (r) => r.likePercent],
          ['Room for, units', (r) => r.roomUnits],
          ['At its own point', (r) => (r.isFixed ? 'yes' : 'no')],
          ['Bought no more', (r) => (r.isDropped ? 'yes' : 'no')],
        ]),
      'buy',
    );
    lists.register(
      'demand',
      (person, query) => listTable('demand', this.demand(person, wholeOf(query['weeks'], 0, 0, 1000)), DEMAND),
      'buy',
      { daily: 'house', with: { weeks: '13' } },
    );
    lists.register(
      'plans',
      (person) =>
        listTable(
          'plans',
          windows((from, count) => this.plans(person, from, count)),
          PLANS,
        ),
      'buy',
      { daily: 'house' },
    );
  }

  /** Demand by site, item and week: some items at a time, whatever there is of it. `weeks`: of so many last weeks; nought: of all. */
  private async *demand(person: Person, weeks: number): AsyncGenerator<DemandRow> {
    const since = weeks === 0 ? 0 : weekOfDate((await siteDay(this.source, null)).today) - weeks;
    for (const siteId of person.siteIds) {
      for (let after = 0; ;) {
        const items = await rows<{ id: number }>(
          this.source,
          'SELECT DISTINCT item_id AS id FROM demand_week WHERE site_id = ? AND item_id > ? ORDER BY item_id LIMIT ?',
          [siteId, after, ITEMS_AT_ONCE],
        );
        if (items.length === 0) break;
        after = items.at(-1)?.id ?? 0;
        yield* await rows<DemandRow>(
          this.source,
          `SELECT s.code AS site, i.sku, d.week, d.ordered_units AS ordered, d.given_units AS \`given\` FROM demand_week d JOIN site s ON s.id = d.site_id JOIN item i ON i.id = d.item_id
           WHERE d.site_id = ? AND d.item_id IN (?) AND d.week >= ? ORDER BY d.item_id, d.week`,
          [siteId, items.map((i) => i.id), since],
        );
      }
    }
  }

  private async plans(person: Person, from: number, count: number): Promise<{ rows: PlanRow[] }> {
    const found = await rows<PlanRow>(
      this.source,
      `SELECT s.code AS site, i.sku, i.name, p.method, p.planned_on AS plannedOn, p.week_mean AS weekMean, p.week_sd AS weekSd, p.point_units AS point, p.size_units AS size, p.safety_units AS safety, p.lead_days AS leadDays
       FROM item_plan p JOIN site s ON s.id = p.site_id JOIN item i ON i.id = p.item_id WHERE p.site_id IN (?) ORDER BY p.site_id, p.item_id LIMIT ? OFFSET ?`,
      [[0, ...person.siteIds], count, from],
    );
    return { rows: found };
  }
}

const DEMAND = [
  ['Site', (d: DemandRow) => d.site],
  ['SKU', (d: DemandRow) => d.sku],
  ['Week', (d: DemandRow) => weekText(d.week)],
  ['Begins', (d: DemandRow) => mondayOf(d.week)],
  ['Units asked for', (d: DemandRow) => d.given ?? d.ordered],
] as const;

const PLANS = [
  ['Site', (p: PlanRow) => p.site],
  ['SKU', (p: PlanRow) => p.sku],
  ['Item', (p: PlanRow) => p.name],
  ['Forecast by', (p: PlanRow) => p.method],
  ['Planned', (p: PlanRow) => p.plannedOn],
  ['A week', (p: PlanRow) => Math.round(p.weekMean * 100) / 100],
  ['Spread of a week', (p: PlanRow) => Math.round(p.weekSd * 100) / 100],
  ['Point to order', (p: PlanRow) => p.point],
  ['Size of an order', (p: PlanRow) => p.size],
  ['Safety stock', (p: PlanRow) => p.safety],
  ['Lead time, days', (p: PlanRow) => Math.round(p.leadDays * 10) / 10],
] as const;
