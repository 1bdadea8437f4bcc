/** Bills, and what goods really cost. */
export { BooksModule } from './books.module.js';
