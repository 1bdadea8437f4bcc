export { palletsOf, shortOfMinimum, type LeastOrder, type MinimumShort, type OrderSize } from './minimum.js';
export { moreForNothing, priceFor, type ListPrice, type PriceFound } from './price-list.js';
export { ANY_DAY, longestWait, orderDay } from './order-days.js';
export { dueDay } from './due-day.js';
