import { Module } from '@nestjs/common';
import { AllocationModule } from '../allocation/index.js';
import { CatalogueModule } from '../catalogue/index.js';
import { CountingModule } from '../counting/index.js';
import { OrdersModule } from '../orders/index.js';
import { SitesModule } from '../sites/index.js';
import { StockModule } from '../stock/index.js';
import { BoardController } from './board.controller.js';
import { BoardQueries } from './board.queries.js';
import { PickingController } from './picking.controller.js';
import { PickingFloor } from './picking.floor.js';
import { PickingQueries } from './picking.queries.js';
import { PickingService } from './picking.service.js';
import { RoundsQueries } from './rounds.queries.js';
import { ReleaseService } from './release.service.js';
import { RecallService } from './recall.service.js';
import { ResultsService } from './results.service.js';
import { RoundPapers } from './round-papers.js';
import { SheetQueries } from './sheet.queries.js';
import { SendingService } from './sending.service.js';
import { PeoplePaceQueries } from './people-pace.queries.js';
import { WalksQueries } from './walks.queries.js';
import { MissingService } from './missing.service.js';
import { SharesService } from './shares.service.js';
import { ShortService } from './short.service.js';
import { PickingFiles } from './picking.files.js';
import { CartsService } from './carts.service.js';
import { DailyRuns } from './daily-runs.service.js';
import { RunPlans } from './run-plan.service.js';
import { RunRules } from './run-rules.service.js';
import { RunsController } from './runs.controller.js';
import { WaitingQueries } from './waiting.queries.js';

@Module({
  imports: [StockModule, CatalogueModule, AllocationModule, SitesModule, OrdersModule, CountingModule],
  controllers: [PickingController, BoardController, RunsController],
  providers: [
    BoardQueries,
    SheetQueries,
    RoundPapers,
    ResultsService,
    SendingService,
    PickingFiles,
    PickingFloor,
    PickingQueries,
    RoundsQueries,
    PickingService,
    CartsService,
    ReleaseService,
    RecallService,
    ShortService,
    SharesService,
    MissingService,
    PeoplePaceQueries,
    WalksQueries,
    WaitingQueries,
    RunPlans,
    RunRules,
    DailyRuns,
  ],
  exports: [RunRules, WaitingQueries, PickingQueries, PickingService, ReleaseService, RecallService, ShortService],
})
export class PickingModule {}
