import type { LineId } from '../../ids/index.js';
import { isFor } from '../../places/index.js';
import { spell, toBase } from '../../quantity/index.js';
import { sentence } from '../feedback.js';
import { zoneRefusal } from '../store.js';
import type { Codebook, ItemFacts, Refusal } from '../types.js';
import type { AnnouncedPallet, DockCommand, ReceiveCommand, ReceiveLine, ReceiveState, ReceiveTask } from './types.js';

/** What has come on a line, with what this phone has posted and not yet heard back about. */
export function receivedOn(task: ReceiveTask, state: Pick<ReceiveState, 'pending'>, lineId: LineId): number {
  const known = lineOf(task, lineId)?.received ?? 0;
  return state.pending.reduce((sum, command) => sum + broughtBy(task, command, lineId), known);
}

function broughtBy(task: ReceiveTask, command: DockCommand, lineId: LineId): number {
  switch (command.kind) {
    case 'receive':
      return command.as !== 'apart' && command.lineId === lineId ? command.units : 0;
    case 'receive-pallet': {
      const goods = task.pallets.find((p) => p.sscc === command.sscc)?.contents ?? [];
      return goods.reduce((n, g) => n + (g.lineId === lineId ? g.units : 0), 0);
    }
    case 'receive-whole':
      return command.lines.reduce((n, l) => n + (l.lineId === lineId ? l.units : 0), 0);
    case 'tie':
    case 'close-arrival':
      return 0;
  }
}

/** Whether a pallet is booked in, here or on its way to be known. */
export const palletIsIn = (pallet: AnnouncedPallet, state: Pick<ReceiveState, 'pending'>): boolean =>
  pallet.received || state.pending.some((c) => c.kind === 'receive-pallet' && c.sscc === pallet.sscc);

/** Pieces with numbers of their own that are on their way into the house, each as "item id/number". */
export const serialsOnTheWay = (state: Pick<ReceiveState, 'pending'>): string[] =>
  state.pending.flatMap((c) => (c.kind === 'receive' && c.lot ? [`${c.itemId}/${c.lot}`] : []));

export const lineOf = (task: ReceiveTask, lineId: LineId | null): ReceiveLine | undefined => task.lines.find((l) => l.lineId === lineId);

/** The most that a line may hold: the ordered quantity and the allowed percentage above, rounded down. */
export function mostAllowed(ordered: number, overPercent: number): number {
  return Math.floor((ordered * (100 + overPercent)) / 100);
}

/** Base units counted in the pad. */
export function countedUnits(state: Pick<ReceiveState, 'counts'>, item: ItemFacts): number {
  return item.packs.reduce((sum, pack) => sum + toBase(state.counts[pack.id] ?? 0, pack.factor), 0);
}

/** The most base units within `room` that the packs counted make without one of them being opened. */
export function unopened(state: Pick<ReceiveState, 'counts'>, item: ItemFacts, room: number): number {
  let left = room;
  for (const pack of [...item.packs].sort((a, b) => b.factor - a.factor))
    left -= Math.min(state.counts[pack.id] ?? 0, Math.floor(left / pack.factor)) * pack.factor;
  return room - left;
}

/** Why goods cannot be booked in so, and whether somebody with the right could say otherwise. */
export interface ReceiveRefusal extends Refusal {
  /** What is asked; absent where nothing but other input helps. */
  asks?: { kind: 'over'; most: number; rest: number } | { kind: 'too-old' } | { kind: 'not-ordered' };
}

/**
 * The rule for booking goods in, on the phone and on the server alike; null where it may be. `receivedBefore` is what the
 * line holds already. O(lines + serials + places).
 */
export function checkReceive(task: ReceiveTask, book: Codebook, command: ReceiveCommand, receivedBefore: number): ReceiveRefusal | null {
  const item = book.items[command.itemId];
  const line = lineOf(task, command.lineId);
  // Only what is ordered, or beyond an order, is for a line; what is set apart or on no order never counts on one.
  const forLine = command.as === 'ordered' || command.as === 'extra';
  if (!item || forLine !== (command.lineId !== null) || (forLine && line?.itemId !== command.itemId)) return notOnOrder(task, item);
  if (!Number.isSafeInteger(command.units) || command.units <= 0)
    return { band: 'too-many', title: 'Nothing counted', detail: `Count the ${item.name} before booking it in` };
  const barred = barredFrom(task, book, item, command);
  if (barred) return barred;
  if ((command.as === 'extra' || command.as === 'unordered') && !task.mayTake) return notAllowed(command.as);
  if (command.as === 'apart' && !command.reason)
    return { band: 'not-this', title: item.name, detail: 'Say why it is set apart: wrong goods, too many or too old' };
  if (line && command.as === 'ordered') {
    const over = overBy(task, item, line, command.units, receivedBefore);
    if (over) return over;
  }
  return traced(task, book, item, command);
}

/** Zones keep their rules for goods that go straight to a shelf, and goods that must be looked at do not go there at all. */
function barredFrom(task: ReceiveTask, book: Codebook, item: ItemFacts, command: ReceiveCommand): ReceiveRefusal | null {
  const place = Object.values(book.places).find((p) => p.id === command.toPlaceId);
  if (!place || !isFor(place.kind, 'shelf')) return null;
  if (command.as === 'apart' || command.condition === 'damaged')
    return {
      band: 'not-this',
      title: command.condition === 'damaged' ? 'Damaged' : 'Set apart',
      detail: `${item.name} does not go on a shelf so. It goes to ${(task.apart ?? task.dock).code}`,
    };
  const why = task.inspect[item.id];
  if (why !== undefined)
    return {
      band: 'not-this',
      title: 'To be looked at first',
      detail: `${item.name} goes to ${(task.inspection ?? task.dock).code}: ${why}`,
    };
  return zoneRefusal(item, place);
}

function overBy(task: ReceiveTask, item: ItemFacts, line: ReceiveLine, units: number, before: number): ReceiveRefusal | null {
  const most = mostAllowed(line.ordered, task.overPercent);
  if (before + units <= most) return null;
  const room = Math.max(0, most - before);
  return {
    band: 'too-many',
    title: `${sentence(spell(before + units - line.ordered, item.packs))} over`,
    detail: `${line.order} has room for ${spell(room, item.packs)} more of ${item.name}. Set the rest apart${task.mayTake ? ', or take it as an extra line' : ''}`,
    asks: { kind: 'over', most: room, rest: Math.max(0, line.ordered - before) },
  };
}

/** Lot, date and serial number: there where they are wanted, sensible, and not in the house already. */
function traced(task: ReceiveTask, book: Codebook, item: ItemFacts, command: ReceiveCommand): ReceiveRefusal | null {
  // What is set apart is looked at later; it need not have its facts yet, but a wrong one would mislead.
  const wanted = command.as !== 'apart';
  if (wanted && item.tracking !== 'none' && !command.lot) return lotMissing(item);
  if (item.tracking === 'serial' && command.lot) {
    if (command.units !== 1)
      return { band: 'too-many', title: 'One serial number, one piece', detail: `Book each ${item.name} in with the number on it` };
    if (task.serials.includes(`${item.id}/${command.lot}`))
      return { band: 'not-this', title: command.lot, detail: `This ${item.name} is in the house already. Check the number on the piece` };
  }
  if (item.tracking !== 'lot-expiry') return null;
  if (wanted && !command.expires)
    return { band: 'not-this', title: 'Date missing', detail: `${item.name} is kept by lot and date. Type the date on the label` };
  return command.expires ? dated(book.today, task.mayTake, item, command, command.expires) : null;
}

const DAY_MS = 86_400_000;
/** A date further away than this is a slip of the hand. */
const MOST_YEARS = 30;

/** Whole days from one ISO date to another; NaN where one of them is none. */
export function daysBetween(from: string, to: string): number {
  const at = (date: string) => (/^\d{4}-\d{2}-\d{2}$/.test(date) ? Date.parse(`${date}T00:00:00Z`) : NaN);
  const days = (at(to) - at(from)) / DAY_MS;
  return Number.isNaN(days) || new Date(at(to)).toISOString().slice(0, 10) !== to ? NaN : days;
}

function dated(today: string, mayTake: boolean, item: ItemFacts, command: ReceiveCommand, expires: string): ReceiveRefusal | null {
  const life = daysBetween(today, expires);
  if (Number.isNaN(life) || life > MOST_YEARS * 366)
    return { band: 'not-this', title: expires, detail: 'That is no date for goods. Type it as on the label, such as 2028-03-31' };
  if (command.as === 'apart' || command.as === 'extra') return null;
  const least = item.minLifeDays ?? 0;
  if (life >= 0 && life >= least) return null;
  const said = life < 0 ? `Ended ${-life} ${-life === 1 ? 'day' : 'days'} ago` : `${life} of at least ${least} days left`;
  return {
    band: 'not-this',
    title: life < 0 ? 'Past its date' : 'Too short a life',
    detail: `${said}. Set ${item.name} apart${mayTake ? ', or take it all the same' : ''}`,
    asks: { kind: 'too-old' },
  };
}

function notAllowed(as: 'extra' | 'unordered'): ReceiveRefusal {
  return {
    band: 'not-this',
    title: as === 'extra' ? 'More than is allowed' : 'On no order',
    detail: 'You may not take these in. Set them apart, or fetch somebody who may',
  };
}

function lotMissing(item: ItemFacts): ReceiveRefusal {
  const serial = item.tracking === 'serial';
  return {
    band: 'not-this',
    title: serial ? 'Serial number missing' : 'Lot missing',
    detail: serial
      ? `Each ${item.name} has a number of its own. Scan or type it`
      : `${item.name} is kept by lot. Scan the label with the lot, or type it`,
  };
}

export function notOnOrder(task: ReceiveTask, item: ItemFacts | undefined): ReceiveRefusal {
  const home = item?.home ? ` Belongs in ${item.home}.` : '';
  return {
    band: 'not-this',
    title: item?.name ?? 'Not on this order',
    detail: `Not on ${task.document}.${home}${item ? ` Set it apart${task.mayTake ? ', or take it in without an order' : ''}` : ''}`,
    ...(item ? { asks: { kind: 'not-ordered' } } : {}),
  };
}
