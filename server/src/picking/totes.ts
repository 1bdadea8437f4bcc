import { isFor } from '@vectrum/core/places';
import type { PlaceFacts } from '@vectrum/core/scan';
import { find, insert, NOW, one, prepared, Problem, refused, type Tx, update } from '../platform/index.js';

/** Whom a tote or a slot of a wall is used for; of a pooled round for all of its orders: null. */
export interface ToteFor {
  roundId: number;
  orderId: number | null;
}

/**
 * A tote holds what it holds for one order of one round, or for all of a pooled one, which may fill several; its row is locked, so that
 * two cannot take it together. Returns whether it was not in use before.
 */
export async function toteOf(tx: Tx, use: ToteFor, tote: PlaceFacts): Promise<boolean> {
  const known = await useOf(tx, tote.id);
  if (known && known.roundId === use.roundId && known.orderId === use.orderId && !known.setDown) return false;
  await one(tx, 'SELECT id FROM place WHERE id = ? FOR UPDATE', [tote.id]);
  const other = await useOf(tx, tote.id);
  const mine = other && other.roundId === use.roundId && other.orderId === use.orderId && !other.setDown;
  if (other && !mine)
    throw refused({
      band: 'not-this',
      title: isFor(tote.kind, 'collect') ? `Tote ${tote.code}` : tote.code,
      detail: 'In use on another order. Take an empty one',
    });
  if (!other) await insert(tx, 'tote_use', { tote_id: tote.id, round_id: use.roundId, order_id: use.orderId });
  return !other;
}

/** Whether a tote stands on a cart. */
export const standsOnCart = async (tx: Tx, toteId: number): Promise<boolean> =>
  (await one(tx, `SELECT 1 AS n FROM place t JOIN place c ON c.id = t.parent_id AND c.kind = 'cart' WHERE t.id = ?`, [toteId])) !==
  undefined;

/** A tote that a round took and that is still empty is free again. The round is held. Throws where goods are in it. */
export async function freeEmpty(tx: Tx, roundId: number, toteId: number): Promise<void> {
  const use = await find(tx, 'tote_use', { round_id: roundId, open_tote: toteId }, 'lock');
  const holds = await one(tx, 'SELECT 1 AS n FROM balance WHERE place_id = ? AND units > 0 LIMIT 1', [toteId]);
  if (!use || use.set_down_at || holds) throw new Problem(409, 'undo', 'There are goods in the tote. Take those back first');
  await tx.query('DELETE FROM tote_use WHERE id = ?', [use.id]);
}

async function useOf(tx: Tx, toteId: number): Promise<(ToteFor & { setDown: boolean }) | undefined> {
  const [use] = await prepared<(ToteFor & { setDown: number | string })[]>(
    tx,
    'SELECT round_id AS roundId, order_id AS orderId, set_down_at IS NOT NULL AS setDown FROM tote_use WHERE open_tote = ?',
    [toteId],
  );
  return use && { ...use, setDown: Number(use.setDown) === 1 };
}

/** Takes hold of the rounds of an order, before the order itself: freeing totes may end them. */
export async function holdRounds(tx: Tx, orderCode: string): Promise<void> {
  await tx.query(
    'SELECT id FROM `round` WHERE id IN (SELECT x.round_id FROM round_order x JOIN sales_order o ON o.id = x.order_id WHERE o.code = ?) ORDER BY id FOR UPDATE',
    [orderCode],
  );
}

const EMPTY = 'NOT EXISTS (SELECT 1 FROM balance b WHERE b.place_id = u.tote_id AND b.units > 0)';
const OF_ORDER = '(u.order_id = ? OR (u.order_id IS NULL AND u.round_id IN (SELECT x.round_id FROM round_order x WHERE x.order_id = ?)))';

/**
 * Totes and slots of an order that are empty at a table or wall are free for the next one; a slot whose order has nothing more in
 * shared totes is ready to pack; a round of which nothing is in use is done. The order's rounds are held.
 */
export async function freeTotes(tx: Tx, orderId: number): Promise<void> {
  await tx.query(
    `UPDATE tote_use u JOIN place p ON p.id = u.tote_id SET u.ended_at = UTC_TIMESTAMP(3) WHERE ${OF_ORDER} AND u.ended_at IS NULL AND (u.set_down_at IS NOT NULL OR p.kind = 'wall-slot') AND ${EMPTY}`,
    [orderId, orderId],
  );
  await tx.query(
    `UPDATE tote_use u JOIN place p ON p.id = u.tote_id AND p.kind = 'wall-slot' SET u.set_down_at = UTC_TIMESTAMP(3)
     WHERE u.order_id = ? AND u.ended_at IS NULL AND u.set_down_at IS NULL AND NOT EXISTS (SELECT 1 FROM tote_use w JOIN reservation v ON v.place_id = w.tote_id JOIN sales_order_line l ON l.id = v.order_line_id
       WHERE w.round_id = u.round_id AND w.order_id IS NULL AND w.ended_at IS NULL AND l.order_id = u.order_id)`,
    [orderId],
  );
  await tx.query(
    `UPDATE \`round\` r JOIN round_order x ON x.round_id = r.id SET r.state = 'done' WHERE x.order_id = ? AND r.state = 'set-down' AND NOT EXISTS (SELECT 1 FROM tote_use u WHERE u.round_id = r.id AND u.ended_at IS NULL)`,
    [orderId],
  );
}

/**
 * Goods are back in the shared tote that they were sorted from: it is in use again, and their slot waits for them, or is free where it
 * is empty. The round is held. Throws where the tote is in use on something else by now.
 */
export async function backIntoTote(tx: Tx, { roundId, orderId }: ToteFor, slotId: number, toteId: number): Promise<void> {
  await one(tx, 'SELECT id FROM place WHERE id = ? FOR UPDATE', [toteId]);
  const use = await useOf(tx, toteId);
  if (use && use.roundId !== roundId)
    throw new Problem(409, 'undo', 'Their tote is in use on another round by now. Put the goods back by hand and ask the office');
  if (!use) await insert(tx, 'tote_use', { tote_id: toteId, round_id: roundId, order_id: null, set_down_at: NOW });
  await update(tx, 'round', { id: roundId, state: 'done' }, { state: 'set-down' });
  await update(tx, 'tote_use', { round_id: roundId, order_id: orderId, tote_id: slotId, ended_at: null }, { set_down_at: null });
  await tx.query(`DELETE u FROM tote_use u WHERE u.round_id = ? AND u.tote_id = ? AND u.ended_at IS NULL AND ${EMPTY}`, [roundId, slotId]);
}

/** The round that a tote is used for is held, so that what comes out of it may end it. Returns its order, any of a pooled round; null where the tote is free. */
export async function holdUseOf(tx: Tx, toteId: number): Promise<number | null> {
  const use = await one<{ roundId: number; orderId: number }>(
    tx,
    'SELECT u.round_id AS roundId, COALESCE(u.order_id, (SELECT MIN(x.order_id) FROM round_order x WHERE x.round_id = u.round_id)) AS orderId FROM tote_use u WHERE u.open_tote = ?',
    [toteId],
  );
  if (use) await tx.query('SELECT id FROM `round` WHERE id = ? FOR UPDATE', [use.roundId]);
  return use?.orderId ?? null;
}
