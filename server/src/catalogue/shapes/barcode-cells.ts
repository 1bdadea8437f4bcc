import { codeMadeDay, lostNoughts } from '@vectrum/core/cells';
import { type MadeLog, fault, has, type ImportRow, type Memory, type RowFault, textOf } from '../../exchange/index.js';
import { packIds } from './lookup.js';
import { barcodeFault } from '../packs.js';
import { keyOfCode } from '../code-key.js';
import { insertMany, marks, rows, type Tx, update } from '../../platform/index.js';

/** The codes of a cell, with spaces, commas or semicolons between them. */
export const codesIn = (t: string) => [...new Set(t.split(/[\s,;]+/).filter(Boolean))];

/** Faults of the codes in a batch: wrong check digits, codes that another row or another item has, codes of places. */
export async function barcodeFaults(
  tx: Tx,
  batch: readonly ImportRow[],
  memory: Memory,
  ownerOf: (row: ImportRow) => number | undefined,
  field = 'barcodes',
): Promise<RowFault[]> {
  const asked = batch
    .filter((r) => has(r, field))
    .map((r) => ({ row: r, codes: codesIn(textOf(r, field)).map((text) => ({ text, key: keyOfCode(text) })) }));
  const keys = asked.flatMap((a) => a.codes.map((c) => c.key));
  if (keys.length === 0) return [];
  const [owners, places] = await Promise.all([
    rows<{ code: string; itemId: number; sku: string }>(
      tx,
      `SELECT b.code, i.id AS itemId, i.sku FROM barcode b JOIN pack_unit u ON u.id = b.pack_unit_id JOIN item i ON i.id = u.item_id WHERE b.code IN (${marks(keys)})`,
      keys,
    ),
    rows<{ code: string }>(tx, `SELECT code FROM place WHERE code IN (${marks(keys)})`, keys),
  ]);
  const owner = new Map(owners.map((o) => [o.code, o]));
  const placed = new Set(places.map((p) => p.code));
  const faults: RowFault[] = [];
  for (const { row, codes } of asked) {
    for (const { text, key } of codes) {
      const wrong = codeMadeDay(text) ?? lostNoughts(text) ?? barcodeFault(text);
      const other = owner.get(key);
      if (wrong) faults.push(fault(row, field, text, wrong));
      else if (other && other.itemId !== ownerOf(row))
        faults.push(fault(row, field, text, `${text} is on ${other.sku} already. One barcode means one thing`));
      else if (placed.has(key)) faults.push(fault(row, field, text, `${text} is the code of a place`));
      else if (!memory.first('barcode', key)) faults.push(fault(row, field, text, `${text} stands in an earlier row of this file too`));
      else continue;
      break;
    }
  }
  return faults;
}

/** Ties codes to pack units; codes that are tied there already are passed over. */
export async function writeBarcodes(
  tx: Tx,
  asked: readonly { itemId: number; factor: number; codes: readonly string[] }[],
  log: MadeLog,
  counts = false,
): Promise<void> {
  const packs = await packIds(
    tx,
    asked.map((a) => a.itemId),
  );
  const wanted = asked.flatMap((a) => a.codes.map((c): [string, number] => [keyOfCode(c), packs.get(`${a.itemId}/${a.factor}`) ?? 0]));
  if (wanted.length === 0) return;
  const keys = wanted.map(([k]) => k);
  const have = new Map(
    (
      await rows<{ code: string; pack: number }>(tx, `SELECT code, pack_unit_id AS pack FROM barcode WHERE code IN (${marks(keys)})`, keys)
    ).map((h) => [h.code, h.pack]),
  );
  const moved = wanted.filter(([key, pack]) => have.has(key) && have.get(key) !== pack);
  await log.change(
    'barcode',
    'code',
    moved.map(([k]) => k),
    async () => {
      for (const [key, pack] of moved) await update(tx, 'barcode', { code: key }, { pack_unit_id: pack });
    },
    counts,
  );
  const fresh = wanted.filter(([key]) => !have.has(key));
  await insertMany(tx, 'barcode', ['code', 'pack_unit_id'], fresh);
  await log.created(
    'barcode',
    'code',
    fresh.map(([k]) => k),
    counts,
  );
}
