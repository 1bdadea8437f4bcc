import type { ItemId, LotId, OrderId, PlaceId, SiteId, StopId } from '../ids/index.js';
import type { FlowState } from './flow.js';
import type { SpareGoods } from './pack-task.js';
import type { How } from './types.js';

/** Another lot of the same goods in the same bin, held for nobody. */
export interface OtherLot {
  lotId: LotId;
  lot: string;
  units: number;
}

/** One thing to take from one bin for one order. Units are base units. */
export interface PickStop {
  id: StopId;
  orderId: OrderId;
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
  /** Who goes there, where it is somebody else; absent where it is this person or nobody yet. */
  by?: string;
  /** Other lots that lie there too, which may be taken for a reason; absent where there are none. */
  others?: readonly OtherLot[];
}

/** One order of a round. */
export interface PickOrder {
  id: OrderId;
  code: string;
  customer: string;
  note: string | null;
  /** The totes that its goods go into, the one in use last; none until it has one. */
  toteIds: readonly PlaceId[];
}

/** A cart of the site, with the totes that stand on it. */
export interface PickCart {
  placeId: PlaceId;
  toteIds: readonly PlaceId[];
  /** Why this round may not be walked with it, in words; absent where it may. */
  taken?: string;
}

/** Whom the goods of a pooled round are picked for: all of its orders together, as if they were one. */
export const ALL_ORDERS: OrderId = 0;

export interface PickTask {
  round: string;
  /** Waiting, picking, set-down or done. */
  state: string;
  /** Who walks it; null while nobody does. */
  picker: string | null;
  siteId: SiteId;
  /** Whether its orders share totes and are sorted at a wall afterwards; absent: no. */
  pooled?: boolean;
  /** The orders of the round, each of which has totes of its own; of a pooled one `ALL_ORDERS` alone. */
  orders: readonly PickOrder[];
  stops: readonly PickStop[];
  /** The totes that are in use on other rounds. */
  busyToteIds: readonly PlaceId[];
  /** The carts of the site; absent where it has none. */
  carts?: readonly PickCart[];
  /** The cart that it is walked with; absent or null while there is none. */
  cartId?: PlaceId | null;
  /** Whether goods leave a bin only once its code was scanned; absent: no. */
  mustScanBin?: boolean;
  /** Whether, of several totes, the right one is scanned each time; absent: no. */
  mustScanTote?: boolean;
  /** Whether each piece is scanned and no number keyed; absent: no. */
  scansEach?: boolean;
  /** What lies in its totes and is wanted no longer; absent where nothing is. */
  spare?: readonly SpareGoods[];
}

/** Puts a person's name on a round: one that waits, or one that a colleague leaves. */
export interface TakeCommand {
  kind: 'take';
  id: string;
  round: string;
}

/** Takes over half of what is ahead of whoever has most of a round still to walk. */
export interface HelpCommand {
  kind: 'help';
  id: string;
  round: string;
}

/** Walks a round with a cart from now on: its totes stand there, and those that are free are tied to orders that have none. */
export interface CartCommand {
  kind: 'cart';
  id: string;
  round: string;
  cartPlaceId: PlaceId;
  /** The totes as the phone saw them stand there, each with the order that it is for. */
  totes: { orderId: OrderId; totePlaceId: PlaceId }[];
}

/** Ties a tote to an order of a round. A round that waits is begun with it, in the person's name. */
export interface ToteCommand {
  kind: 'tote';
  id: string;
  round: string;
  orderId: OrderId;
  totePlaceId: PlaceId;
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
  /** Why another lot is taken than the one that was due; absent where it is that one. */
  passedOver?: string;
  how: How;
}

/** Fewer are there than a stop wants. */
export interface ShortCommand {
  kind: 'short';
  id: string;
  round: string;
  stopId: StopId;
  /** The units that are missing of those that the stop wants. */
  units: number;
  /** The units that somebody has seen there. */
  there: number;
}

/** The finished totes set down where the next person finds them. */
export interface SetDownCommand {
  kind: 'set-down';
  id: string;
  round: string;
  placeId: PlaceId;
}

/** All that a phone asks for while it picks. */
export type PickCommands = TakeCommand | HelpCommand | CartCommand | ToteCommand | PickCommand | ShortCommand | SetDownCommand;

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
  /** The other lot that it is of, and why the one that was due is passed over: empty until that was said. Absent for the due one. */
  other?: { lotId: LotId; lot: string; reason: string };
}

export interface PickState extends FlowState<PickCommands> {
  /** The stop that the person chose by scanning its bin or goods; null means the next in order. */
  stopId: StopId | null;
  /** The bin that was scanned last: the person stands there, for every stop at it. */
  atBin: PlaceId | null;
  /** Goods seen at one stop and not yet in a tote. */
  hand: Hand | null;
  /** The stop at which too few lie, while the person counts how many are there. */
  asksAt: StopId | null;
  /** The order whose tote is full: it gets the next empty one. */
  fullFor: OrderId | null;
}

export type PickInput =
  | { kind: 'count'; id: string; packId: number; count: number }
  | { kind: 'confirm'; id: string }
  /** The lot or serial number that the person reads on the goods, chosen by key. */
  | { kind: 'lot'; id: string; lot: string }
  /** Why the lot that was due is passed over. */
  | { kind: 'reason'; id: string; reason: string }
  /** `stopId`: the stop that the person was looking at, where a key was pressed. */
  | { kind: 'not-here'; id: string; stopId?: StopId }
  /** How many units are there, where too few are. */
  | { kind: 'there'; id: string; units: number }
  /** From now on this person walks the round. */
  | { kind: 'take'; id: string }
  /** From now on this person walks half of what is ahead of a colleague. */
  | { kind: 'help'; id: string }
  /** The tote of the order at hand holds no more. */
  | { kind: 'full'; id: string };

export const startPick: PickState = { stopId: null, atBin: null, hand: null, asksAt: null, fullFor: null, pending: [] };

/** What a stop still wants, with what this phone has posted and not yet heard back about. */
export function wantedAt(state: Pick<PickState, 'pending'>, stop: PickStop): number {
  const onTheWay = state.pending.reduce((n, c) => n + ((c.kind === 'pick' || c.kind === 'short') && c.stopId === stop.id ? c.units : 0), 0);
  return stop.units - stop.picked - stop.short - onTheWay;
}

/** The stop at hand: that of the goods in hand, else the chosen one while it is open, else the next on this person's walk. */
export function currentStop(task: PickTask, state: PickState): PickStop | undefined {
  const open = task.stops.filter((s) => wantedAt(state, s) > 0);
  return open.find((s) => s.id === state.hand?.stopId) ?? open.find((s) => s.id === state.stopId) ?? open.find((s) => s.by === undefined);
}

/** Open stops to which somebody else goes, on the way or about to. */
export const othersStops = (task: PickTask, state: PickState): PickStop[] =>
  task.stops.filter((s) => s.by !== undefined && wantedAt(state, s) > 0);

export const isAtBin = (state: PickState, stop: PickStop | undefined): boolean => stop !== undefined && state.atBin === stop.placeId;

/** Whether what is in hand may go into the tote: all of it from a bin that was scanned, where that is asked for. */
export const isFrom = (task: PickTask, state: PickState, stop: PickStop): boolean => !task.mustScanBin || isAtBin(state, stop);

/** Whether the lot of what is in hand is known and not taken for granted: it was scanned or chosen, or the goods have none. */
export const isLotSeen = (state: PickState, stop: PickStop): boolean =>
  stop.lot === null || (state.hand?.stopId === stop.id && state.hand.lotSeen);

/** Whether another lot is in hand than the one that was due, and nobody has said why yet. */
export const asksReason = (state: Pick<PickState, 'hand'>): boolean => state.hand?.other?.reason === '';

/** Units in hand at the stop; nought while nothing was scanned there. */
export const inHandAt = (state: PickState, stop: PickStop | undefined): number =>
  stop && state.hand?.stopId === stop.id ? state.hand.units : 0;

/** Whether its totes are set down, here or on its way to be known. */
export const isSetDown = (task: PickTask, state: Pick<PickState, 'pending'>): boolean =>
  task.state === 'set-down' || task.state === 'done' || state.pending.some((c) => c.kind === 'set-down');

/** Whether it ended with nothing in its totes: recalled, or cancelled before anything was picked. */
export const isEmptyRound = (task: PickTask, state: Pick<PickState, 'pending'>): boolean =>
  isSetDown(task, state) && task.stops.every((s) => s.picked === 0) && state.pending.every((c) => c.kind !== 'pick');
