/** Reservations, and the containers that goods travel in. */
export { AllocationModule } from './allocation.module.js';
export { AllocationService } from './allocation.service.js';
export { Containers } from './containers.service.js';
export { type EarmarkLine, Earmarks } from './earmarks.service.js';
export { type Holder, Reservations, type Spot } from './reservations.service.js';
export { onShelfSql } from './on-shelf.js';
export { spareSql } from './spare.js';
