import type { CloseParcelCommand } from '@vectrum/core/scan';
import type { Dto } from '../api/client';

/** What a packer has chosen for the open parcel. */
export interface ParcelChoice {
  /** Empty for the box that is proposed. */
  carton: string;
  weightG: number | null;
  /** `cheapest` where no carrier can be asked now. */
  rate: Dto['RateDto'] | 'cheapest' | null;
}

export const noChoice: ParcelChoice = { carton: '', weightG: null, rate: null };

export const serviceOf = ({ rate }: ParcelChoice): CloseParcelCommand['service'] =>
  rate === null || rate === 'cheapest' ? null : { carrier: rate.carrier, code: rate.service };
