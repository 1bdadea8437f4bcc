import { marks, NEXT, type Tx, update } from '../platform/index.js';

/** Works out anew what items lack. Everything that writes barcodes, costs or sizes ends with this. */
export async function refreshLacks(tx: Pick<Tx, 'query'>, itemIds: readonly number[] | 'all'): Promise<void> {
  if (itemIds !== 'all' && itemIds.length === 0) return;
  await tx.query(
    `UPDATE item i SET
       lacks_barcode = NOT EXISTS (SELECT 1 FROM barcode b JOIN pack_unit u ON u.id = b.pack_unit_id WHERE u.item_id = i.id),
       lacks_cost = i.cost IS NULL,
       lacks_size = NOT EXISTS (SELECT 1 FROM pack_unit u WHERE u.item_id = i.id AND u.factor = 1 AND u.weight_g IS NOT NULL AND u.length_mm IS NOT NULL)
     ${itemIds === 'all' ? '' : `WHERE i.id IN (${marks(itemIds)})`}`,
    itemIds === 'all' ? [] : [...itemIds],
  );
}

/** What an item costs, where nobody has said so yet. */
export async function keepFirstCost(tx: Pick<Tx, 'query'>, itemId: number, cost: string): Promise<void> {
  await update(tx, 'item', { id: itemId, cost: null }, { cost, version: NEXT });
}
