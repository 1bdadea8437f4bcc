import { Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';
import { num, rows } from '../platform/index.js';

/** So many of a supplier's last orders say how long it takes; fewer than three say nothing. */
const LAST_ORDERS = 12;
const LEAST_ORDERS = 3;
/** Where too little is known, what it takes is off by a quarter. */
const USUAL_SPREAD = 0.25;

export interface LeadTime {
  mean: number;
  sd: number;
  /** Orders that it was measured by; nought where the supplier's own word is taken. */
  orders: number;
}

/** How long suppliers take, by their last orders. */
@Injectable()
export class LeadTimes {
  constructor(private readonly source: DataSource) {}

  /** Days from placing to the first goods, of each supplier; as it says itself where too few orders have come. */
  async of(supplierIds: readonly number[]): Promise<Map<number, LeadTime>> {
    const ids = [0, ...supplierIds];
    const said = await rows<{ id: number; days: number }>(this.source, 'SELECT id, lead_days AS days FROM supplier WHERE id IN (?)', [ids]);
    const measured = await rows<{ id: number; n: string; mean: string; sd: string | null }>(
      this.source,
      `SELECT x.id, COUNT(*) AS n, AVG(x.days) AS mean, STDDEV_SAMP(x.days) AS sd FROM
         (SELECT supplier_id AS id, TIMESTAMPDIFF(SECOND, placed_at, first_received_at) / 86400 AS days, ROW_NUMBER() OVER (PARTITION BY supplier_id ORDER BY id DESC) AS nth
          FROM purchase_order WHERE supplier_id IN (?) AND placed_at IS NOT NULL AND first_received_at IS NOT NULL) x WHERE x.nth <= ${LAST_ORDERS} GROUP BY x.id`,
      [ids],
    );
    const all = new Map(said.map((s) => [s.id, { mean: num(s.days), sd: num(s.days) * USUAL_SPREAD, orders: 0 }]));
    for (const m of measured)
      if (num(m.n) >= LEAST_ORDERS) all.set(m.id, { mean: Math.max(0.5, num(m.mean)), sd: num(m.sd ?? 0), orders: num(m.n) });
    return all;
  }
}
