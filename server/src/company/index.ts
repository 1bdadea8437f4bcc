/** Calendars, departures, money and number series. */
export { type Boards, CalendarQueries, type Van } from './calendar.queries.js';
export { CompanyModule } from './company.module.js';
export { FoundingService } from './founding.service.js';
