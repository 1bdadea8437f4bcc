import type { ItemId, LotId, PlaceId, SiteId, StopId } from '../ids/index.js';
import type { FlowState } from './flow.js';
import type { SpareGoods } from './pack.js';
import type { How } from './types.js';

/** One thing to take from one bin. Units are base units. */
export interface PickStop {
  id: StopId;
  itemId: ItemId;
  lotId: LotId;
  lot: string | null;
  placeId: PlaceId;
  placeCode: string;
  units: number;
  picked: number;
  short: number;
  /** Metres from the stop before. */
  metres: number;
}

export interface PickTask {
  round: string;
  /** Waiting, picking, set-down or done. */
  state: string;
  order: string;
  customer: string;
  siteId: SiteId;
  note: string | null;
  stops: readonly PickStop[];
  /** The tote already in use on this round, and those that are in use elsewhere. */
  toteId: PlaceId | null;
  busyToteIds: readonly PlaceId[];
  /** Whether goods leave a bin only once its code was scanned; absent: no. */
  mustScanBin?: boolean;
  /** Whether each piece is scanned and no number keyed; absent: no. */
  scansEach?: boolean;
  /** What lies in its totes and is wanted no longer; absent where nothing is. */
  spare?: readonly SpareGoods[];
}

/** Puts a person's name on a round that waits. */
export interface TakeCommand {
  kind: 'take';
  id: string;
  round: string;
}

/** Goods from a stop into a tote. It names the goods as the phone saw them, so that a stop that changed meanwhile is refused. */
export interface PickCommand {
  kind: 'pick';
  id: string;
  round: string;
  stopId: StopId;
  itemId: ItemId;
  lotId: LotId;
  fromPlaceId: PlaceId;
  units: number;
  totePlaceId: PlaceId;
  how: How;
}

export interface ShortCommand {
  kind: 'short';
  id: string;
  round: string;
  stopId: StopId;
  units: number;
}

/** The finished tote set down where the next person finds it. */
export interface SetDownCommand {
  kind: 'set-down';
  id: string;
  round: string;
  placeId: PlaceId;
}

/** Goods in hand: `units` in all, of which `before` were counted in other packs than the one that is counted now. */
export interface Hand {
  stopId: StopId;
  units: number;
  how: How;
  packId: number;
  before: number;
  /** Whether a number was keyed for the pack; a scan behind it counts on. */
  keyed: boolean;
  /** Whether its lot or serial number was scanned or chosen; true where goods have none. */
  lotSeen: boolean;
}

export interface PickState extends FlowState<TakeCommand | PickCommand | ShortCommand | SetDownCommand> {
  toteId: PlaceId | null;
  /** The stop that the person chose by scanning its bin or goods; null means the next in order. */
  stopId: StopId | null;
  /** The bin that was scanned last: the person stands there, for every stop at it. */
  atBin: PlaceId | null;
  /** Goods seen at one stop and not yet in a tote. */
  hand: Hand | null;
}

export type PickInput =
  | { kind: 'count'; id: string; packId: number; count: number }
  | { kind: 'confirm'; id: string }
  /** The lot or serial number that the person reads on the goods, chosen by key. */
  | { kind: 'lot'; id: string; lot: string }
  /** `stopId`: the stop that the person was looking at, where a key was pressed. */
  | { kind: 'not-here'; id: string; stopId?: StopId };

export const startPick: PickState = { toteId: null, stopId: null, atBin: null, hand: null, pending: [] };

/** What a stop still wants, with what this phone has posted and not yet heard back about. */
export function wantedAt(state: Pick<PickState, 'pending'>, stop: PickStop): number {
  const onTheWay = state.pending.reduce((n, c) => n + ((c.kind === 'pick' || c.kind === 'short') && c.stopId === stop.id ? c.units : 0), 0);
  return stop.units - stop.picked - stop.short - onTheWay;
}

/** The stop at hand: that of the goods in hand, else the chosen one while it is open, else the next on the walk. */
export function currentStop(task: PickTask, state: PickState): PickStop | undefined {
  const open = task.stops.filter((s) => wantedAt(state, s) > 0);
  return open.find((s) => s.id === state.hand?.stopId) ?? open.find((s) => s.id === state.stopId) ?? open[0];
}

export const isAtBin = (state: PickState, stop: PickStop | undefined): boolean => stop !== undefined && state.atBin === stop.placeId;

/** Whether what is in hand may go into the tote: all of it from a bin that was scanned, where that is asked for. */
export const isFrom = (task: PickTask, state: PickState, stop: PickStop): boolean => !task.mustScanBin || isAtBin(state, stop);

/** Whether the lot of what is in hand is known and not taken for granted: it was scanned or chosen, or the goods have none. */
export const isLotSeen = (state: PickState, stop: PickStop): boolean =>
  stop.lot === null || (state.hand?.stopId === stop.id && state.hand.lotSeen);

/** Units in hand at the stop; nought while nothing was scanned there. */
export const inHandAt = (state: PickState, stop: PickStop | undefined): number =>
  stop && state.hand?.stopId === stop.id ? state.hand.units : 0;

/** The tote that goods go into: the one scanned, else the one that the round uses, known here or on its way there. */
export function currentTote(task: PickTask, state: PickState): PlaceId | null {
  const sent = state.pending.find((c) => c.kind === 'pick');
  return state.toteId ?? task.toteId ?? sent?.totePlaceId ?? null;
}

/** Whether the tote is set down, here or on its way to be known. */
export const isSetDown = (task: PickTask, state: Pick<PickState, 'pending'>): boolean =>
  task.state === 'set-down' || task.state === 'done' || state.pending.some((c) => c.kind === 'set-down');

/** Whether it ended with nothing in its tote: recalled, or cancelled before anything was picked. */
export const isEmptyRound = (task: PickTask, state: Pick<PickState, 'pending'>): boolean =>
  isSetDown(task, state) && task.stops.every((s) => s.picked === 0) && state.pending.every((c) => c.kind !== 'pick');
