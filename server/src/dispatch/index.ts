/** Lanes and the hand-over to carriers. */
export { DispatchModule } from './dispatch.module.js';
