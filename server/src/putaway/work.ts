/** What putting away does in threads. */
export { slotsOf } from './slots.js';
