import { weekOfDate, type WeekNumber } from '@vectrum/core/replenish';
import { Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';
import { addDays, daySpan, find, inTransaction, num, one, rows, siteDay, type Tx } from '../platform/index.js';

/** Weeks that are read again each day: what was cancelled or changed since then was not asked for. */
const AGAIN_WEEKS = 8;
const CHUNK = 1_000;
/** The Monday of week nought is the 29th of December 1969. */
const MONDAY_OF_NOUGHT = '1969-12-29';

/** The Monday that a week begins on. */
export const mondayOf = (week: WeekNumber): string => addDays(MONDAY_OF_NOUGHT, week * 7);

interface Asked {
  itemId: number;
  units: number;
}

/** Keeps what each item was asked for at each site, week by week: what was ordered, whether or not it was there; what was cancelled was not. */
@Injectable()
export class DemandReading {
  constructor(private readonly source: DataSource) {}

  /** Reads the weeks that are new or may have changed at a site, once a day unless it is asked for again. True where it read. */
  async read(siteId: number, again = false): Promise<boolean> {
    const { today, timeZone } = await siteDay(this.source, siteId);
    const was = await find(this.source, 'demand_read', { site_id: siteId });
    if (was?.read_on === today && !again) return false;
    const now = weekOfDate(today);
    const from = was ? Math.min(was.through_week, now) - AGAIN_WEEKS : await this.firstWeek(siteId, now);
    for (let week = from; week <= now; week += 1) await this.readWeek(siteId, timeZone, week);
    await this.source.query(
      'INSERT INTO demand_read (site_id, through_week, read_on) VALUES (?, ?, ?) ON DUPLICATE KEY UPDATE through_week = VALUES(through_week), read_on = VALUES(read_on)',
      [siteId, now, today],
    );
    return true;
  }

  private async firstWeek(siteId: number, now: WeekNumber): Promise<WeekNumber> {
    const first = await one<{ at: Date | null }>(this.source, 'SELECT MIN(placed_at) AS at FROM sales_order WHERE site_id = ?', [siteId]);
    return first?.at ? Math.min(now, weekOfDate(first.at.toISOString().slice(0, 10)) - 1) : now;
  }

  private async readWeek(siteId: number, timeZone: string, week: WeekNumber): Promise<void> {
    const asked = await this.asked(siteId, daySpan(timeZone, mondayOf(week)).from, daySpan(timeZone, mondayOf(week + 1)).from);
    const known = await rows<{ itemId: number; units: number }>(
      this.source,
      'SELECT item_id AS itemId, ordered_units AS units FROM demand_week WHERE site_id = ? AND week = ?',
      [siteId, week],
    );
    const was = new Map(known.map((k) => [k.itemId, k.units]));
    const is = new Map(asked.map((a) => [a.itemId, a.units]));
    const changed = [
      ...asked.filter((a) => was.get(a.itemId) !== a.units),
      ...known.filter((k) => k.units > 0 && !is.has(k.itemId)).map((k) => ({ itemId: k.itemId, units: 0 })),
    ];
    for (let i = 0; i < changed.length; i += CHUNK) await this.keep(siteId, week, changed.slice(i, i + CHUNK));
  }

  /** What orders of a span wanted. Of parts of assemblies only what was sold of them by themselves: plans add what the assemblies were asked for. */
  private async asked(siteId: number, from: Date, to: Date): Promise<Asked[]> {
    const found = await rows<{ itemId: number; units: string }>(
      this.source,
      `SELECT l.item_id AS itemId, SUM(l.units) AS units FROM sales_order o JOIN sales_order_line l ON l.order_id = o.id AND l.item_id IS NOT NULL AND l.units > 0 JOIN item i ON i.id = l.item_id AND i.kind <> 'kit'
       WHERE o.placed_at >= ? AND o.placed_at < ? AND o.site_id = ? AND o.state NOT IN ('quote','cancelled') GROUP BY l.item_id ORDER BY l.item_id`,
      [from, to, siteId],
    );
    return found.map((f) => ({ itemId: f.itemId, units: num(f.units) }));
  }

  private keep(siteId: number, week: WeekNumber, changed: readonly Asked[]): Promise<void> {
    return inTransaction(this.source, async (tx) => {
      await tx.query(
        `INSERT INTO demand_week (site_id, item_id, week, ordered_units) VALUES ${changed.map(() => '(?, ?, ?, ?)').join(', ')} ON DUPLICATE KEY UPDATE ordered_units = VALUES(ordered_units)`,
        changed.flatMap((c) => [siteId, c.itemId, week, c.units]),
      );
      await planSoon(
        tx,
        siteId,
        changed.map((c) => c.itemId),
      );
    });
  }
}

/** Items at a site are planned anew as soon as the planner comes to them. */
export async function planSoon(tx: Pick<Tx, 'query'>, siteId: number, itemIds: readonly number[]): Promise<void> {
  for (let i = 0; i < itemIds.length; i += CHUNK) {
    const some = itemIds.slice(i, i + CHUNK);
    await tx.query(
      `INSERT INTO item_plan (site_id, item_id, due_at) VALUES ${some.map(() => '(?, ?, UTC_TIMESTAMP(3))').join(', ')} ON DUPLICATE KEY UPDATE due_at = UTC_TIMESTAMP(3)`,
      some.flatMap((id) => [siteId, id]),
    );
  }
}
