/** What the order desk does to orders: key, quote, change, hold, cancel; and what its channels say of them afterwards. */
export { type Followed, FollowingService } from './following.service.js';
export { OrderDeskModule } from './order-desk.module.js';
