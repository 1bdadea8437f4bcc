export { countOf, goodsWords, inPacks, packName, spell, toBase, type PackCount, type PackUnit } from './pack-units.js';
export { isSum, padValue, pressed, type PadKey } from './calculator.js';
export { holdsWords } from './holds.js';
export { commaLot, lotWords } from './lot-words.js';
