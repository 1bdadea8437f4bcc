/** By worth: the few that make four fifths of it, those up to nineteen twentieths, and the rest (Dickie 1951). */
export type Worth = 'A' | 'B' | 'C';
/** By how even weeks are: their spread up to half of their mean, up to all of it, and beyond. */
export type Evenness = 'X' | 'Y' | 'Z';

const WORTH = [0.8, 0.95] as const;
const EVEN = [0.5, 1] as const;

/** Grades by what a year's demand costs. What costs nothing is C. O(n log n). */
export function gradesOf<T extends { yearValue: number }>(items: readonly T[]): Map<T, Worth> {
  const all = items.reduce((n, i) => n + i.yearValue, 0);
  const grades = new Map<T, Worth>();
  let sum = 0;
  for (const item of [...items].sort((a, b) => b.yearValue - a.yearValue)) {
    // Graded by what those before it make, so that one that makes all of it is A.
    const share = all <= 0 || item.yearValue <= 0 ? 1 : sum / all;
    grades.set(item, share < WORTH[0] ? 'A' : share < WORTH[1] ? 'B' : 'C');
    sum += item.yearValue;
  }
  return grades;
}

/** How even demand is, of its weekly mean and spread. */
export function evennessOf(weekMean: number, weekSd: number): Evenness {
  const variation = weekMean <= 0 ? Infinity : weekSd / weekMean;
  return variation <= EVEN[0] ? 'X' : variation <= EVEN[1] ? 'Y' : 'Z';
}
