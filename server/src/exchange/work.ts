/** What this module does in threads. */
export { readTable } from './files/read-table.js';
