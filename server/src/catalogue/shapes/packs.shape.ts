import {
  type MadeLog,
  cell,
  type Cells,
  type Column,
  fault,
  has,
  type ImportRow,
  numberOf,
  type RowFault,
  type Shape,
  skuColumn,
  text,
  textOf,
  pages,
  repeated,
  unknown,
} from '../../exchange/index.js';
import { itemIds, packIds } from './lookup.js';
import { refreshLacks } from '../completeness.js';
import { type Act, rows, type Tx } from '../../platform/index.js';
import { barcodeFaults, codesIn, writeBarcodes } from './barcode-cells.js';

const SIZES = [
  ['weightG', 'weight_g'],
  ['lengthMm', 'length_mm'],
  ['widthMm', 'width_mm'],
  ['heightMm', 'height_mm'],
] as const;

const columns: Column[] = [
  skuColumn(),
  { key: 'pack', label: 'Pack', also: ['pack name', 'pack unit'], required: true, read: cell.text(30) },
  { key: 'plural', label: 'Packs', also: ['plural'], required: true, read: cell.text(30) },
  {
    key: 'holds',
    label: 'Holds',
    also: ['pack size', 'factor', 'quantity', 'units per pack'],
    required: true,
    read: cell.whole(2, 1_000_000),
  },
  { key: 'barcodes', label: 'Barcodes', also: ['barcode', 'gtin', 'ean'], read: cell.text(600) },
  { key: 'weightG', measure: 'g', label: 'Weight, g', also: ['weight'], read: cell.whole(1, 50_000_000) },
  { key: 'lengthMm', measure: 'mm', label: 'Length, mm', also: ['length'], read: cell.whole(1, 20_000) },
  { key: 'widthMm', measure: 'mm', label: 'Width, mm', also: ['width'], read: cell.whole(1, 20_000) },
  { key: 'heightMm', measure: 'mm', label: 'Height, mm', also: ['height'], read: cell.whole(1, 20_000) },
];

async function check(tx: Tx, batch: readonly ImportRow[], memory: Parameters<Shape['check']>[2]): Promise<RowFault[]> {
  const known = await itemIds(tx, batch);
  const names = await rows<{ sku: string; name: string; factor: number }>(
    tx,
    'SELECT i.sku, u.name, u.factor FROM pack_unit u JOIN item i ON i.id = u.item_id WHERE i.id IN (?)',
    [[0, ...known.values()]],
  );
  const factorOf = new Map(names.map((n) => [`${n.sku}/${n.name}`, n.factor]));
  return [
    ...unknown(batch, 'sku', known, (sku) => `There is no item ${sku}. Take items in first`),
    ...repeated(batch, memory, 'holds', (r) => `${textOf(r, 'sku')} ${numberOf(r, 'holds')}`),
    ...batch.flatMap((r) => {
      const name = textOf(r, 'pack').toLowerCase();
      const other = factorOf.get(`${textOf(r, 'sku')}/${name}`);
      return other !== undefined && other !== numberOf(r, 'holds')
        ? [fault(r, 'pack', name, `${textOf(r, 'sku')} has a ${name} that holds ${other}. Choose another name`)]
        : [];
    }),
    ...(await barcodeFaults(tx, batch, memory, (r) => known.get(textOf(r, 'sku')))),
  ];
}

async function write(tx: Tx, _act: Act, batch: readonly ImportRow[], log: MadeLog): Promise<void> {
  const ids = await itemIds(tx, batch);
  const idOf = (r: ImportRow) => ids.get(textOf(r, 'sku')) ?? 0;
  const packs = await packIds(tx, batch.map(idOf));
  const keyOf = (r: ImportRow) => `${idOf(r)}/${numberOf(r, 'holds') ?? 0}`;
  const fresh = batch.filter((r) => !packs.has(keyOf(r)));
  const old = batch.filter((r) => packs.has(keyOf(r)));
  const names = (r: ImportRow) => [textOf(r, 'pack').toLowerCase(), textOf(r, 'plural').toLowerCase()];
  if (fresh.length > 0) {
    await tx.query(`INSERT INTO pack_unit (item_id, factor, name, plural, ${SIZES.map(([, c]) => c).join(', ')}) VALUES ?`, [
      fresh.map((r) => [idOf(r), numberOf(r, 'holds'), ...names(r), ...SIZES.map(([key]) => numberOf(r, key))]),
    ]);
    const made = await packIds(tx, fresh.map(idOf));
    await log.createdKeys(
      'pack_unit',
      fresh.map((r) => ({ id: made.get(keyOf(r)) ?? 0 })),
      true,
    );
  }
  await log.change(
    'pack_unit',
    'id',
    old.map((r) => packs.get(keyOf(r)) ?? 0),
    async () => {
      for (const r of old) {
        const given = SIZES.filter(([key]) => has(r, key));
        await tx.query(`UPDATE pack_unit SET ${['name = ?', 'plural = ?', ...given.map(([, c]) => `${c} = ?`)].join(', ')} WHERE id = ?`, [
          ...names(r),
          ...given.map(([key]) => numberOf(r, key)),
          packs.get(keyOf(r)),
        ]);
      }
    },
    true,
  );
  await writeBarcodes(
    tx,
    batch.flatMap((r) =>
      has(r, 'barcodes') ? [{ itemId: idOf(r), factor: numberOf(r, 'holds') ?? 0, codes: codesIn(textOf(r, 'barcodes')) }] : [],
    ),
    log,
  );
  await refreshLacks(tx, batch.map(idOf));
}

interface ReadRow {
  id: number;
  sku: string;
  [column: string]: unknown;
}

async function* read(tx: Pick<Tx, 'query'>): AsyncIterable<Cells> {
  const found = pages<ReadRow>((after) =>
    rows<ReadRow>(
      tx,
      `SELECT u.*, i.sku, (SELECT GROUP_CONCAT(b.code ORDER BY b.code SEPARATOR ' ') FROM barcode b WHERE b.pack_unit_id = u.id) AS codes
       FROM (SELECT id FROM pack_unit WHERE id > ? AND factor > 1 ORDER BY id LIMIT 2000) w JOIN pack_unit u ON u.id = w.id JOIN item i ON i.id = u.item_id ORDER BY u.id`,
      [after],
    ),
  );
  for await (const r of found) {
    yield {
      sku: r.sku,
      pack: text(r['name']),
      plural: text(r['plural']),
      holds: text(r['factor']),
      barcodes: text(r['codes']),
      ...Object.fromEntries(SIZES.map(([key, column]) => [key, text(r[column])])),
    };
  }
}

/** Pack units beyond the base unit: one row a pack. */
export const packsShape: Shape = {
  kind: 'packs',
  says: 'Pack units',
  right: 'items',
  tables: { pack_unit: ['id'], barcode: ['id'] },
  undone: (tx) => refreshLacks(tx, 'all'),
  columns: () => columns,
  check,
  write,
  read,
};
