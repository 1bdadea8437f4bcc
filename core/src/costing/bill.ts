import { decimalText, dividedBy, micro, times, type Micro } from '../money/index.js';

/** A line of a bill beside what it is for. Amounts are decimal text in the bill's currency. */
export interface BilledLine {
  units: number;
  amount: string;
  /** Base units that came and were not billed before. */
  open: number;
  /** The order's price of a pack of so many. */
  price: string;
  factor: number;
}

export interface Tolerance {
  percent: number;
  /** In the bill's currency. */
  amount: number;
}

export interface BillFinding {
  says: 'fits' | 'too many' | 'dearer' | 'cheaper';
  /** What the billed units cost by the order. */
  expected: string;
  /** Billed above (or, with a minus, below) that. */
  difference: string;
  /** Units billed beyond those that came. */
  over: number;
}

const size = (n: Micro) => (n < 0n ? -n : n);

/** Whether a difference may pass: within the per cent or within the amount, whichever is more. */
export function within(difference: Micro, expected: Micro, tolerance: Tolerance): boolean {
  const share = dividedBy(times(size(expected), tolerance.percent), 100);
  const least = BigInt(tolerance.amount) * 1_000_000n;
  return size(difference) <= (share > least ? share : least);
}

/** Compares a line of a bill with its order and with what came. Too many comes before a difference in price. */
export function matchLine(line: BilledLine, tolerance: Tolerance): BillFinding {
  const expected = dividedBy(times(micro(line.price), line.units), line.factor);
  const difference = micro(line.amount) - expected;
  const over = Math.max(0, line.units - line.open);
  const says = over > 0 ? 'too many' : within(difference, expected, tolerance) ? 'fits' : difference > 0n ? 'dearer' : 'cheaper';
  return { says, expected: decimalText(expected), difference: decimalText(difference), over };
}
