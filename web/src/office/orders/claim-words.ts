import type { Dto } from '../../api/client';

/** How a claim stands, in words. */
export const CLAIM_STATES: Readonly<Record<Dto['ClaimRowDto']['state'], string>> = {
  open: 'to be seen to',
  claimed: 'claimed',
  settled: 'paid',
  dropped: 'nothing claimed',
};

const TRAVELS: Readonly<Record<string, string>> = {
  collected: 'collected',
  'on-the-way': 'on its way',
  'out-for-delivery': 'out for delivery',
  delivered: 'delivered',
  delayed: 'delayed',
  damaged: 'damaged',
  returned: 'coming back',
  lost: 'lost',
};

/** What a carrier said of a parcel, in words. */
export const travelWord = (what: string): string => TRAVELS[what] ?? what;
/** Whether it is something that the order desk sees to. */
export const isTrouble = (what: string): boolean => ['delayed', 'damaged', 'returned', 'lost'].includes(what);
