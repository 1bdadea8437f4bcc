import { keptLine } from '@vectrum/core/orders';
import { badForm, find, type Row, rows, type Tx } from '../platform/index.js';
import type { KeyedLineDto } from './order-desk.dto.js';

/** A keyed line with the item that it names. */
export interface ReadLine {
  /** The number of the line that it changes; null for a new one. */
  line: number | null;
  sku: string;
  /** Null for a line whose code nobody knows yet, and which stays as it is. */
  itemId: number | null;
  quantity: number;
  factor: number;
  units: number;
  price: string;
}

/** The account that is named; undefined where none is. */
export async function accountOf(tx: Tx, code: string | null | undefined): Promise<Row<'customer'> | undefined> {
  if (!code) return undefined;
  const account = await find(tx, 'customer', { code: code.toUpperCase() });
  if (!account) throw badForm({ account: `There is no customer ${code}. Choose one, or leave it out` });
  return account;
}

/** Reads keyed lines against those that are there. Problem 400 with what is against each. */
export async function keptLines(
  tx: Pick<Tx, 'query'>,
  keyed: readonly KeyedLineDto[],
  there: readonly Row<'sales_order_line'>[],
): Promise<ReadLine[]> {
  const skus = [...new Set(keyed.map((l) => l.sku.toUpperCase()).filter(Boolean))];
  const items = await rows<{ id: number; sku: string; factor: number | null }>(
    tx,
    'SELECT i.id, i.sku, u.factor FROM item i LEFT JOIN pack_unit u ON u.item_id = i.id WHERE i.sku IN (?)',
    [['', ...skus]],
  );
  const faults: Record<string, string> = {};
  const found = keyed.map((line, i): ReadLine => {
    const own = line.line == null ? undefined : there.find((t) => t.line === line.line);
    const packs = items.filter((x) => x.sku.toUpperCase() === line.sku.toUpperCase());
    const isUnknown = own !== undefined && own.item_id === null && line.sku === '';
    const item = isUnknown ? null : (packs[0]?.id ?? null);
    if (line.line != null && !own) faults[`lines.${i}.sku`] = `There is no line ${line.line} by now. Add it as a new one`;
    else if (!isUnknown && item === null)
      faults[`lines.${i}.sku`] = line.sku === '' ? 'Choose the goods, or scan them' : `There is no item ${line.sku}`;
    else if (own && own.item_id !== null && own.item_id !== item)
      faults[`lines.${i}.sku`] = 'A line keeps its goods. Take it out and add another';
    else if (!isUnknown && line.factor !== own?.factor && !packs.some((p) => p.factor === line.factor))
      faults[`lines.${i}.factor`] = `${line.sku} has no pack of ${line.factor}`;
    const kept = keptLine(line);
    if (!kept) faults[`lines.${i}.quantity`] ??= 'Type how many: whole pieces must come of it';
    const { quantity, factor, price } = kept ?? { quantity: 0, factor: 1, price: '0' };
    return { line: line.line ?? null, sku: line.sku.toUpperCase(), itemId: item, quantity, factor, units: quantity * factor, price };
  });
  const twice = found.find((l, i) => l.line !== null && found.findIndex((x) => x.line === l.line) !== i);
  if (twice) faults['lines'] = `Line ${twice.line} is there twice`;
  if (Object.keys(faults).length > 0) throw badForm(faults);
  return found;
}
