import { MOST_OPEN, NOTHING, type Plan, type Step } from './frontier.js';
import { restBounds } from './rest-bound.js';
import { WALKED, type Walked, waysOf } from './stretches.js';
import { NONE, Transitions } from './transitions.js';

/** A walk as what is done with each stretch, in the order of the plan. */
export interface ExactWalk {
  metres: number;
  walked: Walked[];
}

/** States that a step can lead to, with the fewest metres, and how each is reached: from which entry of the step before, in which way. */
class Layer {
  count = 0;
  ids = new Int32Array(64);
  metres = new Float64Array(64);
  before = new Int32Array(64);
  walked = new Uint8Array(64);

  put(at: number, id: number, metres: number, before: number, walked: Walked): void {
    if (at === this.ids.length) this.grow();
    this.ids[at] = id;
    this.metres[at] = metres;
    this.before[at] = before;
    this.walked[at] = walked;
    if (at === this.count) this.count++;
  }

  private grow(): void {
    const longer = <T extends Int32Array | Float64Array | Uint8Array>(old: T, fresh: T): T => {
      fresh.set(old);
      return fresh;
    };
    const length = 4 * this.ids.length;
    this.ids = longer(this.ids, new Int32Array(length));
    this.metres = longer(this.metres, new Float64Array(length));
    this.before = longer(this.before, new Int32Array(length));
    this.walked = longer(this.walked, new Uint8Array(length));
  }
}

/** For each step whether nothing that must be reached lies behind it. */
function mayEnd(steps: readonly Step[]): boolean[] {
  const may: boolean[] = [];
  let clear = true;
  for (const [i, step] of [...steps.entries()].reverse()) {
    may[i] = clear;
    clear &&= step.stretch.stops.length === 0 && !step.closes.some((c) => c.must) && !step.opens.some((o) => o.reached);
  }
  return may;
}

/**
 * The shortest walk over all that must be reached, by dynamic programming over the stretches: a shortest walk takes none more than twice
 * (Ratliff and Rosenthal 1983, for aisles between two cross aisles; here for any floor whose nodes can be decided on few at a time).
 * `most` is how many entries may be made, `bound` metres that a walk is known to take. Null where that was not enough, or where too
 * many nodes are open at once: then nothing is known.
 */
export function exactWalk({ steps, width }: Plan, most: number, bound: number): ExactWalk | null {
  if (width > MOST_OPEN) return null;
  const rest = restBounds(steps);
  const ends = mayEnd(steps);
  const transitions = new Transitions(width);
  const first = new Layer();
  first.put(0, transitions.idOf(NOTHING), 0, -1, WALKED.not);
  const layers = [first];
  /** Where each state stands in the layer that is being made. */
  let at = new Int32Array(1024);
  let made = 0;
  for (const [i, step] of steps.entries()) {
    const from = layers[i] ?? first;
    const next = new Layer();
    const room = bound - (rest[i + 1] ?? 0) + 1e-7;
    const whole = ends[i] ?? false;
    const pattern = transitions.patternOf(step, whole);
    for (const [walked, add] of waysOf(step.stretch)) {
      for (let n = 0; n < from.count; n++) {
        const all = (from.metres[n] ?? 0) + add;
        if (all > room) continue;
        const then = transitions.after(pattern, from.ids[n] ?? 0, step, walked, whole);
        if (then === NONE) continue;
        if (then >= at.length) {
          const larger = new Int32Array(4 * then);
          larger.set(at);
          at = larger;
        }
        const known = at[then] ?? 0;
        const isKnown = known < next.count && next.ids[known] === then;
        if (isKnown && (next.metres[known] ?? 0) <= all) continue;
        const place = isKnown ? known : next.count;
        at[then] = place;
        next.put(place, then, all, n, walked);
      }
    }
    made += next.count;
    // What will not do is given up early: a floor goes on as it begins, and seldom with less than half of the states that are there now.
    const ahead = i * 5 < steps.length ? made : (made * steps.length) / (i + 1);
    if (made > most || ahead > 1.5 * most || next.count * (steps.length - i - 1) > 2 * most) return null;
    layers.push(next);
  }
  const last = layers.at(-1) ?? first;
  let n = last.ids.subarray(0, last.count).indexOf(transitions.whole);
  if (n < 0) return null;
  const metres = last.metres[n] ?? 0;
  const walked: Walked[] = [];
  for (const layer of layers.slice(1).reverse()) {
    walked.unshift((layer.walked[n] ?? WALKED.not) as Walked);
    n = layer.before[n] ?? 0;
  }
  return { metres, walked };
}
