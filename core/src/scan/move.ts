import { commaLot, goodsWords, spell } from '../quantity/index.js';
import type { Condition } from '../ledger/index.js';
import { isFor } from '../places/index.js';
import { accepted, refuse, stay } from './feedback.js';
import { flowOf, type Moment } from './flow.js';
import {
  type AnyMoveCommand,
  type MovableGoods,
  type MovedGoods,
  type MoveInput,
  type MoveState,
  type MoveTask,
  PURPOSE_SAYS,
  startMove,
} from './move-task.js';
import type { Meaning } from './resolve.js';
import { zoneRefusal } from './store.js';
import type { ItemFacts, PlaceFacts, Refusal, Step } from './types.js';

type Result = Step<MoveState, AnyMoveCommand>;
type Now = Moment<MoveTask, MoveState>;

const notThis = (title: string, detail: string): Refusal => ({ band: 'not-this', title, detail });
const isSame = (a: MovedGoods | MovableGoods, b: Pick<MovedGoods, 'itemId' | 'lotId' | 'condition'>) =>
  a.itemId === b.itemId && a.lotId === b.lotId && a.condition === b.condition;

const takenBy = (c: AnyMoveCommand, g: MovableGoods): number => {
  if (c.kind === 'move') return c.goods.filter((m) => isSame(m, g)).reduce((n, m) => n + m.units, 0);
  return isSame(c, g) ? c.units : 0;
};

/** What lies there, less what this phone has taken and not yet heard back about. */
export function movable(task: MoveTask, state: Pick<MoveState, 'pending'>): MovableGoods[] {
  return task.goods
    .map((g) => {
      const taken = state.pending.reduce((n, c) => n + takenBy(c, g), 0);
      return { ...g, units: g.units - taken, spare: g.spare - taken };
    })
    .filter((g) => g.units > 0);
}

/** Why goods cannot be put there; null where they can. Goods in totes and parcels are somebody's order. */
export function checkMove(
  siteId: number,
  from: PlaceFacts,
  to: PlaceFacts | undefined,
  goods: readonly { item: ItemFacts | undefined; condition: Condition }[],
): Refusal | null {
  if (!to) return { band: 'unknown', title: 'No such place', detail: 'Scan the label of a bin, dock or cart' };
  if (to.id === from.id) return notThis(to.code, 'The goods lie here already. Scan where they go');
  if (to.siteId !== siteId) return notThis(to.code, 'This place is at another site. Goods go there by a transfer');
  if (!isFor(to.kind, 'keep') || isFor(to.kind, 'collect'))
    return notThis(to.code, 'Loose goods are not kept here. Scan a bin, a dock or a cart');
  if (!isFor(to.kind, 'shelf')) return null;
  if (goods.some((g) => g.condition === 'damaged'))
    return notThis(to.code, 'Damaged goods do not go onto a shelf. Scan a place where they stand apart');
  return goods.map((g) => g.item && zoneRefusal(g.item, to)).find(Boolean) ?? null;
}

/** Whether so many of goods may be taken from where they lie; null where they may. */
export function checkTaken(
  item: ItemFacts | undefined,
  goods: Pick<MovableGoods, 'units' | 'spare'> | undefined,
  units: number,
): Refusal | null {
  const name = item?.name ?? 'These goods';
  if (!goods || goods.units <= 0) return notThis(name, 'Nothing of it lies here any more. Look again');
  if (!Number.isSafeInteger(units) || units < 1) return notThis(name, 'Say how many, from one upwards');
  const packs = item?.packs ?? [];
  if (units > goods.units)
    return { band: 'too-many', title: spell(units, packs), detail: `Only ${spell(goods.units, packs)} of it lie here` };
  if (units > goods.spare)
    return {
      band: 'too-many',
      title: spell(units, packs),
      detail: `Rounds come for ${spell(goods.units - goods.spare, packs)} of it. ${goods.spare > 0 ? `${spell(goods.spare, packs)} may go` : 'None of it may go'}`,
    };
  return null;
}

/**
 * Moving what lies in a place: the goods and then where they go; without goods in hand, everything that may go. In the same way
 * goods are used up, or found to be in another condition.
 */
export const moveGoods = flowOf<MoveTask, MoveState, MoveInput, AnyMoveCommand>({
  kind: 'move',
  start: startMove,
  owns: ['move', 'issue', 'condition'],
  emptied: (state) => ({ ...state, hand: null, asks: null }),
  strays({ task, state, book }) {
    const { hand } = state;
    if (!hand) return null;
    const there = movable(task, state).find((g) => isSame(g, hand));
    return there && there.units >= hand.units
      ? null
      : notThis(book.items[hand.itemId]?.name ?? task.from.code, 'Somebody has taken of it meanwhile. Look again');
  },
  item: onItem,
  place: onPlace,
  unknown: onUnknown,
  cards: {},
  inputs: {
    number: ({ state, task, book, ...now }, { units }) => {
      if (!state.hand) return stay(state);
      const goods = movable(task, state).find((g) => state.hand && isSame(g, state.hand));
      const refusal = checkTaken(book.items[state.hand.itemId], goods, units);
      if (refusal) return refuse(state, refusal, now);
      return stay({ ...state, hand: { ...state.hand, units } });
    },
    choose: (now, input) => {
      const goods = movable(now.task, now.state).find((g) => isSame(g, input));
      return goods ? take(now, goods) : stay({ ...now.state, asks: null });
    },
    issue: (now, { purpose, note, costCentre }) => {
      const { state, task, book, id } = now;
      if (!state.hand) return stay(state);
      const { how, ...goods } = state.hand;
      const refusal = handRefusal(now);
      if (refusal) return refuse(state, refusal, now);
      const item = book.items[goods.itemId];
      return {
        state: { ...state, hand: null, asks: null },
        feedback: accepted(PURPOSE_SAYS[purpose], item ? goodsWords(goods.units, item) : ''),
        commands: [{ kind: 'issue', id, placeId: task.from.id, ...goods, purpose, note: note.trim(), costCentre: costCentre.trim(), how }],
      };
    },
    condition: (now, { becomes, note }) => {
      const { state, task, book, id } = now;
      if (!state.hand || state.hand.condition === becomes) return stay(state);
      const { how, ...goods } = state.hand;
      const refusal = handRefusal(now);
      if (refusal) return refuse(state, refusal, now);
      const item = book.items[goods.itemId];
      return {
        state: { ...state, hand: null, asks: null },
        feedback: accepted(
          becomes === 'good' ? 'Good' : becomes === 'held' ? 'Held' : 'Damaged',
          item ? goodsWords(goods.units, item) : '',
        ),
        commands: [{ kind: 'condition', id, placeId: task.from.id, ...goods, becomes, note: note.trim(), how }],
      };
    },
  },
});

function handRefusal({ task, book, state }: Now): Refusal | null {
  const { hand } = state;
  if (!hand) return null;
  return checkTaken(
    book.items[hand.itemId],
    movable(task, state).find((g) => isSame(g, hand)),
    hand.units,
  );
}

/** Goods are taken in hand: all that may go, until a number is said. */
function take({ state, task, book, how }: Now, goods: MovableGoods): Result {
  const item = book.items[goods.itemId];
  if (goods.spare < 1)
    return stay(state, {
      band: 'not-this',
      title: item?.name ?? '',
      detail: `Rounds come for all of it. Move it once they were here, or recall them`,
    });
  const hand = { itemId: goods.itemId, lotId: goods.lotId, condition: goods.condition, units: goods.spare, how };
  const words = `${spell(goods.spare, item?.packs ?? [])}${commaLot(item, goods.lot)}${goods.condition === 'good' ? '' : `, ${goods.condition.replace('-', ' ')}`}`;
  return stay({ ...state, hand, asks: null }, accepted(item?.name ?? task.from.code, `${words}. Scan where it goes`));
}

function onItem(now: Now, { item, lot }: Extract<Meaning, { kind: 'item' }>): Result {
  const { state, task } = now;
  const here = movable(task, state).filter((g) => g.itemId === item.id && (lot === null || g.lot === lot));
  const [first] = here;
  if (!first)
    return refuse(
      state,
      notThis(
        item.name,
        lot === null
          ? `None of it lies in ${task.from.code} by the books. Have the bin counted`
          : `Lot ${lot} does not lie in ${task.from.code} by the books`,
      ),
      now,
    );
  if (here.length > 1)
    return stay({ ...state, hand: null, asks: item.id }, accepted(item.name, 'Which of these? Choose below, or scan the lot'));
  return take(now, first);
}

/** A plain label with a lot or number on it. */
function onUnknown(now: Now, code: string): Result | undefined {
  const goods = movable(now.task, now.state).filter((g) => g.lot === code && (now.state.asks === null || g.itemId === now.state.asks));
  return goods.length === 1 && goods[0] ? take(now, goods[0]) : undefined;
}

function onPlace(now: Now, to: PlaceFacts): Result {
  const { state, task, book, id, how } = now;
  if (state.asks !== null) return refuse(state, notThis(to.code, 'Say first which of the goods are meant'), now);
  const all = movable(task, state);
  const hand = state.hand;
  const goods: MovedGoods[] = hand
    ? [{ itemId: hand.itemId, lotId: hand.lotId, condition: hand.condition, units: hand.units }]
    : all.filter((g) => g.spare > 0).map(({ itemId, lotId, condition, spare }) => ({ itemId, lotId, condition, units: spare }));
  const refusal =
    checkMove(
      task.siteId,
      task.from,
      to,
      goods.map((g) => ({ item: book.items[g.itemId], condition: g.condition })),
    ) ?? handRefusal(now);
  if (refusal) return refuse(state, refusal, now);
  if (goods.length === 0)
    return refuse(
      state,
      notThis(task.from.code, all.length === 0 ? 'Nothing lies here by the books' : 'Rounds come for all that lies here'),
      now,
    );
  const stays = hand ? 0 : all.reduce((n, g) => n + (g.units - Math.max(0, g.spare)), 0);
  const item = hand ? book.items[hand.itemId] : undefined;
  const what = item && hand ? goodsWords(hand.units, item) : `All of ${task.from.code}`;
  return {
    state: { ...state, hand: null },
    feedback: accepted(what, `to ${to.code}${stays > 0 ? `. ${stays} stay, since rounds come for them` : ''}`),
    commands: [{ kind: 'move', id, fromPlaceId: task.from.id, toPlaceId: to.id, goods, how }],
  };
}
