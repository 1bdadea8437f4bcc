import { Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';
import { one, rows, type Tx } from '../platform/index.js';
import { instantOf, type SiteCalendar } from './departures.js';

const DAY_MS = 86_400_000;

/** Reads when a site's vans leave. */
@Injectable()
export class CalendarQueries {
  constructor(private readonly source: DataSource) {}

  async of(tx: Pick<Tx, 'query'>, siteId: number): Promise<SiteCalendar> {
    const site = await one<{ time_zone: string; working_days: string }>(tx, 'SELECT time_zone, working_days FROM site WHERE id = ?', [
      siteId,
    ]);
    const departures = await rows<SiteCalendar['departures'][number]>(
      tx,
      `SELECT TIME_FORMAT(leaves_at, '%H:%i') AS leavesAt, closes_minutes AS closesMinutes FROM departure WHERE site_id = ?`,
      [siteId],
    );
    return { timeZone: site?.time_zone ?? 'UTC', workingDays: site?.working_days ?? 'YYYYYYY', departures };
  }

  /** Today's departures of sites, soonest first. */
  async departuresToday(siteIds: readonly number[], now: Date): Promise<{ carrier: string; at: Date }[]> {
    const found = await rows<{ carrier: string; minutes: number; zone: string }>(
      this.source,
      'SELECT d.name AS carrier, FLOOR(TIME_TO_SEC(d.leaves_at) / 60) AS minutes, s.time_zone AS zone FROM departure d JOIN site s ON s.id = d.site_id WHERE d.site_id IN (?)',
      [[0, ...siteIds]],
    );
    const today = Math.floor(now.getTime() / DAY_MS) * DAY_MS;
    return found
      .map((d) => ({ carrier: d.carrier, at: instantOf(today + Number(d.minutes) * 60_000, d.zone) }))
      .sort((a, b) => a.at.getTime() - b.at.getTime());
  }
}
