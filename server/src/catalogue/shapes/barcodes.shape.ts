import {
  type MadeLog,
  cell,
  type Cells,
  type Column,
  fault,
  type ImportRow,
  numberOf,
  type RowFault,
  type Shape,
  skuColumn,
  textOf,
  unknown,
} from '../../exchange/index.js';
import { itemIds, packIds } from './lookup.js';
import { refreshLacks } from '../completeness.js';
import { type Act, rows, type Tx } from '../../platform/index.js';
import { barcodeFaults, codesIn, writeBarcodes } from './barcode-cells.js';

const columns: Column[] = [
  { key: 'barcodes', label: 'Barcode', also: ['barcodes', 'gtin', 'ean', 'upc', 'code'], required: true, read: cell.text(60) },
  skuColumn(),
  { key: 'holds', label: 'Holds', also: ['pack size', 'factor', 'quantity'], read: cell.whole(1, 1_000_000) },
];

async function check(tx: Tx, batch: readonly ImportRow[], memory: Parameters<Shape['check']>[2]): Promise<RowFault[]> {
  const known = await itemIds(tx, batch);
  const packs = await packIds(tx, known.values());
  return [
    ...unknown(batch, 'sku', known, (sku) => `There is no item ${sku}. Take items in first`),
    ...batch.flatMap((r): RowFault[] => {
      const id = known.get(textOf(r, 'sku'));
      const holds = numberOf(r, 'holds') ?? 1;
      return id === undefined || packs.has(`${id}/${holds}`)
        ? []
        : [fault(r, 'holds', holds, `${textOf(r, 'sku')} has no pack of ${holds}. Take pack units in first`)];
    }),
    ...(await barcodeFaults(tx, batch, memory, (r) => known.get(textOf(r, 'sku')))),
  ];
}

async function write(tx: Tx, _act: Act, batch: readonly ImportRow[], log: MadeLog): Promise<void> {
  const ids = await itemIds(tx, batch);
  const idOf = (r: ImportRow) => ids.get(textOf(r, 'sku')) ?? 0;
  await writeBarcodes(
    tx,
    batch.map((r) => ({ itemId: idOf(r), factor: numberOf(r, 'holds') ?? 1, codes: codesIn(textOf(r, 'barcodes')) })),
    log,
    true,
  );
  await refreshLacks(tx, batch.map(idOf));
}

async function* read(tx: Pick<Tx, 'query'>): AsyncIterable<Cells> {
  // In the order of the codes, so that a house that took them in in another order gives out the same file.
  for (let after = ''; ;) {
    const found = await rows<{ code: string; sku: string; factor: number }>(
      tx,
      'SELECT b.code, i.sku, u.factor FROM barcode b JOIN pack_unit u ON u.id = b.pack_unit_id JOIN item i ON i.id = u.item_id WHERE b.code > ? ORDER BY b.code LIMIT 2000',
      [after],
    );
    for (const r of found) yield { barcodes: r.code, sku: r.sku, holds: String(r.factor) };
    const last = found.at(-1);
    if (!last) return;
    after = last.code;
  }
}

/** Barcodes by themselves: one row a code. */
export const barcodesShape: Shape = {
  kind: 'barcodes',
  says: 'Barcodes',
  right: 'items',
  tables: { barcode: ['id'] },
  undone: (tx) => refreshLacks(tx, 'all'),
  columns: () => columns,
  check,
  write,
  read,
};
