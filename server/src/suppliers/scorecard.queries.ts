import { Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';
import { num, one } from '../platform/index.js';
import type { ScorecardDto } from './suppliers.dto.js';

const DAYS = 365;
const DONE = `o.supplier_id = ? AND o.state IN ('received','closed') AND o.placed_at > UTC_TIMESTAMP() - INTERVAL ${DAYS} DAY`;

type Figure = string | number | null;

/** How a supplier has done over the last year, reckoned from orders that are done with and what came of them. */
@Injectable()
export class ScorecardQueries {
  constructor(private readonly source: DataSource) {}

  async of(supplierId: number): Promise<ScorecardDto> {
    const [lines, orders, units] = await Promise.all([
      one<Record<'lines' | 'onTime' | 'inFull' | 'priceHeld', Figure>>(
        this.source,
        `SELECT COUNT(*) AS \`lines\`, SUM(w.closed_units = 0) AS inFull, SUM(NOT w.dearer) AS priceHeld,
           SUM(w.closed_units = 0 AND (w.due IS NULL OR DATE(w.last_at) <= w.due)) AS onTime
         FROM (SELECT l.id, l.closed_units, COALESCE(l.expected_on, o.expected_on) AS due,
                 (SELECT MAX(r.at) FROM receipt r WHERE r.order_line_id = l.id AND r.undone_at IS NULL) AS last_at,
                 EXISTS (SELECT 1 FROM purchase_order_change c WHERE c.order_id = o.id AND c.line = l.line AND c.what = 'price' AND c.why <> '') AS dearer
               FROM purchase_order_line l JOIN purchase_order o ON o.id = l.order_id WHERE ${DONE}) w`,
        [supplierId],
      ),
      one<{ orders: Figure; lead: Figure }>(
        this.source,
        `SELECT COUNT(*) AS orders, AVG(TIMESTAMPDIFF(HOUR, o.placed_at, o.first_received_at)) / 24 AS lead FROM purchase_order o WHERE ${DONE}`,
        [supplierId],
      ),
      one<{ good: Figure; of: Figure }>(
        this.source,
        `SELECT SUM(IF(r.stock_condition = 'damaged', 0, r.units))
           - COALESCE((SELECT SUM(v.units) FROM inspection_verdict v JOIN inspection n ON n.id = v.inspection_id JOIN arrival b ON b.id = n.arrival_id
               WHERE b.supplier_id = ? AND v.verdict <> 'pass' AND v.undone_at IS NULL AND v.at > UTC_TIMESTAMP() - INTERVAL ${DAYS} DAY), 0) AS good,
           SUM(r.units) AS \`of\` FROM receipt r JOIN arrival a ON a.id = r.arrival_id
         WHERE a.supplier_id = ? AND r.undone_at IS NULL AND r.taken_as <> 'apart' AND r.at > UTC_TIMESTAMP() - INTERVAL ${DAYS} DAY`,
        [supplierId, supplierId],
      ),
    ]);
    const share = (good: Figure | undefined) => ({ good: num(good), of: num(lines?.lines) });
    return {
      orders: num(orders?.orders),
      onTime: share(lines?.onTime),
      inFull: share(lines?.inFull),
      priceHeld: share(lines?.priceHeld),
      unharmed: { good: num(units?.good), of: num(units?.of) },
      leadDays: orders?.lead === null || orders?.lead === undefined ? null : Math.round(num(orders.lead) * 10) / 10,
    };
  }
}
