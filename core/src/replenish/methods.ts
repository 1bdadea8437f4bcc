/** Weeks of a year, as seasons are reckoned. */
export const YEAR = 52;

/** What weeks brought. Flat, so that a part of it is a view and no copy. */
export type Units = Float64Array;

/** What is expected of each of the next `weeks`, by the first `known` weeks of a series alone; at least one is known. */
export type Prepared = (known: number, weeks: number) => number[];

/**
 * A method, made ready for a series: whatever it keeps of the past is gone through once, so that it can be tried at every week of it
 * without beginning anew.
 */
export type Forecaster = (units: Units) => Prepared;

/** Of nothing it is nought. */
export function mean(list: ArrayLike<number>): number {
  let sum = 0;
  for (let i = 0; i < list.length; i += 1) sum += list[i] ?? 0;
  return list.length === 0 ? 0 : sum / list.length;
}

/**
 * Simple exponential smoothing (Brown 1956) after each value, begun at the first. While few are known each counts the same, so that a
 * short history is averaged. O(n).
 */
function smoothed(units: Units, alpha: number): Units {
  const levels = new Float64Array(units.length);
  let level = units[0] ?? 0;
  const even = 1 / alpha;
  for (let i = 0; i < units.length; i += 1) {
    if (i > 0) level += (i + 1 < even ? 1 / (i + 1) : alpha) * ((units[i] ?? 0) - level);
    levels[i] = level;
  }
  return levels;
}

const repeated = (value: number, weeks: number): number[] => new Array<number>(weeks).fill(value);

/** Smoothing by a fixed constant. */
export const byLevel =
  (alpha: number): Forecaster =>
  (units) => {
    const levels = smoothed(units, alpha);
    return (known, weeks) => repeated(Math.max(0, levels[known - 1] ?? 0), weeks);
  };

const DAMPING = 0.94;
/** The first weeks, whose mean a trend begins at. */
const FIRST = 8;

/** Holt's two-parameter smoothing with a damped trend (Gardner and McKenzie 1985). O(n). */
export const byTrend =
  (alpha: number, beta: number): Forecaster =>
  (units) => {
    const levels = new Float64Array(units.length);
    const trends = new Float64Array(units.length);
    let level = mean(units.subarray(0, FIRST));
    let trend = 0;
    for (let i = 0; i < units.length; i += 1) {
      const carried = DAMPING * trend;
      const was = level;
      level += carried + Math.max(alpha, 1 / (i + 2)) * ((units[i] ?? 0) - level - carried);
      trend = carried + beta * (level - was - carried);
      levels[i] = level;
      trends[i] = trend;
    }
    return (known, weeks) => {
      const [from, slope] = [levels[known - 1] ?? 0, trends[known - 1] ?? 0];
      const made = new Array<number>(weeks);
      let [sum, damped] = [0, 1];
      for (let k = 0; k < weeks; k += 1) {
        damped *= DAMPING;
        sum += damped;
        made[k] = Math.max(0, from + sum * slope);
      }
      return made;
    };
  };

/**
 * Intermittent demand by the probability and the size of a demand, each smoothed, so that silence lowers what is expected
 * (Teunter, Syntetos and Babai 2011). O(n).
 */
export const byChance =
  (alpha: number): Forecaster =>
  (units) => {
    const busy = new Float64Array(units.length);
    const demands = new Float64Array(units.length);
    // How many demands there were up to each week.
    const counts = new Int32Array(units.length);
    let count = 0;
    for (let i = 0; i < units.length; i += 1) {
      const week = units[i] ?? 0;
      if (week > 0) {
        busy[i] = 1;
        demands[count] = week;
        count += 1;
      }
      counts[i] = count;
    }
    const chances = smoothed(busy, alpha);
    const sizes = smoothed(demands.subarray(0, count), Math.max(alpha, 0.05));
    return (known, weeks) => repeated((chances[known - 1] ?? 0) * (sizes[(counts[known - 1] ?? 0) - 1] ?? 0), weeks);
  };

/** Cosine and sine of every week of the year, one after the other, for the waves that tell its course. */
const WAVES = [1, 2, 3].map((k) =>
  Float64Array.from({ length: 2 * YEAR }, (_, i) => (i % 2 === 0 ? Math.cos : Math.sin)((2 * Math.PI * k * Math.floor(i / 2)) / YEAR)),
);

/**
 * How much each week of the year is above or below the usual: its course is told by a few waves (Fourier terms), fitted to each
 * week's share of its year's usual level. The mean of all 52 is one. `at`: the week of the year at which the series begins.
 * O(waves × n).
 */
export function seasonOf(units: Units, at: number): number[] {
  const usual = yearly(units);
  const n = units.length;
  const shares = new Float64Array(n);
  let variance = 0;
  for (let i = 0; i < n; i += 1) {
    const share = (units[i] ?? 0) / Math.max(1e-9, usual[i] ?? 1) - 1;
    shares[i] = share;
    variance += (share * share) / n;
  }
  // A wave is believed that chance would make once in fifty series, and then less what chance has put on it.
  const noise = (2 * variance) / n;
  const season = new Array<number>(YEAR).fill(1);
  for (const wave of WAVES) {
    let [a, b] = [0, 0];
    for (let i = 0, week = 2 * (at % YEAR); i < n; i += 1) {
      a += (shares[i] ?? 0) * (wave[week] ?? 0);
      b += (shares[i] ?? 0) * (wave[week + 1] ?? 0);
      week = week === 2 * YEAR - 2 ? 0 : week + 2;
    }
    a *= 2 / n;
    b *= 2 / n;
    const power = (a * a + b * b) / 2;
    if (power <= 4 * noise) continue;
    const kept = 1 - noise / power;
    for (let week = 0; week < YEAR; week += 1)
      season[week] = (season[week] ?? 1) + kept * (a * (wave[2 * week] ?? 0) + b * (wave[2 * week + 1] ?? 0));
  }
  const above = season.map((s) => Math.max(0.02, s));
  const all = mean(above);
  return above.map((s) => s / all);
}

/** Seasons are found anew every so many weeks of the past: one more or less says little of a year. */
const SEASONS_EVERY = 4;

/**
 * The seasons of one series, begun at a week of the year and known to more and more weeks; each found once. Where all of it is known,
 * by all of it.
 */
export function seasonsOf(at: number): (units: Units, known: number) => number[] {
  const found = new Map<number, number[]>();
  return (units, known) => {
    const upTo = known === units.length ? known : Math.max(1, known - (known % SEASONS_EVERY));
    const season = found.get(upTo) ?? seasonOf(units.subarray(0, upTo), at);
    found.set(upTo, season);
    return season;
  };
}

/** The usual level about each week: the mean of the year around it, or of as much of it as there is. O(n). */
function yearly(units: Units): Units {
  const n = units.length;
  const sums = new Float64Array(n + 1);
  for (let i = 0; i < n; i += 1) sums[i + 1] = (sums[i] ?? 0) + (units[i] ?? 0);
  const usual = new Float64Array(n);
  for (let i = 0; i < n; i += 1) {
    let from = Math.max(0, i - YEAR / 2);
    let to = Math.min(n, i + YEAR / 2);
    // At the ends the whole year nearest to them, so that no season tips the level.
    if (to - from < YEAR && n >= YEAR) {
      to = from === 0 ? YEAR : n;
      from = to - YEAR;
    }
    usual[i] = ((sums[to] ?? 0) - (sums[from] ?? 0)) / Math.max(1, to - from);
  }
  return usual;
}

/** Smoothing of what is left once the season is taken out, and put in again. `at`: the week of the year at which the series begins. */
export const bySeason =
  (at: number, seasons: (units: Units, known: number) => readonly number[], inner: Forecaster): Forecaster =>
  (units) => {
    let last: { season: readonly number[]; plain: Prepared } | null = null;
    return (known, weeks) => {
      const season = seasons(units, known);
      if (last?.season !== season) {
        const plain = new Float64Array(units.length);
        for (let i = 0, week = at % YEAR; i < plain.length; i += 1) {
          plain[i] = (units[i] ?? 0) / (season[week] ?? 1);
          week = week === YEAR - 1 ? 0 : week + 1;
        }
        last = { season, plain: inner(plain) };
      }
      const made = last.plain(known, weeks);
      for (let k = 0, week = (at + known) % YEAR; k < weeks; k += 1) {
        made[k] = (made[k] ?? 0) * (season[week] ?? 1);
        week = week === YEAR - 1 ? 0 : week + 1;
      }
      return made;
    };
  };
