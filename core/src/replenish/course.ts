import { seeded } from '../random/index.js';
import { deviateAt } from './normal.js';

/** Demand as it comes: so many days with so much on each, one after the other. */
export interface Course {
  long: Float64Array;
  wants: Float64Array;
  days: number;
}

/** What a week brings: its mean, its spread, and the share of weeks that bring anything. */
export interface WeekDemand {
  weekMean: number;
  weekSd: number;
  busy: number;
}

/** Weeks of one turn, and turns that there may be. */
export const WEEKS = 360;
export const MOST_TURNS = 16;
/** Where more weeks than these bring something, all do. */
const ALL = 0.98;
/** Goods that are asked for in fewer weeks are asked for by one customer in a week, on one day. */
const LUMPY = 0.5;
/** How often the spread of sizes is put right. */
const MOST_FITS = 4;
export const isLumpy = ({ busy }: Pick<WeekDemand, 'busy'>): boolean => busy < LUMPY;

/** Numbers in an order that mixes them, the same for everybody, so that two policies meet the same luck. */
function mixed(many: number, seed: number): Int32Array {
  const random = seeded(seed);
  const order = Int32Array.from({ length: many }, (_, i) => i);
  for (let i = many - 1; i > 0; i -= 1) {
    const j = Math.floor(random() * (i + 1));
    const kept = order[i] ?? 0;
    order[i] = order[j] ?? 0;
    order[j] = kept;
  }
  return order;
}
/** Deviates of the standard normal, each in the middle of one of as many equal parts of it, mixed. */
const deviates = (many: number, seed: number) => Float64Array.from(mixed(many, seed), (n) => deviateAt((n + 0.5) / many));

/** Of each week of a turn. */
export const NORMAL = deviates(WEEKS, 7);
/** Steps through the weeks of a turn that come to each of them once: none shares a divisor with their number. */
const STRIDES = [1, 7, 11, 13, 17, 19, 23, 29, 31, 37, 41, 43, 47, 49, 53, 59] as const;

/** The order in which weeks begin to bring something, where not all do: so many of these, from the first on. */
const EARLY = mixed(WEEKS * MOST_TURNS, 11);

/** Weeks that bring something, each with the deviate of what it brings. */
interface Busy {
  weeks: Int32Array;
  deviates: Float64Array;
}

/** Of so many weeks those that bring something. Their deviates lie in the middle of as many equal parts, so that few are a fair sample too. */
function busyOf(span: number, share: number): Busy {
  if (share >= ALL) {
    const weeks = Int32Array.from({ length: span }, (_, week) => week);
    return { weeks, deviates: Float64Array.from(weeks, (week) => NORMAL[(week * (STRIDES[Math.floor(week / WEEKS)] ?? 1)) % WEEKS] ?? 0) };
  }
  const many = Math.max(1, Math.round(share * span));
  const busy = { weeks: new Int32Array(many), deviates: new Float64Array(many) };
  for (let n = 0, found = 0; found < many; n += 1) {
    const week = EARLY[n] ?? 0;
    if (week >= span) continue;
    busy.weeks[found] = week;
    busy.deviates[found] = deviateAt((found + 0.5) / many);
    found += 1;
  }
  return busy;
}

/** The course of weeks that are each even. */
export function courseOf(weeks: ArrayLike<number>): Course {
  const many = weeks.length;
  const wants = new Float64Array(many);
  for (let week = 0; week < many; week += 1) wants[week] = (weeks[week] ?? 0) / 7;
  return { long: new Float64Array(many).fill(7), wants, days: many * 7 };
}

/** The course of weeks that bring what they bring on one day; the days between are one part. */
function courseOfLumps(weeks: Float64Array): Course {
  const [long, wants] = [new Float64Array(2 * weeks.length + 1), new Float64Array(2 * weeks.length + 1)];
  let [parts, day] = [0, 0];
  for (let week = 0; week < weeks.length; week += 1) {
    const units = weeks[week] ?? 0;
    if (units === 0) continue;
    const on = week * 7 + ((week * 3) % 7);
    long[parts] = on - day;
    long[parts + 1] = 1;
    wants[parts + 1] = units;
    parts += 2;
    day = on + 1;
  }
  const days = weeks.length * 7;
  long[parts] = days - day;
  return { long: long.subarray(0, parts + 1), wants: wants.subarray(0, parts + 1), days };
}

/**
 * A course of so many turns with the wanted mean and spread of a week: in busy weeks a gamma distribution by the approximation of Wilson
 * and Hilferty (1931), which is skewed as demand is; silent weeks between. Scaled, so that the mean comes out as asked. O(weeks).
 */
export function courseLike({ weekMean, weekSd, busy }: WeekDemand, turns: number): Course {
  const share = Math.min(1, Math.max(0.02, busy));
  const size = weekMean / share;
  const variance = Math.max(1e-9, (weekSd * weekSd + weekMean * weekMean) / share - size * size);
  const shape = Math.max(0.05, (size * size) / variance);
  const weeks = new Float64Array(WEEKS * turns);
  const busyWeeks = busyOf(weeks.length, share);
  let width = 1 / (3 * Math.sqrt(shape));
  for (let tries = 1; ; tries += 1) {
    const found = fill(weeks, busyWeeks, 1 - 1 / (9 * shape), width);
    const scale = found.sum > 0 ? (weekMean * weeks.length) / found.sum : 0;
    // The approximation is too narrow where most requests are small and few are very large; as is what few weeks show of it.
    const wider = Math.sqrt(1 / (shape * Math.max(1e-9, found.relative)));
    if (share >= ALL || tries === MOST_FITS || Math.abs(wider - 1) < 0.02) {
      for (let week = 0; week < weeks.length; week += 1) weeks[week] = (weeks[week] ?? 0) * scale;
      return isLumpy({ busy }) ? courseOfLumps(weeks) : courseOf(weeks);
    }
    width *= wider;
  }
}

/** Puts sizes into the weeks that bring something. Returns their sum, and their variance as a share of their mean's square. O(weeks). */
function fill(into: Float64Array, { weeks, deviates }: Busy, middle: number, width: number): { sum: number; relative: number } {
  const many = weeks.length;
  let [sum, squares] = [0, 0];
  for (let n = 0; n < many; n += 1) {
    const root = middle + (deviates[n] ?? 0) * width;
    const units = root > 0 ? root * root * root : 0;
    into[weeks[n] ?? 0] = units;
    sum += units;
    squares += units * units;
  }
  return { sum, relative: sum > 0 ? (squares * many) / (sum * sum) - 1 : 0 };
}
