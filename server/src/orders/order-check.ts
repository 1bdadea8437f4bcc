import type { DataSource } from 'typeorm';
import { rows } from '../platform/index.js';
import { statesOf } from './order-states.service.js';

const AT_ONCE = 500;
const MOST_SHOWN = 5;

/** Proves that each order stands where its lines do. Returns what is wrong; nothing is mended. */
export async function checkOrders(source: DataSource): Promise<string[]> {
  const findings: string[] = [];
  for (let after = 0; ;) {
    const some = await rows<{ id: number; code: string }>(
      source,
      `SELECT id, code FROM sales_order WHERE id > ? ORDER BY id LIMIT ${AT_ONCE}`,
      [after],
    );
    const last = some.at(-1);
    if (!last) return findings.slice(0, MOST_SHOWN);
    after = last.id;
    const states = await statesOf(
      source,
      some.map((o) => o.id),
    );
    for (const { id, code } of some) {
      const at = states.get(id);
      if (at && at.kept !== at.state) findings.push(`Order ${code} is said to be ${at.kept}, and its lines say ${at.state}`);
    }
  }
}
