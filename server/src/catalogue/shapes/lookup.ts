import { idsBy, type ImportRow, textOf } from '../../exchange/index.js';
import { marks, rows, type Tx } from '../../platform/index.js';

type Reader = Pick<Tx, 'query'>;

/** Ids of the items that a batch of rows names. */
export const itemIds = (tx: Reader, batch: readonly ImportRow[], key = 'sku') =>
  idsBy(
    tx,
    'item',
    'sku',
    batch.map((r) => textOf(r, key)),
    null,
  );

/** Pack unit ids by "item id/factor". */
export async function packIds(tx: Reader, items: Iterable<number>): Promise<Map<string, number>> {
  const ids = [...new Set(items)];
  if (ids.length === 0) return new Map();
  const found = await rows<{ id: number; item_id: number; factor: number }>(
    tx,
    `SELECT id, item_id, factor FROM pack_unit WHERE item_id IN (${marks(ids)})`,
    ids,
  );
  return new Map(found.map((f) => [`${f.item_id}/${f.factor}`, f.id]));
}
