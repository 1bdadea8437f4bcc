export { shares, wholeShares, type ShareBy, type ShareLine } from './apportion.js';
export { isEmpty, newPool, NotEnough, worth, type CostingMethod, type Layer, type ValuePool } from './pool.js';
export { atRate, goodsWorth, lateShares, shareOfUnits, sumOf, type LateLine, type LateShare } from './late.js';
export { matchLine, within, type BilledLine, type BillFinding, type Tolerance } from './bill.js';
export { CostingFault, landed, valued, type Charge, type CostMovement, type ReceiptLine, type Valuation } from './valued.js';
export { eachOf } from './each.js';
export { ACCOUNTS, accountFor, type Account } from './accounts.js';
export { reserveFor, splitWorth, type ReserveStep } from './reserve.js';
