/** The steps that made the tables, in order. */
export { migrations } from './migrations/index.js';
