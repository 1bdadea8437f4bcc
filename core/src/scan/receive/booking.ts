import { inPacks } from '../../quantity/index.js';
import { accepted } from '../feedback.js';
import type { Moment } from '../flow.js';
import { isFor } from '../../places/index.js';
import type { PlaceFacts, Step } from '../types.js';
import { startReceive, type DockCommand, type ReceiveCommand, type ReceiveState, type ReceiveTask } from './types.js';

export type Result = Step<ReceiveState, DockCommand>;
export type Now = Moment<ReceiveTask, ReceiveState>;

/** Lets a question go: whoever goes on with something else has answered it. */
export function letGo(state: ReceiveState): ReceiveState {
  return state.question === null ? state : { ...state, question: null };
}

/** Going on with something else answers a question. */
export const letGoAt = (now: Now): Now => ({ ...now, state: letGo(now.state) });

/** The state once goods are booked in or let go: what stays is where goods go, and what is on its way. */
export function emptyHands(state: ReceiveState): ReceiveState {
  return { ...startReceive, to: state.to, tied: state.tied, pending: state.pending };
}

/** Units as the pad shows them: in packs, largest first. */
export function packCounts(units: number, packs: Parameters<typeof inPacks>[1]): Record<number, number> {
  return Object.fromEntries(inPacks(units, packs).map(({ pack, count }) => [pack.id, count]));
}

/**
 * Where goods in this state go: damaged ones and those set apart to the place for that, and where the site has none they stay at
 * the dock; others to the bin or the dock.
 */
export function destination(task: ReceiveTask, state: Pick<ReceiveState, 'to' | 'condition' | 'hand'>): PlaceFacts {
  const aside = state.hand?.as === 'apart' || state.condition === 'damaged';
  if (aside) return task.apart ?? task.dock;
  return placeOf(task, state.to, state.hand ? [state.hand.itemId] : []);
}

/** Where good goods go: those that must be looked at stay off the shelves until they have passed. */
export function placeOf(task: ReceiveTask, to: PlaceFacts | null, items: readonly number[]): PlaceFacts {
  const place = to ?? task.dock;
  const waits = items.some((id) => Object.hasOwn(task.inspect, id));
  return waits && (to === null || isFor(place.kind, 'shelf')) ? (task.inspection ?? task.dock) : place;
}

/** Sends a command on its way and empties the hands. `why` is the reason to look at the goods first. */
export function post(state: ReceiveState, command: ReceiveCommand, name: string, words: string, to: string, why?: string): Result {
  const aside = command.as === 'apart' ? ', set apart' : command.condition === 'damaged' ? ', damaged' : '';
  return {
    state: emptyHands(state),
    feedback: accepted(words, `${name}${aside}, to ${to}${why && aside === '' ? ` to be looked at: ${why}` : ''}`),
    commands: [command],
  };
}

/** Goes on with the next goods once those before are booked in; where they raise a question, that comes first. */
export function thenOn(before: Result, now: Now, next: (now: Now) => Result): Result {
  if (before.commands.every((c) => c.kind === 'refused')) return before;
  const posted = before.commands.filter((c) => c.kind !== 'refused');
  const after = next({ ...now, state: { ...before.state, pending: [...before.state.pending, ...posted] } });
  const said = after.feedback && before.feedback ? { ...after.feedback, detail: `${before.feedback.title} booked in. ${after.feedback.detail}` } : after.feedback; // prettier-ignore
  return {
    ...after,
    ...(said ? { feedback: said } : {}),
    state: { ...after.state, pending: before.state.pending },
    commands: [...before.commands, ...after.commands],
  };
}
