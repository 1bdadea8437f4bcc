/** Suppliers with their prices, people and keys. */
export { SuppliersModule } from './suppliers.module.js';
export { SuppliersService } from './suppliers.service.js';
