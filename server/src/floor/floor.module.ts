import { Global, Module } from '@nestjs/common';
import { clearWhere, Retention } from '../platform/index.js';
import { CatalogueModule } from '../catalogue/index.js';
import { AboutWords } from './about.service.js';
import { BookQueries } from './book.queries.js';
import { FloorCommands } from './floor-commands.js';
import { FloorController } from './floor.controller.js';
import { FloorPost } from './floor-post.service.js';
import { FloorTasks } from './floor-tasks.js';
import { Questions } from './questions.service.js';
import { Refusals } from './refusals.service.js';

/** The floor's one door for commands and one for tasks; the modules that do the work register with it. */
@Global()
@Module({
  imports: [CatalogueModule],
  controllers: [FloorController],
  providers: [AboutWords, FloorCommands, FloorTasks, FloorPost, Questions, Refusals, BookQueries],
  exports: [AboutWords, FloorCommands, FloorTasks],
})
export class FloorModule {
  constructor(retention: Retention) {
    retention.register({
      what: 'questions that were answered',
      keptFor: 'keepDeliveries',
      clear: (s, before) => clearWhere(s, 'floor_question', 'answered_at < ?', [before]),
    });
  }
}
