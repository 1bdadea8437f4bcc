/** Scales: set up for a site, and asked what lies on them. */
export { WeighingModule } from './weighing.module.js';
