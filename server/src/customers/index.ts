/** Who buys. */
export { CustomersModule } from './customers.module.js';
export { CustomersService } from './customers.service.js';
