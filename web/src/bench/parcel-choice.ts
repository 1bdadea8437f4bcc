import type { CloseParcelCommand } from '@vectrum/core/scan';
import type { Dto } from '../api/client';

/** What a packer has chosen for the open parcel. */
export interface ParcelChoice {
  /** Empty for the box that is proposed. */
  carton: string;
  weightG: number | null;
  /** `cheapest` where no carrier can be asked now; null for the one that is proposed. */
  rate: Dto['RateDto'] | 'cheapest' | null;
  /** Why a weight is right that is not as expected; empty where nothing was said. */
  why: string;
}

/** What makes a parcel weigh more or less than its goods and box. */
export const WEIGHT_WHYS = ['more padding', 'wet or heavy goods', 'a weight of ours is wrong'] as const;

export const noChoice: ParcelChoice = { carton: '', weightG: null, rate: null, why: '' };

export const serviceOf = (rate: ParcelChoice['rate']): CloseParcelCommand['service'] =>
  rate === null || rate === 'cheapest' ? null : { carrier: rate.carrier, code: rate.service };

/** The service that a parcel goes by: the one chosen, otherwise the first of those there are. */
export function rateOf(
  { rate }: ParcelChoice,
  found: { rates: readonly Dto['RateDto'][] | undefined; away: boolean },
): ParcelChoice['rate'] {
  return rate ?? (found.away ? 'cheapest' : (found.rates?.[0] ?? null));
}
