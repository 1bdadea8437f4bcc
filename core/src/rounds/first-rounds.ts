import { NO_RUNS, type Round, Rounds } from './grouping.js';
import type { RoundsProblem } from './problem.js';

/** So many rounds that an order seems to add least to are measured for it. */
const MEASURED = 6;

/** What an order costs where it costs least, and where it costs least but for that. */
interface Choice {
  round: Round | null;
  first: number;
  second: number;
}

/**
 * A first grouping: each order joins the round to whose walk it adds least, or begins one of its own where that is less, those first
 * that would lose most by waiting (regret insertion, Potvin and Rousseau 1993). O(orders² · runs of an order), and some measurements
 * for each order.
 */
export function firstRounds(problem: RoundsProblem): Rounds {
  const rounds = new Rounds(problem);
  const insertion = new Insertion(problem, rounds);
  insertion.all();
  return rounds;
}

class Insertion {
  /** What each order adds to a round, as long as the round holds what it did. */
  private readonly known: Map<Round, { size: number; more: number }>[];
  private readonly alone: Float64Array;

  constructor(
    private readonly problem: RoundsProblem,
    private readonly rounds: Rounds,
  ) {
    this.known = problem.orders.map(() => new Map<Round, { size: number; more: number }>());
    const wanted = new Uint16Array(problem.places);
    this.alone = Float64Array.from(problem.orders, ({ places }) => {
      for (const p of places) wanted[p] = 1;
      const metres = problem.meter.metres(wanted);
      for (const p of places) wanted[p] = 0;
      return metres;
    });
  }

  all(): void {
    const { rounds, problem } = this;
    const waiting = new Map([...problem.orders.keys()].map((order) => [order, this.choice(order)]));
    while (waiting.size > 0) {
      let [next, most] = [-1, -Infinity];
      for (const [order, { first, second }] of waiting) if (second - first > most) [next, most] = [order, second - first];
      const choice = waiting.get(next);
      if (!choice) return;
      waiting.delete(next);
      const round = choice.round ?? rounds.open();
      rounds.change(round, next, 1);
      round.metres = choice.round ? round.metres + choice.first : (this.alone[next] ?? 0);
      for (const [order, old] of waiting)
        if (old.round === round || (rounds.fits(round, order) && this.guess(order, round) < old.first))
          waiting.set(order, this.choice(order));
    }
  }

  /** Metres of floor that an order goes to and a round does not. */
  private guess(order: number, { onRun }: Round): number {
    let sum = 0;
    for (const run of this.rounds.runsOf[order] ?? NO_RUNS) if (onRun[run] === 0) sum += this.problem.meter.length[run] as number;
    return sum;
  }

  private added(order: number, round: Round): number {
    const known = this.known[order]?.get(round);
    if (known?.size === round.orders.length) return known.more;
    const { rounds, problem } = this;
    rounds.change(round, order, 1);
    const more = problem.meter.metres(round.wanted) - round.metres;
    rounds.change(round, order, -1);
    this.known[order]?.set(round, { size: round.orders.length, more });
    return more;
  }

  private choice(order: number): Choice {
    const seems = this.rounds.list.filter((r) => this.rounds.fits(r, order)).map((round) => ({ round, guess: this.guess(order, round) }));
    if (seems.length > MEASURED) seems.sort((a, b) => a.guess - b.guess);
    const choice: Choice = { round: null, first: this.alone[order] ?? 0, second: 2 * (this.alone[order] ?? 0) };
    for (const { round } of seems.slice(0, MEASURED)) {
      const more = this.added(order, round);
      if (more < choice.first) [choice.round, choice.first, choice.second] = [round, more, choice.first];
      else if (more < choice.second) choice.second = more;
    }
    return choice;
  }
}
