/** What customers send back: announced, taken in, and settled. */
export { ComingBack } from './coming-back.service.js';
export { checkReturns } from './return-check.js';
export { CustomerReturnsModule } from './customer-returns.module.js';
export { CustomerReturns, type ChannelReturn } from './customer-returns.service.js';
export { Settling } from './settling.service.js';
