/** Calendars, departures, money and number series. */
export { CalendarQueries } from './calendar.queries.js';
export { CompanyModule } from './company.module.js';
export { Nightly } from './nightly.js';
export { FoundingService } from './founding.service.js';
