export { checkReceive, countedUnits, daysBetween, lineOf, mostAllowed, palletIsIn, receivedOn, type ReceiveRefusal } from './rules.js';
export { destination } from './booking.js';
export { receive, shortLines } from './receive.js';
export * from './types.js';
export { proposedLot } from './proposed-lot.js';
export { checkWhole, wholeOf, type Whole } from './whole.js';
