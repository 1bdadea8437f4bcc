export { harmless, plain } from './harmless.js';
export { guessColumns, type ColumnField } from './guess.js';
export { readDate, readDecimal, readWhole, readYesNo } from './values.js';
export { codeMadeDay, dayMadeNumber, lostNoughts, postcodeCut, roundedNumber } from './damage.js';
