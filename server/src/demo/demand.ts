import { seeded } from '@vectrum/core/random';
import { weekOfDate, weekText } from '@vectrum/core/replenish';
import { Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';
import { Planner } from '../planning/index.js';
import { addDays, insertMany, num, one, rows, siteDay } from '../platform/index.js';

/** Fourteen months: what the business sold before it kept its stock here. */
const WEEKS = 61;

/** When a class is asked for most, as a week of the year, and how much more than in the quiet weeks: hives in spring, jars in summer, fondant in autumn. */
const SEASONS: Readonly<Record<string, readonly [peak: number, swing: number]>> = {
  'Hive parts': [15, 0.75],
  Frames: [17, 0.7],
  Tools: [18, 0.4],
  Clothing: [19, 0.45],
  'Jars and lids': [30, 0.8],
  'Honey room': [28, 0.7],
  Feeding: [40, 0.8],
  Treatments: [34, 0.7],
  Wax: [46, 0.5],
  Books: [49, 0.3],
};

interface Goods {
  id: number;
  siteId: number;
  sku: string;
  class: string;
  units: number;
}

/** What some goods are: asked for since a few weeks, no longer, twice as fast as they were, or once in a while. */
const NEW = new Set(['JAR-250-SK', 'HIV-POL']);
const GONE = new Set(['HIV-ENT', 'WAX-SOY-1K', 'TRP-WSP']);
/** More of it was bought than anybody wants. */
const TOO_MANY = new Set(['MRK-PEN', 'FRM-1412', 'VEIL-RND']);
const FASTER = new Set(['CND-SHT-05', 'WCK-FLT-10']);
const SELDOM = /^(EXT-|MLT-|TNK-|MIC-|UNC-ELK)/;

/** A year of demand behind the range, and the plans that are made from it. */
@Injectable()
export class DemoDemand {
  constructor(
    private readonly source: DataSource,
    private readonly planner: Planner,
  ) {}

  async remember(): Promise<void> {
    const { today } = await siteDay(this.source, 1);
    const now = weekOfDate(today);
    const goods = await rows<Goods>(
      this.source,
      `SELECT i.id, k.site_id AS siteId, i.sku, i.class, k.on_hand AS units FROM site_stock k JOIN item i ON i.id = k.item_id AND i.kind <> 'kit' WHERE k.on_hand > 0 AND k.site_id IN (1, 2) ORDER BY i.id, k.site_id`,
    );
    const chance = seeded(14_2026);
    const given: unknown[][] = [];
    for (const g of goods) {
      // What lies there lasts from a few weeks to half a year.
      const usual = num(g.units) / (2.5 + 22 * chance() * chance());
      for (let back = WEEKS; back >= 1; back -= 1) {
        const units = this.units(g, usual, now - back, back, chance);
        if (units > 0) given.push([g.siteId, g.id, now - back, units]);
      }
    }
    for (let i = 0; i < given.length; i += 2_000)
      await insertMany(this.source, 'demand_week', ['site_id', 'item_id', 'week', 'given_units'], given.slice(i, i + 2_000));
    await this.source.query(
      'INSERT IGNORE INTO item_plan (site_id, item_id, due_at) SELECT DISTINCT site_id, item_id, UTC_TIMESTAMP(3) FROM demand_week',
    );
    await this.taken(given, chance, now);
    await this.planner.look([1, 2], true);
    await this.planner.settled();
  }

  /** Proposals of the last months that the buyer took, so that there is something to look back on. */
  private async taken(given: readonly (readonly unknown[])[], chance: () => number, now: number): Promise<void> {
    const buyer = await one<{ id: number }>(this.source, "SELECT id FROM person WHERE name LIKE 'Piet%'");
    const goods = [...new Set(given.filter((g) => g[0] === 1 && num(g[3] as number) > 8).map((g) => num(g[1] as number)))].slice(0, 14);
    for (const [i, itemId] of goods.entries()) {
      const weeksAgo = 5 + i;
      const meanwhile = given.filter(
        (g) => g[0] === 1 && g[1] === itemId && num(g[2] as number) >= now - weeksAgo && num(g[2] as number) < now - weeksAgo + 3,
      );
      const asked = meanwhile.reduce((sum, g) => sum + num(g[3] as number), 0);
      const proposed = Math.max(12, Math.round((asked * 2) / 12) * 12);
      const changed = i % 4 === 1 ? 12 : 0;
      await this.source.query(
        "INSERT INTO buying_choice (site_id, item_id, chosen_on, says, proposed_units, taken_units, expected_units, horizon_days, person_id) VALUES (1, ?, ?, 'taken', ?, ?, ?, 21, ?)",
        [
          itemId,
          addDays('1969-12-29', (now - weeksAgo) * 7),
          proposed,
          proposed + changed,
          asked * (0.75 + 0.55 * chance()),
          buyer?.id ?? 1,
        ],
      );
    }
  }

  private units({ sku, class: className }: Goods, usual: number, week: number, back: number, chance: () => number): number {
    if (NEW.has(sku) && back > 9) return 0;
    if (GONE.has(sku) && back < 22) return 0;
    if (TOO_MANY.has(sku)) return chance() < 0.3 ? 1 : 0;
    if (SELDOM.test(sku)) return chance() < 0.12 ? 1 : 0;
    const [peak, swing] = SEASONS[className] ?? [0, 0];
    const season = 1 + swing * Math.cos((2 * Math.PI * (Number(weekText(week).slice(6)) - peak)) / 52);
    const pace = FASTER.has(sku) && back <= 4 ? 2.6 : 1;
    const luck = 0.6 + 0.8 * chance();
    return Math.round(usual * season * pace * luck);
  }
}
