/**
 * A way from `start` back to itself through a parts list, as the ids met on it (first and last are `start`), or null
 * where there is none. `partsOf` gives the parts of an item; O(items + parts).
 */
export function findCycle<Id>(start: Id, partsOf: (id: Id) => readonly Id[]): Id[] | null {
  const seen = new Set<Id>();
  const path: Id[] = [start];
  const walk = (id: Id): boolean => {
    for (const part of partsOf(id)) {
      if (part === start) return true;
      if (seen.has(part)) continue;
      seen.add(part);
      path.push(part);
      if (walk(part)) return true;
      path.pop();
    }
    return false;
  };
  return walk(start) ? [...path, start] : null;
}

export interface PartNeed {
  /** Base units free to use. */
  available: number;
  /** Base units in one kit; at least 1. */
  units: number;
}

/** How many kits the parts are enough for: the smallest of available ÷ needed, never below nought. No parts: none. */
export function buildable(needs: readonly PartNeed[]): number {
  if (needs.length === 0) return 0;
  return Math.max(0, Math.min(...needs.map((n) => Math.floor(n.available / n.units))));
}
