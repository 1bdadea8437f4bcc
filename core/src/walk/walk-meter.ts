import { MOST_OPEN, NOTHING, planOf, type Step } from './frontier.js';
import { edgesAt, type WalkEdge, waysFrom } from './graph.js';
import type { OnFloor, WalkFloor } from './route.js';
import { type Stretch, WALKED } from './stretches.js';
import { NONE, Transitions } from './transitions.js';

/** One step of the measuring: which places lie on its stretch, and how each state leads on. */
interface Gauge {
  length: number;
  /** Places by their index, nearest to the stretch's beginning first, and how far from it they are. */
  places: Int32Array;
  offsets: Float64Array;
  /** From which state to which; states are numbered within their step. The ways of walking follow each other, each up to its `until`. */
  from: Int32Array;
  to: Int32Array;
  until: Int32Array;
  states: number;
}

/** So many ways on in all, at most: beyond them a measurement would take longer than half a millisecond. */
const MOST_WAYS = 300_000;
const WAYS = 6;

/** Joins runs without a fork, and keeps every dead end, since each place may be wanted. Only what can be reached from the start is kept. */
function runsOf(floor: WalkFloor, start: number, end: number): Stretch[] {
  const at = edgesAt(floor);
  const { metres } = waysFrom(floor, at, start);
  const isFork = (node: number) => node === start || node === end || at[node]?.length !== 2 || isLoop(node);
  const isLoop = (node: number) => (at[node] ?? []).some((e) => floor.edges[e]?.a === floor.edges[e]?.b);
  const done = new Set<number>();
  const runs: Stretch[] = [];
  for (const [e, edge] of floor.edges.entries()) {
    if (done.has(e) || metres[edge.a] === Infinity) continue;
    // Back to the fork where the run begins, or all the way round a ring without one.
    let [first, node] = [e, edge.a];
    const seen = new Set([e]);
    while (!isFork(node)) {
      const back = (at[node] ?? []).find((other) => other !== first);
      if (back === undefined || seen.has(back)) break;
      seen.add(back);
      first = back;
      node = otherEnd(floor.edges[back], node);
    }
    const run: Stretch = { a: node, b: node, length: 0, stops: [], pieces: [] };
    for (let next: number | undefined = first; next !== undefined && !done.has(next);) {
      done.add(next);
      run.length += floor.edges[next]?.length ?? 0;
      run.pieces.push({ edge: next, to: run.length });
      run.b = otherEnd(floor.edges[next], run.b);
      const came: number = next;
      next = isFork(run.b) ? undefined : (at[run.b] ?? []).find((other) => other !== came);
    }
    runs.push(run);
  }
  return runs;
}

const otherEnd = (edge: WalkEdge | undefined, node: number) => (!edge ? node : edge.a === node ? edge.b : edge.a);

/** Where on a run something on one of its edges is. */
function along(run: Stretch, floor: WalkFloor, { edge, offset }: OnFloor): number {
  let node = run.a;
  let from = 0;
  for (const piece of run.pieces) {
    const e = floor.edges[piece.edge];
    if (piece.edge === edge) return from + (e?.a === node ? offset : piece.to - from - offset);
    node = otherEnd(e, node);
    from = piece.to;
  }
  return 0;
}

/**
 * Measures shortest walks from one node to another through many sets of the same places: what the floor decides is worked out once, and
 * a measurement then takes some ten microseconds on a floor with three cross aisles. Exact, for the same reason as `shortestRoute`.
 */
export class WalkMeter {
  /** Metres from the start to the end. */
  private readonly through: number;
  /** What one measurement takes, in steps of a few nanoseconds. */
  readonly work: number;
  private now = new Float64Array(1);
  private then = new Float64Array(1);

  constructor(
    private readonly gauges: readonly Gauge[],
    through: number,
    states: number,
  ) {
    this.through = through;
    this.work = gauges.reduce((sum, g) => sum + g.from.length + g.places.length, 1);
    this.now = new Float64Array(states);
    this.then = new Float64Array(states);
  }

  /** A meter for these places; null where the floor is too tangled to be measured fast, with more than `most` ways on. Every place can be reached. */
  static of(floor: WalkFloor, places: readonly OnFloor[], start: number, end: number, most = MOST_WAYS): WalkMeter | null {
    return WalkMaker.of(floor, start, end, most)?.meter(places) ?? null;
  }

  /** For each place the run of floor that it is on, and the metres of each run. */
  runs(places: number): { runOf: Int32Array; length: Float64Array } {
    const runOf = new Int32Array(places);
    this.gauges.forEach((g, run) => {
      for (const place of g.places) runOf[place] = run;
    });
    return { runOf, length: Float64Array.from(this.gauges, (g) => g.length) };
  }

  /** Metres of the shortest walk through the places of which `wanted` has more than nought. */
  metres(wanted: ArrayLike<number>): number {
    let { now, then } = this;
    now[0] = 0;
    let isWanted = false;
    for (const gauge of this.gauges) {
      const { length, places, offsets, from, to, until, states } = gauge;
      // How far the first and the last are, and the widest gap between two that follow each other.
      let first = -1;
      let last = 0;
      let gap = 0;
      for (let i = 0; i < places.length; i++) {
        if (wanted[places[i] as number] === 0) continue;
        const offset = offsets[i] as number;
        if (first < 0) first = offset;
        else if (offset - last > gap) gap = offset - last;
        last = offset;
      }
      const has = first >= 0;
      isWanted ||= has;
      costs[WALKED.not] = has ? Infinity : 0;
      costs[WALKED.once] = length;
      costs[WALKED.twice] = 2 * length;
      costs[WALKED.fromA] = has ? 2 * last : Infinity;
      costs[WALKED.fromB] = has ? 2 * (length - first) : Infinity;
      costs[WALKED.fromBoth] = gap > 0 ? 2 * (length - gap) : Infinity;
      then.fill(Infinity, 0, states);
      let t = 0;
      for (let way = 0; way < WAYS; way++) {
        const cost = costs[way] as number;
        const end = until[way] as number;
        if (cost === Infinity) {
          t = end;
          continue;
        }
        for (; t < end; t++) {
          const metres = (now[from[t] as number] as number) + cost;
          const target = to[t] as number;
          if (metres < (then[target] as number)) then[target] = metres;
        }
      }
      [now, then] = [then, now];
    }
    return isWanted ? (now[0] ?? Infinity) : this.through;
  }
}
const costs = new Float64Array(WAYS);

/** What a floor decides for all walks from one node to another, worked out once: makes meters for places on it. */
export class WalkMaker {
  private readonly runOf: ReadonlyMap<number, number>;

  private constructor(
    private readonly floor: WalkFloor,
    private readonly steps: readonly Step[],
    private readonly gauges: readonly Gauge[],
    private readonly through: number,
  ) {
    this.runOf = new Map(steps.flatMap(({ stretch }, i) => stretch.pieces.map((p) => [p.edge, i] as const)));
  }

  /** Null where the floor is too tangled, with more than `most` ways on. */
  static of(floor: WalkFloor, start: number, end: number, most = MOST_WAYS): WalkMaker | null {
    const runs = runsOf(floor, start, end);
    const { steps, width } = planOf(runs, new Set(), [start, end], floor.place);
    const through = waysFrom(floor, edgesAt(floor), start).metres[end] ?? Infinity;
    if (steps.length > 0 && (width > MOST_OPEN || steps.length < runs.length)) return null;
    const gauges = compiled(steps, width, most);
    return gauges && new WalkMaker(floor, steps, gauges, through);
  }

  meter(places: readonly OnFloor[]): WalkMeter {
    const lying: { place: number; offset: number }[][] = this.steps.map(() => []);
    places.forEach((p, place) => {
      const i = this.runOf.get(p.edge);
      const stretch = i === undefined ? undefined : this.steps[i]?.stretch;
      if (i !== undefined && stretch) lying[i]?.push({ place, offset: along(stretch, this.floor, p) });
    });
    const gauges = this.gauges.map((gauge, i) => {
      const on = (lying[i] ?? []).sort((p, q) => p.offset - q.offset || p.place - q.place);
      return { ...gauge, places: Int32Array.from(on, (p) => p.place), offsets: Float64Array.from(on, (p) => p.offset) };
    });
    return new WalkMeter(gauges, this.through, Math.max(1, ...gauges.map((g) => g.states)));
  }
}

/** All states of each step and the ways between them. */
function compiled(steps: readonly Step[], width: number, most: number): Gauge[] | null {
  const transitions = new Transitions(width);
  const reachedLater = steps.map((_, i) => steps.slice(i + 1).some((s) => s.opens.some((o) => o.reached)));
  const gauges: Gauge[] = [];
  let states = [transitions.idOf(NOTHING)];
  let all = 0;
  for (const [i, step] of steps.entries()) {
    const whole = !reachedLater[i];
    const pattern = transitions.patternOf(step, whole);
    const number = new Map<number, number>();
    // Behind the last step only what is whole counts.
    if (i === steps.length - 1) number.set(transitions.whole, 0);
    const [from, to, until]: [number[], number[], number[]] = [[], [], []];
    for (const way of Object.values(WALKED)) {
      states.forEach((id, n) => {
        const after = transitions.after(pattern, id, step, way, whole);
        if (after === NONE) return;
        if (!number.has(after)) number.set(after, number.size);
        from.push(n);
        to.push(number.get(after) ?? 0);
      });
      until[way] = from.length;
    }
    all += from.length;
    if (all > most) return null;
    gauges.push({
      length: step.stretch.length,
      places: new Int32Array(0),
      offsets: new Float64Array(0),
      from: Int32Array.from(from),
      to: Int32Array.from(to),
      until: Int32Array.from(until),
      states: number.size,
    });
    states = [...number.keys()];
  }
  return gauges;
}
