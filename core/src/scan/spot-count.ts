import type { ItemId, LotId, PlaceId, SiteId } from '../ids/index.js';
import { commaLot, spell } from '../quantity/index.js';
import { accepted, refuse, sentence, stay } from './feedback.js';
import { flowOf, type FlowState, type Moment } from './flow.js';
import type { Meaning } from './resolve.js';
import type { How, ItemFacts, PlaceFacts, Refusal, Step } from './types.js';

/** Goods of one lot in one bin that somebody has to count. What the books have is not said, so that it is not counted from them. */
export interface Spot {
  id: number;
  itemId: ItemId;
  lotId: LotId;
  lot: string | null;
  placeId: PlaceId;
  placeCode: string;
  /** Why it is counted, and who has said so. */
  why: string;
  by: string;
  /** Whether this person has said so: somebody else's eyes are worth more. */
  isOwn: boolean;
}

export interface SpotTask {
  siteId: SiteId;
  /** In the order of a short walk. */
  spots: readonly Spot[];
  metres: number;
}

/** How many units of a spot's goods somebody has counted. It names the goods as the phone saw them. */
export interface CountSpotCommand {
  kind: 'count-spot';
  id: string;
  spotId: number;
  itemId: ItemId;
  lotId: LotId;
  placeId: PlaceId;
  units: number;
  how: How;
}

/** Fewer units lie in a bin than the books have: what is missing is held until somebody has counted. */
export interface ReportSpotCommand {
  kind: 'report-spot';
  id: string;
  itemId: ItemId;
  lotId: LotId;
  placeId: PlaceId;
  /** The units that somebody has seen there. */
  there: number;
  how: How;
}

export interface SpotState extends FlowState<CountSpotCommand> {
  /** The bin that was scanned last. */
  at: PlaceId | null;
  /** The spot of which goods were scanned, and how many so far. */
  hand: { spotId: number; units: number; how: How } | null;
}

export type SpotInput =
  /** So many units are there, keyed. */
  | { kind: 'number'; id: string; units: number }
  /** That is all. */
  | { kind: 'confirm'; id: string };

export const startSpots: SpotState = { at: null, hand: null, pending: [] };

/** The spots that are still to be counted, less those that this phone has. */
export const openSpots = (task: SpotTask, state: Pick<SpotState, 'pending'>): Spot[] =>
  task.spots.filter((s) => !state.pending.some((c) => c.spotId === s.id));

/** The spot at hand: that of the goods in hand, else the first at the bin that was scanned, else the next on the walk. */
export function spotAtHand(task: SpotTask, state: SpotState): Spot | undefined {
  const open = openSpots(task, state);
  return open.find((s) => s.id === state.hand?.spotId) ?? open.find((s) => s.placeId === state.at) ?? open.find((s) => !s.isOwn) ?? open[0];
}

type Result = Step<SpotState, CountSpotCommand>;
type Now = Moment<SpotTask, SpotState>;

const notThis = (title: string, detail: string): Refusal => ({ band: 'not-this', title, detail });

/** Counting a spot: the bin, then each unit scanned, or a number keyed; none, by card or key. */
export const countSpots = flowOf<SpotTask, SpotState, SpotInput, CountSpotCommand>({
  kind: 'count',
  start: startSpots,
  owns: ['count-spot'],
  emptied: (state) => ({ ...state, hand: null }),
  strays({ task, state }) {
    if (!state.hand || task.spots.some((s) => s.id === state.hand?.spotId)) return null;
    return notThis('Counted already', 'Somebody has counted it meanwhile. Go on to the next');
  },
  item: onItem,
  place: onBin,
  cards: { confirm, 'not-here': (now) => onNumber(now, 0) },
  inputs: { number: (now, input) => onNumber(now, input.units), confirm },
});

function onBin({ task, book, state, ...now }: Now, place: PlaceFacts): Result {
  if (state.hand) return refuse(state, notThis(place.code, 'Say how many there are first, or let it go'), now);
  const spot = openSpots(task, state).find((s) => s.placeId === place.id);
  if (!spot) {
    const next = spotAtHand(task, state);
    return refuse(state, notThis(place.code, next ? `Nothing to count here. Go to ${next.placeCode}` : 'Nothing more to count'), now);
  }
  const item = book.items[spot.itemId];
  return stay({ ...state, at: place.id }, accepted(`Bin ${place.code}`, `Count ${item?.name ?? 'the goods'}${commaLot(item, spot.lot)}`));
}

const lotOf = (spot: Spot) => (spot.lot === null ? '' : `, lot ${spot.lot}`);

function onItem({ task, book, state, ...now }: Now, { item, pack, lot }: Extract<Meaning, { kind: 'item' }>): Result {
  const here = openSpots(task, state).filter((s) => s.placeId === state.at);
  const fits = (s: Spot) => s.itemId === item.id && (s.lot === null || lot === null || s.lot === lot);
  const spot = here.find((s) => s.id === state.hand?.spotId) ?? here.find(fits) ?? here[0];
  if (!spot) {
    const next = spotAtHand(task, state);
    return refuse(state, notThis(item.name, next ? `Scan the bin first: ${next.placeCode}` : 'Nothing more to count'), now);
  }
  if (!fits(spot)) {
    const which = spot.itemId === item.id ? `Lot ${lot ?? ''}` : item.name;
    const detail = `Not what is counted here. Count ${book.items[spot.itemId]?.name ?? 'the goods'}${lotOf(spot)}`;
    return refuse(state, notThis(which, detail), now);
  }
  const units = (state.hand?.spotId === spot.id ? state.hand.units : 0) + pack.factor;
  const detail = `${sentence(spell(units, item.packs))} so far. Scan on, key the number, or confirm`;
  return stay({ ...state, hand: { spotId: spot.id, units, how: now.how } }, accepted(item.name, detail));
}

function onNumber({ task, book, state, ...now }: Now, units: number): Result {
  const spot = spotAtHand(task, state);
  if (!spot || !Number.isSafeInteger(units) || units < 0) return stay(state);
  if (state.at !== spot.placeId) return refuse(state, notThis('Scan the bin first', `Count what lies in ${spot.placeCode}`), now);
  return counted({ task, book, state, ...now }, spot, units, 'typed');
}

function confirm({ task, book, state, ...now }: Now): Result {
  const spot = spotAtHand(task, state);
  if (!spot || state.hand?.spotId !== spot.id)
    return refuse(state, notThis('Nothing counted yet', 'Scan the goods, or key how many there are'), now);
  return counted({ task, book, state, ...now }, spot, state.hand.units, state.hand.how);
}

function counted({ book, state, id }: Now, spot: Spot, units: number, how: How): Result {
  const { itemId, lotId, placeId } = spot;
  const item: ItemFacts | undefined = book.items[itemId];
  return {
    state: { ...state, hand: null },
    feedback: accepted(units === 0 ? 'None there' : spell(units, item?.packs ?? []), `${item?.name ?? ''}, counted in ${spot.placeCode}`),
    commands: [{ kind: 'count-spot', id, spotId: spot.id, itemId, lotId, placeId, units, how }],
  };
}
