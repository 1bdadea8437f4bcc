import type { Dto } from '../api/client';

/** An act that can be taken back: one made here, or the newest of one's own on the tape. */
export interface LastAct {
  /** The command that it was asked for by; absent where it was made before the page was opened. */
  id?: string;
  title: string;
  detail: string;
  /** Its line of the tape; null until the server has answered. */
  activityId: number | null;
}

type Entry = Dto['TapeEntryDto'];
/** Lines that are no acts of a person with goods. */
const NO_ACTS: ReadonlySet<string> = new Set(['refusal', 'undo', 'late', 'let-go']);

/**
 * What an undo takes back: the last act that was made here, otherwise the newest of one's own. Where that one cannot be taken back
 * there is nothing to undo: never an older one in its place. `documents` are those of the task at hand: what was done for others is
 * not taken back here.
 */
export function lastActOf(acts: readonly LastAct[], entries: readonly Entry[], documents?: readonly string[]): LastAct | null {
  // What was taken back elsewhere, at a desk or from the list of tasks, stands in nobody's way.
  const own = acts.findLast((a) => !entries.some((e) => e.id === a.activityId && e.undone));
  if (own) return own;
  const newest = entries.find((e) => !e.undone && !NO_ACTS.has(e.kind));
  if (newest && documents && !documents.includes(newest.document ?? '')) return null;
  return newest?.undoable ? { title: newest.title, detail: newest.detail, activityId: newest.id } : null;
}
