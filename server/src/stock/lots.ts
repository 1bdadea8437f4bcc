import { insertMany, marks, one, Problem, siteDay, type Tx, update } from '../platform/index.js';

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

/** Lots of opening stock: those that are new are made, first received today; a date that is not known yet is kept. */
export async function openLots(
  tx: Tx,
  wanted: readonly (readonly [itemId: number, code: string, expires: string | null])[],
): Promise<void> {
  await insertMany(
    tx,
    'lot',
    ['item_id', 'code', 'expires_on'],
    wanted,
    'ON DUPLICATE KEY UPDATE expires_on = COALESCE(expires_on, VALUES(expires_on))',
  );
  const ids = [...new Set(wanted.map(([id]) => id))];
  if (ids.length === 0) return;
  const { today } = await siteDay(tx, null);
  await tx.query(`UPDATE lot SET first_received_on = ? WHERE first_received_on IS NULL AND item_id IN (${marks(ids)})`, [today, ...ids]);
}

/** A lot was read wrongly: it gets the code and the date that stand on its label. */
export async function correctLot(tx: Tx, lotId: number, code: string, expires: string | null): Promise<void> {
  await update(tx, 'lot', { id: lotId }, { code, expires_on: expires });
}
