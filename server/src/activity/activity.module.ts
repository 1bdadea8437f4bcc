import { Global, Module } from '@nestjs/common';
import { ActivityController } from './activity.controller.js';
import { ActivityService } from './activity.service.js';
import { FindQueries } from './find.queries.js';
import { LineQueries } from './line.queries.js';
import { LiveService } from './live.service.js';
import { NowQueries } from './now.queries.js';
import { TapeQueries } from './tape.queries.js';
import { UndoService } from './undo.service.js';

@Global()
@Module({
  controllers: [ActivityController],
  providers: [ActivityService, UndoService, TapeQueries, LiveService, LineQueries, NowQueries, FindQueries],
  exports: [ActivityService, UndoService],
})
export class ActivityModule {}
