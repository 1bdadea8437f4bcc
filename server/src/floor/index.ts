/** The one door for what the floor does, and the one for its tasks. */
export { AboutWords } from './about.service.js';
export { FloorCommands } from './floor-commands.js';
export { FloorTasks, siteKey } from './floor-tasks.js';
export { BookPlaceDto, BundleDto, FloorAnswerDto, FloorCommandDto, HowDto, MissingLineDto } from './floor.dto.js';
export { FloorModule } from './floor.module.js';
export { withUnions } from './unions.js';
