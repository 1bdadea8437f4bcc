import { Injectable } from '@nestjs/common';
import { ownSeconds } from '@vectrum/core/rounds';
import { DataSource } from 'typeorm';
import { num, rows } from '../platform/index.js';

/** Each pick counts from the same person's act before it on rounds, but no longer than this: then they did something else. */
const LONGEST_SECONDS = 300;
const DAYS = 14;
const KEPT_MS = 300_000;

/** Measures how long each person takes for a stop at a site, the way to it included, from what the tape of the last fortnight says. */
@Injectable()
export class PeoplePaceQueries {
  private readonly kept = new Map<number, { until: number; paces: Promise<ReadonlyMap<number, number>> }>();

  constructor(private readonly source: DataSource) {}

  /** Seconds a stop by person; who has done too little to tell is not in it. Measured again after five minutes. */
  at(siteId: number): Promise<ReadonlyMap<number, number>> {
    const known = this.kept.get(siteId);
    if (known && known.until > Date.now()) return known.paces;
    const paces = this.measure(siteId);
    this.kept.set(siteId, { until: Date.now() + KEPT_MS, paces });
    paces.catch(() => this.kept.delete(siteId));
    return paces;
  }

  private async measure(siteId: number): Promise<ReadonlyMap<number, number>> {
    const found = await rows<{ id: number; stops: string; seconds: string }>(
      this.source,
      `SELECT person_id AS id, COUNT(*) AS stops, SUM(LEAST(?, GREATEST(0, TIMESTAMPDIFF(SECOND, before_at, done_at)))) AS seconds
       FROM (SELECT person_id, kind, COALESCE(device_at, at) AS done_at, LAG(COALESCE(device_at, at)) OVER (PARTITION BY person_id ORDER BY COALESCE(device_at, at), id) AS before_at
         FROM activity WHERE at > UTC_TIMESTAMP() - INTERVAL ? DAY AND site_id = ? AND person_id IS NOT NULL AND undone_by IS NULL AND kind IN ('take','cart','tote','pick','short','set-down')) act
       WHERE kind = 'pick' AND before_at IS NOT NULL GROUP BY person_id`,
      [LONGEST_SECONDS, DAYS, siteId],
    );
    return new Map(
      found.flatMap((f) => {
        const seconds = ownSeconds({ stops: num(f.stops), seconds: num(f.seconds) });
        return seconds === null ? [] : [[f.id, seconds] as const];
      }),
    );
  }
}
