export type { Grouping } from './grouping.js';
export { planRounds, type PlannedRound, type RoundsToPlan } from './plan-rounds.js';
export { brokenLimit, NO_LIMITS, type RoundLimits, type RoundOrder } from './problem.js';
