import { seeded } from '../random/index.js';

/** What an order is decided by. Days and units; money in whatever currency, all in the same. */
export interface Supply {
  /** Demand of a week, and the spread of what it brings about that. */
  weekMean: number;
  weekSd: number;
  /** Share of weeks that bring any, 0 to 1. */
  busy: number;
  leadDays: number;
  leadSd: number;
  /** The next chance to order. */
  reviewDays: number;
  /** Share of demand that the shelf is to meet. */
  fill: number;
  minimum: number;
  multiple: number;
  unitCost: number;
  orderCost: number;
  /** Of what stock is worth, a year. */
  holdingRate: number;
}

/** Order where the position is at or below `point`, at least `lot` units, up to `point + lot`. */
export interface Policy {
  point: number;
  lot: number;
}

const WEEKS = 360;
const WARM_UP = 30;
const HALVINGS = 9;
const MOST_TRIES = 40;
const NEAR_UNITS = 0.1;
/** Fewer orders than these say little about the weeks before the next comes in. */
const LEAST_ORDERS = 30;
/** Steps through the weeks that come to each of them once: none shares a divisor with their number. */
const STRIDES = [1, 7, 11, 13] as const;
const YEAR_DAYS = 364;

/** Numbers between nought and one that are the same for everybody, so that two policies meet the same luck. */
const LUCK = (() => {
  const random = seeded(20_270_301);
  return Array.from({ length: WEEKS }, () => [random(), random(), random()] as const);
})();
/** The same as deviates of the standard normal (Box and Muller 1958), in pairs of opposite sign, so that their mean is nought. */
const NORMAL = (() => {
  const half = LUCK.slice(0, WEEKS / 2).map(([a, b]) => Math.sqrt(-2 * Math.log(Math.max(1e-12, a))) * Math.cos(2 * Math.PI * b));
  return LUCK.map((_, i) => (i < WEEKS / 2 ? (half[i] ?? 0) : -(half[i - WEEKS / 2] ?? 0)));
})();
/** A walk through the weeks that mixes the pairs. */
const ORDER = (() => {
  const random = seeded(7);
  const order = Array.from({ length: WEEKS }, (_, i) => i);
  for (let i = WEEKS - 1; i > 0; i -= 1) {
    const j = Math.floor(random() * (i + 1));
    [order[i], order[j]] = [order[j] ?? 0, order[i] ?? 0];
  }
  return order;
})();

/**
 * Weeks of demand with the wanted mean and spread: in busy weeks a gamma distribution by the approximation of Wilson and Hilferty
 * (1931), which is skewed as demand is; silent weeks between. Scaled, so that mean and spread come out as asked. O(weeks).
 */
export function demandWeeks({ weekMean, weekSd, busy }: Pick<Supply, 'weekMean' | 'weekSd' | 'busy'>): number[] {
  const share = Math.min(1, Math.max(0.02, busy));
  const size = weekMean / share;
  const variance = Math.max(1e-9, (weekSd * weekSd + weekMean * weekMean) / share - size * size);
  const shape = Math.max(0.05, (size * size) / variance);
  const weeks = ORDER.map((at) => {
    const isBusy = share >= 0.98 || (LUCK[at]?.[2] ?? 0) < share;
    if (!isBusy) return 0;
    const z = NORMAL[at] ?? 0;
    const root = 1 - 1 / (9 * shape) + z / (3 * Math.sqrt(shape));
    return root <= 0 ? 0 : size * root ** 3;
  });
  const sum = weeks.reduce((a, b) => a + b, 0) / weeks.length;
  return sum === 0 ? weeks : weeks.map((w) => (w * weekMean) / sum);
}

const leadTimes = ({ leadDays, leadSd }: Pick<Supply, 'leadDays' | 'leadSd'>): number[] =>
  NORMAL.map((_, i) => Math.max(0, Math.round(leadDays + leadSd * (NORMAL[(i * 7 + 3) % WEEKS] ?? 0))));

export interface Outcome {
  fill: number;
  /** A year's ordering and holding. */
  cost: number;
}

/** How many units an order has: enough to come up to the level, at least the least, in whole multiples. */
export const orderUnits = (lacking: number, { minimum, multiple }: Pick<Supply, 'minimum' | 'multiple'>): number =>
  lacking <= 0 ? 0 : Math.ceil(Math.max(lacking, minimum, 1) / Math.max(1, multiple)) * Math.max(1, multiple);

/**
 * Lives through some years day by day with a policy: stock that is not there is not sold, and not asked for later. `turns`: how
 * often the weeks are gone through, each time in another order. `givenUp`: units missed at which it is left off, with a fill rate
 * of nought, since it is known by then to be too little. O(weeks × turns).
 */
export function lived(
  weeks: ArrayLike<number>,
  leads: ArrayLike<number>,
  supply: Supply,
  { point, lot }: Policy,
  turns = 1,
  givenUp = Infinity,
): Outcome {
  const span = weeks.length;
  const days = span * turns * 7;
  const review = Math.max(1, Math.round(supply.reviewDays));
  const level = point + lot;
  // What is on its way, the soonest last.
  const coming: { day: number; units: number }[] = [];
  let stock = point + lot / 2;
  let ordered = 0;
  let [asked, missed, held, orders, nextReview] = [0, 0, 0, 0, 0];
  for (let week = 0, day = 0; week < span * turns; week += 1) {
    const wants = (weeks[(week * (STRIDES[Math.floor(week / span)] ?? 1)) % span] ?? 0) / 7;
    const counts = week >= WARM_UP;
    const end = day + 7;
    // From one day on which something happens to the next.
    while (day < end) {
      for (let next = coming.at(-1); next && next.day <= day; next = coming.at(-1)) {
        stock += next.units;
        ordered -= next.units;
        coming.pop();
      }
      if (day >= nextReview) {
        if (stock + ordered <= point) {
          const units = orderUnits(level - stock - ordered, supply);
          const due = day + Math.max(1, leads[orders % leads.length] ?? 1);
          let at = coming.length;
          while (at > 0 && (coming[at - 1]?.day ?? 0) < due) at -= 1;
          coming.splice(at, 0, { day: due, units });
          ordered += units;
          orders += 1;
        }
        const above = stock + ordered - point;
        const until = wants > 0 ? Math.ceil(above / wants) : Infinity;
        nextReview = day + review * Math.max(1, Math.min(Math.ceil(until / review), Math.ceil((end - day) / review)));
      }
      const pause = Math.min(end, nextReview, coming.at(-1)?.day ?? Infinity) - day;
      const sold = Math.min(stock, wants * pause);
      if (counts) {
        missed += wants * pause - sold;
        // Days at whose end something is left, and what is left at each.
        const left = wants > 0 ? Math.min(pause, Math.floor(stock / wants)) : pause;
        held += left * stock - (wants * left * (left + 1)) / 2;
      }
      stock -= sold;
      day += pause;
    }
    if (counts) asked += wants * 7;
    if (missed > givenUp) return { fill: 0, cost: Infinity };
  }
  const year = (orders * supply.orderCost * YEAR_DAYS) / days + (held / (days - WARM_UP * 7)) * supply.unitCost * supply.holdingRate;
  return { fill: asked === 0 ? 1 : 1 - missed / asked, cost: year };
}

/** Share of a standard normal above a deviate (Abramowitz and Stegun 1964, 26.2.17), within a ten-millionth. */
function above(z: number): number {
  const t = 1 / (1 + 0.2316419 * Math.abs(z));
  const tail =
    (Math.exp((-z * z) / 2) / Math.sqrt(2 * Math.PI)) *
    t *
    (0.31938153 + t * (-0.356563782 + t * (1.781477937 + t * (-1.821255978 + t * 1.330274429))));
  return z >= 0 ? tail : 1 - tail;
}

/** The deviate beyond which a standard normal has so much on the average: the unit normal loss, the other way round. */
function deviateOf(loss: number): number {
  let [low, high] = [-Math.max(6, loss + 1), 6];
  for (let i = 0; i < 30; i += 1) {
    const z = (low + high) / 2;
    const lost = Math.exp((-z * z) / 2) / Math.sqrt(2 * Math.PI) - z * above(z);
    if (lost > loss) low = z;
    else high = z;
  }
  return high;
}

/** A point to order at with what came of it. */
interface Point {
  point: number;
  outcome: Outcome;
}

/** Missing so many times what may be missed, a point is known to be too low: how far is of no use. */
const TOO_MUCH = 4;

/**
 * Where to try next between a point that is too low and one that is enough. What is missed falls with the point about as an
 * exponential does, and each look is taken on that (regula falsi on its logarithm); now and then in the middle, where it does not.
 */
function between(low: Point, high: Point, may: number, near: number, isMiddle: boolean): number {
  const wide = high.point - low.point;
  if (isMiddle || wide < 2 * near) return low.point + wide / 2;
  const depth = ({ outcome }: Point) => Math.log(Math.min(TOO_MUCH, Math.max(1e-3, (1 - outcome.fill) / may)));
  const [over, under] = [depth(low), depth(high)];
  const share = over - under > 1e-9 ? over / (over - under) : 0.5;
  // Close to one of them it is tried just so far from it that nothing is left to look for where it is on that side.
  return Math.min(high.point - 0.9 * near, Math.max(low.point + 0.9 * near, low.point + share * wide));
}

/**
 * A policy that keeps the fill rate at little cost: of an order's size by the square-root formula (Harris 1913), the lowest point at
 * which enough is met, tried on the same luck. Trying other sizes too saves less than a hundredth, and makes the level leap between
 * sizes that cost the same. O(tries × weeks).
 */
export function policyFor(supply: Supply): Policy & Outcome {
  const weeks = Float64Array.from(demandWeeks(supply));
  const leads = leadTimes(supply);
  const daily = supply.weekMean / 7;
  const holding = Math.max(1e-9, supply.unitCost * supply.holdingRate);
  const economic = Math.sqrt((2 * supply.weekMean * 52 * supply.orderCost) / holding);
  const least = Math.max(1, daily * supply.reviewDays);
  // Where holding costs nothing, still no more than a year's worth.
  const lot = Math.min(supply.weekMean * 52, Math.max(least * 0.25, economic));
  const turns = Math.min(STRIDES.length, Math.max(1, Math.ceil((LEAST_ORDERS * lot) / Math.max(1e-9, supply.weekMean * WEEKS))));
  const asked = supply.weekMean * (WEEKS * turns - WARM_UP);
  const may = Math.max(1e-6, 1 - supply.fill);
  const tried = (point: number): Point => ({ point, outcome: lived(weeks, leads, supply, { point, lot }, turns, asked * may * TOO_MUCH) });
  const ahead = daily * (supply.leadDays + supply.reviewDays);
  const spread = Math.sqrt(((supply.leadDays + supply.reviewDays) / 7) * supply.weekSd ** 2 + (daily * supply.leadSd) ** 2);
  // Goods are ordered in whole units: a point need be no nearer than that.
  const near = Math.max(NEAR_UNITS, (ahead + 6 * spread + lot) / 2 ** HALVINGS);
  let step = Math.max(3 * near, spread / 6);
  let [low, high]: [Point | null, Point | null] = [null, null];
  // From what would do were demand normal (Brown 1959) outwards, until one point does and one does not; then between the two.
  const ordered = lot + (daily * supply.reviewDays) / 2;
  let point = Math.max(
    -lot,
    daily * (supply.leadDays + supply.reviewDays / 2) + spread * deviateOf((may * ordered) / Math.max(1e-9, spread)),
  );
  for (let tries = 1; tries < MOST_TRIES; tries += 1) {
    const found = tried(point);
    if (found.outcome.fill >= supply.fill) high = found;
    else low = found;
    if (low && high) {
      if (high.point - low.point <= near) break;
      point = between(low, high, may, near, tries % 4 === 0);
      continue;
    }
    // Nothing is kept, and it is enough.
    if (high && high.point <= -lot) break;
    point = high ? Math.max(-lot, high.point - step) : point + step;
    step *= 2;
  }
  return high ? { point: high.point, lot, ...high.outcome } : { point, lot, fill: low?.outcome.fill ?? 0, cost: low?.outcome.cost ?? 0 };
}
