import type { PlaceFacts } from '@vectrum/core/scan';
import { insert, one, refused, type Tx } from '../platform/index.js';

/** Whom a tote is used for. */
export interface ToteFor {
  roundId: number;
  orderId: number;
}

/** A tote holds what it holds for one order of one round, which may fill several; its row is locked, so that two cannot take it together. */
export async function toteOf(tx: Tx, use: ToteFor, tote: PlaceFacts): Promise<void> {
  const known = await useOf(tx, tote.id);
  if (known && known.roundId === use.roundId && known.orderId === use.orderId && !known.setDown) return;
  await one(tx, 'SELECT id FROM place WHERE id = ? FOR UPDATE', [tote.id]);
  const other = await useOf(tx, tote.id);
  const mine = other && other.roundId === use.roundId && other.orderId === use.orderId && !other.setDown;
  if (other && !mine) throw refused({ band: 'not-this', title: `Tote ${tote.code}`, detail: 'In use on another order. Take an empty one' });
  if (!other) await insert(tx, 'tote_use', { tote_id: tote.id, round_id: use.roundId, order_id: use.orderId });
}

async function useOf(tx: Tx, toteId: number): Promise<(ToteFor & { setDown: boolean }) | undefined> {
  const use = await one<ToteFor & { setDown: number | string }>(
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

/** Totes of an order that stand at a table and are empty are free for the next one; a round whose totes are all free is done. */
export async function freeTotes(tx: Tx, orderId: number): Promise<void> {
  await tx.query(
    `UPDATE tote_use u SET u.ended_at = UTC_TIMESTAMP(3) WHERE u.order_id = ? AND u.ended_at IS NULL AND u.set_down_at IS NOT NULL AND ${EMPTY}`,
    [orderId],
  );
  await tx.query(
    `UPDATE \`round\` r JOIN round_order x ON x.round_id = r.id SET r.state = 'done' WHERE x.order_id = ? AND r.state = 'set-down' AND NOT EXISTS (SELECT 1 FROM tote_use u WHERE u.round_id = r.id AND u.ended_at IS NULL)`,
    [orderId],
  );
}

/** The round and order that a tote is used for are held, so that what comes out of it may end them; null where it is free. */
export async function holdUseOf(tx: Tx, toteId: number): Promise<number | null> {
  const use = await one<{ roundId: number; orderId: number }>(
    tx,
    'SELECT round_id AS roundId, order_id AS orderId FROM tote_use WHERE open_tote = ?',
    [toteId],
  );
  if (use) await tx.query('SELECT id FROM `round` WHERE id = ? FOR UPDATE', [use.roundId]);
  return use?.orderId ?? null;
}
