/** The made-up business. */
export { DemoLoader } from './demo.loader.js';
export { DemoModule } from './demo.module.js';
export { actAs } from './morning.js';
export { DEMO_PASSWORD } from './people.js';
