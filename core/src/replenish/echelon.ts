/** So many of a part in one of an assembly. */
export interface PartUse {
  itemId: number;
  partId: number;
  units: number;
}

/**
 * What each part goes into, over all levels, and how many of it one of that holds: an assembly's demand is its parts' demand, and what
 * there is of it is what there is of them (echelon stock, Clark and Scarf 1960). Parts lists that hold themselves are cut where they
 * close. O(uses × levels).
 */
export function goesInto(uses: readonly PartUse[]): Map<number, Map<number, number>> {
  const above = new Map<number, PartUse[]>();
  for (const use of uses) above.set(use.partId, [...(above.get(use.partId) ?? []), use]);
  const all = new Map<number, Map<number, number>>();
  for (const partId of above.keys()) {
    const found = new Map<number, number>();
    const climb = (id: number, units: number, path: readonly number[]) => {
      for (const use of above.get(id) ?? []) {
        if (path.includes(use.itemId)) continue;
        found.set(use.itemId, (found.get(use.itemId) ?? 0) + units * use.units);
        climb(use.itemId, units * use.units, [...path, use.itemId]);
      }
    };
    climb(partId, 1, [partId]);
    all.set(partId, found);
  }
  return all;
}
