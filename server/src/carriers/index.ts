/** Who takes parcels away, in which boxes, and how they are spoken to. */
export { BoxesService } from './boxes.service.js';
export { CarrierDesk } from './carrier-desk.js';
export type { CarrierRow, LabelWish, Shipment } from './carrier-row.js';
export { RatesDto } from './carriers.dto.js';
export { CarriersModule } from './carriers.module.js';
export { CarriersQueries } from './carriers.queries.js';
export { CarriersService } from './carriers.service.js';
