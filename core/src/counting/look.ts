/** What a bin's balance is now, and what has gone in and out of it since somebody looked. Base units. */
export interface SinceLook {
  balance: number;
  cameIn: number;
  wentOut: number;
}

/**
 * What should have been there at the moment of the look: what the books have now, less what came in since, and what went out
 * since. So goods may move while they are counted, and a movement that is told late counts at the time at which it was made.
 */
export const expectedAt = ({ balance, cameIn, wentOut }: SinceLook): number => balance - cameIn + wentOut;

/** By how much the books are wrong: more than nought where more was there. */
export const varianceOf = (counted: number, expected: number): number => counted - expected;

/** A movement of goods of one kind, seen from a place that was counted. */
export interface LateMove {
  /** Units that it puts into the place; less than nought where it takes them out. */
  change: number;
  /** When the goods were moved, and when the place was looked at; milliseconds. */
  movedAt: number;
  lookedAt: number;
}

/**
 * What the books must be changed by beside a movement that is told after a count was posted: whoever counted had seen its effect
 * already where it was made before the look, so that the count has booked it once. Nought for all others.
 */
export const alreadySeen = ({ change, movedAt, lookedAt }: LateMove): number => (movedAt <= lookedAt && change !== 0 ? -change : 0);
