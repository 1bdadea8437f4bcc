import { seeded } from '../random/index.js';
import { firstRounds } from './first-rounds.js';
import { type Grouping, NO_RUNS, type Round, type Rounds } from './grouping.js';
import type { RoundsProblem } from './problem.js';

/** How much longer a change may make the walks, as a share of the metres of an order: at first, and at the end. */
const WARM = 0.2;
const COLD = 0.012;
/** Orders that lie by an order, from which one is chosen to change places with or to join; now and then it is any. */
const NEAR = 40;
const ANY = 0.1;
/** What a change does to the runs of floor says this much of what it does to the metres: hopeless ones are not measured. */
const GUESSED = 0.2;
/** A change that is not measured takes so much of the time of one that is. */
const UNMEASURED = 0.02;

/**
 * Puts orders together so that the metres of all walks are few: a first grouping by the floor that orders share, then improved by moving
 * orders to other rounds and changing two over, at first also where that is a little worse (simulated annealing, Kirkpatrick, Gelatt and
 * Vecchi 1983). The same problem, seed and number of measurements give the same answer.
 */
export class RoundsSearch {
  private readonly rounds: Rounds;
  private readonly random: () => number;
  private readonly roundOf: Round[] = [];
  private readonly near: readonly Int32Array[];
  private readonly isOther: Uint8Array;
  private best: Grouping;
  private metres: number;

  constructor(
    private readonly problem: RoundsProblem,
    seed: number,
  ) {
    this.random = seeded(seed);
    this.rounds = firstRounds(problem);
    for (const round of this.rounds.list) for (const order of round.orders) this.roundOf[order] = round;
    this.near = nearOrders(this.rounds, problem.meter.length);
    this.isOther = new Uint8Array(problem.meter.length.length);
    this.best = this.rounds.grouping;
    this.metres = this.best.metres;
  }

  get found(): Grouping {
    return this.best;
  }

  /** Improves for about so many measurements, or until it is told to stop. `onBetter` hears of each improvement. */
  improve(measurements: number, isOver: () => boolean = () => false, onBetter?: (found: Grouping) => void): Grouping {
    const { problem } = this;
    if (problem.orders.length < 2) return this.best;
    const share = this.best.metres / problem.orders.length;
    let spent = 0;
    for (let n = 0; spent < measurements; n++) {
      if (this.rounds.list.length < 2 || (n % 256 === 0 && isOver())) break;
      const heat = WARM * (COLD / WARM) ** (spent / measurements) * share;
      spent += this.tryChange(-heat * Math.log(1 - this.random())) ? 2 : UNMEASURED;
      if (this.metres >= this.best.metres - 1e-6) continue;
      this.best = this.rounds.grouping;
      onBetter?.(this.best);
    }
    return this.best;
  }

  private below(n: number): number {
    return Math.floor(this.random() * n);
  }

  /** Tries one change that may make the walks longer by so many metres. Returns whether it was measured. */
  private tryChange(allowed: number): boolean {
    const { rounds, roundOf, near } = this;
    const order = this.below(this.problem.orders.length);
    const neighbours = near[order] ?? new Int32Array(0);
    const by =
      this.random() < ANY || neighbours.length === 0
        ? this.below(this.problem.orders.length)
        : (neighbours[Math.floor(this.random() * this.random() * neighbours.length)] as number);
    const [from, to] = [roundOf[order] as Round, roundOf[by] as Round];
    if (from === to) return false;
    const joins = rounds.fits(to, order) && this.random() < 0.5;
    const other = joins ? -1 : (to.orders[this.below(to.orders.length)] as number);
    if (!joins && !(rounds.fits(to, order, other) && rounds.fits(from, other, order))) return false;
    if (GUESSED * this.guess(order, other, from, to) > allowed) return false;
    this.move(order, from, to);
    if (other >= 0) this.move(other, to, from);
    const { metres } = this.problem.meter;
    const [left, right] = [from.orders.length === 0 ? 0 : metres(from.wanted), metres(to.wanted)];
    const more = left + right - from.metres - to.metres;
    if (more > allowed) {
      this.move(order, to, from);
      if (other >= 0) this.move(other, from, to);
      return true;
    }
    from.metres = left;
    to.metres = right;
    this.metres += more;
    if (from.orders.length === 0) rounds.list.splice(rounds.list.indexOf(from), 1);
    return true;
  }

  private move(order: number, from: Round, to: Round): void {
    this.rounds.change(from, order, -1);
    this.rounds.change(to, order, 1);
    this.roundOf[order] = to;
  }

  /** Metres of the runs that the two rounds would newly go to, less those they would no longer. */
  private guess(order: number, other: number, from: Round, to: Round): number {
    const { isOther } = this;
    const { length } = this.problem.meter;
    const [own, theirs] = [this.rounds.runsOf[order] ?? NO_RUNS, this.rounds.runsOf[other] ?? NO_RUNS];
    let sum = 0;
    for (const run of theirs) isOther[run] = 1;
    for (const run of own) {
      if (isOther[run] === 1) {
        isOther[run] = 2;
        continue;
      }
      if (from.onRun[run] === 1) sum -= length[run] as number;
      if (to.onRun[run] === 0) sum += length[run] as number;
    }
    for (const run of theirs) {
      if (isOther[run] === 1) {
        if (to.onRun[run] === 1) sum -= length[run] as number;
        if (from.onRun[run] === 0) sum += length[run] as number;
      }
      isOther[run] = 0;
    }
    return sum;
  }
}

/** For each order the others that share most of the floor with it, the nearest first. O(orders² · runs of an order). */
function nearOrders({ runsOf }: Rounds, length: Float64Array): Int32Array[] {
  const on = new Uint8Array(length.length);
  const own = runsOf.map((runs) => runs.reduce((sum, run) => sum + (length[run] as number), 0));
  return runsOf.map((runs, i) => {
    for (const run of runs) on[run] = 1;
    const apart = runsOf.map((others, j) => {
      let shared = 0;
      for (const run of others) if (on[run] === 1) shared += length[run] as number;
      return (own[i] as number) + (own[j] as number) - 2 * shared;
    });
    for (const run of runs) on[run] = 0;
    const others = [...runsOf.keys()].filter((j) => j !== i);
    return Int32Array.from(others.sort((j, k) => (apart[j] as number) - (apart[k] as number) || j - k).slice(0, NEAR));
  });
}
