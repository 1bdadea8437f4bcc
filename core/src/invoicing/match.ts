import type { Pence } from './sums.js';

/** An invoice that is not paid in full. */
export interface OpenInvoice {
  code: string;
  /** What is still to be paid of it. */
  open: Pence;
}

/**
 * Which invoices a payment is for, by the rule: those whose numbers stand in what the payer wrote, as whole words, in the order
 * in which they were written; what is paid goes to them until it is used up. Where none is named nothing is guessed.
 */
export function matchPayment(amount: Pence, says: string, invoices: readonly OpenInvoice[]): { code: string; amount: Pence }[] {
  const words = says.toUpperCase().split(/[^0-9A-Z-]+/);
  const named = invoices
    .filter((i) => words.includes(i.code.toUpperCase()) && i.open > 0n)
    .sort((a, b) => words.indexOf(a.code.toUpperCase()) - words.indexOf(b.code.toUpperCase()));
  let left = amount;
  return named.flatMap(({ code, open }) => {
    const share = left < open ? left : open;
    left -= share > 0n ? share : 0n;
    return share > 0n ? [{ code, amount: share }] : [];
  });
}
