/** Where lots and numbers came from, where they are and who got them; and what is held everywhere. */
export { Recalls } from './recalls.service.js';
export { TracingModule } from './tracing.module.js';
