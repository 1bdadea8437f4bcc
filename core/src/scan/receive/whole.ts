import { accepted, refuse } from '../feedback.js';
import type { Codebook, Refusal } from '../types.js';
import { emptyHands, type Now, type Result } from './booking.js';
import { receivedOn } from './rules.js';
import type { ReceiveLine, ReceiveState, ReceiveTask } from './types.js';

/** What may be booked in as it stands on the paper, and what must be counted before that or whatever happens. */
export interface Whole {
  lines: readonly { line: ReceiveLine; units: number }[];
  /** Lines of the sample that are not all here yet. */
  sample: readonly ReceiveLine[];
  /** Lines with goods to come that are counted in any case: kept by lot or number, or to be looked at. */
  counted: readonly ReceiveLine[];
}

/**
 * Sorts what is left of a delivery. The sample is drawn from all its lines by the document's code, so that it stays the same
 * whoever receives and whatever has come, and nobody chooses the lines that are easy to count. O(lines × log lines).
 */
export function wholeOf(task: ReceiveTask, items: Codebook['items'], state: Pick<ReceiveState, 'pending'>): Whole {
  const left = (line: ReceiveLine) => line.ordered - receivedOn(task, state, line.lineId);
  const plain = (line: ReceiveLine) => items[line.itemId]?.tracking === 'none' && !Object.hasOwn(task.inspect, line.itemId);
  const wholes = task.lines.filter((l) => l.ordered > 0 && plain(l));
  const drawn = [...wholes].sort((a, b) => draw(task.document, a) - draw(task.document, b) || a.lineId - b.lineId);
  const open = wholes.filter((l) => left(l) > 0);
  const sample = drawn.slice(0, task.whole?.sample ?? 0).filter((l) => left(l) > 0);
  return {
    lines: open.map((line) => ({ line, units: left(line) })),
    sample,
    counted: task.lines.filter((l) => left(l) > 0 && !plain(l)),
  };
}

/** Why what is left cannot be booked in as it stands on the paper; null where it may be. The same on the phone and the server. */
export function checkWhole(task: ReceiveTask, whole: Whole): Refusal | null {
  if (!task.whole?.may)
    return {
      band: 'not-this',
      title: 'Not as a whole',
      detail: 'You may not book in what was not counted. Count it, or fetch somebody who may',
    };
  if (whole.lines.length === 0)
    return { band: 'not-this', title: 'Nothing is left', detail: `All of ${task.document} that can come so is in` };
  const lines = whole.sample.length === 1 ? 'a line' : `${whole.sample.length} lines`;
  return whole.sample.length > 0
    ? {
        band: 'not-this',
        title: 'Count the sample first',
        detail: `All of ${lines} must be here, counted, before the rest is taken as it stands on the paper`,
      }
    : null;
}

/** Books in what is left, at the place where goods go now. */
export function bookWhole({ task, book, state, id, how }: Now): Result {
  const whole = wholeOf(task, book.items, state);
  const refusal = checkWhole(task, whole);
  if (refusal) return refuse(state, refusal, { id });
  const to = state.to ?? task.dock;
  const lines = whole.lines.map(({ line, units }) => ({ lineId: line.lineId, units }));
  return {
    state: emptyHands(state),
    feedback: accepted(task.document, `${lines.length === 1 ? '1 line' : `${lines.length} lines`} as on the paper, to ${to.code}`),
    commands: [{ kind: 'receive-whole', id, document: task.document, lines, toPlaceId: to.id, how }],
  };
}

/** A number from 0 to 2³² that is a line's own in this document (FNV-1a). */
function draw(document: string, line: ReceiveLine): number {
  let hash = 0x811c9dc5;
  for (const char of `${document}/${line.lineId}`) hash = Math.imul(hash ^ char.charCodeAt(0), 0x01000193) >>> 0;
  return hash;
}
