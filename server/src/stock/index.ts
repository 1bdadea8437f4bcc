/** The ledger, what stock is worth, and what there is. */
export { checkLedger } from './ledger-check.js';
export { type Beside, LateMoves } from './late-moves.js';
export { LedgerService, type Posting, type SiteChange } from './ledger.service.js';
export { correctLot, lotFor, openLots } from './lots.js';
export { ON_ROAD } from './on-road.js';
export { StockModule } from './stock.module.js';
export { StockQueries } from './stock.queries.js';
export { enterValue, markExported } from './value/entries.js';
export { LandedService } from './value/landed.service.js';
export { rateOf } from './value/order-shares.js';
export { ValueModule } from './value/value.module.js';
export { ValueService, type Worth } from './value/value.service.js';
