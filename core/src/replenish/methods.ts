/** Weeks of a year, as seasons are reckoned. */
export const YEAR = 52;

/** What weeks brought. Flat, so that a part of it is a view and no copy. */
export type Units = Float64Array;

/** A forecast made at the end of a series: what each of the next weeks is expected to bring. */
export type Forecaster = (units: Units, weeks: number) => number[];

/** Of nothing it is nought. */
export function mean(list: ArrayLike<number>): number {
  let sum = 0;
  for (let i = 0; i < list.length; i += 1) sum += list[i] ?? 0;
  return list.length === 0 ? 0 : sum / list.length;
}

/**
 * Simple exponential smoothing (Brown 1956), begun at the mean of the first weeks. While few weeks are known each counts the same,
 * so that a short history is averaged. O(n).
 */
export function smoothed(units: Units, alpha: number): number {
  let level = units[0] ?? 0;
  const even = 1 / alpha;
  for (let i = 1; i < units.length; i += 1) level += (i + 1 < even ? 1 / (i + 1) : alpha) * ((units[i] ?? 0) - level);
  return level;
}

/** Smoothing by a fixed constant. */
export const byLevel =
  (alpha: number): Forecaster =>
  (units, weeks) => {
    const level = Math.max(0, smoothed(units, alpha));
    return Array.from({ length: weeks }, () => level);
  };

const DAMPING = 0.94;

/** Holt's two-parameter smoothing with a damped trend (Gardner and McKenzie 1985). O(n). */
export const byTrend =
  (alpha: number, beta: number): Forecaster =>
  (units, weeks) => {
    let level = mean(units.subarray(0, 8));
    let trend = 0;
    for (let i = 0; i < units.length; i += 1) {
      const carried = DAMPING * trend;
      const was = level;
      level += carried + Math.max(alpha, 1 / (i + 2)) * ((units[i] ?? 0) - level - carried);
      trend = carried + beta * (level - was - carried);
    }
    let sum = 0;
    return Array.from({ length: weeks }, (_, k) => {
      sum += DAMPING ** (k + 1);
      return Math.max(0, level + sum * trend);
    });
  };

/**
 * Intermittent demand by the probability and the size of a demand, each smoothed, so that silence lowers what is expected
 * (Teunter, Syntetos and Babai 2011). O(n).
 */
export const byChance =
  (alpha: number): Forecaster =>
  (units, weeks) => {
    const demands = units.filter((u) => u > 0);
    const chance = smoothed(
      units.map((u) => (u > 0 ? 1 : 0)),
      alpha,
    );
    const size = smoothed(demands, Math.max(alpha, 0.05));
    return Array.from({ length: weeks }, () => chance * size);
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
  const shares = units.map((u, i) => u / Math.max(1e-9, usual[i] ?? 1) - 1);
  let variance = 0;
  for (const share of shares) variance += (share * share) / n;
  // A wave is believed that chance would make once in fifty series, and then less what chance has put on it.
  const noise = (2 * variance) / n;
  const season = new Array<number>(YEAR).fill(1);
  for (const wave of WAVES) {
    let [a, b] = [0, 0];
    for (let i = 0; i < n; i += 1) {
      const week = 2 * ((at + i) % YEAR);
      a += ((shares[i] ?? 0) * (wave[week] ?? 0) * 2) / n;
      b += ((shares[i] ?? 0) * (wave[week + 1] ?? 0) * 2) / n;
    }
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

/** The seasons of one series, begun at a week of the year and known to more and more weeks; each found once. */
export function seasonsOf(at: number): (units: Units) => number[] {
  const known = new Map<number, number[]>();
  return (units) => {
    const found = known.get(units.length) ?? seasonOf(units, at);
    known.set(units.length, found);
    return found;
  };
}

/** The usual level about each week: the mean of the year around it, or of as much of it as there is. O(n). */
function yearly(units: Units): Units {
  const n = units.length;
  const sums = new Float64Array(n + 1);
  for (let i = 0; i < n; i += 1) sums[i + 1] = (sums[i] ?? 0) + (units[i] ?? 0);
  return units.map((_, i) => {
    let from = Math.max(0, i - YEAR / 2);
    let to = Math.min(n, i + YEAR / 2);
    // At the ends the whole year nearest to them, so that no season tips the level.
    if (to - from < YEAR && n >= YEAR) [from, to] = from === 0 ? [0, YEAR] : [n - YEAR, n];
    return ((sums[to] ?? 0) - (sums[from] ?? 0)) / Math.max(1, to - from);
  });
}

/** Smoothing of what is left once the season is taken out, and put in again. `at`: the week of the year at which the series begins. */
export const bySeason =
  (at: number, seasons: (units: Units) => readonly number[], inner: Forecaster): Forecaster =>
  (units, weeks) => {
    const season = seasons(units);
    const of = (week: number) => season[((week % YEAR) + YEAR) % YEAR] ?? 1;
    const plain = units.map((u, i) => u / of(at + i));
    return inner(plain, weeks).map((m, k) => m * of(at + units.length + k));
  };
