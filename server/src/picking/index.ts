/** Rounds, their stops and totes. */
export { PickingModule } from './picking.module.js';
export { DailyRuns } from './daily-runs.service.js';
export { RunRules } from './run-rules.service.js';
export { pickable } from './pickable.js';
export { PickingQueries } from './picking.queries.js';
export { RecallService } from './recall.service.js';
export { ReleaseService } from './release.service.js';
export { WaitingQueries } from './waiting.queries.js';
export { roundOf, type RoundRow } from './rounds.js';
export { backIntoTote, freeTotes, holdRounds, holdUseOf, toteOf } from './totes.js';
