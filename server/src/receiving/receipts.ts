import type { ReceiveAs, ReceiveCommand } from '@vectrum/core/scan';
import type { Condition } from '@vectrum/core/ledger';
import { num, one, Problem, type Tx } from '../platform/index.js';
import { stateOf } from '../purchasing/index.js';

/** What comes in as one movement. */
export interface Taken {
  lineId: number | null;
  itemId: number;
  lotId: number;
  units: number;
  as: ReceiveAs;
  condition: Condition;
  reason: string | null;
}

export const conditionOf = (command: Pick<ReceiveCommand, 'as' | 'condition'>): Condition =>
  command.as === 'apart' ? 'apart' : command.condition;

/** The lot that goods belong to, made where it is new; 0 where the item is not kept by lot or none was read. */
export async function lotFor(
  tx: Tx,
  tracking: string,
  goods: { itemId: number; lot?: string | null; expires?: string | null },
  today: string,
): Promise<number> {
  if (tracking === 'none' || !goods.lot) return 0;
  const expires = tracking === 'lot-expiry' ? (goods.expires ?? null) : null;
  await tx.query('INSERT INTO lot (item_id, code, expires_on, first_received_on) VALUES (?, ?, ?, ?) ON DUPLICATE KEY UPDATE id = id', [
    goods.itemId,
    goods.lot,
    expires,
    today,
  ]);
  const lot = await one<{ id: number; expires_on: string | null }>(tx, 'SELECT id, expires_on FROM lot WHERE item_id = ? AND code = ?', [
    goods.itemId,
    goods.lot,
  ]);
  if (lot?.expires_on && expires && lot.expires_on !== expires)
    throw new Problem(409, 'refused', `Lot ${goods.lot} is known with the date ${lot.expires_on}. Check the label`, {
      band: 'not-this',
      title: 'Date differs',
    });
  return lot?.id ?? 0;
}

/** Counts units onto a line (or off it) and lets its order's state follow. */
export async function countOnLine(tx: Tx, lineId: number, units: number): Promise<void> {
  await tx.query('UPDATE purchase_order_line SET received_units = received_units + ? WHERE id = ?', [units, lineId]);
  const line = await one<{ orderId: number }>(tx, 'SELECT order_id AS orderId FROM purchase_order_line WHERE id = ?', [lineId]);
  const orderId = num(line?.orderId);
  const state = await stateOf(tx, orderId);
  await tx.query(
    `UPDATE purchase_order SET state = ?, first_received_at = IF(? = 'placed', NULL, COALESCE(first_received_at, UTC_TIMESTAMP(3))), version = version + 1 WHERE id = ?`,
    [state, state, orderId],
  );
}

export async function writeReceipt(tx: Tx, arrivalId: number, personId: number, taken: Taken, movementId: number): Promise<number> {
  const made = await tx.query<{ insertId: number }>(
    'INSERT INTO receipt (arrival_id, order_line_id, item_id, lot_id, units, taken_as, stock_condition, reason, movement_id, person_id) VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?)',
    [arrivalId, taken.lineId, taken.itemId, taken.lotId, taken.units, taken.as, taken.condition, taken.reason, movementId, personId],
  );
  return Number(made.insertId);
}
