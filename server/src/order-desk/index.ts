/** What the order desk does to orders: key, quote, change, hold, cancel; and what its channels say of them afterwards. */
export { CancellingService } from './cancelling.service.js';
export { EntryService } from './entry.service.js';
export { type Followed, FollowingService } from './following.service.js';
export { HoldsService } from './holds.service.js';
export { OrderDeskModule } from './order-desk.module.js';
