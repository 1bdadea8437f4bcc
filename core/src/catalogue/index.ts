export { buildable, findCycle, type PartNeed } from './parts.js';
export { lacking, type Completeness } from './complete.js';
