import { documentInOther, openInOther, priceInOther } from '@vectrum/core/invoicing';
import { fractionOf } from '@vectrum/core/money';
import type { InvoiceDto, ShownDto } from './invoicing.dto.js';
import { penceIn, sumsDto, text } from './reckoning.js';

export interface ShownLine {
  line: number;
  price: string;
  amount: string;
  taxCode: string;
  taxPercent: string;
}

/** A document of the house's books in the currency that its customer reads. */
export function shownIn(
  shown: { currency: string; rate: string } | null,
  of: { lines: readonly ShownLine[]; pricesHoldTax: boolean; gross: string; open: string },
): ShownDto | null {
  if (shown === null) return null;
  const rate = fractionOf(shown.rate);
  const { amounts, sums } = documentInOther(
    of.lines.map((l) => ({ amount: penceIn(l.amount), taxCode: l.taxCode, percent: l.taxPercent })),
    of.pricesHoldTax,
    rate,
  );
  return {
    currency: shown.currency,
    rate: shown.rate.replace(/(\.\d*?)0+$/, '$1').replace(/\.$/, ''),
    ...sumsDto(sums),
    open: text(openInOther(penceIn(of.open), penceIn(of.gross), sums.gross)),
    lines: of.lines.map((l, i) => ({
      line: l.line,
      price: priceInOther(l.price, rate),
      amount: text(amounts[i] ?? 0n),
      net: text(sums.lines[i] ?? 0n),
    })),
  };
}

/** A document as its customer reads it: in their currency, where they have one of their own. */
export function asRead<T extends Pick<InvoiceDto, 'lines' | 'currency' | 'net' | 'tax' | 'gross' | 'taxes' | 'open' | 'note' | 'shown'>>(
  i: T,
): T {
  const { shown } = i;
  if (!shown) return i;
  const { currency, net, tax, gross, taxes, open } = shown;
  const lines = i.lines.map((l) => ({ ...l, ...pick(shown, l.line) }));
  return {
    ...i,
    currency,
    net,
    tax,
    gross,
    taxes,
    open,
    lines,
    note: [`1 ${currency} is ${shown.rate} ${i.currency}.`, i.note].filter(Boolean).join(' '),
  };
}

function pick(shown: ShownDto, line: number): { price: string; amount: string } {
  const own = shown.lines.find((l) => l.line === line);
  return { price: own?.price ?? '0', amount: own?.amount ?? '0.00' };
}
