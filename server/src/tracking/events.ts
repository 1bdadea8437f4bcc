import { isTravel, type Travel, TRAVELS } from '@vectrum/core/tracking';

/** One thing that a carrier says of a parcel. */
export interface CarrierEvent {
  tracking: string;
  what: Travel;
  at: Date;
  note: string;
}
export interface ReadEvents {
  events: CarrierEvent[];
  /** What could not be understood, by its place in the message. The others are taken all the same. */
  refused: { index: number; why: string }[];
}

const MOST_EVENTS = 1_000;
const DAY_MS = 86_400_000;
const MOST_NOTE = 200;

/** Reads what a carrier says: {"events": [{"tracking", "what", "at", "note"}]}. Throws TypeError where the whole is no such message. */
export function readEvents(message: unknown, now: Date): ReadEvents {
  const list = isRecord(message) ? message['events'] : undefined;
  if (!Array.isArray(list)) throw new TypeError('Say events, a list');
  if (list.length > MOST_EVENTS) throw new TypeError(`At most ${MOST_EVENTS} events in one message`);
  const read: ReadEvents = { events: [], refused: [] };
  list.forEach((one: unknown, index) => {
    const event = eventOf(one, now);
    if (typeof event === 'string') read.refused.push({ index, why: event });
    else read.events.push(event);
  });
  return read;
}

function eventOf(one: unknown, now: Date): CarrierEvent | string {
  if (!isRecord(one)) return 'Not an event';
  const { tracking, what, at, note } = one;
  if (typeof tracking !== 'string' || !/^[\w./ -]{1,60}$/.test(tracking)) return 'tracking: a tracking number';
  if (!isTravel(what)) return `what: one of ${TRAVELS.join(', ')}`;
  const when = typeof at === 'string' ? new Date(at) : new Date(Number.NaN);
  if (Number.isNaN(when.getTime())) return 'at: a time, such as 2026-05-14T08:00:00Z';
  if (when.getTime() > now.getTime() + DAY_MS) return 'at: a time that has been';
  return { tracking, what, at: when, note: typeof note === 'string' ? note.slice(0, MOST_NOTE) : '' };
}

const isRecord = (value: unknown): value is Record<string, unknown> => typeof value === 'object' && value !== null && !Array.isArray(value);
