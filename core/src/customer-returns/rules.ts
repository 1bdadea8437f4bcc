/** Why customers send goods back, and who answers for it. */
export const RETURN_REASONS = {
  unwanted: { says: 'Not wanted any more', answers: 'customer' },
  'too-many': { says: 'Too many', answers: 'customer' },
  'wrong-goods': { says: 'Wrong goods sent', answers: 'house' },
  'not-as-described': { says: 'Not as described', answers: 'house' },
  late: { says: 'Came too late', answers: 'house' },
  'damaged-on-the-way': { says: 'Damaged on the way', answers: 'carrier' },
  faulty: { says: 'Does not work', answers: 'supplier' },
  unsaid: { says: 'No reason given', answers: 'customer' },
} as const;
export type ReturnReason = keyof typeof RETURN_REASONS;
export const REASON_NAMES = Object.keys(RETURN_REASONS) as ReturnReason[];
export const isReturnReason = (name: string): name is ReturnReason => Object.hasOwn(RETURN_REASONS, name);

/** How goods are when they come back. */
export const CAME_AS = { 'as-new': 'As new', opened: 'Opened', damaged: 'Damaged', faulty: 'Does not work' } as const;
export type CameAs = keyof typeof CAME_AS;
export const CAME_AS_NAMES = Object.keys(CAME_AS) as CameAs[];

/** What becomes of goods that have come back. */
export const FATES = {
  shelf: 'Back on the shelf',
  quarantine: 'To quarantine',
  supplier: 'For their supplier',
  scrap: 'Scrap',
  repair: 'To be repaired',
} as const;
export type Fate = keyof typeof FATES;
export const FATE_NAMES = Object.keys(FATES) as Fate[];

/** What a customer wishes for goods that come back, and what they get in the end. */
export const WISHES = ['refund', 'exchange', 'repair'] as const;
export type Wish = (typeof WISHES)[number];
export const SETTLEMENTS = [...WISHES, 'nothing'] as const;
export type Settlement = (typeof SETTLEMENTS)[number];

export const RETURN_STATES = ['announced', 'here', 'settled', 'called-off'] as const;
export type ReturnState = (typeof RETURN_STATES)[number];

/** What should become of goods, and why. */
export function fateFor(
  item: { tracking: string },
  came: { cameAs: CameAs; reason: ReturnReason; wish: Wish | null },
): { fate: Fate; why: string } {
  const { cameAs, reason, wish } = came;
  if (cameAs === 'faulty')
    return wish === 'repair'
      ? { fate: 'repair', why: 'The customer wants it back once it works' }
      : { fate: 'supplier', why: 'Its supplier answers for what does not work' };
  if (cameAs === 'damaged')
    return reason === 'damaged-on-the-way'
      ? { fate: 'quarantine', why: 'The carrier may want to see it' }
      : { fate: 'scrap', why: 'Damaged goods are sold no more' };
  if (cameAs === 'opened') return { fate: 'quarantine', why: 'Somebody looks whether all of it is there' };
  if (item.tracking === 'lot-expiry') return { fate: 'quarantine', why: 'It is kept by its date, and nobody knows how it was stored' };
  return { fate: 'shelf', why: 'It can be sold again' };
}

/** Whether goods may be sold again as they came back. */
export const maySell = (cameAs: CameAs): boolean => cameAs === 'as-new' || cameAs === 'opened';

/** A return as it stands when somebody decides what the customer gets. */
export interface ToSettle {
  wish: Wish | null;
  /** The reasons of all lines that came back. */
  reasons: readonly ReturnReason[];
  fates: readonly Fate[];
  /** Days from the last parcel's leaving to the announcement, or to the coming where nobody announced it; null where the order is not known. */
  days: number | null;
  /** The house takes goods back for so long without a fault of its own. */
  withinDays: number;
  /** Whether as many of the same goods are free to be sent. */
  canSend: boolean;
}

/** What the customer should get, and why; null while nothing has come back. */
export function settlementFor(r: ToSettle): { settlement: Settlement; why: string } | null {
  if (r.fates.length === 0) return null;
  if (r.fates.includes('repair')) return { settlement: 'repair', why: 'It is repaired, and goes back to the customer' };
  const own = r.reasons.find((reason) => RETURN_REASONS[reason].answers !== 'customer');
  if (r.days === null) return { settlement: 'nothing', why: 'Nobody knows the order that it came with' };
  if (!own && r.days > r.withinDays)
    return { settlement: 'nothing', why: `It left ${r.days} days before; goods come back for ${r.withinDays} days` };
  const because = own ? RETURN_REASONS[own].says : `Back within ${r.withinDays} days`;
  if (r.wish === 'exchange' && r.canSend) return { settlement: 'exchange', why: `${because}; the same goods are free to be sent` };
  if (r.wish === 'exchange') return { settlement: 'refund', why: `${because}; none are free to be sent instead` };
  return { settlement: 'refund', why: because };
}
