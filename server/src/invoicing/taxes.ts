import { sumsOf } from '@vectrum/core/invoicing';
import { bare } from './deliverable.js';
import { penceIn, sumsDto } from './reckoning.js';

/** The taxes of lines that are written, by the rule by which they were reckoned. */
export function taxesOf(lines: readonly { amount: string; taxCode: string; percent: string; hold: number }[]) {
  const taxed = lines.map((l) => ({ amount: penceIn(l.amount), taxCode: l.taxCode, percent: bare(l.percent) }));
  return sumsDto(sumsOf(taxed, lines[0]?.hold === 1)).taxes;
}
