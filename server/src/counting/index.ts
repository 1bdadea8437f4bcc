/** Counting what lies in a bin, and what the books say of it afterwards. */
export { CountRules } from './count-rules.service.js';
export { Counts } from './counts.service.js';
export { Reviews } from './review.service.js';
export { CountingModule } from './counting.module.js';
export { type CountedSpot, type Instead, MissingGoods, type TakenAway } from './missing-goods.js';
export { SpotCounts } from './spot-counts.service.js';
