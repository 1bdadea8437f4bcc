/** Bills, and what goods really cost. */
export { BooksModule } from './books.module.js';
export { JournalQueries } from './journal.queries.js';
export { JournalService } from './journal.service.js';
export { closedThrough, mustBeOpen } from './periods.service.js';
export { Timetables } from './timetables.js';
export { ValueQueries } from './value.queries.js';
