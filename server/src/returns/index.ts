/** Goods that go back to suppliers. */
export { ReturnsModule } from './returns.module.js';
export { SupplierReturns } from './supplier-returns.service.js';
