import { type BinChoice, type BinStock, chooseBins, type Rotation } from '../allocation/index.js';

/** Units of an item that an order wants, and when the order has to leave. */
export interface Wanting {
  order: string;
  units: number;
  /** ISO time. */
  leavesAt: string;
}

/** What is known of one item at a site. Units are base units. */
export interface RefillItem {
  rotation: Rotation;
  /** Units of each pack that it comes in, in any order; the base unit may be among them. */
  packs: readonly number[];
  /** Free where pickers go: in bins open to picking, less what rounds already go for. */
  free: number;
  /** Stands at docks and on carts, on its way to a bin. */
  coming: number;
  /** Where it lies and no picker goes. */
  reserve: readonly BinStock[];
  /** What waits for it, the soonest first. */
  wants: readonly Wanting[];
  /** Fewer than this are not left where it is picked from; null for no such wish. */
  below: number | null;
  /** Filled up to this many then; null for just enough. */
  upTo: number | null;
  /** Units that its pick face has room for beyond what lies there; Infinity where nobody has said. */
  room: number;
}

/** Goods to be brought from one place of the reserve to where they are picked from. */
export interface Refill extends BinChoice {
  /** Orders that cannot be picked before, the soonest first; none where only the face runs low. */
  orders: readonly string[];
  /** When the soonest of them leaves; null for none. */
  leavesAt: string | null;
}

/**
 * What has to be brought for an item, in the order of its rotation: all that orders want and neither bins nor docks have, and
 * what fills the pick face up again once those are gone. Packs are not opened for it where the reserve has them whole and the
 * face has room. Nothing is brought that the reserve does not have. O(orders + bins²).
 */
export function refillsOf(item: RefillItem): Refill[] {
  const lacks = lacking(item);
  const wanted = lacks.reduce((sum, w) => sum + w.units, 0);
  const units = wanted + toFill(item, wanted);
  const { choices } = chooseBins(item.reserve, units, item.rotation);
  let room = item.room - choices.reduce((sum, c) => sum + c.units, 0);
  return choices.map((choice) => {
    const extra = Math.min(Math.max(0, room), toWholePacks(item, choice));
    room -= extra;
    const orders = served(lacks, choice.units);
    return { ...choice, units: choice.units + extra, orders: orders.map((w) => w.order), leavesAt: orders[0]?.leavesAt ?? null };
  });
}

/** What is left of the wants once all that is free, or on its way, has been given to the soonest. */
function lacking({ wants, free, coming }: RefillItem): Wanting[] {
  let has = Math.max(0, free) + Math.max(0, coming);
  return wants.flatMap((want) => {
    const given = Math.min(has, want.units);
    has -= given;
    return want.units > given ? [{ ...want, units: want.units - given }] : [];
  });
}

/** Units that bring the face up to its level again, once those that wait are gone. */
function toFill({ below, upTo, free, coming, wants, room }: RefillItem, wanted: number): number {
  if (below === null) return 0;
  const left = Math.max(0, free) + Math.max(0, coming) + wanted - wants.reduce((sum, w) => sum + w.units, 0);
  return left >= below ? 0 : Math.max(0, Math.min(Math.max(below, upTo ?? below) - left, room - wanted));
}

/** Units beyond the chosen ones that make whole packs of them, where the place has that many. */
function toWholePacks({ packs, reserve }: RefillItem, choice: BinChoice): number {
  const there = reserve.find((b) => b.placeId === choice.placeId && b.lotId === choice.lotId)?.units ?? 0;
  const larger = packs.filter((p) => p > 1).sort((a, b) => a - b);
  const pack = larger.filter((p) => p <= choice.units).at(-1) ?? larger[0];
  if (pack === undefined) return 0;
  const whole = Math.ceil(choice.units / pack) * pack;
  return whole <= there ? whole - choice.units : 0;
}

/** The orders that units go to, the soonest first; takes them from what is lacking. */
function served(lacks: Wanting[], units: number): Wanting[] {
  const found: Wanting[] = [];
  let left = units;
  while (left > 0) {
    const [want, ...rest] = lacks;
    if (!want) break;
    found.push(want);
    const given = Math.min(left, want.units);
    left -= given;
    lacks.splice(0, lacks.length, ...(given < want.units ? [{ ...want, units: want.units - given }] : []), ...rest);
  }
  return found;
}
