/** Sales orders and their states. */
export { type Coming, ComingQueries, type Going } from './coming.js';
export { urgentSql } from './announcing.js';
export { checkOrders } from './order-check.js';
export { addHold, clearHolds, followOwnHolds, HOLD_KINDS, type HoldKind, OWN_HOLDS, sayHeld } from './holds.js';
export { partsOf } from './kits.js';
export { keepChanges } from './order-changes.js';
export { type FromChannel, type IncomingOrder, OrderIntake } from './order-intake.service.js';
export { changeLine, changeOrder } from './order-rows.js';
export { OrderWriter } from './order-writer.js';
export { OrderStates } from './order-states.service.js';
export { ReleasedDto } from './orders.dto.js';
export { OrdersModule } from './orders.module.js';
export { OrdersQueries } from './orders.queries.js';
export { OrderPapers } from './order-papers.js';
export { PromiseDto } from './ways.dto.js';
export { WaysQueries } from './ways.queries.js';
