/** Goods that go from one site to another. */
export { GatheredDocuments } from './gathered-documents.js';
export { binsFor } from './bins-for.js';
export { type ApartFor, SettingApart } from './setting-apart.service.js';
export { TransferParcels } from './parcels.service.js';
export { TransfersQueries } from './transfers.queries.js';
export { Transfers } from './transfers.service.js';
export { TransfersModule } from './transfers.module.js';
