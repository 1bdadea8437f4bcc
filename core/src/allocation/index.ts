export { chooseBins, type BinChoice, type BinStock, type Rotation } from './choose-bins.js';
export { reserve, type Grant, type WaitingOrder } from './reserve.js';
