/** Sales orders and their states. */
export { checkOrders } from './order-check.js';
export { OrderIntake } from './order-intake.service.js';
export { OrderStates } from './order-states.service.js';
export { ReleasedDto } from './orders.dto.js';
export { OrdersModule } from './orders.module.js';
export { OrdersQueries } from './orders.queries.js';
export { OrderPapers } from './order-papers.js';
