import { rows, type Tx } from '../../platform/index.js';
import type { UblDespatchAdvice } from '../../ubl/index.js';

/** What is in a parcel as its customer's system is told: under their number of the order and the codes that they ordered by, lots with it. */
export async function adviceOf(
  tx: Pick<Tx, 'query'>,
  parcel: { code: string; ref: string; seller: string; tracking: string | null },
): Promise<UblDespatchAdvice> {
  const lines = await rows<{ line: number; units: number; sku: string; name: string; lot: string | null; expires: string | null }>(
    tx,
    `SELECT l.line, pl.units, l.channel_sku AS sku, i.name, t.code AS lot, t.expires_on AS expires
     FROM parcel p JOIN parcel_line pl ON pl.parcel_id = p.id JOIN sales_order_line l ON l.id = pl.order_line_id JOIN item i ON i.id = l.item_id LEFT JOIN lot t ON t.id = pl.lot_id
     WHERE p.code = ? AND l.along = 0 ORDER BY l.line, t.code`,
    [parcel.code],
  );
  return {
    id: parcel.code,
    issuedOn: new Date().toISOString().slice(0, 10),
    arrivesOn: null,
    supplier: parcel.seller,
    tracking: parcel.tracking,
    lines: lines.map((l, i) => ({
      line: i + 1,
      order: parcel.ref,
      orderLine: l.line,
      packs: l.units,
      factor: 1,
      sku: l.sku,
      name: l.name,
      lot: l.lot,
      expires: l.expires,
      sscc: null,
    })),
  };
}
