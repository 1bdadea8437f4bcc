/** Parcels, and what is proved before they are closed. */
export { PackingModule } from './packing.module.js';
export { ParcelsService } from './parcels.service.js';
export { inWords, ParcelPapers } from './parcel-papers.service.js';
