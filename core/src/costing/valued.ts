import { plus, scaled, ZERO, type Fraction } from '../money/index.js';
import { shares, type ShareBy } from './apportion.js';
import { newPool, NotEnough, worth, type CostingMethod, type Layer, type ValuePool } from './pool.js';

export interface Charge {
  amount: Fraction;
  by: ShareBy;
}
export interface ReceiptLine {
  item: string;
  units: number;
  unitPrice: Fraction;
  /** Grams of one unit; absent where it is not known. */
  unitWeight?: Fraction;
}

/** What happened to stock, in the order in which it happened. */
export type CostMovement =
  | { id: string; type: 'receipt'; site: string; lines: readonly ReceiptLine[]; charges: readonly Charge[] }
  | { id: string; type: 'issue' | 'supplierReturn'; item: string; site: string; units: number }
  | { id: string; type: 'transfer'; item: string; from: string; to: string; units: number }
  | { id: string; type: 'return'; item: string; site: string; units: number; of: string }
  | { id: string; type: 'count'; item: string; site: string; counted: number };

export interface Valuation {
  /** By item, and by site where each site is a pool of its own; in the order of their first movement. */
  valuation: { item: string; site?: string; units: number; value: Fraction }[];
  /** What each issue, supplier return and count below book took away. */
  out: { id: string; value: Fraction }[];
}

/** A movement that cannot be valued. `member` is the one at fault, such as `units`. */
export class CostingFault extends RangeError {
  constructor(
    message: string,
    readonly index: number,
    readonly member: string,
  ) {
    super(message);
  }
}

interface Issued {
  item: string;
  unitCost: Fraction;
  left: number;
}

/** The pools of a company, and how much of each item stands at each site. */
class Books {
  private readonly pools = new Map<string, { item: string; site?: string; pool: ValuePool }>();
  private readonly standing = new Map<string, number>();
  private readonly lastCost = new Map<string, Fraction>();

  constructor(
    private readonly method: CostingMethod,
    private readonly bySite: boolean,
  ) {}

  private pool(item: string, site: string): ValuePool {
    const key = this.bySite ? JSON.stringify([item, site]) : item;
    const known = this.pools.get(key);
    if (known) return known.pool;
    const pool = newPool(this.method);
    this.pools.set(key, { item, ...(this.bySite ? { site } : {}), pool });
    return pool;
  }

  at(item: string, site: string): number {
    return this.standing.get(JSON.stringify([item, site])) ?? 0;
  }

  private stand(item: string, site: string, by: number): void {
    this.standing.set(JSON.stringify([item, site]), this.at(item, site) + by);
  }

  put(item: string, site: string, layers: readonly Layer[]): void {
    for (const layer of layers) {
      this.pool(item, site).put(layer);
      this.lastCost.set(item, layer.unitCost);
    }
    this.stand(
      item,
      site,
      layers.reduce((n, l) => n + l.units, 0),
    );
  }

  take(item: string, site: string, units: number): Layer[] {
    if (units > this.at(item, site)) throw new NotEnough(this.at(item, site));
    this.stand(item, site, -units);
    return this.pool(item, site).take(units);
  }

  move(item: string, from: string, to: string, units: number): void {
    if (this.bySite) return this.put(item, to, this.take(item, from, units));
    if (units > this.at(item, from)) throw new NotEnough(this.at(item, from));
    this.stand(item, from, -units);
    this.stand(item, to, units);
  }

  /** What goods found in a place are worth; where the pool has never held any, what the item last cost anywhere. */
  costOf(item: string, site: string): Fraction {
    const known = this.pool(item, site).unitCost;
    return known.num === 0n ? (this.lastCost.get(item) ?? ZERO) : known;
  }

  valuation(): Valuation['valuation'] {
    return [...this.pools.values()].map(({ pool, ...of }) => ({ ...of, units: pool.units, value: pool.value }));
  }
}

/** The lines of a receipt with their charges, each at its landed cost of a unit. */
export function landed(lines: readonly ReceiptLine[], charges: readonly Charge[]): { item: string; layer: Layer }[] | { unshared: number } {
  const weighed = lines.map((l) => ({
    units: l.units,
    value: scaled(l.unitPrice, l.units),
    ...(l.unitWeight ? { weight: scaled(l.unitWeight, l.units) } : {}),
  }));
  const values = weighed.map((l) => l.value);
  for (const [i, charge] of charges.entries()) {
    const of = shares(charge.amount, charge.by, weighed);
    if (!of) return { unshared: i };
    of.forEach((share, n) => (values[n] = plus(values[n] ?? ZERO, share)));
  }
  return lines.map((l, i) => ({ item: l.item, layer: { units: l.units, unitCost: scaled(values[i] ?? ZERO, 1, l.units) } }));
}

/**
 * Values stock exactly from its movements, by moving average or first in, first out, with all sites together or each apart.
 * Throws `CostingFault` for a movement that takes more than there is, a return of an unknown issue or of more than it took,
 * and a charge that cannot be shared. O(movements + layers) operations on exact fractions.
 */
export function valued(method: CostingMethod, pool: 'item' | 'site', movements: readonly CostMovement[]): Valuation {
  const books = new Books(method, pool === 'site');
  const issued = new Map<string, Issued>();
  const out: Valuation['out'] = [];
  const takeOut = (id: string, item: string, site: string, units: number) => {
    const value = worth(books.take(item, site, units));
    out.push({ id, value });
    return value;
  };
  movements.forEach((m, index) => {
    try {
      step(m, index);
    } catch (thrown) {
      if (!(thrown instanceof NotEnough)) throw thrown;
      throw new CostingFault(`There are ${thrown.there} units, fewer than are to go`, index, 'units');
    }
  });
  return { valuation: books.valuation(), out };

  function step(m: CostMovement, index: number): void {
    switch (m.type) {
      case 'receipt': {
        const lines = landed(m.lines, m.charges);
        if ('unshared' in lines)
          throw new CostingFault('No line has a part of what this charge is shared by', index, `charges[${lines.unshared}].by`);
        for (const { item, layer } of lines) books.put(item, m.site, [layer]);
        return;
      }
      case 'issue':
      case 'supplierReturn': {
        const value = takeOut(m.id, m.item, m.site, m.units);
        if (m.type === 'issue') issued.set(m.id, { item: m.item, unitCost: scaled(value, 1, m.units), left: m.units });
        return;
      }
      case 'transfer':
        return books.move(m.item, m.from, m.to, m.units);
      case 'return': {
        const of = issued.get(m.of);
        if (!of || of.item !== m.item) throw new CostingFault(`No issue ${m.of} of this item comes before`, index, 'of');
        if (m.units > of.left) throw new CostingFault(`Only ${of.left} units of this issue are still out`, index, 'units');
        of.left -= m.units;
        return books.put(m.item, m.site, [{ units: m.units, unitCost: of.unitCost }]);
      }
      case 'count': {
        const book = books.at(m.item, m.site);
        if (m.counted < book) takeOut(m.id, m.item, m.site, book - m.counted);
        if (m.counted > book) books.put(m.item, m.site, [{ units: m.counted - book, unitCost: books.costOf(m.item, m.site) }]);
      }
    }
  }
}
