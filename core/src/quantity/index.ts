export { countOf, goodsWords, inPacks, packName, spell, toBase, type PackCount, type PackUnit } from './pack-units.js';
