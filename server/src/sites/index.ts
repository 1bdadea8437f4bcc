/** Sites, their places, aisles, zones and plan. */
export { doorId } from './doors.js';
export { dockOf, firstPlace } from './first-place.js';
export { FloorQueries } from './floor.queries.js';
export { PlacesQueries } from './places.queries.js';
export { SitesModule } from './sites.module.js';
export { WalkingOrder } from './walking-order.service.js';
export { standsAtSql } from './standing.js';
export { addPlace, addSite, keepSite, keepStanding, putInto, toSite } from './place-writes.js';
