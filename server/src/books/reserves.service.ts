import { Injectable } from '@nestjs/common';
import { reserveFor } from '@vectrum/core/costing';
import { decimalText, micro, type Micro } from '@vectrum/core/money';
import { spell } from '@vectrum/core/quantity';
import { DataSource } from 'typeorm';
import { ActivityService } from '../activity/index.js';
import { ItemQueries } from '../catalogue/index.js';
import { type Act, badState, CommandLog, holdList, num, one, rows, type Tx } from '../platform/index.js';
import { SettingsService } from '../settings/index.js';
import { enterValue } from '../stock/index.js';
import type { SlowDto } from './value.dto.js';

interface Slow {
  itemId: number;
  sku: string;
  name: string;
  units: number;
  value: string;
  days: number;
  sold: boolean;
  percent: number;
  reserve: Micro;
}

/**
 * What is set aside for goods that nobody buys. Stock stays at what it cost; the reserve stands beside it on an account of its own, and each
 * booking brings it to what the rule says now.
 */
@Injectable()
export class Reserves {
  constructor(
    private readonly source: DataSource,
    private readonly commands: CommandLog,
    private readonly settings: SettingsService,
    private readonly items: ItemQueries,
    private readonly activity: ActivityService,
  ) {}

  async list(): Promise<SlowDto> {
    const slow = await this.slow(this.source);
    const packs = await this.items.packs(slow.map((s) => s.itemId));
    return {
      rows: slow.map(({ itemId, units, reserve, ...s }) => ({
        ...s,
        words: spell(units, packs.get(itemId) ?? []),
        reserve: decimalText(reserve),
      })),
      reserve: decimalText(total(slow)),
      booked: decimalText(await booked(this.source)),
    };
  }

  book(act: Act): Promise<void> {
    return this.commands.run(act, 'reserve.book', {}, async (tx) => {
      // Two that book at once would both see what stood there before: the second waits for the first.
      await holdList(tx, 'slow-goods');
      const [wanted, stands] = [total(await this.slow(tx)), await booked(tx)];
      if (wanted === stands) throw badState('What is set aside is what the rule says already');
      await enterValue(tx, { document: 'Slow goods' }, 'slow goods', 'slow goods reserve', wanted - stands);
      await this.activity.record(tx, act, {
        kind: 'journal',
        glyph: 'full',
        title: `Set aside for slow goods: ${decimalText(wanted).slice(0, -4)}`,
        detail: `before ${decimalText(stands).slice(0, -4)}`,
      });
    });
  }

  /** Goods in stock beyond the first step, most to be set aside first. O(items + entries of sales). */
  private async slow(tx: Pick<Tx, 'query'>): Promise<Slow[]> {
    const [slowDays, slowPercent, deadDays, deadPercent] = await Promise.all(
      (['slowDays', 'slowPercent', 'deadDays', 'deadPercent'] as const).map((name) => this.settings.get(tx, name)),
    );
    const steps = [
      { days: slowDays ?? 0, percent: slowPercent ?? 0 },
      { days: deadDays ?? 0, percent: deadPercent ?? 0 },
    ];
    const found = await rows<Omit<Slow, 'percent' | 'reserve' | 'sold' | 'days'> & { days: string; sold: string }>(
      tx,
      `SELECT i.id AS itemId, i.sku, i.name, c.units, c.value, DATEDIFF(UTC_TIMESTAMP(), COALESCE(s.last, f.first, UTC_TIMESTAMP())) AS days, s.last IS NOT NULL AS sold
       FROM cost_pool c JOIN item i ON i.id = c.item_id
         LEFT JOIN (SELECT item_id, MAX(at) AS last FROM value_entry WHERE debit = 'cost of goods' AND credit = 'stock' GROUP BY item_id) s ON s.item_id = c.item_id
         LEFT JOIN (SELECT item_id, MIN(at) AS first FROM cost_layer GROUP BY item_id) f ON f.item_id = c.item_id
       WHERE c.units > 0 AND c.value > 0`,
    );
    return found
      .map((i): Slow => ({
        ...i,
        units: num(i.units),
        days: num(i.days),
        sold: num(i.sold) === 1,
        ...reserveFor(micro(i.value), num(i.days), steps),
      }))
      .filter((i) => i.reserve > 0n)
      .sort((a, b) => (b.reserve > a.reserve ? 1 : b.reserve < a.reserve ? -1 : a.name.localeCompare(b.name)));
  }
}

const total = (slow: readonly Slow[]): Micro => slow.reduce((sum, s) => sum + s.reserve, 0n);

/** What stands on the account of the reserve. */
async function booked(tx: Pick<Tx, 'query'>): Promise<Micro> {
  const found = await one<{ amount: string | null }>(
    tx,
    `SELECT SUM(IF(credit = 'slow goods reserve', amount, -amount)) AS amount FROM value_entry WHERE 'slow goods reserve' IN (debit, credit)`,
  );
  return micro(found?.amount ?? '0');
}
