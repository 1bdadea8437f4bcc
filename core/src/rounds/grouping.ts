import type { RoundLimits, RoundsProblem } from './problem.js';

/** Orders put together, each round by the indices of its orders, and the metres of all walks. */
export interface Grouping {
  rounds: number[][];
  metres: number;
}

/** One round while it is put together: what it carries, and how many of its orders want each place and each run of floor. */
export interface Round {
  orders: number[];
  load: RoundLimits;
  wanted: Uint16Array;
  onRun: Uint16Array;
  metres: number;
}

/** Rounds that orders are put into and taken out of. */
export class Rounds {
  list: Round[] = [];
  /** Runs of floor that each order goes to, each once. */
  readonly runsOf: readonly Int32Array[];
  readonly loads: readonly RoundLimits[];

  constructor(private readonly problem: RoundsProblem) {
    const { orders, meter } = problem;
    this.runsOf = orders.map((o) => Int32Array.from(new Set(o.places.map((p) => meter.runOf[p] ?? 0))).sort());
    this.loads = orders.map(({ units, weightG, volumeMl }) => ({ orders: 1, units, weightG, volumeMl }));
  }

  /** Whether a round may carry one order more, in place of another that it carries or besides. */
  fits({ load }: Round, order: number, instead = -1): boolean {
    const { limits } = this.problem;
    const more = this.loads[order] ?? NOTHING;
    const less = this.loads[instead] ?? NOTHING;
    return KEYS.every((k) => load[k] + more[k] - less[k] <= limits[k]);
  }

  /** What an order weighs in a round; `by` −1 takes it out. The metres are for whoever calls to settle. */
  change(round: Round, order: number, by: 1 | -1): void {
    const { places = [] } = this.problem.orders[order] ?? {};
    const load = this.loads[order] ?? NOTHING;
    for (const k of KEYS) round.load[k] += by * load[k];
    for (const p of places) round.wanted[p] = (round.wanted[p] as number) + by;
    for (const run of this.runsOf[order] ?? []) round.onRun[run] = (round.onRun[run] as number) + by;
    if (by === 1) round.orders.push(order);
    else round.orders.splice(round.orders.indexOf(order), 1);
  }

  open(): Round {
    const { places, meter } = this.problem;
    const round: Round = {
      orders: [],
      load: { ...NOTHING },
      wanted: new Uint16Array(places),
      onRun: new Uint16Array(meter.length.length),
      metres: 0,
    };
    this.list.push(round);
    return round;
  }

  get grouping(): Grouping {
    return { rounds: this.list.map((r) => [...r.orders]), metres: this.list.reduce((sum, r) => sum + r.metres, 0) };
  }
}

const NOTHING: RoundLimits = { orders: 0, units: 0, weightG: 0, volumeMl: 0 };
export const NO_RUNS = new Int32Array(0);
const KEYS = Object.keys(NOTHING) as (keyof RoundLimits)[];
