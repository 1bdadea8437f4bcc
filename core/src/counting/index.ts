/** Counting: what should have been there, how far off is too far, who counts where, what is due, and why a line may be off. */
export { type Cause, causesOf, type MatchingMove, type OffLine, type WaitingGoods } from './causes.js';
export { type Countable, type Due, dueFor } from './due.js';
export { alreadySeen, expectedAt, type LateMove, type SinceLook, varianceOf } from './look.js';
export { type AreaBin, splitByArea } from './split.js';
export {
  accuracyOf,
  type CountedLine,
  judge,
  type Judgement,
  type Tolerance,
  type ToleranceLevel,
  type ToleranceLevels,
} from './tolerance.js';
