import { demandBetween, projected, weekOfDate, weekText, type WhatIf } from '@vectrum/core/replenish';
import { Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';
import { ComingQueries } from '../orders/index.js';
import { addDays, dayIn, notFound, num, one, type Person, rows, siteDay } from '../platform/index.js';
import { mondayOf } from './demand-reading.service.js';
import type { ItemPlanDto, ItemTruthDto } from './item-plan.dto.js';
import { LeadTimes } from './lead-times.queries.js';
import { MOST_WEEKS, PlanInputs } from './plan-inputs.queries.js';
import { freeOf, positionOf, PositionsQueries } from './positions.queries.js';
import { fromToday, ProposalsQueries } from './proposals.queries.js';
import { SourcesQueries } from './sources.queries.js';

const DAYS_AHEAD = 182;
const MOST_TRUTHS = 20;

/** The plan of one item at a site, down to the weeks and documents behind it. */
@Injectable()
export class ItemPlanQueries {
  constructor(
    private readonly source: DataSource,
    private readonly inputs: PlanInputs,
    private readonly positions: PositionsQueries,
    private readonly proposals: ProposalsQueries,
    private readonly sources: SourcesQueries,
    private readonly leads: LeadTimes,
    private readonly coming: ComingQueries,
  ) {}

  async read(person: Person, sku: string, siteId: number, what: WhatIf & { orderUnits: number }): Promise<ItemPlanDto> {
    const item = await one<{ id: number; class: string }>(this.source, 'SELECT id, class FROM item WHERE sku = ?', [sku]);
    const site = await one<{ id: number; name: string; timeZone: string }>(
      this.source,
      'SELECT id, name, time_zone AS timeZone FROM site WHERE id = ?',
      [siteId],
    );
    if (!item || !site) throw notFound(`The plan of ${sku}`);
    const { today } = await siteDay(this.source, siteId);
    const [planned] = await this.positions.at(siteId, today, item.id);
    if (!planned) throw notFound(`A plan of ${sku} at ${site.name}: nobody has asked for it there yet. A plan`);
    const now = Date.now();
    const [forecasts, [input], sources, coming, going, free, truths, proposed] = await Promise.all([
      this.proposals.forecasts(siteId, [item.id]),
      this.inputs.of(siteId, [item.id], today),
      this.sources.of([item.id]),
      this.coming.comingTo([site], [item.id], now),
      this.coming.goingFrom([siteId], [item.id], now),
      this.coming.freeAt([siteId], [item.id]),
      this.truths(siteId, item.id, today),
      this.proposals.at(siteId, today),
    ]);
    const forecast = fromToday(forecasts.get(item.id) ?? { method: 'nothing known' as const, weeks: [], sd: 0, busy: 0 }, today);
    const day = (at: Date | number) => dayIn(site.timeZone, new Date(at));
    const arrivals = coming.map((c) => ({ units: c.units, due: day(c.at), document: c.document, who: c.who }));
    const promised = going.map((g) => ({ units: g.units, due: day(g.due), document: g.document, who: g.who }));
    const onHand = Math.max(0, free(siteId, item.id));
    const lead = Math.ceil(planned.leadDays);
    const order = what.orderUnits > 0 ? { order: { units: what.orderUnits, inDays: Math.max(1, lead) } } : {};
    const ahead = { today, onHand, promised, arrivals, forecast };
    const mine = [...proposed.baskets.flatMap((b) => b.lines), ...proposed.built, ...proposed.unsourced].find(
      (l) => l.planned.itemId === item.id,
    );
    const within = proposed.all.find((p) => p.itemId === item.id)?.within ?? 0;
    const leadTimes = await this.leads.of((sources.get(item.id) ?? []).map((s) => s.supplierId));
    const names = await this.names((sources.get(item.id) ?? []).map((s) => s.supplierId));
    return {
      sku: planned.sku,
      name: planned.name,
      picture: planned.picture,
      kind: planned.kind,
      unit: planned.unit,
      unitPlural: planned.unitPlural,
      siteId,
      site: site.name,
      today,
      method: planned.method ?? 'nothing known',
      plannedOn: planned.plannedOn,
      weekMean: planned.weekMean,
      weekSd: planned.weekSd,
      service: planned.service,
      fill: planned.fill,
      leadDays: planned.leadDays,
      leadSd: input?.item.leadTimeDays.sd ?? 0,
      reviewDays: planned.reviewDays,
      expectedMeanwhile: Math.round(demandBetween(forecast, today, 0, planned.leadDays)),
      safety: planned.safety,
      point: planned.point,
      size: planned.size,
      fixedPoint: planned.fixedPoint,
      fixedUpTo: planned.fixedUpTo,
      isFixed: input?.rule.isFixed ?? false,
      isDropped: input?.rule.isDropped ?? false,
      onHand: planned.onHand,
      held: planned.held,
      reserved: planned.reserved,
      owed: planned.owed,
      onOrder: planned.onOrder,
      drafts: planned.drafts,
      within,
      free: freeOf(planned),
      position: positionOf({ ...planned, within }),
      proposed: mine?.units ?? 0,
      because: mine?.because ?? '',
      factor: mine?.source?.factor ?? sources.get(item.id)?.[0]?.factor ?? 1,
      history: this.history(input?.item.history ?? [], today),
      forecast: forecast.weeks.map((w, k) => ({ ...w, monday: mondayOf(weekOfDate(today) + k) })),
      arrivals,
      promised,
      usual: shown(projected(ahead, DAYS_AHEAD), today),
      whatIf: shown(projected(ahead, DAYS_AHEAD, { ...what, ...order }), today),
      suppliers: (sources.get(item.id) ?? []).map((s) => ({
        code: names.get(s.supplierId)?.code ?? '',
        name: names.get(s.supplierId)?.name ?? '',
        isChosen: s.supplierId === planned.supplierId,
        factor: s.factor,
        packPlural: s.packPlural,
        currency: s.currency,
        ...(person.seesCosts ? { price: s.price } : {}),
        breaks: person.seesCosts ? s.breaks.map((b) => ({ from: b.from, price: String(b.price) })) : [],
        leadDays: leadTimes.get(s.supplierId)?.mean ?? 0,
        leadSd: leadTimes.get(s.supplierId)?.sd ?? 0,
        orders: leadTimes.get(s.supplierId)?.orders ?? 0,
      })),
      truths,
    };
  }

  /** Complete weeks and the one that runs, the oldest first. */
  private history(history: readonly { week: string; units: number }[], today: string): ItemPlanDto['history'] {
    const now = weekOfDate(today);
    const units = new Map(history.map((h) => [h.week, h.units]));
    const first = history[0]?.week ?? weekText(now);
    const weeks: ItemPlanDto['history'] = [];
    for (let week = now - MOST_WEEKS; week <= now; week += 1) {
      const text = weekText(week);
      if (text >= first) weeks.push({ week: text, monday: mondayOf(week), units: units.get(text) ?? 0 });
    }
    return weeks;
  }

  private async names(ids: readonly number[]): Promise<Map<number, { code: string; name: string }>> {
    const found = await rows<{ id: number; code: string; name: string }>(
      this.source,
      'SELECT id, code, name FROM supplier WHERE id IN (?)',
      [[0, ...ids]],
    );
    return new Map(found.map(({ id, ...s }) => [id, s]));
  }

  /** What was proposed and taken before, beside what was asked for until it came. */
  private async truths(siteId: number, itemId: number, today: string): Promise<ItemTruthDto[]> {
    const found = await rows<Omit<ItemTruthDto, 'asked'> & { horizon: number; expected: number }>(
      this.source,
      `SELECT c.chosen_on AS \`on\`, c.says, c.proposed_units AS proposed, c.taken_units AS taken, c.expected_units AS expected, c.horizon_days AS horizon, c.why, c.document, p.name AS \`by\`
       FROM buying_choice c JOIN person p ON p.id = c.person_id WHERE c.site_id = ? AND c.item_id = ? ORDER BY c.id DESC LIMIT ${MOST_TRUTHS}`,
      [siteId, itemId],
    );
    return Promise.all(
      found.map(async ({ horizon, ...f }) => {
        const until = addDays(f.on, num(horizon));
        const isOver = f.says === 'taken' && horizon > 0 && until < today;
        const asked = isOver ? await this.askedFor(siteId, itemId, f.on, until) : null;
        return { ...f, expected: Math.round(num(f.expected)), asked };
      }),
    );
  }

  private async askedFor(siteId: number, itemId: number, from: string, to: string): Promise<number> {
    const found = await one<{ units: string | null }>(
      this.source,
      `SELECT SUM(l.units) AS units FROM sales_order_line l JOIN sales_order o ON o.id = l.order_id WHERE l.item_id = ? AND o.site_id = ? AND o.state NOT IN ('quote','cancelled') AND o.placed_at >= ? AND o.placed_at < ?`,
      [itemId, siteId, from, to],
    );
    return num(found?.units ?? 0);
  }
}

const rounded = (n: number) => Math.round(n * 10) / 10;

function shown({ days, runsOut, missed, broken }: ReturnType<typeof projected>, today: string): ItemPlanDto['usual'] {
  return {
    days: days.map((d) => ({ day: addDays(today, d.day), stock: rounded(d.stock), low: rounded(d.low), high: rounded(d.high) })),
    runsOutOn: runsOut === null ? null : addDays(today, runsOut),
    missed: Math.round(missed),
    broken: Math.round(broken),
  };
}
