import { type DayOfWork, type Pace, paceOf } from '@vectrum/core/pace';
import { Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';
import { CalendarQueries } from '../company/index.js';
import { num, rows, siteDay, sqlList } from '../platform/index.js';
import { type Stage, STAGES, WORK } from './stages.js';

/** Each act counts from the same person's act before it, but no longer than this: then they did something else. */
const LONGEST_SECONDS = 300;
const DAYS = 14;
const KEPT_MS = 300_000;
const HOUR_MS = 3_600_000;

const stageSql = `CASE ${STAGES.map((s) => `WHEN kind IN ${sqlList(WORK[s])} THEN '${s}'`).join(' ')} END`;

type WorkRow = { [K in keyof DayOfWork]: string } & { stage: Stage; began: Date };

/** Measures how fast each stage is worked off, from what the tape of the last fortnight says that people did. */
@Injectable()
export class PaceQueries {
  private readonly kept = new Map<string, { until: number; paces: Promise<Record<Stage, Pace | null>> }>();

  constructor(
    private readonly source: DataSource,
    private readonly calendars: CalendarQueries,
  ) {}

  /** The pace of each stage at some sites together; null where nothing was done. Measured again after five minutes. */
  paces(siteIds: readonly number[]): Promise<Record<Stage, Pace | null>> {
    const key = [...siteIds].sort((a, b) => a - b).join();
    const known = this.kept.get(key);
    if (known && known.until > Date.now()) return known.paces;
    const paces = this.measure(siteIds);
    this.kept.set(key, { until: Date.now() + KEPT_MS, paces });
    paces.catch(() => this.kept.delete(key));
    return paces;
  }

  private async measure(siteIds: readonly number[]): Promise<Record<Stage, Pace | null>> {
    const found = await rows<WorkRow>(
      this.source,
      `SELECT stage, day, SUM(LEAST(?, GREATEST(0, COALESCE(TIMESTAMPDIFF(SECOND, before_at, done_at), ?)))) AS seconds,
         COUNT(DISTINCT IF(stage = 'shelves', id, COALESCE(document, id))) AS done, MIN(done_at) AS began
       FROM (SELECT id, document, ${stageSql} AS stage, DATE_FORMAT(COALESCE(device_at, at), '%Y-%m-%d') AS day, COALESCE(device_at, at) AS done_at,
           LAG(COALESCE(device_at, at)) OVER (PARTITION BY person_id ORDER BY COALESCE(device_at, at), id) AS before_at
         FROM activity WHERE at > UTC_TIMESTAMP() - INTERVAL ? DAY AND person_id IS NOT NULL AND undone_by IS NULL AND (site_id IN (?) OR site_id IS NULL)) act
       WHERE stage IS NOT NULL GROUP BY stage, day`,
      [LONGEST_SECONDS, LONGEST_SECONDS, DAYS, [0, ...siteIds]],
    );
    const today = await this.today(siteIds, found);
    const of = (stage: Stage) =>
      paceOf(
        found.filter((f) => f.stage === stage).map((f) => ({ day: f.day, seconds: num(f.seconds), done: num(f.done) })),
        today,
      );
    return Object.fromEntries(STAGES.map((stage) => [stage, of(stage)])) as Record<Stage, Pace | null>;
  }

  /** Which day it is, and how much of it is over: from its first act to the last van of the day. */
  private async today(siteIds: readonly number[], found: readonly WorkRow[]): Promise<{ day: string; share: number }> {
    const now = Date.now();
    const { today: day } = await siteDay(this.source, siteIds[0] ?? null);
    const began = Math.min(now - HOUR_MS, ...found.filter((f) => f.day === day).map((f) => f.began.getTime()));
    const { lastLeavesAt } = await this.calendars.openDay(siteIds);
    return { day, share: (now - began) / (lastLeavesAt.getTime() - began) };
  }
}
