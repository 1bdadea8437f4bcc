/** A round that somebody is to walk. */
export interface ToShare {
  minutes: number;
  /** When its van leaves, in minutes from now; Infinity where none does. */
  leavesIn: number;
}

/** Who walks a round, by their index, and from when to when, in minutes from now. */
export interface Share {
  person: number;
  from: number;
  to: number;
}

/**
 * Shares rounds out among people: those whose van leaves first come first, among them the longest, each to whoever is free first.
 * `freeIn` is when each person is, in minutes from now. Nobody there: nobody walks. O(rounds × people).
 */
export function shareOut(rounds: readonly ToShare[], freeIn: readonly number[]): (Share | null)[] {
  const shares: (Share | null)[] = rounds.map(() => null);
  if (freeIn.length === 0) return shares;
  const free = [...freeIn];
  const order = [...rounds.keys()].sort((a, b) => compare(rounds[a], rounds[b]) || a - b);
  for (const i of order) {
    const person = free.indexOf(Math.min(...free));
    const from = free[person] ?? 0;
    const to = from + (rounds[i]?.minutes ?? 0);
    free[person] = to;
    shares[i] = { person, from, to };
  }
  return shares;
}

function compare(a: ToShare | undefined, b: ToShare | undefined): number {
  if (!a || !b || a.leavesIn === b.leavesIn) return (b?.minutes ?? 0) - (a?.minutes ?? 0);
  return a.leavesIn < b.leavesIn ? -1 : 1;
}
