import { type CameAs, CAME_AS, type Fate, FATES, fateFor, maySell, type ReturnReason, type Wish } from '../customer-returns/index.js';
import type { ItemId, LineId, SiteId } from '../ids/index.js';
import { spell } from '../quantity/index.js';
import { accepted, refuse, sentence, stay } from './feedback.js';
import { flowOf, type FlowState, type Moment } from './flow.js';
import type { How, ItemFacts, PlaceFacts, Refusal, Step } from './types.js';

/** Goods of a return: what left with the order, and what of it may still come back. */
export interface GoodsComingBack {
  /** Null for goods of which nobody knows the order. */
  orderLineId: LineId | null;
  itemId: ItemId;
  /** Announced by the customer; 0 where they said nothing of these. */
  announced: number;
  /** So many may still come back: what left, less what came back. */
  left: number;
  reason: ReturnReason;
  /** Lots that left with the order and are not back; numbers of pieces are lots of one. */
  lots: readonly { lot: string; left: number }[];
  /** Numbers that were scanned when it was packed, and are not back. */
  numbers: readonly string[];
}

export interface ReturnTask {
  siteId: SiteId;
  code: string;
  customer: string;
  order: string | null;
  wish: Wish | null;
  /** Nothing comes to it any more. */
  over: boolean;
  quarantine: PlaceFacts | null;
  goods: readonly GoodsComingBack[];
}

export interface ComeBackCommand {
  kind: 'come-back';
  id: string;
  code: string;
  orderLineId: LineId | null;
  itemId: ItemId;
  units: number;
  lot: string | null;
  number: string | null;
  cameAs: CameAs;
  fate: Fate;
  note: string;
  how: How;
}

/** One piece or pack of goods in hand, with what was said of it. */
export interface ReturnHand {
  itemId: ItemId;
  orderLineId: LineId | null;
  units: number;
  lot: string | null;
  number: string | null;
  cameAs: CameAs | null;
  note: string;
  how: How;
}
export interface ComeBackState extends FlowState<ComeBackCommand> {
  hand: ReturnHand | null;
}

export type ComeBackInput =
  | { kind: 'count'; id: string; packId: number; count: number }
  | { kind: 'lot'; id: string; lot: string }
  | { kind: 'came'; id: string; as: CameAs }
  | { kind: 'note'; id: string; value: string }
  | { kind: 'fate'; id: string; fate: Fate };

export const startComeBack: ComeBackState = { hand: null, pending: [] };

/** Units that may still come back, less what this phone has taken and not yet heard back about. */
export function stillOut(goods: GoodsComingBack, state: Pick<ComeBackState, 'pending'>): number {
  return state.pending.reduce(
    (left, c) => left - (c.orderLineId === goods.orderLineId && c.itemId === goods.itemId ? c.units : 0),
    goods.left,
  );
}

export const goodsBack = (task: ReturnTask, hand: Pick<ReturnHand, 'itemId' | 'orderLineId'> | null): GoodsComingBack | undefined =>
  task.goods.find((g) => hand !== null && g.itemId === hand.itemId && g.orderLineId === hand.orderLineId);

/** The rule for taking goods back, on the phone and on the server alike. `left` is what may still come back of them. */
export function checkComeBack(
  item: ItemFacts,
  goods: Pick<GoodsComingBack, 'lots' | 'numbers' | 'orderLineId'>,
  asked: Pick<ComeBackCommand, 'units' | 'lot' | 'number' | 'cameAs' | 'fate'>,
  left: number,
  quarantine: PlaceFacts | null,
): Refusal | null {
  if (!Number.isSafeInteger(asked.units) || asked.units <= 0)
    return { band: 'too-many', title: 'Nothing counted', detail: `Say how many of ${item.name} came back` };
  if (asked.units > left)
    return {
      band: 'too-many',
      title: left <= 0 ? 'All of it is back' : `Only ${spell(left, item.packs)} can come back`,
      detail: `${item.name}: no more than that left with the order`,
    };
  const lotFault = lotRefusal(item, goods, asked);
  if (lotFault) return lotFault;
  if (asked.number !== null && asked.units !== 1)
    return { band: 'too-many', title: 'One number, one piece', detail: `${asked.number} is one piece of ${item.name}` };
  if (asked.number !== null && goods.orderLineId !== null && !goods.numbers.includes(asked.number))
    return {
      band: 'not-this',
      title: `Number ${asked.number}`,
      detail: `This piece of ${item.name} did not leave with this order, or is back already. Look the number up in the office`,
    };
  if (asked.fate === 'shelf' && !maySell(asked.cameAs))
    return {
      band: 'not-this',
      title: 'Not back on the shelf',
      detail: `${item.name} came back ${CAME_AS[asked.cameAs].toLowerCase()}. Choose what else becomes of it`,
    };
  if ((asked.fate === 'quarantine' || asked.fate === 'repair') && !quarantine)
    return { band: 'not-this', title: 'No quarantine here', detail: 'This site has no place for such goods. Make one in Shelves' };
  return null;
}

function lotRefusal(
  item: ItemFacts,
  goods: Pick<GoodsComingBack, 'lots' | 'orderLineId'>,
  asked: Pick<ComeBackCommand, 'units' | 'lot'>,
): Refusal | null {
  if (item.tracking === 'none') return null;
  const what = item.tracking === 'serial' ? 'serial number' : 'lot';
  if (!asked.lot) return { band: 'not-this', title: item.name, detail: `Scan or choose its ${what}` };
  if (item.tracking === 'serial' && asked.units !== 1)
    return { band: 'too-many', title: 'One number, one piece', detail: `Scan the number of each ${item.name}` };
  if (goods.orderLineId === null) return null;
  const lot = goods.lots.find((l) => l.lot === asked.lot);
  if (!lot)
    return {
      band: 'not-this',
      title: `${sentence(what)} ${asked.lot}`,
      detail: `It did not leave with this order, or is back already. What left: ${goods.lots.map((l) => l.lot).join(', ') || 'none'}`,
    };
  if (asked.units > lot.left)
    return {
      band: 'too-many',
      title: `Only ${spell(lot.left, item.packs)} of ${asked.lot}`,
      detail: 'No more of this lot left with the order',
    };
  return null;
}

type Result = Step<ComeBackState, ComeBackCommand>;
type Now = Moment<ReturnTask, ComeBackState>;

const emptied = (state: ComeBackState): ComeBackState => ({ ...startComeBack, pending: state.pending });

/** Taking back what customers send: the goods, how they are, and what becomes of them. */
export const comeBack = flowOf<ReturnTask, ComeBackState, ComeBackInput, ComeBackCommand>({
  kind: 'come-back',
  start: startComeBack,
  owns: ['come-back'],
  emptied,
  strays({ task, book, state }) {
    const goods = goodsBack(task, state.hand);
    if (!state.hand) return null;
    const name = book.items[state.hand.itemId]?.name ?? 'These goods';
    if (task.over) return { band: 'not-this', title: task.code, detail: 'It is settled. Nothing comes to it any more' };
    if (!goods || state.hand.units > Math.max(1, stillOut(goods, state)))
      return { band: 'not-this', title: name, detail: 'Somebody has taken some of it back meanwhile. Scan it again' };
    return null;
  },
  item: (now, { item, lot, pack, serial }) => takeNext(now, item, { lot, units: pack.factor, number: serial }),
  place: (now, place) =>
    // The label of the quarantine, scanned with goods in hand, says what is to become of them.
    place.id === now.task.quarantine?.id && now.state.hand
      ? decide(now, 'quarantine')
      : refuse(now.state, { band: 'not-this', title: place.code, detail: 'Scan what came back' }, now),
  unknown: (now, code) => numbered(now, code.trim().toUpperCase()),
  cards: {
    confirm: (now) => decide(now, proposed(now)),
    apart: (now) => decide(now, 'quarantine'),
  },
  inputs: {
    count({ book, state }, { packId, count }) {
      const pack = book.items[state.hand?.itemId ?? 0]?.packs.find((p) => p.id === packId);
      return stay(state.hand && pack ? { ...state, hand: { ...state.hand, units: count * pack.factor } } : state);
    },
    lot: ({ state }, { lot }) => stay(state.hand ? { ...state, hand: { ...state.hand, lot } } : state),
    came: ({ state }, { as }) => stay(state.hand ? { ...state, hand: { ...state.hand, cameAs: as } } : state),
    note: ({ state }, { value }) => stay(state.hand ? { ...state, hand: { ...state.hand, note: value } } : state),
    fate: (now, { fate }) => decide(now, fate),
  },
});

/** What should become of the goods in hand; null while nobody has said how they are. */
export function proposedFate(task: ReturnTask, item: ItemFacts | undefined, hand: ReturnHand | null): { fate: Fate; why: string } | null {
  const goods = goodsBack(task, hand);
  if (!goods || !item || !hand?.cameAs) return null;
  return fateFor(item, { cameAs: hand.cameAs, reason: goods.reason, wish: task.wish });
}

const proposed = ({ task, book, state }: Now): Fate | null =>
  proposedFate(task, book.items[state.hand?.itemId ?? 0], state.hand)?.fate ?? null;

interface Scanned {
  lot: string | null;
  units: number;
  number: string | null;
}

/** Other goods than those in hand: what is in hand is booked first, as is proposed for it; nothing in a hand is ever forgotten. */
function takeNext(now: Now, item: ItemFacts, scanned: Scanned): Result {
  const { hand } = now.state;
  const apart =
    item.tracking === 'serial' || scanned.number !== null || (scanned.lot !== null && hand?.lot != null && hand.lot !== scanned.lot);
  if (!hand || (hand.itemId === item.id && !apart)) return takeInHand(now, item, scanned);
  const before = now.book.items[hand.itemId]?.name ?? 'What is in hand';
  if (!hand.cameAs) return refuse(now.state, { band: 'not-this', title: item.name, detail: `Say first how ${before} came back` }, now);
  const booked = decide(now, proposed(now));
  if (booked.state.hand) return booked;
  const next = takeInHand({ ...now, state: booked.state }, item, scanned);
  return { ...next, commands: [...booked.commands, ...next.commands.filter((c) => c.kind !== 'refused')] };
}

function takeInHand({ task, state, ...now }: Now, item: ItemFacts, scanned: Scanned): Result {
  if (task.over) return refuse(state, { band: 'not-this', title: task.code, detail: 'It is settled. Nothing comes to it any more' }, now);
  const all = task.goods.filter((g) => g.itemId === item.id);
  // What was announced comes first; a line that is all back still says so, rather than that it is unknown.
  const goods =
    all.find((g) => stillOut(g, state) > 0 && (!scanned.lot || g.lots.some((l) => l.lot === scanned.lot))) ??
    all.find((g) => stillOut(g, state) > 0) ??
    all[0];
  if (!goods)
    return refuse(
      state,
      {
        band: 'not-this',
        title: item.name,
        detail: `It did not leave with ${task.order ?? task.code}. Take it back with the order that it came from`,
      },
      now,
    );
  const left = stillOut(goods, state);
  const was = state.hand?.itemId === item.id && state.hand.orderLineId === goods.orderLineId ? state.hand : null;
  const own = item.tracking === 'serial' || scanned.number !== null;
  const [only, more] = goods.lots;
  const lot = scanned.lot ?? (was && !own ? was.lot : null) ?? (only && !more ? only.lot : null);
  const again = was !== null && !own && was.lot === lot && was.number === null;
  const units = own ? 1 : (again ? was.units : 0) + scanned.units;
  if (units > left)
    return refuse(
      state,
      {
        band: 'too-many',
        title: left <= 0 ? 'All of it is back' : `Only ${spell(left, item.packs)} can come back`,
        detail: `${item.name}: no more than that left with the order`,
      },
      now,
    );
  const hand: ReturnHand = {
    itemId: item.id,
    orderLineId: goods.orderLineId,
    units,
    lot: item.tracking === 'none' ? null : lot,
    number: scanned.number,
    cameAs: again ? was.cameAs : null,
    note: again ? was.note : '',
    how: now.how,
  };
  const said = goods.announced > 0 ? `${spell(goods.announced, item.packs)} announced` : 'Nobody announced it';
  return stay({ ...emptied(state), hand }, accepted(`${sentence(spell(units, item.packs))} of ${item.name}`, said));
}

/** A number on a piece tells which piece it is. */
function numbered(now: Now, code: string): Result | undefined {
  for (const goods of now.task.goods) {
    const item = now.book.items[goods.itemId];
    if (!item) continue;
    if (item.tracking !== 'none' && goods.lots.some((l) => l.lot.toUpperCase() === code)) {
      const lot = goods.lots.find((l) => l.lot.toUpperCase() === code)?.lot ?? null;
      // The lot of goods that are in hand already is said, not counted.
      if (item.tracking !== 'serial' && now.state.hand?.itemId === item.id)
        return stay({ ...now.state, hand: { ...now.state.hand, lot } }, accepted(item.name, `Lot ${lot ?? ''}`));
      return takeNext(now, item, { lot, units: 1, number: null });
    }
    const number = goods.numbers.find((n) => n.toUpperCase() === code);
    if (number) return takeNext(now, item, { lot: null, units: 1, number });
  }
  return undefined;
}

function decide({ task, book, state, ...now }: Now, fate: Fate | null): Result {
  const { hand } = state;
  const goods = goodsBack(task, hand);
  const item = hand && book.items[hand.itemId];
  if (!hand || !goods || !item)
    return refuse(state, { band: 'not-this', title: 'Nothing in hand', detail: 'Scan what came back first' }, now);
  if (!hand.cameAs || !fate)
    return refuse(
      state,
      { band: 'not-this', title: item.name, detail: 'Say first how it came back' },
      { ...now, code: now.code ?? item.sku },
    );
  const { itemId, orderLineId, units, lot, number, cameAs, note, how } = hand;
  const asked = { units, lot, number, cameAs, fate };
  const refusal = checkComeBack(item, goods, asked, stillOut(goods, state), task.quarantine);
  if (refusal) return refuse(state, refusal, { ...now, code: now.code ?? item.sku });
  return {
    state: emptied(state),
    feedback: accepted(`${sentence(spell(units, item.packs))} back`, `${item.name}: ${FATES[fate].toLowerCase()}`),
    commands: [{ kind: 'come-back', id: now.id, code: task.code, itemId, orderLineId, ...asked, note: note.trim(), how }],
  };
}
