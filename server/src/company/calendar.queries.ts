import { DepartureBoard, type DepartureRule, type SiteCalendar } from '@vectrum/core/promise';
import { Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';
import { rows, type Tx } from '../platform/index.js';

/** A van of a site, by the name that its people give it. */
export interface Van extends DepartureRule {
  name: string;
  /** The code of the carrier whose van it is; null where it is nobody's. */
  carrier: string | null;
}

/** What leaves each site from now on, by the site's number. */
export type Boards = ReadonlyMap<number, DepartureBoard<Van>>;

/** A day of the house with what still leaves on it, soonest first. */
export interface HouseDay {
  ends: Date;
  departures: (Van & { at: Date })[];
  /** When the last of them leaves or, where no van is named, when the working day ends. */
  lastLeavesAt: Date;
}

/** Reads when a site's vans leave. Every page that speaks of departures asks here. */
@Injectable()
export class CalendarQueries {
  constructor(private readonly source: DataSource) {}

  async of(tx: Pick<Tx, 'query'>, siteId: number): Promise<SiteCalendar<Van>> {
    return (await this.calendars(tx, [siteId])).get(siteId) ?? { timeZone: 'UTC', workingDays: 'YYYYYYY', departures: [] };
  }

  async boards(siteIds: readonly number[], now = new Date()): Promise<Boards> {
    const calendars = await this.calendars(this.source, siteIds);
    return new Map([...calendars].map(([siteId, calendar]) => [siteId, new DepartureBoard(now, calendar)]));
  }

  /**
   * The first day on which anything still leaves: today, or the next working day once the last van has gone. A site that is closed on
   * it, or names no van while others do, has no part in it.
   */
  async openDay(siteIds: readonly number[], now = new Date()): Promise<HouseDay> {
    const all = [...(await this.boards(siteIds, now)).values()].flatMap((board) => board.openDay() ?? []);
    const named = all.filter((d) => d.departures.some((one) => one.rule));
    const days = (named.length > 0 ? named : all).sort((a, b) => (a.day < b.day ? -1 : 1));
    const first = days.filter((d) => d.day === days[0]?.day);
    const leaving = first.flatMap((d) => d.departures).sort((a, b) => a.at.getTime() - b.at.getTime());
    return {
      ends: first.reduce((latest, d) => (d.ends > latest ? d.ends : latest), now),
      departures: leaving.flatMap(({ at, rule }) => (rule ? [{ ...rule, at }] : [])),
      lastLeavesAt: leaving.at(-1)?.at ?? now,
    };
  }

  private async calendars(tx: Pick<Tx, 'query'>, siteIds: readonly number[]): Promise<Map<number, SiteCalendar<Van>>> {
    const sites = await rows<{ id: number; time_zone: string; working_days: string }>(
      tx,
      'SELECT id, time_zone, working_days FROM site WHERE id IN (?)',
      [[0, ...siteIds]],
    );
    const vans = await rows<Van & { siteId: number }>(
      tx,
      `SELECT d.site_id AS siteId, d.name, c.code AS carrier, TIME_FORMAT(d.leaves_at, '%H:%i') AS leavesAt, d.closes_minutes AS closesMinutes
       FROM departure d LEFT JOIN carrier c ON c.id = d.carrier_id WHERE d.site_id IN (?) ORDER BY d.leaves_at, d.id`,
      [[0, ...siteIds]],
    );
    return new Map(
      sites.map((s) => [
        s.id,
        {
          timeZone: s.time_zone,
          workingDays: s.working_days,
          departures: vans.filter((v) => v.siteId === s.id).map(({ siteId: _site, ...van }) => van),
        },
      ]),
    );
  }
}
