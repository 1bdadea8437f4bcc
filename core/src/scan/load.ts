import { normalCode } from '../barcode/index.js';
import { accepted, refuse, stay, unknownCode } from './feedback.js';
import { flowOf, type Moment } from './flow.js';
import {
  checkLoad,
  forThisVan,
  isEarly,
  type LoadCommands,
  type LoadInput,
  type LoadParcel,
  type LoadState,
  type LoadTask,
  laneNow,
  startLoad,
} from './load-task.js';
import type { Refusal, Step } from './types.js';

type Now = Moment<LoadTask, LoadState>;
type Result = Step<LoadState, LoadCommands>;

/** Loading a van: scan each parcel as it goes through the door; who signs for them takes them. */
export const load = flowOf<LoadTask, LoadState, LoadInput, LoadCommands>({
  kind: 'load',
  start: startLoad,
  owns: ['load', 'unload', 'hand-over'],
  emptied: (state) => ({ ...startLoad, pending: state.pending }),
  strays: () => null,
  // A tracking number can look like the number of some goods.
  item: (now, { item }) =>
    onCode(now, normalCode(now.code ?? '')) ?? refuse(now.state, notThis(item.name, 'Scan the label of the parcel, not the goods'), now),
  place: (now, place) =>
    place.code === now.task.lane
      ? stay(now.state, accepted(now.task.carrierName, leftWords(now)))
      : refuse(now.state, notThis(place.code, `This is the van of ${now.task.carrierName}, lane ${now.task.lane}`), now),
  pallet: (now, sscc) => onCode(now, sscc) ?? refuse(now.state, unknownCode(sscc), now),
  unknown: (now, code) => onCode(now, code),
  cards: { take: onTakeAlong },
  inputs: {
    all: onAll,
    'take-along': onTakeAlong,
    off: onOff,
    'hand-over': onHandOver,
  },
});

const notThis = (title: string, detail: string): Refusal => ({ band: 'not-this', title, detail });
const parcels = (n: number): string => `${n} ${n === 1 ? 'parcel' : 'parcels'}`;
const isNamed = (p: { code: string; tracking: string | null }, code: string): boolean =>
  p.code === code || p.tracking?.toUpperCase() === code;

function leftWords({ task, state }: Now): string {
  const left = forThisVan(task, state).length;
  return left === 0 ? 'All that may go is loaded' : `${parcels(left)} to load`;
}

/** A parcel's own code, its tracking number, or its order's where that has one parcel only. */
function onCode(now: Now, code: string): Result | undefined {
  const { task, state } = now;
  const here = laneNow(task, state);
  const parcel = here.find((p) => isNamed(p, code));
  if (parcel) return onParcel(now, parcel);
  const ofOrder = here.filter((p) => p.order === code);
  if (ofOrder[0] && ofOrder.length === 1) return onParcel(now, ofOrder[0]);
  if (ofOrder.length > 1) return refuse(state, notThis(code, `It has ${parcels(ofOrder.length)}. Scan the label of each`), now);
  const other = task.elsewhere.find((p) => isNamed(p, code));
  if (other) return refuse(state, notThis(other.code, `It goes with ${other.carrierName}: lane ${other.lane}`), now);
  if (task.parcels.some((p) => isNamed(p, code))) return refuse(state, notThis(code, 'It was handed over already'), now);
  return undefined;
}

function onParcel(now: Now, parcel: LoadParcel): Result {
  const { task, state } = now;
  const refusal = checkLoad(parcel);
  if (refusal) return refuse(state, refusal, now);
  if (isEarly(parcel.leavesAt, task.van) && state.early !== parcel.code)
    return refuse(
      { ...state, early: parcel.code },
      notThis(parcel.code, 'It is meant for a later van. Scan it again to take it along now'),
      now,
    );
  return onto(now, [parcel], isEarly(parcel.leavesAt, task.van));
}

function onTakeAlong(now: Now): Result {
  const parcel = laneNow(now.task, now.state).find((p) => p.code === now.state.early);
  if (!parcel) return refuse(now.state, notThis('Nothing to take along', 'Scan a parcel first'), now);
  const refusal = checkLoad(parcel);
  return refusal ? refuse(now.state, refusal, now) : onto(now, [parcel], true);
}

function onAll(now: Now): Result {
  const all = forThisVan(now.task, now.state);
  if (all.length === 0) return refuse(now.state, notThis('Nothing to load', 'All that may go with this van is on it'), now);
  return onto(now, all, false);
}

function onto({ task, state, id, how }: Now, loaded: readonly LoadParcel[], early: boolean): Result {
  const codes = loaded.map((p) => p.code);
  const left = forThisVan(task, state).filter((p) => !codes.includes(p.code)).length;
  const [one] = loaded;
  return {
    state: { ...state, early: null },
    feedback: accepted(
      loaded.length === 1 && one ? one.code : parcels(loaded.length),
      `${loaded.length === 1 && one ? one.customer : 'on the van'}, ${left === 0 ? 'that is all' : `${left} more`}`,
    ),
    commands: [{ kind: 'load', id, siteId: task.siteId, carrier: task.carrier, parcels: codes, early, how }],
  };
}

function onOff({ task, state, id }: Now, { parcel }: Extract<LoadInput, { kind: 'off' }>): Result {
  const found = laneNow(task, state).find((p) => p.code === parcel && p.loaded);
  if (!found) return stay(state);
  return {
    state: { ...state, early: null },
    feedback: accepted(`${parcel} off the van`, `Back to lane ${task.lane}`),
    commands: [{ kind: 'unload', id, siteId: task.siteId, carrier: task.carrier, parcel }],
  };
}

function onHandOver(now: Now, input: Extract<LoadInput, { kind: 'hand-over' }>): Result {
  const { task, state, id } = now;
  const loaded = laneNow(task, state).filter((p) => p.loaded);
  if (loaded.length === 0) return refuse(state, notThis('Nothing is loaded', 'Scan parcels onto the van, or load all of them'), now);
  const driver = input.driver.trim();
  if (!driver) return refuse(state, notThis('Who takes them?', 'Write the driver’s name'), now);
  return {
    state: { ...state, early: null },
    feedback: accepted(`${parcels(loaded.length)} handed over`, `to ${driver}, ${task.carrierName}`),
    commands: [
      {
        kind: 'hand-over',
        id,
        siteId: task.siteId,
        carrier: task.carrier,
        parcels: loaded.map((p) => p.code),
        driver,
        signature: input.signature,
      },
    ],
  };
}
