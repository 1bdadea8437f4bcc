import { after, slotsOf, type State, type Step, WHOLE } from './frontier.js';
import type { Walked } from './stretches.js';

/** No walk can come of it. */
export const NONE = -1;
const UNKNOWN = -2;
const WAYS = 6;

/**
 * What states become, worked out once and remembered: floors repeat themselves, aisle by aisle and walk by walk, and a state is then
 * a small number that leads to another.
 */
export class Transitions {
  private readonly ids = new Map<State, number>();
  private readonly states: { state: State; slots: Uint8Array }[] = [];
  private readonly patterns = new Map<string, number>();
  /** By pattern: for each state and way the next state. */
  private readonly next: Int32Array[] = [];
  readonly whole: number;

  constructor(private readonly width: number) {
    this.whole = this.idOf(WHOLE);
  }

  get count(): number {
    return this.states.length;
  }

  idOf(state: State): number {
    const known = this.ids.get(state);
    if (known !== undefined) return known;
    const id = this.states.length;
    this.ids.set(state, id);
    this.states.push({ state, slots: slotsOf(state, this.width) });
    return id;
  }

  /** Steps that open and close the same nodes in the same slots do the same to a state. */
  patternOf({ a, b, opens, closes }: Step, whole: boolean): number {
    const words = [
      a,
      b,
      whole ? 1 : 0,
      ...opens.flatMap((o) => ['o', o.slot, o.reached ? 1 : 0]),
      ...closes.flatMap((c) => ['c', c.slot, c.odd ? 1 : 0, c.must ? 1 : 0]),
    ];
    const key = words.join();
    const known = this.patterns.get(key);
    if (known !== undefined) return known;
    this.patterns.set(key, this.next.length);
    this.next.push(new Int32Array(0));
    return this.next.length - 1;
  }

  /** The state behind a step; `NONE` where there is none. */
  after(pattern: number, id: number, step: Step, walked: Walked, whole: boolean): number {
    const at = id * WAYS + walked;
    let table = this.next[pattern] ?? new Int32Array(0);
    if (at >= table.length) {
      const larger = new Int32Array(Math.max(256 * WAYS, 2 * at)).fill(UNKNOWN);
      larger.set(table);
      this.next[pattern] = table = larger;
    }
    const known = table[at] ?? UNKNOWN;
    if (known !== UNKNOWN) return known;
    const from = this.states[id];
    const state = from ? after(from.state, from.slots, step, walked, this.width, whole) : null;
    const then = state === null ? NONE : this.idOf(state);
    table[at] = then;
    return then;
  }
}
