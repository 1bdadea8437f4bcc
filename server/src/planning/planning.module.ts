import { Module } from '@nestjs/common';
import { OrdersModule } from '../orders/index.js';
import { PurchasingModule } from '../purchasing/index.js';
import { BackTests } from './back-tests.js';
import { BuyingController } from './buying.controller.js';
import { BuyingQueries } from './buying.queries.js';
import { BuyingRules } from './buying-rules.js';
import { BuyingService } from './buying.service.js';
import { CoverageQueries } from './coverage.queries.js';
import { DemandReading } from './demand-reading.service.js';
import { ItemPlanQueries } from './item-plan.queries.js';
import { LeadTimes } from './lead-times.queries.js';
import { PlanInputs } from './plan-inputs.queries.js';
import { Planner } from './planner.js';
import { PlanningFiles } from './planning.files.js';
import { PlansController } from './plans.controller.js';
import { PositionsQueries } from './positions.queries.js';
import { ProposalsQueries } from './proposals.queries.js';
import { RulesController } from './rules.controller.js';
import { RulesService } from './rules.service.js';
import { SourcesQueries } from './sources.queries.js';
import { TruthQueries } from './truth.queries.js';

/** What will be asked for, what to buy for it, and why. */
@Module({
  imports: [OrdersModule, PurchasingModule],
  controllers: [BuyingController, PlansController, RulesController],
  providers: [
    BackTests,
    BuyingQueries,
    BuyingRules,
    BuyingService,
    CoverageQueries,
    DemandReading,
    ItemPlanQueries,
    LeadTimes,
    PlanInputs,
    Planner,
    PlanningFiles,
    PositionsQueries,
    ProposalsQueries,
    RulesService,
    SourcesQueries,
    TruthQueries,
  ],
  exports: [DemandReading, Planner, BackTests],
})
export class PlanningModule {}
