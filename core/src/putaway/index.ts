export { roomFor, suggestAll, suggestBins } from './suggest.js';
export type { PutawayBin, PutawayGoods, PutawaySuggestion } from './types.js';
