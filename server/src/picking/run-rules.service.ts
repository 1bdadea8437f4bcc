import { Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';
import { ActivityService } from '../activity/index.js';
import { CalendarQueries } from '../company/index.js';
import {
  type Act,
  badForm,
  CommandLog,
  dayIn,
  find,
  insert,
  mustBeAt,
  mustMatch,
  notFound,
  type Person,
  remove,
  rows,
  type Tx,
  update,
} from '../platform/index.js';
import { type DailyRunRow, RunPlans } from './run-plan.service.js';
import type { DailyRunDto, DailyRunsDto, EditDailyRunDto, RunChannelDto, RunPreviewDto } from './runs.dto.js';
import { largestWall } from './walls.js';

const PREVIEW_SECONDS = 1;

/** Keeps the rules of daily runs, and shows what they would do. */
@Injectable()
export class RunRules {
  constructor(
    private readonly source: DataSource,
    private readonly commands: CommandLog,
    private readonly activity: ActivityService,
    private readonly calendars: CalendarQueries,
    private readonly plans: RunPlans,
  ) {}

  async list(siteIds: readonly number[]): Promise<DailyRunsDto> {
    const found = await rows<Omit<DailyRunDto, 'pooled' | 'active'> & { pooled: number; active: number }>(
      this.source,
      `SELECT d.id, d.site_id AS siteId, s.name AS site, TIME_FORMAT(d.runs_at, '%H:%i') AS runsAt, TIME_FORMAT(d.van_at, '%H:%i') AS vanAt, d.channel_id AS channelId, c.name AS channel, d.most_stops AS mostStops, d.pooled, d.active,
         p.name AS person, d.last_at AS lastAt, d.last_says AS lastSays, d.version
       FROM daily_run d JOIN site s ON s.id = d.site_id JOIN person p ON p.id = d.person_id LEFT JOIN channel c ON c.id = d.channel_id WHERE d.site_id IN (?) ORDER BY s.name, d.runs_at, d.id`,
      [[0, ...siteIds]],
    );
    const channels = await rows<RunChannelDto>(this.source, 'SELECT id, name FROM channel WHERE site_id IN (?) ORDER BY name, id', [
      [0, ...siteIds],
    ]);
    return { runs: found.map((r) => ({ ...r, pooled: r.pooled === 1, active: r.active === 1 })), channels };
  }

  add(act: Act, input: EditDailyRunDto): Promise<{ id: number }> {
    return this.commands.run(act, 'run.add', input, async (tx) => {
      const values = await this.checked(tx, act, input);
      const id = await insert(tx, 'daily_run', { ...values, person_id: act.person.id });
      await this.tell(tx, act, input, 'set up');
      return { id };
    });
  }

  /** Whoever keeps it last answers for it: it is done in their name. */
  edit(act: Act, id: number, version: number, input: EditDailyRunDto): Promise<{ id: number }> {
    return this.commands.run(act, 'run.edit', { id, version, input }, async (tx) => {
      const run = await this.held(tx, act.person, id);
      mustMatch(run.version, version);
      const values = await this.checked(tx, act, input);
      await update(tx, 'daily_run', { id }, { ...values, person_id: act.person.id, version: version + 1 });
      await this.tell(tx, act, input, 'changed');
      return { id };
    });
  }

  remove(act: Act, id: number, version: number): Promise<{ id: number }> {
    return this.commands.run(act, 'run.remove', { id, version }, async (tx) => {
      const run = await this.held(tx, act.person, id);
      mustMatch(run.version, version);
      await remove(tx, 'daily_run', { id });
      await this.tell(tx, act, { siteId: run.site_id, runsAt: run.runs_at.slice(0, 5) }, 'removed');
      return { id };
    });
  }

  /** What the rule would send if it were due now. */
  async preview(person: Person, id: number): Promise<RunPreviewDto> {
    const run = await find(this.source, 'daily_run', { id });
    if (!run) throw notFound('This daily run');
    mustBeAt(person, run.site_id);
    return this.plans.preview(await this.plans.plan(run, person.siteIds, new Date(), PREVIEW_SECONDS));
  }

  private async held(tx: Tx, person: Person, id: number): Promise<DailyRunRow> {
    const run = await find(tx, 'daily_run', { id }, 'lock');
    if (!run) throw notFound('This daily run');
    mustBeAt(person, run.site_id);
    return run;
  }

  private async checked(tx: Tx, act: Act, input: EditDailyRunDto) {
    mustBeAt(act.person, input.siteId);
    const { timeZone, departures } = await this.calendars.of(tx, input.siteId);
    const vanAt = input.vanAt ?? null;
    if (vanAt !== null && !departures.some((d) => d.leavesAt === vanAt))
      throw badForm({ vanAt: 'No van leaves this site then. Choose one of its vans' });
    if (vanAt !== null && vanAt <= input.runsAt) throw badForm({ runsAt: 'It must run before its van leaves' });
    const channelId = input.channelId ?? null;
    const channel = channelId === null ? null : await find(tx, 'channel', { id: channelId });
    if (channelId !== null && !act.person.siteIds.includes(channel?.site_id ?? 0)) throw badForm({ channelId: 'There is no such channel' });
    if (input.pooled && (await largestWall(tx, input.siteId)) === 0)
      throw badForm({ pooled: 'This site has no sorting wall. Add one under Places, or sort while walking' });
    const now = new Date();
    const clock = new Intl.DateTimeFormat('en-GB', { hour: '2-digit', minute: '2-digit', hourCycle: 'h23', timeZone }).format(now);
    return {
      site_id: input.siteId,
      runs_at: input.runsAt,
      van_at: vanAt,
      channel_id: channelId,
      most_stops: input.mostStops ?? null,
      pooled: input.pooled ? 1 : 0,
      active: input.active ? 1 : 0,
      // What is set up after its time runs tomorrow for the first time.
      last_on: clock >= input.runsAt ? dayIn(timeZone, now) : null,
    };
  }

  private async tell(tx: Tx, act: Act, run: Pick<EditDailyRunDto, 'siteId' | 'runsAt'>, what: string): Promise<void> {
    await this.activity.record(tx, act, {
      kind: 'daily-run',
      glyph: 'full',
      title: `Daily run at ${run.runsAt} ${what}`,
      siteId: run.siteId,
    });
  }
}
