import { isLumpy } from './course.js';
import { weekOfDate, weekText } from './iso-week.js';
import { byChance, byLevel, bySeason, byTrend, type Forecaster, mean, type Prepared, seasonsOf, type Units, YEAR } from './methods.js';
import { liftsAhead, type Mark, unmarked } from './marks.js';
import { type Series, seriesOf, type WeekUnits } from './series.js';
import { isSilent } from './silence.js';

export interface WeekForecast {
  week: string;
  mean: number;
  /** Of the error that the forecast of this week is expected to have. */
  sd: number;
}

export type Method =
  'level' | 'trend' | 'season' | 'season of its class' | 'season and trend' | 'chance' | 'discontinued' | 'nothing known';

/** What else is known of an item than what it was asked for itself. */
export interface Beside {
  /** The seasons of its class by the week's number modulo 52; see `seasonOfClass`. */
  classSeason?: readonly number[] | null;
  marks?: readonly Mark[];
}

export interface Forecast {
  method: Method;
  weeks: WeekForecast[];
  /** Of a single week's demand about what was expected, in units. */
  sd: number;
  /** Share of weeks with demand, 0 to 1. */
  busy: number;
}

/** Weeks that a forecast has at least. */
export const FORECAST_WEEKS = 26;

interface Candidate {
  method: Method;
  make: Forecaster;
  /** Weeks that must be known before it is tried. */
  needs: number;
  /** How fast its level follows, for how far its errors grow. */
  alpha: number;
}

/** What is seldom asked for is averaged over long: how often it is, is known by few weeks. */
const RARE_ALPHA = 0.02;
const MOST_RARE_ALPHA = 0.05;
const LEVELS = [0.02, 0.05, 0.1, 0.2, 0.35] as const;

/** Of so few requests no course of their own is to be learned: what chance has thrown together looks like one. */
const LEAST_REQUESTS = 30;

/** An item is known by itself for a year before its own level is preferred to its class's seasons. */
const OWN_YEAR = 60;

const isOfItsOwn = (method: Method) => method === 'trend' || method === 'season' || method === 'season and trend';

const byClass = (at: number, season: readonly number[], alpha: number): Candidate => ({
  method: 'season of its class',
  make: bySeason(at, () => season, byLevel(alpha)),
  needs: 1,
  alpha,
});

function candidates(at: number, classSeason: readonly number[] | null, isRare: boolean): Candidate[] {
  const seasons = seasonsOf(at);
  return [
    ...(classSeason ? [0.05, 0.15].map((alpha) => byClass(at, classSeason, alpha)) : []),
    ...LEVELS.filter((alpha) => !isRare || alpha <= MOST_RARE_ALPHA).map((alpha): Candidate => ({
      method: 'level',
      make: byLevel(alpha),
      needs: 1,
      alpha,
    })),
    { method: 'trend', make: byTrend(0.15, 0.05), needs: 26, alpha: 0.15 },
    { method: 'trend', make: byTrend(0.08, 0.02), needs: 26, alpha: 0.08 },
    ...[0.05, 0.15].map((alpha): Candidate => ({ method: 'season', make: bySeason(at, seasons, byLevel(alpha)), needs: 60, alpha })),
    { method: 'season and trend', make: bySeason(at, seasons, byTrend(0.08, 0.02)), needs: 78, alpha: 0.08 },
    ...[0.05, 0.1].map((alpha): Candidate => ({ method: 'chance', make: byChance(alpha), needs: 8, alpha })),
  ];
}

/**
 * How sure it must be that another method is nearer than the simplest: its gain over its own spread (Diebold and Mariano 1995), since
 * the best of many is nearer by chance too.
 */
const SURE = { level: 0.8, other: 1.3 } as const;
const MOST_ORIGINS = 16;

/** How far off a method would have been: at each origin, the last first, the squared error of a span's sum as a share of a week. */
interface Trial {
  spans: number[];
  error: number;
}

/**
 * Tries a method over the sum of the next `span` weeks, at many weeks of the past with what was known then (rolling origin,
 * Tashman 2000).
 */
function tried(units: Units, make: Prepared, needs: number, span: number): Trial | null {
  const begin = Math.max(1, Math.min(units.length - 8, Math.floor(units.length * 0.4)));
  const last = units.length - 1;
  // The same weeks for every method, so that they are compared at what both were tried on.
  const step = Math.max(1, Math.ceil((last - begin + 1) / MOST_ORIGINS));
  const spans: number[] = [];
  for (let origin = last; origin >= Math.max(needs, begin); origin -= step) {
    const reach = Math.min(span, units.length - origin);
    const made = make(origin, reach);
    let off = 0;
    for (let k = 0; k < reach; k += 1) off += (units[origin + k] ?? 0) - (made[k] ?? 0);
    spans.push((off * off) / reach);
  }
  return spans.length === 0 ? null : { spans, error: mean(spans) };
}

/** The mean squared error of a method over single weeks, each forecast from those before it: of many, as few say little of a spread. */
function weekError(units: Units, make: Prepared, needs: number): number {
  const first = Math.max(needs, Math.min(units.length - 8, Math.floor(units.length * 0.2)), 1);
  let sum = 0;
  for (let i = first; i < units.length; i += 1) sum += ((units[i] ?? 0) - (make(i, 1)[0] ?? 0)) ** 2;
  return sum / Math.max(1, units.length - first);
}

/** How far a trial's gain on another is beyond chance, in its standard errors. Only where both were tried. */
function gain(of: Trial, on: Trial): number {
  const n = Math.min(of.spans.length, on.spans.length);
  const gains = Array.from({ length: n }, (_, i) => (on.spans[i] ?? 0) - (of.spans[i] ?? 0));
  const usual = mean(gains);
  const spread = Math.sqrt(mean(gains.map((g) => (g - usual) ** 2)) / Math.max(1, n - 1));
  return spread > 0 ? usual / spread : 0;
}

/**
 * What the next weeks will bring. The method is the one that would have been nearest over the time that an order must last, tried on
 * the item's own past; the simplest unless another is clearly better. O(methods × origins × weeks).
 */
export function forecastOf(
  history: readonly WeekUnits[],
  today: string,
  spanWeeks = 4,
  weeks = FORECAST_WEEKS,
  { classSeason = null, marks = [] }: Beside = {},
): Forecast {
  const asked = seriesOf(history, today);
  const series = unmarked(asked, marks);
  const from = weekOfDate(today);
  const named = (values: readonly number[], sd: (k: number) => number): WeekForecast[] =>
    values.map((m, k) => ({ week: weekText(from + k), mean: m, sd: sd(k) }));
  const none = (method: Method): Forecast => ({
    method,
    weeks: named(
      Array.from({ length: weeks }, () => 0),
      () => 0,
    ),
    sd: 0,
    busy: 0,
  });
  const { units } = series;
  if (units.every((u) => u === 0)) return none('nothing known');
  if (isSilent(series)) return none('discontinued');
  const { chosen, make, week } = choose(series, Math.max(1, Math.round(spanWeeks)), classSeason);
  const lifts = liftsAhead(asked, marks, today, weeks);
  const values = make(units.length, weeks).map((v, k) => v * (lifts[k] ?? 1));
  // Few weeks tell little of their own spread: it is at least that of independent requests, one at a time.
  const level = mean(values.slice(0, Math.max(1, Math.round(spanWeeks))));
  const known = units.length;
  const busy = units.filter((u) => u > 0).length / known;
  const spread = Math.max(isLumpy({ busy }) ? spreadOfRequests(units, level) : week, known < 12 ? level : level * 0.2);
  const scale = (k: number) => (level > 0 ? Math.max(0.25, (values[k] ?? level) / level) : 1);
  // What is not known of the level itself adds to the error of every week, and more the farther ahead.
  const drift = (k: number) => 1 + 1 / Math.max(4, Math.min(known, 1 / Math.max(0.02, chosen.alpha))) + k * chosen.alpha * chosen.alpha;
  return {
    method: chosen.method,
    weeks: named(values, (k) => Math.sqrt(spread * drift(k) * scale(k))),
    sd: Math.sqrt(spread),
    busy,
  };
}

/** What is taken for granted of the sizes of requests counts as so many of them: that they are spread as far as they are large. */
const USUAL_REQUESTS = 10;

/**
 * The variance of a week that seldom brings something, at a level: by how often it does and by the sizes, whose spread is drawn to the
 * usual one while few of them are known. A single large one would otherwise be taken for what is to be kept in stock.
 */
function spreadOfRequests(units: Units, level: number): number {
  const sizes = units.filter((u) => u > 0);
  const size = mean(sizes);
  const own = sizes.length > 1 ? sizes.reduce((n, s) => n + (s - size) ** 2, 0) / (sizes.length - 1) / (size * size) : 1;
  const relative = (own * sizes.length + USUAL_REQUESTS) / (sizes.length + USUAL_REQUESTS);
  const share = sizes.length / units.length;
  return (level * level * (1 + relative)) / share - level * level;
}

/** A method with how far off it would have been. */
interface Tried {
  chosen: Candidate;
  make: Prepared;
  trial: Trial;
}

function choose({ first, units }: Series, span: number, classSeason: readonly number[] | null): Omit<Tried, 'trial'> & { week: number } {
  const at = ((first % YEAR) + YEAR) % YEAR;
  const requests = units.reduce((n, u) => n + (u > 0 ? 1 : 0), 0);
  const isRare = isLumpy({ busy: requests / units.length });
  // What is not known for a year yet has the seasons of its class until something else is clearly nearer.
  const usual: Candidate =
    classSeason && units.length < OWN_YEAR
      ? byClass(at, classSeason, 0.05)
      : { method: 'level', make: byLevel(isRare ? RARE_ALPHA : 0.05), needs: 1, alpha: isRare ? RARE_ALPHA : 0.05 };
  const make = usual.make(units);
  const base = tried(units, make, usual.needs, span);
  if (!base) {
    const average = mean(units);
    return { chosen: usual, make, week: Math.max(mean(units.map((u) => (u - average) ** 2)), average) };
  }
  let simple: Tried = { chosen: usual, make, trial: base };
  const others: Tried[] = [];
  for (const chosen of candidates(at, classSeason, isRare)) {
    if (units.length < chosen.needs + 4 || (requests < LEAST_REQUESTS && isOfItsOwn(chosen.method))) continue;
    const ready = chosen.make(units);
    const trial = tried(units, ready, chosen.needs, span);
    if (!trial) continue;
    if (chosen.method !== usual.method) others.push({ chosen, make: ready, trial });
    else if (trial.error < simple.trial.error && gain(trial, base) > SURE.level) simple = { chosen, make: ready, trial };
  }
  let best = simple;
  for (const one of others) {
    if (gain(one.trial, simple.trial) <= SURE.other) continue;
    if (best === simple || gain(one.trial, best.trial) > 0) best = one;
  }
  return { chosen: best.chosen, make: best.make, week: weekError(units, best.make, best.chosen.needs) };
}
