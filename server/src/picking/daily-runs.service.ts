import { randomUUID } from 'node:crypto';
import { Inject, Injectable, type OnApplicationShutdown } from '@nestjs/common';
import { worksOn } from '@vectrum/core/promise';
import type { Logger } from 'pino';
import { DataSource } from 'typeorm';
import { ActivityService } from '../activity/index.js';
import { CalendarQueries } from '../company/index.js';
import { SessionService } from '../identity/index.js';
import { type Act, dayIn, findAll, inTransaction, LOGGER, type Person, Problem, update } from '../platform/index.js';
import { ReleaseService } from './release.service.js';
import { type DailyRunRow, RunPlans } from './run-plan.service.js';

const LOOKS_MS = 30_000;
const PLAN_SECONDS = 5;
/** Somebody may change an order between planning and sending: then it is planned anew. */
const TRIES = 3;

/** Sends orders to picking by rule, once a working day, in the name of whoever has set the rule up. */
@Injectable()
export class DailyRuns implements OnApplicationShutdown {
  private timer: NodeJS.Timeout | undefined;

  constructor(
    private readonly source: DataSource,
    private readonly plans: RunPlans,
    private readonly releases: ReleaseService,
    private readonly calendars: CalendarQueries,
    private readonly sessions: SessionService,
    private readonly activity: ActivityService,
    @Inject(LOGGER) private readonly log: Logger,
  ) {}

  start(): void {
    const look = () => void this.look().catch((err: unknown) => this.log.warn({ err }, 'daily runs could not be looked for'));
    this.timer = setInterval(look, LOOKS_MS);
    look();
  }

  onApplicationShutdown(): void {
    clearInterval(this.timer);
  }

  /** Does the runs that are due and not done yet today; whichever server looks first. Returns how many it did. */
  async look(now = new Date()): Promise<number> {
    let done = 0;
    for (const run of await findAll(this.source, 'daily_run', { active: 1 }, 'id')) {
      const { timeZone, workingDays } = await this.calendars.of(this.source, run.site_id);
      const today = dayIn(timeZone, now);
      if (!worksOn(workingDays, today) || clockIn(timeZone, now) < run.runs_at.slice(0, 5)) continue;
      const claimed = await this.source.query<{ affectedRows: number }>(
        'UPDATE daily_run SET last_on = ?, last_at = UTC_TIMESTAMP(3) WHERE id = ? AND version = ? AND (last_on IS NULL OR last_on < ?)',
        [today, run.id, run.version, today],
      );
      if (claimed.affectedRows === 0) continue;
      const says = await this.send(run, now).catch((err: unknown) => {
        this.log.warn({ err }, `daily run ${run.id} failed`);
        return 'It could not be done. Send the orders from Release';
      });
      await update(this.source, 'daily_run', { id: run.id }, { last_says: says.slice(0, 300) });
      done++;
    }
    return done;
  }

  /** Plans and sends; returns what came of it, in words. */
  private async send(run: DailyRunRow, now: Date): Promise<string> {
    const person = await this.sessions.person(run.person_id);
    if (!person?.rights.has('release') || !person.siteIds.includes(run.site_id))
      return 'Whoever has set it up may not release here any more. Keep it anew in your name';
    for (let tried = 1; ; tried++) {
      const { rounds, left } = await this.plans.plan(run, person.siteIds, now, PLAN_SECONDS);
      const waits = left.length > 0 ? `; ${left.length} wait, since ${left[0]?.why ?? ''}` : '';
      if (rounds.length === 0) return `Nothing was ready to be picked${waits}`;
      const orders = rounds.reduce((n, r) => n + r.length, 0);
      const says = `${orders} ${orders === 1 ? 'order' : 'orders'} sent in ${rounds.length} ${rounds.length === 1 ? 'round' : 'rounds'}${waits}`;
      try {
        const act = actOf(person);
        await this.releases.releaseRounds(
          act,
          run.site_id,
          rounds.map((r) => ({ orders: r.map(({ code, version }) => ({ code, version })), sentTo: null, pooled: run.pooled === 1 })),
        );
        await this.tell(act, run, says);
        return says;
      } catch (err) {
        if (!(err instanceof Problem)) throw err;
        if (tried === TRIES) return `Not sent: ${err.message}`;
      }
    }
  }

  private async tell(act: Act, run: DailyRunRow, says: string): Promise<void> {
    await inTransaction(this.source, (tx) =>
      this.activity.record(tx, act, { kind: 'release', glyph: 'go', title: 'Daily run', detail: says, siteId: run.site_id }),
    );
  }
}

const actOf = (person: Person): Act => ({ key: randomUUID(), person, deviceId: null, deviceAt: null });

/** The time on a clock there, such as 07:30. */
const clockIn = (timeZone: string, now: Date): string =>
  new Intl.DateTimeFormat('en-GB', { hour: '2-digit', minute: '2-digit', hourCycle: 'h23', timeZone }).format(now);
