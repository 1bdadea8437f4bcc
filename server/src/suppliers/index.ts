/** Suppliers with their prices, people and keys. */
export { Supplier, SupplierItem } from './supplier.entity.js';
export { SuppliersModule } from './suppliers.module.js';
export { SuppliersService } from './suppliers.service.js';
