import { hasCheckDigit } from '@vectrum/core/barcode';
import { badForm, badState, findAll, insert, one, remove, type Tx, update } from '../platform/index.js';
import type { EditPackDto } from './items.dto.js';
import { keyOfCode } from './code-key.js';

/** What is wrong with the text of a barcode, or null. A number of a GTIN's length must have its check digit. */
export function barcodeFault(text: string): string | null {
  const code = text.trim();
  if (code === '' || code.length > 60) return 'A barcode has 1 to 60 characters';
  if (/^\d{8}$|^\d{12,14}$/.test(code) && !hasCheckDigit(code))
    return `${code} has a wrong check digit. Scan the barcode rather than typing it`;
  return null;
}

/** Ties a code to a pack unit. Refuses a wrong check digit and a code that means something already. */
export async function tieBarcode(tx: Tx, packUnitId: number, text: string): Promise<string> {
  const wrong = barcodeFault(text);
  if (wrong) throw badForm({ packs: wrong });
  const code = keyOfCode(text);
  const taken = await one<{ sku: string }>(
    tx,
    'SELECT i.sku FROM barcode b JOIN pack_unit u ON u.id = b.pack_unit_id JOIN item i ON i.id = u.item_id WHERE b.code = ? UNION SELECT code FROM place WHERE code = ?',
    [code, code],
  );
  if (taken) throw badForm({ packs: `${text} is on ${taken.sku} already. One barcode means one thing` });
  await insert(tx, 'barcode', { code, pack_unit_id: packUnitId });
  return code;
}

/** Refuses a ladder without a base unit, or with two packs that hold the same. */
export function checkLadder(packs: readonly EditPackDto[]): void {
  const factors = packs.map((p) => p.factor);
  if (!factors.includes(1)) throw badForm({ packs: 'One pack unit is the base unit, with 1 in it' });
  if (new Set(factors).size !== factors.length) throw badForm({ packs: 'Two pack units hold the same number. Keep one of them' });
}

/** Replaces an item's pack units and barcodes; a pack that documents name must stay. */
export async function writePacks(tx: Tx, itemId: number, packs: readonly EditPackDto[]): Promise<void> {
  const kept = await findAll(tx, 'pack_unit', { item_id: itemId }, 'id');
  for (const old of kept) {
    if (packs.some((p) => p.factor === old.factor)) continue;
    const used = await one(
      tx,
      'SELECT 1 AS x FROM purchase_order_line WHERE pack_unit_id = ? UNION SELECT 1 FROM supplier_item WHERE pack_unit_id = ? LIMIT 1',
      [old.id, old.id],
    );
    if (used) throw badState(`The ${old.name} of ${old.factor} is written on purchase orders or price lists and must stay`);
    await remove(tx, 'barcode', { pack_unit_id: old.id });
    await remove(tx, 'pack_unit', { id: old.id });
  }
  for (const old of kept) await remove(tx, 'barcode', { pack_unit_id: old.id });
  for (const pack of packs) {
    const columns = {
      item_id: itemId,
      name: pack.name.trim().toLowerCase(),
      plural: pack.plural.trim().toLowerCase(),
      factor: pack.factor,
      weight_g: pack.weightG ?? null,
      length_mm: pack.lengthMm ?? null,
      width_mm: pack.widthMm ?? null,
      height_mm: pack.heightMm ?? null,
    };
    let id = kept.find((k) => k.factor === pack.factor)?.id;
    if (id === undefined) id = await insert(tx, 'pack_unit', columns);
    else await update(tx, 'pack_unit', { id }, columns);
    for (const code of pack.barcodes) await tieBarcode(tx, id, code);
  }
}
