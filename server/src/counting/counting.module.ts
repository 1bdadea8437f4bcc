import { Module } from '@nestjs/common';
import { AllocationModule } from '../allocation/index.js';
import { CatalogueModule } from '../catalogue/index.js';
import { SitesModule } from '../sites/index.js';
import { StockModule } from '../stock/index.js';
import { CountingController } from './counting.controller.js';
import { CountingFloor } from './counting.floor.js';
import { CountingQueries } from './counting.queries.js';
import { MissingGoods } from './missing-goods.js';
import { SpotCounts } from './spot-counts.service.js';
import { SpotDecisions } from './spot-decisions.service.js';

/** Counting what lies in a bin, and what the books say of it afterwards. */
@Module({
  imports: [StockModule, CatalogueModule, AllocationModule, SitesModule],
  controllers: [CountingController],
  providers: [CountingFloor, CountingQueries, MissingGoods, SpotCounts, SpotDecisions],
  exports: [MissingGoods, SpotCounts],
})
export class CountingModule {}
