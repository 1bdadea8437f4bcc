/** An order as a round sees it. */
export interface RoundOrder {
  /** Where its goods lie: places by their index, each once. */
  places: readonly number[];
  units: number;
  weightG: number;
  volumeMl: number;
}
/** What a round may hold at most; Infinity where nothing binds. */
export interface RoundLimits {
  orders: number;
  units: number;
  weightG: number;
  volumeMl: number;
}
export const NO_LIMITS: RoundLimits = { orders: Infinity, units: Infinity, weightG: Infinity, volumeMl: Infinity };

/** How long walks are, and which places lie by each other. */
export interface Metering {
  /** Metres of the shortest walk, or of a good one, through the places of which `wanted` has more than nought. */
  metres: (wanted: ArrayLike<number>) => number;
  /** The run of floor that each place is on, and the metres of each run. */
  runOf: Int32Array;
  length: Float64Array;
  /** Whether these are the shortest walks, or only good ones. */
  exact: boolean;
  /** What one measurement takes, in steps of a few nanoseconds. */
  work: number;
}

export interface RoundsProblem {
  orders: readonly RoundOrder[];
  places: number;
  limits: RoundLimits;
  meter: Metering;
}

/** Which limit an order breaks by itself; null where it fits. */
export function brokenLimit(order: RoundOrder, limits: RoundLimits): keyof RoundLimits | null {
  if (limits.orders < 1) return 'orders';
  if (order.units > limits.units) return 'units';
  if (order.weightG > limits.weightG) return 'weightG';
  return order.volumeMl > limits.volumeMl ? 'volumeMl' : null;
}
