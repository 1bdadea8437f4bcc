import { Module } from '@nestjs/common';
import { CatalogueModule } from '../catalogue/index.js';
import { ActPictures } from './act-pictures.service.js';
import { DeskController } from './desk.controller.js';
import { FirstStepsQueries } from './first-steps.queries.js';
import { FindQueries } from './find.queries.js';
import { HealthController } from './health.controller.js';
import { HealthQueries } from './health.queries.js';
import { LineQueries } from './line.queries.js';
import { LiveService } from './live.service.js';
import { LookQueries } from './look.queries.js';
import { PaceQueries } from './pace.queries.js';
import { NowQueries } from './now.queries.js';
import { OutboxController } from './outbox.controller.js';
import { SharedReading } from './shared-reading.js';
import { TapeQueries } from './tape.queries.js';
import { DeskFiles } from './desk.files.js';

/** What looks at the whole house at once: Now, the Line, find, look-up, the tape and what waits to leave the building. */
@Module({
  imports: [CatalogueModule],
  controllers: [DeskController, HealthController, OutboxController],
  providers: [
    DeskFiles,
    HealthQueries,
    TapeQueries,
    LiveService,
    LineQueries,
    PaceQueries,
    NowQueries,
    FirstStepsQueries,
    FindQueries,
    LookQueries,
    SharedReading,
    ActPictures,
  ],
})
export class DeskModule {}
