/** Orders to suppliers, from the draft to the last line. */
export { AnswersService } from './answers.service.js';
export { countOnLine, stateOf } from './order-lines.js';
export { ChargeDto } from './purchasing.dto.js';
export { PurchasingModule } from './purchasing.module.js';
export { PurchasingQueries } from './purchasing.queries.js';
export { PurchasingService } from './purchasing.service.js';
export { DroppedOrders } from './dropped-orders.js';
