import { ALL_ORDERS, type PickStop } from '@vectrum/core/scan';
import type { PlanPoint } from '@vectrum/core/walk';
import { marks, num, prepared, type Tx } from '../platform/index.js';

/** A stop as the database has it, with where it is on the plan. */
export interface PlacedStop extends Omit<PickStop, 'metres'> {
  roundId: number;
  x: string | null;
  y: string | null;
  /** Who goes there: whoever it is shared out to, otherwise whoever walks the round; null where nobody does yet. */
  ownerId: number | null;
  owner: string | null;
}

/** Of a pooled round: stops at one bin for one lot are one, for all of its orders together. It goes by the first of their numbers. */
export function pooledStops(stops: readonly PlacedStop[]): PlacedStop[] {
  const merged = new Map<string, PlacedStop>();
  for (const stop of stops) {
    const key = `${stop.placeId} ${stop.itemId} ${stop.lotId}`;
    const one = merged.get(key) ?? { ...stop, orderId: ALL_ORDERS, units: 0, picked: 0, short: 0 };
    merged.set(key, {
      ...one,
      id: Math.min(one.id, stop.id),
      units: one.units + stop.units,
      picked: one.picked + stop.picked,
      short: one.short + stop.short,
    });
  }
  return [...merged.values()];
}

/** Whether anything is still wanted at a stop. */
export const isOpen = (s: Pick<PlacedStop, 'units' | 'picked' | 'short'>) => s.units > s.picked + s.short;
export const pointOf = (row: { x: string | null; y: string | null }): PlanPoint => ({ x: num(row.x), y: num(row.y) });

/** One stop for each place that is on the plan. */
export const distinct = (stops: readonly PlacedStop[]): PlacedStop[] => [
  ...new Map(stops.filter((s) => s.x !== null && s.y !== null).map((s) => [s.placeId, s])).values(),
];

/** The stops of rounds in the walking order of their places. */
export function stopsOf(tx: Pick<Tx, 'query'>, roundIds: readonly number[]): Promise<PlacedStop[]> {
  return prepared<PlacedStop[]>(
    tx,
    `SELECT s.id, s.round_id AS roundId, k.order_id AS orderId, s.item_id AS itemId, s.lot_id AS lotId, l.code AS lot, s.place_id AS placeId, p.code AS placeCode, s.units, s.picked_units AS picked, s.short_units AS short, p.x_m AS x, p.y_m AS y, w.id AS ownerId, w.name AS owner
     FROM round_stop s JOIN \`round\` r ON r.id = s.round_id LEFT JOIN person w ON w.id = COALESCE(s.person_id, r.picker_id) JOIN sales_order_line k ON k.id = s.order_line_id JOIN place p ON p.id = s.place_id LEFT JOIN lot l ON l.id = s.lot_id WHERE s.round_id IN (${marks(roundIds)}) ORDER BY p.walk_order, s.item_id, s.lot_id, s.id`,
    roundIds,
  );
}
