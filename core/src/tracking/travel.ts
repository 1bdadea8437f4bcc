/** What a carrier can say of a parcel that it has taken. */
export const TRAVELS = ['collected', 'on-the-way', 'out-for-delivery', 'delivered', 'delayed', 'damaged', 'returned', 'lost'] as const;
export type Travel = (typeof TRAVELS)[number];

/** What the order desk must see to. */
export const TROUBLES = ['delayed', 'damaged', 'returned', 'lost'] as const satisfies readonly Travel[];
export type Trouble = (typeof TROUBLES)[number];
export const isTravel = (word: unknown): word is Travel => TRAVELS.some((t) => t === word);
export const isTrouble = (travel: Travel): travel is Trouble => TROUBLES.some((t) => t === travel);

export interface TravelEvent {
  what: Travel;
  /** When it happened, not when it was heard of. */
  at: Date;
}

/** Of two that are said of the same instant, the one further on holds. */
const rank = (what: Travel): number => TRAVELS.indexOf(what);

/** The newest of what was said, in whatever order it came; null where nothing was. O(n). */
export function travelOf(events: readonly TravelEvent[]): TravelEvent | null {
  return events.reduce<TravelEvent | null>((newest, event) => {
    if (!newest) return event;
    const later = event.at.getTime() - newest.at.getTime();
    return later > 0 || (later === 0 && rank(event.what) > rank(newest.what)) ? event : newest;
  }, null);
}

/**
 * What the order desk has to see to after all that was said: what the newest trouble is, unless it was delivered after that. A delay is
 * over when the parcel moves on; what is damaged, returned or lost is over only by a delivery.
 */
export function troubleOf(events: readonly TravelEvent[]): Trouble | null {
  const inOrder = [...events].sort((a, b) => a.at.getTime() - b.at.getTime() || rank(a.what) - rank(b.what));
  let trouble: Trouble | null = null;
  for (const { what } of inOrder) {
    if (isTrouble(what)) trouble = what === 'delayed' && trouble !== null ? trouble : what;
    else if (what === 'delivered') trouble = null;
    else if (trouble === 'delayed') trouble = null;
  }
  return trouble;
}
