/** When goods can leave: departures by a site's calendar, and what is promised by them. */
export {
  type Departure,
  DepartureBoard,
  type DepartureRule,
  departuresFrom,
  type OpenDay,
  promisedFor,
  type SiteCalendar,
  worksOn,
} from './departures.js';
export { instantOf } from './site-clock.js';
export { earliestFor, type Flow, type Projection, projectionOf, promisableAt, withOwn } from './projection.js';
export { type Fetching, type Sending, type SendingSite, type WantedLine, type Way, waysToSend } from './ways.js';
export { type Hit, hitBy, metBy, type Promised } from './late.js';
