import { decimalText, dividedBy, micro } from '../money/index.js';

/** A line as it is keyed: how many of a pack, and the price of one. */
export interface KeyedLine {
  /** A number of up to four decimal places: half a case is 0.5. */
  quantity: string;
  /** Base units in one. */
  factor: number;
  price: string;
}
/** A line as it is kept: whole numbers of what is ordered. */
export interface KeptLine {
  quantity: number;
  factor: number;
  price: string;
}

const MOST_UNITS = 10_000_000;
const QUANTITY = /^\d{1,7}(\.\d{1,4})?$/;

/**
 * A keyed line in whole numbers: parts of a pack are kept in base units, with the price of one of them to six places. Null where
 * nothing whole comes of it, or nothing at all. Pure.
 */
export function keptLine({ quantity, factor, price }: KeyedLine): KeptLine | null {
  if (!QUANTITY.test(quantity) || !Number.isSafeInteger(factor) || factor < 1) return null;
  const [whole = '0', part = ''] = quantity.split('.');
  const tenThousandths = Number(whole) * 10_000 + Number(part.padEnd(4, '0'));
  const units = (tenThousandths * factor) / 10_000;
  if (!Number.isSafeInteger(units) || units < 1 || units > MOST_UNITS) return null;
  if (tenThousandths % 10_000 === 0) return { quantity: tenThousandths / 10_000, factor, price };
  return { quantity: units, factor: 1, price: decimalText(dividedBy(micro(price), factor)) };
}
