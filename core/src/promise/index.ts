/** When goods can leave: departures by a site's calendar, and what is promised by them. */
export {
  type Departure,
  DepartureBoard,
  type DepartureRule,
  departuresFrom,
  type OpenDay,
  promisedFor,
  type SiteCalendar,
} from './departures.js';
export { instantOf } from './site-clock.js';
