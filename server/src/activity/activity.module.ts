import { forwardRef, Global, Module } from '@nestjs/common';
import { CatalogueModule } from '../catalogue/catalogue.module.js';
import { ActivityController } from './activity.controller.js';
import { ActivityService } from './activity.service.js';
import { FindQueries } from './find.queries.js';
import { LookQueries } from './look.queries.js';
import { LineQueries } from './line.queries.js';
import { LiveService } from './live.service.js';
import { NowQueries } from './now.queries.js';
import { TapeQueries } from './tape.queries.js';
import { UndoService } from './undo.service.js';

@Global()
@Module({
  imports: [forwardRef(() => CatalogueModule)],
  controllers: [ActivityController],
  providers: [ActivityService, LookQueries, UndoService, TapeQueries, LiveService, LineQueries, NowQueries, FindQueries],
  exports: [ActivityService, UndoService],
})
export class ActivityModule {}
