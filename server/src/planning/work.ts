/** What planning does in threads. */
export { backTestAll, planAll } from './planning-work.js';
