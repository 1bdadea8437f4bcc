import { marks, rows, type Tx } from '../platform/index.js';

export interface ParcelRow {
  id: number;
  code: string;
  order_id: number;
  place_id: number;
  state: string;
  tracking: string | null;
  carrier_id: number | null;
  site_id: number;
}

/** Locks parcels with their orders, in the order in which everybody locks them. Codes that there are none of are left out. */
export async function lockParcels(tx: Tx, codes: readonly string[]): Promise<ParcelRow[]> {
  const named = await rows<{ id: number }>(
    tx,
    `SELECT DISTINCT order_id AS id FROM parcel WHERE code IN (${marks(codes)}) ORDER BY order_id`,
    [...codes],
  );
  if (named.length === 0) return [];
  await rows(tx, 'SELECT id FROM sales_order WHERE id IN (?) ORDER BY id FOR UPDATE', [named.map((n) => n.id)]);
  return rows<ParcelRow>(
    tx,
    `SELECT id, code, order_id, place_id, state, tracking, carrier_id, (SELECT w.site_id FROM place w WHERE w.id = parcel.place_id) AS site_id FROM parcel WHERE code IN (${marks(codes)}) ORDER BY order_id, id FOR UPDATE`,
    [...codes],
  );
}
