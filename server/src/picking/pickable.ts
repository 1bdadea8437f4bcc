import { type BinChoice, type BinStock, chooseBins, type Rotation } from '@vectrum/core/allocation';
import { marks, num, rows, type Tx } from '../platform/index.js';
import { keepStanding } from '../sites/index.js';

interface Spot {
  item_id: number;
  place_id: number;
  lot_id: number;
}
const keyOf = (spot: Spot) => `${spot.item_id} ${spot.place_id} ${spot.lot_id}`;

/**
 * What bins open to picking hold of items, and no round goes for yet, by item. Locked: the balances stay as they are until the
 * transaction ends; seen: they may have changed by the time that anything is done with them.
 */
export async function pickable(
  tx: Pick<Tx, 'query'>,
  siteId: number,
  itemIds: readonly number[],
  how: 'locked' | 'seen',
): Promise<Map<number, BinStock[]>> {
  const items = [...new Set(itemIds)].sort((a, b) => a - b);
  if (how === 'locked')
    await keepStanding(tx, 'SELECT place_id FROM balance WHERE item_id IN (?) AND units > 0 AND bounded = 1', [[0, ...items]]);
  const found = await rows<Spot & { units: number }>(
    tx,
    `SELECT item_id, place_id, lot_id, units FROM balance WHERE item_id IN (${marks(items)}) AND stock_condition = 'good' AND units > 0 AND bounded = 1 ORDER BY item_id, place_id, lot_id ${how === 'locked' ? 'FOR UPDATE' : ''}`,
    items,
  );
  const places = new Map(
    (
      await rows<{ id: number; walk_order: number }>(
        tx,
        `SELECT id, walk_order FROM place WHERE site_id = ? AND pickable = 1 AND blocked = 0 AND id IN (${marks(found)})`,
        [siteId, ...found.map((f) => f.place_id)],
      )
    ).map((p) => [p.id, p.walk_order]),
  );
  const claims = new Map(
    (
      await rows<Spot & { units: string }>(
        tx,
        `SELECT item_id, place_id, lot_id, SUM(units) AS units FROM reservation WHERE item_id IN (${marks(items)}) AND place_id IS NOT NULL GROUP BY item_id, place_id, lot_id`,
        items,
      )
    ).map((c) => [keyOf(c), num(c.units)]),
  );
  const lots = new Map(
    (
      await rows<{ id: number; expires_on: string | null; first_received_on: string | null }>(
        tx,
        `SELECT id, expires_on, first_received_on FROM lot WHERE id IN (${marks(found)})`,
        found.map((f) => f.lot_id),
      )
    ).map((l) => [l.id, l]),
  );
  const byItem = new Map<number, BinStock[]>();
  for (const row of found) {
    const walkOrder = places.get(row.place_id);
    if (walkOrder === undefined) continue;
    const lot = lots.get(row.lot_id);
    const bin = {
      placeId: row.place_id,
      lotId: row.lot_id,
      walkOrder,
      units: row.units - (claims.get(keyOf(row)) ?? 0),
      expires: lot?.expires_on ?? null,
      received: lot?.first_received_on ?? null,
    };
    const known = byItem.get(row.item_id);
    if (known) known.push(bin);
    else byItem.set(row.item_id, [bin]);
  }
  return byItem;
}

/** Chooses bins for units of an item out of what is left of them, and takes them from it. */
export function takeFrom(
  stock: ReadonlyMap<number, BinStock[]>,
  { itemId, units, rotation }: { itemId: number; units: number; rotation: Rotation },
): { choices: BinChoice[]; short: number } {
  const bins = stock.get(itemId) ?? [];
  const chosen = chooseBins(bins, units, rotation);
  for (const c of chosen.choices) {
    const bin = bins.find((b) => b.placeId === c.placeId && b.lotId === c.lotId);
    if (bin) bin.units -= c.units;
  }
  return chosen;
}
