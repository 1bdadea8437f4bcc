export type * from './types.js';
export { TASK_KINDS, type FloorCommand, type FloorCommandKind, type TaskKind } from './commands.js';
export { flowOf, type Flow, type FlowRules, type FlowState, type Moment, type OwnInput } from './flow.js';
export { codebookOf, type BookItem } from './codebook.js';
export { findWords, type Found } from './find-words.js';
export { codeKey, resolve, type Meaning } from './resolve.js';
export * from './come-back.js';
export * from './gather.js';
export * from './inspect.js';
export * from './load-task.js';
export * from './move-task.js';
export { checkMove, checkTaken, movable, moveGoods } from './move.js';
export * from './load.js';
export * from './pack-rules.js';
export * from './pack-task.js';
export * from './pack.js';
export { cartOf, checkCart } from './pick-cart.js';
export { PASSED_OVER } from './pick-lots.js';
export * from './pick-rules.js';
export * from './pick-task.js';
export * from './pick-totes.js';
export * from './pick.js';
export * from './questions.js';
export * from './receive/index.js';
export * from './refill.js';
export * from './sort-task.js';
export * from './sort.js';
export * from './spot-count.js';
export * from './store.js';
export * from './take-in.js';
export { tally } from './tally.js';
export {
  binAt as tallyBinAt,
  checkTally,
  countedOf as talliedOf,
  isDone as isTallied,
  lotsListed,
  nextBin as nextTallyBin,
  openBins as openTallyBins,
  talliedIn,
  uncounted,
} from './tally-rules.js';
export * from './tally-task.js';
