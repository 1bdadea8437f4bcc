/** Arrivals and what is booked in at the dock. */
export { ReceivingModule } from './receiving.module.js';
export { ReceivingService } from './receiving.service.js';
export { SupplierDocuments } from './supplier-documents.service.js';
