/** What the order desk does to orders: key, quote, change, hold, cancel. */
export { CancellingService } from './cancelling.service.js';
export { EditingService } from './editing.service.js';
export { EntryService } from './entry.service.js';
export { HoldsService } from './holds.service.js';
export { OrderDeskModule } from './order-desk.module.js';
