import { plus, scaled, minus, type Fraction, ZERO, isNought } from '../money/index.js';

export type CostingMethod = 'average' | 'fifo';

/** Units that came together at one unit cost. */
export interface Layer {
  units: number;
  /** Of one unit, exact. */
  unitCost: Fraction;
}

/** More was to be taken than there is. */
export class NotEnough extends RangeError {
  constructor(readonly there: number) {
    super(`There are only ${there} units to take from`);
  }
}

/**
 * The value of one item in one pool of stock. Units are whole and above nought; values are exact. Taking throws `NotEnough`
 * beyond what there is.
 */
export interface ValuePool {
  readonly units: number;
  readonly value: Fraction;
  /** What one more unit without a price of its own is worth: the average, or the newest layer's cost; the last one when empty. */
  readonly unitCost: Fraction;
  /** Adds units as the newest. */
  put(layer: Layer): void;
  /** Takes units out, as the layers that they were. */
  take(units: number): Layer[];
}

/** The value of layers. */
export const worth = (layers: readonly Layer[]): Fraction => layers.reduce((sum, l) => plus(sum, scaled(l.unitCost, l.units)), ZERO);

class AveragePool implements ValuePool {
  units = 0;
  value: Fraction = ZERO;
  private last: Fraction = ZERO;

  get unitCost(): Fraction {
    return this.units === 0 ? this.last : scaled(this.value, 1, this.units);
  }

  put({ units, unitCost }: Layer): void {
    this.units += units;
    this.value = plus(this.value, scaled(unitCost, units));
    this.last = this.unitCost;
  }

  take(units: number): Layer[] {
    if (units > this.units) throw new NotEnough(this.units);
    const unitCost = this.unitCost;
    this.last = unitCost;
    this.value = units === this.units ? ZERO : scaled(this.value, this.units - units, this.units);
    this.units -= units;
    return [{ units, unitCost }];
  }
}

class FifoPool implements ValuePool {
  units = 0;
  value: Fraction = ZERO;
  private last: Fraction = ZERO;
  private readonly layers: Layer[] = [];
  /** Layers before this one are spent; they are cleared now and then, so that taking is O(1) a layer. */
  private first = 0;

  get unitCost(): Fraction {
    return this.layers.at(-1)?.unitCost ?? this.last;
  }

  put(layer: Layer): void {
    this.units += layer.units;
    this.value = plus(this.value, scaled(layer.unitCost, layer.units));
    this.last = layer.unitCost;
    this.layers.push({ ...layer });
  }

  take(units: number): Layer[] {
    if (units > this.units) throw new NotEnough(this.units);
    const taken: Layer[] = [];
    for (let left = units; left > 0;) {
      const layer = this.layers[this.first];
      if (!layer) throw new NotEnough(units - left);
      const some = Math.min(left, layer.units);
      taken.push({ units: some, unitCost: layer.unitCost });
      layer.units -= some;
      left -= some;
      if (layer.units === 0) this.first++;
    }
    this.units -= units;
    this.value = this.units === 0 ? ZERO : minus(this.value, worth(taken));
    if (this.first > 1_000 || this.units === 0) {
      this.layers.splice(0, this.first);
      this.first = 0;
    }
    return taken;
  }
}

/** An empty pool. */
export const newPool = (method: CostingMethod): ValuePool => (method === 'average' ? new AveragePool() : new FifoPool());

/** Whether nothing is in a pool. */
export const isEmpty = (pool: ValuePool): boolean => pool.units === 0 && isNought(pool.value);
