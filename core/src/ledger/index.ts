export {
  balanceKey,
  changesOf,
  conditionAfter,
  CONDITIONS,
  faultOf,
  isOurs,
  opposite,
  post,
  type BalanceChange,
  type Condition,
  type LedgerFault,
  type Movement,
  type StockKey,
} from './ledger.js';
export { available, whyAvailable, type StockFigures, type WhyTerm } from './available.js';
export { channelUnits, type ChannelRule } from './channel-units.js';
