import { lotWords } from '@vectrum/core/quantity';
import {
  asksReason,
  cartOf,
  currentStop,
  hasBegun,
  inHandAt,
  isAtBin,
  isLotSeen,
  isSetDown,
  isToteKnown,
  othersStops,
  type PickOrder,
  type PickState,
  type PickStop,
  type PickTask,
  toteless,
  toteOf,
  wantedAt,
} from '@vectrum/core/scan';

/** Where somebody stands in a round: what they have, and what comes next. */
export interface Here {
  stop: PickStop | undefined;
  order: PickOrder | undefined;
  tote: number | undefined;
  atBin: boolean;
  inHand: number;
  /** The lot of what is in hand, else the one that is due. */
  lot: string | null;
  setDown: boolean;
  /** Whether a number may be keyed for what is in hand. */
  mayKey: boolean;
  /** Whether the lot or serial number of what is in hand is still to be seen. */
  wantsLot: boolean;
  /** Whether another lot is in hand than the one that is due, and nobody has said why. */
  asksWhy: boolean;
  /** Whether the tote is the next thing to scan for what is in hand. */
  wantsTote: boolean;
  /** How many are there is being counted. */
  asksThere: boolean;
  /** Stops of the round to which somebody else goes. */
  others: PickStop[];
  /** Whether a cart of the site could bring the totes. */
  mayCart: boolean;
  /** The order that the next empty tote is for, where one is wanted before anything else. */
  toTie: PickOrder | undefined;
}

/** `scanEach`: whether each piece of an item is scanned. */
export function hereOf(task: PickTask, state: PickState, scanEach: (itemId: number) => boolean): Here {
  const stop = currentStop(task, state);
  const inHand = inHandAt(state, stop);
  const atBin = isAtBin(state, stop);
  const wanted = stop ? wantedAt(state, stop) : 0;
  const isSeen = stop !== undefined && (atBin || !task.mustScanBin) && isLotSeen(state, stop);
  // Before the walk every order gets its tote; later only the one at hand.
  const next = stop && toteless(task, state, stop);
  const toTie = next && (!hasBegun(task, state) || next.id === stop.orderId) ? next : undefined;
  return {
    stop,
    order: task.orders.find((o) => o.id === stop?.orderId),
    tote: stop && toteOf(task, state, stop.orderId),
    atBin,
    inHand,
    lot: (inHand > 0 ? state.hand?.other?.lot : undefined) ?? stop?.lot ?? null,
    setDown: isSetDown(task, state),
    mayKey:
      inHand > 0 &&
      !asksReason(state) &&
      (atBin || !task.mustScanBin) &&
      wanted > 1 &&
      inHand < wanted &&
      !task.scansEach &&
      !(stop && scanEach(stop.itemId)),
    wantsLot: stop !== undefined && inHand > 0 && !isLotSeen(state, stop),
    asksWhy: inHand > 0 && asksReason(state),
    wantsTote: stop !== undefined && inHand === wanted && inHand > 0 && isSeen && !isToteKnown(task, state, stop),
    others: othersStops(task, state),
    mayCart: cartOf(task, state) === undefined && !hasBegun(task, state) && task.carts?.some((c) => c.taken === undefined) === true,
    asksThere: stop !== undefined && state.asksAt === stop.id,
    toTie: inHand > 0 ? undefined : toTie,
  };
}

/** What the screen asks for, in a few words. `item`: the goods of the stop. */
export function asked(task: PickTask, here: Here, item?: { tracking: string }): string {
  const { stop, toTie, inHand } = here;
  if (here.setDown) return task.pooled ? 'Set down. Ready to sort' : 'Set down. Ready to pack';
  if (!stop && here.others.length > 0) return task.stops.some((s) => s.by === undefined) ? 'Your part is done' : 'Somebody walks it';
  if (!stop && task.pooled) return 'Set the totes down at the wall';
  if (!stop) return task.orders.length > 1 ? 'Set the totes down' : 'Set the tote down';
  if (here.asksThere) return 'How many are there?';
  if (toTie) {
    const at = task.orders.findIndex((o) => o.id === toTie.id) + 1;
    const first = task.orders.length > 1 ? `tote ${at} of ${task.orders.length}` : 'an empty tote';
    return here.mayCart ? `Scan ${first}, or a cart` : `Scan ${first}`;
  }
  if (here.asksWhy) return `Why not ${lotWords(item, stop.lot)}?`;
  if (here.wantsLot) return `Scan the ${item?.tracking === 'serial' ? 'number' : 'lot'} on it, or choose it`;
  if (inHand > 0 && task.mustScanBin && !here.atBin) return 'Scan its bin too';
  if (here.wantsTote) return here.tote === undefined ? 'Scan an empty tote' : 'Scan the tote';
  if (inHand > 0) return here.mayKey ? 'How many? Or scan on' : 'Scan the next, or the tote';
  return here.atBin ? 'Scan the goods' : 'Scan the bin';
}
