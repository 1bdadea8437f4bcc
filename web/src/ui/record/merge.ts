/** A field that two people have changed, each in another way. */
export interface Conflict {
  field: string;
  theirs: unknown;
  mine: unknown;
}

export interface Merged {
  /** Fields that only they have changed, with what they say now. */
  taken: ReadonlyMap<string, unknown>;
  /** Fields that both have changed. */
  conflicts: readonly Conflict[];
}

/** Values are the same where they read the same: an empty field and one that is not there are both nothing. */
export const sameValue = (a: unknown, b: unknown): boolean => JSON.stringify(a ?? '') === JSON.stringify(b ?? '');

/**
 * Brings together what a form began from, what stands there now, and what was typed meanwhile, field by field: what only they
 * changed is taken, what only I changed stays, and what both changed alike is no conflict. O(fields).
 */
export function mergeRecord(base: object, theirs: object, mine: object): Merged {
  const values = (of: object) => of as Readonly<Record<string, unknown>>;
  const taken = new Map<string, unknown>();
  const conflicts: Conflict[] = [];
  for (const field of Object.keys(values(base))) {
    const [was, now, typed] = [values(base)[field], values(theirs)[field], values(mine)[field]];
    if (sameValue(was, now) || sameValue(now, typed)) continue;
    if (sameValue(was, typed)) taken.set(field, now);
    else conflicts.push({ field, theirs: now, mine: typed });
  }
  return { taken, conflicts };
}
