export type { Grouping } from './grouping.js';
export { planRounds, type PlannedRound, type RoundsToPlan } from './plan-rounds.js';
export { brokenLimit, NO_LIMITS, type RoundLimits, type RoundOrder } from './problem.js';
export { minutesLeft, minutesOf, ownSeconds, type RoundWork, USUAL_PACE, type WalkPace } from './effort.js';
export { isWithin, proposeRounds, type RoundsToPropose, type WaitingToPick } from './propose.js';
export { shareOut, type Share, type ToShare } from './share-out.js';
