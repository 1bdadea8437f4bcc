/** Lanes and the hand-over to carriers. */
export { LanesQueries } from './lanes.queries.js';
export { DispatchModule } from './dispatch.module.js';
