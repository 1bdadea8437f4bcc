import { type Act, num, one, type Tx } from '../platform/index.js';
import type { CountRow } from './count-rows.js';
import type { Counts } from './counts.service.js';
import type { Judged } from './review.queries.js';

/** Lines that one act decides on at most; more are decided by several. */
export const MOST_LINES = 200;

/** Lines that are as the books say are settled, and need no movement. */
export async function settleRight(tx: Tx, act: Act, lines: readonly Judged[]): Promise<void> {
  const open = lines.filter((j) => j.raw.state === 'counted');
  for (let i = 0; i < open.length; i += MOST_LINES) {
    const part = open.slice(i, i + MOST_LINES).map((j) => j.raw.id);
    await tx.query(
      `UPDATE count_line SET state = 'accepted', expected_units = counted_units, within_limits = 1, settled_by_id = ?, settled_at = UTC_TIMESTAMP(3), version = version + 1 WHERE id IN (?)`,
      [act.person.id, part],
    );
  }
}

/** How many lines of a count nobody has decided on. */
export async function undecided(tx: Tx, count: CountRow): Promise<number> {
  const found = await one<{ n: string }>(tx, `SELECT COUNT(*) AS n FROM count_line WHERE count_id = ? AND state IN ('open','counted')`, [
    count.id,
  ]);
  return num(found?.n);
}

/** A count of which every line is decided, and every code, is closed. Returns how many lines are left. */
export async function endWhereDecided(tx: Tx, counts: Counts, count: CountRow): Promise<number> {
  const left = await undecided(tx, count);
  const code = await one(tx, 'SELECT id FROM count_code WHERE count_id = ? AND settled_at IS NULL LIMIT 1', [count.id]);
  const open = await one(tx, `SELECT id FROM count_bin WHERE count_id = ? AND state <> 'counted' AND not_person_id IS NOT NULL LIMIT 1`, [
    count.id,
  ]);
  if (count.state === 'review' && left === 0 && !code && !open) await counts.end(tx, count, 'closed');
  return left;
}
