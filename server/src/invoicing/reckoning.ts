import { microOf, penceOf, shareOf, sumsOf, type Pence, type Sums } from '@vectrum/core/invoicing';
import { decimalText, fractionOf, micro, scaled } from '@vectrum/core/money';
import { badForm } from '../platform/index.js';
import type { DeliveredLine } from './deliverable.js';

/** A line of a document before it is written. */
export interface NewLine {
  orderLineId: number | null;
  creditsLineId: number | null;
  sku: string;
  name: string;
  units: number;
  factor: number;
  pack: string;
  price: string;
  discountPercent: string;
  amount: Pence;
  taxCode: string;
  taxPercent: string;
}

/** What is charged or taken off beside the goods. */
export interface Terms {
  freight: string;
  freightTax: { code: string; percent: string };
  discountPercent: string;
}

/** "12.30" of a number of pence, as amounts are kept and shown. */
export const text = (amount: Pence): string => decimalText(microOf(amount)).replace(/0000$/, '');
export const penceIn = (amount: string): Pence => penceOf(micro(amount));

/**
 * What units of an order's line come to. Reckoned from the line's beginning, so that a line delivered in parts costs in all what it
 * would have cost at once.
 */
export function lineAmount(
  line: Pick<DeliveredLine, 'price' | 'factor' | 'ordered' | 'invoiced'>,
  units: number,
  discountPercent: string,
): Pence {
  const full = scaled(fractionOf(line.price), line.ordered, line.factor);
  const kept = scaled(full, 100_000n - BigInt(Math.round(Number(discountPercent) * 1_000)), 100_000n);
  return shareOf(kept, units, line.invoiced, line.ordered);
}

/** The lines of an invoice over what was delivered, with freight at its end. */
export function linesOf(goods: readonly DeliveredLine[], terms: Terms): NewLine[] {
  const lines = goods
    .map((l) => ({ l, units: l.delivered - l.invoiced }))
    .filter(({ units }) => units > 0)
    .map(({ l, units }): NewLine => ({
      orderLineId: l.id,
      creditsLineId: null,
      sku: l.sku,
      name: l.name,
      units,
      factor: l.factor,
      pack: l.pack,
      price: l.price,
      discountPercent: terms.discountPercent,
      amount: lineAmount(l, units, terms.discountPercent),
      taxCode: l.taxCode,
      taxPercent: l.taxPercent,
    }));
  if (lines.length === 0) throw badForm({ orders: 'All that was delivered of these is invoiced already' });
  return penceIn(terms.freight) === 0n ? lines : [...lines, freightLine(terms)];
}

const freightLine = ({ freight, freightTax }: Terms): NewLine => ({
  orderLineId: null,
  creditsLineId: null,
  sku: '',
  name: 'Freight',
  units: 1,
  factor: 1,
  pack: '',
  price: freight,
  discountPercent: '0',
  amount: penceIn(freight),
  taxCode: freightTax.code,
  taxPercent: freightTax.percent,
});

/** A line of an invoice, or some units of it, taken back. What was credited before counts, so that all parts are the whole. */
export function creditLine(
  line: Omit<NewLine, 'orderLineId' | 'creditsLineId' | 'amount'> & {
    id: number;
    orderLineId: number | null;
    amount: string;
    credited: number;
  },
  units: number,
): NewLine {
  const { id, credited, amount, ...same } = line;
  return { ...same, creditsLineId: id, units, amount: -shareOf(fractionOf(amount), units, credited, line.units) };
}

export const sums = (lines: readonly NewLine[], pricesHoldTax: boolean): Sums =>
  sumsOf(
    lines.map((l) => ({ amount: l.amount, taxCode: l.taxCode, percent: l.taxPercent })),
    pricesHoldTax,
  );

/** The foot of a document as it is told. */
export const sumsDto = (s: Sums) => ({
  taxes: s.taxes.map((t) => ({ taxCode: t.taxCode, percent: t.percent, net: text(t.net), tax: text(t.tax) })),
  net: text(s.net),
  tax: text(s.tax),
  gross: text(s.gross),
});
