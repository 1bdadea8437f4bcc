/** Parcels on their way: what carriers say of them, and claims. */
export { TrackingService } from './tracking.service.js';
export { TrackingModule } from './tracking.module.js';
export { TrackingPolling } from './polling.js';
