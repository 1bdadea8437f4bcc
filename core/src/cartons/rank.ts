/** A box of the house, by its inner size. */
export interface Carton {
  code: string;
  lengthMm: number;
  widthMm: number;
  heightMm: number;
  tareG: number;
  mostG: number;
}

/** Goods of one kind that go into one box. What is not known binds nothing. */
export interface PackedGoods {
  units: number;
  unitG: number | null;
  unitMl: number | null;
  longestMm: number | null;
}

export interface RankedCarton<C extends Carton> {
  carton: C;
  /** How full the goods make it, in per cent of its volume; over 100 where they do not fit. */
  fill: number;
  proposed: boolean;
}

/** A box is not filled to its last corner: goods rarely tile it. */
const USABLE_PER_CENT = 85;

/**
 * The boxes, smallest first, with how full goods make each, and the one proposed: the smallest that holds their volume, their
 * longest side and their weight, otherwise the largest. By volume alone; goods are not laid out. O(boxes × goods).
 */
export function rankCartons<C extends Carton>(cartons: readonly C[], goods: readonly PackedGoods[]): RankedCarton<C>[] {
  const volumeMl = goods.reduce((sum, g) => sum + g.units * (g.unitMl ?? 0), 0);
  const weightG = goods.reduce((sum, g) => sum + g.units * (g.unitG ?? 0), 0);
  const longest = Math.max(0, ...goods.filter((g) => g.units > 0).map((g) => g.longestMm ?? 0));
  const room = (c: C) => (c.lengthMm * c.widthMm * c.heightMm) / 1000;
  const sorted = [...cartons].sort((a, b) => room(a) - room(b));
  const ranked = sorted.map((carton) => ({ carton, fill: Math.ceil((volumeMl * 100) / room(carton)) }));
  const fits = ({ carton: c, fill }: (typeof ranked)[number]) =>
    fill <= USABLE_PER_CENT && longest <= Math.max(c.lengthMm, c.widthMm, c.heightMm) && weightG + c.tareG <= c.mostG;
  const proposed = ranked.find(fits) ?? ranked.at(-1);
  return ranked.map((r) => ({ ...r, proposed: r === proposed }));
}
