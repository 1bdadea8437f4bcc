import { decimalText, micro } from '../money/index.js';
import type { PackUnit } from '../quantity/index.js';

/** The least that a supplier takes an order for; null where it asks for none. */
export interface LeastOrder {
  value: string | null;
  units: number | null;
  pallets: number | null;
}

export interface OrderSize {
  /** Decimal text, in the order's currency. */
  value: string;
  units: number;
  /** Pallets, in part too. */
  pallets: number;
}

export interface MinimumShort {
  of: 'value' | 'units' | 'pallets';
  least: string;
  has: string;
  missing: string;
}

const PALLET = /^pallet$/i;

/** How many pallets units of an item fill; nought where it has no pallet among its packs. */
export function palletsOf(units: number, packs: readonly PackUnit[]): number {
  const pallet = packs.find((p) => PALLET.test(p.name));
  return pallet ? units / pallet.factor : 0;
}

const tenth = (n: number) => String(Math.floor(n * 10 + 1e-9) / 10);

/** What an order still lacks of what its supplier asks for, each by itself; empty where it is enough. */
export function shortOfMinimum(size: OrderSize, least: LeastOrder): MinimumShort[] {
  const short: MinimumShort[] = [];
  if (least.value !== null && micro(size.value) < micro(least.value))
    short.push({ of: 'value', least: least.value, has: size.value, missing: decimalText(micro(least.value) - micro(size.value)) });
  if (least.units !== null && size.units < least.units)
    short.push({ of: 'units', least: String(least.units), has: String(size.units), missing: String(least.units - size.units) });
  if (least.pallets !== null && size.pallets + 1e-9 < least.pallets)
    short.push({
      of: 'pallets',
      least: String(least.pallets),
      has: tenth(size.pallets),
      missing: tenth(least.pallets - size.pallets + 0.0999),
    });
  return short;
}
