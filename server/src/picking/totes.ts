import type { PlaceFacts } from '@vectrum/core/scan';
import { one, refused, type Tx } from '../platform/index.js';

/** Whom a tote is used for. */
export interface ToteFor {
  roundId: number;
  orderId: number;
}

/** A tote holds what it holds for one order of one round; its row is locked, so that two cannot take it together. */
export async function toteOf(tx: Tx, use: ToteFor, tote: PlaceFacts): Promise<void> {
  const known = await useOf(tx, tote.id);
  if (known && known.roundId === use.roundId && known.orderId === use.orderId && !known.setDown) return;
  await one(tx, 'SELECT id FROM place WHERE id = ? FOR UPDATE', [tote.id]);
  const other = await useOf(tx, tote.id);
  const mine = other && other.roundId === use.roundId && other.orderId === use.orderId && !other.setDown;
  if (other && !mine) throw refused({ band: 'not-this', title: `Tote ${tote.code}`, detail: 'In use on another order. Take an empty one' });
  const has = await one(tx, 'SELECT id FROM tote_use WHERE round_id = ? AND order_id = ? AND ended_at IS NULL AND tote_id <> ? LIMIT 1', [
    use.roundId,
    use.orderId,
    tote.id,
  ]);
  if (has)
    throw refused({ band: 'not-this', title: `Tote ${tote.code}`, detail: 'This round has its tote already. Put the goods in that one' });
  if (!other) await tx.query('INSERT INTO tote_use (tote_id, round_id, order_id) VALUES (?, ?, ?)', [tote.id, use.roundId, use.orderId]);
}

async function useOf(tx: Tx, toteId: number): Promise<(ToteFor & { setDown: boolean }) | undefined> {
  const use = await one<ToteFor & { setDown: number | string }>(
    tx,
    'SELECT round_id AS roundId, order_id AS orderId, set_down_at IS NOT NULL AS setDown FROM tote_use WHERE open_tote = ?',
    [toteId],
  );
  return use && { ...use, setDown: Number(use.setDown) === 1 };
}
