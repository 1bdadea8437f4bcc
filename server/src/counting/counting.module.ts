import { Module } from '@nestjs/common';
import { AllocationModule } from '../allocation/index.js';
import { CatalogueModule } from '../catalogue/index.js';
import { SitesModule } from '../sites/index.js';
import { StockModule } from '../stock/index.js';
import { AccuracyQueries } from './accuracy.queries.js';
import { CountedAlready } from './counted-already.js';
import { Corrections } from './corrections.service.js';
import { CountOnPassing } from './passing.service.js';
import { CountRules } from './count-rules.service.js';
import { CountsController } from './counts.controller.js';
import { CountsQueries } from './counts.queries.js';
import { Counts } from './counts.service.js';
import { ReviewQueries } from './review.queries.js';
import { ReviewMends } from './review-mends.service.js';
import { TakingOut } from './taking-out.service.js';
import { Reviews } from './review.service.js';
import { Tallies } from './tally.service.js';
import { CountingController } from './counting.controller.js';
import { CountingFloor } from './counting.floor.js';
import { CountingQueries } from './counting.queries.js';
import { MissingGoods } from './missing-goods.js';
import { SpotCounts } from './spot-counts.service.js';
import { SpotDecisions } from './spot-decisions.service.js';

/** Counting what lies in a bin, and what the books say of it afterwards. */
@Module({
  imports: [StockModule, CatalogueModule, AllocationModule, SitesModule],
  controllers: [CountingController, CountsController],
  providers: [
    AccuracyQueries,
    CountedAlready,
    CountingFloor,
    CountingQueries,
    CountRules,
    CountOnPassing,
    Corrections,
    Counts,
    CountsQueries,
    MissingGoods,
    ReviewQueries,
    ReviewMends,
    Reviews,
    TakingOut,
    SpotCounts,
    SpotDecisions,
    Tallies,
  ],
  exports: [CountRules, Counts, MissingGoods, Reviews, SpotCounts],
})
export class CountingModule {}
