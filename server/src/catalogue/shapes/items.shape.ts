import { foldedSku } from '@vectrum/core/catalogue';
import {
  type MadeLog,
  cell,
  type Cells,
  type Column,
  fault,
  has,
  type ImportRow,
  type RowFault,
  type Shape,
  skuColumn,
  text,
  textOf,
  trimmed,
  Wrong,
  yes,
  pages,
  repeated,
} from '../../exchange/index.js';
import { itemIds } from './lookup.js';
import { type ExtraFieldDto } from '../items.dto.js';
import { extraFields, extraValue } from '../extra-fields.js';
import { ITEM_KINDS, ROTATIONS, STORAGES, TRACKINGS } from '../kinds.js';
import { refreshLacks } from '../completeness.js';
import { marks, parsed, type Person, rows, type Tx } from '../../platform/index.js';
import type { PictureLinks } from '../picture-links.service.js';
import { codesIn, barcodeFaults, writeBarcodes } from './barcode-cells.js';

const EXTRA = 'extra:';
const LINK = 'pictureLink';
const MOST_LINK = 500;
const PAGE = 2_000;
/** Columns of a file and of `item` that go together; a cell that is empty takes the default. */
const ITEM_COLUMNS: readonly (readonly [key: string, column: string, empty: string | number | null])[] = [
  ['name', 'name', ''],
  ['className', 'class', ''],
  ['kind', 'kind', 'single'],
  ['tracking', 'tracking', 'none'],
  ['rotation', 'rotation', 'fifo'],
  ['storage', 'storage', 'any'],
  ['minLifeDays', 'min_life_days', null],
  ['cost', 'cost', null],
  ['labour', 'labour', null],
  ['taxCode', 'tax_code', null],
  ['neverHoldsUp', 'never_holds_up', 0],
  ['scanEach', 'scan_each', 0],
  ['serialAtPacking', 'serial_at_packing', 0],
  ['keepUpright', 'keep_upright', 0],
  ['fragile', 'fragile', 0],
  ['picture', 'picture', 'box'],
];
const PACK_COLUMNS: readonly (readonly [key: string, column: string, empty: string | null])[] = [
  ['unit', 'name', 'piece'],
  ['units', 'plural', 'pieces'],
  ['weightG', 'weight_g', null],
  ['lengthMm', 'length_mm', null],
  ['widthMm', 'width_mm', null],
  ['heightMm', 'height_mm', null],
];

async function columns(tx: Pick<Tx, 'query'>, person: Person): Promise<Column[]> {
  const own = await extraFields(tx);
  return [
    skuColumn(),
    { key: 'name', label: 'Name', also: ['description', 'title', 'item name', 'product'], required: true, read: cell.text(120) },
    { key: 'className', label: 'Class', also: ['category', 'group', 'type'], read: cell.text(40) },
    { key: 'tags', label: 'Tags', also: ['labels'], read: cell.text(400) },
    { key: 'unit', label: 'Unit', also: ['base unit', 'uom'], read: cell.text(30) },
    { key: 'units', label: 'Units', also: ['plural'], read: cell.text(30) },
    { key: 'barcodes', label: 'Barcodes', also: ['barcode', 'gtin', 'ean', 'upc'], read: cell.text(600) },
    { key: 'weightG', measure: 'g', label: 'Weight, g', also: ['weight', 'grams'], read: cell.whole(1, 50_000_000) },
    { key: 'lengthMm', measure: 'mm', label: 'Length, mm', also: ['length', 'long'], read: cell.whole(1, 20_000) },
    { key: 'widthMm', measure: 'mm', label: 'Width, mm', also: ['width', 'wide'], read: cell.whole(1, 20_000) },
    { key: 'heightMm', measure: 'mm', label: 'Height, mm', also: ['height', 'high', 'depth'], read: cell.whole(1, 20_000) },
    ...(person.seesCosts
      ? [
          { key: 'cost', label: 'Cost', also: ['unit cost', 'cost price', 'purchase price', 'buy price'], read: cell.decimal },
          { key: 'labour', label: 'Labour', also: ['labour cost'], read: cell.decimal },
        ]
      : []),
    { key: 'tracking', label: 'Tracked by', also: ['tracking'], read: cell.oneOf(TRACKINGS) },
    { key: 'rotation', label: 'Rotation', also: ['goes first'], read: cell.oneOf(ROTATIONS) },
    { key: 'storage', label: 'Storage', read: cell.oneOf(STORAGES) },
    { key: 'minLifeDays', label: 'Least life on arrival, days', also: ['min life', 'minimum life'], read: cell.whole(0, 10_000) },
    { key: 'kind', label: 'Kind', read: cell.oneOf(ITEM_KINDS) },
    { key: 'taxCode', label: 'Tax', also: ['tax code', 'vat'], read: cell.text(12) },
    { key: 'neverHoldsUp', label: 'Never holds up an order', read: cell.yesNo },
    { key: 'scanEach', label: 'Every piece is scanned', read: cell.yesNo },
    { key: 'serialAtPacking', label: 'Serial number at packing', read: cell.yesNo },
    { key: 'keepUpright', label: 'Kept upright', read: cell.yesNo },
    { key: 'fragile', label: 'Fragile', read: cell.yesNo },
    { key: LINK, label: 'Picture link', also: ['picture', 'picture url', 'image', 'image url', 'image link', 'photo'], read: readLink },
    { key: 'picture', label: 'Drawing', read: cell.code(/^[A-Za-z-]{1,40}$/, 'The name of a drawing, such as box') },
    ...own.map(extraColumn),
  ];
}

/** A link to a picture; which is fetched once the file is in. */
function readLink(t: string): string | Wrong {
  const url = URL.canParse(t) ? new URL(t) : null;
  if (!url || !/^https?:$/.test(url.protocol) || t.length > MOST_LINK)
    return new Wrong('A link to a picture, such as https://pictures.example/jar.jpg');
  return url.href;
}

function extraColumn(field: ExtraFieldDto): Column {
  return {
    key: `${EXTRA}${field.name}`,
    label: field.name,
    read: (t) => {
      const read = extraValue(field, t);
      return 'wrong' in read ? new Wrong(read.wrong) : read.value;
    },
  };
}

async function check(tx: Tx, batch: readonly ImportRow[], memory: Parameters<Shape['check']>[2]): Promise<RowFault[]> {
  const taxes = await memory.once(
    'taxes',
    async () => new Set((await rows<{ code: string }>(tx, 'SELECT code FROM tax_rate')).map((t) => t.code)),
  );
  const known = await itemIds(tx, batch);
  const faults = repeated(batch, memory, 'sku', (r) => textOf(r, 'sku'));
  for (const r of batch) {
    const tax = textOf(r, 'taxCode');
    if (tax !== '' && !taxes.has(tax)) faults.push(fault(r, 'taxCode', tax, `There is no tax rate ${tax}. Make it in Setup, Company`));
  }
  faults.push(...(await twinFaults(tx, batch, known)));
  faults.push(...(await foldedFaults(tx, batch, known, memory)));
  faults.push(...(await trackingFaults(tx, batch, known)));
  faults.push(...(await barcodeFaults(tx, batch, memory, (r) => known.get(textOf(r, 'sku')))));
  return faults;
}

/** A number that the house knows with noughts in front of it would become a second item of the same goods. */
async function twinFaults(tx: Tx, batch: readonly ImportRow[], known: ReadonlyMap<string, number>): Promise<RowFault[]> {
  const fresh = batch.filter((r) => /^\d+$/.test(textOf(r, 'sku')) && !known.has(textOf(r, 'sku')));
  const padded = fresh.flatMap((r) => Array.from({ length: 6 }, (_, i) => textOf(r, 'sku').padStart(textOf(r, 'sku').length + i + 1, '0')));
  if (padded.length === 0) return [];
  const found = await rows<{ sku: string }>(tx, `SELECT sku FROM item WHERE sku IN (${marks(padded)})`, padded);
  const twins = new Map(found.map((f) => [f.sku.replace(/^0+/, ''), f.sku]));
  return fresh.flatMap((r) => {
    const sku = textOf(r, 'sku');
    const twin = twins.get(sku);
    return twin ? [fault(r, 'sku', sku, `There is an item ${twin}: the noughts in front seem to be lost. Write ${twin}`)] : [];
  });
}

/** SKUs that differ in marks alone (TÜR, TUR) are one to the books: of two in a file, or one of the house, the second is refused. */
async function foldedFaults(
  tx: Tx,
  batch: readonly ImportRow[],
  known: ReadonlyMap<string, number>,
  memory: Parameters<Shape['check']>[2],
): Promise<RowFault[]> {
  const fresh = batch.filter((r) => textOf(r, 'sku') !== '' && !known.has(textOf(r, 'sku')));
  if (fresh.length === 0) return [];
  const found = await rows<{ sku: string }>(
    tx,
    `SELECT sku FROM item WHERE sku IN (${marks(fresh)})`,
    fresh.map((r) => textOf(r, 'sku')),
  );
  const here = new Map(found.map((f) => [foldedSku(f.sku), f.sku]));
  return fresh.flatMap((r) => {
    const sku = textOf(r, 'sku');
    const like = here.get(foldedSku(sku));
    if (like) return [fault(r, 'sku', sku, `There is an item ${like}, which differs in marks alone. Write ${like}, or choose another`)];
    // The same SKU twice is told as that.
    const isFirst = memory.first('folded', foldedSku(sku));
    return isFirst || !memory.first('unfolded', sku)
      ? []
      : [fault(r, 'sku', sku, 'Another SKU of this file differs from it in marks alone')];
  });
}

/** How an item is tracked may change only while there is none of it. */
async function trackingFaults(tx: Tx, batch: readonly ImportRow[], known: ReadonlyMap<string, number>): Promise<RowFault[]> {
  const asked = batch.filter((r) => has(r, 'tracking') && known.has(textOf(r, 'sku')));
  if (asked.length === 0) return [];
  const ids = asked.map((r) => known.get(textOf(r, 'sku')) ?? 0);
  const held = await rows<{ id: number; tracking: string }>(
    tx,
    `SELECT i.id, i.tracking FROM item i WHERE i.id IN (${marks(ids)}) AND EXISTS (SELECT 1 FROM balance b WHERE b.item_id = i.id AND b.units > 0)`,
    ids,
  );
  const stocked = new Map(held.map((h) => [h.id, h.tracking]));
  return asked.flatMap((r) => {
    const now = stocked.get(known.get(textOf(r, 'sku')) ?? 0);
    const wanted = textOf(r, 'tracking') || 'none';
    return now === undefined || now === wanted
      ? []
      : [fault(r, 'tracking', wanted, `There is stock of ${textOf(r, 'sku')}. How it is tracked can change only when there is none`)];
  });
}

const valueOf = (row: ImportRow, key: string, empty: string | number | null) => {
  const value = row.values[key] ?? null;
  // What has a date goes out by it, unless the file says otherwise.
  if (key === 'rotation' && value === null && row.values['tracking'] === 'lot-expiry') return 'fefo';
  if (value === null) return empty;
  return typeof value === 'boolean' ? (value ? 1 : 0) : key === 'picture' ? String(value).toLowerCase() : (value as string | number);
};

async function write(tx: Tx, batch: readonly ImportRow[], log: MadeLog, links: Pick<PictureLinks, 'ask'>): Promise<void> {
  const known = await itemIds(tx, batch);
  const fresh = batch.filter((r) => !known.has(textOf(r, 'sku')));
  const old = batch.filter((r) => known.has(textOf(r, 'sku')));
  if (fresh.length > 0) {
    await tx.query(`INSERT INTO item (sku, ${ITEM_COLUMNS.map(([, c]) => `\`${c}\``).join(', ')}, extra) VALUES ?`, [
      fresh.map((r) => [textOf(r, 'sku'), ...ITEM_COLUMNS.map(([key, , empty]) => valueOf(r, key, empty)), JSON.stringify(extraOf(r, {}))]),
    ]);
    await log.created(
      'item',
      'sku',
      fresh.map((r) => textOf(r, 'sku')),
      true,
    );
  }
  const ids = await itemIds(tx, batch);
  const idOf = (r: ImportRow) => ids.get(textOf(r, 'sku')) ?? 0;
  await log.change('item', 'id', old.map(idOf), () => updateItems(tx, old, idOf), true);
  if (fresh.length > 0) {
    await tx.query(`INSERT INTO pack_unit (item_id, factor, ${PACK_COLUMNS.map(([, c]) => c).join(', ')}) VALUES ?`, [
      fresh.map((r) => [idOf(r), 1, ...PACK_COLUMNS.map(([key, , empty]) => valueOf(r, key, empty))]),
    ]);
    await log.created('pack_unit', 'item_id', fresh.map(idOf));
  }
  const packed = old.filter((r) => PACK_COLUMNS.some(([key]) => has(r, key)));
  await log.change('pack_unit', 'item_id', packed.map(idOf), async () => {
    for (const r of packed) {
      const given = PACK_COLUMNS.filter(([key]) => has(r, key));
      await tx.query(`UPDATE pack_unit SET ${given.map(([, c]) => `${c} = ?`).join(', ')} WHERE item_id = ? AND factor = 1`, [
        ...given.map(([key, , empty]) => valueOf(r, key, empty)),
        idOf(r),
      ]);
    }
  });
  await writeTagCells(tx, batch, idOf, log);
  await writeBarcodes(
    tx,
    batch.flatMap((r) => (has(r, 'barcodes') ? [{ itemId: idOf(r), factor: 1, codes: codesIn(textOf(r, 'barcodes')) }] : [])),
    log,
  );
  for (const r of batch) if (textOf(r, LINK) !== '') await links.ask(tx, textOf(r, 'sku'), textOf(r, LINK));
  await refreshLacks(tx, batch.map(idOf));
}

async function updateItems(tx: Tx, old: readonly ImportRow[], idOf: (r: ImportRow) => number): Promise<void> {
  for (const r of old) {
    const given = ITEM_COLUMNS.filter(([key]) => has(r, key));
    const own = Object.keys(r.values).some((k) => k.startsWith(EXTRA));
    const kept = own ? (await rows<{ extra: unknown }>(tx, 'SELECT extra FROM item WHERE id = ?', [idOf(r)]))[0]?.extra : undefined;
    const sets = [...given.map(([, c]) => `\`${c}\` = ?`), ...(own ? ['extra = ?'] : [])];
    if (sets.length === 0) continue;
    const values = [
      ...given.map(([key, , empty]) => valueOf(r, key, empty)),
      ...(own ? [JSON.stringify(extraOf(r, parsed<Record<string, string>>(kept)))] : []),
    ];
    await tx.query(`UPDATE item SET ${sets.join(', ')}, version = version + 1 WHERE id = ?`, [...values, idOf(r)]);
  }
}

function extraOf(row: ImportRow, kept: Readonly<Record<string, string>>): Record<string, string> {
  const own = { ...kept };
  for (const [key, value] of Object.entries(row.values)) {
    if (!key.startsWith(EXTRA)) continue;
    const name = key.slice(EXTRA.length);
    if (value === null) delete own[name];
    else own[name] = String(value);
  }
  return own;
}

async function writeTagCells(tx: Tx, batch: readonly ImportRow[], idOf: (r: ImportRow) => number, log: MadeLog): Promise<void> {
  const tagged = batch.filter((r) => has(r, 'tags'));
  if (tagged.length === 0) return;
  const wanted = tagged.flatMap((r) => tagsIn(textOf(r, 'tags')).map((tag): [number, string] => [idOf(r), tag]));
  const have = await rows<{ item_id: number; tag: string }>(
    tx,
    `SELECT item_id, tag FROM item_tag WHERE item_id IN (${marks(tagged)})`,
    tagged.map(idOf),
  );
  const known = new Set(have.map((h) => `${h.item_id}/${h.tag}`));
  const fresh = wanted.filter(([id, tag]) => !known.has(`${id}/${tag}`));
  if (fresh.length === 0) return;
  await tx.query('INSERT INTO item_tag (item_id, tag) VALUES ?', [fresh]);
  await log.createdKeys(
    'item_tag',
    fresh.map(([item_id, tag]) => ({ item_id, tag })),
  );
}

const tagsIn = (t: string) => [
  ...new Set(
    t
      .split(/[;,]/)
      .map((s) => s.trim().toLowerCase().slice(0, 30))
      .filter(Boolean),
  ),
];

interface ReadRow {
  id: number;
  sku: string;
  extra: unknown;
  tags: string | null;
  codes: string | null;
  [column: string]: unknown;
}

async function* read(tx: Pick<Tx, 'query'>, person: Person): AsyncIterable<Cells> {
  const own = await extraFields(tx);
  const found = pages<ReadRow>((after) =>
    rows<ReadRow>(
      tx,
      `SELECT i.*, u.name AS unit, u.plural, u.weight_g, u.length_mm, u.width_mm, u.height_mm,
         (SELECT GROUP_CONCAT(t.tag ORDER BY t.tag SEPARATOR '; ') FROM item_tag t WHERE t.item_id = i.id) AS tags,
         (SELECT GROUP_CONCAT(b.code ORDER BY b.code SEPARATOR ' ') FROM barcode b WHERE b.pack_unit_id = u.id) AS codes
       FROM (SELECT id FROM item WHERE id > ? ORDER BY id LIMIT ?) w JOIN item i ON i.id = w.id JOIN pack_unit u ON u.item_id = i.id AND u.factor = 1 ORDER BY i.id`,
      [after, PAGE],
    ),
  );
  for await (const r of found) {
    const extra = parsed<Record<string, string>>(r.extra);
    yield {
      sku: r.sku,
      name: text(r['name']),
      className: text(r['class']),
      tags: text(r.tags),
      unit: text(r['unit']),
      units: text(r['plural']),
      barcodes: text(r.codes),
      weightG: text(r['weight_g']),
      lengthMm: text(r['length_mm']),
      widthMm: text(r['width_mm']),
      heightMm: text(r['height_mm']),
      ...(person.seesCosts ? { cost: trimmed(r['cost'] as string | null), labour: trimmed(r['labour'] as string | null) } : {}),
      tracking: text(r['tracking']),
      rotation: text(r['rotation']),
      storage: text(r['storage']),
      minLifeDays: text(r['min_life_days']),
      kind: text(r['kind']),
      taxCode: text(r['tax_code']),
      neverHoldsUp: yes(r['never_holds_up']),
      scanEach: yes(r['scan_each']),
      serialAtPacking: yes(r['serial_at_packing']),
      keepUpright: yes(r['keep_upright']),
      fragile: yes(r['fragile']),
      // What is kept of a picture is the picture; it goes out in a folder of its own.
      [LINK]: '',
      picture: text(r['picture']),
      ...Object.fromEntries(own.map((f) => [`${EXTRA}${f.name}`, extra[f.name] ?? ''])),
    };
  }
}

/** Items with their base unit: one row an item. Larger packs, parts and site policies have files of their own. */
export const itemsShape = (links: Pick<PictureLinks, 'ask'>): Shape => ({
  kind: 'items',
  says: 'Items',
  right: 'items',
  tables: { item: ['id'], pack_unit: ['id'], barcode: ['id'], item_tag: ['item_id', 'tag'] },
  undone: (tx) => refreshLacks(tx, 'all'),
  columns,
  check,
  write: (tx, _act, batch, log) => write(tx, batch, log, links),
  read,
});
