/** What is built here of parts, and taken apart. */
export { BuildingModule } from './building.module.js';
export { Builds } from './builds.service.js';
export { Finishing } from './finishing.service.js';
