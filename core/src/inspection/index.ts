export { INSPECTION_KINDS, ordinal, ruleFor, whyInspect, type InspectionKind, type InspectionRule, type PastDelivery } from './rules.js';
export {
  boundsWords,
  CHECK_KINDS,
  readAnswer,
  standOf,
  type AnswerReading,
  type Check,
  type CheckAnswers,
  type CheckKind,
} from './checklist.js';
export { whereTheyStand, type StandsAt, type Unjudged } from './standing.js';
