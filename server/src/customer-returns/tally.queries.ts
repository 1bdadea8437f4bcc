import { RETURN_REASONS, type ReturnReason } from '@vectrum/core/customer-returns';
import { Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';
import { dayOf, num, rows } from '../platform/index.js';
import type { ReturnTallyDto } from './customer-returns.dto.js';

export const TALLY_BY = ['item', 'supplier', 'customer'] as const;
export interface TallyAsked {
  by: (typeof TALLY_BY)[number];
  from: string;
  to: string;
}

/** More than anybody reads; those with most returns come first. */
const MOST = 300;
const reasonsFor = (...answers: string[]) =>
  (Object.keys(RETURN_REASONS) as ReturnReason[])
    .filter((r) => answers.includes(RETURN_REASONS[r].answers))
    .map((r) => `'${r}'`)
    .join(',');
const SUM = (reasons: string) => `COALESCE(SUM(IF(l.reason IN (${reasons}), c.units, 0)), 0)`;

/** The keys by which what left and what came back are held against each other; an item that several suppliers have counts for the first of them. */
const KEYS = {
  item: { key: 'i.sku', name: 'MAX(i.name)', join: '' },
  supplier: {
    key: 's.code',
    name: 'MAX(s.name)',
    join: 'JOIN (SELECT item_id, MIN(supplier_id) AS supplier_id FROM supplier_item GROUP BY item_id) si ON si.item_id = i.id JOIN supplier s ON s.id = si.supplier_id',
  },
  customer: {
    key: 'COALESCE(k.code, o.customer)',
    name: 'MAX(COALESCE(k.name, o.customer))',
    join: 'LEFT JOIN customer k ON k.id = o.customer_id',
  },
} as const;

export function tallyAsked(query: Readonly<Record<string, unknown>>): TallyAsked {
  return { by: TALLY_BY.find((b) => b === query['by']) ?? 'item', from: dayOf(query, 'from'), to: dayOf(query, 'to') };
}

/** What comes back of what leaves: by item, supplier and customer, with why. */
@Injectable()
export class TallyQueries {
  constructor(private readonly source: DataSource) {}

  async tally(siteIds: readonly number[], { by, from, to }: TallyAsked): Promise<ReturnTallyDto> {
    const { key, name, join } = KEYS[by];
    const sites = [0, ...siteIds];
    const [begins, ends] = [from || '2000-01-01', to || '2099-12-31'];
    const back = await rows<{ key: string; name: string } & Record<'back' | 'faulty' | 'ours' | 'theirs' | 'returns', string>>(
      this.source,
      `SELECT ${key} AS \`key\`, ${name} AS name, SUM(c.units) AS back, ${SUM(reasonsFor('supplier'))} AS faulty, ${SUM(reasonsFor('house', 'carrier'))} AS ours, ${SUM(reasonsFor('customer'))} AS theirs, COUNT(DISTINCT r.id) AS returns
       FROM came_back c JOIN customer_return_line l ON l.id = c.line_id JOIN customer_return r ON r.id = l.return_id JOIN item i ON i.id = l.item_id LEFT JOIN sales_order o ON o.id = r.order_id ${join}
       WHERE c.undone_at IS NULL AND c.at >= ? AND c.at < DATE_ADD(?, INTERVAL 1 DAY) AND r.site_id IN (?) AND ${key} IS NOT NULL GROUP BY ${key} ORDER BY back DESC LIMIT ${MOST}`,
      [begins, ends, sites],
    );
    if (back.length === 0) return { rows: [] };
    const gone = await rows<{ key: string; units: string }>(
      this.source,
      `SELECT ${key} AS \`key\`, SUM(l.shipped_units) AS units FROM sales_order o JOIN sales_order_line l ON l.order_id = o.id AND l.shipped_units > 0 JOIN item i ON i.id = l.item_id ${join}
       WHERE o.shipped_at >= ? AND o.shipped_at < DATE_ADD(?, INTERVAL 1 DAY) AND o.site_id IN (?) AND ${key} IN (?) GROUP BY ${key}`,
      [begins, ends, sites, ['', ...back.map((b) => b.key)]],
    );
    return {
      rows: back.map((b) => {
        const left = num(gone.find((g) => g.key === b.key)?.units);
        return {
          key: b.key,
          name: b.name,
          left,
          back: num(b.back),
          share: left > 0 ? Math.round((num(b.back) * 1000) / left) / 10 : 100,
          faulty: num(b.faulty),
          ours: num(b.ours),
          theirs: num(b.theirs),
          returns: num(b.returns),
        };
      }),
    };
  }
}
