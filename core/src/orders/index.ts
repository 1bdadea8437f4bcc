export { isUrgent, type Wanted } from './urgent.js';
export { keptLine, type KeptLine, type KeyedLine } from './entry.js';
/** Where a sales order stands. All but `quote`, `held` and `cancelled`, which somebody decides, follow from its lines. */
export const ORDER_STATES = ['quote', 'open', 'held', 'released', 'picking', 'picked', 'packed', 'shipped', 'cancelled'] as const;
export type OrderState = (typeof ORDER_STATES)[number];

/** What is asked of an order's state. */
export type OrderGroup =
  /** Goods may still be promised to it. */
  | 'promisable'
  /** Nobody has taken any of its goods yet. */
  | 'not begun'
  /** Somebody has work with it. */
  | 'at work'
  /** Not over yet. */
  | 'live';

function groupsOf(state: OrderState): readonly OrderGroup[] {
  switch (state) {
    case 'open':
    case 'held':
      return ['promisable', 'not begun', 'live'];
    case 'released':
      return ['not begun', 'at work', 'live'];
    case 'picking':
    case 'picked':
    case 'packed':
      return ['at work', 'live'];
    case 'quote':
    case 'shipped':
    case 'cancelled':
      return [];
  }
}

export const ordersIn = (group: OrderGroup): readonly OrderState[] => ORDER_STATES.filter((state) => groupsOf(state).includes(group));

/** One line of an order, in base units, as far as its goods have come. */
export interface LineProgress {
  units: number;
  /** Whether the order waits for it: a trifle that never holds up an order is false. */
  waits: boolean;
  /** In a round and not yet taken from its bin. */
  toPick: number;
  /** In a tote that somebody walks with. */
  walking: number;
  /** In a tote that stands where it is packed. */
  setDown: number;
  /** In a parcel that is still open, and in those that are closed. */
  inOpenParcel: number;
  inClosedParcel: number;
  shipped: number;
}

export interface OrderFacts {
  cancelled: boolean;
  /** Offered to a customer who has not said yes: nothing is promised to it. */
  quoted: boolean;
  held: boolean;
  /** Somebody has begun a round with goods of it. */
  begun: boolean;
  lines: readonly LineProgress[];
}

/**
 * The state of an order from its lines: as far back as the goods that somebody has work with. What waits for stock behind a
 * parcel that has left makes it open again. Pure; O(lines).
 */
export function orderState({ cancelled, quoted, held, begun, lines }: OrderFacts): OrderState {
  if (cancelled) return 'cancelled';
  if (quoted) return 'quote';
  const sum = (pick: (line: LineProgress) => number) => lines.reduce((n, line) => n + pick(line), 0);
  const walking = sum((l) => l.walking);
  const proved = sum((l) => l.setDown + l.inOpenParcel + l.inClosedParcel);
  if (sum((l) => l.toPick) > 0) return begun || walking + proved > 0 ? 'picking' : 'released';
  if (walking > 0) return 'picking';
  if (sum((l) => l.setDown + l.inOpenParcel) > 0) return 'picked';
  if (sum((l) => l.inClosedParcel) > 0) return 'packed';
  const due = lines.filter((l) => l.waits);
  if (sum((l) => l.shipped) > 0 && due.every((l) => l.shipped >= l.units)) return 'shipped';
  return held ? 'held' : 'open';
}
