import { dividedBy, times, type Micro } from '../money/index.js';

/** Units of some goods and what all of them cost. */
export interface Costed {
  readonly units: number;
  readonly value: Micro;
}

/**
 * What `units` that come back are worth: their part of what is still with the customer, which is what `left` of such goods at what it
 * cost then, less what came back `before` at what it was taken back for. More may leave between two that come back: the parts sum to
 * the whole all the same.
 */
export function worthBack(left: Costed, before: Costed, units: number): Micro {
  const away = left.units - before.units;
  const value = left.value > before.value ? left.value - before.value : 0n;
  if (away <= 0) return 0n;
  return units >= away ? value : dividedBy(times(value, units), away);
}
