import type { Plan } from '@vectrum/core/replenish';
import { Inject, Injectable } from '@nestjs/common';
import type { Logger } from 'pino';
import { DataSource } from 'typeorm';
import { addDays, claimRows, LOGGER, rows, siteDay, task, Work, Worker } from '../platform/index.js';
import { DemandReading } from './demand-reading.service.js';
import { type PlanInput, PlanInputs } from './plan-inputs.queries.js';
import { ProposalsQueries } from './proposals.queries.js';
import type { planAll } from './planning-work.js';

const PLAN = task<typeof planAll>('planning/planAll', 60_000, 'These are more items than can be planned at once');
const BEAT_MS = 30_000;
/** Items that are planned in one go: enough to fill a thread for half a second. */
const AT_ONCE = 100;
const LEASE_SECONDS = 120;
/** Proposals of days that are over are kept so long. */
const KEPT_DAYS = 60;

interface Job {
  siteId: number;
  rows: { id: number; siteId: number; itemId: number; madeFrom: string | null }[];
}

/**
 * Plans what is due, in threads: each morning everything is looked at, and planned anew where the week is another or what it is made
 * from has changed. What was begun when a server ends is due again by itself.
 */
@Injectable()
export class Planner extends Worker<Job> {
  protected readonly beatMs = BEAT_MS;
  /** While one is planned in its thread, another is read and a third written. */
  protected override readonly atOnce = 3;
  protected override readonly jobMs = 90_000;

  constructor(
    private readonly source: DataSource,
    private readonly work: Work,
    private readonly demand: DemandReading,
    private readonly inputs: PlanInputs,
    private readonly proposals: ProposalsQueries,
    @Inject(LOGGER) protected readonly log: Logger,
  ) {
    super();
  }

  /** Reads what has been asked for where a day has begun, and makes everything due there; `again`: though it was done today. */
  async look(siteIds: readonly number[], again = false): Promise<void> {
    for (const siteId of siteIds) {
      const { today } = await siteDay(this.source, siteId);
      if (!(await this.demand.read(siteId, again))) continue;
      this.inputs.forgetSeasons();
      if (!again) await this.proposals.keepDay(siteId, addDays(today, -1));
      await this.source.query('UPDATE item_plan SET due_at = UTC_TIMESTAMP(3) WHERE site_id = ? AND due_at IS NULL', [siteId]);
      await this.source.query('DELETE FROM buying_day WHERE site_id = ? AND day < ?', [siteId, addDays(today, -KEPT_DAYS)]);
    }
    if (again) this.nudge();
  }

  protected async claim(): Promise<Job[]> {
    const sites = await rows<{ id: number }>(this.source, 'SELECT id FROM site ORDER BY id');
    await this.look(sites.map((s) => s.id));
    const taken = await claimRows<Job['rows'][number]>(this.source, {
      table: 'item_plan',
      select: 'j.id, j.site_id AS siteId, j.item_id AS itemId, j.made_from AS madeFrom',
      due: 'j.due_at <= UTC_TIMESTAMP(3)',
      order: 'j.due_at',
      most: AT_ONCE,
      lease: 'due_at = UTC_TIMESTAMP(3) + INTERVAL ? SECOND',
      leaseParams: [LEASE_SECONDS],
    });
    const bySite = new Map<number, Job>();
    for (const row of taken) {
      const job = bySite.get(row.siteId) ?? { siteId: row.siteId, rows: [] };
      job.rows.push(row);
      bySite.set(row.siteId, job);
    }
    return [...bySite.values()];
  }

  protected async carryOut(job: Job): Promise<void> {
    const { today } = await siteDay(this.source, job.siteId);
    const inputs = await this.inputs.of(
      job.siteId,
      job.rows.map((r) => r.itemId),
      today,
    );
    const rowOf = new Map(job.rows.map((r) => [r.itemId, r]));
    const changed = inputs.filter((i) => rowOf.get(i.itemId)?.madeFrom !== i.hash);
    const plans = await this.work.run(
      PLAN,
      changed.map(({ itemId, item }) => ({ itemId, item })),
      today,
    );
    await this.keep(
      changed.flatMap((input, i) => {
        const [row, plan] = [rowOf.get(input.itemId), plans[i]];
        return row && plan ? [{ id: row.id, site_id: job.siteId, ...planRow(input, plan) }] : [];
      }),
    );
    // What somebody has made due meanwhile, by a rule or a file, stays due: only what is still leased is done with.
    await this.source.query('UPDATE item_plan SET planned_on = ?, due_at = IF(due_at > UTC_TIMESTAMP(3), NULL, due_at) WHERE id IN (?)', [
      today,
      job.rows.map((r) => r.id),
    ]);
  }

  /** Keeps plans in one statement, whatever there are of them. */
  private async keep(plans: readonly (ReturnType<typeof planRow> & { id: number; site_id: number })[]): Promise<void> {
    const [first] = plans;
    if (!first) return;
    const columns = Object.keys(first) as (keyof typeof first)[];
    await this.source.query(
      `INSERT INTO item_plan (${columns.join(', ')}) VALUES ? ON DUPLICATE KEY UPDATE ${columns.map((c) => `${c} = VALUES(${c})`).join(', ')}`,
      [plans.map((p) => columns.map((c) => p[c]))],
    );
  }
}

/** A plan as it is kept, with what it was made from. */
function planRow({ itemId, item, supplierId, hash }: PlanInput, plan: Plan) {
  return {
    item_id: itemId,
    made_from: hash,
    method: plan.forecast.method,
    week_mean: plan.weekMean,
    week_sd: plan.forecast.sd,
    pace: paceOf(item.history.map((h) => h.units)),
    point_units: plan.point === null ? null : Math.max(0, Math.round(plan.point)),
    size_units: Math.round(plan.size),
    safety_units: plan.safetyUnits,
    fill: plan.fill,
    lead_days: item.leadTimeDays.mean,
    lead_sd: item.leadTimeDays.sd,
    review_days: item.reviewDays,
    service: item.serviceLevel,
    unit_cost: item.unitCost.toFixed(6),
    supplier_id: supplierId,
    weeks: JSON.stringify({
      from: plan.forecast.weeks[0]?.week ?? null,
      means: plan.forecast.weeks.map((w) => Math.round(w.mean * 100) / 100),
      sds: plan.forecast.weeks.map((w) => Math.round(w.sd * 100) / 100),
    }),
  };
}

const RECENT = 4;
const BEFORE = 26;

/** How the last month compares with the half year before it; null where too little is known. Of weeks that brought something. */
function paceOf(units: readonly number[]): number | null {
  const [recent, before] = [units.slice(-RECENT), units.slice(-RECENT - BEFORE, -RECENT)];
  if (before.length < 8) return null;
  const mean = (list: readonly number[]) => list.reduce((a, b) => a + b, 0) / list.length;
  return mean(before) > 0 ? mean(recent) / mean(before) : null;
}
