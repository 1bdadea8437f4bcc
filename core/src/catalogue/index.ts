export { buildable, findCycle, type PartNeed } from './parts.js';
export { lacking, type Completeness } from './complete.js';
export { foldedSku, keptSku, SKU, SKU_SAYS } from './sku.js';
