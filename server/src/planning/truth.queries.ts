import { daysBetween, weekOfDate } from '@vectrum/core/replenish';
import { Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';
import { addDays, num, rows, siteDay } from '../platform/index.js';
import type { TruthDto } from './back-test.dto.js';
import { mondayOf } from './demand-reading.service.js';
import type { ItemTruthDto } from './item-plan.dto.js';

/** The newest proposals that are looked back on. */
const MOST = 500;
const MOST_OF_ITEM = 20;
/** Within a third of what was asked for, either way, an expectation was right. */
const RIGHT = 1 / 3;

interface Choice extends Omit<ItemTruthDto, 'asked'> {
  itemId: number;
  sku: string;
  name: string;
  horizon: number;
}

/** What became of proposals: what was expected when they were taken, beside what was asked for until the next could come. */
@Injectable()
export class TruthQueries {
  constructor(private readonly source: DataSource) {}

  /** Of one item at a site, the newest first. */
  async ofItem(siteId: number, itemId: number, today: string): Promise<ItemTruthDto[]> {
    const found = await this.choices('c.site_id = ? AND c.item_id = ?', [siteId, itemId], MOST_OF_ITEM);
    const asked = await this.asked(siteId, found, today);
    return found.map(({ itemId: _id, sku: _sku, name: _name, horizon: _horizon, ...c }, i) => ({
      ...c,
      expected: Math.round(c.expected),
      asked: asked[i] ?? null,
    }));
  }

  /** Of all that was taken at a site and is over: how far off it was, and what was farthest off. */
  async ofSite(siteId: number): Promise<TruthDto> {
    const { today } = await siteDay(this.source, siteId);
    const found = await this.choices("c.site_id = ? AND c.says = 'taken' AND c.horizon_days > 0", [siteId], MOST);
    const asked = await this.asked(siteId, found, today);
    const over = found.flatMap((c, i) => {
      const was = asked[i];
      return was === null || was === undefined ? [] : [{ ...c, asked: was }];
    });
    const sum = (of: (c: (typeof over)[number]) => number) => over.reduce((n, c) => n + of(c), 0);
    const off = (c: (typeof over)[number]) => Math.abs(c.expected - c.asked);
    const farthest = [...over].sort((a, b) => off(b) - off(a)).slice(0, 5);
    return {
      proposals: over.length,
      right: over.filter((c) => off(c) <= Math.max(1, c.asked * RIGHT)).length,
      expected: Math.round(sum((c) => c.expected)),
      asked: Math.round(sum((c) => c.asked)),
      asProposed: over.filter((c) => c.taken === c.proposed).length,
      farthest: farthest.map((c) => ({ sku: c.sku, name: c.name, on: c.on, expected: Math.round(c.expected), asked: c.asked })),
    };
  }

  private async choices(where: string, params: readonly unknown[], most: number): Promise<Choice[]> {
    const found = await rows<Choice>(
      this.source,
      `SELECT c.item_id AS itemId, i.sku, i.name, c.chosen_on AS \`on\`, c.says, c.proposed_units AS proposed, c.taken_units AS taken, c.expected_units AS expected, c.horizon_days AS horizon, c.why, c.document, p.name AS \`by\`
       FROM buying_choice c JOIN item i ON i.id = c.item_id JOIN person p ON p.id = c.person_id WHERE ${where} ORDER BY c.id DESC LIMIT ${most}`,
      [...params],
    );
    return found.map((c) => ({ ...c, expected: num(c.expected), horizon: num(c.horizon) }));
  }

  /** What was asked for until each was over, of its weeks by their days; null where it is not over, or was not taken. */
  private async asked(siteId: number, choices: readonly Choice[], today: string): Promise<(number | null)[]> {
    const spans = choices.map((c) => ({ ...c, until: addDays(c.on, c.horizon) }));
    const over = spans.filter((c) => c.says === 'taken' && c.horizon > 0 && c.until < today);
    if (over.length === 0) return choices.map(() => null);
    const first = Math.min(...over.map((c) => weekOfDate(c.on)));
    const weeks = await rows<{ itemId: number; week: number; units: number }>(
      this.source,
      'SELECT item_id AS itemId, week, COALESCE(given_units, ordered_units) AS units FROM demand_week WHERE site_id = ? AND item_id IN (?) AND week >= ?',
      [siteId, [...new Set(over.map((c) => c.itemId))], first],
    );
    return spans.map((c) => {
      if (!over.includes(c)) return null;
      const units = weeks.filter((w) => w.itemId === c.itemId).reduce((n, w) => n + num(w.units) * shareOf(w.week, c.on, c.until), 0);
      return Math.round(units);
    });
  }
}

/** How much of a week lies between two days, the second not counted. */
function shareOf(week: number, from: string, to: string): number {
  const monday = mondayOf(week);
  const begins = Math.max(0, daysBetween(monday, from));
  const ends = Math.min(7, daysBetween(monday, to));
  return Math.max(0, ends - begins) / 7;
}
