import { wholeShares, type ShareLine } from '@vectrum/core/costing';
import { fractionOf, scaled, whole } from '@vectrum/core/money';
import { num, one, rows, type Tx } from '../../platform/index.js';

/** A line of an order with what charges are shared by. */
export interface CostedLine {
  lineId: number;
  orderId: number;
  order: string;
  line: number;
  itemId: number;
  price: string;
  factor: number;
  /** Base units, and those that have come. */
  ordered: number;
  received: number;
  unitG: number | null;
  unitMl: string | null;
}

export interface CostedOrder {
  currency: string;
  /** Home money for one of the order's; 1 for the home currency. */
  rate: string;
  lines: CostedLine[];
  charges: { says: string; amount: string; by: 'value' | 'units' | 'weight' | 'volume' }[];
}

/** The rate at which a currency is taken into the house's money today. */
export async function rateOf(tx: Pick<Tx, 'query'>, currency: string): Promise<string> {
  const known = await one<{ rate: string }>(tx, 'SELECT rate FROM currency WHERE code = ?', [currency]);
  return known?.rate ?? '1';
}

/** An order as its costs are reckoned: lines, charges, rate. */
export async function costedOrder(tx: Pick<Tx, 'query'>, orderId: number): Promise<CostedOrder> {
  const order = await one<{ currency: string }>(tx, 'SELECT currency FROM purchase_order WHERE id = ?', [orderId]);
  const lines = await rows<CostedLine>(
    tx,
    `SELECT l.id AS lineId, l.order_id AS orderId, o.code AS \`order\`, l.line, l.item_id AS itemId, l.price, l.factor, l.packs * l.factor AS ordered, l.received_units AS received,
       u.weight_g AS unitG, u.length_mm * u.width_mm * u.height_mm / 1000 AS unitMl
     FROM purchase_order_line l JOIN purchase_order o ON o.id = l.order_id JOIN pack_unit u ON u.item_id = l.item_id AND u.factor = 1 WHERE l.order_id = ? ORDER BY l.line`,
    [orderId],
  );
  const charges = await rows<CostedOrder['charges'][number]>(
    tx,
    'SELECT says, amount, shared_by AS `by` FROM purchase_order_charge WHERE order_id = ? ORDER BY position',
    [orderId],
  );
  const currency = order?.currency ?? '';
  return { currency, rate: await rateOf(tx, currency), charges, lines: lines.map((l) => ({ ...l, ordered: num(l.ordered) })) };
}

/** What a line weighs in a share, for so many of its units. */
export function shareLine(line: CostedLine, units: number): ShareLine {
  return {
    units,
    value: scaled(fractionOf(line.price), units, line.factor),
    ...(line.unitG === null ? {} : { weight: whole(line.unitG * units) }),
    ...(line.unitMl === null ? {} : { volume: scaled(fractionOf(line.unitMl), units) }),
  };
}

/** The share of each line in a charge, to the penny; by value where no line has a part of what it is to be shared by. */
export function sharesOf(charge: { amount: string; by: CostedOrder['charges'][number]['by'] }, lines: readonly ShareLine[]): string[] {
  const amount = fractionOf(charge.amount);
  return (
    wholeShares(amount, charge.by, lines) ??
    wholeShares(amount, 'value', lines) ??
    wholeShares(amount, 'units', lines) ??
    lines.map(() => '0.00')
  );
}
