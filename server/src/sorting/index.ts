/** From the totes of a pooled round into the slots of a wall, an order in each. */
export { SortingQueries } from './sorting.queries.js';
export { SortingModule } from './sorting.module.js';
