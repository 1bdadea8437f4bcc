/** Orders to suppliers, from the draft to the last line. */
export { AnswersService } from './answers.service.js';
export { stateOf } from './order-lines.js';
export { PurchaseOrder, PurchaseOrderCharge, PurchaseOrderLine } from './purchase-order.entity.js';
export { ChargeDto } from './purchasing.dto.js';
export { PurchasingModule } from './purchasing.module.js';
export { PurchasingQueries } from './purchasing.queries.js';
export { PurchasingService } from './purchasing.service.js';
