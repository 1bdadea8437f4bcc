import { randomUUID } from 'node:crypto';
import { Inject, Injectable, type OnApplicationShutdown } from '@nestjs/common';
import type { Logger } from 'pino';
import { DataSource } from 'typeorm';
import { ActivityService } from '../activity/index.js';
import { mustBeEverywhere, SessionService } from '../identity/index.js';
import { type Act, addDays, badForm, CommandLog, find, insert, LOGGER, mustMatch, NEXT, NOW, Problem, remove, type Row, rows, siteDay, update } from '../platform/index.js'; // prettier-ignore
import type { TimetableDto } from './timetables.dto.js';

export const EVERY = ['day', 'week', 'month'] as const;
export type Every = (typeof EVERY)[number];
const LOOKS_MS = 60_000;

/** Something that the books can do by timetable; returns what came of it, in words. `before`: all that belongs to days before this one. */
type Job = (act: Act, before: string) => Promise<string>;

/** The first day of the day, week (from Monday) or month that a day is in. */
export function periodOf(every: Every, today: string): string {
  if (every === 'day') return today;
  if (every === 'month') return `${today.slice(0, 8)}01`;
  return addDays(today, -((new Date(`${today}T00:00:00Z`).getUTCDay() + 6) % 7));
}

/**
 * Does by timetable what somebody would do by hand, in the name of whoever set it: once a period, when its first day has begun in the
 * house, by whichever server looks first. A house that was closed on that day has it done when it opens.
 */
@Injectable()
export class Timetables implements OnApplicationShutdown {
  private readonly jobs = new Map<string, Job>();
  private timer: NodeJS.Timeout | undefined;

  constructor(
    private readonly source: DataSource,
    private readonly commands: CommandLog,
    private readonly sessions: SessionService,
    private readonly activity: ActivityService,
    @Inject(LOGGER) private readonly log: Logger,
  ) {}

  register(what: string, job: Job): void {
    this.jobs.set(what, job);
  }

  start(): void {
    const look = () => void this.look().catch((err: unknown) => this.log.warn({ err }, 'timetables could not be looked at'));
    this.timer = setInterval(look, LOOKS_MS);
    look();
  }

  onApplicationShutdown(): void {
    clearInterval(this.timer);
  }

  list(): Promise<TimetableDto[]> {
    return rows<TimetableDto>(
      this.source,
      'SELECT t.what, t.every, p.name AS keptBy, t.last_at AS lastAt, t.last_says AS lastSays, t.version FROM timetable t JOIN person p ON p.id = t.person_id ORDER BY t.what',
    );
  }

  /** Sets how often something is done, from the next period on; null: by hand. */
  set(act: Act, what: string, version: number, every: Every | null): Promise<void> {
    return this.commands.run(act, 'timetable.set', { what, version, every }, async (tx) => {
      if (!this.jobs.has(what)) throw badForm({ what: `Nothing called ${what.slice(0, 20)} goes by a timetable` });
      const kept = await find(tx, 'timetable', { what }, 'lock');
      mustMatch(kept?.version ?? 0, version);
      const { today } = await siteDay(tx, null);
      if (every === null) await remove(tx, 'timetable', { what });
      else if (kept) await update(tx, 'timetable', { what }, { every, person_id: act.person.id, last_on: today, version: NEXT });
      else await insert(tx, 'timetable', { what, every, person_id: act.person.id, last_on: today });
      await this.activity.record(tx, act, {
        kind: 'journal',
        glyph: 'full',
        title: every ? `${what}: by themselves every ${every}` : `${what}: by hand`,
      });
    });
  }

  /** Does what is due; returns how many that were. */
  async look(today?: string): Promise<number> {
    const day = today ?? (await siteDay(this.source, null)).today;
    let done = 0;
    for (const kept of await rows<Row<'timetable'>>(this.source, 'SELECT * FROM timetable ORDER BY what')) {
      const job = this.jobs.get(kept.what);
      const begins = periodOf(kept.every as Every, day);
      if (!job || kept.last_on >= begins) continue;
      const claimed = await this.source.query<{ affectedRows: number }>(
        'UPDATE timetable SET last_on = ?, last_at = UTC_TIMESTAMP(3) WHERE what = ? AND last_on < ?',
        [day, kept.what, begins],
      );
      if (claimed.affectedRows === 0) continue;
      const says = await this.run(job, kept.person_id, begins).catch((err: unknown) => {
        this.log.warn({ err }, `timetable ${kept.what} failed`);
        return err instanceof Problem ? `Not done: ${err.detail}` : 'It could not be done. Do it by hand';
      });
      await update(this.source, 'timetable', { what: kept.what }, { last_says: says.slice(0, 300), last_at: NOW });
      done++;
    }
    return done;
  }

  private async run(job: Job, personId: number, before: string): Promise<string> {
    const person = await this.sessions.person(personId);
    if (!person?.rights.has('invoices')) return 'Whoever has set it may not do it any more. Set it anew in your name';
    await mustBeEverywhere(this.source, person);
    return job({ key: randomUUID(), person, deviceId: null, deviceAt: null }, before);
  }
}
