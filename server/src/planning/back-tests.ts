import type { BackTested } from '@vectrum/core/replenish';
import { Inject, Injectable } from '@nestjs/common';
import type { Logger } from 'pino';
import { DataSource } from 'typeorm';
import { type Act, claimRows, CommandLog, insert, LOGGER, mustBeAt, NOW, num, one, parsed, rows, siteDay, task, update, Work, Worker } from '../platform/index.js'; // prettier-ignore
import type { BackTestDto, RuleOutcomeDto } from './back-test.dto.js';
import { PlanInputs } from './plan-inputs.queries.js';
import type { backTestAll } from './planning-work.js';

const TEST = task<typeof backTestAll>('planning/backTestAll', 80_000, 'These are more items than can be tried at once');
const BEAT_MS = 5_000;
/** Items that are lived through in one go: some seconds of a thread. */
const AT_ONCE = 40;
const LEASE_SECONDS = 120;

type Sums = Record<'planned' | 'cover' | 'fixed', BackTested & { items: number }>;
interface Job {
  id: number;
  siteId: number;
  after: number;
  done: number;
  result: unknown;
}

const NOTHING = { items: 0, asked: 0, met: 0, orders: 0, stockValue: 0, cost: 0 };

/** Lives through the last year of a site by several rules, a few items at a time; what was begun goes on where it was left. */
@Injectable()
export class BackTests extends Worker<Job> {
  protected readonly beatMs = BEAT_MS;
  protected override readonly atOnce = 1;
  protected override readonly jobMs = 100_000;

  constructor(
    private readonly source: DataSource,
    private readonly commands: CommandLog,
    private readonly work: Work,
    private readonly inputs: PlanInputs,
    @Inject(LOGGER) protected readonly log: Logger,
  ) {
    super();
  }

  /** Begins to try a site's last year. Of two who ask while one runs, the second is shown the first's. */
  async ask(act: Act, siteId: number): Promise<{ id: number }> {
    mustBeAt(act.person, siteId);
    const begun = await this.commands.run(act, 'back-test', { siteId }, async (tx) => {
      const running = await one<{ id: number }>(tx, 'SELECT id FROM back_test WHERE site_id = ? AND due_at IS NOT NULL FOR UPDATE', [
        siteId,
      ]);
      if (running) return { id: num(running.id) };
      const items = await one<{ n: string }>(tx, 'SELECT COUNT(*) AS n FROM item_plan WHERE site_id = ?', [siteId]);
      const total = num(items?.n);
      const result = JSON.stringify({ planned: NOTHING, cover: NOTHING, fixed: NOTHING });
      return {
        id: await insert(tx, 'back_test', { site_id: siteId, asked_by_id: act.person.id, due_at: total > 0 ? NOW : null, total, result }),
      };
    });
    this.nudge();
    return begun;
  }

  /** The newest of a site, with how far it is; null where nobody has asked for one. */
  async latest(siteId: number): Promise<BackTestDto | null> {
    const found = await one<{ id: number; askedAt: Date; by: string; total: number; done: number; due: Date | null; result: unknown }>(
      this.source,
      'SELECT b.id, b.asked_at AS askedAt, p.name AS `by`, b.total, b.done, b.due_at AS due, b.result FROM back_test b JOIN person p ON p.id = b.asked_by_id WHERE b.site_id = ? ORDER BY b.id DESC LIMIT 1',
      [siteId],
    );
    if (!found) return null;
    const sums = parsed<Sums>(found.result);
    const shown = (rule: RuleOutcomeDto['rule']): RuleOutcomeDto[] => {
      const { items, asked, met, orders, stockValue, cost } = sums[rule];
      if (items === 0) return [];
      return [
        {
          rule,
          items,
          metPercent: asked > 0 ? Math.round((met / asked) * 1000) / 10 : 100,
          orders,
          stockValue: stockValue.toFixed(2),
          cost: cost.toFixed(2),
        },
      ];
    };
    const { id, askedAt, by, total, done, due } = found;
    return {
      id,
      askedAt,
      by,
      total,
      done: Math.min(done, total),
      isOver: due === null,
      rules: [...shown('planned'), ...shown('cover'), ...shown('fixed')],
    };
  }

  protected claim(): Promise<Job[]> {
    return claimRows<Job>(this.source, {
      table: 'back_test',
      select: 'j.id, j.site_id AS siteId, j.after_item_id AS after, j.done, j.result',
      due: 'j.due_at <= UTC_TIMESTAMP(3)',
      order: 'j.id',
      most: 1,
      lease: 'due_at = UTC_TIMESTAMP(3) + INTERVAL ? SECOND',
      leaseParams: [LEASE_SECONDS],
    });
  }

  protected async carryOut(job: Job): Promise<void> {
    const { today } = await siteDay(this.source, job.siteId);
    const items = await rows<{ id: number; point: number | null; upTo: number | null }>(
      this.source,
      `SELECT p.item_id AS id, x.reorder_point AS point, x.order_up_to AS upTo FROM item_plan p LEFT JOIN item_site x ON x.item_id = p.item_id AND x.site_id = p.site_id WHERE p.site_id = ? AND p.item_id > ? ORDER BY p.item_id LIMIT ${AT_ONCE}`,
      [job.siteId, job.after],
    );
    if (items.length === 0) {
      await update(this.source, 'back_test', { id: job.id }, { due_at: null });
      return;
    }
    const inputs = await this.inputs.of(
      job.siteId,
      items.map((i) => i.id),
      today,
    );
    const fixedOf = new Map(
      items.map((i) => [i.id, i.point === null ? null : { point: i.point, upTo: Math.max(i.upTo ?? 0, i.point + 1) }]),
    );
    const found = await this.work.run(
      TEST,
      inputs.map(({ itemId, item }) => ({ itemId, item, fixed: fixedOf.get(itemId) ?? null })),
      today,
    );
    const sums = parsed<Sums>(job.result);
    for (const one of found) {
      if (!one) continue;
      for (const rule of ['planned', 'cover', 'fixed'] as const) {
        const of = one[rule];
        if (of) sums[rule] = plus(sums[rule], of);
      }
    }
    await update(
      this.source,
      'back_test',
      { id: job.id },
      { due_at: NOW, after_item_id: items.at(-1)?.id ?? 0, done: job.done + items.length, result: JSON.stringify(sums) },
    );
  }
}

function plus(sum: Sums['planned'], of: BackTested): Sums['planned'] {
  return {
    items: sum.items + 1,
    asked: sum.asked + of.asked,
    met: sum.met + of.met,
    orders: sum.orders + of.orders,
    stockValue: sum.stockValue + of.stockValue,
    cost: sum.cost + of.cost,
  };
}
