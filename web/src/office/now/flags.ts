/** Something that happens at one moment, said over the hours of a chart. */
export interface Flag {
  /** From 0, the left end of the chart, to 1. */
  at: number;
  says: string;
}

/** What a letter of a flag takes of a chart of usual width. */
const LETTER = 0.0078;
const GAP = 0.012;

/**
 * Puts flags into rows in which no two words meet: row 0 is the lowest. A flag near the right end is read to its left. O(n²) for the
 * handful that a day has.
 */
export function flagRows<F extends Flag>(flags: readonly F[]): (F & { row: number; leftward: boolean })[] {
  const ends: { from: number; to: number }[][] = [];
  return [...flags]
    .sort((a, b) => a.at - b.at)
    .map((flag) => {
      const width = flag.says.length * LETTER + GAP;
      const leftward = flag.at + width > 1;
      const span = leftward ? { from: flag.at - width, to: flag.at } : { from: flag.at, to: flag.at + width };
      let row = 0;
      while (ends[row]?.some((e) => span.from < e.to && e.from < span.to)) row++;
      (ends[row] ??= []).push(span);
      return { ...flag, row, leftward };
    });
}
