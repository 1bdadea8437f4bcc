export { harmless, plain } from './harmless.js';
export { guessColumns, type ColumnField } from './guess.js';
export { englishHead } from './head-words.js';
export { type Measure, readMeasure, unitInHead, unitsOf } from './measures.js';
export { readDate, readDecimal, readWhole, readYesNo } from './values.js';
export { codeMadeDay, dayMadeNumber, lostNoughts, postcodeCut, roundedNumber } from './damage.js';
