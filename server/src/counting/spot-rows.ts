import { find, notFound, num, one, type Row, type Tx } from '../platform/index.js';
import { keepStanding } from '../sites/index.js';
import type { CountedSpot } from './missing-goods.js';

export type SpotRow = Row<'spot_count'>;
export const spotOf = (row: SpotRow): CountedSpot => ({
  siteId: row.site_id,
  placeId: row.place_id,
  itemId: row.item_id,
  lotId: row.lot_id,
});

/** What the books have there, good and held, locked. */
export async function bookedAt(tx: Tx, { itemId, placeId, lotId }: CountedSpot): Promise<{ good: number; held: number }> {
  await keepStanding(tx, '?', [placeId]);
  const found = await tx.query<{ condition: string; units: number }[]>(
    `SELECT stock_condition AS \`condition\`, units FROM balance WHERE item_id = ? AND place_id = ? AND lot_id = ? AND stock_condition IN ('good','held') ORDER BY stock_condition FOR UPDATE`,
    [itemId, placeId, lotId],
  );
  const of = (condition: string) => num(found.find((f) => f.condition === condition)?.units);
  return { good: of('good'), held: of('held') };
}

/** A count, locked: after the goods that it is of. */
export async function lockedSpot(tx: Tx, id: number): Promise<SpotRow> {
  const row = await find(tx, 'spot_count', { id }, 'lock');
  if (!row) throw notFound('This count');
  return row;
}

/** The count of a spot that nobody has decided on yet, locked; undefined where there is none. */
export function openSpotAt(tx: Tx, { itemId, placeId, lotId }: CountedSpot): Promise<SpotRow | undefined> {
  return one<SpotRow>(
    tx,
    `SELECT * FROM spot_count WHERE item_id = ? AND place_id = ? AND lot_id = ? AND state IN ('open','counted') FOR UPDATE`,
    [itemId, placeId, lotId],
  );
}

/** Goods change their condition where they lie, or come from or go to outside the house, since somebody has counted them. */
export function counted(
  { itemId, lotId, placeId }: CountedSpot,
  condition: 'good' | 'held',
  toCondition: 'good' | 'held',
  units: number,
  ends: { fromPlaceId?: number; toPlaceId?: number } = {},
) {
  return { itemId, lotId, condition, toCondition, fromPlaceId: placeId, toPlaceId: placeId, units, ...ends };
}

/** What such movements are booked for. */
export const becauseCounted = (document: string | null) => ({ task: 'count' as const, document: document ?? 'COUNT', reason: 'counted' });
