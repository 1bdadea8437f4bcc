/** From wherever goods wait to the shelf. */
export { PutawayModule } from './putaway.module.js';
export { StoringService } from './storing.service.js';
