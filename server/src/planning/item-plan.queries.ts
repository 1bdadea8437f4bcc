import { demandBetween, projected, weekOfDate, weekText, type WhatIf } from '@vectrum/core/replenish';
import { Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';
import { ComingQueries } from '../orders/index.js';
import { addDays, dayIn, notFound, one, type Person, Problem, rows, siteDay } from '../platform/index.js';
import { mondayOf } from './demand-reading.service.js';
import type { ItemPlanDto } from './item-plan.dto.js';
import { LeadTimes } from './lead-times.queries.js';
import { MOST_WEEKS, PlanInputs } from './plan-inputs.queries.js';
import { freeOf, positionOf, PositionsQueries } from './positions.queries.js';
import { fromToday, ProposalsQueries } from './proposals.queries.js';
import { SourcesQueries } from './sources.queries.js';
import { TruthQueries } from './truth.queries.js';

const DAYS_AHEAD = 182;

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
    private readonly truth: TruthQueries,
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
    const proposed = await this.proposals.at(siteId, today, await this.positions.beside(siteId, item.id));
    const planned = proposed.all.find((p) => p.itemId === item.id);
    if (!planned)
      throw new Problem(
        404,
        'not-found',
        `Nobody has asked for ${sku} at ${site.name} yet, so that there is no plan of it. Past demand is taken in under Imports`,
      );
    const now = Date.now();
    const [forecasts, [input], sources, coming, going, free, truths] = await Promise.all([
      this.proposals.forecasts(siteId, [item.id]),
      this.inputs.of(siteId, [item.id], today),
      this.sources.of([item.id]),
      this.coming.comingTo([site], [item.id], now),
      this.coming.goingFrom([siteId], [item.id], now),
      this.coming.freeAt([siteId], [item.id]),
      this.truth.ofItem(siteId, item.id, today),
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
      within: planned.within,
      free: freeOf(planned),
      position: positionOf(planned),
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
