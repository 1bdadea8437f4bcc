import { Injectable } from '@nestjs/common';
import { decimalText, dividedBy, micro, priceText } from '@vectrum/core/money';
import { spell } from '@vectrum/core/quantity';
import { DataSource } from 'typeorm';
import { ItemQueries } from '../catalogue/index.js';
import { dayOf, houseSpan, likeAny, num, rows, type Window } from '../platform/index.js';
import type { AgeDto, ValuePageDto, ValueRowDto } from './value.dto.js';

export interface ValueAsked {
  /** ISO date; empty for now. */
  on: string;
  by: 'item' | 'class';
  search: string;
}

interface Row {
  id: number;
  sku: string;
  name: string;
  className: string;
  units: string | number;
  value: string;
}

/** Whether goods in a place and condition are ours: what is set apart is not, and what is outside is not here. */
const ours = (place: string, condition: string) => `(${place}.site_id IS NOT NULL AND ${condition} <> 'apart')`;
const AGES = [30, 90, 180, 365] as const;

export function valueAsked(query: Readonly<Record<string, unknown>>): ValueAsked {
  const text = (name: string) => (typeof query[name] === 'string' ? query[name].trim().slice(0, 80) : '');
  return { on: dayOf(query, 'on'), by: text('by') === 'class' ? 'class' : 'item', search: text('search') };
}

/** What stock was worth on a day. */
@Injectable()
export class ValueQueries {
  constructor(
    private readonly source: DataSource,
    private readonly items: ItemQueries,
  ) {}

  /**
   * The stock at the end of a day: what there is now, without what has moved since. O(items + what was posted since that day), so
   * that the last months are quick however long the history is.
   */
  async list(asked: ValueAsked, window: Window): Promise<ValuePageDto> {
    const found = await this.stockOn(asked);
    const total = found.reduce((sum, r) => sum + micro(r.value), 0n);
    const all = asked.by === 'class' ? byClass(found) : found;
    const sorted = [...all].sort((a, b) =>
      micro(b.value) > micro(a.value) ? 1 : micro(b.value) < micro(a.value) ? -1 : a.name.localeCompare(b.name),
    );
    const page = sorted.slice(window.from, window.from + window.limit);
    const packs = asked.by === 'class' ? new Map<number, never>() : await this.items.packs(page.map((r) => r.id));
    return {
      total: all.length,
      value: decimalText(total),
      ages: asked.on === '' ? await this.ages() : [],
      rows: page.map((r): ValueRowDto => {
        const units = num(r.units);
        return {
          key: asked.by === 'class' ? r.className : r.sku,
          name: r.name,
          units: asked.by === 'class' ? 0 : units,
          words: asked.by === 'class' ? '' : spell(units, packs.get(r.id) ?? []),
          value: r.value,
          each: asked.by === 'class' || units === 0 ? '' : priceText(dividedBy(micro(r.value), units)),
          share: total === 0n ? 0 : Number((micro(r.value) * 10_000n) / total),
        };
      }),
    };
  }

  private async stockOn({ on, search }: ValueAsked): Promise<Row[]> {
    const words = search.split(/\s+/).filter(Boolean).slice(0, 4);
    const since = on === '' ? null : (await houseSpan(this.source, on, on)).ends;
    const moved = since
      ? `LEFT JOIN (SELECT m.item_id, SUM(CAST(m.units AS SIGNED) * (${ours('t', 'COALESCE(m.to_condition, m.stock_condition)')} - ${ours('f', 'm.stock_condition')})) AS units
           FROM movement m JOIN place f ON f.id = m.from_place_id JOIN place t ON t.id = m.to_place_id WHERE m.server_at >= ${since} GROUP BY m.item_id) x ON x.item_id = c.item_id
         LEFT JOIN (SELECT item_id, SUM(IF(debit = 'stock', amount, -amount)) AS value FROM value_entry WHERE at >= ${since} AND (debit = 'stock' OR credit = 'stock') GROUP BY item_id) e ON e.item_id = c.item_id`
      : '';
    const [units, value] = since
      ? ['CAST(c.units AS SIGNED) - COALESCE(x.units, 0)', 'c.value - COALESCE(e.value, 0)']
      : ['c.units', 'c.value'];
    return rows<Row>(
      this.source,
      `SELECT i.id, i.sku, i.name, i.class AS className, ${units} AS units, ${value} AS value FROM cost_pool c JOIN item i ON i.id = c.item_id ${moved}
       WHERE (${units} <> 0 OR ${value} <> 0)${words.map(() => ` AND CONCAT_WS(' ', i.name, i.sku, i.class) LIKE ?`).join('')}`,
      words.map(likeAny),
    );
  }

  /** What the layers that are left are worth, by how long they have been there. */
  private async ages(): Promise<AgeDto[]> {
    const bands = AGES.map(
      (days, i) =>
        `SUM(IF(DATEDIFF(UTC_TIMESTAMP(), at) <= ${days} AND DATEDIFF(UTC_TIMESTAMP(), at) > ${AGES[i - 1] ?? -1}, value_left, 0)) AS a${i}`,
    );
    const [sums = {}] = await rows<Record<string, string | null>>(
      this.source,
      `SELECT ${bands.join(', ')}, SUM(IF(DATEDIFF(UTC_TIMESTAMP(), at) > ${AGES[AGES.length - 1] ?? 0}, value_left, 0)) AS a${AGES.length} FROM cost_layer WHERE units_left > 0`,
    );
    const says = ['up to 30 days', '31 to 90 days', '91 to 180 days', '181 to 365 days', 'longer than a year'];
    return says.map((words, i) => ({ says: words, value: sums[`a${i}`] ?? '0.000000' }));
  }
}

function byClass(all: readonly Row[]): Row[] {
  const classes = new Map<string, Row>();
  for (const r of all) {
    const name = r.className === '' ? 'without a class' : r.className;
    const sum = classes.get(name);
    classes.set(name, { ...r, name, value: decimalText(micro(sum?.value ?? '0') + micro(r.value)) });
  }
  return [...classes.values()];
}
