/** Who takes parcels away, in which boxes, and how they are spoken to. */
export { CarrierClient, type CarrierRow, type Shipment } from './carrier.client.js';
export { RateDto } from './carriers.dto.js';
export { CarriersModule } from './carriers.module.js';
