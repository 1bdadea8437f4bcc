export { allocate, type Allocated, type Allocation, type Demand, type StockRow, type StockRule } from './allocate.js';
export { chooseBins, type BinChoice, type BinStock, type Rotation } from './choose-bins.js';
export { reserve, type Grant, type WaitingOrder } from './reserve.js';
