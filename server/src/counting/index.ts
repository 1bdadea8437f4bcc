/** Counting what lies in a bin, and what the books say of it afterwards. */
export { CountingModule } from './counting.module.js';
export { type CountedSpot, MissingGoods } from './missing-goods.js';
export { SpotCounts } from './spot-counts.service.js';
