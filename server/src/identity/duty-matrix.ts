import { one, parsed, type Tx } from '../platform/index.js';
import type { DutyMatrix } from './duties.js';

/** The rights of duties as the company has adjusted them; a duty that is not named has those it came with. */
export async function dutyMatrix(tx: Pick<Tx, 'query'>): Promise<DutyMatrix> {
  const kept = await one<{ value: unknown }>(tx, `SELECT value FROM setting WHERE name = 'duties'`);
  return kept ? parsed<DutyMatrix>(kept.value) : {};
}
