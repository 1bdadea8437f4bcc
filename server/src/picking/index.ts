/** Rounds, their stops and totes. */
export { PickingModule } from './picking.module.js';
export { PickingQueries } from './picking.queries.js';
export { ReleaseService } from './release.service.js';
export { freeTotes, holdRounds } from './totes.js';
